"""``lovrit …``: what can be done with a session without the pages.

Each command imports what it needs when it runs, so that ``plan`` never loads the web. The standard library reads the
arguments: it is there already, where the libraries made for it take a tenth of a plan’s time to load.
"""

import gc
import json
import os
import sys
import time
from argparse import ArgumentParser, Namespace
from pathlib import Path
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from lovrit.core.advice.company import Company
    from lovrit.core.timeline.plan import Plan

os.environ.setdefault(
    "PYDANTIC_DISABLE_PLUGINS", "1"
)  # looking for plugins costs a tenth of a start

UNREADABLE, NONE, BROKEN_PIPE = 2, 3, 141


class Ended(Exception):
    """A command that ends early: its exit status, what it prints on standard error."""

    def __init__(self, status: int, *said: str) -> None:
        super().__init__(*said)
        self.status = status


def _print(text: str) -> None:
    sys.stdout.write(text + "\n")


def _print_json(value: object) -> None:
    _print(json.dumps(value, ensure_ascii=False))


def _text(file: str) -> str:
    """The text of a file or of standard input; ends with a sentence where there is none to be had."""
    try:
        raw = sys.stdin.buffer.read() if file == "-" else Path(file).read_bytes()
        return raw.decode("utf-8-sig")
    except OSError as error:
        raise Ended(UNREADABLE, f"{file}: {error.strerror or 'cannot be read'}") from None
    except UnicodeDecodeError as error:
        said = f"{file}: not UTF-8 text (byte {error.start + 1}); save it as UTF-8 and try again"
        raise Ended(UNREADABLE, said) from None


def _planned(text: str, as_json: bool = False) -> "Plan":
    from lovrit.core.moves.library import shipped
    from lovrit.formats.reading import plan_any

    plan = plan_any(text, shipped())
    if plan.problems:
        raise Ended(UNREADABLE, *_problems(plan, as_json))
    return plan


def _slate(asked: Namespace) -> str:
    """The slate of a file; of a session that comes as JSON, as it is written."""
    from lovrit.core.session.writer import write

    text = _text(asked.file)
    planned = _planned(text, asked.json)
    return write(planned.session) if text.lstrip().startswith("{") else text


def _problems(plan: "Plan", as_json: bool) -> list[str]:
    from lovrit.formats.plan_json import errors_object

    if as_json:
        return [json.dumps(errors_object(plan.problems), ensure_ascii=False)]
    said = []
    for one in plan.problems:
        nearest = f"\n    this would be read: {one.nearest.strip()}" if one.nearest else ""
        said.append(f"line {one.line}, column {one.column}: {one.text}{nearest}")
    return said


def plan(asked: Namespace) -> int:
    """Lay a session on the clock and say what it comes to."""
    from lovrit.core.advice.look import second_look
    from lovrit.core.moves.library import shipped
    from lovrit.formats.plan_json import plan_object
    from lovrit.formats.plan_text import plan_lines

    planned = _planned(_text(asked.file), asked.json)
    notes = second_look(planned, shipped(), _company(asked.crew))
    if asked.json:
        _print_json(plan_object(planned, notes))
    else:
        _print("\n".join(plan_lines(planned, notes)))
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


def fit(asked: Namespace) -> int:
    """Solve backwards: the nearest sessions in which a figure is what it must be."""
    from lovrit.core.fit.fit import fit as solve
    from lovrit.core.fit.slot import in_slot
    from lovrit.core.moves.library import shipped
    from lovrit.core.values import LovritError
    from lovrit.formats.fit_json import fits_object
    from lovrit.formats.fit_wish import stay_of, wish_of

    text = _slate(asked)
    try:
        stay = stay_of(asked.come, asked.leave, _planned(text), asked.explain, asked.clear)
        wish = wish_of(vars(asked), stay)
        text = in_slot(text, stay) if stay else text
        found = solve(text, _planned(text), wish, shipped())
    except LovritError as error:
        raise Ended(UNREADABLE, str(error)) from None
    if asked.json:
        _print_json(fits_object(found))
    if found.instead and not asked.json:
        _print(found.instead)
    for nth, one in enumerate([] if asked.json else found.fits, 1):
        _print(f"{nth}. {'; '.join(one.changes)}\n   {one.feel}")
        for caution in one.cautions:
            _print(f"   mind: {caution}")
    if found.least and not asked.json:
        _print(found.least.text)
    return 0 if found.fits else NONE


