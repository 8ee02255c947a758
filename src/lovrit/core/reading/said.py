"""What the pieces of a line say together: roles, each found by its neighbours wherever in the line it stands.

A way of saying is a pattern over kinds of pieces (not over letters), and what it gives. At each place the first way
that fits is taken; what none takes is left for the names of moves, or is asked about.
"""

import itertools
import re
from collections.abc import Callable, Sequence
from functools import cache
from typing import NamedTuple

from lovrit.core.reading.token import Figure, Token
from lovrit.core.reading.tokens import short

FEW_MIN, MANY_MIN = 3, 60  # a bare length is minutes within; else it is asked
MOST_EFFORT = 10
MOST_STATION_MIN = 14  # nobody stays longer at a station
PHASES = ("down", "low", "up", "high")
HEAVY_SETS = {"single": "1", "double": "2", "triple": "3", "five": "5"}
LONGEST_WAY = 40  # rungs
MOST_HELD = 4  # pieces of kit that one person works with at once
LONGEST_REST_S = 300  # an easy stretch from here on is one of its own
FEW_MINUTES, SURE_SECONDS = (
    6,
    15,
)  # a bare rest below is minutes, from here on seconds; between them it is asked


class Role(NamedTuple):
    """A part of a block that was said: its name, and how the slate writes it.

    ``mark`` is one that belongs to a move, ``left`` what could not be understood, ``note`` what is kept as it is.
    """

    name: str
    value: str = ""


NOT_THIS = Role("")


class Pieces:
    """The pieces that a way of saying took."""

    def __init__(self, tokens: Sequence[Token]) -> None:
        self.tokens = tokens

    @property
    def figures(self) -> list[Figure]:
        """Its figures, in order."""
        return [one.figure for one in self.tokens if one.figure]

    def one(self, nth: int = 0) -> str:
        """A figure as the slate writes it."""
        return self.figures[nth].own

    def kept(self, kind: str) -> str:
        """What the slate calls a word of this kind; nothing where there is none."""
        return next((one.kept or one.text.lower() for one in self.tokens if one.kind == kind), "")

    def has(self, kind: str) -> bool:
        """Whether a word of this kind is among them."""
        return any(one.kind == kind for one in self.tokens)

    @property
    def text(self) -> str:
        """As written."""
        return " ".join(one.text for one in self.tokens)


Gives = Callable[[Pieces], list[Role]]


def _clocked(figure: Figure) -> str:
    return clocked(figure.seconds[0]) if figure.seconds else figure.own


def clocked(seconds: int) -> str:
    """A length as m:ss."""
    return f"{seconds // 60}:{seconds % 60:02}"


def _minutes(figure: Figure) -> str:
    """A length; a bare figure is minutes."""
    if figure.seconds:
        return clocked(figure.seconds[0])
    return clocked(round(60 * float(figure.said[0])))


def gives(*names: str) -> Gives:
    """Roles by the figures, in order; a name without a figure left has none."""

    def give(pieces: Pieces) -> list[Role]:
        figures = pieces.figures
        return [
            Role(name, _clocked(figures[nth]) if nth < len(figures) else "")
            for nth, name in enumerate(names)
        ]

    return give


def _unsure(of: str) -> Gives:
    """What could be more than one thing, and of which role."""
    return lambda pieces: [Role("left", pieces.text), Role("unsure", of)]


def flag(*roles: tuple[str, str]) -> Gives:
    """Roles that have no figure."""
    return lambda _pieces: [Role(name, value) for name, value in roles]


SILENTLY = flag(("unsure", ""))  # taken, and nothing said by it


def length(name: str) -> Gives:
    """A role of which a bare figure is minutes, where that can be."""
    return lambda pieces: _length(name, pieces.figures[0], pieces.text)


def is_minutes(bare: float) -> bool:
    """Whether a length without a unit can only be minutes."""
    return FEW_MIN <= bare <= MANY_MIN


def _length(name: str, figure: Figure, text: str) -> list[Role]:
    if not figure.seconds and not is_minutes(float(figure.said[0])):
        return [Role("left", text), Role("unsure", f"length:{name}")]
    return [Role(name, _minutes(figure))]


