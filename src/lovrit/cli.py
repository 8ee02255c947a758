"""``lovrit …``: what can be done with a session without the pages.

Each command imports what it needs when it runs, so that ``plan`` never loads the web.
"""

import gc
import json
import os
import sys
from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

if TYPE_CHECKING:
    from lovrit.core.timeline.plan import Plan

os.environ.setdefault("PYDANTIC_DISABLE_PLUGINS", "1")  # looking for plugins costs a tenth of a start
gc.disable()  # a command is over before there is anything worth collecting; serve turns it on again

app = typer.Typer(add_completion=False, no_args_is_help=True, pretty_exceptions_enable=False, rich_markup_mode=None)
UNREADABLE = 2
File = Annotated[str, typer.Argument(help="A slate or its JSON form; - reads standard input.")]


def _text(file: str) -> str:
    """The text of a file or of standard input; ends with a sentence where there is none to be had."""
    try:
        raw = sys.stdin.buffer.read() if file == "-" else Path(file).read_bytes()
        return raw.decode("utf-8-sig")
    except OSError as error:
        said = f"{file}: {error.strerror or 'cannot be read'}"
    except UnicodeDecodeError as error:
        said = f"{file}: not UTF-8 text (byte {error.start + 1}); save it as UTF-8 and try again"
    typer.echo(said, err=True)
    raise typer.Exit(UNREADABLE)


def _plan(file: str, as_json: bool) -> "Plan":
    from lovrit.formats.reading import plan_any

    plan = plan_any(_text(file))
    if plan.problems:
        _fail(plan, as_json)
    return plan


def _fail(plan: "Plan", as_json: bool) -> None:
    from lovrit.formats.plan_json import errors_object

    if as_json:
        typer.echo(json.dumps(errors_object(plan.problems), ensure_ascii=False), err=True)
    else:
        for one in plan.problems:
            nearest = f"\n    this would be read: {one.nearest.strip()}" if one.nearest else ""
            typer.echo(f"line {one.line}, column {one.column}: {one.text}{nearest}", err=True)
    raise typer.Exit(UNREADABLE)


@app.command()
def plan(file: File, as_json: Annotated[bool, typer.Option("--json", help="One JSON object.")] = False) -> None:
    """Lay a session on the clock and say what it comes to."""
    from lovrit.core.advice.look import second_look
    from lovrit.core.moves.library import shipped
    from lovrit.formats.plan_json import plan_object
    from lovrit.formats.plan_text import plan_lines

    planned = _plan(file, as_json)
    notes = second_look(planned, shipped())
    if as_json:
        typer.echo(json.dumps(plan_object(planned, notes), ensure_ascii=False))
        return
    for line in plan_lines(planned, notes):
        typer.echo(line)


@app.command()
def export(
    file: File,
    to: Annotated[str, typer.Option("--format", help="slate, json, csv, ics, vtt, md, card or sheet.")] = "json",
    zone: Annotated[str | None, typer.Option("--time-zone", help="Where the times of day are, for ics.")] = None,
) -> None:
    """Write a session in another form."""
    from datetime import UTC, datetime

    from lovrit.core.values import LovritError
    from lovrit.formats.writers import WRITERS, When
    from lovrit.settings import Settings, known_zone

    try:
        if to not in WRITERS:
            raise LovritError(f"There is no form “{to}”; there are {', '.join(WRITERS)}.")
        when = When(datetime.now(UTC), known_zone(zone or Settings().time_zone))
        written = WRITERS[to].write(_plan(file, False), when)
    except LovritError as error:
        typer.echo(str(error), err=True)
        raise typer.Exit(UNREADABLE) from None
    typer.echo(written, nl=False)


@app.command()
def schema(of: Annotated[str, typer.Argument(help="session, or moves for the library.")] = "session") -> None:
    """Print the JSON Schema of the JSON form, or of the library of moves."""
    from lovrit.core.moves.library import schema as moves
    from lovrit.formats.session_json import schema as session

    made = {"session": session, "moves": moves}.get(of)
    if made is None:
        typer.echo(f"There is no schema of “{of}”; there are session and moves.", err=True)
        raise typer.Exit(UNREADABLE)
    typer.echo(json.dumps(made(), ensure_ascii=False, indent=2))


@app.command()
def serve(
    host: Annotated[str | None, typer.Option(help="Where to listen; loopback needs no passphrase.")] = None,
    port: Annotated[int | None, typer.Option(help="The port to listen on.")] = None,
) -> None:
    """Serve the pages."""
    from lovrit.web.serve import serve as run

    raise typer.Exit(run(host, port, demo=False, fresh=False))


@app.command()
def demo(
    fresh: Annotated[bool, typer.Option("--fresh", help="Begin again with the demo data as shipped.")] = False,
    port: Annotated[int | None, typer.Option(help="The port to listen on.")] = None,
) -> None:
    """Serve the pages with the demo club."""
    from lovrit.web.serve import serve as run

    raise typer.Exit(run(None, port, demo=True, fresh=fresh))


def main() -> None:
    """The console command."""
    app()


if __name__ == "__main__":
    main()
