"""Lines of a message from a phone: without their bullets and show, and those joined that are one thing."""

import re

from lovrit.core.session.plainly import plainly

# what stands before a line in a message: bullets, ticks, arrows, numbers; and what is put round it for show
MARK = re.compile(
    r"^\s*(?:[-*•·–—>+☐☑✓✔✅👉➡▪◦→]\ufe0f?\s*|\(?\d{1,2}[.)]\s+(?=\D|\d+\s*x\b|\d+\s+\D))+"
)
SHOW = re.compile(r"^[*_~]+|[*_~:!]+$|[\U0001F000-\U0001FAFF\u2600-\u27bf\ufe0f]")
COUNT = re.compile(r"(\d+)\s*(?:rounds?|rds?|sets?)\s*:?$", re.IGNORECASE)
TIMES = re.compile(r"(?:[x×]\s*(\d+)|(\d+)\s*(?:rounds?|rds?|times))$", re.IGNORECASE)
STRETCH = r":?\d+(?::\d\d)?\s*(?:s(?:ecs?)?|min|'|\")?"
PAIR = re.compile(
    rf"({STRETCH})\s*(?:work|on)?\s*[/,]?\s*(?<![\d])({STRETCH})\s*(?:rest|off)?$", re.IGNORECASE
)
SCHEME = re.compile(r"\d+(?:\s*-\s*\d+){2,}$")
LABEL = re.compile(
    r"^(?:(?:odd|even)(?:\s+min(?:ute)?s?)?|(?:min(?:ute)?\.?|station|ex(?:ercise)?)\s+\d+)\s*[:.)–-]\s*",
    re.IGNORECASE,
)
ON = re.compile(rf"({STRETCH})\s*(?:on|work)$", re.IGNORECASE)
OFF = re.compile(rf"({STRETCH})\s*(?:off|rest)$", re.IGNORECASE)
LAST = re.compile(
    r"\d+\s*(?:rounds?|rds?)\s+(?:for\s+(?:time|quality)|of\s+\d.*)(?:,?\s*cap.*)?$", re.IGNORECASE
)
LISTED = re.compile(r"\s*\d\)\s*")
Numbered = list[tuple[int, str]]


def unmarked(raw: str) -> tuple[str, bool]:
    """A line without its bullet and show, and whether it had a bullet or stood in."""
    marked = bool(MARK.match(raw))
    line = " ".join(SHOW.sub(" ", MARK.sub("", raw)).split()).strip(" *_~")
    return line, marked or raw[:1] in (" ", "\t")


def plain_move(line: str) -> str:
    """A move line as the slate has it: a label before it, a load in brackets and a side behind it as marks."""
    said = LABEL.sub("", line)
    said = re.sub(
        r"\(\s*(\d+(?:\s*/\s*\d+)?)\s*(kg|lb)\s*\)", r"@ \1 \2", said, flags=re.IGNORECASE
    )
    return re.sub(r"\s*(?:/|per|e/)\s*side\b|\s+each$", ", each side", said, flags=re.IGNORECASE)


def joined(lines: Numbered) -> Numbered:
    """Lines that are one thing said in two: a count and its pair, a pair and its count below, a list in a line."""
    for way in (_on_off, _listed, _counted, _closed, _raced, _headless):
        lines = way(lines)
    return lines


def _listed(lines: Numbered) -> Numbered:
    """``1) squat 2) push-up``: a line each, below the heading where that comes behind."""
    made: Numbered = []
    for number, raw in lines:
        parts = [part for part in LISTED.split(raw) if part.strip()]
        many = len(LISTED.findall(raw)) > 1
        if not many and made and made[-1][1].startswith("\t") and re.search(r"\d+\s+rounds?", raw):
            first = next(nth for nth, (_, text) in enumerate(made) if text.startswith("\t"))
            made.insert(first, (number, raw))
        else:
            made += [(number, f"\t{part.strip()}") for part in parts] if many else [(number, raw)]
    return made


def _on_off(lines: Numbered) -> Numbered:
    """``30 sec on`` and below it ``15 sec off``."""
    made: Numbered = []
    for number, raw in lines:
        on = ON.match(unmarked(made[-1][1])[0]) if made else None
        off = OFF.match(unmarked(raw)[0])
        if on and off:
            made[-1] = (made[-1][0], f"{_bare(on[1])}/{_bare(off[1])}")
        else:
            made.append((number, raw))
    return made


def _headless(lines: Numbered) -> Numbered:
    """Moves and at the very end what they are: ``400 m run``, ``30 squats``, ``3 rounds for time``."""
    said = [nth for nth, (_, raw) in enumerate(lines) if unmarked(raw)[0]]
    if len(said) < 2 or not LAST.match(unmarked(lines[said[-1]][1])[0]):
        return lines
    above = [nth for nth in said[:-1] if re.match(r"\d", unmarked(lines[nth][1])[0])]
    if not above or any(_opening(lines[nth][1]) for nth in said[:-1]):
        return lines
    last = lines[said[-1]]
    return [*lines[: above[0]], last, *lines[above[0] : said[-1]]]


def _opening(raw: str) -> bool:
    line = unmarked(raw)[0]
    return bool(COUNT.match(line) or LAST.match(line) or SCHEME.match(line) or _pair(raw))


def _counted(lines: Numbered) -> Numbered:
    """``4 rounds`` and below it ``:40 work :20 rest``."""
    made: Numbered = []
    for number, raw in lines:
        count = COUNT.match(unmarked(made[-1][1])[0]) if made else None
        pair = _pair(raw)
        if count and pair:
            made[-1] = (made[-1][0], f"{count[1]} rounds of {pair}")
        else:
            made.append((number, raw))
    return made


def _pair(raw: str) -> str:
    found = PAIR.match(unmarked(raw)[0])
    return f"{_bare(found[1])}/{_bare(found[2])}" if found else ""


def _bare(said: str) -> str:
    return re.sub(r"\s*s(?:ecs?)?$", "", plainly(said), flags=re.IGNORECASE)


def _closed(lines: Numbered) -> Numbered:
    """``40/20``, moves, and at the end ``x3``."""
    opened: int | None = None
    made: Numbered = []
    for number, raw in lines:
        line = unmarked(raw)[0]
        times = TIMES.match(line)
        if opened is not None and times:
            made[opened] = (
                made[opened][0],
                f"{times[1] or times[2]} rounds of {_pair(made[opened][1])}",
            )
            opened = None
            continue
        if _pair(raw):
            opened = len(made)
        made.append((number, raw))
    return made


def _raced(lines: Numbered) -> Numbered:
    """``12-9-6``, moves, and at the end ``for time``."""
    opened: int | None = None
    made: Numbered = []
    for number, raw in lines:
        line = unmarked(raw)[0]
        if opened is not None and re.fullmatch(r"for time", line, re.IGNORECASE):
            made[opened] = (made[opened][0], f"{unmarked(made[opened][1])[0]} for time")
            opened = None
            continue
        if SCHEME.match(line):
            opened = len(made)
        made.append((number, raw))
    return made
