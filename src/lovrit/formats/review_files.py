"""A class reviewed on the command line: session, crew, events and traces read from JSON, what they say as JSON."""

from dataclasses import replace
from statistics import median
from typing import Any

import numpy as np

from lovrit.core.blocks.fade import evenness, fade
from lovrit.core.heart.asked import USUAL_EFFORT
from lovrit.core.heart.clean import Cleaned, Known, clean
from lovrit.core.heart.demand import corridor, demand
from lovrit.core.heart.hearts import STANDING, Floats
from lovrit.core.heart.learn import Evening, lines
from lovrit.core.heart.stretches import held_highest, lengths
from lovrit.core.moves.library import Library
from lovrit.core.review.after import After, Clause, Heart, repeats, scored
from lovrit.core.review.figures import Bout, drift, figures
from lovrit.core.review.paragraph import LEAST_CLEAN, paragraph
from lovrit.core.review.turns import LAG_MS, SHORT_S
from lovrit.core.run.classplan import class_plan, lanes_of
from lovrit.core.run.fold import Fold
from lovrit.core.run.lane import LaneLap
from lovrit.core.timeline.plan import plan_text
from lovrit.core.values import LovritError
from lovrit.formats.class_files import crew_of, events_of
from lovrit.formats.heart_files import person_of

MOST_S = 6 * 3600


class NotAReview(LovritError):
    """A class that can't be reviewed; the sentence says why."""


def review_object(given: Any, library: Library) -> dict[str, Any]:
    """What a class says afterwards.

    Raises:
        NotAReview: where it is none, with what is wrong in it.
        LovritError: where its crew, events or people can't be read.
    """
    if not isinstance(given, dict) or not isinstance(given.get("session"), str):
        raise NotAReview("A class is {“session”: slate, “crew”, “events”, “traces”}.")
    laid = plan_text(given["session"], library)
    if laid.problems:
        raise NotAReview(f"Line {laid.problems[0].line} of the session: {laid.problems[0].text}")
    people = crew_of(given.get("crew") or {"people": []}, laid.session)
    plan = class_plan(laid.session, library)
    fold = Fold(plan, people)
    for event in events_of(given.get("events") or []):
        fold.take(event)
    read = given.get("traces") or {}
    if not isinstance(read, dict):
        raise NotAReview("Traces are {person: [[second, beats], …]}.")
    traces = {str(who): _trace(who, rows) for who, rows in read.items()}
    last = max([fold.state.now_s, *(len(one) - 1 for one in traces.values())])
    going = fold.at(last)
    by_clock = fold.at(
        last + plan.total_s * 2
    )  # nobody said when it ended: by its clock, where that ends it
    going = by_clock if by_clock.phase == "over" else going
    told = _people(given.get("crew"))
    names = {who: str(told.get(who, {}).get("name", who)) for who in going.people} if people else {}
    after = After(plan, laid, going, tuple(fold.counted), names)
    cleaned = {who: _cleaned(after, who, told.get(who, {}), raw) for who, raw in traces.items()}
    lost = {who: _lost(who, one) for who, one in cleaned.items()}
    rose = {who: up for who, one in cleaned.items() if (up := _drift(after, who, one)) > 0}
    after = replace(after, lost=lost, drifted=rose)
    people_ = {
        who: _person(after, who, told.get(who, {}), cleaned.get(who)) for who in going.people
    }
    after = replace(
        after,
        hearts={
            who: _heart(told.get(who, {}), people_[who], one)
            for who, one in cleaned.items()
            if who in people_
        },
    )
    noted = (Clause(f"Noted: {going.note}"),) if going.note else ()
    clauses = (*paragraph(after), *noted)
    return {
        "paragraph": " ".join(one.text for one in clauses),
        "clauses": [{"text": one.text, "figures": list(one.figures)} for one in clauses],
        "blocks": [_block(after, at) for at in range(len(plan.blocks))],
        "people": people_,
        "unsure": [
            {"person": who, "what": "heart", "why": why, "lost": round(share, 3)}
            for who, (share, why) in lost.items()
            if 1 - share < LEAST_CLEAN
        ],
    }  # fmt: skip


def _people(crew: Any) -> dict[str, dict[str, Any]]:
    listed = crew.get("people") if isinstance(crew, dict) else crew
    some = listed if isinstance(listed, list) else []
    return {
        str(one.get("id", nth)): one for nth, one in enumerate(some, 1) if isinstance(one, dict)
    }


