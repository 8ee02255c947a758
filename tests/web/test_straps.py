"""Straps from outside: the payload by its specification, the door, who wears which, and nothing that is lost."""

from pathlib import Path

import pytest
from fastapi.testclient import TestClient
from hypothesis import given
from hypothesis import strategies as st
from starlette.websockets import WebSocketDisconnect

from lovrit.cli.played import Played
from lovrit.settings import Settings
from lovrit.store import classes, people
from lovrit.straps.faults import BEHAVES
from lovrit.straps.payload import Measurement, NotAMeasurement, read_measurement
from lovrit.web.app import create_app
from lovrit.web.straps.entry import key_of
from tests.conftest import Clock, ready
from tests.house.test_floor import House, house

__all__ = ["house"]

# bytes made by hand from the public specification, and what they say
VECTORS = {
    "0048": Measurement(72),
    "00ff": Measurement(255),
    "012c01": Measurement(300),
    "0648": Measurement(72, contact=True),
    "0448": Measurement(72, contact=False),
    "0248": Measurement(72),
    "0e5a1027": Measurement(90, contact=True, energy_kj=10000),
    "165a0004": Measurement(90, contact=True, rr_s=(1.0,)),
    "165a00020003": Measurement(90, contact=True, rr_s=(0.5, 0.75)),
    "1f5a0001000004": Measurement(90, contact=True, energy_kj=1, rr_s=(1.0,)),
    "105a": Measurement(90),
    "105a00": Measurement(90),
}


@pytest.mark.parametrize(("sent", "said"), VECTORS.items())
def test_a_measurement_is_read_as_the_specification_has_it(sent: str, said: Measurement) -> None:
    assert read_measurement(bytes.fromhex(sent)) == said


@given(st.binary(max_size=40))
def test_any_bytes_are_a_measurement_or_are_refused(payload: bytes) -> None:
    try:
        told = read_measurement(payload)
    except NotAMeasurement:
        assert len(payload) < 5
    else:
        assert 0 <= told.bpm < 65_536 and all(0 <= one < 64 for one in told.rr_s)


@pytest.fixture
def client(tmp_path: Path) -> TestClient:
    app = create_app(
        Settings(data=tmp_path), ready(tmp_path / "club.sqlite", filled=False), lambda: 1_000_000
    )
    with app.state.house.database.writing() as work:
        for name in ("Ada", "Ben"):
            people.add_person(work, name)
    return TestClient(app, base_url="http://127.0.0.1")


def told(client: TestClient, *straps: dict[str, object]) -> dict[str, object]:
    answer = client.post("/straps/beats", json={"straps": straps})
    assert answer.status_code == 200
    return answer.json()


def test_the_wall_says_who_wears_what_and_doubts_what_cannot_be(client: TestClient) -> None:
    assert "No strap from outside has been heard" in client.get("/straps").text
    assert told(client, {"id": "Ada", "bpm": 88, "battery": 90}, {"id": "S2", "bpm": 38}) == {
        "taken": 2,
        "refused": [],
    }
    client.post("/straps/by-name")
    page = client.get("/straps/now").text
    assert "2</b> of 2 straps heard" in page and "1</b> worn" in page
    assert "per cent" in page and "90 %" in page
    client.post("/straps/wear", data={"strap": "S2", "person": "2"})
    client.post("/straps/swap", data={"strap": "S2", "other": "Ada"})
    assert client.app.state.house.outside.worn == {1: "S2", 2: "Ada"}  # type: ignore[attr-defined]
    client.post("/straps/find", data={"person": "1"})
    assert "Shake Ada’s strap once" in client.get("/straps/now").text
    told(client, {"id": "S3", "bpm": 70, "shaken": True})
    assert client.app.state.house.outside.worn[1] == "S3"  # type: ignore[attr-defined]
    told(client, {"id": "S3", "measurement": "0448"})
    assert "no contact" in client.get("/straps/now").text
    told(client, {"id": "S3", "bpm": 240, "battery": 9})
    assert "does it count double" in client.get("/straps/now").text
    assert "nearly flat" in client.get("/straps/now").text
    client.post("/straps/call", data={"strap": "S3", "name": "red one"})
    client.post("/straps/forget", data={"strap": "S2"})
    page = client.get("/straps").text
    assert "red one" in page and "S2" not in page.partition("<main")[2]  # a nonce may spell it


