"""The lines of a message before they are read: sets under their move, minutes of the hour before what is done."""

import re
from collections.abc import Iterator
from itertools import pairwise

from lovrit.core.reading.tokens import cut

SET_OF = re.compile(
    r"\s*(?:[-•*–]\s*)?(?:(?:\d{1,2}\s*[x×]\s*)?\d{1,2}\+?\s*(?:reps?\s*)?@\s*\d[\d.,]*\s*(?:%|kgs?|lbs?)?\s*(?:1rm)?"
    r"|\d{2,3}\s*%\s*[x×]\s*\d{1,2}\+?)\s*$",
    re.IGNORECASE,
)
MINUTES = re.compile(
    r"\s*(?:[-•*–]\s*)?(\d{1,2})\s*[-–]\s*(\d{1,2})\s*(?:min\w*|['’])?\s*:?\s+(?=\S)"
)

# a first line that only says which session it is, and of which day
DATED = re.compile(
    r"(?:(?:wod|workout|session|training|class|practice|einheit|stunde|seance|séance|sesion|sesión|clase|cours"
    r"|mon|tue|tues|wed|thu|thur|thurs|fri|sat|sun|mo|di|mi|do|fr|sa|so|lun|mar|mer|jeu|ven|sam|dim"
    r"|\w+day|\w+tag|mittwoch)\W+){1,2}\d{1,2}[./]\d{1,2}(?:[./](?:\d{2}|\d{4}))?[.:]?",
    re.IGNORECASE,
)

# or that says its hour besides, and where
HOUR = re.compile(
    r"(?:mon|tue|tues|wed|thu|thur|thurs|fri|sat|sun|mo|di|mi|do|fr|sa|so|lun|mar|mer|jeu|ven|sam|dim"
    r"|\w+day|\w+tag|mittwoch)\W+(?:at\s+|um\s+|à\s+)?(?:[5-9]|1\d|2[0-3])[:.h][0-5]\d(?:\s*(?:uhr|h|am|pm))?"
    r"(?:[\s,–-]+(?:in\s+|the\s+|im\s+)?(?P<where>[^\W\d_]+(?:\s+[^\W\d_]+)?))?[.:]?",
    re.IGNORECASE,
)

PAIRED = re.compile(r"\s*(?:[-•*–]\s*)?([A-H])1[.):]?\s", re.IGNORECASE)
SENTENCE_ENDS = re.compile(r"(?<=[^\W_][.!?])\s+(?=\S)|(?<=[)%'’][.!?])\s+(?=\S)|;\s+(?=\S)")
SHORT_FORM = re.compile(
    r"(?:^|\s)(?:\d+|(?:\d+\s*)?(?:min|sec|sek|std|ca|approx|bzw|z\.b|e\.g|i\.e|vs|max|no|nr|w))\.$",
    re.IGNORECASE,
)

INLINE = re.compile(r"(?<![\d:])(\d):\s+(?=\S)")
A_TIME = (
    r"(?:\d{1,3}\s*(?:min(?:ute)?s?|sec(?:ond)?s?|sek|s|m)(?!\w)|\d{1,3}\s*['’′\"”″]|\d{1,2}:\d\d)"
)
ON = r"(?!(?:on|work|hard|effort|arbeit|belastung|trabajo)\b)"
TIMED = re.compile(rf"\s*(?:[-•*–]\s*)?{A_TIME}\s*:?\s*{ON}[^\W\d_][^\d]*$", re.IGNORECASE)
REST_LINE = re.compile(
    rf"\s*(?:[-•*–]\s*)?{A_TIME}\s*:?\s*(?:rest|off|pause|repos|descanso|break)\s*$", re.IGNORECASE
)
OFTEN = re.compile(
    r"\s*(?:repeat\s*)?[x×]\s*(\d{1,2})\s*|\s*(?:repeat\s*)?(\d{1,2})\s*(?:x|×|times|rounds?|mal|fois|veces)\s*",
    re.IGNORECASE,
)
RESTING = re.compile(
    r"(?:then\s+)?(?:rest|pause|repos|descanso)\b|.*\b(?:rest|off|pause|repos|descanso)$",
    re.IGNORECASE,
)
PARTED = re.compile(r"\s*\(?[A-E][.):]\s+", re.IGNORECASE)
RACE = re.compile(
    r"(?:\d+\s*['’]?\s*(?:min\w*\s*)?)?(?:amrap|emom|e\dmom)\b|.*\bfor time$", re.IGNORECASE
)
AS_MANY = re.compile(
    r"(\d{1,2}(?::\d\d)?)\s*(?:min\w*|['’])?\s*amrap|amrap\s*(\d{1,2}(?::\d\d)?)\s*(?:min\w*|['’])?",
    re.IGNORECASE,
)
BLOCKS_OF = re.compile(
    rf"\b\d{{1,2}}\s+(?:blocks?|parts?|blöcke|blocs|bloques)\s*(?:of|à|a|of each|x|von|de|each)?\s*"
    rf"(?P<each>{A_TIME})(?:\s*each)?(?:\W+(?P<rest>{A_TIME})\s*(?:rest|break|pause|off)?\s*(?:in\s+)?between)?",
    re.IGNORECASE,
)
NUMBERED = re.compile(r"\s*(?:block|part|bloc|bloque|teil)\s*(\d{1,2})\s*[:.)–-]\s*", re.IGNORECASE)

