"""The blocks that one line says: where, at its commas, full stops and “then”, another begins."""

from collections.abc import Iterator
from itertools import zip_longest

from lovrit.core.reading.giving import Role
from lovrit.core.reading.said import Taken
from lovrit.core.reading.token import ENDS
from lovrit.core.reading.vocabulary import again_said, plain, turned_round
from lovrit.core.slate.line import METRES

FINISH = frozenset({"to finish", "finisher", "finish with", "zum schluss", "pour finir"})
LONG_S, LONGER = 90, 3
# what begins a block where it is said again on the same line
OPENING = frozenset(
    {"sets", "times", "around", "amrap", "period", "scheme", "rounds", "often", "once"}
)
TURNED = frozenset({"pair", "work", "each", "far"})
COUNTS = frozenset({"sets", "times", "often"})
RESTED = frozenset({"rest", "within", "between", "needed", "time"})
TOGETHER = ("SUPERSET", "TOGETHER")


def blocks(items: list[Taken]) -> list[list[Taken]]:
    """A line that says several blocks, at the commas between them."""
    if any(one.kind in TOGETHER for item in items for one in item.tokens) or _is_prepared(items):
        return [items]
    made: list[list[Taken]] = []
    opened: set[str] = set()
    segments = list(_segments(items))
    for nth, segment in enumerate(segments):
        after = _behind(segments[nth + 1 : nth + 3])
        said = _names(segment)
        opens = said & OPENING
        beside = (
            said - {"work", "pace"} == {"period"}
            and any(item.tokens[0].kind == "EVERY" for item in segment)
            and opened == {"alone"}
        )
        last = made[-1] if made else []
        off = _goes_off(segment, [role for item in last for role in item.roles])
        behind = (said >= {"times", "far"} and _is_way_alone(last)) or (
            not said and _is_trial(last)
        )
        ended = bool(last) and last[-1].tokens[-1].kind == "."
        behind = behind or (ended and _is_of_its_own(segment, last))
        behind = behind or (_names(last) >= {"times", "far", "rest"} and _is_way(segment))
        between = _is_rest_alone(segment) and _may_part(last, after)
        begun = between or (bool(opens) and _is_rest_alone(last))
        begun = begun or (not beside and _begins(opens, opened, segment, last))
        begun = begun or (bool(opened) and _is_of_the_end(segment)) or _is_same_again(segment)
        begun = begun or ("alone" in opened and _is_circuit(segment))
        if not made or off or behind or begun:
            made.append([])
            opened = set()
        made[-1] += _loosened(segment) if off else segment
        opened |= opens | ({"alone"} if _is_stretch(segment) else set())
        opened |= {"filled"} if _is_circuit(segment) else set()
    return made


def _behind(segments: list[list[Taken]]) -> list[Taken]:
    """The part that follows; a “then” alone goes with the one behind it."""
    alone = bool(segments) and len(segments[0]) == 1 and _is_then(segments[0])
    return [item for one in segments[: 1 + alone] for item in one]


def _names(segment: list[Taken]) -> set[str]:
    """The roles that a part says, without what is only told."""
    return {role.name for item in segment for role in item.roles} - {"note"}


def _is_then(segment: list[Taken]) -> bool:
    return bool(segment) and segment[0].tokens[0].kind == "THEN"


def _is_of_the_end(segment: list[Taken]) -> bool:
    """Whether a part says that it is the end: “finish with 100 sit-ups”."""
    return bool(segment) and plain(segment[0].tokens[0].text) in FINISH


def _is_circuit(segment: list[Taken]) -> bool:
    """Whether a part is a work and a rest, again and again for so many minutes."""
    left = [item.tokens[0].figure for item in segment if not item.roles]
    lengths = [one.seconds[0] for one in left if one and one.seconds]
    return "pair" in _names(segment) and len(lengths) == 1 and lengths[0] >= LONG_S


def _is_same_again(segment: list[Taken]) -> bool:
    """Whether a part says only that what was done is done again, or the other way round."""
    said = [one for item in segment if not item.roles for one in item.tokens]
    whole = [one for item in segment for one in item.tokens if one.kind not in ENDS]
    alone = again_said(" ".join(one.text for one in said if one.kind not in ENDS))
    return alone or turned_round(" ".join(one.text for one in whole)) is not None


