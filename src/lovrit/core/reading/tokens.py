"""A line cut into its pieces in one pass, each letter looked at once."""

import re
from collections.abc import Callable, Iterator, Sequence
from typing import NamedTuple

from lovrit.core.clock import clock
from lovrit.core.reading.token import Figure, Form, Measure, Token
from lovrit.core.reading.vocabulary import LONGEST, names, numbers, plain, sayings, stem, units

PIECE = re.compile(
    r"(?P<day>\d{1,2}:[0-5]\d\s*[-–]\s*\d{1,2}:[0-5]\d)(?![\d:])"
    r"|(?P<pace>\d{1,2}:[0-5]\d\s?(?:min)?\s?/\s?(?:km|mi(?:le)?)(?!\w))"
    r"|(?P<clock>\d{1,3}:[0-5]\d(?::[0-5]\d)?)(?!\d)"
    r"|(?P<short>:[0-5]\d)(?!\d)"
    r"|(?P<minsec>\d{1,2}['′’]\s?[0-5]?\d(?:[\"″”]|'')?)(?=\W|$)"
    r"|(?P<best>\d{1,2}\s?-?rm(?!\w))"
    r"|(?P<rhythm>(?<=tempo )(?=[\d-]*x)[\dx]{1,2}(?:-[\dx]{1,2}){3}(?!-)"
    r"|(?<=\()[1-6][0-3][0-6][0-3](?<!00)(?=\))|[2-6][0-3](?-i:X)[0-3]|\d{4}(?=\s*(?:,|$)|\s+\d))(?!\w)"
    r"|(?P<emom>e\d{0,2}mom|e\d{2,3}s)(?![^\W\d_])"
    r"|(?P<limbed>[1-4]-(?=arm|leg|hand|point|way|foot)[a-z]+)"
    r"|(?P<mixed>(?!x\d)[^\W\d_]{1,3}\d[^\W\d_]{1,3}(?!\w))"
    r"|(?P<hour>\d{1,2}(?:[:.][0-5]\d)?\s?(?:am|pm|uhr)(?!\w)|\d{1,2}h[0-5]\d(?!\w))"
    r"|(?P<zone>z(?:one)?\s?[1-7])(?!\w)"
    r"|(?P<number>\d{1,7}(?:\.\d{1,2}|,5(?!\d|,\d))?)"
    r"|(?P<cross>(?<=\d)x(?=max|amrap))"
    r"|(?P<short_word>(?:b/w|e/s|e/l|w/u|c/d|w/o|l/r)(?![^\W\d_])|w/(?=\s))"
    r"|(?P<dots>\.{2,}|…|(?:etc|usw)(?:\.|(?!\w)))"
    r"|(?P<word>[^\W\d_]+(?:['’](?=[^\W\d_])[^\W\d_]+)*)"
    r"|(?P<sign>[^\s\w])"
    r"|(?P<blank>\s+|.)",
    re.IGNORECASE,
)
SIGNS = {
    "<": "UNDER", "≤": "UNDER",
    "×": "X", "*": "*", ",": ",", ";": ",", ":": ":", "/": "/", "|": "|", "+": "+", "-": "-", "–": "-",
    "—": "-", "(": "(", ")": ")", "[": "(", "]": ")", "@": "@", ".": ".", "%": "%", "=": "=", "~": "~", "≥": "~",
    "±": "±", "!": ".", "?": ".", "#": "#", "°": "°", '"': '"', "'": "'", "″": '"', "′": "'", "’": "'", "”": '"',
}  # fmt: skip
SPLIT_FAR = "500"
MINUTE_S = 60
MEASURES: dict[str, Measure] = {
    "s": "time", "min": "time", "h": "time", "m": "far", "km": "far", "mi": "far", "cal": "cal", "kg": "load",
    "lb": "load", "share": "share", "W": "watt", "size": "size",
}  # fmt: skip
SECONDS = {"s": 1, "min": 60, "h": 3600}
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


class _Piece(NamedTuple):
    group: str
    text: str
    start: int
    end: int


def cut(line: str) -> list[Token]:
    """The pieces of a line: figures with their units first, then words by their longest saying."""
    pieces = [
        _Piece("word", "and", found.start(), found.end())
        if found[0] == "&"
        else _Piece(found.lastgroup or "", found[0], found.start(), found.end())
        for found in PIECE.finditer(line)
        if found.lastgroup != "blank"
    ]
    return [
        _sliced(one, line)
        for one in _joined(list(_worded(list(_figured(_spelled_out(_unhyphened(pieces)))))))
    ]


def _sliced(token: Token, line: str) -> Token:
    """With its text as it was written."""
    token.text = " ".join(line[token.start : token.end].split())
    return token


