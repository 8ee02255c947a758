"""Names of moves as people write them: case, hyphens, plurals, short words and kit in the name all mean the same.

A key is what two writings of one name have in common. Kit forms are made by rule and not written out.
"""

import re
from functools import lru_cache
from typing import NamedTuple

# words that mean the same, longer sayings first; "" leaves a word out that says nothing of the move
SAME: tuple[tuple[str, str], ...] = (
    (r"farmer s|farmers?", "farmer"),
    (r"kettle ?bells?|kbs?|dumb ?bells?|dbs?", "bell"),
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
    said = re.sub(r"[^a-z0-9 ]+", " ", name.lower().replace("-", " ").replace("’", " "))
    said = " ".join(said.split())
    for pattern, key in PATTERNS:
        said = pattern.sub(key, said)
    return " ".join(_singular(word) for word in said.split()) or name.lower().strip()


class Kitted(NamedTuple):
    """A name without the kit in it, and that kit."""

    key: str
    kit: str


def without_kit(key: str) -> Kitted | None:
    """A key without the free weight that it names first or last; None where it names none."""
    words = key.split()
    for at in (0, -1):
        if len(words) > 1 and words[at] in WEIGHTS:
            rest = words[1:] if at == 0 else words[:-1]
            return Kitted(" ".join(rest), WEIGHTS[words[at]])
    return None
