"""The nearest line that would be read, for a line that can't be.

Small changes are tried (a word spelt right, put in, left out, figures turned round); of those that read, the
one most like what was typed is offered.
"""

import re
from collections import Counter
from collections.abc import Iterator
from difflib import SequenceMatcher, get_close_matches
from functools import lru_cache

from lovrit.core.blocks.kinds import STARTS, WORDS
from lovrit.core.session.grammar import reads
from lovrit.core.session.headings import read_header_line, read_heading
from lovrit.core.session.movelines import read_move
from lovrit.core.slate.problem import Unreadable
from lovrit.core.slate.words import HEADERS

LONGEST = 300
ALIKE = 0.75  # so near to a block's first words, for something that was mistyped
FIGURE = re.compile(r"\d+(?::\d\d)?")
JOINTS = frozenset(("of", "x", "at", "in", "and", "rest", "cap", "drop", "last"))
UNITS = frozenset(("x", "s", "sec", "m", "km", "mi", "min", "cal", "reps"))
WORD = re.compile(r"[^\W\d_][\w-]*:?")
PHRASES = ("1:30", "2:00", "most 2:00", "at 8", "40/20", "0:40/0:20")
# spellings that are near in meaning but not in letters
SAID = {
    "then": ",",
    "pause": "rest",
    "off": "rest",
    "on": "/",
    "reps": "x",
    "times": "x",
    "min": "2 min",
    "minute": "1:00",
}


@lru_cache(maxsize=2_000)
def nearest_line(text: str, column: int, expected: tuple[str, ...] = ()) -> str | None:
    """A line that reads and is as much like ``text`` as possible; None where nothing near would be read."""
    inner = text.strip()
    if len(inner) > LONGEST:
        return None
    indent = text[: len(text) - len(text.lstrip())]
    at = max(0, column - 1 - len(indent))
    tries = _of_a_move(inner, at) if indent else _tries(inner, at, expected)
    tried = sorted({one for one in tries if one != inner})
    near = sorted(tried, key=lambda one: -SequenceMatcher(None, inner, one, autojunk=False).ratio())
    offers = (one for one in near if indent or _of_what_was_typed(inner, one))
    found = next((one for one in offers if _understood(one, bool(indent))), None)
    if found is None:
        return _start_like(inner) if not indent else None
    return indent + found


def _of_what_was_typed(text: str, offer: str) -> bool:
    """Whether an offered heading makes nothing up: its figures were typed, unless only known words were and one is
    missing; its words were typed, are near to one that was, or only join the others.
    """
    typed, known = _words(text), _vocabulary()
    made_up, lost = Counter(FIGURE.findall(offer)), Counter(FIGURE.findall(text))
    made_up, lost = made_up - lost, lost - made_up
    unfinished = bool(typed - UNITS) and typed <= known
    swapped = lost.total() == made_up.total() == 1  # one that can't be for one that can
    if (lost.total() and not swapped) or not typed & UNITS <= _words(offer):
        return False
    if made_up.total() > lost.total() and not unfinished:
        return False
    if "at" in _words(offer) - typed:  # nobody said how hard
        return False
    new = _words(offer) - typed - JOINTS
    return unfinished or all(
        get_close_matches(word, typed, 1, 0.6) or _said_for(word, typed) for word in new
    )


def _said_for(word: str, typed: set[str]) -> bool:
    """Whether a word stands for another one that was typed."""
    return any(word in SAID.get(one, "").split() for one in typed)


def _words(text: str) -> set[str]:
    return {match[0].lower().rstrip(":") for match in WORD.finditer(text)}


@lru_cache(maxsize=1)
def _vocabulary() -> frozenset[str]:
    parts = {part for one in WORDS for part in one.sample.split()} | {
        one.rstrip(":") for one in HEADERS
    }
    return frozenset(part for part in parts | {"warm-up", "cool-down"} if WORD.fullmatch(part))


def _understood(text: str, indented: bool) -> bool:
    """Whether a line is read, and means something that can be."""
    if not text:
        return False
    try:
        if indented:
            return read_move(text.split("   # ", 1)[0]) is not None
        if reads(text, "header"):
            return bool(read_header_line(text))
        if not reads(text, "block"):
            return False
        below = read_heading(text).below  # a heading may bring its moves with it
        return all(read_move(one) for one in below if not one.startswith(("@", "note:")))
    except Unreadable:
        return False


def _of_a_move(text: str, at: int) -> Iterator[str]:
    """For a line of moves: words spelt right, figures turned round, what can't be read kept as a remark behind it."""
    yield from _spelt(text)
    yield from _turned(text)
    head, tail = text[:at].rstrip(" ,(+"), text[at:].strip(" ,()")
    if head and tail:
        yield f"{head}   # {tail}"


def _tries(text: str, at: int, expected: tuple[str, ...]) -> Iterator[str]:
    yield from _spelt(text)
    yield from _turned(text)
    yield from _without(text, at)
    head, tail = text[:at].rstrip(), text[at:].lstrip()
    after = tail.split(" ", 1)[1] if " " in tail else ""
    wanted = [one.sample for one in WORDS if one.said in expected] or list(expected)
    wanted = [sample for sample in wanted if sample != "3" or "1:30" not in wanted]
    for sample in (*wanted, *PHRASES):
        yield f"{head} {sample} {tail}".strip()
        yield f"{head} {sample} {after}".strip()
        yield f"{text}, {sample}"


def _spelt(text: str) -> Iterator[str]:
    vocabulary = sorted({part for one in WORDS for part in one.sample.split()} | set(HEADERS))
    vocabulary += ["warm-up", "cool-down"]
    for match in WORD.finditer(text):
        word = match[0].lower()
        if word in vocabulary and word not in SAID:
            continue
        near = get_close_matches(word, vocabulary, 2, 0.6) + ([SAID[word]] if word in SAID else [])
        for one in near:
            yield text[: match.start()] + one + text[match.end() :]


def _turned(text: str) -> Iterator[str]:
    yield re.sub(r"(\d+(?:\.\d+)?)\s*[-–]\s*(\d+(?:\.\d+)?)", r"\2-\1", text)
    yield re.sub(r"least (\S+?),? +most (\S+)", r"least \2, most \1", text)
    yield re.sub(r"\.\d+", "", text)
    yield re.sub(r"\bat \d+(?:\.\d+)?", "at 10", text)


def _without(text: str, at: int) -> Iterator[str]:
    yield text[:at].rstrip(" ,")
    tail = text[at:]
    yield (text[:at] + (tail.split(" ", 1)[1] if " " in tail else "")).strip(" ,")
    yield text.replace(":", "", 1)
    yield re.sub(r",[^,]*$", "", text)


def _start_like(text: str) -> str | None:
    near = get_close_matches(text.lower(), STARTS, 1, ALIKE)
    return near[0] if near and _of_what_was_typed(text, near[0]) else None
