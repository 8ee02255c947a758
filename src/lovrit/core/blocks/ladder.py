"""Reps that climb: of each move so many in the first round, and more in every next."""

from lovrit.core.blocks.options import Option, Read
from lovrit.core.slate.line import Amount, Line
from lovrit.core.slate.tree import Node, tokens, whole
from lovrit.core.slate.words import Word
from lovrit.core.values import Value

MOST_REPS = 500


class Ladder(Value):
    """Reps that climb: ``start`` of each move in the first round, ``step`` more in every next."""

    start: int
    step: int

    def at(self, nth: int) -> int:
        """Reps of a round (from 1)."""
        return self.start + self.step * (nth - 1)

    def __str__(self) -> str:
        return f"{self.start} +{self.step}"


def _read_ladder(node: Node) -> Read:
    start, step = (whole(token, "reps", most=MOST_REPS) for token in tokens(node, "NUM"))
    return Read({"ladder": Ladder(start=start, step=step)}, [])


LADDER = Option(
    "ladder",
    "LADDER NUM PLUS NUM",
    "ladder",
    _read_ladder,
    lambda block: f"ladder {block.ladder}" if block.ladder else "",
    (Word("LADDER.4", r"/ladder\b/i", "“ladder” as in ladder 2 +2", "ladder"),),
    "ladder",
)


def with_reps(line: Line, reps: int) -> Line:
    """A line with so many reps of each of its tasks that says no amount."""
    amount = Amount(values=(float(reps),))
    return line.but(
        tasks=tuple(task if task.amount else task.but(amount=amount) for task in line.tasks)
    )
