"""One person's turns laid on one another: the block with the most of them, and the last as it was to be expected."""

from lovrit.core.crew.person import Comer
from lovrit.core.review.hearts import HeartAfter
from lovrit.core.review.turns import Fold, Trace, folded, good, person_turns, works
from lovrit.core.run.account import Class
from lovrit.core.run.frozen import Frozen
from lovrit.core.values import Value


class Curve(Value):
    """A turn's path in the fold, in percent of the picture; later ones are darker."""

    path: str
    ink: float


class FoldView(Value):
    """One person's turns laid on one another."""

    name: str
    block: str
    curves: tuple[Curve, ...]
    box: tuple[float, float, float, float] | None
    work: float
    ticks_x: tuple[tuple[float, str], ...]
    ticks_y: tuple[tuple[float, str], ...]
    work_s: int
    rest_s: int
    peak: tuple[float, str] | None
    expected: str = ""


def fold_view(
    plan: Frozen, state: Class, comer: Comer, trace: Trace, heart: HeartAfter | None
) -> FoldView | None:
    """The block with the most turns, folded."""
    blocks = [interval.block for interval, _ in works(plan.timeline, state)]
    if not blocks or not trace:
        return None
    block = max(sorted(set(blocks)), key=blocks.count)
    folds = folded(plan.timeline, state, trace, block, comer.id)
    beats = [bpm for fold in folds for _, bpm in fold.points if bpm is not None]
    if not beats:
        return None
    mine = [one for one in plan.timeline.intervals if one.block == block]
    work_s = next(one.seconds for one in mine if one.phase == "work")
    rest_s = next((one.seconds for one in mine if one.phase == "rest"), 0)
    target = next(
        (turn.corridor for turn in person_turns(plan.session, plan.timeline, state, comer, trace)
         if plan.timeline.intervals[turn.interval].block == block), None
    )  # fmt: skip
    expected = _expected(heart, block, len(folds[-1].points)) if heart else None
    return _drawn(comer, plan.session.blocks[block].head, folds, (work_s, rest_s), target, expected)


def _expected(heart: HeartAfter, block: int, length: int) -> Fold | None:
    """What was to be expected of the last turn of a block."""
    last = [one.start_s for one in heart.works if one.block == block][-1:]
    if not last:
        return None
    line = heart.expected[last[0] : last[0] + length]
    return Fold(turn=0, points=tuple((at, round(float(bpm))) for at, bpm in enumerate(line)))


def _drawn(
    comer: Comer,
    label: str,
    folds: list[Fold],
    lengths: tuple[int, int],
    target: tuple[float, float] | None,
    expected: Fold | None = None,
) -> FoldView:
    every = [*folds, expected] if expected else folds
    beats = [bpm for fold in every for _, bpm in fold.points if bpm is not None and good(bpm)]
    top = max([*beats, target[1] if target else 0]) + 6
    bottom = min([*beats, target[0] if target else 300]) - 6
    length = max(1, *(second for fold in folds for second, _ in fold.points))
    scale = _Scale(length, bottom, top)
    box = None
    if target:
        edges = scale.y(target[1]), scale.y(target[0])
        box = (0.0, edges[0], scale.x(min(lengths[0], length)), round(edges[1] - edges[0], 2))
    return FoldView(
        name=comer.name,
        block=label,
        curves=tuple(
            Curve(path=scale.path(fold), ink=round(0.2 + 0.8 * nth / max(1, len(folds) - 1), 2))
            for nth, fold in enumerate(folds)
        ),
        box=box,
        work=scale.x(min(lengths[0], length)),
        ticks_x=tuple(
            (scale.x(s), str(s)) for s in range(0, length + 1, 10 if length <= 90 else 60)
        ),
        ticks_y=tuple(
            (scale.y(b), str(b)) for b in range(-(-int(bottom) // 10) * 10, int(top) + 1, 10)
        ),
        work_s=lengths[0],
        rest_s=lengths[1],
        peak=_peak(folds, lengths[0], scale),
        expected=scale.path(expected) if expected else "",
    )


class _Scale:
    def __init__(self, length: int, bottom: float, top: float) -> None:
        self.length, self.bottom, self.top = length, bottom, top

    def x(self, second: float) -> float:
        return round(second / self.length * 100, 2)

    def y(self, bpm: float) -> float:
        return round((self.top - bpm) / (self.top - self.bottom) * 100, 2)

    def path(self, fold: Fold) -> str:
        """A line that breaks where the strap was lost."""
        parts, pen = [], "M"
        for second, bpm in fold.points:
            if bpm is None:
                pen = "M"
                continue
            parts.append(f"{pen}{self.x(second) * 10:.1f} {self.y(bpm) * 10:.1f}")
            pen = "L"
        return "".join(parts)


def _peak(folds: list[Fold], work_s: int, scale: _Scale) -> tuple[float, str] | None:
    """Where the last turn that was worked to its end peaks: it lags, so usually some seconds into the rest."""
    whole = [fold for fold in folds if fold.points and fold.points[-1][0] >= work_s]
    told = [(bpm, second) for second, bpm in whole[-1].points if bpm is not None] if whole else []
    if not told:
        return None
    bpm, second = max(told, key=lambda one: (one[0], -one[1]))
    after = second - work_s
    where = f"{after} s into the rest" if after > 0 else f"{-after} s before the end of work"
    return scale.x(second), f"last whole turn's peak, {bpm}, {where}"
