"""Commands for a class and its people: run, placed, foreseen, compared, its cues."""

import time
from argparse import Namespace

from lovrit.cli.given import (
    NONE,
    UNREADABLE,
    Ended,
    bytes_of,
    plan_of,
    print_json,
    print_text,
    text_of,
)


def run_class(asked: Namespace) -> int:
    """Run a class of a session from its crew and events, and say what it tells at some moments."""
    from lovrit.core.moves.library import shipped
    from lovrit.core.values import LovritError
    from lovrit.formats.class_files import class_object, crew_of, events_of, read_json

    plan = plan_of(text_of(asked.file), asked.json)
    try:
        at = [float(one) for one in asked.at.split(",") if one.strip()]
    except ValueError:
        raise Ended(UNREADABLE, f"“{asked.at}” is no list of seconds, such as 28,95.5.") from None
    try:
        people = crew_of(read_json(asked.crew, "The crew"), plan.session) if asked.crew else []
        events = events_of(read_json(asked.events, "The events") if asked.events else [])
        told = class_object(plan.session, shipped(), people, events, at)
    except LovritError as error:
        raise Ended(UNREADABLE, str(error)) from None
    if asked.json:
        print_json(told)
        return 0
    for one in told["at"]:
        print_text(
            f"{one['at_s']:g}: {one['phase']}, {one['clock']['kind']} {one['clock']['s']:g}, {one['says']}"
        )
    return 0


def place(asked: Namespace) -> int:
    """Place a session's stations and people in a hall: who stands where, with what, in which order."""
    from lovrit.core.moves.library import shipped
    from lovrit.core.values import LovritError
    from lovrit.formats.class_files import read_json
    from lovrit.formats.place_files import placed_object, problem_of

    plan = plan_of(text_of(asked.file), asked.json)
    begun = time.perf_counter()
    try:
        crew, hall = read_json(asked.crew, "The crew"), read_json(asked.hall, "The hall")
        problem = problem_of(plan.session, shipped(), crew, hall, asked.block)
        told = placed_object(problem, asked.seconds)
    except LovritError as error:
        raise Ended(UNREADABLE, str(error)) from None
    told["seconds"] = round(time.perf_counter() - begun, 2)
    if asked.json:
        print_json(told)
    elif told["feasible"]:
        print_text(
            "\n".join(
                f"{one['letter']} begins at {one['start']}: {', '.join(one['people'])}"
                for one in told["groups"]
            )
        )
    else:
        print_text(
            "\n".join(
                [one["text"] for one in told["collide"]]
                + [f"  {way['text']}" for way in told["ways"]]
            )
        )
    return 0 if told["feasible"] else NONE


def forecast(asked: Namespace) -> int:
    """Forecast a person's heart through a session: a line, a band where eight of ten will be, each turn."""
    from lovrit.core.values import LovritError
    from lovrit.formats.class_files import read_json
    from lovrit.formats.heart_files import ahead_object

    plan = plan_of(text_of(asked.file), asked.json)
    try:
        group = read_json(asked.group, "The group") if asked.group else None
        told = ahead_object(plan, read_json(asked.person, "The person"), group)
    except LovritError as error:
        raise Ended(UNREADABLE, str(error)) from None
    if asked.json:
        print_json(told)
        return 0
    for nth, turn in enumerate(told["turns"], 1):
        reached = {True: "reached", False: "not reached", None: "no target"}[turn["reached"]]
        print_text(
            f"turn {nth}: {turn['peak']:g}, {turn['peak_after_end_s']} s after its end, {reached}"
        )
    return 0


def compare(asked: Namespace) -> int:
    """Compare an evening's figures with those before it: who changed, who did not, and what the evening did."""
    from lovrit.core.values import LovritError
    from lovrit.formats.class_files import read_json
    from lovrit.formats.compare_files import compared_object

    try:
        told = compared_object(read_json(asked.file, "The evenings"))
    except LovritError as error:
        raise Ended(UNREADABLE, str(error)) from None
    if asked.json:
        print_json(told)
        return 0
    print_text(told["evening"]["text"])
    for who, one in told["people"].items():
        print_text(f"{who}: {one['verdict']}. {one['text']} {one['trend']}".rstrip())
    return 0


