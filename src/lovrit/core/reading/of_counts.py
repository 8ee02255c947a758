"""What is said of counts: sets and reps, ladders, as many as one can; how hard, with what, with whom."""

import itertools
from collections.abc import Sequence

from lovrit.core.reading.giving import (
    MOST_EFFORT,
    NOT_THIS,
    Pieces,
    Role,
    clocked,
    gives,
    marked,
)
from lovrit.core.reading.of_time import bare, counted_pair
from lovrit.core.reading.token import Figure, Token
from lovrit.core.reading.vocabulary import complexes, plain

PHASES = ("down", "low", "up", "high")
HEAVY_SETS = {"single": "1", "double": "2", "triple": "3", "five": "5"}
LONGEST_WAY = 40  # rungs
# reps of each side; above, a work and a rest in seconds are meant: where nobody says of what, and where a move with two
# sides and a rest besides are named
MOST_A_SIDE, MOST_OF_TWO_SIDES = 9, 15
FEWEST_BEATS = 100  # a minute, of a heart at work
MOST_HELD = 4  # pieces of kit that one person works with at once
MINUTE_S, LONGEST_TEST_S = 60, 20 * 60


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
    unit = next((one for one in loads if one.measure != "count"), loads[-1])
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


def loads_by_set(pieces: Pieces) -> list[Role]:
    """@ 70, 75, 80%: a load for each set, with the unit of the last."""
    last = pieces.figures[-1]
    sign = "%" if last.measure == "share" else f" {last.unit}"
    return [Role("mark", f"@ {'-'.join(one.said[0] for one in pieces.figures)}{sign}")]


def by_set(pieces: Pieces) -> list[Role]:
    """Reps by set: as many sets as there are figures."""
    figure = pieces.figures[0]
    return [Role("sets", str(len(figure.said))), Role("reps", reps_of(figure))]


def reps_of(figure: Figure) -> str:
    """Reps of a set, or by set, as a heading has them."""
    return figure.own if figure.form == "list" else f"{figure.own} reps"


def effort_named(pieces: Pieces) -> list[Role]:
    """“At effort 8”: the word is one for a work too."""
    word = next(one.text.lower() for one in pieces.tokens if one.kind == "ON")
    return effort(pieces) if word.startswith("effort") else [NOT_THIS]


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


def tries(pieces: Pieces) -> list[Role]:
    """So many tries: a set each, of one."""
    return [Role("sets", pieces.one()), Role("tries", "1 reps")]


def complex_often(pieces: Pieces) -> list[Role]:
    """“Bar complex x 4”: so many rounds of what stands behind."""
    *words, _ = [one for one in pieces.tokens if one.kind in ("KIT", "name", "word", "X")]
    named = words[-1].text.split()[-1]
    if plain(named) not in complexes():
        return [NOT_THIS]
    return [Role("rounds", pieces.one()), Role("note", pieces.text.rstrip(" :"))]


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


def beats(pieces: Pieces) -> list[Role]:
    """Beats a minute: of a heart; so few as none has at work could be a metronome's, or a way to say how easy."""
    if all(float(one) < FEWEST_BEATS for one in pieces.figures[0].said):
        return [Role("left", pieces.text), Role("unsure", "beats")]
    return heart(pieces)


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


def team(pieces: Pieces) -> list[Role]:
    """A team of so many, of which one works."""
    return [Role("company", f"teams of {pieces.one()}, one works")]


def scheme(pieces: Pieces) -> list[Role]:
    """Reps by round; two figures could be a work and a rest."""
    first = pieces.figures[0]
    if len(first.said) == len(PHASES) and "0" in first.said:
        return marked("tempo")(pieces)  # no set has no reps: they are seconds
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
    named = {plain(one.text) for one in pieces.tokens if one.kind in ("name", "word")}
    if len(named) > 1:
        return [NOT_THIS]
    if grows < 1 or said[1:4:2] != [1, 2]:
        return [Role("left", pieces.text)]
    return [Role("ladder", f"{said[0]} +{grows}"), *([Role("task", name)] if name else [])]


def and_back(pieces: Pieces) -> list[Role]:
    """So long of one thing, so long walked or at rest, and how often: 5 min run 1 min walk x 5."""
    name = " ".join(one.text for one in pieces.tokens if one.kind in ("name", "word"))
    work, rest, often = pieces.figures
    pair = f"{bare(work)}/{bare(rest)}"
    return [Role("pair", pair), Role("times", often.own), Role("task", name)]


def in_minute(pieces: Pieces) -> list[Role]:
    """Behind a move, the minute that it is done in: one of them each minute."""
    return [Role("alternating"), Role("note", pieces.text)]


def team_of(pieces: Pieces) -> list[Role]:
    """“3er Teams”: a team of so many, of which one works."""
    ending = next(one.text for one in pieces.tokens if one.kind == "word")
    return team(pieces) if ending.lower() == "er" else [NOT_THIS]


def as_far(pieces: Pieces) -> list[Role]:
    """As far as one can on a machine or a way: its metres are what counts."""
    last = pieces.tokens[-1]
    return [Role("amrap"), Role("task", last.kept or last.text)]


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


FROM = frozenset({"from", "starting", "start", "beginning", "ab", "desde"})


def added_from(pieces: Pieces) -> list[Role]:
    """So many more each round, from so many on; any other word between is none of this."""
    first = any(plain(one.text) in FROM for one in pieces.tokens)
    return [Role("add", pieces.one()), Role("first", pieces.one(1))] if first else [NOT_THIS]


def way(pieces: Pieces) -> list[Role]:
    """10 to 1, 1 to 10, 1-10."""
    low, high = [one for figure in pieces.figures for one in figure.said][:2]
    return [Role("scheme", f"{low} to {high}")]


def bare_length(pieces: Pieces) -> list[Role]:
    """Minutes before the name of a part: “25 main:”."""
    return [Role("total", f"{pieces.one()}:00")]


def rungs(pieces: Pieces) -> list[Role]:
    """A ladder by its rungs, or by its first and last."""
    figures = Pieces([one for one in pieces.tokens if one.figure])
    return way(figures) if len(figures.figures[0].said) == 2 else scheme(figures)


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


def paced(pieces: Pieces) -> list[Role]:
    """A pace that has no figure of its own: told."""
    return [Role("note", pieces.text.removeprefix("@").strip())]
