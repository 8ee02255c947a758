"""What a kind of block needs to be said, and what it can take: by the roles of what people write, not by its words.

A new kind that states its sayings here is understood in messages at once.
"""

import re
from collections.abc import Callable, Mapping
from functools import cache
from string import Formatter
from typing import NamedTuple

Roles = Mapping[str, str]

AIMS = {"effort": "at {}", "heart": "heart {}"}
RACED = {**AIMS, "cap": "cap {}", "company": "{}"}
BREAK = {"between": "break {}", "rest": "break {}"}
RESTS = {"rest": "rest {}", "within": "rest {}", "between": "rest {}", "needed": ""}
ON_LINES = "~"  # before what is written behind each move instead of behind the heading
BEFORE = "<"  # before what is written in front of each move
UNDER_A_MINUTE = re.compile(r"\b0:(\d\d)(?=/)|(?<=/)0:(\d\d)\b")


@cache
def _fields(head: str) -> frozenset[str]:
    return frozenset(name for _, name, _, _ in Formatter().parse(head) if name)


@cache
def _needs(head: str, flags: tuple[str, ...], times: str) -> frozenset[str]:
    return _fields(head) | set(flags) | ({times} if times else set())


class Saying(NamedTuple):
    """One way to say a kind's first words by roles.

    ``head`` is the slate's own heading with roles in braces, ``flags`` are roles without a figure that it needs too,
    ``takes`` how further ones are written behind it. ``wants`` has to be asked for where nobody said it. It stands
    above ``least`` to ``most`` lines. ``times`` repeats the whole block instead, with the rest between.
    ``derive`` works out roles that follow from others.
    """

    head: str
    takes: Mapping[str, str] = {}
    flags: tuple[str, ...] = ()
    wants: str = ""
    least: int = 0
    most: int | None = None
    times: str = ""
    derive: Callable[[Roles], Roles] | None = None

    @property
    def fields(self) -> frozenset[str]:
        """Roles whose figures stand in its first words."""
        return _fields(self.head)

    @property
    def needs(self) -> frozenset[str]:
        """Roles without which it is not this."""
        return _needs(self.head, self.flags, self.times)

    def heading(self, roles: Roles) -> str:
        """The slate's own heading."""
        more = [
            said.format(roles[role]) for role, said in self.takes.items()
            if role in roles and role not in self.fields and said[:1] not in (ON_LINES, BEFORE)
        ]  # fmt: skip
        head = self.head.format(**roles)
        return ", ".join(
            filter(None, [UNDER_A_MINUTE.sub(lambda found: found[1] or found[2], head), *more])
        )

    def before(self, roles: Roles) -> str:
        """How much of each of its moves where none is written."""
        said = [
            said.removeprefix(BEFORE).format(roles[role])
            for role, said in self.takes.items()
            if role in roles and said.startswith(BEFORE)
        ]
        return "".join(said)

    def behind(self, roles: Roles) -> str:
        """What is written behind each of its moves."""
        said = [
            said.removeprefix(ON_LINES).format(roles[role])
            for role, said in self.takes.items()
            if role in roles and said.startswith(ON_LINES)
        ]
        return "".join(f" {one}" for one in said)


def product(length: str, times: int) -> str:
    """A length as m:ss, so many times.

    >>> product("1:30", 6)
    '9:00'
    """
    minutes, seconds = length.split(":")
    total = times * (60 * int(minutes) + int(seconds))
    return f"{total // 60}:{total % 60:02}"
