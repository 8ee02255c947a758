"""Hall and fit sheet by their addresses: an empty club, what can’t be, files, and no limits where they don’t belong."""

import json
import re
from itertools import combinations
from math import hypot
from xml.etree import ElementTree

import pytest
from fastapi.testclient import TestClient
from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.place.hall import ring
from lovrit.demo.season import season
from lovrit.settings import Settings
from lovrit.store import classes
from lovrit.web.app import create_app
from tests.conftest import examples, ready
from tests.web.test_people import SESSION, empty  # noqa: F401


def body(client: TestClient, path: str, **data: object) -> str:
    return client.post(path, data=data, headers={"x-lovrit": "1"}).text


def hall_of(*spots: dict[str, object], **more: object) -> dict[str, object]:
    return {"name": "Barn", "size_m": [10, 8], "spots": list(spots), "kit": [], **more}


def read_in(client: TestClient, session: str, hall: object) -> int:
    file = {"file": ("hall.json", json.dumps(hall).encode(), "application/json")}
    return client.post(f"/hall/{session}/read", files=file).status_code


def test_a_hall_is_drawn_from_nothing_and_says_what_is_missing(empty: TestClient) -> None:  # noqa: F811
    session = empty.post("/desk", data={"text": SESSION}).url.path.rsplit("/", 1)[1]
    page = empty.get(f"/hall/{session}").text
    assert (
        "No hall is drawn yet" in page
        and "There is no spot for" not in page
        and "Say who comes" in page
    )
    for x, y in ((1, 1), (5, 1)):
        page = body(empty, f"/hall/{session}/draw", added="1", x=str(x), y=str(y))
    assert "There is no spot for" in page  # a third station has none
    for x, y in ((9, 6),):
        page = body(empty, f"/hall/{session}/draw", added="1", x=str(x), y=str(y))
    assert page.count("data-spot=") == 3 and "There is no spot for" not in page
    refused = empty.post(f"/hall/{session}/place", headers={"x-lovrit": "1"})
    assert refused.status_code == 409 and "Nobody comes yet" in refused.text
    empty.post(f"/crew/{session}/join", data={"name": "Ben, Carla, Dora, Ed, Fay, Gus"})
    empty.post(f"/crew/{session}/deal", data={"groups": 3})
    placed = _placed(empty, session)
    assert "the best of all, proven" in placed and "Kit against the clock" not in placed
    moved = body(empty, f"/hall/{session}/draw", moved="1", x="999", y="-4")
    assert 'cx="20.0" cy="0.0"' in moved  # no spot leaves the hall
    pinned = body(empty, f"/hall/{session}/pin", station="row", spot="2")
    assert "row ⌖" in pinned
    assert (
        empty.post(f"/hall/{session}/pin", data={"station": "row", "spot": "9"}).status_code == 409
    )


def test_a_first_hall_is_a_press_and_a_club_without_people_is_asked_for_them(
    empty: TestClient,  # noqa: F811
) -> None:
    session = empty.post("/desk", data={"text": SESSION}).url.path.rsplit("/", 1)[1]
    tonight = empty.get("/").text
    assert "add people" in tonight and "as last time" not in tonight and "in Hall" not in tonight
    assert "3 spots in a ring" in empty.get(f"/hall/{session}").text
    page = body(empty, f"/hall/{session}/ring")
    assert page.count("data-spot=") == 3 and "There is no spot for" not in page
    again = body(empty, f"/hall/{session}/ring")
    assert again.count("data-spot=") == 3  # what is drawn stays


@examples(100)
@given(st.floats(1, 200), st.floats(1, 200), st.integers(1, 40))
def test_a_ring_of_spots_is_in_the_hall_and_nobody_stands_on_another(
    wide: float, deep: float, many: int
) -> None:
    spots = ring((wide, deep), many)
    assert len(spots) == len({one.id for one in spots}) == many
    assert all(0 <= one.x <= wide and 0 <= one.y <= deep for one in spots)
    if min(wide, deep) >= 10 and many <= 16:
        apart = (hypot(a.x - b.x, a.y - b.y) for a, b in combinations(spots, 2))
        assert min(apart, default=9) > 1


