"""What a change of a session's figures does to how it feels, in one line that can be checked against the read-out."""

from collections.abc import Iterator
from dataclasses import dataclass

from lovrit.core.clock import clock, number, ratio
from lovrit.core.timeline.plan import Plan

LITTLE = 0.05
LASTING = 4  # effort from which on steady minutes are what the session is about; ours
KINDER = ("less work", "less of it hard", "more rest to each work", "a lower top")
HARDER = ("more work", "more of it hard", "less rest to each work", "a higher top")


@dataclass(frozen=True)
class Feel:
    """Work, ratio, hard work and top effort after a change; whether it is kinder or harder, by what; seconds past the
    slot, where there is one.
    """

    figures: tuple[str, ...]
    verdict: str
    over_s: int = 0

    def __str__(self) -> str:
        return f"{', '.join(self.figures)}. {self.verdict}"


def feel(before: Plan, after: Plan) -> Feel:
    """What a change does to a session."""
    kinder, harder = list(_less(before, after, KINDER)), list(_less(after, before, HARDER))
    told = [
        f"{word}: {', '.join(by)}" for word, by in (("kinder", kinder), ("harder", harder)) if by
    ]
    verdict = f"{'; '.join(told).capitalize()}." if told else "About the same to do."
    return Feel(tuple(_figures(after)), verdict, max(0, -(after.sums.spare_s or 0)))


def _figures(plan: Plan) -> Iterator[str]:
    yield f"{clock(round(_work(plan)))} of work"
    work, rest = plan.sums.ratio
    if work and rest:
        yield f"{ratio(work, rest)} work to rest"
    hard, top = plan.sums.hard_s, plan.sums.top_effort
    if hard:
        yield f"{clock(hard)} hard"
    if top is not None:
        yield f"top effort {number(top)}"


def _less(one: Plan, two: Plan, words: tuple[str, ...]) -> Iterator[str]:
    """In what the second asks for less than the first, by more than a little; of effort, by anything."""
    for word, ask in zip(words, (_work, _hard_share, _density, _top), strict=True):
        if ask(two) < ask(one) * (1 if ask is _top else 1 - LITTLE):
            yield word


def _work(plan: Plan) -> float:
    """Seconds of work, a steady stretch that is more than a warm-up among them."""
    steady = (one for one in plan.timeline.intervals if one.phase == "steady")
    lasting = sum(one.seconds for one in steady if (one.asked or 0) >= LASTING)
    return plan.timeline.work_s + lasting


def _hard_share(plan: Plan) -> float:
    return plan.sums.hard_s / max(1, plan.timeline.work_s)


def _density(plan: Plan) -> float:
    work, rest = plan.sums.ratio
    return work / (work + rest) if work else 0.0


def _top(plan: Plan) -> float:
    return plan.sums.top_effort or 0.0