def recast(asked: Namespace) -> int:
    """Make a block into another structure, with the same moves."""
    from lovrit.core.moves.library import shipped
    from lovrit.core.recast.recast import recast as make
    from lovrit.core.values import LovritError
    from lovrit.formats.fit_json import recast_object

    text = _slate(asked)
    try:
        made = make(text, _planned(text), asked.block - 1, asked.to, shipped())
    except LovritError as error:
        raise Ended(UNREADABLE, str(error)) from None
    if asked.json:
        _print_json(recast_object(made))
    else:
        _print(
            "\n".join(
                [made.slate.rstrip("\n"), "", *(f"# {said}" for said in (*made.changes, made.why))]
            )
        )
    return 0


def moves(asked: Namespace) -> int:
    """List the library of moves; with kit missing, the way round it."""
    from lovrit.core.moves.library import shipped
    from lovrit.formats.moves_file import to_csv, to_json
    from lovrit.formats.moves_text import move_lines

    known = shipped().moves
    if asked.find is not None:
        return _find(asked.find, asked.json)
    if asked.format == "text":
        missing = frozenset(
            name.strip() for name in (asked.missing or "").split(",") if name.strip()
        )
        strange = sorted(missing - set(shipped().kit()))
        if strange:
            raise Ended(
                UNREADABLE,
                f"No move needs {', '.join(strange)}; there are {', '.join(shipped().kit())}.",
            )
        _print("\n".join(move_lines(known, missing)))
    else:
        sys.stdout.write(to_csv(known) if asked.format == "csv" else to_json(known))
    return 0


def _find(name: str, as_json: bool) -> int:
    """Look a name up in the library; exit status 3 where it isn't known."""
    from lovrit.core.moves.library import shipped
    from lovrit.formats.found_json import found_object

    found = found_object(name, shipped())
    if as_json:
        _print_json(found)
    elif found["move"]:
        kit = ", ".join(found["kit"]) or "no kit"
        _print(f"{found['move']}: {found['pattern']}, {kit}, {found['seconds']:g} s a rep")
    else:
        says = ", ".join(found["asked"]["says"]) or "nothing of itself"
        near = f"; near: {', '.join(found['nearest'])}" if found["nearest"] else ""
        _print(f"“{name}” is not known. Its name says: {says}{near}.")
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
        made = WRITERS[asked.format].write(_planned(_text(asked.file)), when)
        if isinstance(made, bytes):
            sys.stdout.buffer.write(made)
        else:
            sys.stdout.write(made)
    except LovritError as error:
        raise Ended(UNREADABLE, str(error)) from None
    return 0


def run_class(asked: Namespace) -> int:
    """Run a class of a session from its crew and events, and say what it tells at some moments."""
    from lovrit.core.moves.library import shipped
    from lovrit.core.values import LovritError
    from lovrit.formats.class_files import class_object, crew_of, events_of, read_json

    plan = _planned(_text(asked.file), asked.json)
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
        _print_json(told)
        return 0
    for one in told["at"]:
        _print(
            f"{one['at_s']:g}: {one['phase']}, {one['clock']['kind']} {one['clock']['s']:g}, {one['says']}"
        )
    return 0