@pytest.mark.parametrize(
    "hall",
    [
        [],
        {"spots": 3},
        hall_of({"id": "a", "x": "far", "y": 1}),
        hall_of({"id": "", "x": 1, "y": 1}),
        hall_of(size_m=[0, 0]),
        hall_of(walk_m_s=0),
        hall_of(kit=[{"name": "bell", "count": -1}]),
        hall_of(*({"id": str(nth), "x": 1, "y": 1} for nth in range(80))),
    ],
)
def test_a_hall_that_cannot_be_is_refused_and_the_old_one_stays(
    client: TestClient, hall: object
) -> None:
    before = client.get("/hall/1/hall.json").json()
    session = client.get("/hall").url.path.rsplit("/", 1)[1]
    assert read_in(client, session, hall) == 409
    assert client.get("/hall/1/hall.json").json() == before


def test_a_hall_goes_out_and_comes_in_the_same(client: TestClient) -> None:
    session = client.get("/hall").url.path.rsplit("/", 1)[1]
    before = client.get("/hall/1/hall.json").json()
    assert (
        read_in(client, session, hall_of({"id": "“a” 🙂", "x": 1, "y": 1, "holds": "any"})) == 200
    )
    assert "“a” 🙂" in client.get(f"/hall/{session}").text
    assert read_in(client, session, before) == 200
    assert client.get("/hall/1/hall.json").json() == before


def test_a_hall_of_a_metre_and_a_crowd_are_told_and_break_nothing(client: TestClient) -> None:
    session = client.get("/hall").url.path.rsplit("/", 1)[1]
    assert read_in(client, session, hall_of({"id": "a", "x": 0, "y": 0}, size_m=[1, 1])) == 200
    told = _placed(client, session)
    assert "It can’t be placed like this" in told and "6 stations and 1 spot" in told
    for changes in (
        "[]",
        "nonsense",
        '{"kit": 3}',
        '{"groups": "all"}',
        '{"loads": {"Ben": 4}}',
        '{"rest_s": -1}',
    ):
        assert client.post(f"/hall/{session}/way", data={"changes": changes}).status_code == 409


def test_the_sheet_refuses_cells_that_are_not_there(client: TestClient) -> None:
    session = client.get("/crew").url.path.rsplit("/", 1)[1]
    for cell in ({"person": 999}, {"person": 1, "station": 11}):
        gone = client.post(f"/crew/{session}/fit", data={"do": "easier", **cell})
        assert gone.status_code == 409 and "this cell is gone" in gone.text
    assert client.post(f"/crew/{session}/fit", data={"do": "dance"}).status_code == 422


def test_cards_and_sheets_tell_nobody_of_anybody_else(client: TestClient) -> None:
    session = client.get("/crew").url.path.rsplit("/", 1)[1]
    run = client.post(f"/desk/{session}/floor").url.path
    cards = client.get(f"{run}/cards").text.split('<li class="card">')[1:]
    names = [card.split("<h2>")[1].split("<")[0] for card in cards]
    assert len(names) == 18
    for name, card in zip(names, cards, strict=True):
        assert not any(other in card for other in names if other != name)
    minds = {name for name, card in zip(names, cards, strict=True) if " · no" in card}
    assert minds == {"Cilla", "Luz", "Tam"}
    sheets = client.get(f"{run}/sheets").text
    assert sheets.count('class="station-sheet"') == 6
    assert not any(name in sheets for name in names)


