"""The words that people write, looked up by their longest saying; accents, case and plurals make no difference."""

import re
import tomllib
import unicodedata
from functools import cache, lru_cache
from importlib.resources import files
from typing import Any, NamedTuple

from lovrit.core.moves.library import shipped

LONGEST = 8  # words of a saying
ELIDED = ("d'", "l'")  # French words that lean on the one behind them: d'effort


class Meant(NamedTuple):
    """What a saying is: its part, and what the slate calls it."""

    kind: str
    kept: str = ""


@lru_cache(maxsize=50_000)
def plain(word: str) -> str:
    """A word as it is looked up: small, without accents.

    >>> plain("Séries"), plain("Übung"), plain("d’effort")
    ('series', 'ubung', 'effort')
    """
    apart = unicodedata.normalize("NFD", word.casefold().replace("’", "'"))
    said = "".join(one for one in apart if not unicodedata.combining(one))
    return said[2:] if said[:2] in ELIDED and len(said) > 2 else said


@lru_cache(maxsize=50_000)
def stem(word: str) -> str:
    """A word of a name without its plural."""
    said = plain(word)
    if said.endswith(("ss", "us", "is")) or len(said) < 3:
        return said
    for ending, short in (("ches", "ch"), ("shes", "sh"), ("xes", "x"), ("sses", "ss")):
        if said.endswith(ending):
            return said.removesuffix(ending) + short
    return said.removesuffix("s")


@cache
def _data() -> dict[str, Any]:
    return tomllib.loads(files("lovrit.core.reading").joinpath("words.toml").read_text("utf-8"))


@cache
def sayings() -> dict[tuple[str, ...], Meant]:
    """All sayings with a part, by their words."""
    data = _data()
    made: dict[tuple[str, ...], Meant] = {}
    for kind, words in data["roles"].items():
        made |= {_words(said): Meant(kind) for said in words}
    for kept, words in data["around"].items():
        made |= {_words(said): Meant("AROUND", kept) for said in words}
    for kept, words in data["active"].items():
        made |= {_words(said): Meant("ACTIVE", kept) for said in words}
    made |= {_words(said): Meant("SECTION") for said in data["sections"]["words"]}
    return {_stems(" ".join(words)): meant for words, meant in made.items()} | made


def _words(said: str) -> tuple[str, ...]:
    return tuple(plain(said).replace("-", " ").split())


@cache
def names() -> dict[tuple[str, ...], str]:
    """Names of moves by the stems of their words; what another language calls it, as the library does."""
    own = {_stems(said): "" for move in shipped().moves for said in (move.name, *move.also)}
    return own | {_stems(said): name for name, all_ in _data()["moves"].items() for said in all_}


def _stems(said: str) -> tuple[str, ...]:
    return tuple(stem(one) for one in said.replace("-", " ").split())


@cache
def units() -> dict[str, str]:
    """Units by how they are written."""
    return {plain(said): unit for unit, all_ in _data()["units"].items() for said in all_}


@cache
def numbers() -> dict[str, str]:
    """Numbers in words."""
    return {
        word: str(nth)
        for line in _data()["numbers"]["words"]
        for nth, word in enumerate(line.split(), 1)
    }


@cache
def prose() -> frozenset[str]:
    """Words that sentences have and moves don't."""
    return frozenset(map(plain, _data()["prose"]["words"]))


@cache
def signals() -> frozenset[str]:
    """What tells a group to change, which is no part of a move."""
    return frozenset(_data()["signals"]["words"])


@cache
def complexes() -> frozenset[str]:
    """What several lifts without a pause between them are called together."""
    return frozenset(_data()["complexes"]["words"])


def again_said(text: str) -> bool:
    """Whether words say that what was done is done again, and nothing else."""
    return plain(text).removeprefix("then ").removeprefix("the ") in _data()["again"]["words"]


TURNED_ROUND = re.compile(
    r"(?:(?:and )?then |dann |danach |puis |ensuite |luego )?(?:the same )?"
    r"(?:(?P<rounds>\d{1,2}) (?:rounds?|laps?|times|x|runden|tours|rondas|vueltas) )?(?P<how>.+)"
)


def turned_round(text: str) -> str | None:
    """How many rounds of what was done are done in reverse order, where words say that and nothing else.

    >>> turned_round("Then 2 rounds in reverse order"), turned_round("backwards"), turned_round("backwards run")
    ('2', '', None)
    """
    found = TURNED_ROUND.fullmatch(plain(text).strip(" .!,"))
    if not found or found["how"] not in _data()["reversed"]["words"]:
        return None
    return found["rounds"] or ""


@cache
def labels() -> frozenset[str]:
    """What a stretch of so many minutes may be called without being a move."""
    return frozenset(map(plain, _data()["labels"]["words"]))