def _unhyphened(pieces: list[_Piece]) -> list[_Piece]:
    """Without the hyphens inside words: push-up, warm-up."""
    return [
        piece
        for before, piece, after in zip([None, *pieces], pieces, [*pieces[1:], None], strict=False)
        if not (piece.text == "-" and _glued(before, piece) and _glued(piece, after))
    ]


def _glued(one: "_Piece | None", other: "_Piece | None") -> bool:
    if not one or not other or one.end != other.start:
        return False
    return all(each.text == "-" or each.group == "word" for each in (one, other))


Half = _Piece | Token


def _figured(pieces: list[_Piece]) -> Iterator[Half]:
    """Figures with the unit behind each; words and signs stay pieces."""
    at = 0
    while at < len(pieces):
        read = FIGURES.get(pieces[at].group)
        made = read(pieces, at) if read else None
        yield made[0] if made else pieces[at]
        at += made[1] if made else 1


Made = tuple[Token, int]


def _spelled_out(pieces: list[_Piece]) -> list[_Piece]:
    """Numbers in words before a unit: two minutes."""
    made = list(pieces)
    for at in range(len(pieces) - 1):
        number = numbers().get(plain(pieces[at].text)) if pieces[at].group == "word" else None
        if number and len(pieces[at + 1].text) > 1 and plain(pieces[at + 1].text) in units():
            made[at] = pieces[at]._replace(group="number", text=number)
    return made


def _token(figure: Figure, first: _Piece, last: _Piece) -> Token:
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


def _number(pieces: list[_Piece], at: int) -> Made:
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


def _is_a_word(pieces: list[_Piece], at: int) -> bool:
    """Whether “in” behind a figure is no inch: a word follows it, as in “10 reps in 5 min”."""
    unit, after = pieces[at + 1], pieces[at + 2] if at + 2 < len(pieces) else None
    follows = after is not None and after.group in ("number", "word", "time")
    return unit.text.lower() == "in" and unit.start > pieces[at].end and follows


def _own_unit(unit: str, piece: _Piece) -> str:
    return piece.text.lower() if unit == "size" else unit


def _and_seconds(pieces: list[_Piece], at: int) -> tuple[int, int] | None:
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


def _unit(pieces: list[_Piece], at: int, end: int) -> tuple[str, int]:
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


def _is_glued_on(pieces: list[_Piece], at: int, end: int) -> bool:
    """Whether a unit stands behind a hyphen, close to its figure."""
    piece, after = pieces[at], pieces[at + 1] if at + 1 < len(pieces) else None
    close = piece.text == "-" and piece.start == end and after is not None
    return bool(close and after and after.start == piece.end and plain(after.text) in units())


def _clock(pieces: list[_Piece], at: int) -> Made:
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


def _split(pieces: list[_Piece], at: int) -> int:
    """How many pieces say that a time is for 500 m."""
    said = [one.text for one in pieces[at : at + 3]]
    if said[:2] == ["/", SPLIT_FAR]:
        return 3 if len(said) > 2 and said[2].lower() == "m" else 2
    return 0


def _short(pieces: list[_Piece], at: int) -> Made | None:
    before = pieces[at - 1] if at else None
    if before and before.end == pieces[at].start and before.group == "word":
        return None  # “bike:30” has a colon of its own
    return _token(time_of(int(pieces[at].text[1:])), pieces[at], pieces[at]), 1


def _minsec(pieces: list[_Piece], at: int) -> Made:
    minutes, seconds = (int(one) for one in re.findall(r"\d+", pieces[at].text)[:2])
    return _token(time_of(60 * minutes + seconds), pieces[at], pieces[at]), 1


def _day(pieces: list[_Piece], at: int) -> Made:
    said = tuple(re.findall(r"\d+:\d\d", pieces[at].text))
    return _token(Figure("day", "range", said), pieces[at], pieces[at]), 1


def _rhythm(pieces: list[_Piece], at: int) -> Made | None:
    text = pieces[at].text
    if "-" in text:
        said = tuple(text.lower().split("-"))
        return Token(
            "rhythm", pieces[at].start, pieces[at].end, text, Figure("count", "list", said)
        ), 1
    before = plain(pieces[at - 1].text) if at else ""
    if not (re.search("[xX]", text) or before in ("tempo", "(") or _is_of_sets(pieces, text)):
        return _number(
            [_Piece("number", text, pieces[at].start, pieces[at].end), *pieces[at + 1 : at + 4]], 0
        )
    said = tuple("0" if one in "xX" else one for one in text)
    return Token("rhythm", pieces[at].start, pieces[at].end, text, Figure("count", "list", said)), 1


def _is_of_sets(pieces: list[_Piece], text: str) -> bool:
    """Whether four figures in one, of no round number, stand in a line that says so many sets of so many."""
    kinds = ["x" if one.text in "xX×" else one.group for one in pieces]
    sets = any(kinds[at : at + 3] == ["number", "x", "number"] for at in range(len(kinds)))
    return sets and not text.endswith("00")


