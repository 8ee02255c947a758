"""A person's own numbered paces, as a coach numbers them: metres a second, a split, or a cadence."""

import re
from typing import Annotated, Literal

from pydantic import Field

from lovrit.core.clock import clock, number, read_clock
from lovrit.core.values import LovritError, Value

PaceUnit = Literal["m/s", "/500 m", "/km", "a minute"]
METRES = {"/500 m": 500, "/km": 1000}
PACE_UNITS = r"m/s|/\s*500\s*m|/\s*km|a minute|/\s*min"
WRITTEN = re.compile(
    rf"^(\d{{1,2}})\s*[:=]?\s+(\d+(?:\.\d+)?|\d+:[0-5]\d)\s*({PACE_UNITS})$", re.IGNORECASE
)
MOST = 20


class UnclearPace(LovritError):
    """Paces that can't be read."""


class OwnPace(Value):
    """What a person's pace of this number is: metres a second, seconds for 500 m or a kilometre, or beats a minute."""

    number: Annotated[int, Field(ge=1, le=MOST)]
    value: Annotated[float, Field(gt=0, le=3600)]
    unit: PaceUnit

    @property
    def metres_s(self) -> float | None:
        """Metres a second; None for a cadence."""
        if self.unit == "a minute":
            return None
        return self.value if self.unit == "m/s" else METRES[self.unit] / self.value

    @property
    def figure(self) -> str:
        """The figure alone: a clock for a split."""
        return clock(self.value) if self.unit in METRES else number(self.value)

    def __str__(self) -> str:
        return f"{self.figure}{'' if self.unit in METRES else ' '}{self.unit}"


def read_paces(text: str) -> tuple[OwnPace, ...]:
    """Paces written as ``3 2.8 m/s, 4 2:05/500 m, 5 34 a minute``, by number.

    Raises:
        UnclearPace: naming the one that can't be read, or that is there twice.
    """
    found: dict[int, OwnPace] = {}
    for part in filter(None, (part.strip() for part in text.split(","))):
        one = _read(part)
        if one.number in found:
            raise UnclearPace(f"Pace {one.number} is there twice.")
        found[one.number] = one
    return tuple(found[key] for key in sorted(found))


def _read(part: str) -> OwnPace:
    match = WRITTEN.match(part)
    value = (read_clock(match[2]) if ":" in match[2] else float(match[2])) if match else 0
    if not match or not 0 < value <= 3600 or not 1 <= int(match[1]) <= MOST:
        raise UnclearPace(
            f"“{part}” is no pace; write its number and what it is, such as 3 2.8 m/s or 3 2:05/500 m."
        )
    return OwnPace(number=int(match[1]), value=value, unit=_unit(match[3]))


def _unit(text: str) -> PaceUnit:
    plain = "".join(text.lower().split())
    units: dict[str, PaceUnit] = {"m/s": "m/s", "/500m": "/500 m", "/km": "/km"}
    return units.get(plain, "a minute")


def write_paces(paces: tuple[OwnPace, ...]) -> str:
    """Paces as they are written.

    >>> write_paces(read_paces("4 2:05/500 m, 3 2.8 m/s"))
    '3 2.8 m/s, 4 2:05/500 m'
    """
    return ", ".join(f"{one.number} {one}" for one in paces)


def spread(paces: tuple[OwnPace, ...]) -> str:
    """From the first of these paces to the last, the unit once where it is one.

    >>> spread(read_paces("3 2.6 m/s, 4 2.9 m/s")), spread(read_paces("3 2:05/500 m"))
    ('2.6 to 2.9 m/s', '2:05/500 m')
    """
    first, last = paces[0], paces[-1]
    if first == last:
        return str(last)
    return f"{first.figure if first.unit == last.unit else first} to {last}"


def within(paces: tuple[OwnPace, ...], low: float, high: float) -> tuple[OwnPace, ...]:
    """The paces with numbers from low to high."""
    return tuple(one for one in paces if low <= one.number <= high)
