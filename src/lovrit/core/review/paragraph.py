"""The paragraph after a class, in ten seconds: what was measured, no praise; each clause with its figures."""

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import NamedTuple

from lovrit.core.blocks.fade import how_even
from lovrit.core.blocks.score import finish_of
from lovrit.core.clock import clock, number, read_clock
from lovrit.core.review.changes import change_said
from lovrit.core.review.turns import asked_most
from lovrit.core.run.account import done_taps, repeats_taken
from lovrit.core.run.classplan import ClassPlan
from lovrit.core.run.frozen import Frozen
from lovrit.core.run.going import Going, Happening
from lovrit.core.timeline.plan import Plan

SAME_S = 30  # so far from the plan is still as planned
HELD_S = 60
FELT = 1.5  # so far from what was asked is worth a word
MOST_NAMED = 6
LEAST_CLEAN = 0.8  # a heart of which less holds is not trusted


class Clause(NamedTuple):
    """A sentence of the paragraph, and the figures that stand behind it."""

    text: str
    figures: tuple[str, ...] = ()


@dataclass(frozen=True)
class After:
    """A class as it was left: the plan it began with, how it stands, what counted, what people are called.

    ``lost`` is the share of each heart that doesn't hold, with why, for those who wore a strap; ``drifted`` by how many
    beats a turn hearts went up at equal work.
    """

    begun: ClassPlan
    laid: Plan | Frozen
    going: Going
    counted: tuple[Happening, ...]
    names: dict[str, str]
    lost: dict[str, tuple[float, str]] = field(default_factory=dict)
    drifted: dict[str, float] = field(default_factory=dict)

    def into(self, at_s: float) -> str:
        """A moment as time into the class."""
        return clock(max(0, round(at_s - (self.going.started_s or 0))))

    def called(self, who: str) -> str:
        """What somebody is called."""
        return self.names.get(who, who)


def paragraph(after: After) -> tuple[Clause, ...]:
    """What there is to say; little where all went as planned."""
    if after.going.started_s is None:
        return (Clause("Never begun."),)
    told = (
        _end, _who, _changes, _scores, _felt, _hearts, _marks,
    )  # fmt: skip
    return tuple(clause for tell in told for clause in tell(after))


# the end


def _end(after: After) -> Iterator[Clause]:
    going, begun = after.going, after.begun
    if going.over_s is None:
        yield Clause(f"Still on, at {after.into(going.now_s)}.")
        return
    took, planned = after.into(going.over_s), begun.total_s
    off = round(going.over_s - (going.started_s or 0)) - planned
    figures = (f"planned {clock(planned)}", f"was {took}", *_held_said(after))
    if going.ended is not None and off < -SAME_S:
        yield Clause(f"Ended by the coach at {took} of {clock(planned)}.", figures)
    elif any(step.clock_s is None for block in begun.blocks for step in block.floor.steps):
        yield Clause(f"Ended at {took}; about {clock(planned)} was forecast.", figures)
    elif abs(off) < SAME_S:
        yield Clause(f"Ended as planned, at {took}.", figures)
    else:
        word = "later" if off > 0 else "earlier"
        held = _held_s(after)
        why = f", held for {clock(round(held))}" if held >= HELD_S else ""
        yield Clause(f"Ended at {took}, {clock(abs(off))} {word} than planned{why}.", figures)


def _held_s(after: After) -> float:
    """Seconds that the class stood still."""
    going = after.going
    begun, over = going.started_s or 0.0, going.over_s if going.over_s is not None else going.now_s
    return over - begun - going.went_s(begun, over)


def _held_said(after: After) -> tuple[str, ...]:
    held = _held_s(after)
    return (f"held {clock(round(held))}",) if held else ()


# who


def _who(after: After) -> Iterator[Clause]:
    going = after.going
    if not after.names:
        return
    came = [who for who in going.people if who in after.names]
    parts = [f"{len(came)} came"]
    parts += [
        f"{after.called(who)} late at {after.into(at)}"
        for who, at in going.joined.items()
        if at > (going.started_s or 0)
    ]
    parts += [_stop(after, who, at) for who, at in going.ever_stopped.items()]
    yield Clause(f"{', '.join(parts)}.", tuple(map(after.called, came)))


def _stop(after: After, who: str, at_s: float) -> str:
    why = next(
        (
            str(event.fields.get("why", ""))
            for event in after.counted
            if event.kind == "stops" and str(event.fields.get("person")) == who
        ),
        "",
    )
    back = [
        event.at_s
        for event in after.counted
        if event.kind == "returns" and str(event.fields.get("person")) == who
    ]
    said = f"{after.called(who)} stopped at {after.into(at_s)}" + (f": {why}" if why else "")
    return (
        f"{said} and came back at {after.into(back[-1])}"
        if back and who not in after.going.stopped
        else said
    )


# what was changed


def _changes(after: After) -> Iterator[Clause]:
    labels = [block.label for block in after.laid.timeline.blocks]
    told = ((event, change_said(event, after.begun.session, labels)) for event in after.counted)
    said = [_when(after, event, words) for event, words in told if words]
    if said:
        yield Clause(f"Changed: {'; '.join(said)}.", tuple(said))


def _when(after: After, event: Happening, words: str) -> str:
    """What was changed at a moment; what counts for the rest of the class needs none."""
    return words if event.kind in ("drop-round", "plan") else f"{words} at {after.into(event.at_s)}"


