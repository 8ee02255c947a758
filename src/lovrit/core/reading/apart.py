"""A line of a message taken apart: what is put round it for show, its label, its sentences, the blocks that it says."""

import re
from collections.abc import Iterator
from dataclasses import replace
from itertools import zip_longest

from lovrit.core.reading.builder import build
from lovrit.core.reading.giving import Role, seconds_in
from lovrit.core.reading.line import Said, Task
from lovrit.core.reading.parted import parted
from lovrit.core.reading.said import Taken, taken
from lovrit.core.reading.token import ENDS, Token
from lovrit.core.reading.tokens import cut, time_of
from lovrit.core.reading.vocabulary import again_said, plain, prose

SHOW = re.compile(r"[*_~`]+(?=\S)|(?<=\S)[*_~`]+|[\U0001F000-\U0001FAFF\u2600-\u27bf\ufe0f\u20e3]")
SIGN = re.compile(r"\s*(?:[-*•·–—▪◦☐☑✓✔✅→>➡👉🔥💪⏱🏃]\ufe0f?\s*(?=\S))+")
NUMBER = re.compile(
    r"\s*(?:\(?(?P<label>\d{1,2})(?:[.):]|\s[-–])\s+(?=\S)|(?P<bare>\d)\s+(?=\d+\s+[^\W\d_]|rest\b))"
)
LETTER = re.compile(
    r"\s*(?:part\s+)?\(?(?P<label>[A-Ha-h]\d?)(?:[.):]\s*|(?<=\d)\s+)(?=\S)", re.IGNORECASE
)
MINUTE = re.compile(
    r"\s*(?P<label>(?:min(?:ute)?\.?\s*#?\d{1,2}|odd|even|(?:un)?gerade|impair|impar)(?:\s*(?:min(?:ute)?s?))?)"
    r"\s*(?:[:.)–-]\s*|\s+)(?=\S)",
    re.IGNORECASE,
)
PLACE = re.compile(
    r"\s*(?P<label>(?:station|stn|ex(?:ercise)?|atelier|estacion)\.?\s*(?:\d{1,2}|[a-h]))"
    r"(?:\s*[:.)–-]\s*|\s+(?=\d+\s*(?:min|s)))",
    re.IGNORECASE,
)
SENTENCE = re.compile(r"(?<=[^\W\d_])[.!?]+\s+(?=[A-ZÀ-Þ])")
AND = re.compile(r"[^\W_]\s+(?:and|&|und|et|y)\s+[^\W\d_]", re.IGNORECASE)
MANY_WORDS = 6
FINISH = frozenset({"to finish", "finisher", "finish with", "zum schluss", "pour finir"})
QUOTES = '"“”„«»'
SCORES = frozenset({"score", "scoring", "wertung", "puntuacion"})
LONG_S, LONGER = 90, 3
# words that only headings have: what they stand in is no sentence to people
HEADING = frozenset(
    {"AMRAP", "EMOM", "FOR_TIME", "RFT", "ROUND", "X", "SET", "CAP", "PEOPLE", "AROUND"}
)
# what begins a block where it is said again on the same line
OPENING = frozenset(
    {"sets", "times", "around", "amrap", "period", "scheme", "rounds", "often", "once"}
)
TURNED = frozenset({"pair", "work", "each", "far"})
COUNTS = frozenset({"sets", "times", "often"})
RESTED = frozenset({"rest", "within", "between", "needed", "time"})
TOGETHER = ("SUPERSET", "TOGETHER")


def read_line(number: int, raw: str) -> list[Said]:
    """What one line of a message says: mostly one thing, or several blocks one after the other."""
    said = Said(number, " ".join(raw.split()), raw[:1] in (" ", "\t"))
    text = _unlabelled(said, SHOW.sub(" ", raw).rstrip(), raw)
    text = _without_prose(said, text)
    text = _unquoted(text)
    tokens = _named_ahead(cut(text))
    said.then = bool(tokens) and tokens[0].kind == "THEN"
    said.finish = any(plain(one.text) in FINISH for one in tokens)
    said.joined = _is_joined([one.kind for one in tokens])
    said.figures = sum(one.figure is not None for one in tokens)
    said.words = sum(one.kind not in ENDS for one in tokens)
    made: list[Said] = []
    ended = ""
    for items in _blocks(taken(parted(tokens))) or [[]]:
        part = said if not made else Said(number, said.text, said.inset, said.bullet)
        part.then = part.then or (bool(made) and ended == "THEN")
        ended = items[-1].tokens[-1].kind if items else ""
        build(part, text, items)
        part.tasks = _once_each(part.tasks) if "(" in text else _of_both(part)
        _so_long(part)
        if made and not part.roles and made[-1].roles.keys() & {"far", "amrap"}:
            part.finish = True  # what was parted from intervals or a trial is none of them
        made.append(part)
    _rest_of_all(made)
    return made


def _of_both(part: Said) -> list[Task]:
    """So many minutes of two things are one stretch: “10 min mobility and skipping”."""
    if len(part.tasks) != 2 or part.roles or part.left or part.joined:
        return part.tasks
    first, second = part.tasks
    long_ = first.seconds >= LONG_S and not (second.amount or second.marks or second.most)
    known = first.known and second.known
    if not (long_ and known and AND.search(part.text)):
        return part.tasks
    return [replace(first, name=f"{first.name} and {second.name}")]


def _so_long(part: Said) -> None:
    """So long at a zone, and behind it of what: that is how long it is done."""
    zoned = any(plain(one).startswith("zone") for one in part.notes) or "heart" in part.roles
    bare = len(part.tasks) == 1 and not (part.tasks[0].amount or part.tasks[0].most)
    if bare and zoned and part.roles.keys() <= {"time", "heart"} and "time" in part.roles:
        seconds = seconds_in(part.roles["time"])
        if seconds >= LONG_S:
            part.tasks = [replace(part.tasks[0], amount=time_of(seconds))]
            del part.roles["time"]


