"""The paragraph after a class, in ten seconds: what was measured and follows; each clause with its figures."""

from collections.abc import Iterator

from lovrit.core.blocks.fade import how_even
from lovrit.core.blocks.score import finish_of
from lovrit.core.clock import clock, read_clock
from lovrit.core.review.after import After, Clause, called_all, forecast_said, repeats, scored
from lovrit.core.review.changes import changes_said
from lovrit.core.review.concluded import CONCLUDE, capped, stopped_together
from lovrit.core.review.kin import worth
from lovrit.core.run.events.kinds import KNOWN
from lovrit.core.run.going import Happening

SAME_S = 30  # so far from the plan is still as planned
HELD_S = 60
# what weighs most is read first; what concludes something has its weight where it concludes
OFF, STILL_ON, ENDED, WENT_WRONG, CAME, BEGAN_LATE = 75, 75, 60, 80, 55, 70
SCORED, CHANGED, UNSURE, DRIFTED, MARKED = 48, 45, 54, 40, 35
MOST = 6  # sentences: what is read in ten seconds
LEAST_CLEAN = 0.8  # a heart of which less holds is not trusted


def paragraph(after: After) -> tuple[Clause, ...]:
    """What there is to say, the weightiest first, six sentences at most; little where all went as planned."""
    if after.going.started_s is None:
        return (Clause("Never begun."),)
    tells = (_end, _who, _changes, _scores, _hearts, _marks, *CONCLUDE)
    told = [clause for tell in tells for clause in tell(after)]
    return tuple(sorted(told, key=lambda one: -one.weight)[:MOST])


# the end


def _end(after: After) -> Iterator[Clause]:
    going, begun = after.going, after.begun
    if going.over_s is None:
        yield Clause(f"Still on, at {after.into(going.now_s)}.", (), STILL_ON)
        return
    took, planned = after.into(going.over_s), begun.total_s
    off = round(going.over_s - (going.started_s or 0)) - planned
    figures = (f"planned {clock(planned)}", f"was {took}", *_held_said(after))
    if going.ended is not None and off < -SAME_S:
        yield Clause(f"Ended by the coach at {took} of {clock(planned)}.", figures, OFF)
    elif any(step.clock_s is None for block in begun.blocks for step in block.floor.steps):
        yield Clause(f"Ended at {took}; about {clock(planned)} was forecast.", figures, ENDED)
    elif abs(off) < SAME_S:
        yield Clause(f"Ended as planned, at {took}.", figures, ENDED)
    else:
        word = "later" if off > 0 else "earlier"
        held = _held_s(after)
        why = f", held for {clock(round(held))}" if held >= HELD_S else ""
        yield Clause(f"Ended at {took}, {clock(abs(off))} {word} than planned{why}.", figures, OFF)


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
    said = stopped_together(after)
    parts += [
        _stop(after, who)
        for who in going.away
        if said is None or who not in said.who or who not in going.stopped
    ]
    weight = BEGAN_LATE if len(parts) > 1 else CAME
    yield Clause(f"{', '.join(parts)}.", tuple(map(after.called, came)), weight)


def _stop(after: After, who: str) -> str:
    """When somebody stopped first, why, and when they came back for good."""
    spans = after.going.away[who]
    why = next((one.why for one in spans if one.why), "")
    back = spans[-1].to_s
    said = f"{after.called(who)} stopped at {after.into(spans[0].from_s)}" + (
        f": {why}" if why else ""
    )
    return said if back is None else f"{said} and came back at {after.into(back)}"


# what was changed


def _changes(after: After) -> Iterator[Clause]:
    labels = [block.label for block in after.laid.timeline.blocks]
    told = changes_said(after.counted, after.begun.session, labels)
    said = [_when(after, event, words) for event, words in told]
    if said:
        yield Clause(f"Changed: {'; '.join(said)}.", tuple(said), CHANGED)


def _when(after: After, event: Happening, words: str) -> str:
    """What was changed at a moment; what counts for the rest of the class needs none."""
    return words if KNOWN[event.kind].lasts else f"{words} at {after.into(event.at_s)}"


# what was scored, beside the forecast


