"""What has been done here: the most reps, seconds and kilograms of each move that a class was asked for and ran."""

from collections.abc import Iterable

from lovrit.core.blocks.block import Block
from lovrit.core.blocks.strength import Strength
from lovrit.core.moves.library import Library
from lovrit.core.moves.move import Pattern
from lovrit.core.moves.names import key_of
from lovrit.core.slate.line import Line
from lovrit.core.values import Value


class Most(Value):
    """The most of a move in one go: reps, seconds held, kilograms; 0 where none was written."""

    reps: float = 0.0
    s: float = 0.0
    kg: float = 0.0

    def or_more(self, other: "Most") -> "Most":
        """The larger of each."""
        return Most(
            reps=max(self.reps, other.reps), s=max(self.s, other.s), kg=max(self.kg, other.kg)
        )


class Did(Value):
    """A move that a class did: as it was written, by its name in the library (or its key), its pattern, how much."""

    said: str
    move: str
    pattern: Pattern | None
    skill: bool
    most: Most


def did(blocks: Iterable[Block], library: Library) -> tuple[Did, ...]:
    """What these blocks ask of each move, once a move."""
    found: dict[str, Did] = {}
    for block in blocks:
        for line in block.moves:
            for nth, task in enumerate(line.tasks):
                if line.is_rest or not task.name:
                    continue
                move = library.find(task.name)
                name = move.name if move else key_of(task.name)
                most = asked_of(block, line, nth)
                if name in found:
                    most = most.or_more(found[name].most)
                found[name] = Did(
                    said=found[name].said if name in found else task.name.casefold(),
                    move=name,
                    pattern=move.pattern if move else None,
                    skill=bool(move and move.skill),
                    most=most,
                )
    return tuple(found.values())


def asked_of(block: Block, line: Line, nth: int = 0) -> Most:
    """How much of a task one person is asked for in one go; what a team splits is nobody's."""
    task = line.tasks[nth]
    if task.shared:
        return Most()
    amount, load = task.amount, task.load
    value = max(amount.values, default=0.0) if amount and amount.form != "max" else 0.0
    reps = value if amount and amount.unit == "reps" else 0.0
    if isinstance(block, Strength) and block.reps and not amount:
        reps = float(block.reps.high)
    seconds = value if amount and amount.unit == "s" else 0.0
    heavy = max(load.values) if load and load.unit == "kg" and load.values else 0.0
    return Most(reps=reps, s=seconds, kg=heavy)


def of_all(classes: Iterable[Iterable[Did]]) -> dict[str, Most]:
    """The most of each move over many classes, by its name."""
    most: dict[str, Most] = {}
    for some in classes:
        for one in some:
            most[one.move] = most.get(one.move, Most()).or_more(one.most)
    return most
