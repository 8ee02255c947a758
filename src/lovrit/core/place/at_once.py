"""Kit where all do the same at once: how many take it beside how many there are; halves and partners share it."""

from typing import NamedTuple

from lovrit.core.blocks.block import Block
from lovrit.core.clock import clock
from lovrit.core.crew.person import Person
from lovrit.core.moves.library import Library
from lovrit.core.place.hall import Hall, problem_of, sharing
from lovrit.core.place.problem import Kit, Problem, kit_said
from lovrit.core.timeline.plan import Plan


class AtOnce(NamedTuple):
    """A kit in a block that all do at once: how many are taken, how many there are, and what would help."""

    block: int
    label: str
    at_s: int
    kit: str
    taken: int
    there: int
    help: str = ""

    @property
    def short(self) -> bool:
        """Whether there are too few."""
        return self.taken > self.there

    @property
    def text(self) -> str:
        """What is short, in a sentence."""
        return (
            f"{clock(self.at_s)}, {self.label}: {self.taken} of {self.kit} at once, there are {self.there}. {self.help}"
        ).strip()


def at_once(plan: Plan, hall: Hall, people: list[Person], library: Library) -> tuple[AtOnce, ...]:
    """What each block that nobody moves through takes at once, for the kit that is counted."""
    found: list[AtOnce] = []
    for at, block in enumerate(plan.session.blocks):
        if (
            block.moves_people
            or not block.works
            or not any(not line.is_rest for line in block.moves)
        ):
            continue
        problem = problem_of(block, hall, people, 1, library)
        start = next((one.start_s for one in plan.timeline.of_block(at)), 0)
        label = plan.timeline.blocks[at].label
        for kind, many in _most(problem).items():
            taken, there = -(-many // _shared(block)), problem.kit.get(kind, 0)
            help_ = _help(block) if taken > there else ""
            found.append(AtOnce(at, label, start, kit_said(kind), taken, there, help_))
    return tuple(found)


def _most(problem: Problem) -> dict[Kit, int]:
    """The most of each kit that all together take at one line."""
    most: dict[Kit, int] = {}
    for station in problem.stations:
        taken: dict[Kit, int] = {}
        for person in problem.people:
            for kind, many in problem.uses(person, station).items():
                taken[kind] = taken.get(kind, 0) + many
        for kind, many in taken.items():
            most[kind] = max(most.get(kind, 0), many)
    return most


def _shared(block: Block) -> int:
    """How many share one set: partners, teams, and halves of whom one rests while the other works."""
    return sharing(block) * (2 if getattr(block, "half_start_s", 0) else 1)


def _help(block: Block) -> str:
    """What the slate could say so that fewer are taken at once."""
    if hasattr(block, "half_start_s") and not block.half_start_s:
        return "Two waves need half: “half start at 0:30” on its line."
    if hasattr(block, "team") and sharing(block) == 1:
        return "Partners need half: “partners alternate” on its line."
    return "Lighter or other ways for some, or stations that people move through, need fewer."
