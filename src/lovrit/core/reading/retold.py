"""Lines that say by their order what a slate says by words: odd and even minutes on one line, what each of two does."""

import re
from collections.abc import Iterator

WORDS = r"(?:min\w*)?\s*[:=–-]?\s+"
ODD_EVEN = re.compile(
    rf"^(?P<head>.*?)[\s:,;–-]*\b(?:odd|ungerade|impares?)\s*{WORDS}(?P<odd>.+?)\s*[,;/]?\s+"
    rf"(?:and\s+)?(?:even|gerade|pares?)\s*{WORDS}(?P<even>.+)$",
    re.IGNORECASE,
)
IN_TWOS = re.compile(
    r"\b(?:partners?|pairs|in twos|buddy|buddies|zu zweit|à deux|en parejas|par deux)\b",
    re.IGNORECASE,
)
EACH_OF_TWO = re.compile(
    r"\s*(?:[-•*–]\s*)?(?:p(?:artner)?\s*)?(?P<who>[12ab]|one|other)\s*[:.)]\s*(?P<does>.+)$",
    re.IGNORECASE,
)
TWOS = (("1", "2"), ("a", "b"), ("one", "other"))
BACK = re.compile(
    r"\s*,?\s*\buntil\s+(?:the\s+|your\s+|their\s+|1\s+|a\s+)?(?:partner|buddy|other)\b.*$",
    re.IGNORECASE,
)
HELD = re.compile(r"^max\b|\b(?:hold|holds|plank|hang|wall sit)\b", re.IGNORECASE)
UNTIL_BACK = "until partner is back"


def odd_and_even(line: str) -> list[str]:
    """What is done in odd and what in even minutes, each on its own line below what stands before."""
    found = ODD_EVEN.match(line)
    if not found:
        return [line]
    head = [found["head"]] if found["head"].strip() else []
    return [*head, f"odd: {found['odd']}", f"even: {found['even']}"]


def in_twos(lines: list[tuple[int, str]]) -> Iterator[tuple[int, str]]:
    """What each of two does, in two lines under one that says they are two: the second as long as the first takes."""
    twos = False
    skip = False
    for nth, (number, raw) in enumerate(lines):
        if skip:
            skip = False
            continue
        twos = twos or bool(IN_TWOS.search(raw))
        pair = _of_two(raw, lines[nth + 1][1]) if twos and nth + 1 < len(lines) else None
        if pair is None:
            yield number, raw
            continue
        yield number, pair[0]
        yield lines[nth + 1][0], pair[1]
        skip = True


def _of_two(first: str, second: str) -> tuple[str, str] | None:
    """The lines of two who work at once; None where they are none, or neither waits for the other."""
    one, other = EACH_OF_TWO.match(first), EACH_OF_TWO.match(second)
    if not one or not other or (one["who"].lower(), other["who"].lower()) not in TWOS:
        return None
    does = BACK.sub("", other["does"])
    waits = does != other["does"] or (bool(HELD.search(does)) and not does[:1].isdecimal())
    return (one["does"], f"{does}, {UNTIL_BACK}") if waits else None
