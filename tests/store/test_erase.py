"""Somebody erased as a whole: looked for by every string of theirs in every file of the folder."""

import json
from pathlib import Path

from fastapi.testclient import TestClient
from hypothesis import given
from hypothesis import strategies as some

from lovrit.house.erased import erase
from lovrit.house.mine import own_link
from lovrit.settings import Settings
from lovrit.store import people
from lovrit.store.check import look_through
from lovrit.store.erase import off_the_disk, without
from lovrit.web.app import create_app
from tests.conftest import Clock, ready

NAME = "Zephyrine Quux"
STRINGS = (
    NAME,
    "Zephyrine",
    "+49 170 5550",
    "an old tear, left",
    "dizzy from the pills",
    "tired tonight",
    "by the river",
)


def found_in(folder: Path) -> dict[str, list[str]]:
    """Every string of theirs that stands in a file, by the file; also as JSON writes it."""
    told = {}
    for path in sorted(one for one in folder.rglob("*") if one.is_file()):
        raw = path.read_bytes()
        here = [
            one for one in STRINGS if one.encode() in raw or json.dumps(one)[1:-1].encode() in raw
        ]
        if here:
            told[path.name] = here
    return told


def test_nothing_of_somebody_is_left_in_any_file(tmp_path: Path, clock: Clock) -> None:
    settings = Settings(data=tmp_path)
    app = create_app(settings, ready(settings.database), clock)
    with TestClient(app, base_url="http://127.0.0.1") as client:
        house = app.state.house
        client.post("/people", data={"text": NAME})
        with house.database.work() as work:
            who = next(one.id for one in people.everyone(work) if one.name == NAME)
            people.change(work, who, contact="+49 170 5550", mind="an old tear, left", rest_hr=51)
        slate = (
            f"title: {NAME} leads\n\n# {NAME} counts\n2 rounds of 30/30 at 6\n  squat\n  plank\n"
        )
        session = int(client.post("/desk", data={"text": slate}).url.path.rsplit("/", 1)[1])
        client.post(f"/crew/{session}/place", data={"person": who, "group": 0})
        client.post(f"/desk/{session}/revisions", data={"reason": f"as {NAME} wished"})
        client.post(f"/tonight/{session}/day", data={"day": "today"})
        client.post(
            "/weeks/see", data={"at": house.today, "until": house.today, "words": f"{NAME} coaches"}
        )
        with house.database.work() as work:
            mine = own_link(house, work, who)
        client.post(
            f"{mine}/answer", data={"session": session, "comes": "true", "word": "tired tonight"}
        )
        told = {
            "key": "her-own-phone",
            "session": session,
            "at_ms": clock.ms,
            "lasted_s": 60,
            "word": "by the river",
        }
        client.post(f"{mine}/own", json=told)
        class_id = int(client.post(f"/desk/{session}/floor").url.path.rsplit("/", 1)[1])
        happen = f"/run/{class_id}/happen"
        client.post(happen, json={"id": "1", "kind": "start", "at_ms": clock.ms, "by": NAME})
        clock.on(40)
        client.post(
            happen,
            json={
                "id": "2",
                "kind": "stops",
                "person": who,
                "at_ms": clock.ms,
                "text": "dizzy from the pills",
            },
        )
        client.post(
            happen, json={"id": "3", "kind": "mark", "at_ms": clock.ms, "text": f"{NAME} again"}
        )
        client.post(happen, json={"id": "4", "kind": "end", "at_ms": clock.ms})
        app.state.floor.tick(clock.ms)
        client.post(
            f"/debrief/{class_id}/note", data={"op": "n", "text": f"Watch {NAME} next time"}
        )
        client.get("/debrief?words=zephyrine")
        assert {one for some_ in found_in(tmp_path).values() for one in some_} == set(STRINGS)
        client.post(f"/people/{who}/let-go")
        clock.on(3700)
        assert erase(house) == 1
        client.get("/debrief?words=again")
        page = client.get(f"/debrief/{class_id}").text
        assert "somebody again" in page and "Watch somebody next time" in page
    assert off_the_disk(settings.database)
    assert found_in(tmp_path) == {}
    assert look_through(settings.database).sound


@given(
    some.text(min_size=3, max_size=20).filter(lambda name: len(name.strip()) >= 3),
    some.text(max_size=60),
    some.text(max_size=60),
)
def test_a_name_goes_as_a_whole_word_and_nothing_else_does(
    name: str, before: str, after: str
) -> None:
    clean = without(name)
    assert clean(f"{before} {name.strip()} {after}") == clean(f"{before} somebody {after}")
    assert without("Al")("Al alone") == "Al alone"
    assert without("Ivy")("Ivy's ivylike Ivy") == "somebody's ivylike somebody"
