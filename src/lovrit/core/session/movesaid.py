"""Move lines as boards have them: a load behind the name, a count behind an x, sides in brackets, a number before.

What is said so is put into the slate's own form; what could mean two things, or has no place on a slate, is asked and
never guessed at. Rules are gone through in order; no figure is made up by any.
"""

import re
from collections.abc import Callable, Iterable

from lovrit.core.slate.problem import Unreadable
from lovrit.core.slate.slowly import slowly

NUM = r"\d+(?:[.,]\d+)?"
NUMS = rf"{NUM}(?:\s*[/–-]\s*{NUM})*"
KILOS = r"(?:kgs?|kilos?|kilograms?)\b"
POUNDS = r"(?:lbs?|pounds?|#)(?![a-z])"
SHARE = r"%(?:\s*(?:of\s+)?(?:1\s*-?rm|max|best))?"
LOAD = rf"(?P<load>{NUMS})\s*(?P<unit>{KILOS}|{POUNDS}|{SHARE})"
BY = r"(?:with|w/|at|using|@)\s*(?:an?\s+|one\s+)?"
HELD = r"(?P<held>kettlebell|kb|bell|dumbbell|db|barbell|bar|plate|sandbag|medicine ball|vest)s?"
NAME = r"(?P<name>[^\W\d_][^\d@|#:,()+]*?)"
COUNT = r"(?P<count>\d+(?:\s*[-–/]\s*\d+)?)"
TIME = r"(?:s(?:ec(?:ond)?s?)?|min(?:ute)?s?)\b"
UNIT = rf"(?P<of>reps?\b|{TIME}|m(?:et(?:er|re)s?)?\b|cal(?:orie)?s?\b)"
LIMB = r"(?:sides?|legs?|arms?|foot|feet|hands?|dir(?:ection)?s?|ways?)\b"
EACH = rf"(?:(?:per|each|ea\.?|e/|/)\s*{LIMB}|e/s|both\s+sides|l\s*[/&+]\s*r)"
ENDS = r"(?=\s*(?:,|@|\||$))"

FEW = {"1": "one", "2": "two", "3": "three", "4": "four"}
Put = str | Callable[[re.Match[str]], str]


def _load(found: re.Match[str]) -> str:
    """A load as a mark, in the slate's units."""
    unit = found["unit"].lower()
    said = "%" if unit.startswith("%") else " kg" if unit.startswith("k") else " lb"
    figures = re.sub(r"\s*[–-]\s*", "-", re.sub(r"\s*/\s*", "/", found["load"])).replace(",", ".")
    return f" @ {figures}{said}"


def _loaded_first(found: re.Match[str]) -> str:
    return f"{found['count'] or ''} {found['rest']}{_load(found)}"


def _held(found: re.Match[str]) -> str:
    """What a load is of goes before the name, as in “kettlebell swing”."""
    return f"{found['before'] or ''}{found['held']} {found['name'].strip()}{_load(found)}"


def _counted(found: re.Match[str]) -> str:
    of = found["of"] if "of" in found.groupdict() and found["of"] else ""
    unit = "" if of.lower().startswith("rep") else f" {of}" if of else ""
    return f"{found['count']}{unit} {found['name'].strip()}"


def _rules(*rules: tuple[str, Put]) -> tuple[tuple[re.Pattern[str], Put], ...]:
    return tuple((re.compile(pattern, re.IGNORECASE), put) for pattern, put in rules)