def _is_rest_alone(segment: list[Taken]) -> bool:
    """Whether a part is a rest and nothing else."""
    signs = (",", ".", "THEN")
    more = [item for item in segment if not item.roles and item.tokens[0].kind not in signs]
    return _names(segment) == {"rest"} and not more


def _may_part(last: list[Taken], after: list[Taken]) -> bool:
    """Whether a rest may stand between two blocks: with “then” on both sides, or behind a warm-up, which has none."""
    both = bool(last) and _is_then(last[-1:]) and _is_then(after)
    ended = bool(last) and last[-1].tokens[-1].kind == "." and bool(after)
    trial = ended and not _names(last) & (OPENING | TURNED)
    paired = "pair" in _names(last) or {"work", "rest"} <= _names(last)
    rested = paired and _names(after) & (TURNED | COUNTS) and not _is_of_above(after)
    again = ended and _is_same_again(after)
    return (
        both
        or trial
        or again
        or bool(rested)
        or (_names(last) == {"around", "time"} and bool(after))
    )


def _loosened(segment: list[Taken]) -> list[Taken]:
    """A part without what a way of saying made of it: its pieces are names and amounts again."""
    return [Taken((), (one,)) for item in segment for one in item.tokens]


def _goes_off(segment: list[Taken], before: list[Role]) -> bool:
    """Whether an easy way or time behind intervals is none of their rests: they have one, or it is far longer."""
    said = [role for item in segment for role in item.roles if role.name != "note"]
    kinds = {one.kind for item in segment for one in item.tokens}
    names = {role.name for role in before}
    if [one.name for one in said] != ["rest"] or "ACTIVE" not in kinds or "REST" in kinds:
        return False
    if not {"times", "far"} <= names:
        return False
    work = _metres(next(role.value for role in before if role.name == "far"))
    longer = 0 < LONGER * work < _metres(said[0].value)
    return bool(longer or names & {"rest", "within", "between"})


def _metres(way: str) -> float:
    """A way as a role has it, “1 km” or “200 m jog”, in metres; 0 where it is none."""
    figure, _, unit = way.partition(" ")
    return float(figure) * METRES.get(unit.split(" ")[0], 0) if figure.isdecimal() else 0


def _is_prepared(items: list[Taken]) -> bool:
    """Whether a line begins with a warm-up that has no length of its own: all of it is done in it."""
    first = {role.name for item in items[:1] for role in item.roles}
    said = {role.name for item in items for role in item.roles}
    counted = sum(item.tokens[0].kind == "count" and not item.roles for item in items)
    whole = first == {"around"} or (first == {"around", "time"} and counted > 1)
    if len(items) > 1 and items[1].tokens[0].kind == "THEN":
        return False
    return whole and not said & {"rounds", "often", "amrap", "period"} and len(items) > 1


def _begins(opens: set[str], opened: set[str], segment: list[Taken], last: list[Taken]) -> bool:
    """Whether a part of a line begins a block of its own."""
    if (
        len(last) > 1
        and last[-1].tokens[-1].kind == "THEN"
        and _begins_then(opens, opened, segment)
    ):
        return True
    if "once" in opens | opened and opens:
        return True
    if opens & COUNTS and opened & COUNTS:
        return True
    if opens == {"often"} and "times" in opened and _is_of_above(segment):
        return False  # 10 x 30/30, rest 3:00, x 2
    if opens & opened or ("around" in opens and opened) or "ends" in _names(segment):
        return True
    return not _is_way_to_recover(segment, last) and _stands_apart(opens, opened, segment, last)


def _begins_then(opens: set[str], opened: set[str], segment: list[Taken]) -> bool:
    """Whether what stands behind a “then” begins a block of its own."""
    rest = _names(segment) == {"rest"} and segment[-1].tokens[-1].kind == "THEN"
    return bool(opens) or rest or ("rounds" in opened and _is_counted(segment))


