"""What is kept of a class beside its events, so that many classes can be asked at once: moves, scores, changes, words.

All of it follows from the class and can be worked out again at any time.
"""

from lovrit.core.blocks.called import CALLED
from lovrit.core.crew.person import Comer
from lovrit.core.review.changes import changes_said
from lovrit.core.review.kin import kin_key, own_key, worth
from lovrit.core.run.account import Class
from lovrit.core.run.fold import Fold
from lovrit.core.run.frozen import Frozen
from lovrit.core.run.outcome import Outcome, outcome_of
from lovrit.core.tries.done import Did, did
from lovrit.core.values import Value

LEAST_MS, LEAST_SHARE = 30_000, 0.5  # a block that was on for less than either was only begun; ours


class ScoreKept(Value):
    """A person's score that can be compared: what it is of a kind with, in which ways, what it is worth."""

    block: int
    person: int
    kin: str
    ways: str
    label: str
    figure: str
    value: float
    more: bool
    said: str


class Record(Value):
    """A class as many are asked: what was done and changed, how it came out, its scores, its words."""

    did: tuple[Did, ...]
    changes: tuple[str, ...]
    outcome: Outcome
    scores: tuple[ScoreKept, ...]
    words: str


def record_of(
    title: str, text: str, plan: Frozen, fold: Fold, state: Class, comers: tuple[Comer, ...]
) -> Record:
    """What is kept of a class that is over; ``fold`` is of its events, ``state`` the account of it."""
    ran = _blocks_run(plan, state)
    working = [block for at, block in enumerate(plan.session.blocks) if at in ran and block.works]
    labels = [one.label for one in plan.timeline.blocks]
    said = [words for _, words in changes_said(fold.counted, plan.session, labels)]
    going = fold.state
    words = [title, text, going.note, *(one.name for one in comers if not one.erased)]
    words += [one["text"] for one in (*going.marks, *going.broke)]
    words += [CALLED.get(one.kind, "") for one in plan.session.blocks]
    return Record(
        did=did(working, plan.library),
        changes=tuple(dict.fromkeys(said)),
        outcome=outcome_of(plan, going, state),
        scores=tuple(_scores(plan, state, comers)),
        words="\n".join(one for one in words if one),
    )


def _blocks_run(plan: Frozen, state: Class) -> set[int]:
    """The blocks that were done: on for half a minute, or for half of what was planned of a short one."""
    on: dict[int, int] = {}
    for lap in state.laps:
        at = plan.timeline.intervals[lap.interval].block
        on[at] = on.get(at, 0) + lap.to_ms - lap.from_ms
    planned = {at: 1000 * one.seconds for at, one in enumerate(plan.timeline.blocks)}
    return {at for at, ms in on.items() if ms >= min(LEAST_MS, LEAST_SHARE * planned[at])}


def _scores(plan: Frozen, state: Class, comers: tuple[Comer, ...]) -> list[ScoreKept]:
    here = {one.id: one for one in comers if not one.erased}
    found = []
    for one in state.scores:
        if one.person not in here or one.block >= len(plan.session.blocks):
            continue
        block = plan.session.blocks[one.block]
        value = worth(block, one.text)
        if value is None:
            continue
        kept = ScoreKept(
            block=one.block, person=one.person, kin=kin_key(block, plan.library),
            ways=own_key(block, here[one.person], plan.library), label=plan.timeline.blocks[one.block].label,
            figure=value.figure, value=value.value, more=value.more, said=one.text,
        )  # fmt: skip
        found.append(kept)
    return found