def _emom(pieces: Pieces) -> list[Role]:
    period = int(pieces.kept("EMOM")) if pieces.kept("EMOM").isdecimal() else 60
    roles = [Role("period", clocked(period))]
    for figure in pieces.figures:
        times = pieces.has("X") or pieces.has("ROUND") or pieces.has("SET")
        if figure.seconds or not times:
            roles += _length("total", figure, pieces.text)
        else:
            roles.append(Role("rounds", figure.own))
    return roles


def _period(pieces: Pieces) -> list[Role]:
    figures = pieces.figures
    if not figures:
        return [Role("period", "1:00")]
    return [Role("period", _minutes(figures[0]))]


def _pair(pieces: Pieces) -> list[Role]:
    figures = pieces.figures
    if len(figures) == 1:
        return [Role("pair", "/".join(figures[0].said))]
    return [Role("pair", "/".join(map(_bare, figures[:2])))]


def _bare(figure: Figure) -> str:
    return short(figure.seconds[0]) if figure.seconds else figure.said[0]


def _counted_pair(name: str) -> Callable[..., list[Role]]:
    def give(pieces: Pieces, at: int = 0) -> list[Role]:
        pair = "/".join(pieces.figures[at + 1].said)
        return [Role(name, pieces.one(at)), Role("pair", pair)]

    return give


def _times_pair(pieces: Pieces) -> list[Role]:
    return [Role("times", pieces.one()), Role("pair", "/".join(map(_bare, pieces.figures[1:3])))]


def _two_efforts(pieces: Pieces) -> list[Role]:
    """10 x 1 min @ 9 / 1 min @ 4: the stroke joins the first effort to the rest; what that is done at is told."""
    times, work, both, easy = pieces.figures[:4]
    hard = next(one.text for one in pieces.tokens if one.figure is both).split("/")[0].strip()
    if not hard.isdecimal() or int(hard) > MOST_EFFORT:
        return [NOT_THIS]
    pair = f"{_bare(work)}/{short(both.seconds[1])}"
    told = Role("note", f"rest at {easy.own}")
    return [Role("times", times.own), Role("pair", pair), Role("effort", hard), told]


def _pair_often(pieces: Pieces) -> list[Role]:
    """30/30 x 12."""
    return [Role("pair", "/".join(pieces.figures[0].said)), Role("often", pieces.one(1))]


def _outer_pair(pieces: Pieces) -> list[Role]:
    """Sets of intervals: 2 x (8 x 30/30)."""
    return [Role("outer", pieces.one()), *_counted_pair("times")(pieces, 1)]


def _sets(pieces: Pieces) -> list[Role]:
    return [Role("sets", pieces.one(0)), Role("reps", reps_of(pieces.figures[1]))]


def _by_set(pieces: Pieces) -> list[Role]:
    figure = pieces.figures[0]
    return [Role("sets", str(len(figure.said))), Role("reps", reps_of(figure))]


def reps_of(figure: Figure) -> str:
    """Reps of a set, or by set, as a heading has them."""
    return figure.own if figure.form == "list" else f"{figure.own} reps"


def _rest_word(pieces: Pieces) -> str:
    word = pieces.kept("ACTIVE")
    return word or pieces.kept("name") or "walk"


def _rest(name: str) -> Gives:
    def give(pieces: Pieces) -> list[Role]:
        figure = pieces.figures[0]
        own = "within" if pieces.has("WITHIN") and name == "rest" else name
        if figure.measure == "far":
            return [Role(own, f"{figure.own} {_rest_word(pieces)}")]
        if figure.seconds:
            return [Role(own, clocked(figure.seconds[0]))]
        return _bare_rest(own, figure, pieces.text)

    return give


def _bare_rest(name: str, figure: Figure, text: str) -> list[Role]:
    number = figure.number
    if number is not None and number < FEW_MINUTES:
        return [Role(name, f"{number}:00")]
    if number is not None and number >= SURE_SECONDS:
        return [Role(name, clocked(number))]
    return [Role("left", text), Role("unsure", name)]


def _easy(pieces: Pieces) -> list[Role]:
    """An easy stretch behind work is its rest, unless it is longer than a rest is."""
    figure = pieces.figures[0]
    if figure.seconds and figure.seconds[0] >= LONGEST_REST_S:
        return [NOT_THIS]
    return _rest("rest")(pieces)


