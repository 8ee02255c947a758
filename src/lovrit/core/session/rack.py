"""The rack of structures to start from."""

import tomllib
from functools import cache
from importlib.resources import files

from lovrit.core.values import Value


class Shape(Value):
    """A structure by its shape: what it is for, and a sample of it on the slate."""

    key: str
    name: str
    purpose: str
    slate: str

    @property
    def head(self) -> str:
        """The line that begins its block."""
        return self.slate.split("\n", 1)[0]

    @property
    def whole(self) -> str:
        """A session around it: warm first, easy at the end."""
        return f"warm-up 6:00 at 3\n\n{self.slate}\ncool-down 3:00 at 2\n"

    @property
    def titled(self) -> str:
        """The same with its name, where nothing else is written yet."""
        return f"title: {self.name[:1].upper()}{self.name[1:]}\n\n{self.whole}"


@cache
def rack() -> tuple[Shape, ...]:
    """All structures, in the order of the data."""
    data = tomllib.loads(files("lovrit.core.session").joinpath("rack.toml").read_text("utf-8"))
    return tuple(
        Shape(key=key, name=one["name"], purpose=one["purpose"], slate=one["slate"].strip() + "\n")
        for key, one in data.items()
    )
