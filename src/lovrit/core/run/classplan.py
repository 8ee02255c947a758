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
    library: Library
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
            PlannedBlock(at, self.blocks[at].block, Floor("all", ()), self.library)
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
    return PlannedBlock(at, block, block.floor(Laying(library)), library, ends)


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
    return _teams_of(groups, floor.team)


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


def _teams_of(groups: dict[str, list[str]], size: int) -> list[LaneOf]:
    """Teams of a size within each group; those left over of all groups are teams of their own, an odd one joins one.

    Of pairs an odd one makes a three in its own group.
    """
    made: dict[str, list[list[str]]] = {}
    over: list[tuple[str, str]] = []
    for name, some in groups.items():
        whole = len(some) - len(some) % size
        made[name] = [some[at : at + size] for at in range(0, whole, size)]
        over += [(name, one) for one in some[whole:]]
    if size == 2:
        for name, one in over:
            made[name][-1:] = [[*made[name][-1], one]] if made[name] else [[one]]
        over = []
    for at in range(0, len(over), size):
        team = over[at : at + size]
        begun = [made[team[0][0]], *reversed(made.values())]
        joined = next((some for some in begun if some), None)
        if len(team) == 1 and joined:
            joined[-1].append(team[0][1])
        else:
            made[team[0][0]].append([one for _, one in team])
    return [
        LaneOf(f"{name}{nth}", tuple(team))
        for name, some in made.items()
        for nth, team in enumerate(some, 1)
    ]


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
