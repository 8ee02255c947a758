"""A class on the command line: its crew and events read from JSON, and what it tells printed as JSON."""

import json
from pathlib import Path
from typing import Any

from lovrit.core.moves.library import Library
from lovrit.core.run.board import Board, Row, board_of
from lovrit.core.run.classplan import Runner, class_plan, dealt
from lovrit.core.run.fold import Fold
from lovrit.core.run.going import Going, Happening
from lovrit.core.run.late import ends_at_s, late_s, ways
from lovrit.core.run.saying import big_clock, lane_objects, leading, says
from lovrit.core.session.session import Session
from lovrit.core.values import LovritError

MOST_PEOPLE, MOST_EVENTS = 500, 50_000


class NotAClass(LovritError):
    """A crew or events that can't be read; the sentence says which and why."""


def read_json(path: str, what: str) -> Any:
    """JSON from a file.

    Raises:
        NotAClass: where there is none.
    """
    try:
        return json.loads(Path(path).read_text("utf-8"))
    except (OSError, ValueError, RecursionError) as error:
        raise NotAClass(f"{what} can’t be read: {error}.") from None


def crew_of(given: Any, session: Session) -> list[Runner]:
    """People with their groups, as a crew file says; groups that are not said are filled in order, equal within one.

    Raises:
        NotAClass: where it is no crew.
    """
    people = given.get("people") if isinstance(given, dict) else given
    if not isinstance(people, list) or len(people) > MOST_PEOPLE:
        raise NotAClass(f"A crew is {{“people”: [...]}}, of up to {MOST_PEOPLE}.")
    ids: list[str] = []
    groups: dict[str, str] = {}
    for nth, one in enumerate(people, 1):
        if not isinstance(one, dict):
            raise NotAClass(f"Person {nth} is no object.")
        name = str(one.get("id", nth))
        if name in ids:
            raise NotAClass(f"“{name}” comes twice; an id is one person’s.")
        ids.append(name)
        group = one.get("group")
        if isinstance(group, str) and len(group) == 1 and group.isalpha() and group.isascii():
            groups[name] = group.upper()
        elif group is not None:
            raise NotAClass(f"“{group}” is no group: a group is a letter.")
    wanted = given.get("groups") if isinstance(given, dict) else None
    stations = max((len(block.moves) for block in session.blocks if block.moves_people), default=1)
    count = wanted if isinstance(wanted, int) and 0 < wanted <= 26 else None
    return dealt(ids, groups, stations, count)


def events_of(given: Any) -> list[Happening]:
    """Events as a file says them, in the order of their moments.

    Raises:
        NotAClass: where one is none; a kind that isn't known is one that does nothing.
    """
    if not isinstance(given, list) or len(given) > MOST_EVENTS:
        raise NotAClass(f"Events are a list, of up to {MOST_EVENTS:,}.")
    found = []
    for nth, one in enumerate(given, 1):
        at_s = one.get("at_s") if isinstance(one, dict) else None
        if (
            not isinstance(one, dict)
            or not isinstance(at_s, int | float)
            or isinstance(at_s, bool)
            or at_s < 0
        ):
            raise NotAClass(
                f"Event {nth} needs a kind and at_s, its seconds since the class was opened."
            )
        fields = {key: value for key, value in one.items() if key not in ("id", "kind", "at_s")}
        found.append(
            Happening(str(one.get("id", nth)), str(one.get("kind", "")), float(at_s), fields)
        )
    return sorted(found, key=lambda one: one.at_s)


def class_object(
    session: Session,
    library: Library,
    people: list[Runner],
    events: list[Happening],
    at: list[float],
) -> dict[str, Any]:
    """What a class tells at so many moments, its laps and scores, and what became of its people."""
    plan = class_plan(session, library)
    fold = Fold(plan, people)
    told: list[dict[str, Any]] = []
    waiting = list(events)
    for moment in sorted(at):
        while waiting and waiting[0].at_s <= moment:
            fold.take(waiting.pop(0))
        told.append(moment_object(fold.at(moment), moment))
    for event in waiting:
        fold.take(event)
    last = fold.at(max([fold.state.now_s, *at]))
    order = {moment: nth for nth, moment in enumerate(sorted(at))}
    return {
        "at": [told[order[moment]] for moment in at],
        "laps": [_lap(lap) for lap in last.laps],
        "scores": last.scores,
        "marks": last.marks,
        "people": {
            who: {
                "group": last.people[who].group,
                "stopped_s": last.stopped.get(who),
                "joined_s": last.joined.get(who),
                "felt": last.felt.get(who),
            }
            for who in last.people
        },
    }


def moment_object(state: Going, at_s: float) -> dict[str, Any]:
    """What a class tells at a moment."""
    lane = leading(state)
    on = state.phase in ("on", "held") and lane is not None
    step = lane.steps[lane.at] if on and lane and lane.steps else None
    planned = state.plan.blocks[state.at] if on else None
    told = board_of(state, lane) if on and lane and lane.steps else Board()
    return {
        "at_s": at_s,
        "phase": state.phase,
        "block": state.at if on else None,
        "clock": big_clock(state)._asdict(),
        "round": step.round if step else None,
        "of_rounds": planned.rounds or None if planned else None,
        "turn": step.turn if step else None,
        "of_turns": planned.turns or None if planned else None,
        "says": says(state),
        "beat": step.beat if step else None,
        "rows": [_row(row) for row in told.rows],
        "board": _board(told),
        "lanes": lane_objects(state),
        "ends_at_s": round(ends_at_s(state), 3),
        "late_s": late_s(state),
        "ways": [
            {"way": way.way, "text": way.text, "ends_at_s": way.ends_at_s} for way in ways(state)
        ],
    }


def _board(told: Board) -> dict[str, Any]:
    """What is to be done, by whom, how it ends, which of how many, what then."""
    if not told.rows:
        return {"what": [], "whom": [], "ends": None, "of": "", "then": []}
    return {
        "what": [
            {
                "text": one.text,
                "count": one.reps,
                "name": one.name,
                "side": one.side,
                "part": one.part,
                "load": one.load,
                "parts": list(one.parts),
                "notes": list(one.notes),
            }
            for one in told.what
        ],
        "whom": list(told.whom),
        "ends": told.ends,
        "of": told.of,
        "then": list(told.then),
        "coming": [one.text for row in told.coming for one in row.what],
        "rest": told.rest,
        "note": told.note,
        "rungs": dict(told.rungs),
    }


def _row(row: Row) -> dict[str, Any]:
    return {
        "station": row.station,
        "does": list(row.does),
        "groups": list(row.groups),
        "then": list(row.then),
        "side": row.side,
        "part": row.part,
    }


def _lap(lap: Any) -> dict[str, Any]:
    return {
        "block": lap.block,
        "round": lap.round,
        "turn": lap.turn,
        "lane": lap.lane,
        "phase": lap.phase,
        "from_s": round(lap.from_s, 3),
        "to_s": round(lap.to_s, 3),
        "ended_by": lap.ended_by,
    }