# where it stands in a list
PLACE = _rules(
    (r"^(?:[*•·–—▪◦☐☑✓✔→>]\s*|-\s+|\(?\d{1,2}[.)]\s+|[a-h]\d?[.)]\s+|[A-H]\d\s+(?=[a-z\d]))+", ""),
    (r"\b([1-4])-(?=arm|leg|hand|point|way|foot)", lambda m: f"{FEW[m[1]]}-"),
    (r"^(?:station|ex(?:ercise)?|move)\s+\d+\s*[:.)–-]\s*", ""),
)
LOADS = _rules(
    (rf"[(\[]\s*@?\s*{LOAD}\s*[)\]]", _load),
    (rf"^(?P<before>{COUNT}\s+)?{NAME}\s*,?\s+{BY}?{LOAD}\s+{HELD}$", _held),
    (rf"^(?:(?P<count>{NUM})\s*[x×]?\s+)?{LOAD}\s+(?P<rest>[^\W\d_].*)$", _loaded_first),
    (rf"(?:(?<=[^\W\d_])\s*,?\s+|(?<=[\d)]),\s*)(?:{BY})?{LOAD}(?=\s|,|$)", _load),
    (rf"@\s*(?P<load>{NUMS})\s*(?P<unit>{KILOS}|{POUNDS}|{SHARE})", _load),
)
EFFORTS = _rules(
    (r"[(,]?\s*(?:\bat\b|@)?\s*\b(?:rpe|effort)\s*(\d+(?:\.5)?)(?:\s*/\s*10)?\s*\)?", r" at \1"),
)
SIDES = _rules(
    (
        rf"^(?P<count>\d+)\s*(?:/|per\s+|each\s+){LIMB}\s+(?P<name>.+)$",
        lambda m: f"{m['count']} {m['name']}, each side",
    ),
    (rf"^{NAME}\s*\(\s*(?P<count>\d+)\s*{EACH}\s*\)", lambda m: f"{_counted(m)}, each side"),
    (rf"^{NAME}\s+(?P<count>\d+)\s*{EACH}{ENDS}", lambda m: f"{_counted(m)}, each side"),
    (rf"\s*[(,]?\s*(?:(?<!\w)(?:{EACH})|/\s*{LIMB})\s*\)?{ENDS}", ", each side"),
    (rf"^{NAME}\s+(?P<count>\d+)\s*ea\b\.?{ENDS}", lambda m: f"{_counted(m)}, each side"),
    (r"\s+(?:ea\.?|each)$", ", each side"),
    (
        r"^(?P<count>\d+\s+)?(?P<name>[^,@|]+?)(?P<rest>\s*(?:@[^,]*)?),\s*alternating$",
        lambda m: f"{m['count'] or ''}alternating {m['name']}{m['rest']}",
    ),
)
COUNTS = _rules(
    (rf"^({COUNT})\s*[x×]\s+(?=[^\W\d_])", r"\1 "),
    (rf"^{NAME}\s*[x×]\s*{COUNT}{ENDS}", _counted),
    (rf"^{NAME}\s*(?:[-–—]\s+|\(\s*){COUNT}\s*{UNIT}?\s*\)?{ENDS}", _counted),
    (rf"^{NAME}\s*[,:]\s*{COUNT}\s*(?P<of>reps?)\b{ENDS}", _counted),
    (
        rf"^{NAME}\s+{COUNT}\s*[x×]?(?=\s*(?:@|,|\||\bat\s+\d))",
        lambda m: f"{_counted(m)} ",
    ),
    (rf"^{NAME}\s+(?P<count>\d+\s*[-–]\s*\d+)$", _counted),
    (r"\s+(?:in\s+)?total$", ""),
    (rf"^{NAME}\s+:(?P<count>[0-5]\d)$", r"\g<count> s \g<name>"),
    (rf"^{NAME}\s*:\s*{COUNT}$", _counted),
    (rf"^{NAME}\s+for\s+{COUNT}\s*{UNIT}{ENDS}", _counted),
    (r"^(\d[\d/–-]*)\s*reps?\s+of\s+", r"\1 "),
    (rf"^cal(?:orie)?s?\s+{NAME}\s+{COUNT}$", r"\g<count> cal \g<name>"),
    (r"^(?:max(?:imum)?|amrap)\s+(?:reps?\s+)?(?:of\s+)?(?=[^\W\d_])", "max "),
    (rf"^{NAME}\s*,?\s+(?:to\s+failure|max(?:imum)?(?:\s+reps?)?)$", r"max \g<name>"),
)
MORE = _rules(
    (
        rf"^(?P<before>.*?[^\W\d_])\s+(?:w/\s*(?:an?\s+|(?P<n>\d)\s+)?|with\s+(?P<m>\d)\s+){HELD}\b(?P<after>.*)$",
        lambda m: f"{m['before']}{m['after']} | {m['n'] or m['m'] or ''} {m['held']}",
    ),
    (r"\(\s*(kb|kettlebell|db|dumbbell|bar|barbell|band|rings?|bench|box)s?\s*\)", ""),
    (r"\s*\(\s*or\s+([^()]+)\)", r", or \1"),
    (r"^([^\W\d_][^\d@|#:,()/]*?)\s+/\s+([^\W\d_][^\d@|#:,()/]*)$", r"\1, or \2"),
    (r"\s+(?:and|then|&)\s+(?=\d)", " + "),
)
KITTED = re.compile(
    r"^(\d[\d/–-]*\s+)?(.*?)\(\s*(kb|kettlebell|db|dumbbell|bar|barbell|band|rings?|bench|box)s?\s*\)",
    re.IGNORECASE,
)


