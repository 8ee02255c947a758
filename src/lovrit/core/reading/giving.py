"""What a way of saying gives: roles, by the figures and words of the pieces that it took."""

import itertools
import re
from collections.abc import Callable, Sequence
from typing import NamedTuple

from lovrit.core.reading.token import Figure, Token
from lovrit.core.reading.tokens import short

FEW_MIN, MANY_MIN = 3, 60  # a bare length is minutes within; else it is asked
MOST_EFFORT = 10
MOST_STATION_MIN = 14  # nobody stays longer at a station
PHASES = ("down", "low", "up", "high")
HEAVY_SETS = {"single": "1", "double": "2", "triple": "3", "five": "5"}
LONGEST_WAY = 40  # rungs
GOING = frozenset({"jog", "walk", "float", "swim"})
MOST_A_SIDE = 9  # reps; a work and a rest are longer
MOST_HELD = 4  # pieces of kit that one person works with at once
EARLIEST_S = 6 * 60  # nobody begins before six: 18:15 is a time of day, not a length
MINUTE_S, LONGEST_TEST_S = 60, 20 * 60
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


def unsure(of: str) -> Gives:
    """What could be more than one thing, and of which role."""
    return lambda pieces: [Role("left", pieces.text), Role("unsure", of)]


def flag(*roles: tuple[str, str]) -> Gives:
    """Roles that have no figure."""
    return lambda _pieces: [Role(name, value) for name, value in roles]


SILENTLY = flag(("unsure", ""))  # taken, and nothing said by it


def length(name: str) -> Gives:
    """A role of which a bare figure is minutes, where that can be."""
    return lambda pieces: length_of(name, pieces.figures[0], pieces.text)


def is_minutes(bare: float) -> bool:
    """Whether a length without a unit can only be minutes."""
    return FEW_MIN <= bare <= MANY_MIN


def length_of(name: str, figure: Figure, text: str) -> list[Role]:
    """A length, where a bare figure can only be minutes; else it is asked."""
    if not figure.seconds and not is_minutes(float(figure.said[0])):
        return [Role("left", text), Role("unsure", f"length:{name}")]
    return [Role(name, _minutes(figure))]


def emom(pieces: Pieces) -> list[Role]:
    """Minutes that each have their task: how long each, how many, or how long in all."""
    period = int(pieces.kept("EMOM")) if pieces.kept("EMOM").isdecimal() else 60
    roles = [Role("period", clocked(period))]
    for figure in pieces.figures:
        times = pieces.has("X") or pieces.has("ROUND") or pieces.has("SET")
        if figure.seconds or not times:
            roles += length_of("total", figure, pieces.text)
        else:
            roles.append(Role("rounds", figure.own))
    return roles


def period(pieces: Pieces) -> list[Role]:
    """How often something begins; a minute where nobody said it."""
    figures = pieces.figures
    if not figures:
        return [Role("period", "1:00")]
    return [Role("period", _minutes(figures[0]))]


def pair(pieces: Pieces) -> list[Role]:
    """A work and a rest."""
    figures = pieces.figures
    if len(figures) == 1:
        return [Role("pair", "/".join(figures[0].said))]
    return [Role("pair", "/".join(map(bare, figures[:2])))]


def bare(figure: Figure) -> str:
    """A length as a pair has it."""
    return short(figure.seconds[0]) if figure.seconds else figure.said[0]


def counted_pair(name: str) -> Callable[..., list[Role]]:
    """So many times a work and a rest."""

    def give(pieces: Pieces, at: int = 0) -> list[Role]:
        pair = "/".join(pieces.figures[at + 1].said)
        return [Role(name, pieces.one(at)), Role("pair", pair)]

    return give


def times_pair(pieces: Pieces) -> list[Role]:
    """So many times a work and a rest, each with its unit."""
    return [Role("times", pieces.one()), Role("pair", "/".join(map(bare, pieces.figures[1:3])))]