def _heart(told: dict[str, Any], mine: dict[str, Any], cleaned: Cleaned) -> Heart:
    """What a heart says of somebody's class; no highest where it is not measured, or where the heart is not sure."""
    person, _ = person_of(told)
    over = [turn["over"] for turn in mine["turns"] if turn["over"] is not None]
    sure = 1 - _lost("", cleaned)[0] >= LEAST_CLEAN and not person.effort_only
    held = held_highest(cleaned.clean)
    return Heart(sum(over), len(over), held if sure else None, person.max_hr if sure else None)


def _trace(who: str, rows: Any) -> Floats:
    """Readings as [second, beats] at 1 Hz; 0 is no signal.

    Raises:
        NotAReview: where they are none.
    """
    found: dict[int, float] = {}
    try:
        for at, bpm in rows:
            if not 0 <= float(at) <= MOST_S:
                raise ValueError
            found[round(float(at))] = np.nan if bpm is None or not float(bpm) else float(bpm)
    except (TypeError, ValueError):
        raise NotAReview(f"The trace of “{who}” is a list of [second, beats].") from None
    return np.array([found.get(at, np.nan) for at in range(max(found, default=0) + 1)])


def _cleaned(after: After, who: str, told: dict[str, Any], raw: Floats) -> Cleaned:
    """A trace held against what this person's heart was to be expected to do in what was really run."""
    if who not in after.going.people:
        return clean(raw)
    each = np.full(len(raw), STANDING)
    for lap in laps_of(after, who):
        each[round(lap.from_s) : round(lap.to_s)] = _demand(after, lap)
    asked = tuple((length, float(each[at])) for at, length in lengths(each))
    person, body = person_of(told)
    expected = lines([body], Evening(asked, raw))[0] if asked else None
    known = Known(expected, None, person.rest, person.highest, steers=not person.effort_only)
    return clean(raw, known)


def _demand(after: After, lap: LaneLap) -> float:
    """What a lap asked of a heart, as a share of reserve."""
    step = after.begun.blocks[lap.block].floor.steps[lap.step : lap.step + 1]
    effort = step[0].effort if step and step[0].effort is not None else USUAL_EFFORT.get(lap.phase)
    return STANDING if effort is None else demand(effort, lap.to_s - lap.from_s)


def _drift(after: After, who: str, cleaned: Cleaned) -> float:
    """By how many beats a turn somebody went up at equal work, the most of the blocks; 0 where they did not."""
    found = [0.0]
    works = (
        [one for one in laps_of(after, who) if one.phase == "work"]
        if who in after.going.people
        else []
    )
    for block in {one.block for one in works}:
        mine = [one for one in works if one.block == block]
        steps = after.begun.blocks[block].floor.steps
        efforts = {steps[one.step].effort for one in mine if one.step < len(steps)}
        bouts = [
            figures(cleaned.clean, Bout(round(one.from_s), round(one.to_s), 0)) for one in mine
        ]
        slope = (
            drift([one.peak for one in bouts if one.peak is not None])
            if len(efforts) == 1
            else None
        )
        found.append(slope or 0.0)
    return max(found)


def _lost(who: str, cleaned: Cleaned) -> tuple[float, str]:
    """Which share of a trace does not hold, and mostly why."""
    seconds: dict[str, int] = {}
    for fault in cleaned.faults:
        seconds[fault.kind] = seconds.get(fault.kind, 0) + fault.end_s - fault.start_s + 1
    worst = max(seconds, key=lambda kind: seconds[kind], default=f"nothing read of {who}")
    return float(np.isnan(cleaned.clean).mean()), worst


