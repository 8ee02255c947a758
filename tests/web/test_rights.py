"""Who may: every route asked as everyone and nobody; people of the house come, change, and are ended."""

import re
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import pytest
from fastapi.testclient import TestClient
from pydantic import SecretStr

from lovrit.core.rights import ROLES, Role
from lovrit.settings import Settings
from lovrit.web.app import create_app
from lovrit.web.guard import OPEN_PATHS
from lovrit.web.rights import needs
from tests.conftest import Clock, ready
from tests.web.test_fuzz import routes

PASSPHRASE = "cold halls and warm tea"
OWN = "a passphrase of her own"
# written down before the table that decides: the least role that may open an address
WRITTEN: dict[str, Role] = {
    "/run": "assistant", "/run/3": "assistant", "/run/3/happen": "assistant", "/run/3/screens": "assistant",
    "/wall/3": "assistant", "/station/3/1": "assistant", "/clock": "assistant", "/stream": "assistant",
    "/straps": "assistant", "/straps/wear": "assistant", "/straps/swap": "assistant", "/out": "assistant",
    "/run/3/cues.flac": "assistant", "/run/of/2": "assistant",
    "/": "coach", "/desk/2": "coach", "/crew/2": "coach", "/people/2": "coach", "/people/2/all.json": "coach",
    "/run/3/talk": "coach", "/run/3/cards": "coach", "/run/3/sheets": "coach", "/debrief/3": "coach",
    "/debrief/3/class.zip": "coach", "/debrief/3/traces.csv": "coach", "/weeks": "coach", "/moves": "coach",
    "/hall/2": "coach", "/club": "coach", "/find": "coach", "/api/plan": "coach", "/run/3/secret": "coach",
    "/runs": "coach", "/straps/plays": "coach", "/anything/new": "coach",
    "/club/people": "owner", "/club/people/2/end": "owner", "/club/restore": "owner", "/club/copy.sqlite": "owner",
    "/club/archive.zip": "owner", "/club/guests/x/end": "owner",
}  # fmt: skip


@pytest.mark.parametrize("path", WRITTEN)
def test_an_address_asks_for_what_was_written_down(path: str) -> None:
    assert needs(path) == WRITTEN[path]


@pytest.fixture
def house(tmp_path: Path, clock: Clock) -> Iterator[TestClient]:
    """The demo club in a hall, with a passphrase; the client is in as owner."""
    settings = Settings(data=tmp_path, host="0.0.0.0", passphrase=SecretStr(PASSPHRASE))
    app = create_app(settings, ready(), clock)
    with TestClient(app, base_url="http://hall.example") as client:
        client.post("/passphrase", data={"passphrase": PASSPHRASE})
        yield client


def another(client: TestClient) -> TestClient:
    """Another browser of the same house."""
    return TestClient(client.app, base_url="http://hall.example")


def invited(client: TestClient, name: str, role: Role) -> str:
    page = client.post("/club/people", data={"name": name, "role": role}).text
    return re.findall(r"http://hall\.example(/invited/[\w-]+)", page)[0]


def comes(client: TestClient, name: str, role: Role) -> TestClient:
    """Somebody of the house who came by an invitation."""
    browser = another(client)
    answer = browser.post(invited(client, name, role), data={"passphrase": OWN})
    assert answer.status_code == 200
    return browser


def test_every_route_is_asked_as_everyone_and_nobody(house: TestClient) -> None:
    people = {role: comes(house, f"Own {role}", role) for role in ROLES}
    nobody = another(house)
    asked = 0
    for method, path, _ in routes(house.app):
        address = re.sub(r"\{[^}]+\}", "1", path)
        if address in ("/out", "/restore") or address.startswith(
            ("/club/people/1", "/club/guests")
        ):
            continue  # they would put somebody out whom the next one needs
        least = needs(address)
        is_open = address.startswith(OPEN_PATHS)
        shut = nobody.request(method, address, follow_redirects=False)
        assert is_open or shut.status_code in (401, 303), address
        if shut.status_code == 303 and not is_open:
            assert shut.headers["location"] == "/passphrase"
        for role, browser in people.items():
            answer = browser.request(method, address, follow_redirects=False)
            may = is_open or ROLES.index(role) <= ROLES.index(least)
            refused = answer.status_code == 403 and "of the house" in answer.text
            begins = address == "/" and answer.headers.get("location") == "/run"
            assert (refused or begins) != may, (role, method, address, answer.status_code)
            assert is_open or answer.status_code != 401, address
            assert answer.status_code < 500, (address, answer.status_code)
            asked += 1
    assert asked > 500


