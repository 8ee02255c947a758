"""The pieces of a line with what they are: figures with their units, then words by their longest saying."""

import re
from collections.abc import Iterator, Sequence

from lovrit.core.reading.chained import joined
from lovrit.core.reading.figured import Half, figured, spelled_out
from lovrit.core.reading.pieces import Piece, pieces_of
from lovrit.core.reading.token import Figure, Token
from lovrit.core.reading.vocabulary import LONGEST, names, numbers, plain, sayings, stem

SIGNS = {
    "<": "UNDER", "≤": "UNDER",
    "×": "X", "*": "*", ",": ",", ";": ",", ":": ":", "/": "/", "|": "|", "+": "+", "-": "-", "–": "-",
    "—": "-", "(": "(", ")": ")", "[": "(", "]": ")", "@": "@", ".": ".", "%": "%", "=": "=", "~": "~", "≥": "~",
    "±": "±", "!": ".", "?": ".", "#": "#", "°": "°", '"': '"', "'": "'", "″": '"', "′": "'", "’": "'", "”": '"',
}  # fmt: skip
ONCE_BEFORE = frozenset(
    {
        "a",
        "an",
        "per",
        "each",
        "every",
        "you",
        "we",
        "the",
        "through",
        "round",
        "more",
        "again",
        "only",
    }
)


def cut(line: str) -> list[Token]:
    """The pieces of a line: figures with their units first, then words by their longest saying."""
    halves = list(figured(spelled_out(pieces_of(line))))
    return [_sliced(one, line) for one in joined(list(_worded(halves)))]


def _sliced(token: Token, line: str) -> Token:
    """With its text as it was written."""
    token.text = " ".join(line[token.start : token.end].split())
    return token


def _worded(halves: Sequence[Half]) -> Iterator[Token]:
    """Words by their longest saying: a part, a name of a move, a number; a name of several words goes before a part."""
    at = 0
    while at < len(halves):
        half = halves[at]
        if isinstance(half, Token):
            yield half
            at += 1
        elif half.group in ("word", "short_word"):
            token = _longest(halves, at)
            yield token
            at += token.words
        elif half.group in ("mixed", "limbed", "best", "hour"):
            kind = {"mixed": "word", "limbed": "word", "best": "OF_RM", "hour": "HOUR"}[half.group]
            yield Token(kind, half.start, half.end, half.text)
            at += 1
        elif half.group in ("zone", "pace"):
            yield Token("ZONE", half.start, half.end, half.text)
            at += 1
        elif half.group == "emom":
            figure = re.sub(r"\D", "", half.text) or "1"
            seconds = figure if half.text[-1] in "sS" else str(60 * int(figure))
            yield Token("EMOM", half.start, half.end, half.text, None, seconds)
            at += 1
        elif half.group == "cross":
            yield Token("X", half.start, half.end, half.text)
            at += 1
        else:
            kind = "ELL" if half.group == "dots" else SIGNS.get(half.text, "sign")
            yield Token(kind, half.start, half.end, half.text)
            at += 1


def _longest(halves: Sequence[Half], at: int) -> Token:
    run = _run(halves, at)
    said = [plain(one.text) for one in run]
    stems = [stem(one.text) for one in run]
    part = next(
        (
            (size, meant)
            for size in range(len(said), 0, -1)
            if (meant := (sayings().get(tuple(said[:size])) or sayings().get(tuple(stems[:size]))))
        ),
        None,
    )
    name = next(
        (
            (size, kept)
            for size in range(len(stems), 0, -1)
            if (kept := names().get(tuple(stems[:size]))) is not None
        ),
        None,
    )
    first = run[0]
    if name and (not part or name[0] > part[0]):
        return _named(run[: name[0]], name[1])
    if part:
        kind, kept = part[1]
        named = (_named(run[: name[0]], name[1]),) if name and name[0] == part[0] else ()
        last = run[part[0] - 1]
        return Token(kind, first.start, last.end, "", None, kept, part[0], named)
    number = numbers().get(said[0]) if not _is_no_number(said) else None
    if number:
        return Token("count", first.start, first.end, first.text, Figure("count", "one", (number,)))
    if said[0] == "x":
        return Token("X", first.start, first.end, first.text)
    return Token("word", first.start, first.end, first.text, None, first.text)


def _is_no_number(said: list[str]) -> bool:
    """Whether a word that is eleven in Spanish says how often in English."""
    return said[0] == "once" and (len(said) == 1 or said[1] in ONCE_BEFORE)


def _named(run: Sequence[Piece], kept: str) -> Token:
    return Token("name", run[0].start, run[-1].end, "", None, kept, len(run))


def _run(halves: Sequence[Half], at: int) -> list[Piece]:
    """Words that stand side by side, hyphens between them left out."""
    run: list[Piece] = []
    for half in halves[at : at + LONGEST]:
        if isinstance(half, Token) or half.group not in ("word", "short_word"):
            break
        run.append(half)
    return run
