"""What a coach says of the moment in which a try broke, read as coaches say it: sets, form, grip, breath, pain.

What is not understood says nothing; what is denied ("no pain", "grip was fine") says nothing either.
"""

import re
from typing import Literal, NamedTuple

Kind = Literal["sets", "form", "grip", "breath", "hurts", "faint", "late", "skill", "kit"]

NUMBERS = {
    "single": 1, "one": 1, "double": 2, "two": 2, "triple": 3, "three": 3, "four": 4, "five": 5, "six": 6, "sixe": 6,
    "seven": 7, "eight": 8, "nine": 9, "ten": 10, "eleven": 11, "twelve": 12, "fifteen": 15, "twenty": 20,
    "twentie": 20, "thirty": 30,
}  # fmt: skip
N = rf"(?:the )?(?:sets of )?(?P<{{}}>\d{{{{1,3}}}}|{'|'.join(sorted(NUMBERS, key=len, reverse=True))})'?s?"
NO_REPS = r"(?! ?(?:kg|lb|%|m\b|s\b|sec\w*|min\w*|people|of us|stations?|rounds?|beats|:\d|\.\d))"
FALL = "(?:turned|went|fell|dropped|broke|split)(?: (?:apart|down|up))*(?: (?:in)?to)?"
BECAME = rf"(?:became|become|{FALL}|down to|into|->|→)"
WENT = re.compile(
    rf"\b{N.format('many')}{NO_REPS} (?:reps )?(?:were |was )?{BECAME} {N.format('few')}{NO_REPS}\b"
)
FROM = re.compile(rf"\bfrom {N.format('many')}{NO_REPS} to {N.format('few')}{NO_REPS}\b")
SPLIT = re.compile(
    rf"\b(?:split|broke|broken?) (?:up )?{N.format('many')} (?:up )?(?:in)?to "
    rf"(?:(?:two|three|four) (?=fives|fours|threes|twos|sixes|eights|tens))?{N.format('few')}\b"
)
LIST = re.compile(
    rf"\b{N.format('many')},? (?:then )?(?:\w+,? (?:then )?)?(?:then )?{N.format('few')}$"
)
SUMS = re.compile(rf"\b{N.format('many')} (?:became|went|as|in|->|→) (?P<few>\d+) ?\+ ?\d+")
LISTED = re.compile(  # a list of reps that go down, and nothing else: "5, then 3, then 2"
    rf"(?:[a-z -]+: )?(?:(?:\d+|(?:{'|'.join(NUMBERS)})s)(?:,? (?:then )?|$)){{2,}}"
)
CANNOT = "(?:could ?n.?t|can ?n?.?t) (?:string|do|link|get) more than"
ONLY = re.compile(
    rf"\b(?:only|had to do|max(?:imum)?|no more than|not more than|{CANNOT})"
    rf" {N.format('few')} (?:unbroken|together|in a row|in one go|at a time)\b"
)
AFTER = re.compile(
    rf"\b(?:break|split|rest|pause|stop|fell apart|broke|put .* down)\b[^.;]*\bafter {N.format('few')}(?: reps)?$"
)
SINGLES = re.compile(r"\b(?P<few>singles|doubles|triples)\b")