def test_halls_are_several_wishes_weigh_and_a_picture_is_read_again(client: TestClient) -> None:
    home = client.get("/hall/4/hall.json").json()
    client.post("/hall/4/in", data={"hall": "Boathouse yard"})
    page = client.get("/hall/4").text
    assert "Boathouse yard, for" in page and "No hall is drawn yet" in page
    assert client.get("/hall/1/hall.json").json() == home  # the other sessions stay at home
    picture = {"file": ("hall.svg", b"<svg xmlns='http://www.w3.org/2000/svg'/>", "image/svg+xml")}
    refused = client.post("/hall/4/read", files=picture)
    assert refused.status_code == 409 and "no hall inside" in refused.text
    drawn = client.get("/hall/1/plan.svg")
    assert drawn.headers["content-type"].startswith("image/svg+xml")
    root = ElementTree.fromstring(drawn.content)
    assert json.loads(root.find("{http://www.w3.org/2000/svg}metadata").text) == home
    assert (
        client.post(
            "/hall/4/read", files={"file": ("hall.svg", drawn.content, "image/svg+xml")}
        ).status_code
        == 200
    )
    assert client.get("/hall/4/hall.json").json() == home
    client.post("/hall/4/in", data={"hall": "Boathouse yard"})
    assert "is no must" in client.post("/hall/4/wish", data={"walks": "must"}).text
    assert client.post("/hall/4/wish", data={"grips": "rather"}).status_code == 409
    client.post("/hall/4/wish", data={"grips": "off", "club": "1", "levels-how": "alike"})
    other = client.post("/desk", data={"text": SESSION}).url.path.rsplit("/", 1)[1]
    kept = 'name="grips" value="off" aria-label="no grip twice in a row: off" checked'
    assert kept in client.get(f"/hall/{other}").text
    drawn = {"name": "Yard", "width": "9", "height": "9", "walk": "1", "reset": "2"}
    drawn |= {"area-0": "bin", "area-x-0": "1", "area-y-0": "1", "area-w-0": "2", "area-h-0": "2"}
    client.post("/hall/4/draw", data=drawn | {"way-0": "gate", "way-x-0": "0", "way-y-0": "3"})
    for thing in ("area-0", "way-0", "way-7", "roof-0"):
        client.post("/hall/4/draw", data={"shifted": thing, "dx": "1,5", "dy": "-99"})
    yard = client.get("/hall/4/hall.json").json()
    assert [(one["x"], one["y"]) for one in (*yard["blocked"], *yard["ways"])] == [
        (2.5, 0),
        (1.5, 0),
    ]
    client.post("/hall/4/out")
    assert "School hall, for" in client.get("/hall/4").text
    assert "only hall" in client.post("/hall/4/out").text
    assert client.get("/hall.schema.json").json()["type"] == "object"


