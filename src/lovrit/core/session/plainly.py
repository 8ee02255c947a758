"""What people write round a heading without meaning anything else by it: brackets, labels, short words, other orders.

Each is a pattern and what stands in its place; they are gone through in order, and no figure is made up by any.
"""

import re
from collections.abc import Callable

TIME = r"(?:\d+(?::[0-5]\d)?\s*(?:'|\"|′|″|s(?:ec(?:ond)?s?)?\b|min(?:ute)?s?\b)\.?|\d+:[0-5]\d)"
# words before a colon that only say where in a session it stands
PLACE = (
    r"(?:main(?:\s+(?:set|part|block))?|finisher|workout|conditioning|metcon|strength|intervals|part\s+[a-z0-9]+"
    r"|circuit(?:\s+[a-z0-9]+)?|block\s+[a-z0-9]+|station\s+\d+|min(?:ute)?\.?\s+\d+|ex(?:ercise)?\s+\d+)"
)
Put = str | Callable[[re.Match[str]], str]


def _seconds_pair(found: re.Match[str]) -> str:
    return f"{found[1]}/{found[2]}"


RULES: tuple[tuple[re.Pattern[str], Put], ...] = tuple(
    (re.compile(pattern, re.IGNORECASE), put)
    for pattern, put in (
        (r"^alternating\s+(?=(?:\d+\s*min\s+)?e\d?mom\b)", ""),
        (r"(?<=mom)\s+alternating$", ""),
        (r"^e(\d+)\s*s(?=\s|$)", r"every \1 s"),
        (r"^w\s*/\s*u\b:?", "warm-up"),
        (r"^c\s*/\s*d\b:?", "cool-down"),
        (r"^(?:[a-h]\d?[.)]|\d[.)])\s+(?=\S)", ""),
        (r"^(?:and\s+)?(?:then|next|followed\s+by)\s+(?=\S)", ""),
        (rf"^{PLACE}\s*[:–-]\s*(?=\S)", ""),
        (
            rf"\(\s*(?:time\s+)?(?:cap\s+({TIME})|({TIME})\s+(?:time\s+)?cap)\s*\)",
            lambda m: f", cap {m[1] or m[2]}",
        ),
        (rf"\(\s*({TIME})\s*\)", r" \1"),
        (r"[(@]?\s*\b(?:rpe|effort)\s*(\d+(?:\.5)?)(?:\s*/\s*10)?\s*\)?", r" at \1"),
        (r"@\s*(\d+(?:\.5)?)\s*/\s*10\b", r"at \1"),
        (rf"^({TIME}\s+[a-z][a-z -]*?)\s*@\s*(\d(?:\.5)?)$", r"\1 at \2"),
        (r"(?<![\d:]):([0-5]\d)\b", r"\1s"),
        (r"\b(\d+)\s*(?:rds?|rnds?)\b\.?", r"\1 rounds"),
        (r"\b(\d+)\s*s(?:ecs?)?\s*/\s*(\d+)\s*s(?:ecs?)?\b", _seconds_pair),
        (
            r"\b(\d+)\s+rounds?\s*(?::\s*|\s)(?=\d+(?:s|\s*sec)?s?\s*(?:/|on\b|work\b))",
            r"\1 rounds of ",
        ),
        (
            rf"(?<!work)(?<!\bon),\s*({TIME})\s+(?:of\s+)?(?:(?:jog|walk|easy|active|full)\s+)?(?:rest|recovery|jog)\b(?:\s+(?:in\s+)?between(?:\s+\w+)?)?",
            r", rest \1",
        ),
        (rf",?\s+r\s*({TIME})", r", rest \1"),
        (r"\s*[,–-]?\s*\bi\s+go,?\s+you\s+go\b", ", partners alternate"),
        (
            r"^partners?\s+((?:amrap|as many).*?)(?:, partners alternate)?$",
            r"\1, partners alternate",
        ),
        (r"\b(\d+)\s+to\s+(\d+)\s+ladder\b", r"\1 to \2"),
        (r"^(\d+)\s*k\b", r"\1 km"),
        (r"^(?:stations?\s*[:,]?\s+(?=\d)|\d+\s+stations?\s*[,:x×]\s*)", ""),
        (r"\s*[x×,]\s*\d+\s+stations?\b", ""),
        (r"\b(\d+)\s+laps?\b", r"\1 rounds"),
        (rf"^each\s+station\s*[:,]?\s+({TIME})", r"\1 each"),
        (r"\(\s*@?\s*(\d+(?:-\d+)?\s*%)\s*\)", r"@ \1"),
        (rf"({TIME})\s+at\s+(\d+(?:\.5)?)\s*,\s*({TIME}\s+(?:easy|slow|off))", r"\1, \3 at \2"),
        (r"\s+,", ","),
    )
)


def plainly(text: str) -> str:
    """A heading without what is only put round it."""
    said = text.strip().strip("!").rstrip(":").strip()
    for pattern, put in RULES:
        said = pattern.sub(put, said)
    return " ".join(said.split())
