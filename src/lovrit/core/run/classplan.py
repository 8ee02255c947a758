"""The class plan: a session as it is run, made once by the core, and read by all who show or tell it."""

from dataclasses import dataclass, replace

from lovrit.core.blocks.block import Block
from lovrit.core.blocks.floor import Floor
from lovrit.core.blocks.step import Laying
from lovrit.core.crew.groups import letter, usual_groups
from lovrit.core.moves.library import Library
from lovrit.core.session.session import Session

WAVES = ("first", "second")
EVERYBODY = "all"
MOST_ROUNDS = 60  # more are not told one by one


@dataclass(frozen=True)
class Runner:
    """A person on the floor: their id, and their group's letter."""

    id: str
    group: str


@dataclass(frozen=True)
class LaneOf:
    """A lane before anybody walks it: its name, who is in it, how much later it begins."""

    name: str
    people: tuple[str, ...]
    offset_s: int = 0


@dataclass(frozen=True)
class PlannedBlock:
    """A block as it is run."""

    at: int
    block: Block
    floor: Floor
    usual_rounds: tuple[float, ...] = ()  # where usual people end each, in seconds into the block

    @property
    def planned_s(self) -> int:
        """What it is planned to last: its cap where that is its clock, else its steps, those that start later too."""
        if self.floor.cap_s is not None and self.floor.cap_is_clock:
            return self.floor.cap_s
        steps = sum(step.planned_s for step in self.floor.steps)
        return max(self.floor.offsets_s) + (
            steps if self.floor.cap_s is None else min(steps, self.floor.cap_s)
        )

    @property
    def rounds(self) -> int:
        """How many rounds it has."""
        return max((step.round or 0 for step in self.floor.steps), default=0)

    @property
    def turns(self) -> int:
        """How many turns a round has."""
        return max((step.turn or 0 for step in self.floor.steps), default=0)


@dataclass(frozen=True)
class ClassPlan:
    """All blocks of a class as they are run, and the library that their sentences come from."""

    session: Session
    library: Library
    blocks: tuple[PlannedBlock, ...]

    @property
    def total_s(self) -> int:
        """What the class is planned to last."""
        return sum(block.planned_s for block in self.blocks)

    @property
    def slot_s(self) -> int | None:
        """How long the hall is ours; None where nobody said."""
        return self.session.slot.seconds if self.session.slot else None

    def with_block(self, at: int, block: Block | None) -> "ClassPlan":
        """The plan with another block in a place, or with nothing to do there."""
        made = (
            PlannedBlock(at, self.blocks[at].block, Floor("all", ()))
            if block is None
            else planned(at, block, self.library)
        )
        return replace(self, blocks=(*self.blocks[:at], made, *self.blocks[at + 1 :]))


def class_plan(session: Session, library: Library) -> ClassPlan:
    """A session as it is run."""
    blocks = tuple(planned(at, block, library) for at, block in enumerate(session.blocks))
    return ClassPlan(session, library, blocks)


def planned(at: int, block: Block, library: Library) -> PlannedBlock:
    """One block as it is run."""
    ends = tuple(block.round_ends(library)[:MOST_ROUNDS])
    return PlannedBlock(at, block, block.floor(Laying(library)), ends)


def lanes_of(floor: Floor, people: list[Runner]) -> list[LaneOf]:
    """Who shares a clock. Where nobody is known there is one lane, so that the clock runs all the same."""
    ids = [one.id for one in people]
    if not people or floor.lanes == "all":
        return [LaneOf(EVERYBODY, tuple(ids))]
    groups = by_group(people)
    if floor.lanes == "groups":
        return [LaneOf(name, tuple(some)) for name, some in groups.items()]
    if floor.lanes == "persons":
        return [LaneOf(one, (one,)) for one in ids]
    if floor.lanes == "waves":
        return _waves(groups, floor.offsets_s)
    return [
        LaneOf(f"{name}{nth}", pair)
        for name, some in groups.items()
        for nth, pair in enumerate(_teams(some, floor.team), 1)
    ]


def by_group(people: list[Runner]) -> dict[str, list[str]]:
    """The ids of each group, groups by their letter."""
    groups: dict[str, list[str]] = {}
    for one in sorted(people, key=lambda one: one.group):
        groups.setdefault(one.group, []).append(one.id)
    return groups


def _waves(groups: dict[str, list[str]], offsets: tuple[int, ...]) -> list[LaneOf]:
    """The first half of the groups, and the second; of one group its people."""
    some = list(groups.values())
    halves = some if len(some) > 1 else [[one] for one in some[0]]
    cut = -(-len(halves) // 2)
    parts = ([one for group in half for one in group] for half in (halves[:cut], halves[cut:]))
    return [
        LaneOf(name, tuple(part), offset)
        for name, part, offset in zip(WAVES, parts, offsets, strict=True)
        if part
    ]


def _teams(ids: list[str], size: int) -> list[tuple[str, ...]]:
    """Teams of a size; who is left over alone joins the last."""
    teams = [tuple(ids[at : at + size]) for at in range(0, len(ids), size)]
    if len(teams) > 1 and len(teams[-1]) < 2 <= size:
        *rest, before, last = teams
        teams = [*rest, before + last]
    return teams


def dealt(ids: list[str], given: dict[str, str], stations: int, groups: int | None) -> list[Runner]:
    """People with their groups: as given, else filled in order, equal within one."""
    count = groups or max(
        usual_groups(len(ids), stations),
        1 + max((ord(one) - 65 for one in given.values()), default=0),
    )
    free = [one for one in ids if one not in given]
    sizes = {letter(at): 0 for at in range(count)}
    for one in given.values():
        sizes[one] = sizes.get(one, 0) + 1
    of = dict(given)
    share = _shares(len(ids), list(sizes), sizes)
    for name, many in share.items():
        for one in free[:many]:
            of[one] = name
        free = free[many:]
    return [Runner(one, of[one]) for one in ids]


def _shares(people: int, names: list[str], taken: dict[str, int]) -> dict[str, int]:
    """How many more each group gets, so that all are equal within one."""
    left = people - sum(taken.values())
    more = dict.fromkeys(names, 0)
    for _ in range(left):
        least = min(names, key=lambda name: (taken[name] + more[name], name))
        more[least] += 1
    return more