def _stands_apart(
    opens: set[str], opened: set[str], segment: list[Taken], last: list[Taken]
) -> bool:
    """Whether a part is another block than a stretch, a warm-up or anything else before it."""
    timed = any(role.name == "time" for item in last for role in item.roles) or any(
        item.tokens[0].kind == "far" for item in last if not item.roles
    )
    if "alone" in opened and (opens or _is_stretch(segment)):
        return not _is_of_above(segment)
    if "around" in opened and timed and (opens or _is_stretch(segment)):
        return True
    return bool(opened - {"around"}) and _is_stretch(segment)


def _is_way_to_recover(segment: list[Taken], last: list[Taken]) -> bool:
    """Whether so long of something easy stands behind repeats that have no rest yet: 5 x 3 min hard, 2 min easy row."""
    before = {role.name for item in last for role in item.roles}
    left = [
        item.tokens[0] for item in segment if not item.roles and item.tokens[0].kind not in ENDS
    ]
    easy = len(left) == 2 and left[0].kind == "time" and plain(left[1].text).startswith("easy ")
    return easy and {"times", "work"} <= before and not before & {"rest", "within", "between"}


def _is_of_above(segment: list[Taken]) -> bool:
    """Whether a part says only how often what stands before it is done, or the rest: 4 rounds."""
    said = _names(segment)
    return said <= {"rounds", "often", "rest"} and all(
        item.roles or item.tokens[0].kind in (",", ".") for item in segment
    )


def _is_way_alone(last: list[Taken]) -> bool:
    """So far of one thing, and nothing else."""
    kinds = [item.tokens[0].kind for item in last if not item.roles]
    named = [one for one in kinds if one != ":"]
    way = kinds[:1] == ["far"] or (named[:2] == ["name", "far"] and kinds[-1] in (".", ","))
    return not any(item.roles for item in last) and way and "count" not in kinds


def _is_way(segment: list[Taken]) -> bool:
    """So far of one thing that is named or easy, with nothing said of it but how hard."""
    left = [
        item.tokens[0] for item in segment if not item.roles and item.tokens[0].kind not in ENDS
    ]
    kinds = [one.kind for one in left]
    alone = not _names(segment) - {"effort", "heart", "mark"}
    return (
        alone and len(kinds) > 1 and kinds.count("far") == 1 and not {"count", "time"} & set(kinds)
    )


def _is_of_its_own(segment: list[Taken], last: list[Taken]) -> bool:
    """Whether a sentence behind repeats is a trial, or a way that is gone once."""
    repeats = bool(_names(last) & {"times", "sets", "pair"})
    way = {"times", "far"} <= _names(last) and _is_way_alone(segment)
    return (repeats and _is_trial(segment)) or way


def _is_trial(last: list[Taken]) -> bool:
    """The most of one thing in so long: whole by itself."""
    said = {role.name for item in last for role in item.roles}
    return {"amrap", "total", "task"} <= said


def _is_counted(segment: list[Taken]) -> bool:
    """So much of something, and nothing more."""
    kinds = [item.tokens[0].kind for item in segment if not item.roles]
    return not any(item.roles for item in segment) and any(
        one in ("far", "count", "cal") for one in kinds
    )


def _is_stretch(segment: list[Taken]) -> bool:
    """So many minutes of one thing, with nothing else said of it but how hard."""
    roles = {role.name for item in segment for role in item.roles}
    left = [item.tokens[0] for item in segment if not item.roles]
    times = [one.figure for one in left if one.figure]
    words = [one for one in left if one.kind in ("name", "word", "ACTIVE", "HARD")]
    one_long = (
        len(times) == 1
        and times[0].form == "one"
        and times[0].seconds
        and times[0].seconds[0] >= LONG_S
    )
    return bool(one_long and words and roles <= {"effort", "heart", "mark", "note"})


def _segments(items: list[Taken]) -> Iterator[list[Taken]]:
    """The pieces between commas, full stops and “then”, each with the one behind it; not inside brackets."""
    made: list[Taken] = []
    depth = 0
    for item, after in zip_longest(items, items[1:]):
        kind = item.tokens[0].kind if not item.roles else ""
        opened = sum(one.kind == "(" for one in item.tokens) - sum(
            one.kind == ")" for one in item.tokens
        )
        depth = max(0, depth + opened)
        made.append(item)
        joins = kind == "+" and after and {role.name for role in after.roles} & COUNTS
        if not depth and (kind in (",", ".", "THEN") or joins):
            yield made
            made = []
    if made:
        yield made
