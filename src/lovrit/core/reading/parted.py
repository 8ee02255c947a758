"""A line that was typed without its commas: tasks parted where a count begins the next, stations numbered in a row."""

from collections.abc import Iterable, Iterator
from dataclasses import replace
from itertools import pairwise, zip_longest

from lovrit.core.moves.library import shipped
from lovrit.core.reading.figured import time_of
from lovrit.core.reading.giving import is_minutes
from lovrit.core.reading.token import Figure, Token
from lovrit.core.reading.vocabulary import labels, plain

PARTS = frozenset({",", ":", ".", "THEN", "|", ";", "+", "/", "("})  # between things already
AMOUNTS = frozenset({"count", "time", "far", "cal"})
BEHIND = frozenset(
    {"name", "SIDE", "load", "load_pair", "count_pair", ")", "share"}
)  # what a task may end with
BETWEEN = frozenset({"KIT", "MAX"})  # between a count and the name that it is of
NUMBERED, NUMBERED_BARE = 3, 4  # stations in a row, with brackets behind their numbers and without
RUN_M, MACHINE_M = (
    50,
    100,
)  # from so many on a bare figure of a run or a rower is metres; fewer could be calories
RUN_ALONE_M = 100
RESTS_BEHIND = ((2, [",", "time"]), (3, ["(", "time", ")"]))
OF_A_TIME = frozenset({"REST", "ON", "CHANGE", "HARD", "ACTIVE", "WITHIN"})
SIGNS = ("-", ":")
# what may stand behind the number of a minute
DOES = frozenset({*SIGNS, "name", "KIT", "REST", "MAX"})
ABOUT = frozenset(
    {"about", "approx", "approximately", "roughly", "ca", "circa", "environ", "unos", "etwa"}
)
PLACES = frozenset({"SECTION", "STATION", "count_pair", "ON"})


def parted(tokens: list[Token]) -> list[Token]:
    """The same with commas where they were left out; figures of a way have their metres."""
    found = list(_in_minutes(_in_metres(list(_unstopped(list(_said_about(tokens)))))))
    found = _without_numbers(list(_in_their_minutes(found)))
    found = list(_often_apart(found))
    return list(_apart(_with_rest(list(_aside(found)))))


def _said_about(tokens: list[Token]) -> Iterator[Token]:
    """“About 75 s”: that a length is no exact one is how all of them are meant."""
    for token, after in zip_longest(tokens, tokens[1:]):
        told = token.kind in ("word", "AROUND", "~") and plain(token.text) in ABOUT
        if not (told and after is not None and after.kind in AMOUNTS):
            yield token


def _comma(before: Token) -> Token:
    return Token(",", before.start, before.start, ",")


def _stop(before: Token) -> Token:
    """What parts a way from what stands before it: no rest is meant by it, as behind a comma."""
    return Token(".", before.start, before.start, ".")


def _in_their_minutes(tokens: list[Token]) -> Iterator[Token]:
    """“Minute 1 - push-ups, minute 2 - squats”: what stands before each is its place, and all is a task a minute."""
    at = [
        nth
        for nth in range(len(tokens) - 2)
        if [one.kind for one in tokens[nth : nth + 2]] == ["MINUTE", "count"]
        and (tokens[nth + 2].kind in DOES or _is_amount(tokens[nth + 2]))
    ]
    numbers = [one.figure.number for nth in at if (one := tokens[nth + 1]).figure]
    if len(at) < 2 or numbers != _from(1, at):
        yield from tokens
        return
    taken = {nth + more for nth in at for more in range(2 + (tokens[nth + 2].kind in SIGNS))}
    for nth, token in enumerate(tokens):
        if nth == at[0]:
            yield Token("EMOM", token.start, token.start, "", None, "60")
            yield Token("ALTERNATING", token.start, token.start, "")
            yield _comma(token)
        elif nth not in taken:
            yield token


def _unstopped(tokens: list[Token]) -> Iterator[Token]:
    """Without the full stop of an abbreviated unit before what it is the length of: 45 Sek. Belastung, 3 Min. Pause."""
    for nth, token in enumerate(tokens):
        before = tokens[nth - 1] if nth else token
        kinds = [one.kind for one in tokens[nth + 1 : nth + 3]]
        ended = token.kind == "." and before.kind == "time" and before.text[-1:].isalpha()
        if not (
            ended and kinds and kinds[0] in OF_A_TIME and kinds[1:] not in (["time"], ["count"])
        ):
            yield token