def two_efforts(pieces: Pieces) -> list[Role]:
    """10 x 1 min @ 9 / 1 min @ 4: the stroke joins the first effort to the rest; what that is done at is told."""
    times, work, both, easy = pieces.figures[:4]
    hard = next(one.text for one in pieces.tokens if one.figure is both).split("/")[0].strip()
    if not hard.isdecimal() or int(hard) > MOST_EFFORT:
        return [NOT_THIS]
    pair = f"{bare(work)}/{short(both.seconds[1])}"
    told = Role("note", f"rest at {easy.own}")
    return [Role("times", times.own), Role("pair", pair), Role("effort", hard), told]


def two_efforts_apart(pieces: Pieces) -> list[Role]:
    """7 x (3 min @ 7, 1 min @ 3): the second is the rest, what it is done at is told."""
    times, work, hard, rest, easy = pieces.figures[:5]
    if float(easy.own) >= float(hard.own) or float(hard.own) > MOST_EFFORT:
        return [NOT_THIS]
    told = Role("note", f"rest at {easy.own}")
    pair = f"{bare(work)}/{bare(rest)}"
    return [Role("times", times.own), Role("pair", pair), Role("effort", hard.own), told]


def pair_often(pieces: Pieces) -> list[Role]:
    """30/30 x 12."""
    return [Role("pair", "/".join(pieces.figures[0].said)), Role("often", pieces.one(1))]


def outer_pair(pieces: Pieces) -> list[Role]:
    """Sets of intervals: 2 x (8 x 30/30)."""
    return [Role("outer", pieces.one()), *counted_pair("times")(pieces, 1)]


def sets(pieces: Pieces) -> list[Role]:
    """Sets and their reps."""
    return [Role("sets", pieces.one(0)), Role("reps", reps_of(pieces.figures[1]))]


def sided_sets(pieces: Pieces) -> list[Role]:
    """3 x 8/8 of a move: so many on each side; larger figures are a work and a rest."""
    sets_, sides = pieces.figures
    if len(set(sides.said)) > 1 or float(sides.said[0]) > MOST_A_SIDE:
        return counted_pair("times")(pieces)
    return [
        Role("sets", sets_.own),
        Role("reps", f"{sides.said[0]} reps"),
        Role("side", "each side"),
    ]


def sets_by_load(pieces: Pieces) -> list[Role]:
    """5 @ 60 kg, 3 @ 70 kg: a set each, with its load; loads without a unit are asked."""
    last = next((nth for nth, one in enumerate(pieces.tokens) if one.kind == "AMRAP"), None)
    more = (
        [] if last is None else [Role("note", " ".join(one.text for one in pieces.tokens[last:]))]
    )
    sets_, loads = _reps_and_loads(pieces.tokens[:last])
    reps = "-".join(one for one, many in sets_ for _ in range(many))
    heavy = "-".join(
        one.said[0] for one, (_, many) in zip(loads, sets_, strict=True) for _ in range(many)
    )
    open_ = [
        Role("note", f"{one.text}+")
        for one, after in itertools.pairwise(pieces.tokens)
        if after.kind == "+"
    ]
    made = [Role("sets", str(reps.count("-") + 1)), Role("reps", reps), *open_, *more]
    unit = loads[-1]
    if any(one.measure not in ("count", unit.measure) for one in loads):
        return [NOT_THIS]
    if unit.measure == "count":
        return [*made, Role("left", f"@ {heavy}"), Role("unsure", f"loads:{heavy}")]
    sign = "%" if unit.measure == "share" else f" {unit.unit}"
    return [*made, Role("mark", f"@ {heavy}{sign}")]


def _reps_and_loads(tokens: Sequence[Token]) -> tuple[list[tuple[str, int]], list[Figure]]:
    """Reps of each set, and how often; what each is done with."""
    sets_: list[tuple[str, int]] = []
    loads: list[Figure] = []
    times = 1
    for nth, token in enumerate(tokens):
        figure = token.figure
        if figure is None:
            continue
        if figure.measure in ("share", "load") or (nth and tokens[nth - 1].kind in ("@", "AT")):
            loads.append(figure)
        elif nth + 1 < len(tokens) and tokens[nth + 1].kind == "X":
            times = figure.number or 1
        else:
            sets_.append((figure.own, times))
            times = 1
    return sets_, loads