def clean(asked: Namespace) -> int:
    """Clean a trace of a heart: what is no heart's is named and left out; the file stays as it is."""
    from lovrit.core.values import LovritError
    from lovrit.formats.trace_files import cleaned_object, read_trace

    plan = plan_of(text_of(asked.session), asked.json) if asked.session else None
    try:
        told = cleaned_object(read_trace(bytes_of(asked.file)), plan)
    except LovritError as error:
        raise Ended(UNREADABLE, str(error)) from None
    if asked.json:
        print_json(told)
        return 0
    for one in told["faults"]:
        print_text(f"{one['start_s']} to {one['end_s']}: {one['kind']}, {one['why']}")
    print_text(f"{told['clean_s']} of {len(told['clean'])} seconds hold")
    return 0


def weeks(asked: Namespace) -> int:
    """Lay weeks out: what each day asks and still carries, what clashes, the order that clashes least."""
    from lovrit.core.moves.library import shipped
    from lovrit.core.values import LovritError
    from lovrit.formats.class_files import read_json
    from lovrit.formats.weeks_files import weeks_object

    try:
        told = weeks_object(read_json(asked.file, "The weeks"), shipped())
    except LovritError as error:
        raise Ended(UNREADABLE, str(error)) from None
    if asked.json:
        print_json(told)
        return 0
    for day in told["days"]:
        print_text(f"{day['date']}: load {day['load']:g}, {day['hard_min']:g} hard minutes")
    for one in told["clashes"]:
        print_text(f"{one['text']} {one['ways'][0].capitalize()}.")
    return 0


def review(asked: Namespace) -> int:
    """Review a class that was: a paragraph, its blocks beside their forecast, everybody's turns, what is unsure."""
    from lovrit.core.moves.library import shipped
    from lovrit.core.values import LovritError
    from lovrit.formats.class_files import read_json
    from lovrit.formats.review_files import review_object

    try:
        told = review_object(read_json(asked.file, "The class"), shipped())
    except LovritError as error:
        raise Ended(UNREADABLE, str(error)) from None
    if asked.json:
        print_json(told)
        return 0
    print_text(told["paragraph"])
    return 0


def series(asked: Namespace) -> int:
    """Lay a session out over weeks, a little further each: a slate a week, and what has changed in it."""
    from lovrit.core.advice.judged import judge_by
    from lovrit.core.moves.library import shipped
    from lovrit.core.values import LovritError
    from lovrit.core.weeks.series import THINGS, Thing
    from lovrit.core.weeks.series import series as series_of

    grow: list[Thing] = []
    for said in filter(None, (one.strip() for one in asked.grow.split(","))):
        known = next((thing for thing in THINGS if thing == said), None)
        if known is None:
            raise Ended(
                UNREADABLE, f"“{said}” is nothing that grows; there are {', '.join(THINGS)}."
            )
        grow.append(known)
    try:
        text = text_of(asked.file)
        judge = judge_by(shipped())
        found = series_of(text, asked.weeks, tuple(grow), asked.easier, shipped(), judge=judge)
    except LovritError as error:
        raise Ended(UNREADABLE, str(error)) from None
    if asked.json:
        print_json([week._asdict() for week in found])
        return 0
    for week in found:
        print_text(f"week {week.week}: {'; '.join(week.changes)} ({week.hard_min:g} hard minutes)")
    return 0


def cues(asked: Namespace) -> int:
    """List the cues of a session: when, of which kind, what is said."""
    from lovrit.core.moves.library import shipped
    from lovrit.core.run.classplan import class_plan
    from lovrit.core.run.cues import cues as cues_of

    found = cues_of(class_plan(plan_of(text_of(asked.file)).session, shipped()))
    if asked.json:
        print_json([cue._asdict() for cue in found])
        return 0
    for cue in found:
        print_text(f"{cue.at_s:9.2f}  {cue.kind:6} {cue.say or ''}".rstrip())
    return 0