def _share(pieces: Pieces) -> list[Role]:
    work, rest = (float(one.said[0]) for one in pieces.figures[:2])
    return [Role("rest", "= work" if work == rest else f"{pieces.one(0)}:{pieces.one(1)}")]


def _effort(pieces: Pieces) -> list[Role]:
    figure = pieces.figures[0]
    if figure.form == "pair":
        of_ten = figure.said[1] == "10"
        return [Role("effort", figure.said[0])] if of_ten else [Role("left", pieces.text)]
    if all(float(one) <= MOST_EFFORT for one in figure.said):
        return [Role("effort", figure.own)]
    return [Role("left", pieces.text), Role("unsure", "load")]


def _at_rhythm(pieces: Pieces) -> list[Role]:
    """Seconds down, low, up and high."""
    figures = pieces.figures[0].said
    return _marked("tempo")(pieces) if len(figures) == len(PHASES) else [Role("left", pieces.text)]


def _load(pieces: Pieces) -> list[Role]:
    figure = pieces.figures[0]
    own = figure.own
    if figure.measure == "share" and figure.form == "pair":
        own = "-".join(figure.said) + "%"
    if figure.measure == "split":
        own = figure.said[0] + " m"
    return [Role("mark", f"@ {own}")]


def _heart(pieces: Pieces) -> list[Role]:
    figure = pieces.figures[0]
    beats = "-".join(figure.said)
    of = "reserve" if pieces.has("OF_RESERVE") else "max"
    return [Role("heart", f"{beats}% {of}" if figure.measure == "share" else beats)]


def _kit(pieces: Pieces) -> list[Role]:
    number = pieces.figures[0].number
    if number is None or number > MOST_HELD:
        return [NOT_THIS]
    return [Role("mark", f"| {pieces.one(0)} bell {pieces.one(1)}")]


def _with(pieces: Pieces) -> list[Role]:
    """Kit that it is done with: how many pieces, or how heavy."""
    named = next(one.text.lower() for one in pieces.tokens if one.kind == "KIT")
    figure = pieces.figures[0] if pieces.figures else None
    if figure and figure.measure == "load":
        return [Role("mark", f"@ {figure.own}"), Role("mark", f"| {named}")]
    return [Role("mark", f"| {figure.own + ' ' if figure else ''}{named}")]


def _marked(word: str) -> Gives:
    return lambda pieces: [Role("mark", f"{word} {'-'.join(pieces.figures[-1].said)}")]


def _team(pieces: Pieces) -> list[Role]:
    return [Role("company", f"teams of {pieces.one()}, one works")]


def _race(pieces: Pieces) -> list[Role]:
    """As many as possible in so long."""
    return [Role("amrap"), *_length("total", pieces.figures[0], pieces.text)]


def _races(pieces: Pieces) -> list[Role]:
    """So many times so many minutes, as many as possible."""
    work = pieces.figures[1]
    if not is_minutes(float(work.said[0])):
        return [Role("left", pieces.text)]
    return [Role("amrap"), Role("times", pieces.one()), Role("work", _minutes(work))]


def _colon_pair(pieces: Pieces) -> list[Role]:
    """45:15 of stations and rounds: a work and a rest, where it would be three quarters of an hour."""
    seconds = pieces.figures[0].seconds[0]
    work, rest = divmod(seconds, 60)
    if not MOST_STATION_MIN < work <= MANY_MIN or work < rest:
        return [NOT_THIS]
    return [Role("pair", f"{work}/{rest}")]


def _scheme(pieces: Pieces) -> list[Role]:
    first = pieces.figures[0]
    if len(first.said) == 2 and first.said[1] != "1":
        return [Role("left", pieces.one()), Role("unsure", "pair")]
    return [Role("scheme", "-".join(one for figure in pieces.figures for one in figure.said))]


def _falling(pieces: Pieces) -> list[Role]:
    """10, 9, 8, … 1: the first and the last."""
    said = [one for figure in pieces.figures for one in figure.said]
    by_one = int(said[0]) - int(said[1]) == 1 and said[-1] == "1"
    return [Role("scheme", f"{said[0]}-1")] if by_one else [Role("left", pieces.text)]