def _apart(tokens: list[Token]) -> Iterator[Token]:
    """Commas before counts that begin the next task; behind counts, where those stand behind their names."""
    counted_first: bool | None = (
        None  # since the last sign: whether the amount stood before the name
    )
    by_round = any(one.kind == "count_list" for one in tokens)
    for nth, token in enumerate(tokens):
        before = tokens[nth - 1] if nth else token
        if by_round and _are_two(before, token):
            yield _comma(token)
        if token.kind in PARTS:
            counted_first = None
        elif _begins(tokens, nth, before, counted_first):
            yield _comma(token) if token.kind != "far" else _stop(token)
            counted_first = None if _is_amount(token) else False
        if (token.kind == "name" or _is_way(token, before)) and counted_first is None:
            counted_first = any(map(_is_amount, _leading(tokens, nth)))
        yield token


def _begins(tokens: list[Token], nth: int, before: Token, counted_first: bool | None) -> bool:
    """Whether a task begins here without a sign before it."""
    token = tokens[nth]
    if _begins_unknown(tokens, nth):
        return True
    if _is_amount(token) and _name_behind(tokens, nth):
        twice = before is not token and before.kind == token.kind == "count"
        went = before.kind == "ACTIVE" and token.kind == "far"
        return twice or bool((before.kind in BEHIND or went) and counted_first)
    return token.kind == "name" and _is_amount(before) and counted_first is False


def _begins_unknown(tokens: list[Token], nth: int) -> bool:
    """Whether a count stands between words that nobody knows, the first of which have one too: 15 zorbs 12 blips."""
    token, at = tokens[nth], nth - 1
    if token.kind != "count" or at < 0 or tokens[at].kind != "word" or nth + 1 >= len(tokens):
        return False
    while at >= 0 and tokens[at].kind in ("word", "KIT"):
        at -= 1
    return at >= 0 and tokens[at].kind == "count" and tokens[nth + 1].kind in ("word", "name")


def _is_way(token: Token, before: Token) -> bool:
    """Whether something is walked or jogged for so far."""
    return token.kind == "ACTIVE" and before.kind == "far"


def _are_two(before: Token, token: Token) -> bool:
    """Whether two names side by side are two moves."""
    if before is token or before.kind != "name" or token.kind != "name":
        return False
    find = shipped().find
    one, other = find(before.kept or before.text), find(token.kept or token.text)
    return bool(one and other and one.name != other.name)


def _with_rest(tokens: list[Token]) -> list[Token]:
    """“3x max pull-ups, 90s”: sets to the most one can, and a time at the end, or in brackets, that is their rest."""
    ends = [one for one in tokens[-1:] if one.kind == "."]
    whole = tokens[: len(tokens) - len(ends)]
    begins = max((nth + 1 for nth, one in enumerate(whole) if one.kind in ("THEN", ".")), default=0)
    kinds = {one.kind for one in whole[begins:]}
    bare = next(
        (size for size, last in RESTS_BEHIND if [one.kind for one in whole[-size:]] == last), 0
    )
    if not bare or not kinds >= {"X", "MAX"} or kinds & {"REST", "ON", "AMRAP", "CAP"}:
        return tokens
    time = next(one for one in whole[-bare:] if one.kind == "time")
    comma, word = _comma(whole[-bare]), Token("REST", time.start, time.start, "rest")
    return [*whole[:-bare], comma, word, time, *ends]


def _is_amount(token: Token) -> bool:
    return token.kind.split("_")[0] in AMOUNTS


def _name_behind(tokens: list[Token], nth: int) -> bool:
    """Whether a name follows, with nothing between but what it is done with."""
    rest = tokens[nth + 1 : nth + 3]
    going = bool(rest) and rest[0].kind == "ACTIVE"
    went = going and (tokens[nth].kind == "far" or _is_rest_of(tokens, nth))
    return bool(rest) and (
        went
        or rest[0].kind == "name"
        or (len(rest) > 1 and rest[0].kind in BETWEEN and rest[1].kind == "name")
    )


