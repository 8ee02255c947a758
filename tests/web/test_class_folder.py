"""A class taken out as a folder and brought into an empty club: equal on the other side, or a sentence why not."""

import io
import json
from pathlib import Path
from zipfile import ZipFile

import pytest

from lovrit.house.class_folder import NotAFolder, bring_back, kept_of
from lovrit.store.database import Database
from tests.conftest import Clock
from tests.house.test_floor import House
from tests.web.test_hearts_after import ran


@pytest.fixture
def taken(tmp_path: Path, clock: Clock) -> tuple[str, str, bytes]:
    """The account of a class, its traces, and its folder."""
    house = House(tmp_path, clock)
    try:
        number = ran(house)
        house.client.post(f"/debrief/{number}/felt", data={"op": "f", "person": "2", "value": "8"})
        page = house.client.get(f"/debrief/{number}/turns.csv").text
        traces = house.client.get(f"/debrief/{number}/traces.csv").text
        return page, traces, house.client.get(f"/debrief/{number}/class.zip").content
    finally:
        house.stop()


def test_a_class_comes_back_equal_into_an_empty_club(
    tmp_path: Path, clock: Clock, taken: tuple[str, str, bytes]
) -> None:
    turns, traces, folder = taken
    other = House(tmp_path / "other", clock, empty=True)
    try:
        answer = other.client.post("/debrief/bring-class", files={"file": ("class.zip", folder)})
        assert answer.status_code == 200 and "Ended" in answer.text
        number = int(str(answer.url).rsplit("/", 1)[1])
        assert other.client.get(f"/debrief/{number}/turns.csv").text == turns
        assert other.client.get(f"/debrief/{number}/traces.csv").text == traces
        again = other.client.post("/debrief/bring-class", files={"file": ("class.zip", folder)})
        assert "is here already" in again.text
        with other.floor.house.database.work() as work:
            first = json.loads(kept_of(work, number))
        original = json.loads(_kept(folder))
        assert first["runs"] == original["runs"] and first["slate"] == original["slate"]
        assert len(first["events"]) == len(original["events"])
    finally:
        other.stop()


def _kept(folder: bytes) -> bytes:
    zipped = ZipFile(io.BytesIO(folder))
    return zipped.read(next(name for name in zipped.namelist() if name.endswith("kept.json")))


@pytest.mark.parametrize(
    ("raw", "said"),
    [
        (b"hello", "no folder of a class"),
        (b"[]", "no folder of a class"),
        (b"PK\x03\x04nothing", "can’t be opened"),
        (b'{"form": 1, "events": []}', "another kind"),
        (b'{"form": 1, "events": [{"id": 3}], "people": []}', "another kind"),
        (b'{"form": 1}', "no events"),
        (json.dumps({"form": 1, "events": [], "people": [], "runs": {"format": 99}, "made_ms": 1, "over_ms": None,
                     "title": "x", "slate": "", "readings": {}, "is_try": False}).encode(), "another kind"),
    ],
)  # fmt: skip
def test_what_is_no_folder_is_said(raw: bytes, said: str) -> None:
    database = Database(None)
    with database.writing() as work, pytest.raises(NotAFolder, match=said):
        bring_back(work, raw)