def test_an_assistant_sees_the_floor_and_nothing_of_anybodys_health(house: TestClient) -> None:
    house.post(
        "/people/1/stands",
        data={"limits": ["overhead"], "contact": "Ira 0151 000", "cleared": "not yet"},
    )
    house.post("/people/1", data={"name": "Anouk K", "mind": "left knee"})
    number = house.post(
        "/desk", data={"text": "2 rounds of 30/10 at 8\n  squat\n"}
    ).url.path.rsplit("/", 1)[1]
    house.post(f"/crew/{number}/place", data={"person": 1, "group": 0})
    on = house.post(f"/desk/{number}/floor", follow_redirects=False).headers["location"]
    seen = house.get(on).text
    assert "left knee" in seen and "Ira 0151 000" in seen and "nothing overhead" in seen
    helper = comes(house, "Pim", "assistant")
    theirs = helper.get(on).text
    assert "Anouk K" in theirs and "Pim" in theirs
    for secret in ("left knee", "Ira 0151 000", "nothing overhead", "not cleared"):
        assert secret not in theirs
    class_id = on.rsplit("/", 1)[1]
    press = {"id": "a", "kind": "start", "at_ms": 1_790_000_000_000, "by": "somebody else"}
    assert helper.post(f"/run/{class_id}/happen", json=press).status_code == 200
    with house.app.state.house.database.work() as work:  # type: ignore[attr-defined]
        from lovrit.store import classes

        assert [one.by for one in classes.events(work, int(class_id))] == ["Pim"]


def test_who_changed_what_of_somebodys_health_is_kept_without_what_it_is(
    house: TestClient,
) -> None:
    """By name, on the page, on Club and in what is given out; a value stands nowhere, and nothing twice."""
    coach = comes(house, "Pim", "coach")
    coach.post("/people/2/stands", data={"limits": ["overhead"], "cleared": "not yet"})
    coach.post("/people/2/stands", data={"limits": ["overhead"], "cleared": "not yet"})
    house.post("/people/2/hearts", data={"may": "no"})
    page = coach.get("/people/2").text
    told = re.findall(r"<li>[^<]*: ([^<]+) <span class=\"quiet\">by ([^<]+)</span>", page)
    assert told == [
        ("what was learnt of their heart, thrown away", "the owner"),
        ("whether hearts may be kept", "the owner"),
        ("what they don’t do, cleared by a doctor", "Pim"),
    ]
    assert "what they don’t do, cleared by a doctor" in house.get("/club").text
    held = coach.get("/people/2/all.json").json()["changes"]
    assert [one["by"] for one in held] == ["the owner", "the owner", "Pim"]
    assert "overhead" not in str(held)
    helper = comes(house, "Ro", "assistant")
    assert helper.get("/people/2").status_code == 403


def test_an_invitation_is_taken_once_ends_and_is_made_anew(house: TestClient, clock: Clock) -> None:
    link = invited(house, "Ola", "coach")
    browser = another(house)
    assert "Ola, you are invited" in browser.get(link).text
    short = browser.post(link, data={"passphrase": "short"})
    assert short.status_code == 422 and "letters" in short.text
    assert browser.post(link, data={"passphrase": OWN}).status_code == 200
    assert another(house).get(link).status_code == 404
    later = another(house)
    wrong = later.post("/passphrase", data={"name": "Ola", "passphrase": PASSPHRASE})
    assert wrong.status_code == 401 and 'value="Ola"' in wrong.text
    assert later.post("/passphrase", data={"name": "ola", "passphrase": OWN}).status_code == 200
    again = house.post("/club/people", data={"name": "OLA", "role": "coach"}).text
    assert "is called OLA already" in again
    keeper = re.findall(r"/club/people/(\d+)/again", house.get("/club").text)[0]
    new = re.findall(r"(/invited/[\w-]+)", house.post(f"/club/people/{keeper}/again").text)[0]
    assert later.get("/weeks", follow_redirects=False).status_code in (
        401,
        303,
    )  # her browsers are out
    clock.on(3 * 86_400 + 60)
    assert another(house).get(new).status_code == 404
    house.post("/passphrase", data={"passphrase": PASSPHRASE})
    house.post(f"/club/people/{keeper}/end")
    assert "Ola" not in house.get("/club").text


def test_a_changed_passphrase_ends_its_browsers(tmp_path: Path, clock: Clock) -> None:
    def begun(passphrase: str) -> TestClient:
        settings = Settings(data=tmp_path, host="0.0.0.0", passphrase=SecretStr(passphrase))
        database = ready(settings.database)
        return TestClient(create_app(settings, database, clock), base_url="http://hall.example")

    with begun(PASSPHRASE) as client:
        client.post("/passphrase", data={"passphrase": PASSPHRASE})
        kept = dict(client.cookies)
    with begun(PASSPHRASE) as client:
        client.cookies.update(kept)
        assert client.get("/weeks").status_code == 200
    with begun("another one altogether") as client:
        client.cookies.update(kept)
        assert client.get("/weeks", follow_redirects=False).status_code in (401, 303)


def test_many_guesses_at_once_are_as_slow_as_many_in_a_row(house: TestClient) -> None:
    def guess(nth: int) -> int:
        return (
            another(house)
            .post("/passphrase", data={"passphrase": f"guess {nth} of many"})
            .status_code
        )

    with ThreadPoolExecutor(12) as some:
        answers = list(some.map(guess, range(60)))
    assert answers.count(401) <= 5 and answers.count(429) >= 55


def test_a_strangers_guesses_lock_no_coach_out() -> None:
    from lovrit.house.guests import GUESSES_IN_ALL, Guesses

    guesses = Guesses()
    assert guesses.begin("home", 0) == 0
    guesses.right("home")
    for nth in range(3 * GUESSES_IN_ALL):
        guesses.begin(f"stranger {nth}", 1000 + nth)
    assert guesses.begin("another stranger", 2000) > 0
    assert guesses.begin("home", 2000) == 0