# what was scored, beside the forecast


def _scores(after: After) -> Iterator[Clause]:
    for at, laid in enumerate(after.laid.timeline.blocks):
        told = scored(after, at)
        if told:
            head, ahead = f"{laid.label[:1].upper()}{laid.label[1:]}", forecast_said(after, at)
            beside = f"forecast {ahead}, " if ahead else ""
            values = [value for _, value in told]
            word = "was" if len(set(values)) == 1 else "were"
            figures = tuple(f"{who} {value}".strip() for who, value in told)
            yield Clause(f"{head}: {beside}{word} {_from_to(values)}{_kept(after, at)}.", figures)
        elif _kept(after, at):
            yield Clause(
                f"{laid.label[:1].upper()}{laid.label[1:]}{_kept(after, at).replace(',', ':', 1)}."
            )


def scored(after: After, at: int) -> list[tuple[str, str]]:
    """Who scored what in a block: as it was said, else as it was tapped."""
    going = after.going
    said = [
        ("" if one["person"] is None else after.called(str(one["person"])), str(one["text"]))
        for one in going.scores
        if one["block"] == at
    ]
    tapped = [
        (after.called(lane), f"{many} round{'s' if many != 1 else ''}")
        for (block, lane), many in going.rounds.items()
        if block == at
    ]
    return said or tapped or done_at(after, at)


def done_at(after: After, at: int) -> list[tuple[str, str]]:
    """When lanes tapped that they were done, as time into their block."""
    return [
        (after.called(lane), clock(round(took)))
        for block, lane, took in done_taps(after.going)
        if block == at
    ]


def repeats(after: After, at: int) -> dict[str, list[float]]:
    """How long each repeat took, by lane, in seconds."""
    taken = repeats_taken(after.going)
    return {lane: took for (block, lane), took in taken.items() if block == at}


def _kept(after: After, at: int) -> str:
    """How even repeats were, for the slowest lane; empty where there were none."""
    lanes = repeats(after, at)
    if not lanes:
        return ""
    lane = max(lanes, key=lambda one: max(lanes[one]))
    return f", {how_even(lanes[lane])}"


def forecast_said(after: After, at: int) -> str:
    """What was forecast of a block; empty where nobody could."""
    forecast = after.laid.timeline.blocks[at].forecast
    if forecast and forecast.rounds:
        low, _, high = forecast.rounds
        return f"{int(low)} to {int(high)} rounds"
    if forecast and forecast.time_s:
        low_s, _, high_s = forecast.time_s
        return f"{clock(low_s)} to {clock(high_s)}"
    return ""


def _from_to(values: list[str]) -> str:
    row = sorted(set(values), key=_worth)
    return row[0] if len(row) == 1 else f"{row[0]} to {row[-1]}"


def _worth(value: str) -> tuple[float, ...]:
    """A score as a number to sort by: rounds and reps, a time, a load."""
    if ":" in value:
        return (max(float(read_clock(one)) for one in value.split() if ":" in one),)
    if value.startswith("cap"):
        return (float("inf"), float(finish_of(value).left or 0))
    return tuple(
        float(one) for one in value.replace("+", " ").split() if one.replace(".", "", 1).isdecimal()
    )


# what was felt, what hearts say, what was marked


def asked(after: After) -> float | None:
    """The highest effort that the class asked for."""
    return asked_most(after.laid.timeline)


def _felt(after: After) -> Iterator[Clause]:
    top = asked(after)
    for word, sign in (("harder", 1), ("easier", -1)):
        off = [
            f"{after.called(who)} {number(value)} at {number(top)}"
            for who, value in after.going.felt.items()
            if top is not None and sign * (value - top) >= FELT
        ]
        if off:
            yield Clause(f"Felt {word} than asked: {_some(off)}.", tuple(off))


def _hearts(after: After) -> Iterator[Clause]:
    unsure = [
        f"{after.called(who)} ({why}, {round(lost * 100)} % lost)"
        for who, (lost, why) in after.lost.items()
        if 1 - lost < LEAST_CLEAN
    ]
    if unsure:
        yield Clause(f"Not to be trusted: the hearts of {_some(unsure)}.", tuple(unsure))
    rose = sorted(after.drifted.items(), key=lambda one: -one[1])
    if rose:
        named = [f"{after.called(who)} {beats:.1f}" for who, beats in rose]
        yield Clause(
            f"Went up from turn to turn at equal work: {_some(named)} beats a turn.", tuple(named)
        )


def _marks(after: After) -> Iterator[Clause]:
    marks = [
        f"“{one['text']}” at {after.into(one['at_s'])}"
        if one["text"]
        else f"a mark at {after.into(one['at_s'])}"
        for one in after.going.marks
    ]
    if marks:
        yield Clause(f"Marked: {_some(marks)}.", tuple(marks))
    for one in after.going.broke:
        whose = f"{after.called(str(one['person']))}: " if one.get("person") else ""
        yield Clause(
            f"A problem at {after.into(one['at_s'])}: {whose}{one['text']}".rstrip(": ") + "."
        )


def _some(listed: list[str]) -> str:
    more = len(listed) - MOST_NAMED
    return ", ".join(listed[:MOST_NAMED]) + (f" and {more} more" if more > 0 else "")
