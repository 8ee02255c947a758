"""A line of a message taken apart: what is put round it for show, its label, its sentences, the blocks that it says."""

import re
from dataclasses import replace

from lovrit.core.reading.builder import build
from lovrit.core.reading.figured import time_of
from lovrit.core.reading.giving import seconds_in
from lovrit.core.reading.line import Left, Said, Task
from lovrit.core.reading.parted import parted
from lovrit.core.reading.said import taken
from lovrit.core.reading.segments import FINISH, LONG_S, RESTED, blocks
from lovrit.core.reading.token import ENDS, Token
from lovrit.core.reading.tokens import cut
from lovrit.core.reading.vocabulary import plain, prose

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
    r"\s*(?P<label>(?:station|stn?|ex(?:ercise)?|atelier|estacion)\.?\s*(?:\d{1,2}|[a-h]))"
    r"(?:\s*[:.)–-]\s*|\s+(?=\d+\s*(?:min|s)))",
    re.IGNORECASE,
)
SENTENCE = re.compile(r"(?<=[^\W\d_])[.!?]+\s+(?=[A-ZÀ-Þ])")
AND = re.compile(r"[^\W_]\s+(?:and|&|und|et|y)\s+[^\W\d_]", re.IGNORECASE)
# how a thing is done
MANNER = re.compile(
    r"(?:slow(?:ly)?|controlled|explosive(?:ly)?|strict|smooth(?:ly)?|langsam|lentement|lento)"
    r"(?: (?:and|on|auf|dans|en|the|way|weg|down|up|lowering|descent|return|controlled|slow|runter|hoch|la))*$",
    re.IGNORECASE,
)
MANY_WORDS = 6
LEAST_WAY = 100  # metres of a repeat that is said without its unit
QUOTES = '"“”„«»'
SCORES = frozenset({"score", "scoring", "wertung", "puntuacion"})
# words that only headings have: what they stand in is no sentence to people
HEADING = frozenset(
    {"AMRAP", "EMOM", "FOR_TIME", "RFT", "ROUND", "X", "SET", "CAP", "PEOPLE", "AROUND"}
)


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
    for items in blocks(taken(parted(tokens))) or [[]]:
        part = said if not made else Said(number, said.text, said.inset, said.bullet)
        part.then = part.then or (bool(made) and ended == "THEN")
        ended = items[-1].tokens[-1].kind if items else ""
        build(part, text, items)
        part.tasks = _once_each(part.tasks) if "(" in text else _of_both(part)
        _so_long(part)
        _most_of_a_pair(part)
        _in_metres(part)
        _how(part)
        if made and not part.roles and made[-1].roles.keys() & {"far", "amrap"}:
            part.finish = True  # what was parted from intervals or a trial is none of them
        made.append(part)
    _rest_of_all(made)
    if _both_ways(made):
        return [replace(said, left=[Left(said.text, "ways")], roles={}, tasks=[], marks=[])]
    return made


def _most_of_a_pair(part: Said) -> None:
    """Beside sets, so many times as many as one can: that of the second, not of both."""
    if {"maxed", "together"} <= part.roles.keys() and len(part.tasks) == 1:
        del part.roles["maxed"]
        part.tasks = [replace(part.tasks[0], most=True)]


def is_manner(name: str) -> bool:
    """Whether words say how a thing is done, and none that is."""
    return bool(MANNER.match(name))


def _how(part: Said) -> None:
    """How a thing is done is told beside it."""
    told = [one for one in part.tasks if not one.amount and not one.whole and is_manner(one.name)]
    if len(told) < len(part.tasks):
        part.tasks = [one for one in part.tasks if one not in told]
        part.notes += [one.name for one in told]


def _in_metres(part: Said) -> None:
    """Nobody does sets of 800 of nothing: behind them a way as rest, they are ways themselves."""
    reps = part.roles.get("reps", "").removesuffix(" reps")
    way = part.roles.get("rest", "").partition(" ")[2].startswith("m")
    if (
        way
        and not part.tasks
        and "sets" in part.roles
        and reps.isdecimal()
        and int(reps) >= LEAST_WAY
    ):
        part.roles["times"] = part.roles.pop("sets")
        part.roles["far"] = f"{reps} m"
        del part.roles["reps"]


def _both_ways(made: list[Said]) -> bool:
    """Whether one thing counts up and another down: a slate has one count for all."""
    counted = [one for one in made if "scheme" in one.roles and one.tasks]
    spans = (task.amount for one in counted for task in one.tasks if len(one.tasks) > 1)
    ranged = any(one and one.measure == "count" and one.form == "range" for one in spans)
    return len({one.roles["scheme"] for one in counted}) > 1 or ranged


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