def by_set(pieces: Pieces) -> list[Role]:
    """Reps by set: as many sets as there are figures."""
    figure = pieces.figures[0]
    return [Role("sets", str(len(figure.said))), Role("reps", reps_of(figure))]


def reps_of(figure: Figure) -> str:
    """Reps of a set, or by set, as a heading has them."""
    return figure.own if figure.form == "list" else f"{figure.own} reps"


def _rest_word(pieces: Pieces) -> str:
    word = pieces.kept("ACTIVE")
    return word or pieces.kept("name") or "walk"


def rest(name: str) -> Gives:
    """A rest of this name; a way that is gone back is one too."""

    def give(pieces: Pieces) -> list[Role]:
        figure = pieces.figures[0]
        own = "within" if pieces.has("WITHIN") and name == "rest" else name
        if figure.measure == "far":
            return [Role(own, f"{figure.own} {_rest_word(pieces)}")]
        if figure.seconds:
            how = [pieces.kept("ACTIVE")] if pieces.kept("ACTIVE") in GOING else []
            told = [Role("note", f"{one} in the rest") for one in how]
            return [Role(own, clocked(figure.seconds[0])), *told]
        return _bare_rest(own, figure, pieces.text)

    return give


def _bare_rest(name: str, figure: Figure, text: str) -> list[Role]:
    number = figure.number
    if number is not None and number < FEW_MINUTES:
        return [Role(name, f"{number}:00")]
    if number is not None and number >= SURE_SECONDS:
        return [Role(name, clocked(number))]
    return [Role("left", text), Role("unsure", name)]


def easy(pieces: Pieces) -> list[Role]:
    """An easy stretch behind work is its rest, unless it is longer than a rest is."""
    figure = pieces.figures[0]
    if figure.seconds and figure.seconds[0] >= LONGEST_REST_S:
        return [NOT_THIS]
    return rest("rest")(pieces)


def share(pieces: Pieces) -> list[Role]:
    """A rest by what the work took."""
    work, rest = (float(one.said[0]) for one in pieces.figures[:2])
    return [Role("rest", "= work" if work == rest else f"{pieces.one(0)}:{pieces.one(1)}")]


def effort(pieces: Pieces) -> list[Role]:
    """How hard, of ten; a figure above could be a load."""
    figure = pieces.figures[0]
    if figure.form == "pair":
        of_ten = figure.said[1] == "10"
        return [Role("effort", figure.said[0])] if of_ten else [Role("left", pieces.text)]
    if all(float(one) <= MOST_EFFORT for one in figure.said):
        return [Role("effort", figure.own)]
    return [Role("left", pieces.text), Role("unsure", "load")]


def at_rhythm(pieces: Pieces) -> list[Role]:
    """Seconds down, low, up and high."""
    figures = pieces.figures[0].said
    return marked("tempo")(pieces) if len(figures) == len(PHASES) else [Role("left", pieces.text)]


def rhythm_behind(pieces: Pieces) -> list[Role]:
    """Behind sets, in brackets: seconds down, low, up and high; three of them are told."""
    figures = pieces.figures[0].said
    if len(figures) == len(PHASES):
        return marked("tempo")(pieces)
    short_ = len(figures) == len(PHASES) - 1 and all(float(one) <= MOST_EFFORT for one in figures)
    return [Role("note", pieces.text.strip("() "))] if short_ else [NOT_THIS]


def load(pieces: Pieces) -> list[Role]:
    """A load, beside its move."""
    figure = pieces.figures[0]
    own = figure.own
    if figure.measure == "share" and figure.form == "pair":
        own = "-".join(figure.said) + "%"
    if figure.measure == "split":
        own = figure.said[0] + " m"
    return [Role("mark", f"@ {own}")]


