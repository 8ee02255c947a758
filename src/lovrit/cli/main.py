"""The commands with their arguments, and what is done with them."""

import gc
import os
import sys
from argparse import ArgumentParser

from lovrit.cli.floor import (
    clean,
    compare,
    cues,
    forecast,
    place,
    review,
    run_class,
    series,
    weeks,
)
from lovrit.cli.given import AS_JSON, BROKEN_PIPE, FILE, Ended
from lovrit.cli.house import backup, check, demo, restore, serve
from lovrit.cli.kept import export_club, import_club, of_the_house, read_class
from lovrit.cli.paper import export, fit, moves, plan, read, recast, schema
from lovrit.cli.played import straps

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
    (read, ("file", {"help": "a message as people send it; - reads standard input"}), AS_JSON),
    (
        export,
        FILE,
        (
            "--format",
            {"default": "json", "help": "slate, json, csv, ics, vtt, md, card, flac, wav or sheet"},
        ),
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
        ("--group", {"help": "a JSON file of a list of such people, for their middle and band"}),
        AS_JSON,
    ),
    (
        clean,
        ("file", {"help": "a CSV file with seconds and beats; - reads standard input"}),
        ("--session", {"help": "the slate of the class, whose forecast it is held against"}),
        AS_JSON,
    ),
    (
        review,
        ("file", {"help": "a JSON file of a class: {“session”, “crew”, “events”, “traces”}"}),
        AS_JSON,
    ),
    (
        series,
        FILE,
        ("--weeks", {"type": int, "default": 6, "help": "how many weeks (6)"}),
        ("--grow", {"required": True, "help": "what grows: rounds, reps, work, load, level, rest"}),
        (
            "--easier",
            {"type": int, "default": 4, "help": "every how manieth week is easier (4); 0 for none"},
        ),
        AS_JSON,
    ),
    (weeks, ("file", {"help": "a JSON file of weeks: {“sessions”, “others”, “wishes”}"}), AS_JSON),
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
    (
        straps,
        ("--to", {"default": "http://127.0.0.1:8484", "help": "where Lovrit is"}),
        ("--people", {"default": "18", "help": "how many straps (18)"}),
        ("--faults", {"action": "store_true", "help": "one strap in four has a fault of its own"}),
        ("--swap", {"help": "two straps that tell each other's hearts, such as S02,S05"}),
        ("--replay", {"help": "a CSV file of readings that is told instead"}),
        (
            "--speed",
            {"type": float, "default": 1.0, "help": "how many times as quickly it is told"},
        ),
        ("--seconds", {"help": "for how many seconds; until it is stopped where none are named"}),
        ("--seed", {"default": "1", "help": "other people and other faults"}),
        ("--key", {"help": "the straps’ key, where the club has a passphrase"}),
    ),
    (
        serve,
        ("--host", {"help": "where to listen; loopback needs no passphrase"}),
        ("--in-the-hall", {"action": "store_true", "help": "for phones and screens near by"}),
        PORT,
    ),
    (backup, ("to", {"help": "the file that the copy is written to"})),
    (
        of_the_house,
        (
            "do",
            {
                "nargs": "?",
                "choices": ["list", "invite", "again", "end"],
                "default": "list",
                "help": "what to do",
            },
        ),
        ("name", {"nargs": "?", "default": "", "help": "whose name"}),
        (
            "--role",
            {
                "choices": ["owner", "coach", "assistant"],
                "default": "coach",
                "help": "as what (coach)",
            },
        ),
    ),
    (export_club, ("to", {"help": "the zip that the club is written to, as open files"})),
    (import_club, ("archive", {"help": "a zip that `lovrit export-club` has written"})),
    (
        read_class,
        ("folder", {"help": "a class taken out: its zip, its folder or the kept.json in it"}),
    ),
    (restore, ("copy", {"help": "a copy that `lovrit backup` or a night has made"})),
    (check,),
    (
        demo,
        ("--fresh", {"action": "store_true", "help": "begin again with the demo data as shipped"}),
        PORT,
    ),
)


NAMES = {
    "run_class": "class", "read_class": "read-class", "export_club": "export-club", "import_club": "import-club",
    "of_the_house": "people",
}  # fmt: skip


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
