"""Club: the schools that it chooses between, and remarks put aside."""

from secrets import token_hex
from typing import Annotated, Any, get_args

from fastapi import APIRouter, Path, Request, UploadFile
from fastapi.responses import FileResponse, HTMLResponse, RedirectResponse, Response
from pydantic import ValidationError
from starlette.background import BackgroundTask

from lovrit.core.advice.company import Schools
from lovrit.core.crew.highest import BY_AGE
from lovrit.core.rights import MAY
from lovrit.core.values import LovritError, checked, names_of, plain, type_of
from lovrit.house.guests import key_of
from lovrit.house.house import House
from lovrit.settings import known_zone
from lovrit.store import club, guests, people, sessions
from lovrit.store.archive import export_club
from lovrit.store.changed import listed
from lovrit.store.copies import WAITING, copy, of_folder, wait
from lovrit.web.guard import token_of
from lovrit.web.inhouse import Id, InHouse, WholeForm
from lovrit.web.pages import day, page

router = APIRouter(include_in_schema=False)

# field: (the question, then each answer in words)
QUESTIONS: dict[str, tuple[str, dict[str, str]]] = {
    "short_rest": (
        "Is twenty on and ten off all-out?",
        {
            "fades": "It is hard, and the effort fades on purpose.",
            "all-out": "It is all-out, and wants the rest of one.",
        },
    ),
    "steer": (
        "Does heart or effort steer?",
        {
            "both": "Both, side by side; effort leads under a minute.",
            "effort": "Effort.",
            "heart": "Heart, in short work too.",
        },
    ),
    "beginners": (
        "How do beginners begin?",
        {
            "both": "Either way.",
            "long": "Long and moderate: two or three minutes at 7.",
            "short": "Short and hard: two minutes in all.",
        },
    ),
    "hard": (
        "Where do hard intervals belong?",
        {"last": "Last, after skill and strength.", "anywhere": "Anywhere."},
    ),
    "warm_up": (
        "Is every session warmed up on the slate?",
        {"always": "Yes, five easy minutes at least.", "own": "People come warm by themselves."},
    ),
    "highest": (
        "Where nobody measured it, a highest is from age by",
        {key: by.words for key, by in BY_AGE.items()},
    ),
    "wall": (
        "May the wall show first names?",
        {
            "letters": "No, the letters of the groups.",
            "names": "Yes, before the class and in breaks.",
        },
    ),
}


MOST_CHANGES = 60


class NotASchool(LovritError):
    """An answer that there isn't."""


@router.get("/club")
def chosen(request: Request, house: InHouse) -> HTMLResponse:
    """What the club holds."""
    return shown(request, house)


def shown(
    request: Request,
    house: House,
    invitation: tuple[str, str] | None = None,
    refused: tuple[str, str] = ("", ""),
) -> HTMLResponse:
    """The page; with an invitation that was just made (a name, its link), or what was refused and typed."""
    keepers = house.guests.of_the_house() if house.guests else []
    with house.database.work() as work:
        asides = [(row, _where(work, row.session_id)) for row in club.asides(work)]
        seen = house.guests.seen() if house.guests else {}
        called = {one.id: one.name for one in people.everyone(work)}
        changes = [
            (day(house, one.at_ms), called[one.person], one.by, one.what)
            for one in listed(work, MOST_CHANGES)
            if one.person in called
        ]
        mine = key_of(token_of(request))
        names = {one.id: one.name for one in keepers}
        came = [
            (
                row,
                day(house, row.came_ms),
                day(house, seen.get(row.key, row.seen_ms)),
                row.key == mine,
                names.get(row.keeper_id, "the club’s passphrase"),
            )
            for row in guests.listed(work)
        ]
    values: dict[str, Any] = {"questions": QUESTIONS, "schools": house.schools, "asides": asides}
    values |= {
        "changes": changes,
        "guests": came,
        "asked": house.guests is not None,
        "keepers": keepers,
        "may": MAY,
    }
    values |= {
        "invitation": invitation,
        "refused": refused[0],
        "typed": refused[1],
    }
    values |= {"about": house.about, "zone": house.zone}
    folder = house.settings.copies_in
    values |= {
        "copies": None if folder is None else [f"{one}" for one in sorted(of_folder(folder))],
        "copies_said": house.copies_said,
        "waits": (house.settings.data / WAITING).is_file(),
    }
    return page(
        request,
        house,
        "club/page.html",
        pace=house.library.pace,
        rests_on=house.library.rests_on,
        **values,
    )


