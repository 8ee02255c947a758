"""Lines that say by their order what a slate says by words: odd and even minutes on one line, what each of two does."""

import re
from collections.abc import Iterator

LENGTH = re.compile(r"\s*(\d{1,2}\s*(?:min(?:ute)?[sn]?|['’′]))\s*:?\s*", re.IGNORECASE)
TURNS = re.compile(
    r"\s*(?:\d{1,3}\s*(?:s|secs?|\"|”|'')?\s*(?:on|work|an)?\s*[/,]\s*\d{1,3}\s*(?:s|secs?|\"|”|'')?\s*(?:off|rest|aus)?"
    r"|amrap|emom)\s*:?\s*",
    re.IGNORECASE,
)
STROKE = re.compile(
    r"\b(\d{1,2})\s*[x×]\s*(\d{1,2})/\2(?![\d/])(?!\s*(?:s|secs?|\"|'')(?!\w))", re.IGNORECASE
)
NAME_BEHIND = re.compile(r"\s+([^\W\d_][^\d,;.–]*?)(?=\s*(?:[,;.–]|$))")
SETS = re.compile(
    r"\b\d{1,2}\s*[x×]\s*\d{1,2}(?![\d/:]|\s*(?:s|secs?|min|m|km|\"|')(?!\w))", re.IGNORECASE
)
WEEK = re.compile(r"\s*(?:week|woche|semaine|semana)\s+\d{1,2}\s*:?\s*", re.IGNORECASE)
BETWEEN = re.compile(
    r"[\s,]*\b(?:sandwiched|bookended)\s+(?:by|between)\s+(.+?)\s*$", re.IGNORECASE
)
BRACKETS = re.compile(r"^(\s*[^\W\d_][^\d()]{1,30}?)\s*\((\d{1,2})\)\s*(:|$)")
AROUND = re.compile(r"\s*(?:warm|cool|wu\b|cd\b|aufw|ausl|échauff|calent)", re.IGNORECASE)
SHORT_TIME = r"\d{1,3}(?::\d\d)?\s*(?:min(?:ute)?[sn]?|s|secs?|seconds?|sek(?:unden)?|['’′\"”]|'')?"
KEYS = {
    "rounds": "rounds", "round": "rounds", "sets": "rounds", "runden": "rounds", "tours": "rounds", "rondas": "rounds",
    "work": "work", "on": "work", "arbeit": "work", "travail": "work", "trabajo": "work",
    "rest": "rest", "off": "rest", "pause": "rest", "repos": "rest", "descanso": "rest",
    "break": "break", "rest between rounds": "break", "between rounds": "break",
}  # fmt: skip
KEYED = re.compile(
    rf"\s*(?:[-•*–]\s*)?({'|'.join(KEYS)})\s*[:=]\s*({SHORT_TIME})\s*", re.IGNORECASE
)
LISTED = re.compile(
    r"^\s*(?:exercises?|moves|stations|übungen|exercices|ejercicios)\s*:\s*", re.IGNORECASE
)
BARE_END = re.compile(
    r"[.;]\s+(\d{1,3}\s*(?:s|secs?|seconds?|sek|min(?:ute)?s?|['’′\"”]))[.\s]*$", re.IGNORECASE
)
A_WAY = re.compile(r"\d[\d.]*\s*(?:m|km|k|mi)\s+[^\W\d_]+(?:\s[^\W\d_]+)?", re.IGNORECASE)
A_REST = re.compile(rf"(?:rest\s+{SHORT_TIME}|{SHORT_TIME}\s+rest)", re.IGNORECASE)
RESTS = re.compile(
    rf"({SHORT_TIME})\s+(?:rests|(?:rest\s+)?(?:in\s+)?between(?:\s+each)?)", re.IGNORECASE
)
ROUND_IT = re.compile(
    rf"^(?P<main>[^.;]+)[.;]\s+warm[ -]?up\s*:?\s*(?P<before>{SHORT_TIME})\s+before\W+(?:and\s+)?"
    rf"(?P<after>{SHORT_TIME})"
    r"\s+(?:easy\s+|cool[ -]?down\s+)?after(?:wards)?\W*$",
    re.IGNORECASE,
)
MANY = re.compile(r"\s*(\d{1,2})\s*(?:rounds?|sets?|times|x|×)\s*:?\s*", re.IGNORECASE)
THE_REST = re.compile(
    rf"\s*(?:[-•*–]\s*)?rest\s*:?\s*(?:\d\s*:\s*\d(?!\d)|{SHORT_TIME})\s*", re.IGNORECASE
)
MOST_IN = re.compile(
    r"^(.*?\d\s*(?:min\w*|s|secs?|seconds?|['\"]))\s+max\s+(cal(?:orie)?s?|distance|met(?:er|re)s)\s+(?=[^\W\d_])(.*)$",
    re.IGNORECASE,
)
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
    r"[\s,]*\buntil\s+(?:the\s+|your\s+|their\s+|1\s+|a\s+)?(?:partner|buddy|other)\b.*$",
    re.IGNORECASE,
)
HELD = re.compile(r"^max\b|\b(?:hold|holds|plank|hang|wall sit)\b", re.IGNORECASE)
UNTIL_BACK = "until partner is back"


def plainer(line: str) -> str:
    """A line with its sides and what is round it said as the reader of roles knows it.

    >>> plainer("3x10 goblet squat, 3x8/8 lunge")
    '3x10 goblet squat, 3x8 lunge each side'
    >>> plainer("6 x 20/20 push ups"), plainer("Split squat 3x10/10, rest 90 s")
    ('6 x 20/20 push ups', 'Split squat 3x10 each side, rest 90 s')
    """
    line = MOST_IN.sub(_most_in, BETWEEN.sub(r", \1 before and after", line))
    line = _with_its_rest(line)
    for found in reversed(list(STROKE.finditer(line))):
        line = _each_side(line, found)
    return line