THEMED = re.compile(
    r"\s*(?:mon|tue|wed|thu|fri|sat|sun|montag|dienstag|mittwoch|donnerstag|freitag|samstag|sonntag)\w*"
    r"\s*[:–-]",
    re.IGNORECASE,
)


def dated(lines: list[tuple[int, str]]) -> str:
    """A title with its day, where the first line is nothing else; else nothing."""
    said = lines[0][1].strip(" \t*_#") if len(lines) > 1 else ""
    hour = HOUR.fullmatch(said)
    done = any(one.kind == "name" for one in cut(hour["where"] or "")) if hour else True
    evening = hour and not done
    return said.rstrip(":") if evening or DATED.fullmatch(said) else ""


def lettered(line: str) -> list[str]:
    """A1 and A2 of one line, each on its own."""
    first = PAIRED.match(line)
    if not first:
        return [line]
    return re.split(rf"[,;.]?\s+(?={first[1]}[2-6][.):]?\s)", line, flags=re.IGNORECASE)


def numbered(line: str) -> str:
    """“… 1: 12 cal row 2: 15 wall balls” within a line, as “1) 12 cal row 2) 15 wall balls”."""
    found = [one for one in INLINE.finditer(line) if one.start()]
    if len(found) < 2 or [int(one[1]) for one in found] != list(range(1, len(found) + 1)):
        return line
    return re.sub(r"\s*[-–]\s+(?=1\) )", ": ", INLINE.sub(r"\1) ", line))


def sentences(line: str) -> list[str]:
    """The sentences of a line; a full stop in a figure or behind a short form ends none."""
    found: list[str] = []
    for part in SENTENCE_ENDS.split(line):
        if found and SHORT_FORM.search(found[-1]) and not part[0].isupper():
            found[-1] += f" {part}"
        else:
            found.append(part)
    return found


def stacked(lines: list[tuple[int, str]]) -> Iterator[tuple[int, str]]:
    """The lines of a message with their numbers; sets one under the other are one line, behind their move."""
    held: tuple[int, str] | None = None
    sets: list[str] = []
    for number, raw in lines:
        if SET_OF.match(raw) and held and not any(map(str.isdecimal, held[1])):
            sets.append(raw.strip(" \t-•*–"))
            continue
        if held:
            yield held[0], _with_sets(held[1], sets)
        held, sets = (number, raw), []
    if held:
        yield held[0], _with_sets(held[1], sets)


def timetable(lines: list[tuple[int, str]]) -> Iterator[tuple[int, tuple[str, str, str]]]:
    """Lines that begin with their minutes of the hour (0-10, 10-25 …): with how long that is instead, as they were
    written, and what is told of it; by their numbers.
    """
    found = [(number, raw, one) for number, raw in lines if (one := MINUTES.match(raw))]
    spans = [(int(one[1]), int(one[2])) for _, _, one in found]
    one_by_one = all(a[1] == b[0] for a, b in pairwise(spans)) and all(a < b for a, b in spans)
    if len(spans) < 2 or not one_by_one or spans[0][0]:
        return
    for (number, raw, one), (begins, ends) in zip(found, spans, strict=True):
        rest = raw[one.end() :]
        counted = any(map(str.isdecimal, rest))
        said = rest if counted else f"{ends - begins} min {rest}"
        yield number, (said, " ".join(raw.split()), f"minutes {begins}-{ends}")


