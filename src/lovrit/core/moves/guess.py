"""What the name of a move that nobody has described says of itself: enough to turn cautions on, never off."""

import re
from difflib import SequenceMatcher
from functools import lru_cache
from typing import NamedTuple

from lovrit.core.moves.library import Library
from lovrit.core.moves.move import Impact, Move, Pattern
from lovrit.core.moves.names import key_of

LANDS = re.compile(r"\b(jump|hop|bound|leap|skip|sprint|plyo\w*|burpee|double under|jack)\w*\b")
OVERHEAD = re.compile(
    r"\b(overhead|snatch|jerk|handstand|shoulder press|push press|strict press|muscle up|thruster)\b"
)
SKILL = re.compile(
    r"\b(clean|snatch|jerk|handstand|muscle up|kipping|rope climb|pistol|planche|lever)\b"
)
HANGS = re.compile(r"\b(hang|hanging|bar hold|climb|ring)\b")
WATER = re.compile(r"\b(swim|water|underwater|apnea|breaststroke|backstroke|crawl stroke)\w*\b")
FLOOR = re.compile(
    r"\b(lying|prone|supine|floor|plank|crunch|sit up|crawl|burpee|push up|bridge|roll)\b"
)
BREATH = re.compile(r"\b(breath held|breath hold|under water|underwater|apnea)\b")
# the last word of a name mostly says what kind of move it is
SAYS: tuple[tuple[str, Pattern], ...] = (
    ("squat", "squat"), ("lunge", "lunge"), ("step up", "lunge"), ("deadlift", "hinge"), ("swing", "hinge"),
    ("bridge", "hinge"), ("thrust", "hinge"), ("clean", "hinge"), ("snatch", "hinge"), ("press", "push"),
    ("push up", "push"), ("dip", "push"), ("jerk", "push"), ("row", "pull"), ("pull up", "pull"), ("curl", "pull"),
    ("pull", "pull"), ("climb", "pull"), ("carry", "carry"), ("walk", "carry"), ("drag", "carry"), ("plank", "brace"),
    ("crunch", "brace"), ("sit up", "brace"), ("twist", "brace"), ("raise", "brace"), ("hollow", "brace"),
    ("jump", "jump"), ("hop", "jump"), ("skip", "jump"), ("jack", "jump"), ("bound", "jump"), ("burpee", "whole-body"),
    ("crawl", "whole-body"), ("run", "gait"), ("sprint", "gait"), ("jog", "gait"), ("swim", "pull"),
    ("bike", "machine"),
    ("punch", "footwork"), ("kick", "footwork"), ("shuffle", "footwork"), ("march", "footwork"),
    ("stretch", "mobility"), ("circle", "mobility"), ("rotation", "mobility"),
)  # fmt: skip
NEAR = 0.72
SLIP = 0.88
MOST_NEAR = 3


class Guess(NamedTuple):
    """What a name says: what is None or False it does not say, which is not the same as not so."""

    pattern: Pattern | None
    impact: Impact | None
    overhead: bool
    skill: bool
    hang: bool
    floor: bool
    swim: bool
    breath: bool

    def said(self) -> tuple[str, ...]:
        """What turns a caution on, in words."""
        found = {
            "jump": self.impact == "high",
            "overhead": self.overhead,
            "skill": self.skill,
            "hang": self.hang,
            "swim": self.swim,
            "breath held": self.breath,
        }
        return tuple(word for word, so in found.items() if so)


@lru_cache(maxsize=2048)
def guess(name: str) -> Guess:
    """What a name says of the move."""
    key = key_of(name)
    ends = [(key.rfind(word), pattern) for word, pattern in SAYS if re.search(rf"\b{word}\b", key)]
    return Guess(
        pattern=max(ends)[1] if ends else None,
        impact="high" if LANDS.search(key) else None,
        overhead=bool(OVERHEAD.search(key)),
        skill=bool(SKILL.search(key)),
        hang=bool(HANGS.search(key)),
        floor=bool(FLOOR.search(key)),
        swim=bool(WATER.search(key)),
        breath=bool(BREATH.search(key)),
    )


def stand_in(name: str) -> Move | None:
    """A move for a name that isn't known but says something of itself, so that cautions speak; else None."""
    said = guess(name)
    if not said.said():
        return None
    return Move(
        name=name,
        pattern=said.pattern or "gait",
        impact=said.impact or "none",
        low_impact="squat" if said.impact == "high" else "",
        overhead=said.overhead,
        skill=said.skill,
        grip=said.hang,
        floor=said.floor,
        breath=said.breath,
    )


def nearest(name: str, library: Library) -> tuple[str, ...]:
    """Names near to one that isn't known: of the same pattern and kind of landing, and no easier in what they ask.

    Where the name says no pattern, only a slip of a letter or two is near.
    """
    key, said = key_of(name), guess(name)
    if said.swim or said.breath:
        return ()
    names = _alike(said, library) if said.pattern else _landing(said, library)
    least = NEAR if said.pattern else SLIP
    likes = [(SequenceMatcher(None, key, key_of(other)).ratio(), other) for other in names]
    return tuple(other for like, other in sorted(likes, reverse=True)[:MOST_NEAR] if like >= least)


def _landing(said: Guess, library: Library) -> list[str]:
    return [
        move.name for move in library.moves if (move.impact == "high") == (said.impact == "high")
    ]


def _alike(said: Guess, library: Library) -> list[str]:
    high = said.impact == "high"
    return [
        move.name
        for move in library.moves
        if _is_like(move, said) and (move.impact == "high") == high
    ]


def _is_like(move: Move, said: Guess) -> bool:
    return (
        move.pattern == said.pattern and move.overhead == said.overhead and move.skill == said.skill
    )
