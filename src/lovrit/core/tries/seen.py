"""A block as a try saw it: what was told and read of it, and which of its lines the words of a coach mean."""

from typing import NamedTuple

from lovrit.core.blocks.block import Block
from lovrit.core.moves.names import key_of
from lovrit.core.slate.line import Line
from lovrit.core.timeline.plan import Plan
from lovrit.core.tries.said import Broke
from lovrit.core.values import Value


class Told(Value):
    """What came of a try of one block: what was said where it broke, what was scored and felt."""

    broke: tuple[str, ...] = ()
    score: str = ""
    felt: float | None = None


class Seen(NamedTuple):
    """A block as a try saw it: the plan, its place, what was told and read of it, how much slower the group is."""

    plan: Plan
    at: int
    told: Told
    broke: tuple[Broke, ...]
    slower: float

    @property
    def block(self) -> Block:
        """The block itself."""
        return self.plan.session.blocks[self.at]

    def says(self, *kinds: str) -> bool:
        """Whether the coach said something of one of these kinds."""
        return any(one.kinds & set(kinds) for one in self.broke)

    def worded(self, *kinds: str) -> str:
        """The coach's own words in which it was said."""
        return next(
            text
            for text, one in zip(self.told.broke, self.broke, strict=True)
            if one.kinds & set(kinds)
        )


def reps_asked(line: Line) -> float | None:
    """Reps that a line asks, as one figure."""
    amount = line.tasks[0].amount
    return amount.values[0] if amount and amount.form == "one" and amount.unit == "reps" else None


def named(seen: Seen, text: str) -> int | None:
    """The line whose move the words name; None where they name none, or more than one."""
    words = f" {key_of(text)} "
    plain = {word.removesuffix("s") for word in words.split()}
    found = []
    for nth, line in enumerate(seen.block.moves):
        move = seen.plan.library.find(line.tasks[0].name)
        names = {
            key_of(line.tasks[0].name),
            *([key_of(move.name), *map(key_of, move.also)] if move else []),
        }
        if any(set(name.split()) <= plain for name in names if name):
            found.append(nth)
    return found[0] if len(found) == 1 else None


def line_of(seen: Seen, text: str, many: int | None) -> int | None:
    """The line whose sets broke: the one named, else those that ask so many, of these the one that asks most."""
    meant = named(seen, text)
    if meant is not None:
        return meant
    alike = [
        nth
        for nth, line in enumerate(seen.block.moves)
        if reps_asked(line) and many in (None, reps_asked(line))
    ]
    return most_asked(seen, alike)


def most_asked(seen: Seen, among: list[int] | None = None, *, gripping: bool = False) -> int | None:
    """The line that asks most of what is done fresh in one go."""
    asked: dict[int, float] = {}
    for nth, line in enumerate(seen.block.moves):
        move, reps = seen.plan.library.find(line.tasks[0].name), reps_asked(line)
        if reps and move and (among is None or nth in among) and (move.grip or not gripping):
            asked[nth] = reps / move.fresh
    return max(asked, key=lambda nth: asked[nth], default=None)
