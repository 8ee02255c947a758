"""What is said of time: how often, works and rests, ways and how long they are."""

import re
from collections.abc import Callable

from lovrit.core.reading.figured import short
from lovrit.core.reading.giving import (
    ALL_OUT,
    GOING,
    LONGEST_REST_S,
    MANY_MIN,
    MOST_EFFORT,
    NOT_THIS,
    Gives,
    Pieces,
    Role,
    clock_of,
    clocked,
    is_minutes,
    length_of,
    minutes_of,
    noted,
)
from lovrit.core.reading.token import Figure, Token
from lovrit.core.reading.vocabulary import plain

MOST_STATION_MIN = 14  # nobody stays longer at a station
EARLIEST_S = 6 * 60  # nobody begins before six: 18:15 is a time of day, not a length
# a bare rest below is minutes, from here on seconds; between them it is asked
FEW_MINUTES, SURE_SECONDS = 6, 15
HELD_S = 5  # nobody rests so shortly; a rep is held so long


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
    return [Role("period", minutes_of(figures[0]))]


def pair(pieces: Pieces) -> list[Role]:
    """A work and a rest."""
    figures = pieces.figures
    if len(figures) == 1:
        return [Role("pair", "/".join(figures[0].said)), *_how(pieces)]
    return [Role("pair", "/".join(map(bare, figures[:2]))), *_how(pieces)]


def _how(pieces: Pieces) -> list[Role]:
    """How a work and its rest are done, where the words between them say it: all out, walked."""
    hard = next((one.text for one in pieces.tokens if one.kind == "HARD"), "")
    kept = pieces.kept("ACTIVE")
    told = [f"{kept} in the rest"] if kept in GOING else []
    return [Role("note", one) for one in ([hard] if plain(hard) in ALL_OUT else []) + told]


def bare(figure: Figure) -> str:
    """A length as a pair has it."""
    return short(figure.seconds[0]) if figure.seconds else figure.said[0]


def counted_pair(name: str) -> Callable[..., list[Role]]:
    """So many times a work and a rest."""

    def give(pieces: Pieces, at: int = 0) -> list[Role]:
        pair = "/".join(pieces.figures[at + 1].said)
        return [Role(name, pieces.one(at)), Role("pair", pair), *_how(pieces)]

    return give


def times_pair(pieces: Pieces) -> list[Role]:
    """So many times a work and a rest, each with its unit."""
    pair = "/".join(map(bare, pieces.figures[1:3]))
    return [Role("times", pieces.one()), Role("pair", pair), *_how(pieces)]


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


def zones(pieces: Pieces) -> list[Role]:
    """6 x 6 min Z3, 2 min Z1: the second is the rest, where its zone is the easier one."""
    times, work, rest = pieces.figures[:3]
    hard, easy = (one.text for one in pieces.tokens if one.kind == "ZONE")
    if easy.lower() >= hard.lower():
        return [NOT_THIS]
    told = [Role("note", hard), Role("note", f"{easy} in the rest")]
    return [Role("times", times.own), Role("pair", f"{bare(work)}/{bare(rest)}"), *told]


def pair_often(pieces: Pieces) -> list[Role]:
    """30/30 x 12."""
    return [Role("pair", "/".join(pieces.figures[0].said)), Role("often", pieces.one(1))]


def outer_pair(pieces: Pieces) -> list[Role]:
    """Sets of intervals: 2 x (8 x 30/30)."""
    return [Role("outer", pieces.one()), *counted_pair("times")(pieces, 1)]


def outer_work(pieces: Pieces) -> list[Role]:
    """Sets of so many works; what rests are said of them stands behind: 3 sets of 5 x 1 min."""
    work = Role("work", bare(pieces.figures[2]))
    return [Role("outer", pieces.one()), Role("times", pieces.one(1)), work]


def of_one(pieces: Pieces) -> list[Role]:
    """A rest behind one of several only: it is asked about, since all others have another."""
    return [Role("left", pieces.text)]


def outer_named(pieces: Pieces) -> list[Role]:
    """The same with what is done: 3 x (8 x 20 s sprint, 40 s walk)."""
    name = " ".join(one.text for one in pieces.tokens if one.kind in ("name", "word"))
    return [*outer_times(pieces), Role("task", name)]


def outer_times(pieces: Pieces) -> list[Role]:
    """The same with units: 3 sets of (5 x 40 s hard / 20 s easy)."""
    times, pair = Role("times", pieces.one(1)), "/".join(map(bare, pieces.figures[2:4]))
    return [Role("outer", pieces.one()), times, Role("pair", pair)]


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
        if figure.seconds and figure.seconds[0] <= HELD_S and _says_pause(pieces):
            return [Role("held", pieces.text)]  # in each rep, where there are any
        if figure.seconds:
            how = [pieces.kept("ACTIVE")] if pieces.kept("ACTIVE") in GOING else []
            told = [Role("note", f"{one} in the rest") for one in how]
            return [Role(own, clocked(figure.seconds[0])), *told]
        return _bare_rest(own, figure, pieces.text)

    return give


def _says_pause(pieces: Pieces) -> bool:
    return any(one.kind == "REST" and plain(one.text) == "pause" for one in pieces.tokens)


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


def race(pieces: Pieces) -> list[Role]:
    """As many as possible in so long."""
    return [Role("amrap"), *length_of("total", pieces.figures[0], pieces.text)]


def races(pieces: Pieces) -> list[Role]:
    """So many times so many minutes, as many as possible."""
    work = pieces.figures[1]
    if not is_minutes(float(work.said[0])):
        return [Role("left", pieces.text)]
    return [Role("amrap"), Role("times", pieces.one()), Role("work", minutes_of(work))]


def colon_pair(pieces: Pieces) -> list[Role]:
    """45:15 of stations and rounds: a work and a rest, where it would be three quarters of an hour."""
    seconds = pieces.figures[0].seconds[0]
    work, rest = divmod(seconds, 60)
    if not MOST_STATION_MIN < work <= MANY_MIN or work < rest:
        return [NOT_THIS]
    return [Role("pair", f"{work}/{rest}")]


def sets_every(pieces: Pieces) -> list[Role]:
    """4 sets, every 3 min: how many, and how often one begins."""
    return [*period(Pieces(pieces.tokens[2:])), Role("rounds", pieces.one())]


def one_every(pieces: Pieces) -> list[Role]:
    """1 every 3 min: how often it begins."""
    first, often = pieces.figures[:2]
    return [Role("period", minutes_of(often))] if first.own == "1" else [NOT_THIS]


def both_ends(pieces: Pieces) -> list[Role]:
    """So long of something easy before all that is hard, and behind it."""
    return [Role("ends", minutes_of(pieces.figures[0]))]


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
    return [Role("stations", pieces.one()), Role("each", clock_of(pieces.figures[1]))]


def grows(pieces: Pieces) -> list[Role]:
    """A hold that is so much longer each minute."""
    return [Role("grows", short(pieces.figures[0].seconds[0])), Role("period", "1:00")]


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


def way_back(pieces: Pieces) -> list[Role]:
    """The way back as a rest: as far as it was gone."""
    if not pieces.has("BACK") and "back" not in pieces.text.lower():
        return [NOT_THIS]
    return [Role("back", pieces.kept("ACTIVE") or "walk")]
