"""Figures with their units: a number and what stands behind it, a time, a day, a tempo."""

import re
from collections.abc import Callable, Iterator

from lovrit.core.clock import clock
from lovrit.core.reading.pieces import Piece
from lovrit.core.reading.token import Figure, Measure, Token
from lovrit.core.reading.vocabulary import numbers, plain, units

SPLIT_FAR = "500"
MINUTE_S = 60
MEASURES: dict[str, Measure] = {
    "s": "time", "min": "time", "h": "time", "m": "far", "km": "far", "mi": "far", "cal": "cal", "kg": "load",
    "lb": "load", "share": "share", "W": "watt", "size": "size",
}  # fmt: skip
SECONDS = {"s": 1, "min": 60, "h": 3600}


Half = Piece | Token


def figured(pieces: list[Piece]) -> Iterator[Half]:
    """Figures with the unit behind each; words and signs stay pieces."""
    at = 0
    while at < len(pieces):
        read = FIGURES.get(pieces[at].group)
        made = read(pieces, at) if read else None
        yield made[0] if made else pieces[at]
        at += made[1] if made else 1


Made = tuple[Token, int]


def spelled_out(pieces: list[Piece]) -> list[Piece]:
    """Numbers in words before a unit: two minutes."""
    made = list(pieces)
    for at in range(len(pieces) - 1):
        number = numbers().get(plain(pieces[at].text)) if pieces[at].group == "word" else None
        if number and len(pieces[at + 1].text) > 1 and plain(pieces[at + 1].text) in units():
            made[at] = pieces[at]._replace(group="number", text=number)
    return made


def _token(figure: Figure, first: Piece, last: Piece) -> Token:
    return Token(figure.measure, first.start, last.end, "", figure)


def time_of(seconds: int) -> Figure:
    """A time."""
    return Figure("time", "one", (short(seconds),), "", (seconds,))


def short(seconds: int) -> str:
    """Seconds below a minute, else m:ss, as a work or a rest is written.

    >>> short(40), short(90)
    ('40', '1:30')
    """
    return str(seconds) if seconds < 60 else clock(seconds)


def _number(pieces: list[Piece], at: int) -> Made:
    piece = pieces[at]
    unit, used = _unit(pieces, at + 1, piece.end)
    if unit == "size" and _is_a_word(pieces, at):
        unit, used = "", 0
    said = piece.text.replace(",", ".")
    last = pieces[at + used]
    if not unit:
        odd = "." in said and len(said.split(".")[1]) > 1
        return _token(
            Figure("odd" if odd else "count", "one", (piece.text if odd else said,)), piece, piece
        ), 1
    measure = MEASURES[unit]
    if measure != "time":
        return _token(
            Figure(measure, "one", (said,), "" if unit == "share" else _own_unit(unit, last)),
            piece,
            last,
        ), used + 1
    seconds = round(float(said) * SECONDS[unit])
    more = _and_seconds(pieces, at + used + 1) if unit == "min" else None
    if more:
        seconds, used, last = seconds + more[0], used + more[1], pieces[at + used + more[1]]
    made = _token(time_of(seconds), piece, last)
    made.kept = unit
    return made, used + 1


def _is_a_word(pieces: list[Piece], at: int) -> bool:
    """Whether “in” behind a figure is no inch: a word follows it, as in “10 reps in 5 min”."""
    unit, after = pieces[at + 1], pieces[at + 2] if at + 2 < len(pieces) else None
    follows = after is not None and after.group in ("number", "word", "time")
    return unit.text.lower() == "in" and unit.start > pieces[at].end and follows


def _own_unit(unit: str, piece: Piece) -> str:
    return piece.text.lower() if unit == "size" else unit


def _and_seconds(pieces: list[Piece], at: int) -> tuple[int, int] | None:
    """Seconds behind minutes: 2 min 30 s, 1 min 30."""
    if at >= len(pieces) or pieces[at].group != "number" or not pieces[at].text.isdecimal():
        return None
    seconds = int(pieces[at].text)
    unit, used = _unit(pieces, at + 1, pieces[at].end)
    after = pieces[at + 1] if at + 1 < len(pieces) else None
    bare = (
        not unit
        and len(pieces[at].text) == 2
        and (not after or after.text in "),.;" or plain(after.text) in ("de", "rest"))
    )
    return (seconds, used + 1) if seconds < MINUTE_S and (unit == "s" or bare) else None