def heart(pieces: Pieces) -> list[Role]:
    """Beats, or a share of the highest or the reserve."""
    figure = pieces.figures[0]
    beats = "-".join(figure.said)
    of = "reserve" if pieces.has("OF_RESERVE") else "max"
    return [Role("heart", f"{beats}% {of}" if figure.measure == "share" else beats)]


def kit(pieces: Pieces) -> list[Role]:
    """So many bells of so much each."""
    number = pieces.figures[0].number
    if number is None or number > MOST_HELD:
        return [NOT_THIS]
    return [Role("mark", f"| {pieces.one(0)} bell {pieces.one(1)}")]


def kit_with(pieces: Pieces) -> list[Role]:
    """Kit that it is done with: how many pieces, or how heavy."""
    named = next(one.text.lower() for one in pieces.tokens if one.kind == "KIT")
    figure = pieces.figures[0] if pieces.figures else None
    if figure and figure.measure == "load":
        return [Role("mark", f"@ {figure.own}"), Role("mark", f"| {named}")]
    return [Role("mark", f"| {figure.own + ' ' if figure else ''}{named}")]


def marked(word: str) -> Gives:
    """A mark beside a move that has a figure."""
    return lambda pieces: [Role("mark", f"{word} {'-'.join(pieces.figures[-1].said)}")]


def team(pieces: Pieces) -> list[Role]:
    """A team of so many, of which one works."""
    return [Role("company", f"teams of {pieces.one()}, one works")]


def race(pieces: Pieces) -> list[Role]:
    """As many as possible in so long."""
    return [Role("amrap"), *length_of("total", pieces.figures[0], pieces.text)]


def races(pieces: Pieces) -> list[Role]:
    """So many times so many minutes, as many as possible."""
    work = pieces.figures[1]
    if not is_minutes(float(work.said[0])):
        return [Role("left", pieces.text)]
    return [Role("amrap"), Role("times", pieces.one()), Role("work", _minutes(work))]


def colon_pair(pieces: Pieces) -> list[Role]:
    """45:15 of stations and rounds: a work and a rest, where it would be three quarters of an hour."""
    seconds = pieces.figures[0].seconds[0]
    work, rest = divmod(seconds, 60)
    if not MOST_STATION_MIN < work <= MANY_MIN or work < rest:
        return [NOT_THIS]
    return [Role("pair", f"{work}/{rest}")]


def scheme(pieces: Pieces) -> list[Role]:
    """Reps by round; two figures could be a work and a rest."""
    first = pieces.figures[0]
    if len(first.said) == 2 and first.said[1] != "1":
        return [Role("left", pieces.one()), Role("unsure", "pair")]
    return [Role("scheme", "-".join(one for figure in pieces.figures for one in figure.said))]


def falling(pieces: Pieces) -> list[Role]:
    """10, 9, 8, … 1: the first and the last."""
    said = [one for figure in pieces.figures for one in figure.said]
    by_one = int(said[0]) - int(said[1]) == 1 and said[-1] == "1"
    return [Role("scheme", f"{said[0]}-1")] if by_one else [Role("left", pieces.text)]


def down(pieces: Pieces) -> list[Role]:
    """10 -2: ten, eight, six …"""
    start, step = (figure.number or 0 for figure in pieces.figures[:2])
    if not 0 < step < start or start // step > LONGEST_WAY:
        return [Role("left", pieces.text)]
    return [Role("scheme", "-".join(map(str, range(start, 0, -step))))]


def climbing(pieces: Pieces) -> list[Role]:
    """2, 4, 6, 8, …: where it begins, and by how much it grows."""
    said = [int(one) for figure in pieces.figures for one in figure.said]
    step = said[1] - said[0]
    if step < 1 or any(b - a != step for a, b in itertools.pairwise(said)):
        return [Role("left", pieces.text)]
    return [Role("ladder", f"{said[0]} +{step}")]


