"""Names of moves as people write them: case, hyphens, plurals, short words and kit in the name all mean the same.

A key is what two writings of one name have in common. Kit forms are made by rule and not written out.
"""

import re
from functools import lru_cache
from typing import NamedTuple

# words that mean the same, longer sayings first; "" leaves a word out that says nothing of the move
SAME: tuple[tuple[str, str], ...] = (
    (r"farmer s|farmers?", "farmer"),
    (r"^kbs$", "bell swing"),
    (r"wall ?balls?", "wall ball"),
    (r"triceps?", "triceps"),
    (r"biceps?", "biceps"),
    (r"battl(?:e|ing) ropes?", "battle rope"),
    (r"(?:wide|close|narrow|neutral|reverse|over ?hand|under ?hand|mixed)[ -]grip", ""),
    (r"cals?|calories?|kcals?", ""),
    (r"kettle ?bells?|kbs?|dumb ?bells?|dbs?", "bell"),
    (r"(?:double|dual|heavy|light|pair of) bell", "bell"),
    (r"(?:alternating|alternate|alt) (?:bell )?swings?", "one hand swing"),
    (r"bar ?bells?|bbs?", "bar"),
    (r"med ?balls?|medballs?|medicine balls?|mb", "ball"),
    (r"body ?weight|bw|air", ""),
    (r"press ?ups?|push ?ups?", "push up"),
    (r"pull ?ups?|chin ?ups?|chins", "pull up"),
    (r"sit ?ups?", "sit up"),
    (r"step ?ups?", "step up"),
    (r"(?:single|one|1) (?:arm|hand)(?:ed)?", "one hand"),
    (r"(?:two|2|both) (?:arm|hand)s?(?:ed)?", ""),
    (r"(?:single|one|1) leg(?:ged)?", "one leg"),
    (r"alternating|alternate|alt|weighted|strict form|in place|on the spot", ""),
    (r"bent over|bentover", "bent over"),
    (r"skipping rope|skip rope|jump rope|jump ropes|rope jump", "rope skip"),
    (r"rowing|rower|row erg|rowing machine|erg", "row"),
)
AMOUNT = re.compile(  # “400m run”, “run 400”: the name is what is left
    r"^\d+ ?(?:m|km|mi|miles?|cals?|kcal|s|secs?|min|reps?)\b(?! and)|(?<=\w) \d+ ?(?:m|km|mi|s|min)?$"
)
PATTERNS = tuple((re.compile(rf"\b(?:{said})\b"), key) for said, key in SAME)
ENDINGS = (("sses", "ss"), ("ches", "ch"), ("shes", "sh"), ("xes", "x"), ("ies", "y"))
KEPT = frozenset({"ss", "us", "is"})  # press, cross, biceps keeps its s below
WHOLE = frozenset({"biceps", "triceps", "toes"})
# free weights that one move is done with as well as another; a word of machines or walls names another move
WEIGHTS = {
    "bell": "bell",
    "bar": "bar",
    "plate": "plate",
    "bag": "bag",
    "sandbag": "bag",
    "ball": "ball",
}
FREE = frozenset(WEIGHTS.values())
STOOD_ON = frozenset({"bench", "box", "step"})  # kit that a weight may come to


def _singular(word: str) -> str:
    if word in WHOLE or word[-2:] in KEPT:
        return word
    for ending, short in ENDINGS:
        if word.endswith(ending):
            return word.removesuffix(ending) + short
    return word.removesuffix("s")


@lru_cache(maxsize=20_000)
def key_of(name: str) -> str:
    """What two writings of one move's name have in common.

    >>> key_of("KB Swings"), key_of("Push-Ups"), key_of("pushups")
    ('bell swing', 'push up', 'push up')
    """
    said = re.sub(r"[^a-z0-9 ]+", " ", name.lower().replace("&", " and ").replace("-", " "))
    said = AMOUNT.sub("", said.strip())
    said = " ".join(said.split())
    for pattern, key in PATTERNS:
        said = pattern.sub(key, said)
    return " ".join(_singular(word) for word in said.split()) or name.lower().strip()


class Kitted(NamedTuple):
    """A name without the kit in it, and that kit."""

    key: str
    kit: str


def without_kit(key: str) -> Kitted | None:
    """A key without the free weight that it names, wherever in it; None where it names none."""
    words = key.split()
    at = next((nth for nth, word in enumerate(words) if word in WEIGHTS), None)
    if at is None or len(words) < 2:
        return None
    return Kitted(" ".join([*words[:at], *words[at + 1 :]]), WEIGHTS[words[at]])


# how it is done rather than what: leaves the move what it is, whoever says it
MANNERS = frozenset(
    {
        *("slow", "slowly", "fast", "quick", "quickly", "heavy", "light", "easy", "hard", "strict"),
        *(
            "controlled",
            "steady",
            "max",
            "weighted",
            "loaded",
            "unbroken",
            "each",
            "paused",
            "tempo",
        ),
        *("together", "both", "deep", "full", "small", "big", "low", "high", "deficit", "drill"),
    }
)
# where a weight is held; the move below it stays, and wants a weight
HELD = re.compile(r"^(?:goblet|front rack|double rack|rack|bear hug|suitcase|shoulder) (?=\w)")


def plainer(key: str) -> tuple[str, ...]:
    """Keys that say the same with less: no manner, no place where a weight is held, one hand instead of two."""
    words = key.split()
    tried = [" ".join(word for word in words if word not in MANNERS), HELD.sub("", key)]
    tried += [key.removeprefix("one hand "), key.removeprefix("banded "), key.removeprefix("band ")]
    return tuple(dict.fromkeys(one for one in tried if one and one != key))


# words that change how it lands, what it loads or what it takes to have learnt it
CHANGES = re.compile(
    r"\b(jump|hop|bound|leap|clap|skip|sprint|overhead|snatch|jerk|clean|handstand|hang|breath|water|eye|one leg)\w*\b"
)


def harmless(said: str) -> bool:
    """Whether what stands behind a “with” leaves the move what it is: “with a twist”, but not “with a jump”."""
    return not CHANGES.search(said)