def _down(pieces: Pieces) -> list[Role]:
    """10 -2: ten, eight, six …"""
    start, step = (figure.number or 0 for figure in pieces.figures[:2])
    if not 0 < step < start or start // step > LONGEST_WAY:
        return [Role("left", pieces.text)]
    return [Role("scheme", "-".join(map(str, range(start, 0, -step))))]


def _climbing(pieces: Pieces) -> list[Role]:
    """2, 4, 6, 8, …: where it begins, and by how much it grows."""
    said = [int(one) for figure in pieces.figures for one in figure.said]
    step = said[1] - said[0]
    if step < 1 or any(b - a != step for a, b in itertools.pairwise(said)):
        return [Role("left", pieces.text)]
    return [Role("ladder", f"{said[0]} +{step}")]


def _by_minute(pieces: Pieces) -> list[Role]:
    """1 burpee in minute 1, 2 in minute 2: what is done, and how it grows."""
    said = [figure.number or 0 for figure in pieces.figures]
    name = next((one.text for one in pieces.tokens if one.kind in ("name", "word")), "")
    grows = said[2] - said[0]
    if grows < 1 or said[1:4:2] != [1, 2]:
        return [Role("left", pieces.text)]
    return [Role("ladder", f"{said[0]} +{grows}"), *([Role("task", name)] if name else [])]


def _by_minute_after(pieces: Pieces) -> list[Role]:
    """Behind a move: (1 in minute 1, 2 in minute 2)."""
    roles = _by_minute(pieces)
    return [*roles, Role("period", "1:00")] if roles[0].name == "ladder" else roles


def _as_many(pieces: Pieces) -> list[Role]:
    """As many of something as one can."""
    words = [one.kept or one.text for one in pieces.tokens if one.kind in ("name", "word", "KIT")]
    return [Role("amrap"), Role("task", " ".join(words))]


def _grows(pieces: Pieces) -> list[Role]:
    """A hold that is so much longer each minute."""
    return [Role("grows", short(pieces.figures[0].seconds[0])), Role("period", "1:00")]


def _best_in(pieces: Pieces) -> list[Role]:
    """3RM in 15 minutes."""
    best = next(one for one in pieces.tokens if one.kind == "OF_RM")
    reps = "".join(filter(str.isdigit, best.text))
    return [Role("heavy", reps), *gives("total")(pieces)] if reps else [NOT_THIS]


def _added(pieces: Pieces) -> list[Role]:
    return [Role("add", pieces.one())]


def _way(pieces: Pieces) -> list[Role]:
    """10 to 1, 1 to 10."""
    low, high = (figure.own for figure in pieces.figures[:2])
    return [Role("scheme", f"{low} to {high}")]


def _works(pieces: Pieces) -> list[Role]:
    """Lengths that differ: bare figures have the unit of the last one."""
    *before, last = pieces.figures
    if not before:
        return [Role("works", " ".join(last.said))]
    unit = _unit(next(one for one in reversed(pieces.tokens) if one.figure))
    lengths = [one.seconds[0] if one.seconds else unit * (one.number or 0) for one in before]
    if not all(lengths):
        return [Role("left", pieces.text)]
    return [Role("works", " ".join(map(short, (*lengths, *last.seconds))))]


def _unit(piece: Token) -> int:
    """Seconds that its figure stands for by one, 0 where it isn't a whole number of minutes or of seconds."""
    whole = re.match(r"\d+(?![\d:.,])", piece.text)
    seconds = piece.figure.seconds[0] if piece.figure and piece.figure.seconds else 0
    return next((one for one in (1, 60) if whole and one * int(whole[0]) == seconds), 0)


def _around(pieces: Pieces) -> list[Role]:
    roles = [Role("around", pieces.kept("AROUND"))]
    return roles + (_length("time", pieces.figures[0], pieces.text) if pieces.figures else [])


def _heavy(pieces: Pieces) -> list[Role]:
    if pieces.figures:
        return [Role("heavy", pieces.one())]
    named = HEAVY_SETS.get(pieces.tokens[-1].text.lower())
    return [Role("heavy", named)] if named else [NOT_THIS]