def _where(work: Any, session_id: int | None) -> str:
    return (
        "always"
        if session_id is None
        else sessions.get(work, session_id).title or "an untitled session"
    )


@router.post("/club")
def choose(house: InHouse, form: WholeForm) -> Response:
    """Choose; what isn't answered stays as it was."""
    answers = {name: str(form[name]) for name in names_of(Schools) if name in form}
    try:
        wanted = checked(Schools, plain(house.schools) | answers)
    except ValidationError as error:
        name = str(error.errors()[0]["loc"][0])
        known = get_args(type_of(Schools, name))
        raise NotASchool(f"There is no such answer; there are {', '.join(known)}.") from None
    with house.database.writing() as work:
        club.set_schools(work, wanted)
    return RedirectResponse("/club", 303)


@router.post("/club/about")
def about(house: InHouse, form: WholeForm) -> Response:
    """What the club says of itself; the time zone has to be one."""
    said = {
        name: " ".join(str(form[name]).split()) for name in names_of(club.About) if name in form
    }
    if said.get("zone"):
        known_zone(said["zone"])
    try:
        wanted = checked(club.About, plain(house.about) | said)
    except ValidationError as error:
        field = str(error.errors()[0]["loc"][0])
        raise NotASchool(f"What stands for “{field}” is too long.") from None
    with house.database.writing() as work:
        club.set_about(work, wanted)
    return RedirectResponse("/" if form.get("to") == "/" else "/club", 303)


@router.get("/club/copy.sqlite")
def copy_now(house: InHouse) -> FileResponse:
    """All that is kept, as one file, whole as of now."""
    today = house.today
    to = house.settings.data / f"copy-{token_hex(8)}.sqlite"
    copy(house.kept_in, to)
    return FileResponse(
        to,
        media_type="application/vnd.sqlite3",
        filename=f"lovrit-{today}.sqlite",
        background=BackgroundTask(to.unlink, missing_ok=True),
    )


@router.post("/club/restore")
def restore(house: InHouse, file: UploadFile) -> Response:
    """A copy is looked through and waits; it is put in place when Lovrit is started next."""
    wait(house.settings.data, file.file)
    return RedirectResponse("/club#copies", 303)


@router.post("/club/home")
def home(house: InHouse) -> Response:
    """What was kept beside goes back to its place as the club's file."""
    house.file_comes_home()
    return RedirectResponse("/club#copies", 303)


@router.post("/club/restore/not")
def not_after_all(house: InHouse) -> Response:
    """The copy that waits is let go."""
    (house.settings.data / WAITING).unlink(missing_ok=True)
    return RedirectResponse("/club#copies", 303)


@router.get("/club/archive.zip")
def archive(house: InHouse) -> FileResponse:
    """The whole club as open files; the file made for it goes once it is sent."""
    to = house.settings.data / f"archive-{token_hex(8)}.zip"
    export_club(house.kept_in, to)
    gone = BackgroundTask(to.unlink, missing_ok=True)
    return FileResponse(to, filename=f"lovrit-{house.today}.zip", background=gone)


@router.post("/club/guests/{key}/end")
def end(house: InHouse, key: Annotated[str, Path(max_length=64)]) -> Response:
    """Let a browser go; it is asked for the passphrase again."""
    if house.guests:
        house.guests.let_go(key)
    return RedirectResponse("/club", 303)


@router.post("/club/asides/{aside_id}/back")
def back(house: InHouse, aside_id: Id) -> Response:
    """Let a kind of remark speak again."""
    with house.database.writing() as work:
        club.bring_back(work, aside_id)
    return RedirectResponse("/club", 303)
