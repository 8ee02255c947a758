"""An age that counts on: kept as the year that somebody was born in, said as that year or as years."""

from lovrit.core.values import LovritError

YOUNGEST, OLDEST = 5, 110
FIRST_YEAR = 1900  # figures from here on are years of birth


class NoAge(LovritError):
    """A figure that is neither an age nor a year of birth."""


def born_in(said: int, year: int) -> int:
    """The year of birth of an age that is said in ``year``, or that was said as such; a year off where it is an age.

    Raises:
        NoAge: if nobody can be so old.
    """
    born = said if said >= FIRST_YEAR else year - said
    if not YOUNGEST <= age_in(born, year) <= OLDEST:
        raise NoAge(f"Nobody is {age_in(born, year)} years old.")
    return born


def age_in(born: int, year: int) -> int:
    """The years that somebody turns in a year."""
    return year - born
