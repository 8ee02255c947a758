"""How a class came out, in a few figures: who came and stopped, what was felt, what was kept up, how it ended."""

from dataclasses import field

from lovrit.core.asked.dose import Asks, asked_by
from lovrit.core.blocks.every import Every
from lovrit.core.run.account import Class
from lovrit.core.run.frozen import Frozen
from lovrit.core.run.going import Going
from lovrit.core.values import Value


class Outcome(Value):
    """A class in figures. ``told`` people had turns to keep up and said how many, ``kept`` of them kept all.

    ``missed_s`` is what an early end left out, ``late_s`` how long it went on past its plan. ``done`` is the share of
    the planned work that was done, ``asks`` what that asked of people; None in what was kept before it was counted.
    ``felt_by`` is what each person said, ``stopped_by`` who stopped and didn't come back.
    """

    came: int = 0
    stopped: int = 0
    asked: float | None = None
    felt: tuple[float, ...] = ()
    told: int = 0
    kept: int = 0
    ended: bool = False
    missed_s: int = 0
    late_s: int = 0
    run: bool = True
    done: float = 1.0
    asks: Asks | None = None
    felt_by: dict[int, float] = field(default_factory=dict)
    stopped_by: tuple[int, ...] = ()


def outcome_of(plan: Frozen, going: Going, state: Class) -> Outcome:
    """How a class came out, as it stands."""
    told = _turns(plan, state)
    took = (
        0
        if state.started_ms is None or state.over_ms is None
        else (state.over_ms - state.started_ms) // 1000
    )
    off = took - plan.plan().total_s if took else 0
    efforts = [
        block.top_effort
        for block in plan.session.blocks
        if block.works and block.top_effort is not None
    ]
    spans = [
        (plan.timeline.intervals[lap.interval], (lap.to_ms - lap.from_ms) / 1000)
        for lap in state.laps
    ]
    worked = sum(seconds for one, seconds in spans if one.phase == "work")
    return Outcome(
        came=len(going.people),
        stopped=len(going.stopped),
        asked=max(efforts, default=None),
        felt=tuple(state.felt.values()),
        told=len(told),
        kept=sum(told),
        ended=state.ended_early,
        missed_s=max(0, -off) if state.ended_early else 0,
        late_s=max(0, off),
        run=state.started_ms is not None,
        done=round(min(1.0, worked / max(1, plan.timeline.work_s)), 3),
        asks=asked_by(plan.session, spans, plan.library),
        felt_by=dict(state.felt),
        stopped_by=tuple(sorted(int(who) for who in going.stopped)),
    )


def _turns(plan: Frozen, state: Class) -> list[bool]:
    """Whether each score of turns kept them all."""
    found = []
    for one in state.scores:
        kept, of, turns = one.text.partition(" of ")
        if (
            of
            and one.block < len(plan.session.blocks)
            and isinstance(plan.session.blocks[one.block], Every)
        ):
            found.append(kept == turns.partition(" ")[0])
    return found