# reps in reserve as they are said; calories on whatever machine one has
RESERVE = re.compile(r"\s*,?\s+(\d{1,2})\s+(?:reps?\s+)?in\s+reserve\b", re.IGNORECASE)
CALORIES = re.compile(r"^(\d+(?:\s*[-/]\s*\d+)?)\s*cal(?:orie)?s?$", re.IGNORECASE)


def own_line(text: str) -> str:
    """A move line in the slate's own form; the same where it stands so already.

    Raises:
        Unreadable: for what could mean two things, or has no place on a slate, with what to write.
    """
    indent = text[: len(text) - len(text.lstrip())]
    plain = slowly(" ".join(text.split()))
    said = RESERVE.sub(r" rir \1", CALORIES.sub(r"\1 cal any machine", plain))
    for pattern, put in PLACE:
        said = pattern.sub(put, said, count=1)
    _ask(said, indent, text)
    said = KITTED.sub(lambda m: f"{m[1] or ''}{m[3]} {m[2]}", said, count=1)
    marked = "@" in said and not re.search(r"@\s*rpe", said, re.IGNORECASE)
    for rules in (EFFORTS, LOADS[-1:] if marked else LOADS[:-1], MORE[:1], SIDES, COUNTS, MORE[1:]):
        for pattern, put in rules:
            said = pattern.sub(put, said, count=1).strip()
    made = " ".join(said.replace(" ,", ",").split())
    return text if made == " ".join(text.split()) else indent + made


# words that a figure may stand behind
MARKED = (
    r".*\b(?:at|rir|rate|tempo|slow|rpe|effort|breaths|or|harder|easier|then|and|for|x|-|–)\s+\d+$"
)
Asked = tuple[re.Pattern[str], str, Callable[[re.Match[str]], str]]


def _as_remark(found: re.Match[str]) -> str:
    """The line with what has no place on it as a remark behind."""
    text = found.string
    left = " ".join(f"{text[: found.start()]} {text[found.end() :]}".split()).strip(" ,")
    return f"{left}   # {found[0].strip(' ,()')}"


def _nothing(_: re.Match[str]) -> str:
    return ""