@pytest.mark.parametrize(
    "body",
    [{}, {"straps": [{"id": "", "bpm": 1}]}, {"straps": [{"id": "a", "bpm": 900}]}, {"straps": [{"id": "a", "x": 1}]},
     {"straps": [{"id": "a", "measurement": "0"}]}, {"straps": [{"id": "<b>", "bpm": 80}]}, []],
)  # fmt: skip
def test_what_is_no_reading_is_refused(client: TestClient, body: object) -> None:
    assert client.post("/straps/beats", json=body).status_code == 422
    assert client.app.state.house.outside.heard() == {}  # type: ignore[attr-defined]


def test_a_reading_that_says_nothing_is_named(client: TestClient) -> None:
    answer = told(client, {"id": "a"}, {"id": "b", "measurement": "01"}, {"id": "c", "bpm": 80})
    assert answer["taken"] == 1 and [one["id"] for one in answer["refused"]] == ["a", "b"]  # type: ignore[attr-defined]


def test_a_socket_tells_the_same_and_strangers_do_not(client: TestClient) -> None:
    with client.websocket_connect("/straps/beats", headers={"host": "127.0.0.1"}) as socket:
        socket.send_text('{"straps": [{"id": "S1", "bpm": 77}]}')
        assert socket.receive_json() == {"taken": 1, "refused": []}
        socket.send_text("soon")
        assert socket.receive_json()["taken"] == 0
    for headers in ({"origin": "http://elsewhere.test"}, {"host": "club.test"}):
        with (
            pytest.raises(WebSocketDisconnect),
            client.websocket_connect("/straps/beats", headers=headers),
        ):
            pass


def test_behind_a_passphrase_only_the_key_lets_a_strap_in(tmp_path: Path) -> None:
    settings = Settings(data=tmp_path, host="192.0.2.1", passphrase="quiet landings")  # type: ignore[arg-type]
    app = create_app(settings, ready(tmp_path / "club.sqlite", filled=False))
    client = TestClient(app, base_url="http://192.0.2.1")
    body = {"straps": [{"id": "S1", "bpm": 80}]}
    assert client.post("/straps/beats", json=body).status_code == 401
    assert client.get("/straps", headers={"accept": "application/json"}).status_code == 401
    key = {"authorization": f"Bearer {key_of(app.state.house)}"}
    assert client.post("/straps/beats", json=body, headers=key).json()["taken"] == 1
    assert client.get("/straps/beats/asked", headers=key).status_code == 200


def test_in_a_class_every_reading_is_kept_at_its_own_moment(house: House) -> None:
    class_id = house.to_the_floor()
    ada = next(one for one in house.floor.live(class_id).comers if not one.effort_only).id
    told(house.client, {"id": "S1", "bpm": 70})
    house.client.post("/straps/wear", data={"strap": "S1", "person": str(ada)})
    house.happen(class_id, "start")
    house.clock.on(6)
    begun, sent = house.clock.ms, 0
    for second in range(1, 31):
        house.clock.on(1)
        if second % 5 == 0:  # five seconds of readings come at once
            batch = [
                {"id": "S1", "bpm": 100 + nth, "at_ms": begun + nth * 1000 - 93}
                for nth in range(second - 4, second + 1)
            ]
            sent += int(str(told(house.client, *batch)["taken"]))
        house.floor.tick(house.clock.ms)
    with house.floor.house.database.work() as work:
        mine = classes.traces(work, class_id)[ada]
    assert sent == 30 and [bpm for _, bpm in mine] == [100 + nth for nth in range(1, 31)]
    assert all((at - begun + 93) % 1000 == 0 for at, _ in mine)
    asked = house.client.get("/straps/beats/asked").json()
    assert asked["on"] and asked["people"][str(ada)] > 0


def test_a_club_of_its_own_is_played_no_hearts(tmp_path: Path, clock: Clock) -> None:
    house = House(tmp_path, clock, simulated=False)
    class_id = house.to_the_floor()
    house.happen(class_id, "start")
    house.clock.on(30)
    house.floor.tick(house.clock.ms)
    with house.floor.house.database.work() as work:
        assert classes.traces(work, class_id) == {}
    house.stop()


@pytest.mark.parametrize("kind", BEHAVES)
def test_straps_that_are_played_do_what_they_say(kind: str) -> None:
    played = Played(4, 3, faults=False)
    strap = played._straps[0]
    strap.player = type(strap.player)(kind, strap.person.highest, strap.chance)
    told = [strap.second(0.8 if nth % 120 < 60 else 0.3) for nth in range(1500)]
    works = [bpm for bpm in told if bpm]
    assert all(0 <= bpm <= 260 for bpm in told)
    assert (len(works) < len(told)) == (kind in ("drops", "late", "flat battery"))
    assert (max(works) <= 100) == (kind == "per cent")
