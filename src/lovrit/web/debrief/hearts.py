"""Hearts in the Debrief: one person's works in figures, what of the trace does not hold and why, what was learnt."""

from typing import NamedTuple

from lovrit.core.clock import clock
from lovrit.core.crew.person import Comer, Person
from lovrit.core.review.hearts import HeartAfter, WorkOfHeart
from lovrit.core.run.frozen import Frozen
from lovrit.core.values import Value
from lovrit.house.live import Live

FEW_S = 30  # clean seconds from which on a highest is offered at all
MOST_FAULTS = 12


class FigureRow(Value):
    """A work as a row: which, and its figures as they are said; "–" where too little was clean."""

    turn: int
    label: str
    average: str
    highest: str
    peak: str
    drop: str
    lag: str
    clean: str


class FaultSaid(Value):
    """What does not hold: from when to when into the class, what it is, and why."""

    when: str
    kind: str
    why: str


class OneHeart(Value):
    """One person's heart in a class, in figures and words."""

    name: str
    rows: tuple[FigureRow, ...]
    faults: tuple[FaultSaid, ...]
    more_faults: int
    holds: str
    drifts: tuple[str, ...]
    near: str


class LearntRow(NamedTuple):
    """Somebody of whose heart something is known, or a highest that was seen above what is held."""

    person: Person
    said: str
    frozen: bool
    seen: int | None

    @property
    def asks(self) -> bool:
        """Whether there is something to decide."""
        return self.seen is not None or bool(self.person.heart_asks)


def one_heart(plan: Frozen, comer: Comer, heart: HeartAfter | None) -> OneHeart | None:
    """What there is to say of one heart; None where no strap told anything."""
    if heart is None:
        return None
    lost, worst = heart.lost
    holds = f"{clock(heart.clean_s)} of {clock(len(heart.raw))} hold"
    holds += f", lost mostly to {worst}" if lost > 0.02 and worst else ""
    rows = tuple(_row(plan, nth, one) for nth, one in enumerate(heart.works, 1))
    faults = tuple(
        FaultSaid(when=f"{clock(one.start_s)}–{clock(one.end_s + 1)}", kind=one.kind, why=one.why)
        for one in heart.cleaned.faults[:MOST_FAULTS]
    )
    near = heart.near(comer.threshold_hr) if comer.threshold_hr else 0
    return OneHeart(
        name=comer.name,
        rows=rows,
        faults=faults,
        more_faults=max(0, len(heart.cleaned.faults) - MOST_FAULTS),
        holds=holds,
        drifts=tuple(_drifts(plan, heart)),
        near=f"longest stay near the threshold of {comer.threshold_hr}: {clock(near)}"
        if near
        else "",
    )


def _row(plan: Frozen, nth: int, one: WorkOfHeart) -> FigureRow:
    told = one.figures
    peak = "–" if told.peak is None else f"{told.peak:.0f} {told.peak_after_end_s or 0:+d} s"
    return FigureRow(
        turn=nth,
        label=plan.timeline.blocks[one.block].label,
        average=_beats(told.average),
        highest=_beats(told.highest),
        peak=peak,
        drop=_beats(told.drop_60),
        lag="–" if told.lag_s is None else f"{told.lag_s} s",
        clean=f"{told.clean_s} s",
    )


def _beats(value: float | None) -> str:
    return "–" if value is None else f"{value:.0f}"


def _drifts(plan: Frozen, heart: HeartAfter) -> list[str]:
    found = []
    for block in sorted({one.block for one in heart.works}):
        drift = heart.drift_in(block)
        if drift is not None:
            word = "up" if drift > 0 else "down"
            label = plan.timeline.blocks[block].label
            found.append(f"{word} {abs(drift):.1f} beats from turn to turn in {label}")
    return found


class Changed(NamedTuple):
    """Two who wore each other's straps: as it seems, or as it was said (``done``)."""

    person: int
    other: int
    names: tuple[str, str]
    done: bool


def changed_said(live: Live, seems: list[tuple[int, int]]) -> list[Changed]:
    """Straps that were changed, as was said, and those that seem so."""
    names, said = {one.id: one.name for one in live.comers}, live.state.changed
    found = [
        Changed(one, other, (names[one], names[other]), True)
        for one, other in said.items()
        if one < other and said.get(other) == one and {one, other} <= names.keys()
    ]
    return found + [Changed(one, other, (names[one], names[other]), False) for one, other in seems]


def unasked(
    everyone: list[Person], comers: tuple[Comer, ...], hearts: dict[int, HeartAfter]
) -> list[Person]:
    """Those whose heart was read and who were not asked whether it may be kept."""
    here = {one.id for one in comers} & hearts.keys()
    return [one for one in everyone if one.id in here and not one.hearts]


def learnt_rows(
    everyone: list[Person], comers: tuple[Comer, ...], hearts: dict[int, HeartAfter]
) -> list[LearntRow]:
    """What will be used from now on of those who came, and highests that were seen above what is held of them."""
    here = {one.id for one in comers}
    rows = []
    for person in everyone:
        if person.id not in here or person.effort_only:
            continue
        heart = hearts.get(person.id)
        seen = heart.seen_highest if heart and heart.clean_s > FEW_S else None
        above = seen if seen is not None and seen > person.highest else None
        if person.heart or above or person.heart_asks:
            said = person.heart.said if person.heart else ""
            rows.append(LearntRow(person, said, bool(person.heart and person.heart.frozen), above))
    return rows