ASKED: tuple[Asked, ...] = tuple(
    (re.compile(pattern, re.IGNORECASE), said, near)
    for pattern, said, near in (
        (
            rf"\s*(?P<load>{NUM})\s*kg\s*(?:in\s+)?(?:each|per)\s*hand$",
            "One in each hand is kit: how many of what, and how heavy.",
            lambda m: f"{m.string[: m.start()]} | 2 bell {m['load']} kg   # each hand",
        ),
        (
            r"^(?P<count>\d+)\s+(?:of\s+)?each\s*:\s*(?P<names>.+)$",
            "So many of each is written out.",
            lambda m: " + ".join(f"{m['count']} {one.strip()}" for one in m["names"].split(",")),
        ),
        (
            r"\bmax(?:imum)?\s+cal(?:orie)?s?\b",
            "As many calories as one can is “max” and the name; calories are counted at the end.",
            lambda m: (
                f"max {' '.join((m.string[: m.start()] + m.string[m.end() :]).split())}   # max {m[0].split()[-1]}"
            ),
        ),
        (
            r"\s*,\s*[^,]*\b(?:if\s+(?:needed|you\s+\w+|possible)|optional|allowed)\b[^,]*$",
            "That is another way, or a remark: a way is written “, easier …”, a remark behind #.",
            _as_remark,
        ),
        (
            r"\s*\+\s*(?:back|forth|forwards?|up|down)\s*$",
            "There and back is a remark, or two ways.",
            _as_remark,
        ),
        (
            rf"\s*[(,]?\s*\b{NUMS}\s*(?:cm|mm|in(?:ch(?:es)?)?|ft|feet|\"|″|”)(?![a-z])\s*\)?$",
            "A height or a length of kit has no place of its own on a line; it can stand behind as a remark.",
            _as_remark,
        ),
        (
            rf"\s*[(,]?\s*(?:at\s+|@\s*)?{NUMS}\s*(?:km/h|kmh|kph|mph|min/km|min/mi|rpm|spm)\b\s*\)?",
            "A speed has no place of its own on a line: an effort has (at 7), or it is a remark.",
            _as_remark,
        ),
        (
            r"\s*(?:@|with|at)\s*(?:body\s*-?weight|bw)\b",
            "Bodyweight is what a move has without a load; leave it out, or write a share of it as a remark.",
            _as_remark,
        ),
        (
            rf"^(?P<before>(?:\d+\s+(?:{TIME}|m\b)?\s*)?[^\W\d_][^\d@|]*?)\s*[,(]?\s*(?P<pieces>[2-4])\s*[x×]\s*(?P<load>{NUM})\s*(?P<unit>kg|lb)s?\)?$",
            "Two at once are kit: write how many of what, and how heavy.",
            lambda m: (
                f"{m['before'].strip(' ,(')} | {m['pieces']} bell {m['load']} kg"
                if m["unit"].lower() == "kg"
                else ""
            ),
        ),
        (
            rf"^(?P<count>\d+)\s*[x×]\s*\d+(?!\s*(?:{KILOS}|{POUNDS}))\s+[^\W\d_]",
            "Sets of a move inside a round: write all its reps, or a block of its own, such as 3 sets of 8 reps.",
            _nothing,
        ),
        (
            r"[^\W\d_]\s*,?\s+\d+\s*[x×]\s*\d+(?:\s*$|\s*[x×])",
            "Sets of a move inside a round: write all its reps, or a block of its own, such as 3 sets of 8 reps.",
            _nothing,
        ),
        (
            r"^\d+\s+(?:rounds?|sets?|rds?)\b",
            "How many rounds or sets stands in the heading, not on a line of moves.",
            _nothing,
        ),
        (
            rf"\d\s*(?:m|{TIME})\s+[x×]\s*\d+$",
            "How often it is done stands in the heading, such as 4 x 20 m, rest 0:30.",
            _nothing,
        ),
        (
            rf"\s*\(\s*(?P<load>{NUM}\s*/\s*{NUM})\s*\)",
            "Two figures in brackets could be loads or reps. Loads have their unit: @ 20/14 kg, or lb.",
            lambda m: f"{m.string[: m.start()].rstrip()} @ {m['load']} kg",
        ),
        (
            r"^(?P<line>\d.*?[^\W\d_])\s+(?P<load>\d+/\d+)$",
            "Two figures behind could be loads, or seconds of work and rest. Loads have their unit: @ 24/16 kg, or lb.",
            lambda m: f"{m['line']} @ {m['load']} kg",
        ),
        (
            rf"^(?P<line>.*?[^\W\d_])\s*,?\s+(?:with|w/)\s*(?P<load>{NUM})$",
            "Kilograms or pounds? A load has its unit.",
            lambda m: f"{m['line']} @ {m['load']} kg",
        ),
        (
            rf"^(?!{MARKED})(?P<line>\d+\s+[^\d@|:,()]*[^\W\d_])\s*,?\s+(?P<load>{NUM})$",
            "The second figure could be a load or more reps. A load has its unit: @ 16 kg.",
            lambda m: f"{m['line']} @ {m['load']} kg",
        ),
        (
            rf"^(?!{MARKED})(?P<name>[^\W\d_][^\d@|:,()+–—×]*)\s(?P<count>\d+)$",
            "Reps or a load? Reps come first; a load has its unit, as in @ 16 kg.",
            lambda m: f"{m['count']} {m['name'].strip()}",
        ),
        (
            r"\s*\((?!\s*@|\s*or\s|\s*rpe)(?=[^)]*[^\W\d_])(?![^)]*\d\s*(?:kg|lb|%|kilos?))(?!\s*\d+\s*(?:reps?|s|sec|m|cal)\b)"
            rf"(?!\s*(?:\d+\s*)?{EACH}\s*\))(?!\s*(?:kb|kettlebell|db|dumbbell|bar|barbell|band|rings?|bench|box)s?\s*\))[^)]*\)",
            "What stands in brackets could be another way (“, easier …”) or a remark (behind #).",
            _as_remark,
        ),
    )
)


def _ask(said: str, indent: str, text: str) -> None:
    """What can't be known from the line.

    Raises:
        Unreadable: with a line that would be read, where one says the same.
    """
    if re.match(r"cal", said, re.IGNORECASE):
        return
    for pattern, why, near in ASKED:
        found = pattern.search(said)
        if found:
            column = max(len(indent), text.find(found[0].strip())) + 1
            offered = near(found)
            raise Unreadable(why, column, (), offered and indent + offered)


UNITS = frozenset((
    "kg", "kgs", "kilo", "kilos", "lb", "lbs", "pounds", "cm", "mm", "in", "inch", "inches", "ft", "reps", "rep", "x",
    "sec", "secs", "min", "mins", "cal", "cals", "rpm", "of", "and", "w",
))  # fmt: skip


def refuse_units(names: Iterable[str], text: str) -> None:
    """A unit is no move.

    Raises:
        Unreadable: where a name is a unit, or begins with one.
    """
    for name in names:
        word = name.split(" ", 1)[0]
        if word in UNITS:
            column = max(1, text.lower().find(word) + 1)
            raise Unreadable(f"“{word}” is a unit, not a move.", column)