def place(asked: Namespace) -> int:
    """Place a session's stations and people in a hall: who stands where, with what, in which order."""
    from lovrit.core.moves.library import shipped
    from lovrit.core.values import LovritError
    from lovrit.formats.class_files import read_json
    from lovrit.formats.place_files import placed_object, problem_of

    plan = _planned(_text(asked.file), asked.json)
    begun = time.perf_counter()
    try:
        crew, hall = read_json(asked.crew, "The crew"), read_json(asked.hall, "The hall")
        problem = problem_of(plan.session, shipped(), crew, hall, asked.block)
        told = placed_object(problem, asked.seconds)
    except LovritError as error:
        raise Ended(UNREADABLE, str(error)) from None
    told["seconds"] = round(time.perf_counter() - begun, 2)
    if asked.json:
        _print_json(told)
    elif told["feasible"]:
        _print(
            "\n".join(
                f"{one['letter']} begins at {one['start']}: {', '.join(one['people'])}"
                for one in told["groups"]
            )
        )
    else:
        _print(
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

    plan = _planned(_text(asked.file), asked.json)
    try:
        told = ahead_object(plan, read_json(asked.person, "The person"))
    except LovritError as error:
        raise Ended(UNREADABLE, str(error)) from None
    if asked.json:
        _print_json(told)
        return 0
    for nth, turn in enumerate(told["turns"], 1):
        reached = {True: "reached", False: "not reached", None: "no target"}[turn["reached"]]
        _print(
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
        _print_json(told)
        return 0
    _print(told["evening"]["text"])
    for who, one in told["people"].items():
        _print(f"{who}: {one['verdict']}. {one['text']} {one['trend']}".rstrip())
    return 0


def cues(asked: Namespace) -> int:
    """List the cues of a session: when, of which kind, what is said."""
    from lovrit.core.moves.library import shipped
    from lovrit.core.run.classplan import class_plan
    from lovrit.core.run.cues import cues as cues_of

    found = cues_of(class_plan(_planned(_text(asked.file)).session, shipped()))
    if asked.json:
        _print_json([cue._asdict() for cue in found])
        return 0
    for cue in found:
        _print(f"{cue.at_s:9.2f}  {cue.kind:6} {cue.say or ''}".rstrip())
    return 0


def schema(asked: Namespace) -> int:
    """Print the JSON Schema of the JSON form, or of the library of moves."""
    from lovrit.core.moves.library import schema as moves
    from lovrit.formats.session_json import schema as session

    made = {"session": session, "moves": moves}.get(asked.of)
    if made is None:
        raise Ended(UNREADABLE, f"There is no schema of “{asked.of}”; there are session and moves.")
    _print(json.dumps(made(), ensure_ascii=False, indent=2))
    return 0


def serve(asked: Namespace) -> int:
    """Serve the pages."""
    from lovrit.web.serve import serve as run

    return run(asked.host, asked.port, demo=False, fresh=False)


def check(_asked: Namespace) -> int:
    """Look through the club's file and say what is wrong with it."""
    from lovrit.web.serve import check as look_through

    return look_through()


def demo(asked: Namespace) -> int:
    """Serve the pages with the demo club."""
    from lovrit.web.serve import serve as run

    return run(None, asked.port, demo=True, fresh=asked.fresh)


FILE = ("file", {"help": "a slate or its JSON form; - reads standard input"})
AS_JSON = ("--json", {"action": "store_true", "help": "one JSON object"})
PORT = ("--port", {"type": int, "help": "the port to listen on"})
COMMANDS = (
    (
        plan,
        FILE,
        AS_JSON,
        (
            "--crew",
            {
                "help": "who comes: “18 people, 2 new, 1 older, 3 no jumps”, or a JSON file of people"
            },
        ),
    ),
    (
        export,
        FILE,
        ("--format", {"default": "json", "help": "the form: see lovrit export --format help"}),
        ("--time-zone", {"help": "where the times of day are, for ics"}),
    ),
    (
        fit,
        FILE,
        AS_JSON,
        ("--total", {"help": "what the session must last, such as 40:00"}),
        ("--work", {"help": "what its work must come to"}),
        ("--rest", {"help": "what its rest must come to"}),
        ("--hard", {"help": "what its work at effort 8 and more must come to"}),
        ("--ratio", {"help": "what work to rest must read as, such as 2:1"}),
        ("--effort", {"help": "what its highest effort must be, from 1 to 10"}),
        ("--in", {"dest": "come", "help": "in at this time of day, such as 18:10"}),
        ("--out", {"dest": "leave", "help": "and out at this one"}),
        ("--explain", {"default": "0:00", "help": "time for explaining within in and out"}),
        ("--clear", {"default": "0:00", "help": "time for clearing within in and out"}),
        (
            "--give",
            {
                "help": "of rounds,work,rest,breaks,stations,warm-up,cool-down,reps,effort what may give; else all",
            },
        ),
        ("--keep", {"help": "what may not"}),
    ),
    (
        recast,
        FILE,
        AS_JSON,
        ("--block", {"type": int, "default": 1, "help": "which block, from 1"}),
        (
            "--to",
            {
                "required": True,
                "help": "every, intervals, rounds, partners, for-time, amrap, stay, together, "
                "gentler, harder, shorter or home",
            },
        ),
    ),
    (
        run_class,
        FILE,
        ("--crew", {"help": "a JSON file of who is there: {“people”: [{“id”, “group”}]}"}),
        ("--events", {"help": "a JSON file of what happened: [{“id”, “kind”, “at_s”}]"}),
        ("--at", {"default": "0", "help": "seconds since the class was opened, such as 28,95.5"}),
        AS_JSON,
    ),
    (cues, FILE, AS_JSON),
    (
        forecast,
        FILE,
        (
            "--person",
            {"required": True, "help": "a JSON file of a person: {“rest_hr”, “max_hr”, “age”}"},
        ),
        AS_JSON,
    ),
    (
        compare,
        ("file", {"help": "a JSON file of evenings: {“figure”, “better”, “evenings”}"}),
        AS_JSON,
    ),
    (
        place,
        FILE,
        (
            "--crew",
            {
                "required": True,
                "help": "a JSON file of people, with what they can't do and their loads",
            },
        ),
        (
            "--hall",
            {"required": True, "help": "a JSON file of the hall: spots, kit, how one walks"},
        ),
        (
            "--block",
            {
                "type": int,
                "help": "which block, from 1; the first whose people move where none is named",
            },
        ),
        ("--seconds", {"type": float, "default": 4.0, "help": "how long it may look for the best"}),
        AS_JSON,
    ),
    (
        moves,
        ("--missing", {"help": "kit that isn't there today, such as bell,rings"}),
        ("--find", {"help": "a name to look up, as people write it"}),
        AS_JSON,
        (
            "--format",
            {"default": "text", "choices": ["text", "csv", "json"], "help": "text, csv or json"},
        ),
    ),
    (
        schema,
        ("of", {"nargs": "?", "default": "session", "help": "session, or moves for the library"}),
    ),
    (serve, ("--host", {"help": "where to listen; loopback needs no passphrase"}), PORT),
    (check,),
    (
        demo,
        ("--fresh", {"action": "store_true", "help": "begin again with the demo data as shipped"}),
        PORT,
    ),
)


NAMES = {"run_class": "class"}  # a word that Python keeps for itself


def _parser() -> ArgumentParser:
    parser = ArgumentParser(
        "lovrit", description="Interval circuits designed, fitted, run and learned from."
    )
    commands = parser.add_subparsers(required=True, metavar="command")
    for does, *arguments in COMMANDS:
        said = (does.__doc__ or "").rstrip(".")
        command = commands.add_parser(
            NAMES.get(does.__name__, does.__name__), help=said.lower(), description=said + "."
        )
        for argument, options in arguments:
            command.add_argument(argument, **options)  # type: ignore[arg-type]
        command.set_defaults(does=does)
    return parser


def run(arguments: list[str] | None = None) -> int:
    """Do what the arguments say (the process's own where there are none); the exit status."""
    asked = _parser().parse_args(arguments)
    try:
        return int(asked.does(asked))
    except Ended as ended:
        sys.stderr.write("".join(f"{said}\n" for said in ended.args))
        return ended.status


def main() -> None:
    """The console command. It leaves without taking its modules apart, which takes a tenth of a plan's time."""
    gc.disable()  # a command is over before there is anything worth collecting; serve turns it on again
    status = run()
    try:
        sys.stdout.flush()
        sys.stderr.flush()
    except BrokenPipeError:
        status = BROKEN_PIPE
    os._exit(status)


if __name__ == "__main__":
    main()