def _heaviest(pieces: Pieces) -> list[Role]:
    """A best of so many reps: 3RM."""
    return [Role("heavy", "".join(filter(str.isdigit, pieces.tokens[-1].text)))]


def _rft(pieces: Pieces) -> list[Role]:
    rounds = [Role("rounds", pieces.one())] if pieces.figures else []
    return [*rounds, Role("fortime")]


def _note(pieces: Pieces) -> list[Role]:
    return [Role("note", pieces.text)]


def _paced(pieces: Pieces) -> list[Role]:
    """A pace that has no figure of its own: told."""
    return [Role("note", pieces.text.removeprefix("@").strip())]


def _every_now_and_then(pieces: Pieces) -> list[Role]:
    return [Role("period", _minutes(pieces.figures[0]))]


BTW = "(?:BETWEEN|WITHIN (?:OF |word )?ROUND|AFTER (?:EACH )?ROUND)"
COUNT = "(?:count|count_range)"
LENGTHS = "(?:time_list|time (?:, time)(?:, time)+|count (?:, count)+ , time)"
LEN = "(?:time|count)"
WAYS: tuple[tuple[str, Gives], ...] = (
    ("count X MAX|count SET (?:OF)? (?:MAX|OF_MAX)", lambda p: [Role("sets", p.one()), Role("maxed")]),
    ("day", lambda pieces: [Role("slot", pieces.one())]),
    ("SETUP :? time|time SETUP", gives("setup")),
    ("time SLOT|SLOT ,? OF? time", gives("slot")),
    ("TEAM SECTION? \\( count PEOPLE \\)|TEAM count ,? ONE_WORKS|TEAM OF? count", _team),
    ("count PEOPLE", lambda pieces: [Role("people", pieces.one())]),
    # minutes that each have their task
    (f"EMOM :? (?:X|FOR)? {LEN} (?:MINUTE|ROUND|SET)?", _emom),
    ("(?:time|count) (?:MINUTE)? EMOM", _emom),
    ("EMOM", _emom),
    ("EVERY MINUTE FOR count", lambda p: [Role("period", "1:00"), *_length("total", p.figures[0], p.text)]),
    ("EVERY (?:time|count MINUTE) FOR count (?:ROUND|SET)", lambda p: [*_period(p), Role("rounds", p.one(1))]),
    ("EVERY (?:time|count MINUTE) X count (?:ROUND|SET)?", lambda p: [*_period(p), Role("rounds", p.one(1))]),
    ("EVERY (?:time|count MINUTE|MINUTE)", _period),
    ("FOR count (?:ROUND|SET)", gives("rounds")),
    (f"FOR time|time FOR(?! {LEN})", gives("total")),
    # as many as possible, for time
    ("AMRAP :? count X count(?! (?:name|word|KIT))", _races),
    ("AMRAP :? count X time", lambda p: [Role("amrap"), *gives("times", "work")(p)]),
    ("\\( time \\) AMRAP :?", _race),
    ("AMRAP :? (?:FOR|X)? (?:time|count(?! (?:name|KIT|word))) (?:MINUTE)?", _race),
    ("time AMRAP", _race),
    ("AMRAP", flag(("amrap", ""))),
    ("AS_MANY (?:name|word|KIT)+ AS_CAN", _as_many),
    ("OF_RM FOR time", _best_in),
    ("HOLD_LADDER :?", SILENTLY),
    ("\\+ time (?:EACH MINUTE|EVERY (?:time|MINUTE)|EACH|EVERY)", _grows),
    ("(?<=time) MINUTE count", SILENTLY),
    ("SWAP (?:AFTER )*(?:EACH |EVERY )?ROUND?|SWAP (?:BETWEEN|WITHIN)", lambda p: [Role("note", p.text)]),
    ("EACH OF :?", SILENTLY),
    ("RFT count|count? RFT", _rft),
    ("FOR_TIME", flag(("fortime", ""))),
    ("QUALITY", flag(("quality", ""))),
    (f"CAP :? OF? {LEN} (?:MINUTE)?|time CAP", length("cap")),
    # a word for a length of its own
    ("ACCUMULATE time", gives("accumulate")),
    ("BUILD (?:TO|OF)* OF_RM", _heaviest),
    ("BUILD (?:TO|OF)* HEAVY (?:count|word|name) REP?", _heavy),
    ("BUY_IN :?", flag(("once", "buy-in"))),
    ("CASH_OUT :?", flag(("once", "cash-out"))),
    (f"AROUND [:,]? {LEN}(?! (?:X|ROUND|SET|name|word|KIT))|AROUND [:,]? time|{LEN} AROUND|AROUND", _around),
    # rests
    ("\\( count (?:/|OF)? (?:LIMB|SIDE) \\)", lambda p: [Role("sided", p.one())]),
    ("count REP(?! (?:OF |WITH )?(?:name|word|KIT))", lambda p: [Role("counted", p.one())]),
    ("^count X$", gives("rounds")),
    ("FAIL", flag(("most", ""))),
    ("REST :? count : count(?! (?:name|word|KIT))", _share),
    ("MAX [.]? time", length("cap")),
    ("REST :? = ON (?:word)?", flag(("rest", "= work"))),
    ("(?:REST )?EQUAL", flag(("rest", "= work"))),
    ("REST :? odd", _unsure("odd:rest")),
    ("REST (?:NEEDED)|NEEDED", lambda p: [Role("needed"), Role("note", p.text)]),
    (f"(?:REST :? )?{LEN} OF? (?:ACTIVE )*(?:REST )?(?:,? {BTW})|{BTW} :? {LEN}", _rest("between")),
    (f"{LEN} OF? CHANGE|CHANGE :? {LEN}", _rest("change")),
    # so many times so much
    ("count ROUND (?:EACH )?[:,]? OF? (?:count_pair|time_pair)", _counted_pair("rounds")),
    (f"count X {LEN} (?:@|AT) time_pair (?:@|AT) count", _two_efforts),
    (f"count X {LEN} ON (?:/)? {LEN} (?:REST|ACTIVE)", _times_pair),
    ("count X \\( count X (?:count_pair|time_pair) \\)?", _outer_pair),
    ("count (?:X \\(|SET OF) count X far", gives("outer", "times", "far")),
    ("count X (?:count_pair|time_pair)", _counted_pair("times")),
    ("count X \\(? time", gives("times", "work")),
    ("count X \\(? (?:far|cal)", gives("times", "far")),
    ("count X load", _kit),
    ("count X SECTION", gives("rounds")),
    ("count X AMRAP", lambda p: [Role("rounds", p.one()), Role("amrap")]),
    ("count X \\( count_range REP? \\)", _sets),
    (f"count X (?:{COUNT}|count_list) REP?(?! (?:ROUND|SET))", _sets),
    ("count SET (?:OF|WITH|X|EACH|:)* time", gives("times", "work")),
    (f"count SET (?:OF|WITH|X|EACH|:)* (?:{COUNT}|count_list) REP?", _sets),
    ("count SET OF?", gives("sets")),
    ("count ROUND (?:EACH )?OF?|X count ROUND|ROUND X? count", gives("rounds")),
    ("count_list REP(?! FOR_TIME)", _by_set),
    ("count STATIONS|STATIONS count(?= ,)", lambda p: [Role("stations", p.one())]),
    ("STATIONS \\( time \\)", gives("each")),
    ("(?<=STATIONS) time(?= , count ROUND)", _colon_pair),
    ("STATIONS \\(? count_pair \\)? :?", _pair),
    ("STATIONS :?", flag()),
    # work and rest
    (f"{LEN} OF? (?:ON|HARD) (?:/|,|-|:)? {LEN} OF? (?:REST|ACTIVE)+", _pair),
    (f"{LEN} (?:ON|HARD|STATION) (?:/|,|-)? {LEN} CHANGE", _pair),
    ("time (?:EACH|STATION)|EACH time", gives("each")),
    (f"{LEN} ON|time HARD|(?<!time) ON time", lambda p: [Role("work", _bare(p.figures[0]))]),
    (f"(?<=.)(?:REST|ACTIVE) :? (?:FOR|OF)? {LEN} (?:ACTIVE |REST |OF )*WITHIN", _rest("rest")),
    (f"REST :? (?:FOR|OF)? {LEN} (?:ACTIVE |REST |OF )*WITHIN", _rest("rest")),
    ("REST :? (?:FOR|OF)? (?:time|far) AFTER (?:(?:word|OF) count?|EACH ROUND)?", _rest("rest")),
    ("REST :? (?:FOR|OF)? (?:time|far) (?:ACTIVE )*", _rest("rest")),
    ("REST :? count (?:MINUTE)?", _rest("rest")),
    ("(?:time|far) OF? (?:ACTIVE )*REST (?:AFTER (?:(?:word|OF) count?)?|WITHIN)?", _rest("rest")),
    ("count (?:REST|ACTIVE) WITHIN", _rest("rest")),
    ("time R(?! count)|R =? time", _rest("rest")),
    ("REST :? (?:FOR|OF)? time_range WITHIN?|time_range (?:OF )*REST WITHIN?", _unsure("range:rest")),
    ("(?:time|far) (?:ACTIVE )*WITHIN|WITHIN :? (?:time|far) (?:ACTIVE )*", _rest("rest")),
    ("(?<=[,/\\-+WITH]) (?:time|far) (?:OF )*(?:ACTIVE )+REST?|(?<=[,/\\-+WITH]) ACTIVE (?:BACK )?(?:time|far)", _easy),
    ("\\( count_pair \\)|(?<=name) count_pair", _unsure("load")),
    ("(?:time_pair|count_pair) X count(?= (?:name|word|KIT))", _pair_often),
    ("count_pair (?:ON|REST)|time_pair", _pair),
    ("count_pair(?! (?:name|word|KIT|SIDE|cal))", _pair),
    ("(?<=far name) X count|(?<=time name) X count", gives("often")),
    ("(?<!name) (?<!word) X count(?= (?:[,:.()]|ALTERNATING|THEN|$))", gives("often")),
    # how hard
    ("(?:@|AT) count RATE|(?:@|AT) RATE count", _marked("rate")),
    ("(?:@|AT)? RPE :? (?:count|count_range|count_pair)(?: / count)?", _effort),
    ("(?:@|AT) count_list", _at_rhythm),
    ("(?:@|AT) (?:count|count_range|count_pair)", _effort),
    ("(?:@|AT)? (?:far|word|name)? PACE (?:(?:sign|\\+|-) (?:count|time))?", _paced),
    ("(?:@|AT|OF)? HEART :? (?:count|count_range|share|share_range)", _heart),
    ("(?:@|AT|OF)? (?:share|share_range) (?:OF )*(?:OF_MAX|OF_RESERVE|MAX HEART|HEART)", _heart),
    ("(?:@|AT|OF)? \\(? (?:load|share|watt)(?:_range|_pair|_list)? (?:OF )*OF_RM?", _load),
    ("(?:@|AT|OF)? (?:load|share|watt)(?:_range|_pair|_list)?|(?:@|AT) split|split", _load),
    ("RESERVE :? count|(?:LEAVE )?count RESERVE", _marked("rir")),
    ("WITH /? OF? (?:count |load )?KIT", _with),
    ("(?<=count) EACH", _unsure("each")),
    ("TEMPO :? (?:rhythm|count_list)|rhythm", _marked("tempo")),
    ("RATE :? count|R count|count RATE", _marked("rate")),
    ("R (?:count_pair|count_list|count_range)", _note),
    ("(?:@|AT)? ZONE", lambda p: [Role("note", p.tokens[-1].text)]),
    ("EACH MINUTE|ODD :?", flag()),
    ("/ LIMB|EACH LIMB|SIDE", flag(("side", "each side"))),
    # with whom
    ("ONE_WORKS", flag(("oneworks", ""))),
    ("PARTNERS :?", flag(("company", "partners alternate"))),
    ("TOGETHER", flag(("together", ""))),
    ("SUPERSET :? count X", lambda p: [Role("together"), Role("sets", p.one())]),
    ("SUPERSET :?", flag(("together", ""))),
    # figures that change by round
    ("count X(?= (?:name|word|PYRAMID|LADDER|:)+ time_list)", gives("times")),
    (f"(?:PYRAMID|LADDER)? :? {LENGTHS} HARD? (?!ACTIVE|REST|WITHIN|BETWEEN|name|word)", _works),
    ("LADDER? :? count_list ELL|LADDER? count (?:, count )+,? ELL(?! count)", _climbing),
    ("count (?:, count )+,? ELL ,? count|count_list ELL count", _falling),
    ("count (?:name|word|KIT) FOR MINUTE count , count (?:name|word|KIT)? FOR MINUTE count (?:, ELL)?", _by_minute),
    ("\\( count FOR MINUTE count , count FOR MINUTE count (?:,? ELL)? \\)?", _by_minute_after),
    ("count - count(?= (?:LADDER|FOR_TIME|$))", _down),
    ("ADD count (?:EACH|EVERY)? ROUND?", _added),
    ("count TO count LADDER?", _way),
    ("count (?:, count )(?:, count )+(?! (?:name|word|KIT))", _scheme),
    ("LADDER :? count_list", lambda p: _scheme(Pieces(p.tokens[-1:]))),
    ("count_list(?! (?:name|word|KIT))|count_list REP?(?= FOR_TIME)", _scheme),
    ("count_list", _scheme),
    ("LADDER|PYRAMID", flag(("climbs", ""))),
    ("ALTERNATING|SECTION count [:-]|SECTION count(?= \\()|SECTION :?", flag()),
)  # fmt: skip