def _is_rest_of(tokens: list[Token], nth: int) -> bool:
    """Whether so long of a walk or a jog ends what is repeated: 10 x 15 s sprint 45 s walk."""
    times = [one.kind for one in tokens[:nth]]
    ends = nth + 2 >= len(tokens) or tokens[nth + 2].kind in PARTS
    return tokens[nth].kind == "time" and ends and "X" in times and times.count("time") == 1


def _leading(tokens: list[Token], nth: int) -> list[Token]:
    """What stands right before a name, without what it is done with."""
    at = nth - 1
    while at >= 0 and tokens[at].kind in BETWEEN:
        at -= 1
    return tokens[at : at + 1] if at >= 0 else []


def _without_numbers(tokens: list[Token]) -> list[Token]:
    """Stations numbered 1, 2, 3 … in a row are a list: the numbers are their places; elsewhere they are counts."""
    at = _signed(tokens) or _listed(tokens)
    if not at:
        return tokens
    kept: list[Token] = []
    for nth, one in enumerate(tokens):
        if nth in at:
            kept.append(_comma(one))
        elif not (nth - 1 in at and one.kind in (")", ".")):
            kept.append(one)
    return kept


def _signed(tokens: list[Token]) -> list[int]:
    """Where the numbers of a list stand, each with a bracket behind it; the first may have stood before all."""
    at = [
        nth
        for nth, (one, after) in enumerate(pairwise(tokens))
        if one.kind == "count" and after.kind == ")" and _is_open(tokens, nth)
    ]
    numbers = [one.figure.number for nth in at if (one := tokens[nth]).figure]
    signed = at if len(at) > 1 and numbers in (_from(1, at), _from(2, at)) else []
    return signed or _dotted(tokens)


def _dotted(tokens: list[Token]) -> list[int]:
    """Where the numbers of a list stand, each with a full stop behind it and something to do behind that."""
    kinds = [one.kind for one in tokens]
    at = [
        nth
        for nth, kind in enumerate(kinds)
        if kind == "count"
        and kinds[nth + 1 : nth + 2] == ["."]
        and kinds[nth + 2 : nth + 3]
        and kinds[nth + 2] in AMOUNTS | {"name", "REST", "MAX", "KIT"}
    ]
    numbers = [one.figure.number for nth in at if (one := tokens[nth]).figure]
    return at if len(at) >= NUMBERED and numbers in (_from(1, at), _from(2, at)) else []


def _is_open(tokens: list[Token], nth: int) -> bool:
    """Whether no bracket stands open before a place."""
    kinds = [one.kind for one in tokens[:nth]]
    return kinds.count("(") <= kinds.count(")")


def _listed(tokens: list[Token]) -> list[int]:
    """Where the numbers of a list of stations stand, before their names."""
    listed = any(one.kind in PLACES for one in tokens)
    at = [nth for nth, one in enumerate(tokens) if one.kind == "count" and _is_place(tokens, nth)]
    numbers = [one.figure.number for nth in at if (one := tokens[nth]).figure]
    signed = bool(at) and all(tokens[nth + 1].kind in (")", ".") for nth in at)
    starts = (_from(1, at), _from(2, at)) if signed else (_from(1, at),)
    enough = len(at) >= (NUMBERED if signed else NUMBERED_BARE)
    return at if (listed or signed) and enough and numbers in starts else []


def _from(first: int, at: list[int]) -> list[int | None]:
    """The numbers of a list, from its first one on; the very first may have stood before the line."""
    return list(range(first, first + len(at)))


def _is_place(tokens: list[Token], nth: int) -> bool:
    """Whether a count may be the place of the name behind it."""
    rest = [one for one in tokens[nth + 1 : nth + 3] if one.kind not in (")", ".")]
    return bool(rest) and rest[0].kind in ("name", "KIT", "word")


def _aside(tokens: list[Token]) -> Iterator[Token]:
    """“… with 10 s sprint every 5 min”: a thing on the side, which stands apart."""
    for nth, token in enumerate(tokens):
        kinds = [one.kind for one in tokens[nth + 1 : nth + 6]]
        if token.kind == "WITH" and kinds[:1] == ["time"] and "EVERY" in kinds:
            yield _comma(token)
        else:
            yield token


