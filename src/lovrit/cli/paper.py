"""Commands for a session on paper: planned, fitted, recast, written in other forms; and the library it is made from."""

import json
import sys
from argparse import Namespace
from typing import TYPE_CHECKING

from lovrit.cli.given import (
    NONE,
    UNREADABLE,
    Ended,
    plan_of,
    print_json,
    print_text,
    slate_of,
    text_of,
)

if TYPE_CHECKING:
    from lovrit.core.advice.company import Company
    from lovrit.core.recast.recast import Recast


def plan(asked: Namespace) -> int:
    """Lay a session on the clock and say what it comes to."""
    from lovrit.core.advice.look import second_look
    from lovrit.core.moves.library import shipped
    from lovrit.formats.plan_json import plan_object
    from lovrit.formats.plan_text import plan_lines

    planned = plan_of(text_of(asked.file), asked.json)
    notes = second_look(planned, shipped(), _company(asked.crew))
    if asked.json:
        print_json(plan_object(planned, notes))
    else:
        print_text("\n".join(plan_lines(planned, notes)))
    return 0


def _company(said: str | None) -> "Company | None":
    """Who comes, where that is said."""
    if said is None:
        return None
    from lovrit.core.values import LovritError
    from lovrit.formats.crew_said import company_said

    try:
        return company_said(said)
    except LovritError as error:
        raise Ended(UNREADABLE, str(error)) from None


def read(asked: Namespace) -> int:
    """Read a message as people send it: a slate, what has to be asked, and what was kept beside."""
    from lovrit.formats.board import message_object, read_board

    made = read_board(text_of(asked.file))
    if asked.json:
        print_json(message_object(made))
        return NONE if made.asked else 0
    print_text(made.slate.rstrip("\n"))
    for one in made.asked:
        print_text(f"\n? {one.question}")
        for nth, answer in enumerate(one.answers, 1):
            print_text(
                "\n".join(
                    f"  {'|' if at else nth} {line}" for at, line in enumerate(answer.split("\n"))
                )
            )
    return NONE if made.asked else 0


def fit(asked: Namespace) -> int:
    """Solve backwards: the nearest sessions in which a figure is what it must be."""
    from lovrit.core.advice.judged import judge_by, judged_fits
    from lovrit.core.fit.fit import fit as solve
    from lovrit.core.fit.slot import in_slot
    from lovrit.core.moves.library import shipped
    from lovrit.core.values import LovritError
    from lovrit.formats.fit_json import fits_object
    from lovrit.formats.fit_wish import stay_of, wish_of

    text = slate_of(asked)
    try:
        stay = stay_of(asked.come, asked.leave, plan_of(text), asked.explain, asked.clear)
        wish = wish_of(vars(asked), stay)
        text = in_slot(text, stay) if stay else text
        before = plan_of(text)
        found = judged_fits(before, solve(text, before, wish, shipped()), judge_by(shipped()))
    except LovritError as error:
        raise Ended(UNREADABLE, str(error)) from None
    if asked.json:
        print_json(fits_object(found))
    if found.instead and not asked.json:
        print_text(found.instead)
    for nth, one in enumerate([] if asked.json else found.fits, 1):
        print_text(f"{nth}. {'; '.join(one.changes)}\n   {one.feel}")
        for caution in one.cautions:
            print_text(f"   mind: {caution}")
    if found.least and not asked.json:
        print_text(found.least.text)
    return 0 if found.fits else NONE


def recast(asked: Namespace) -> int:
    """Make a block into another structure, with the same moves."""
    from lovrit.core.moves.library import shipped
    from lovrit.core.recast.recast import recast as make
    from lovrit.core.values import LovritError
    from lovrit.formats.fit_json import recast_object

    text = slate_of(asked)
    try:
        made = make(text, plan_of(text), asked.block - 1, asked.to, shipped())
    except LovritError as error:
        raise Ended(UNREADABLE, str(error)) from None
    if asked.json:
        print_json(recast_object(made))
    else:
        print_text(
            "\n".join(
                [
                    made.slate.rstrip("\n"),
                    "",
                    *(f"# {said}" for said in (*made.changes, made.why, *_doubts(text, made))),
                ]
            )
        )
    return 0


def _doubts(text: str, made: "Recast") -> list[str]:
    """What would have to be considered in what was made, and was not before."""
    from lovrit.core.advice.judged import doubts
    from lovrit.core.moves.library import shipped

    new = doubts(plan_of(text), plan_of(made.slate), shipped())
    return [f"to consider then: {note.text}" for note in new]


def moves(asked: Namespace) -> int:
    """List the library of moves; with kit missing, the way round it."""
    from lovrit.core.moves.library import shipped
    from lovrit.formats.moves_file import to_csv, to_json
    from lovrit.formats.moves_text import move_lines, round_object

    known = shipped().moves
    if asked.find is not None:
        return _find(asked.find, asked.json)
    form = "json" if asked.json else asked.format
    if form == "text" or asked.missing is not None:
        missing = frozenset(
            name.strip() for name in (asked.missing or "").split(",") if name.strip()
        )
        strange = sorted(missing - set(shipped().kit()))
        if strange:
            raise Ended(
                UNREADABLE,
                f"No move needs {', '.join(strange)}; there are {', '.join(shipped().kit())}.",
            )
        if form == "json":
            print_json(round_object(known, missing))
        else:
            print_text("\n".join(move_lines(known, missing)))
    else:
        sys.stdout.write(to_csv(known) if form == "csv" else to_json(known))
    return 0


def _find(name: str, as_json: bool) -> int:
    """Look a name up in the library; exit status 3 where it isn't known."""
    from lovrit.core.moves.library import shipped
    from lovrit.formats.found_json import found_object

    found = found_object(name, shipped())
    if as_json:
        print_json(found)
    elif found["move"]:
        kit = ", ".join(found["kit"]) or "no kit"
        print_text(f"{found['move']}: {found['pattern']}, {kit}, {found['seconds']:g} s a rep")
    else:
        says = ", ".join(found["asked"]["says"]) or "nothing of itself"
        near = f"; near: {', '.join(found['nearest'])}" if found["nearest"] else ""
        print_text(f"“{name}” is not known. Its name says: {says}{near}.")
    return 0 if found["move"] else NONE


def export(asked: Namespace) -> int:
    """Write a session in another form."""
    from datetime import UTC, datetime

    from lovrit.core.values import LovritError
    from lovrit.formats.writers import WRITERS, When
    from lovrit.settings import Settings, known_zone

    try:
        if asked.format not in WRITERS:
            raise LovritError(f"There is no form “{asked.format}”; there are {', '.join(WRITERS)}.")
        when = When(datetime.now(UTC), known_zone(asked.time_zone or Settings().time_zone))
        made = WRITERS[asked.format].write(plan_of(text_of(asked.file)), when)
        if isinstance(made, bytes):
            sys.stdout.buffer.write(made)
        else:
            sys.stdout.write(made)
    except LovritError as error:
        raise Ended(UNREADABLE, str(error)) from None
    return 0


def schema(asked: Namespace) -> int:
    """Print the JSON Schema of the JSON form, or of the library of moves."""
    from lovrit.core.moves.library import schema as moves
    from lovrit.formats.session_json import schema as session

    made = {"session": session, "moves": moves}.get(asked.of)
    if made is None:
        raise Ended(UNREADABLE, f"There is no schema of “{asked.of}”; there are session and moves.")
    print_text(json.dumps(made(), ensure_ascii=False, indent=2))
    return 0