FIGURES: dict[str, Callable[[list[_Piece], int], Made | None]] = {
    "number": _number,
    "clock": _clock,
    "short": _short,
    "minsec": _minsec,
    "day": _day,
    "rhythm": _rhythm,
}


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


def _named(run: Sequence[_Piece], kept: str) -> Token:
    return Token("name", run[0].start, run[-1].end, "", None, kept, len(run))


def _run(halves: Sequence[Half], at: int) -> list[_Piece]:
    """Words that stand side by side, hyphens between them left out."""
    run: list[_Piece] = []
    for half in halves[at : at + LONGEST]:
        if isinstance(half, Token) or half.group not in ("word", "short_word"):
            break
        run.append(half)
    return run


def _joined(tokens: list[Token]) -> Iterator[Token]:
    """Figures that are one: 40/20, 8-12, 21-15-9; the unit behind the last one holds for all."""
    at = 0
    while at < len(tokens):
        size, sign = _chain(tokens, at)
        if size < 2:
            yield tokens[at]
            at += 1
            continue
        chain = tokens[at : at + 2 * size - 1 : 2]
        yield _one(chain, sign)
        at += 2 * size - 1


def _chain(tokens: list[Token], at: int) -> tuple[int, str]:
    """How many figures are joined from here on by one sign; none where one alone is another thing."""
    first = tokens[at]
    if not first.figure or first.figure.form != "one" or first.kind in ("day", "rhythm", "odd"):
        return 1, ""
    sign = tokens[at + 1].kind if at + 1 < len(tokens) else ""
    if sign not in ("/", "-"):
        return 1, ""
    if sign == "-" and tokens[at + 1].start > first.end and _follows(tokens, at + 1):
        return 1, ""  # 10 -2: down by two
    size, end = 1, at
    while (
        end + 2 < len(tokens)
        and tokens[end + 1].kind == sign
        and _goes_with(tokens[end], tokens[end + 2])
        and not (
            sign == "-"
            and tokens[end + 1].start > tokens[end].end
            and tokens[end].kind != tokens[end + 2].kind
        )
    ):
        end, size = end + 2, size + 1
    spaced = tokens[at + 1].start > first.end
    if size == 2 and sign == "-" and spaced and not _climbs(first, tokens[at + 2]):
        return 1, ""  # “emom 20 - 5 exercises” is two things
    if (
        size == 2
        and sign == "-"
        and spaced
        and end + 1 < len(tokens)
        and tokens[end + 1].kind in ("name", "word")
    ):
        return 1, ""  # “row 500 - 10 burpees” is two things
    return size, sign


def _climbs(one: Token, other: Token) -> bool:
    """Whether the second figure is the larger one: a range."""
    low, high = (each.figure.said[0] if each.figure else "0" for each in (one, other))
    return float_of(low) < float_of(high)


def _follows(tokens: list[Token], at: int) -> bool:
    """Whether a figure stands close behind a sign."""
    after = tokens[at + 1] if at + 1 < len(tokens) else None
    return bool(after and after.figure and after.start == tokens[at].end)


def _goes_with(one: Token, other: Token) -> bool:
    if not other.figure or other.figure.form != "one" or other.kind in ("day", "rhythm", "odd"):
        return False
    return one.kind in ("count", other.kind)


def _one(chain: list[Token], sign: str) -> Token:
    figures = [one.figure for one in chain if one.figure]
    last = figures[-1]
    said = tuple(one.said[0] for one in figures)
    form: Form = "pair" if sign == "/" else "list"
    if last.measure == "count" and len(said) > 2:
        form = "list"
    if sign == "-" and len(said) == 2 and float_of(said[0]) < float_of(said[1]):
        form = "range"
    seconds: tuple[int, ...] = ()
    if last.measure == "time":
        seconds = tuple(_seconds(one, last, chain[-1].kept) for one in figures)
        said = tuple(map(short, seconds))
    figure = Figure(last.measure, form, said, last.unit, seconds)
    return Token(f"{last.measure}_{form}", chain[0].start, chain[-1].end, "", figure)


def float_of(said: str) -> float:
    """A figure as it is compared; a time by its seconds."""
    if ":" in said:
        minutes, seconds = said.split("/", maxsplit=1)[0].split(":")[:2]
        return int(minutes) * 60 + int(seconds)
    return float(said)


def _seconds(figure: Figure, last: Figure, unit: str) -> int:
    """A bare figure before one with a unit has that unit; before a time of the clock, minutes where that is whole."""
    if figure.seconds:
        return figure.seconds[0]
    minutes = last.seconds[0] % MINUTE_S == 0 and last.seconds[0] >= MINUTE_S
    one = SECONDS[unit] if unit else MINUTE_S if minutes else 1
    return round(float(figure.said[0]) * one)
