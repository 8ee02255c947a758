"""Highest heart rate from age: published formulas, each with how far it is off. A club chooses; a test beats them all.

The figures are from memory and to be checked: traditional (no one source), Tanaka, Monahan and Seals 2001, Gellish and
others 2007, Nes and others 2013, and for women Gulati and others 2010.
"""

from typing import Literal, NamedTuple

Formula = Literal["tanaka", "gellish", "nes", "traditional", "gulati"]


class ByAge(NamedTuple):
    """Beats a minute as ``at_birth`` less ``a_year`` for each year, with its error (one standard deviation)."""

    words: str
    at_birth: float
    a_year: float
    error: float

    def at(self, age: int) -> int:
        """The highest of somebody of an age in years, in beats a minute."""
        return round(self.at_birth - self.a_year * age)


BY_AGE: dict[Formula, ByAge] = {
    "tanaka": ByAge("208 − 0.7 × age (Tanaka, Monahan and Seals 2001)", 208, 0.7, 8),
    "gellish": ByAge("207 − 0.7 × age (Gellish and others 2007)", 207, 0.7, 7),
    "nes": ByAge("211 − 0.64 × age (Nes and others 2013)", 211, 0.64, 11),
    "traditional": ByAge("220 − age (traditional)", 220, 1.0, 11),
    "gulati": ByAge("for women, 206 − 0.88 × age (Gulati and others 2010)", 206, 0.88, 12),
}
USUAL: Formula = "tanaka"
EITHER_WAY = 10  # what one in three lies further off than, as it is said to coaches
