"""Moves: the library searched, read, changed, taken out and brought in; kit that isn't there today."""

from typing import Annotated, Any

from fastapi import APIRouter, Form, Request, UploadFile
from fastapi.responses import HTMLResponse, PlainTextResponse, RedirectResponse, Response
from pydantic import ValidationError

from lovrit.core.moves.figure import Drawing
from lovrit.core.moves.names import key_of
from lovrit.core.values import LovritError, checked_json
from lovrit.formats.moves_file import FLAGS, LISTS, read_moves, to_csv, to_json
from lovrit.house.house import House
from lovrit.store import club, sessions
from lovrit.store.sessions import Gone
from lovrit.web.inhouse import InHouse, WholeForm
from lovrit.web.moves.view import Sought, form_fields, move_of, moves_view, used_in
from lovrit.web.pages import page
from lovrit.web.pictures import picture, picture_of

router = APIRouter(include_in_schema=False)
MOST_BYTES = 1_000_000
Said = Annotated[str, Form(max_length=2000)]


class NotAMove(LovritError):
    """A move that can't be kept as it is written."""


@router.get("/moves")
def moves(
    request: Request,
    house: InHouse,
    words: str = "",
    pattern: str = "",
    kit: str = "",
    only: str = "",
) -> HTMLResponse:
    """The library, by words, pattern, kit and kind."""
    return _listed(request, house, Sought(words[:100], pattern, kit, only))


def _listed(request: Request, house: House, asked: Sought, **more: Any) -> HTMLResponse:
    with house.database.work() as work:
        own = club.own_keys(work)
        held = sessions.moves_held(work)
    view = moves_view(house.library, asked, house.missing, own, held, house.now_ms())
    values: dict[str, Any] = {
        "view": view,
        "asked": asked,
        "kits": house.library.kit(),
    }
    values |= {"missing": house.missing, "taken": None, "problems": (), **more}
    return page(request, house, "moves/page.html", **values)


@router.get("/moves/library.{form}")
def download(house: InHouse, form: str) -> Response:
    """The library as CSV or JSON."""
    if form not in ("csv", "json"):
        raise Gone("There is no such form.")
    body = to_csv(house.library.moves) if form == "csv" else to_json(house.library.moves)
    headers = {"Content-Disposition": f'attachment; filename="moves.{form}"'}
    return PlainTextResponse(
        body, media_type="text/csv" if form == "csv" else "application/json", headers=headers
    )


@router.post("/moves/file")
def bring(request: Request, house: InHouse, file: UploadFile) -> HTMLResponse:
    """Moves from a file; what can't be taken is named and the rest is kept."""
    raw = file.file.read(MOST_BYTES + 1)
    if len(raw) > MOST_BYTES:
        raise NotAMove("That file is larger than a megabyte, far more than a library needs.")
    try:
        found = read_moves(raw.decode("utf-8-sig"))
    except UnicodeDecodeError:
        raise NotAMove("That file isn't UTF-8 text; save it as UTF-8 and bring it again.") from None
    changed = [move for move in found.moves if house.library.find(move.name) != move]
    with house.database.writing() as work:
        for move in changed:
            club.keep_move(work, move, house.now_ms())
    return _listed(request, house, Sought(), taken=len(changed), problems=found.problems)


@router.post("/moves/kit")
def kit_today(house: InHouse, missing: Annotated[list[str] | None, Form()] = None) -> Response:
    """Say which kit isn't there today; every session then shows its way round."""
    known = set(house.library.kit())
    with house.database.writing() as work:
        club.set_missing(work, [name for name in missing or [] if name in known])
    return RedirectResponse("/moves", 303)


@router.get("/moves/new")
def new(request: Request, house: InHouse, name: str = "") -> HTMLResponse:
    """An empty form for a move of the club's own."""
    return _form(request, house, {"name": name[:80]}, None)


@router.get("/moves/{name}")
def one(request: Request, house: InHouse, name: str) -> HTMLResponse:
    """A move: what is known of it, its drawing, and where it is used."""
    move = house.library.find(name)
    if move is None:
        raise Gone(f"The library knows no “{name}”.")
    with house.database.work() as work:
        own = key_of(move.name) in club.own_keys(work)
        drawn = house.drawings.get(key_of(move.name))
        uses = used_in(move.name, house.library, sessions.moves_held(work), house.now_ms())
    shown = picture_of(drawn) if drawn else picture(move.name)
    values: dict[str, Any] = {
        "move": move,
        "here": key_of(move.name) in house.library.by_people_here,
        "own": own,
        "picture": shown,
        "uses": uses,
        "library": house.library,
    }
    return page(request, house, "moves/move.html", **values)


@router.get("/moves/{name}/change")
def change(request: Request, house: InHouse, name: str) -> HTMLResponse:
    """A move as a form."""
    move = house.library.find(name)
    if move is None:
        raise Gone(f"The library knows no “{name}”.")
    return _form(request, house, form_fields(move), None)


def _form(
    request: Request, house: House, fields: dict[str, Any], refused: str | None
) -> HTMLResponse:
    values = {
        "fields": fields,
        "refused": refused,
        "flags": FLAGS,
        "lists": LISTS,
    }
    return page(request, house, "moves/form.html", status=422 if refused else 200, **values)


@router.post("/moves")
def keep(request: Request, house: InHouse, form: WholeForm) -> Response:
    """Keep a move as it was written; a form with a slip comes back as it was, with a sentence."""
    fields = {key: str(value)[:20_000] for key, value in form.items()}
    move = move_of(fields)
    if isinstance(move, str):
        return _form(request, house, fields, move)
    try:
        drawn = (
            checked_json(Drawing, fields["drawing"]) if fields.get("drawing", "").strip() else None
        )
    except ValidationError as error:
        first = error.errors()[0]
        where = ".".join(str(part) for part in first["loc"])
        return _form(
            request,
            house,
            fields,
            f"The drawing can't be read at {where or 'its start'}: {first['msg']}.",
        )
    with house.database.writing() as work:
        club.keep_move(work, move, house.now_ms(), drawn)
    return RedirectResponse(f"/moves/{move.name}", 303)


@router.post("/moves/{name}/let-go")
def let_go(house: InHouse, name: str) -> Response:
    """Let the club's own version go."""
    with house.database.writing() as work:
        club.let_go(work, name)
    return RedirectResponse(f"/moves/{name}" if house.library.find(name) else "/moves", 303)