def _named_ahead(tokens: list[Token]) -> list[Token]:
    """“Run: 2 km” is “run 2 km”."""
    kinds = [one.kind for one in tokens[:3]]
    return [tokens[0], *tokens[2:]] if kinds == ["name", ":", "far"] else tokens


def _once_each(tasks: list[Task]) -> list[Task]:
    """Things to do, each once where a bracket only says it in another word: “2 row (erg)”."""
    kept: list[Task] = []
    for one in tasks:
        said = bool(kept) and kept[-1].name == one.name and not (one.amount or one.marks)
        kept += [] if said else [one]
    return kept


def _is_joined(kinds: list[str]) -> bool:
    """Whether a + stands between things, and no comma before it."""
    return "+" in kinds and not {",", "THEN"} & set(kinds[: kinds.index("+")])


def _unquoted(text: str) -> str:
    """A line without the quotes that stand round the whole of it."""
    said = text.strip()
    quoted = len(said) > 1 and said[0] in QUOTES and said[-1] in QUOTES
    return said[1:-1] if quoted else text


def _rest_of_all(parts: list[Said]) -> None:
    """A rest at the end of a line with several lifts is that of each that has none."""
    last = parts[-1].roles if parts else {}
    name = next((one for one in ("rest", "within") if one in last and "sets" in last), "")
    for part in parts[:-1] if name else []:
        if "sets" in part.roles and not RESTED & part.roles.keys():
            part.roles[name] = last[name]


def _unlabelled(said: Said, text: str, raw: str) -> str:
    """The line without its bullet and its label."""
    sign = SIGN.match(raw) or SIGN.match(text)
    if sign:
        said.bullet, text = True, SIGN.sub("", text, count=1)
    for pattern in (NUMBER, MINUTE, LETTER, PLACE):
        found = pattern.match(text)
        if found:
            named = found.groupdict()
            said.label = (named.get("label") or named.get("bare") or "").lower()
            said.bullet = said.bullet or pattern in (NUMBER, PLACE)
            rest = text[found.end() :]
            # “Station 1 5 min: row” is “Station 1: 5 min row”
            return rest.replace(":", " ", 1) if pattern is PLACE and found[0][-1:] == " " else rest
    return text


def _without_prose(said: Said, text: str) -> str:
    """The line without the sentences that are said to people; they are kept as notes."""
    sentences = SENTENCE.split(text)
    kept = []
    for one in sentences:
        if _is_prose(cut(one)):
            said.notes.append(one.strip(" *_"))
        else:
            kept.append(one)
    return ". ".join(kept)


def _is_prose(tokens: list[Token]) -> bool:
    """A sentence to people: words that moves don't have, and nothing that is counted."""
    if tokens and plain(tokens[0].text) in SCORES:
        return True
    if any(one.kind in HEADING for one in tokens):
        return False
    words = [one for one in tokens if one.kind not in ENDS and not one.figure]
    chatty = sum(one.kind == "word" and plain(one.text) in prose() for one in words)
    named = any(one.kind == "name" for one in tokens)
    figures = any(one.figure for one in tokens)
    if chatty and not (figures and named):
        return chatty > 1 or len(words) > 2 or (not figures and not named)
    return len(words) > MANY_WORDS and not named and not figures


def _blocks(items: list[Taken]) -> list[list[Taken]]:
    """A line that says several blocks, at the commas between them."""
    if any(one.kind in TOGETHER for item in items for one in item.tokens) or _is_prepared(items):
        return [items]
    blocks: list[list[Taken]] = []
    opened: set[str] = set()
    segments = list(_segments(items))
    for nth, segment in enumerate(segments):
        after = segments[nth + 1] if nth + 1 < len(segments) else []
        said = _names(segment)
        opens = said & OPENING
        beside = (
            said - {"work", "pace"} == {"period"}
            and any(item.tokens[0].kind == "EVERY" for item in segment)
            and opened == {"alone"}
        )
        last = blocks[-1] if blocks else []
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
        if not blocks or off or behind or begun:
            blocks.append([])
            opened = set()
        blocks[-1] += _loosened(segment) if off else segment
        opened |= opens | ({"alone"} if _is_stretch(segment) else set())
    return blocks


def _names(segment: list[Taken]) -> set[str]:
    """The roles that a part says, without what is only told."""
    return {role.name for item in segment for role in item.roles} - {"note"}


def _is_then(segment: list[Taken]) -> bool:
    return bool(segment) and segment[0].tokens[0].kind == "THEN"


def _is_of_the_end(segment: list[Taken]) -> bool:
    """Whether a part says that it is the end: “finish with 100 sit-ups”."""
    return bool(segment) and plain(segment[0].tokens[0].text) in FINISH


def _is_same_again(segment: list[Taken]) -> bool:
    """Whether a part says only that what was done is done again."""
    said = [one for item in segment if not item.roles for one in item.tokens]
    return again_said(" ".join(one.text for one in said if one.kind not in ENDS))


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
    rested = (
        _names(last) & {"pair"} and _names(after) & (TURNED | COUNTS) and not _is_of_above(after)
    )
    return both or trial or bool(rested) or (_names(last) == {"around", "time"} and bool(after))


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
    work = next(role.value for role in before if role.name == "far").split()[0]
    way = said[0].value.split()[0]
    longer = way.isdecimal() and work.isdecimal() and int(way) > LONGER * int(work)
    return bool(longer or names & {"rest", "within", "between"})


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