def _with_its_rest(line: str) -> str:
    """Sets, and a bare time as the last sentence: that is their rest."""
    found = BARE_END.search(line)
    rested = found and re.search(r"\b(?:rest|pause|repos|descanso|off)\b", line, re.IGNORECASE)
    sets = found and SETS.search(line[: found.start()])
    return f"{line[: found.end(1)]} rest" if found and sets and not rested else line


def _each_side(line: str, found: re.Match[str]) -> str:
    """3x8/8 of a move as sets of each side: among other sets before its name, alone behind it."""
    before, behind = line[: found.start()], line[found.end() :]
    sets, named = f"{found[1]}x{found[2]}", NAME_BEHIND.match(behind)
    if named and (SETS.search(before) or SETS.search(behind)):
        return f"{before}{sets}{named[0]} each side{behind[named.end() :]}"
    if not named and before[-1:] == " " and before.strip(" -•*–")[-1:].isalpha():
        return f"{before}{sets} each side{behind}"
    return line


def lengths_ahead(lines: list[tuple[int, str]]) -> Iterator[tuple[int, str]]:
    """A length on a line of its own over turns that say none: it is theirs."""
    ahead: tuple[int, str] | None = None
    for number, raw in lines:
        if ahead and TURNS.fullmatch(raw):
            yield number, f"{raw.rstrip(' :')}, {ahead[1].strip(' :')}"
            ahead = None
            continue
        if ahead:
            yield ahead
        ahead = (number, raw) if LENGTH.fullmatch(raw) else None
        if not ahead:
            yield number, raw
    if ahead:
        yield ahead


def _most_in(found: re.Match[str]) -> str:
    """What is done in so long, and as much as one can of what."""
    of = "calories" if found[2].lower().startswith("cal") else found[2]
    return f"{found[1]} {found[3]} for max {of}"


def ways_apart(line: str) -> list[str]:
    """Ways one behind the other on a line, each on its own, with the rests that are between them."""
    parts = [one.strip() for one in re.split(r"[,;]|\.(?=\s)", line.strip(" \t.")) if one.strip()]
    between = RESTS.fullmatch(parts[-1]) if parts else None
    parts = parts[:-1] if between else parts
    ways = [one for one in parts if A_WAY.fullmatch(one)]
    rests = [one for one in parts if A_REST.fullmatch(one)]
    if len(ways) < 2 or len(ways) + len(rests) < len(parts) or not (between or rests):
        return [line]
    if not between:
        return parts
    return [one for way in ways for one in (f"rest {between[1]}", way)][1:]


def main_first(line: str) -> list[str]:
    """What is before and after the main thing and said behind it, in its order."""
    found = ROUND_IT.match(line)
    if not found:
        return [line]
    return [f"warm-up {found['before']}", found["main"], f"cool-down {found['after']}"]


def repeats(lines: list[tuple[int, str]]) -> Iterator[tuple[int, str]]:
    """So many rounds of one way and its rest, in three lines, as the repeats that they are."""
    at = 0
    while at < len(lines):
        three = [raw for _, raw in lines[at : at + 3]]
        rounds = MANY.fullmatch(three[0])
        if (
            rounds
            and len(three) == 3
            and A_WAY.fullmatch(three[1].strip(" -•*–"))
            and THE_REST.fullmatch(three[2])
        ):
            yield lines[at][0], f"{rounds[1]} x {three[1].strip(' -•*–')}, {three[2].strip()}"
            at += 3
            continue
        yield lines[at]
        at += 1


def keyed(lines: list[tuple[int, str]]) -> Iterator[tuple[int, str]]:
    """Rounds, work and rest by their names, a line each, as the one heading that they are."""
    held: list[tuple[int, str]] = []
    for number, raw in [*lines, (0, "")]:
        if KEYED.fullmatch(raw):
            held.append((number, raw))
            continue
        said = {key: figure for _, one in held for key, figure in [_keyed(one)]}
        if {"work", "rest"} <= said.keys():
            rounds = f"{said['rounds']} rounds, " if "rounds" in said else ""
            pause = f", {said['break']} between rounds" if "break" in said else ""
            yield held[0][0], f"{rounds}work {said['work']}, rest {said['rest']}{pause}:"
            below = LISTED.sub("", raw)
        else:
            yield from held
            below = raw
        held = []
        if number:
            yield number, below


def _keyed(line: str) -> tuple[str, str]:
    """The name of a figure, in English, and the figure."""
    found = KEYED.fullmatch(line)
    assert found
    return KEYS[found[1].lower()], found[2].strip()


def in_brackets(lines: list[tuple[int, str]]) -> list[tuple[int, str]]:
    """Parts of an evening with their minutes in brackets: “Warm up (10)”, “Skill (15): …”, where one is a warm-up."""
    found = [one for _, raw in lines if (one := BRACKETS.match(raw))]
    if len(found) < 2 or not any(AROUND.match(one[1]) for one in found):
        return lines
    return [(number, BRACKETS.sub(_with_minutes, raw)) for number, raw in lines]


def _with_minutes(found: re.Match[str]) -> str:
    """The minutes before the colon, unless they are said again behind it."""
    again = re.search(rf"(?<!\d){found[2]}(?!\d)", found.string[found.end() :])
    return f"{found[1]}{found[3]}" if again else f"{found[1]} {found[2]} min{found[3]}"


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