def _unit(pieces: list[Piece], at: int, end: int) -> tuple[str, int]:
    """The unit that stands at a place, and how many pieces it has; a stroke only close to its figure."""
    if at >= len(pieces):
        return "", 0
    piece = pieces[at]
    if _is_glued_on(pieces, at, end):  # 15-min, 200-m
        return units().get(plain(pieces[at + 1].text), ""), 2
    text = (
        "''"
        if piece.text == "'"
        and at + 1 < len(pieces)
        and pieces[at + 1].text == "'"
        and pieces[at + 1].start == piece.end
        else plain(piece.text)
    )
    unit = units().get(text, "")
    close = piece.start == end
    if not unit or piece.start - end > 1 or (text in ("'", '"', "w", "h") and not close):
        return "", 0
    return unit, 2 if text == "''" else 1


def _is_glued_on(pieces: list[Piece], at: int, end: int) -> bool:
    """Whether a unit stands behind a hyphen, close to its figure."""
    piece, after = pieces[at], pieces[at + 1] if at + 1 < len(pieces) else None
    close = piece.text == "-" and piece.start == end and after is not None
    return bool(close and after and after.start == piece.end and plain(after.text) in units())


def _clock(pieces: list[Piece], at: int) -> Made:
    piece = pieces[at]
    parts = [int(one) for one in piece.text.split(":")]
    seconds = (
        parts[0] * 60 + parts[1] if len(parts) == 2 else parts[0] * 3600 + parts[1] * 60 + parts[2]
    )
    split = _split(pieces, at + 1)
    if split:
        figure = Figure("split", "one", (f"{piece.text}/500",), "m", (seconds,))
        return _token(figure, piece, pieces[at + split]), split + 1
    used = 0
    if at + 1 < len(pieces) and plain(pieces[at + 1].text) in ("min", "mins", "minutes", "h"):
        used = 1  # “1:30 min” says its unit twice
    return _token(time_of(seconds), piece, pieces[at + used]), used + 1


def _split(pieces: list[Piece], at: int) -> int:
    """How many pieces say that a time is for 500 m."""
    said = [one.text for one in pieces[at : at + 3]]
    if said[:2] == ["/", SPLIT_FAR]:
        return 3 if len(said) > 2 and said[2].lower() == "m" else 2
    return 0


def _short(pieces: list[Piece], at: int) -> Made | None:
    before = pieces[at - 1] if at else None
    if before and before.end == pieces[at].start and before.group == "word":
        return None  # “bike:30” has a colon of its own
    return _token(time_of(int(pieces[at].text[1:])), pieces[at], pieces[at]), 1


def _minsec(pieces: list[Piece], at: int) -> Made:
    minutes, seconds = (int(one) for one in re.findall(r"\d+", pieces[at].text)[:2])
    return _token(time_of(60 * minutes + seconds), pieces[at], pieces[at]), 1


def _day(pieces: list[Piece], at: int) -> Made:
    said = tuple(re.findall(r"\d+:\d\d", pieces[at].text))
    return _token(Figure("day", "range", said), pieces[at], pieces[at]), 1


def _rhythm(pieces: list[Piece], at: int) -> Made | None:
    text = pieces[at].text
    if "-" in text:
        said = tuple(text.lower().split("-"))
        return Token(
            "rhythm", pieces[at].start, pieces[at].end, text, Figure("count", "list", said)
        ), 1
    before = plain(pieces[at - 1].text) if at else ""
    if not (re.search("[xX]", text) or before in ("tempo", "(") or _is_of_sets(pieces, text)):
        return _number(
            [Piece("number", text, pieces[at].start, pieces[at].end), *pieces[at + 1 : at + 4]], 0
        )
    said = tuple("0" if one in "xX" else one for one in text)
    return Token("rhythm", pieces[at].start, pieces[at].end, text, Figure("count", "list", said)), 1


def _is_of_sets(pieces: list[Piece], text: str) -> bool:
    """Whether four figures in one, of no round number, stand in a line that says so many sets of so many."""
    kinds = ["x" if one.text in "xX×" else one.group for one in pieces]
    sets = any(kinds[at : at + 3] == ["number", "x", "number"] for at in range(len(kinds)))
    return sets and not text.endswith("00")


FIGURES: dict[str, Callable[[list[Piece], int], Made | None]] = {
    "number": _number,
    "clock": _clock,
    "short": _short,
    "minsec": _minsec,
    "day": _day,
    "rhythm": _rhythm,
}