KIND = re.compile(r"[A-Za-z_]{2,}|[XR](?![A-Za-z_])")


@cache
def _letters() -> dict[str, str]:
    """A letter for each kind of piece, so that ways of saying can be looked for in one go."""
    kinds = {kind for pattern, _ in WAYS for kind in KIND.findall(pattern)}
    more = {
        "word",
        "name",
        "count",
        "far",
        "cal",
        "size",
        "odd",
        "sign",
        "AND",
        "OR",
        "THEN",
        "UNTIL",
        "HOUR",
        "BACK",
        "ALL",
        "SHARE",
        "MAX",
    }
    measures = ("count", "time", "far", "cal", "load", "share", "watt", "split", "size")
    more |= {f"{one}{form}" for one in measures for form in ("", "_range", "_list", "_pair")}
    return {kind: chr(0xE000 + nth) for nth, kind in enumerate(sorted(kinds | more))}


@cache
def _all_ways() -> re.Pattern[str]:
    letters = _letters()
    made = []
    for nth, (pattern, _) in enumerate(WAYS):
        spread = re.sub(r"\((load|share|watt)", r"(\1", pattern)
        spread = re.sub(
            r"\(\?:load\|share\|watt\)\(\?:_range\|_pair\|_list\)\?",
            "(?:"
            + "|".join(
                f"{one}{form}"
                for one in ("load", "share", "watt")
                for form in ("", "_range", "_pair", "_list")
            )
            + ")",
            spread,
        )
        own = KIND.sub(lambda found: letters[found[0]], spread)
        own = re.sub(r"(?<=[\ue000-\uf8ff])\?", "?", own).replace("+ ", "+").replace(" ", "")
        made.append(f"(?P<w{nth}>{own})")
    return re.compile("|".join(made))


def spelled(tokens: Sequence[Token]) -> str:
    """A line as the letters of its pieces."""
    letters = _letters()
    return "".join(
        letters.get(one.kind, one.kind if len(one.kind) == 1 else "\ue0ff") for one in tokens
    )


class Taken(NamedTuple):
    """A place in a line: the roles that a way of saying gives there, or a piece that none took."""

    roles: tuple[Role, ...]
    tokens: tuple[Token, ...]


def taken(tokens: Sequence[Token]) -> list[Taken]:
    """The line from left to right: roles, and between them what is left for names."""
    said, ways = spelled(tokens), _all_ways()
    made: list[Taken] = []
    at = 0
    while at < len(tokens):
        found = ways.match(said, at)
        if found and found.end() > at:
            nth = int((found.lastgroup or "w0")[1:])
            part = tuple(tokens[at : found.end()])
            roles = tuple(WAYS[nth][1](Pieces(part)))
            if NOT_THIS in roles:
                made.append(Taken((), part[:1]))
                at += 1
                continue
            made.append(Taken(roles, part))
            at = found.end()
        else:
            made.append(Taken((), (tokens[at],)))
            at += 1
    return made