# words by kind; some are beginnings of words
WORDS: dict[Kind, tuple[str, ...]] = {
    "faint": (
        r"dizz\w*", r"faint\w*", "saw stars", "light-?headed", "black(?:ed)? out", "passed out", "sick", r"nause\w*",
        "grey",
    ),
    "hurts": (
        "hurts?", "hurting", r"pain\w*", r"pinch\w*", "sore", "ache[sd]?", "aching", r"twinge\w*", r"strain\w*",
        r"cramp\w*", "pulled a",
    ),
    "form": (
        "form", "technique", "ugly", "sloppy", "rounded", "lost (?:my |the )?balance", "back (?:was )?not flat",
        "round(?:ing)? (?:my |the )?back", "cav(?:ed|ing)", r"hips? (?:sag\w*|dropp\w*)", "not clean",
    ),
    "grip": (
        r"grip\w*", r"hands? (?:opened|gave|slipp\w*|ripped|tore)", "tore (?:my |a )?hands?", "forearms?",
        "could ?n.?t hold on", "dropped (?:the|it)",
    ),
    "breath": (
        r"breath\w*", "winded", "gass?ed", "heart (?:at|over|rate|never|would|did|too|up|stayed)", "pulse", "lungs",
    ),
    "late": (
        "still at it", "no time", "too late", "not in time", "did ?n.?t make (?:it|the)", "rest (?:was )?too short",
        "too short a rest", "ran out of time", "beep(?:ed)? before", "over the minute",
    ),
    "skill": (
        "(?:can ?n?.?t|could ?n.?t|cannot|could not|can not) do (?:a single|one|any|it|these|this)", "not a single",
        "no idea how", r"never (?:learn\w*|done)",
    ),
    "kit": ("too (?:heavy|high|light|low|long)", r"(?:box|bell|bar|rings?|ball) (?:slip\w*|wobbl\w*)"),
}  # fmt: skip
SAYS = {kind: re.compile(rf"\b(?:{'|'.join(words)})\b") for kind, words in WORDS.items()}
GOOD = re.compile(
    r"\b(?:fine|held|good|ok|okay|stayed|solid|perfect|clean|gone by then|better|no longer)\b"
)
NOT = re.compile(r"\b(?:not|no)\b|n't\b")
DENIED = re.compile(r"\b(?:no|not|never|without|nothing|free of|\w+n['’]?t)\b(?: \w+){0,2} ?$")
OWN = frozenset(
    {"late", "skill", "kit"}
)  # said by words that deny already: "no time", "can't do one"


class Broke(NamedTuple):
    """What was said: of which kinds, and where sets broke, how many reps they were and how many they became."""

    kinds: frozenset[Kind]
    many: int | None = None
    few: int | None = None


def read_broke(text: str) -> Broke:
    """What a coach's words say of where a try broke; of no kind where they say nothing that is understood.

    >>> read_broke("threes became ones by the second set")
    Broke(kinds=frozenset({'sets'}), many=3, few=1)
    >>> read_broke("no pain at all").kinds
    frozenset()
    """
    said = " ".join(text.casefold().replace("’", "'").replace("->", " -> ").split())
    sets = _sets(said)
    kinds: set[Kind] = {"sets"} if sets else set()
    for kind, words in SAYS.items():
        if any(kind in OWN or not _denied(said, found) for found in words.finditer(said)):
            kinds.add(kind)
    if sets:
        return Broke(frozenset(kinds), *sets)
    return Broke(frozenset(kinds))


def _denied(said: str, found: re.Match[str]) -> bool:
    """Whether a word is said only to say that it is not so."""
    before = re.split(r"[,;.]", said[: found.start()])[-1]
    after = re.split(r"[,;.]| and ", said[found.end() :])[0]
    denied = DENIED.search(before) and not re.match(r" (?:left|more|any ?more)\b", after)
    return bool(denied or (GOOD.search(after) and not NOT.search(after)))


def _sets(said: str) -> tuple[int | None, int] | None:
    """(reps that a set was, reps that it became); None where nothing is said of it, or it became no less."""
    for pattern in (SUMS, SPLIT, WENT, FROM, *([LIST] if LISTED.fullmatch(said) else [])):
        for found in pattern.finditer(said):
            was, became = _number(found["many"]), _number(found["few"])
            if became < was:
                return was, became
    for pattern in (ONLY, AFTER, SINGLES):
        if (few := pattern.search(said)) is not None:
            return None, _number(few["few"])
    return None


def _number(word: str) -> int:
    return int(word) if word.isdecimal() else NUMBERS[word.removesuffix("s")]