def _scores(after: After) -> Iterator[Clause]:
    """How each block came out, in one sentence."""
    told = [
        (said, figures)
        for at in range(len(after.laid.timeline.blocks))
        for said, figures in _scored(after, at)
    ]
    if told:
        text = "; ".join(said for said, _ in told)
        yield Clause(
            f"{text[:1].upper()}{text[1:]}.", tuple(one for _, some in told for one in some), SCORED
        )


def _scored(after: After, at: int) -> Iterator[tuple[str, tuple[str, ...]]]:
    label, told = after.laid.timeline.blocks[at].label, scored(after, at)
    figures = tuple(f"{who} {value}".strip() for who, value in told)
    if over := capped(after, at):
        yield f"{label}: {over}", figures
    elif told and repeats(after, at):
        yield f"{label}{_kept(after, at).replace(',', ':', 1)}", figures
    elif told:
        values = [value for _, value in told]
        ahead = forecast_said(after, at) if _of_its_forecast(after, at, values) else ""
        beside = f"forecast {ahead}, " if ahead else ""
        word = "was" if len(set(values)) == 1 else "were"
        yield f"{label}: {beside}{word} {_from_to(values)}{_kept(after, at)}", figures
    elif _kept(after, at):
        yield f"{label}{_kept(after, at).replace(',', ':', 1)}", ()


def _of_its_forecast(after: After, at: int, values: list[str]) -> bool:
    """Whether scores are of what a forecast is of: a whole time or rounds, not a repeat, a load or a hold."""
    block = after.begun.session.blocks[at]
    figures = {found.figure for one in values if (found := worth(block, one))}
    return figures <= {"time_s", "reps", "rounds"} and not repeats(after, at)


def _kept(after: After, at: int) -> str:
    """How even repeats were, for the slowest lane; empty where there were none."""
    lanes = repeats(after, at)
    if not lanes:
        return ""
    lane = max(lanes, key=lambda one: max(lanes[one]))
    return f", {how_even(lanes[lane])}"


def _from_to(values: list[str]) -> str:
    row = sorted(set(values), key=_worth)
    (first, *unit), (_, *same) = row[0].split(" ", 1), row[-1].split(" ", 1)
    least = first if unit == same and unit in (["kg"], ["s"]) else row[0]
    return row[0] if len(row) == 1 else f"{least} to {row[-1]}"


def _worth(value: str) -> tuple[float, ...]:
    """A score as a number to sort by: rounds and reps, a time, a load."""
    if ":" in value:
        return (max(float(read_clock(one)) for one in value.split() if ":" in one),)
    if value.startswith("cap"):
        return (float("inf"), float(finish_of(value).left or 0))
    return tuple(
        float(one) for one in value.replace("+", " ").split() if one.replace(".", "", 1).isdecimal()
    )


# what hearts say, what was marked


def _hearts(after: After) -> Iterator[Clause]:
    unsure = [
        f"{after.called(who)} ({why}, {round(lost * 100)} % lost)"
        for who, (lost, why) in after.lost.items()
        if 1 - lost < LEAST_CLEAN
    ]
    if unsure:
        yield Clause(
            f"Not to be trusted: the hearts of {called_all(unsure)}.", tuple(unsure), UNSURE
        )
    rose = sorted(after.drifted.items(), key=lambda one: -one[1])
    if rose:
        named = [f"{after.called(who)} {beats:.1f}" for who, beats in rose]
        yield Clause(
            f"Went up from turn to turn at equal work: {called_all(named)} beats a turn.",
            tuple(named),
            DRIFTED,
        )


def _marks(after: After) -> Iterator[Clause]:
    marks = [
        f"“{one['text']}” at {after.into(one['at_s'])}"
        if one["text"]
        else f"a mark at {after.into(one['at_s'])}"
        for one in after.going.marks
    ]
    if marks:
        yield Clause(f"Marked: {called_all(marks)}.", tuple(marks), MARKED)
    broke = [
        f"at {after.into(one['at_s'])}: "
        + (f"{after.called(str(one['person']))}: " if one.get("person") else "")
        + str(one["text"])
        for one in after.going.broke
    ]
    if broke:
        word = "A problem" if len(broke) == 1 else "Problems"
        told = "; ".join(one.rstrip(": ") for one in broke)
        yield Clause(f"{word} {told}.", tuple(broke), WENT_WRONG)