def _block(after: After, at: int) -> dict[str, Any]:
    laid, planned = after.laid.timeline.blocks[at], after.begun.blocks[at]
    laps = [one for one in after.going.laps if one.block == at]
    lanes = repeats(after, at)
    spreads = [one for one in map(evenness, lanes.values()) if one is not None]
    fades = [one for one in map(fade, lanes.values()) if one is not None]
    forecast = laid.forecast
    return {
        "block": at,
        "label": laid.label,
        "planned_s": planned.planned_s,
        "took_s": round(max(one.to_s for one in laps) - min(one.from_s for one in laps), 1) if laps else 0,
        "scores": [{"who": who, "text": text} for who, text in scored(after, at)],
        "forecast": None
        if forecast is None
        else {"rounds": forecast.rounds and list(forecast.rounds), "time_s": forecast.time_s and list(forecast.time_s)},
        "repeats": {
            lane: {"times_s": times, "slowest_s": max(times), "evenness": evenness(times), "fade": fade(times)}
            for lane, times in lanes.items()
        },
        "evenness": round(median(spreads), 3) if spreads else None,
        "fade": round(median(fades), 3) if fades else None,
    }  # fmt: skip


def _person(
    after: After, who: str, told: dict[str, Any], cleaned: Cleaned | None
) -> dict[str, Any]:
    going = after.going
    felt = going.felt.get(who)
    laps = laps_of(after, who)
    there_s = sum(one.to_s - one.from_s for one in laps)
    turns = [
        _turn(after, laps, nth, told, cleaned)
        for nth, one in enumerate(laps)
        if one.phase == "work"
    ]
    peaks = [float(one["peak"]) for one in turns if one["peak"] is not None]
    return {
        "group": going.people[who].group,
        "joined_s": going.joined.get(who),
        "stopped_s": going.stopped.get(who),
        "felt": felt,
        # Foster and others 2001: effort times minutes
        "load": None if felt is None else round(felt * there_s / 60, 1),
        "scores": [one["text"] for one in going.scores if str(one["person"]) == who],
        "turns": turns,
        "drift": drift(peaks),
    }  # fmt: skip


def laps_of(after: After, who: str) -> list[LaneLap]:
    """The laps of the lanes that somebody was in, in order, until they stopped."""
    stopped = after.going.stopped.get(who)
    joined = after.going.joined.get(who, 0.0)
    runners = list(after.going.people.values())
    mine_in = {
        block.at: {lane.name for lane in lanes_of(block.floor, runners) if who in lane.people}
        for block in after.going.plan.blocks
    }
    mine = [
        one
        for one in after.going.laps
        if one.lane in mine_in[one.block] and one.to_s > joined
        if stopped is None or one.from_s < stopped
    ]
    return sorted(mine, key=lambda one: one.from_s)


def _turn(
    after: After, laps: list[LaneLap], nth: int, told: dict[str, Any], cleaned: Cleaned | None
) -> dict[str, Any]:
    one = laps[nth]
    rest = (
        laps[nth + 1]
        if nth + 1 < len(laps) and laps[nth + 1].phase in ("rest", "break", "change")
        else None
    )
    found: dict[str, Any] = {
        "block": one.block, "round": one.round, "turn": one.turn,
        "from_s": round(one.from_s, 1), "to_s": round(one.to_s, 1),
        "average": None, "highest": None, "peak": None, "peak_after_end_s": None,
        "drop_60": None, "lag_s": None, "clean_s": 0, "share": None, "over": None,
    }  # fmt: skip
    if cleaned is None:
        return found
    bout = Bout(round(one.from_s), round(one.to_s), round(rest.to_s - rest.from_s) if rest else 0)
    found |= figures(cleaned.clean, bout)._asdict()
    target = _target(after, one, told)
    found["share"] = _share(target, one, cleaned.clean)
    found["over"] = (
        None if target is None or found["average"] is None else found["average"] > target[1]
    )
    return found


def _target(after: After, lap: LaneLap, told: dict[str, Any]) -> tuple[float, float] | None:
    """The corridor of somebody in a lap, in beats."""
    step = after.begun.blocks[lap.block].floor.steps[lap.step : lap.step + 1]
    person, _ = person_of(told)
    effort = step[0].effort if step else None
    return corridor(person, effort, after.laid.session.blocks[lap.block].heart_in(lap.round))


def _share(target: tuple[float, float] | None, lap: LaneLap, line: Floats) -> float | None:
    """Share of clean seconds in the corridor; for works under a minute with the window twenty seconds later."""
    shift = LAG_MS // 1000 if lap.to_s - lap.from_s < SHORT_S else 0
    seen = line[round(lap.from_s) + shift : round(lap.to_s) + shift]
    seen = seen[~np.isnan(seen)]
    if target is None or len(seen) < 5:
        return None
    return round(float(((seen >= target[0]) & (seen <= target[1])).mean()), 3)