def in_turn(lines: list[tuple[int, str]]) -> list[tuple[int, str]]:
    """Timed things with their rests, one under the other, and below them how often: that comes before them."""
    found = list(lines)
    for at in reversed(range(len(lines))):
        often = OFTEN.fullmatch(lines[at][1])
        begun = _timed_before(lines, at) if often else at
        if often and at - begun > 1:
            found[begun : at + 1] = _turns(lines[begun:at], next(filter(None, often.groups())))
    return found


def _turns(lines: list[tuple[int, str]], often: str) -> list[tuple[int, str]]:
    number = lines[0][0]
    if len(lines) == 2:
        return [(number, f"{often} x {lines[0][1].strip()}, {lines[1][1].strip()}")]
    return [(number, f"{often} rounds:"), *((at, f"  {raw.strip()}") for at, raw in lines)]


def _timed_before(lines: list[tuple[int, str]], at: int) -> int:
    """Where the timed things above a line begin; there, if their last is no rest."""
    begun = at
    while begun and TIMED.match(lines[begun - 1][1]):
        begun -= 1
    while begun < at and REST_LINE.match(lines[begun][1]):
        begun += 1  # a rest before all of it stands by itself
    rests = [bool(REST_LINE.match(raw)) for _, raw in lines[begun:at]]
    turns = bool(rests) and rests[-1] and not rests[0] and True not in map(all, pairwise(rests))
    return begun if turns else at


def headed_in_turn(lines: list[tuple[int, str]]) -> Iterator[tuple[int, str]]:
    """“AMRAP 8, rest 4, AMRAP 8” over lines A and B: each heading over its own line, the rests between them."""
    skip = 0
    for nth, (number, raw) in enumerate(lines):
        if skip:
            skip -= 1
            continue
        parts = [one.strip() for one in re.split(r",|\s/\s", raw)]
        heads = [one for one in parts if not RESTING.match(one)]
        below = lines[nth + 1 : nth + 1 + len(heads)]
        same = _same_race(parts, heads)
        if same and below and not PARTED.match(below[0][1]):
            yield number, same
            continue
        named = [bool(PARTED.match(line)) for _, line in below]
        more = lines[nth + 1 + len(heads) :][:1]
        parted = 1 < len(heads) < len(parts) and len(below) == len(heads) and all(named)
        if not (parted and all(map(RACE.match, heads))) or (more and PARTED.match(more[0][1])):
            yield number, raw
            continue
        skip = len(heads)
        yield from _over_each(parts, below)


def _same_race(parts: list[str], heads: list[str]) -> str:
    """One race said twice with the same rest between, as so many times of it; else nothing."""
    rests = {one.lower() for one in parts if RESTING.match(one)}
    race = AS_MANY.fullmatch(heads[0]) if heads else None
    if len(heads) < 2 or len({one.lower() for one in heads}) > 1 or len(rests) != 1 or not race:
        return ""
    length = race[1] or race[2]
    return f"{len(heads)} x {length}{'' if ':' in length else ' min'} AMRAP, {next(iter(rests))}"


def _over_each(parts: list[str], below: list[tuple[int, str]]) -> Iterator[tuple[int, str]]:
    at = 0
    for part in parts:
        number, said = below[min(at, len(below) - 1)]
        if RESTING.match(part):
            yield number, part
        else:
            yield number, f"{part}: {PARTED.sub('', said)}"
            at += 1


def of_each(lines: list[tuple[int, str]]) -> Iterator[tuple[int, str]]:
    """Blocks that are numbered under a line that says how long each lasts, and the break between them."""
    said: re.Match[str] | None = None
    for nth, (number, raw) in enumerate(lines):
        block = NUMBERED.match(raw)
        after = lines[nth + 1][1] if nth + 1 < len(lines) else ""
        if not block and (head := BLOCKS_OF.search(raw)) and NUMBERED.match(after):
            said = head
            continue
        if block and said:
            if said["rest"] and int(block[1]) > 1:
                yield number, f"{said['rest']} rest"
            yield number, f"{said['each']} {raw[block.end() :]}"
        else:
            said = None
            yield number, raw


def _with_sets(line: str, sets: list[str]) -> str:
    return f"{line.rstrip(' :')} {', '.join(sets)}" if sets else line
