"""How slowly a rep is done, in words: “3 s down, 1 s pause at the bottom” as a tempo, what nobody said left open.

Only what names a phase of a rep is read so: a hold of half a minute, a pause between turns, a way down a hill are none.
"""

import re
from collections.abc import Iterator

PHASES = ("down", "low", "up", "high")  # of a rep, in the order in which a tempo has its figures
OPEN = "x"  # in a tempo: nobody said how long
LONGEST_S = 10  # of a phase; more is a hold

_SECONDS = r"(?P<s>\d{1,2})[ -]?(?:s|secs?|seconds?|sek(?:unden)?|\"|''|”)(?![\w])"
_DOWN = (
    r"(?:down|(?:on|for) the way down|going down|lowering|lower|eccentrics?|negatives?|descent|runter|abwärts|"
    r"ablassen|absenken|exzentrisch|(?:en|à la) descente|bajando|al bajar)"
)
_UP = r"(?:up|on the way up|going up|concentrics?|hoch|aufwärts|subiendo|en montant)"
_STILL = r"(?:pauses?|paused|holds?|stops?|squeeze|halten|pausa)"
_LOW = r"(?:(?:at|in) the )?bottom|unten|abajo|en bas"
_HIGH = r"(?:(?:at|in) the )?top|oben|arriba|en haut"
_BEFORE = rf"(?:slow(?:ly)? |with an? |an? )?(?:{_DOWN}|{_UP}|{_STILL})(?: for| :|:)? {_SECONDS}"
_BEHIND = rf"(?:with an? |an? )?{_SECONDS} (?:slow |controlled )?(?:{_DOWN}|{_UP}|{_STILL})"
_ONE = re.compile(
    rf"(?:{_BEFORE.replace('?P<s>', '')}|{_BEHIND.replace('?P<s>', '')})(?: (?:{_LOW}|{_HIGH}))?(?!\w)|"
    rf"{_SECONDS.replace('?P<s>', '')} (?:{_LOW}|{_HIGH})(?!\w)",
    re.IGNORECASE,
)
_FIGURE = re.compile(r"\d+")
_JOINED = re.compile(r"(?:\s*(?:,|\+|/|and|then|und|;)\s*)+")
_KINDS = tuple(
    (phase, re.compile(rf"(?<!\w)(?:{words})(?!\w)", re.IGNORECASE))
    for phase, words in (
        ("low", _LOW),
        ("high", _HIGH),
        ("down", _DOWN),
        ("up", _UP),
        ("low", _STILL),
    )
)
_NAMED = frozenset({"down", "up"})


def slowly(text: str) -> str:
    """A line with how slowly a rep is done as a tempo; the same where nothing of it says so.

    >>> slowly("goblet squat, 3 s down, 1 s pause")
    'goblet squat, tempo 3-1-x-x'
    >>> slowly("30 s hollow hold"), slowly("40 s pause")
    ('30 s hollow hold', '40 s pause')
    """
    if not any(letter.isdecimal() for letter in text):
        return text
    for run in _runs(text):
        phases = dict(_phase(one[0]) for one in run)
        if not _is_of_a_rep(run, phases):
            continue
        said = "-".join(phases.get(name, OPEN) for name in PHASES)
        before, behind = text[: run[0].start()].rstrip(" ,;(–-"), text[run[-1].end() :].lstrip(" )")
        joined = f"{before}, tempo {said}" if before else f"tempo {said}"
        return joined + (behind if behind[:1] in (",", ";", "") else f", {behind}")
    return text


def _runs(text: str) -> Iterator[list[re.Match[str]]]:
    """Phases that stand one behind the other, joined by a comma or a word."""
    run: list[re.Match[str]] = []
    for one in _ONE.finditer(text):
        if run and not _JOINED.fullmatch(text, run[-1].end(), one.start()):
            yield run
            run = []
        run.append(one)
    if run:
        yield run


def _phase(said: str) -> tuple[str, str]:
    figure = _FIGURE.search(said)
    name = next(phase for phase, words in _KINDS if words.search(said))
    return name, figure[0] if figure else OPEN


def _is_of_a_rep(run: list[re.Match[str]], phases: dict[str, str]) -> bool:
    """Whether all of it is phases of a rep, each once and short: down or up, or it is said where one holds."""
    short = all(int(one) <= LONGEST_S for one in phases.values())
    placed = any(re.search(rf"(?:{_LOW}|{_HIGH})$", one[0], re.IGNORECASE) for one in run)
    return len(phases) == len(run) and short and (placed or bool(_NAMED & set(phases)))