def by_minute(pieces: Pieces) -> list[Role]:
    """1 burpee in minute 1, 2 in minute 2: what is done, and how it grows."""
    said = [figure.number or 0 for figure in pieces.figures]
    name = next((one.text for one in pieces.tokens if one.kind in ("name", "word")), "")
    grows = said[2] - said[0]
    if grows < 1 or said[1:4:2] != [1, 2]:
        return [Role("left", pieces.text)]
    return [Role("ladder", f"{said[0]} +{grows}"), *([Role("task", name)] if name else [])]


def one_every(pieces: Pieces) -> list[Role]:
    """1 every 3 min: how often it begins."""
    first, often = pieces.figures[:2]
    return [Role("period", _minutes(often))] if first.own == "1" else [NOT_THIS]


def team_of(pieces: Pieces) -> list[Role]:
    """“3er Teams”: a team of so many, of which one works."""
    ending = next(one.text for one in pieces.tokens if one.kind == "word")
    return team(pieces) if ending.lower() == "er" else [NOT_THIS]


def as_far(pieces: Pieces) -> list[Role]:
    """As far as one can on a machine or a way: its metres are what counts."""
    last = pieces.tokens[-1]
    return [Role("amrap"), Role("task", last.kept or last.text)]


def both_ends(pieces: Pieces) -> list[Role]:
    """So long of something easy before all that is hard, and behind it."""
    return [Role("ends", _minutes(pieces.figures[0]))]


def sets_of_pairs(pieces: Pieces) -> list[Role]:
    """20/10 x 8 of each: so many sets at each station."""
    return [Role("pair", "/".join(pieces.figures[0].said)), Role("sets", pieces.one(1))]


def pattern(pieces: Pieces) -> list[Role]:
    """3 x (4 min hard, 2 min easy, 2 min hard, 1 min easy): works and rests in turn."""
    times, *lengths = pieces.figures
    pairs = zip(lengths[::2], lengths[1::2], strict=True)
    return [
        Role("times", times.own),
        Role("pattern", " ".join(f"{bare(a)}/{bare(b)}" for a, b in pairs)),
    ]


def filled_rest(pieces: Pieces) -> list[Role]:
    """2 min paddle light between: a rest, and what is done in it."""
    *done, where = pieces.tokens[1:]
    name = "between" if where.kind == "BETWEEN" else "rest"
    told = " ".join(one.text for one in done)
    return [*rest(name)(pieces), Role("note", f"{told} in the rest")]


def begins_at(pieces: Pieces) -> list[Role]:
    """“Start 18:15”: the time of day, which is only told; what lasts so few minutes is none."""
    return noted(pieces) if pieces.figures[0].seconds[0] >= EARLIEST_S else [NOT_THIS]


def stations_of(pieces: Pieces) -> list[Role]:
    """4 stations x 3 min: so long at each."""
    return [Role("stations", pieces.one()), Role("each", _clocked(pieces.figures[1]))]


def most_reps(pieces: Pieces) -> list[Role]:
    """“Max reps” behind all: as many as possible."""
    return [Role("amrap")] if "rep" in pieces.text.lower() else [NOT_THIS]


def by_ordinal(pieces: Pieces) -> list[Role]:
    """1 in the first minute, 2 in the second: how it grows."""
    first, second = (figure.number or 0 for figure in pieces.figures[:2])
    if not 0 < first < second:
        return [NOT_THIS]
    told = Role("note", pieces.text.strip(":(). "))
    return [Role("ladder", f"{first} +{second - first}"), Role("period", "1:00"), told]


def how_often(pieces: Pieces) -> list[Role]:
    """“Repeat twice”: two in all, or two more."""
    said = 2 if pieces.has("TWICE") else 3
    return [Role("left", pieces.text), Role("unsure", f"again:{said}")]