def test_a_placing_tells_how_far_it_is_and_takes_nothing_where_something_changed(
    client: TestClient,
) -> None:
    slow = hall_of(
        *({"id": str(nth), "x": nth % 4 * 3, "y": nth // 4 * 3} for nth in range(16)),
        size_m=[14, 14],
    )
    assert read_in(client, "4", slow) == 200
    fields = {"headers": {"x-lovrit": "1"}}
    told = client.post("/hall/4/place", **fields).text
    for _ in range(100):
        if "data-going" not in told:
            break
        assert "Enough, take the best" in told
        told = client.post("/hall/4/stop", **fields).text
    assert "Placed: the best" in told
    assert "data-going" not in client.get("/hall/4/placing", **fields).text


def test_who_should_do_less_is_offered_less_and_told_so_on_their_own_page(
    client: TestClient,
) -> None:
    text = "3 rounds of 40/20, at 8\n  squat\n  ring row\n  rope skip\n  dead bug\n  push-up\n"
    session = client.post("/desk", data={"text": text}).url.path.rsplit("/", 1)[1]
    client.post(f"/crew/{session}/place", data={"person": 1, "group": 0})
    assert "every second hard turn" not in client.get(f"/crew/{session}/fit").text
    client.post("/people/1/stands", data={"standing": "new"})
    assert "every second hard turn, easy in the others?" in client.get(f"/crew/{session}/fit").text
    client.post(f"/crew/{session}/share", data={"person": 1, "share": "second"})
    run = client.post(f"/desk/{session}/floor").url.path
    assert "every second hard turn" in client.get(f"{run}/cards").text
    hand = re.search(r'href="[^"]*(/hand/[^"]+)"', client.get(f"{run}/screens").text)[1]
    client.post(f"{run}/happen", json={"id": "s", "kind": "start", "at_ms": 0})
    state = json.loads(re.search(r'id="state">(.*?)</script>', client.get(hand).text)[1])
    boxes = [one["box"] for one in state["moments"] if one["kind"] == "work"][:4]
    assert ["easier for you" in box for box in boxes] == [False, True, False, True]
    assert "easier for you" not in client.get(run.replace("run", "wall")).text


def test_levels_that_may_rise_are_offered_from_the_classes_that_were(client: TestClient) -> None:
    assert client.get("/crew/4/rises").text.strip() == ""  # nothing was yet
    refused = client.post("/crew/4/rise", data={"person": 1, "station": 11, "at": 0})
    assert refused.status_code == 409
    database = ready()
    season(database)
    with TestClient(create_app(Settings(), database), base_url="http://127.0.0.1") as behind:
        offered = behind.get("/crew/4/rises").text
        said = re.search(r"<b>([^<]+)</b>: ([^<]+) becomes <b>([^<]+)</b>", offered)
        assert said and "all sets done, felt no harder than asked" in offered
        fields = dict(
            re.findall(r'name="(person|station|at)" value="(\d+)"', offered.split("</form>")[0])
        )
        with database.work() as work:
            ran = [row.id for row in classes.listed(work, 40) if not row.is_try][:3]
        felt = {"person": fields["person"], "value": "10"}
        for class_id in ran:
            behind.post(f"/debrief/{class_id}/felt", data={"op": f"felt{class_id}", **felt})
        assert said[1] not in behind.get("/crew/4/rises").text  # it felt harder than was asked
        for class_id in ran:
            taken = {"op": f"back{class_id}", "person": fields["person"], "value": ""}
            behind.post(f"/debrief/{class_id}/felt", data=taken)
        behind.post("/crew/4/rise", data=fields)
        kept = behind.get(f"/people/{fields['person']}/all.json").json()["person"]
        assert kept["name"] == said[1] and said[3] in str(
            [f"{one['name']}, {one['load']:g} kg" for one in kept["does"].values() if one["load"]]
            + [one["name"] for one in kept["does"].values()]
        )


def test_what_a_move_to_another_group_costs_stands_beside_the_groups(client: TestClient) -> None:
    client.post("/hall/4/draw", data={"moved": "goal", "x": "8", "y": "9"})
    before = client.get("/crew/4").text
    assert "Even out" not in before
    people = [
        int(one)
        for one in re.findall(r'data-person="(\d+)"', before.split('aria-label="Stays away"')[0])
    ]
    for who in people[3:7]:
        page = client.post(
            "/crew/4/place", data={"person": who, "group": 0}, headers={"hx-request": "true"}
        ).text
    assert "Even out" in page and re.search(r"Turn \d: \d+ of bell", page)
    after = client.post("/crew/4/even", headers={"hx-request": "true"}).text
    assert "Even out" not in after
    waves = "every 1:00 for 6:00, half start at 0:30\n  8 swing\n"
    session = client.post("/desk", data={"text": waves}).url.path.rsplit("/", 1)[1]
    for who in (1, 2, 3, 4):
        client.post(f"/crew/{session}/place", data={"person": who, "group": who - 1})
    assert "<b>A B</b> begin, <b>C D</b>" in client.get(f"/crew/{session}").text


def test_an_order_that_was_taken_by_hand_is_placed_round_until_it_is_let_loose(
    client: TestClient,
) -> None:
    moves = ("swing", "ring row", "squat", "goblet squat", "step-up", "reverse lunge")
    text = "3 rounds of 40/20 at 7\n" + "".join(f"  {move}\n" for move in moves)
    at = client.post("/desk", data={"text": text}).url.path
    number = at.rsplit("/", 1)[1]
    for who in range(1, 7):
        client.post(f"/crew/{number}/place", data={"person": who, "group": who - 1})
    assert "order you gave" not in _placed(client, number)
    base = re.search(r'data-version="(\d+)"', client.get(at).text)
    assert base
    edit = json.dumps({"do": "order", "block": 0, "order": [1, 0, 2, 3, 4, 5]})
    client.post(f"{at}/edit", data={"edit": edit, "base": base[1]})
    ordered = _moves(client, at)
    assert "order you gave" in client.get(f"/hall/{number}").text
    placed = _placed(client, number)
    assert "the best" in placed, re.sub(r"<[^>]+>|\s+", " ", placed)
    assert _moves(client, at) == ordered
    assert "order you gave" not in body(client, f"/hall/{number}/any-order")
    client.post(f"{at}/undo")
    assert _moves(client, at) != ordered


def _placed(client: TestClient, number: str) -> str:
    """What came of a placing, however long this machine takes for it."""
    page = body(client, f"/hall/{number}/place")
    while 'data-going="1"' in page:
        page = client.get(f"/hall/{number}/placing", headers={"x-lovrit": "1"}).text
    return page


def _moves(client: TestClient, at: str) -> list[str]:
    found = re.findall(r"^  (\w.*)$", client.get(f"{at}/session.slate").text, re.MULTILINE)
    assert len(found) == 6
    return found
