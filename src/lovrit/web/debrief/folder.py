"""Everything of a class as one folder: the slate, JSON, CSV, what there is to say, each read by other programs too."""

import io
from zipfile import ZIP_DEFLATED, ZipFile

from fastapi import APIRouter, Request, UploadFile
from fastapi.responses import RedirectResponse, Response

from lovrit.formats.session_json import to_json
from lovrit.house.class_folder import KEPT, MOST_BYTES, bring_back, kept_of
from lovrit.house.told import clauses_of
from lovrit.house.traced import traces_of
from lovrit.store import classes
from lovrit.web.debrief.exports import class_json, clean_csv, scores_csv, traces_csv, turns_csv
from lovrit.web.inhouse import Id, InHouse, floor_of

router = APIRouter(include_in_schema=False)
READ_ME = """A class of {club}: {title}, {when}.

session.slate   the session as it went to the floor
session.json    the same in the JSON form
class.json      session, crew, events and readings, as “lovrit review class.json” reads them
scores.csv      scores and efforts as they were said
traces.csv      every reading of every strap, raw
clean.csv       every second of every heart: told, holds, why not, expected
turns.csv       each work of each heart in figures
kept.json       all that is kept of it, which another Lovrit brings back whole (“lovrit read-class”, or After)
said.txt        what there was to say, and the coach’s note

It holds names and hearts: keep it as you keep them.
"""


@router.get("/debrief/{class_id}/class.zip")
def folder(request: Request, house: InHouse, class_id: Id) -> Response:
    """The folder of a class."""
    live = floor_of(request).live(class_id)
    with house.database.work() as work:
        slate, kept = classes.get(work, class_id).text, traces_of(work, live)
        whole = kept_of(work, class_id)
    hearts = floor_of(request).cleaned.of(live, kept)
    with house.database.work() as work:
        said = [one.text for one in clauses_of(house, work, live, hearts)]
    said += [f"\n{live.state.note}"] if live.state.note else []
    when = f"{house.when(live.made_ms):%Y-%m-%d %H:%M}"
    about = READ_ME.format(club=house.about.name or "the club", title=live.title, when=when)
    files = {
        "read-me.txt": about,
        "session.slate": slate,
        "session.json": to_json(live.plan.session),
        KEPT: whole,
        "class.json": class_json(live, slate, kept),
        "scores.csv": scores_csv(live),
        "traces.csv": traces_csv(live, kept),
        "clean.csv": clean_csv(live, hearts),
        "turns.csv": turns_csv(live, hearts),
        "said.txt": "\n".join(said) + "\n",
    }
    name = f"class-{house.when(live.made_ms):%Y-%m-%d}-{class_id}"
    return Response(
        _zipped(name, files),
        media_type="application/zip",
        headers={"Content-Disposition": f'attachment; filename="{name}.zip"'},
    )


@router.post("/debrief/bring-class")
def bring_class(request: Request, house: InHouse, file: UploadFile) -> RedirectResponse:
    """A class that was taken out as a folder, here or elsewhere, comes back."""
    raw = file.file.read(MOST_BYTES + 1)
    with house.database.writing() as work:
        number = bring_back(work, raw)
    floor_of(request).teach()
    return RedirectResponse(f"/debrief/{number}", 303)


def _zipped(folder: str, files: dict[str, str]) -> bytes:
    out = io.BytesIO()
    with ZipFile(out, "w", ZIP_DEFLATED) as made:
        for name, text in files.items():
            made.writestr(f"{folder}/{name}", text)
    return out.getvalue()