def among(pieces: Pieces) -> list[Role]:
    """“Between rounds 200 m run”: a thing to do that belongs to each round, or is only told."""
    at = next(nth for nth, one in enumerate(pieces.tokens) if one.figure)
    said = " ".join(one.text for one in pieces.tokens[at:])
    return [Role("left", pieces.text), Role("unsure", f"among:{said}")]


def by_minute_after(pieces: Pieces) -> list[Role]:
    """Behind a move: (1 in minute 1, 2 in minute 2)."""
    roles = by_minute(pieces)
    return [*roles, Role("period", "1:00")] if roles[0].name == "ladder" else roles


def as_many(pieces: Pieces) -> list[Role]:
    """As many of something as one can."""
    words = [one.kept or one.text for one in pieces.tokens if one.kind in ("name", "word", "KIT")]
    return [Role("amrap"), Role("task", " ".join(words))]


def grows(pieces: Pieces) -> list[Role]:
    """A hold that is so much longer each minute."""
    return [Role("grows", short(pieces.figures[0].seconds[0])), Role("period", "1:00")]


def best_in(pieces: Pieces) -> list[Role]:
    """3RM in 15 minutes."""
    best = next(one for one in pieces.tokens if one.kind == "OF_RM")
    reps = "".join(filter(str.isdigit, best.text))
    return [Role("heavy", reps), *gives("total")(pieces)] if reps else [NOT_THIS]


def most_in(pieces: Pieces) -> list[Role]:
    """The most of something in so many minutes; in a shorter time it is a work."""
    length = pieces.figures[0]
    if not MINUTE_S <= length.seconds[0] <= LONGEST_TEST_S:
        return [NOT_THIS]
    words = [one.kept or one.text for one in pieces.tokens if one.kind in ("name", "word", "KIT")]
    return [
        Role("amrap"),
        Role("total", clocked(length.seconds[0])),
        Role("task", " ".join(words)),
    ]


def added(pieces: Pieces) -> list[Role]:
    """So many more each round."""
    return [Role("add", pieces.one())]


def way(pieces: Pieces) -> list[Role]:
    """10 to 1, 1 to 10, 1-10."""
    low, high = [one for figure in pieces.figures for one in figure.said][:2]
    return [Role("scheme", f"{low} to {high}")]


def works(pieces: Pieces) -> list[Role]:
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


def around(pieces: Pieces) -> list[Role]:
    """A warm-up or a cool-down, and how long."""
    roles = [Role("around", pieces.kept("AROUND"))]
    return roles + (length_of("time", pieces.figures[0], pieces.text) if pieces.figures else [])


def heavy(pieces: Pieces) -> list[Role]:
    """A heavy set of so many reps."""
    if pieces.figures:
        return [Role("heavy", pieces.one())]
    named = HEAVY_SETS.get(pieces.tokens[-1].text.lower())
    return [Role("heavy", named)] if named else [NOT_THIS]


def heaviest(pieces: Pieces) -> list[Role]:
    """A best of so many reps: 3RM."""
    return [Role("heavy", "".join(filter(str.isdigit, pieces.tokens[-1].text)))]


def rft(pieces: Pieces) -> list[Role]:
    """So many rounds for time."""
    rounds = [Role("rounds", pieces.one())] if pieces.figures else []
    return [*rounds, Role("fortime")]


def told_of(pieces: Pieces) -> list[Role]:
    """What is only told; “partner up” says with whom too."""
    if pieces.has("PARTNERS"):
        return [Role("company", "partners alternate")]
    return [Role("note", pieces.text)]


def way_back(pieces: Pieces) -> list[Role]:
    """The way back as a rest: as far as it was gone."""
    if not pieces.has("BACK") and "back" not in pieces.text.lower():
        return [NOT_THIS]
    return [Role("back", pieces.kept("ACTIVE") or "walk")]


def noted(pieces: Pieces) -> list[Role]:
    """What is only told."""
    return [Role("note", pieces.text)]


def paced(pieces: Pieces) -> list[Role]:
    """A pace that has no figure of its own: told."""
    return [Role("note", pieces.text.removeprefix("@").strip())]