def _often_apart(tokens: list[Token]) -> Iterator[Token]:
    """“1 min on 1 min off x 10 bike”: ten times, and then what is done."""
    for nth, token in enumerate(tokens):
        yield token
        before = tokens[nth - 2] if nth > 1 else None
        often = token.kind == "count" and nth > 1 and tokens[nth - 1].kind == "X"
        clocked = before is not None and before.kind in ("REST", "OFF", "count_pair", "time")
        if often and clocked and _name_behind(tokens, nth):
            yield _comma(tokens[nth + 1])


def _in_minutes(tokens: Iterable[Token]) -> Iterator[Token]:
    """A bare figure behind a label is its minutes, where nothing but a sign follows: “technique 15, …”."""
    some = list(tokens)
    for nth, token in enumerate(some):
        before, after = (
            some[nth - 1] if nth else None,
            some[nth + 1] if nth + 1 < len(some) else None,
        )
        figure = token.figure
        ends = after is None or after.kind in (",", ".")
        if figure and token.kind == "count" and figure.form == "one" and before and ends:
            number = figure.number or 0
            if before.kind == "word" and plain(before.text) in labels() and is_minutes(number):
                yield replace(token, kind="time", figure=time_of(number * 60))
                continue
        yield token


def _in_metres(tokens: list[Token]) -> Iterator[Token]:
    """A bare figure of a run, a swim or a rower that nobody counts: its metres."""
    for nth, token in enumerate(tokens):
        figure, name = token.figure, _measured(tokens, nth)
        if token.kind == "count" and figure and name is not None:
            least = RUN_ALONE_M if _is_run_alone(tokens, nth) else _least_metres(name)
            if least and name.start < token.start and not _is_repeated(tokens, nth):
                least = MACHINE_M  # behind a name a small figure may be seconds
            if least and figure.number is not None and figure.number >= least:
                yield replace(token, kind="far", figure=Figure("far", "one", figure.said, "m"))
                continue
        yield token


def _measured(tokens: list[Token], nth: int) -> Token | None:
    """What a bare figure is of: the name behind it, or before it where nothing else stands there."""
    after = tokens[nth + 1] if nth + 1 < len(tokens) else None
    if after is not None and after.kind in ("name", "ACTIVE"):
        return after
    if after is not None and after.kind == "ON" and _is_repeated(tokens, nth):
        return tokens[nth - 3]
    if _is_run_alone(tokens, nth):
        return next(one for one in tokens[nth:] if one.kind == "ACTIVE")
    before = tokens[nth - 1] if nth else None
    ends = after is None or after.kind in PARTS
    first = nth < 2 or tokens[nth - 2].kind in PARTS
    named = before is not None and before.kind in ("name", "ACTIVE")
    return before if named and ends and first else None


def _is_run_alone(tokens: list[Token], nth: int) -> bool:
    """Whether a bare figure is how far one runs, since a jog or a walk is its rest: 8 x 400 @ 1:45, 60 s jog."""
    kinds = [one.kind for one in tokens]
    behind = kinds[nth + 1 :]
    behind = behind[2:] if behind[:2] in (["@", "time"], ["AT", "time"]) else behind
    goes = behind[:3] == [",", "time", "ACTIVE"]
    return (
        kinds[:nth] == ["count", "X"]
        and goes
        and any(one.kept in ("jog", "walk") for one in tokens)
    )


def _is_repeated(tokens: list[Token], nth: int) -> bool:
    """Whether a figure is how far something goes so many times, each leaving on a time: swim 10 x 50 on 1:10."""
    kinds = [one.kind for one in tokens]
    before = ["name", "count", "X"]
    return kinds[max(0, nth - 3) : nth] == before and kinds[nth + 1 : nth + 3] == ["ON", "time"]


def _least_metres(name: Token) -> int:
    """From which figure on a name is measured and not counted; 0 where it never is."""
    move = shipped().find(name.kept or name.text)
    if move is None or move.counted == "s":
        return 0
    if move.pattern == "gait" or move.counted == "m":
        return RUN_M
    return MACHINE_M if move.pattern == "machine" or {"rower", "ski"} & set(move.kit) else 0
