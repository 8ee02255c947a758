"""The Desk that thinks along, the Moves and the Club, without a browser."""

import html
import json
import re

import pytest
from fastapi.testclient import TestClient

from lovrit.core.moves.figure import drawings, figure
from lovrit.core.moves.library import shipped
from lovrit.core.moves.names import key_of
from lovrit.web.pictures import picture

SCRIPT = {"x-lovrit": "1"}
WINTER = 4
AMRAP = (
    "title: Twenty\nslot: 30:00\n\namrap 20:00 at 9\n  20 push-up\n  30 jump squat\n  20 swing\n"
)


def new(client: TestClient, text: str) -> int:
    answer = client.post("/desk", data={"text": text}, follow_redirects=False)
    return int(re.findall(r"/desk/(\d+)", answer.headers["location"])[0])


def slate(client: TestClient, session: int) -> str:
    return client.get(f"/desk/{session}/session.slate").text


def taken(client: TestClient, session: int, page: str) -> None:
    """Take the first fit of a page, as its form does."""
    text = html.unescape(
        re.search(r'<textarea name="text" hidden>\n(.*?)</textarea>', page, re.DOTALL)[1]
    )
    client.post(f"/desk/{session}/text", data={"text": text, "base": "1"}, headers=SCRIPT)


def test_a_session_is_fitted_and_the_first_offer_taken(client: TestClient) -> None:
    page = client.get(
        f"/desk/{WINTER}/fit?figure=total&value=40:00&give=rounds&give=rest&give=breaks"
    ).text
    assert "press its number" in page and "40:00" in page
    taken(client, WINTER, page)
    assert "40:00" in client.get(f"/desk/{WINTER}").text.split("slot")[0]
    assert "quiet landings all week" in slate(client, WINTER)


def test_a_stay_in_the_hall_sets_the_slot(client: TestClient) -> None:
    session = new(client, "18 x 30/60 at 7\n  row\n\ncool-down 5:00\n")
    page = client.get(
        f"/desk/{session}/fit?figure=slot&come=18:10&leave=18:50&explain=1:00&clear=2:00"
    ).text
    taken(client, session, page)
    assert "slot: 18:10-18:50" in slate(client, session) and "setup: 3:00" in slate(client, session)


@pytest.mark.parametrize(
    ("query", "said"),
    [
        ("value=soon", "is no time"),
        ("figure=slot&come=18:10", "Say both"),
        ("figure=slot&come=25:00&leave=26:00", "no time of day"),
        ("value=90:00&give=", "Nothing does it unless"),
        ("value=20:00&give=luck", "can&#39;t give"),
    ],
)
def test_wishes_that_cannot_be_are_said_and_kept(client: TestClient, query: str, said: str) -> None:
    answer = client.get(f"/desk/{WINTER}/fit?{query}", headers=SCRIPT)
    assert answer.status_code == 200 and said in answer.text
    value = re.search(r"value=([^&]+)", query)
    assert not value or value[1] in answer.text


def test_a_block_is_recast_beside_what_it_was(client: TestClient) -> None:
    session = new(client, AMRAP)
    page = client.get(f"/desk/{session}/recast?block=0&to=every").text
    assert "Kinder" in page and "every 1:00 for 20:00" in page and "Make it a task a minute" in page
    prepared, _, edit = (
        html.unescape(one) for one in re.findall(r'name="edit" value="([^"]+)"', page)
    )
    assert (
        "a warm-up before it" in page
        and "a cool-down after it" in page
        and "step touch" in prepared
    )
    client.post(f"/desk/{session}/edit", data={"edit": edit, "base": "1"}, headers=SCRIPT)
    assert "every 1:00 for 20:00" in slate(client, session)
    client.post(f"/desk/{session}/undo", headers=SCRIPT)
    assert slate(client, session) == AMRAP
    assert "nothing in this block" in client.get(f"/desk/{new(client, '')}/recast").text


def test_a_remark_is_put_aside_with_its_reason_and_brought_back(client: TestClient) -> None:
    session = new(client, AMRAP)
    assert "that holds for about" in client.get(f"/desk/{session}").text
    fields = {"code": "pace-will-not-hold", "scope": "always", "reason": "quiet mats"}
    look = client.post(f"/desk/{session}/aside", data=fields, headers=SCRIPT).text
    assert "that holds for about" not in look and "quiet mats" in look
    assert "that holds for about" not in client.get(f"/desk/{new(client, AMRAP)}").text
    aside = re.search(r"/club/asides/(\d+)/back", client.get("/club").text)[1]
    client.post(f"/club/asides/{aside}/back")
    assert "that holds for about" in client.get(f"/desk/{session}").text
    client.post(f"/desk/{session}/aside", data={"code": "pace-will-not-hold"}, headers=SCRIPT)
    assert "that holds for about" in client.get(f"/desk/{new(client, AMRAP)}").text


def test_the_school_that_is_chosen_speaks(client: TestClient) -> None:
    session = new(client, "warm-up 6:00\n8 sets of 20/10 at 9\n  squat\n")
    assert "fades from the third" in client.get(f"/desk/{session}").text
    client.post("/club", data={"short_rest": "all-out"})
    assert "fades from the third" not in client.get(f"/desk/{session}").text
    assert client.post("/club", data={"short_rest": "perhaps"}).status_code == 409
    assert re.search(r'value="all-out" selected', client.get("/club").text)


def test_a_move_of_our_own_is_kept_drawn_used_and_let_go(client: TestClient) -> None:
    drawn = json.dumps({"start": {"arms": [90, 90]}, "end": {"legs": [-8, -112], "torso": 60}})
    fields = {
        "name": "heron stand",
        "pattern": "lunge",
        "seconds": "4",
        "cue": "Still as water.",
        "drawing": drawn,
    }
    assert client.post("/moves", data=fields | {"seconds": "0"}).status_code == 422
    refused = client.post("/moves", data=fields | {"drawing": '{"start": 3}'})
    assert (
        refused.status_code == 422
        and "drawing" in refused.text
        and "Still as water." in refused.text
    )
    client.post("/moves", data=fields)
    page = client.get("/moves/heron stand").text
    assert "Still as water." in page and "polyline" in page and "Delete our version" in page
    session = new(client, "3 rounds of 40/20\n  heron stand\n  squat\n")
    assert "not in the library" not in client.get(f"/desk/{session}").text
    assert "heron stand" in client.get(f"/desk/{session}/move?line=2").text
    assert "in 1, never run" in client.get("/moves?words=heron").text
    client.post("/moves/heron stand/let-go")
    assert "not in the library" in client.get(f"/desk/{session}").text
    assert client.get("/moves/heron stand").status_code == 404


def test_the_library_is_searched_and_kit_can_be_missing(client: TestClient) -> None:
    assert "Nothing is called that" in client.get("/moves?words=zebra").text
    found = client.get("/moves?pattern=pull&kit=rings&only=drawn").text
    assert "ring row" in found and ">swing<" not in found
    client.post("/moves/kit", data={"missing": ["bell", "sofa"]})
    assert "no bell today: hip hinge" in client.get("/moves?words=swing").text
    page = client.get(f"/desk/{WINTER}").text
    assert "No bell today: goblet squat becomes squat." in page
    client.post("/moves/kit", data={})
    assert "No bell today" not in client.get(f"/desk/{WINTER}").text


def test_a_library_comes_in_and_its_errors_are_named(client: TestClient) -> None:
    text = "name,pattern,seconds\r\nheron stand,lunge,4\r\nwaltz,dance,3\r\n"
    answer = client.post("/moves/file", files={"file": ("m.csv", text, "text/csv")}).text
    assert "1 move taken in" in answer and "Line 3: pattern" in answer
    assert client.get("/moves/heron stand").status_code == 200
    assert "heron stand,lunge," in client.get("/moves/library.csv").text
    assert json.loads(client.get("/moves/library.json").text)["heron stand"]["pattern"] == "lunge"
    assert (
        client.post("/moves/file", files={"file": ("m.csv", b"\xff\xfe", "text/csv")}).status_code
        == 409
    )


def test_how_people_stand_is_kept_and_counted(client: TestClient) -> None:
    page = client.get(f"/crew/{WINTER}").text
    assert "new, week" in page and "nothing overhead" in page
    fields = {
        "person": "1",
        "standing": "back",
        "since": "2026-11-30",
        "limits": ["jumps", "floor"],
    }
    client.post(f"/crew/{WINTER}/stand", data=fields)
    assert "just back, week 7, no jumps, not on the floor" in client.get(f"/crew/{WINTER}").text
    assert client.post(f"/crew/{WINTER}/stand", data=fields | {"since": "soon"}).status_code == 409
    assert client.post(f"/crew/{WINTER}/stand", data=fields | {"pace": "fast"}).status_code == 409
    client.post(f"/crew/{WINTER}/stand", data=fields | {"pace": "30"})
    client.post(
        f"/desk/{WINTER}/text",
        data={"text": "people: 18\n5 x 400 m, rest 2:00\n  run\n", "base": "1"},
    )
    told = client.get(f"/desk/{WINTER}?block=0").text
    assert "Of 18, 11 at their own pace: the first takes" in told
    rowed = {"text": "people: 18\n5 x 400 m, rest 2:00\n  row\n", "base": "2"}
    client.post(f"/desk/{WINTER}/text", data=rowed)
    assert "Of 18: the first takes" in client.get(f"/desk/{WINTER}?block=0").text
    client.post(f"/crew/{WINTER}/stand", data=fields | {"paces": "3 2.0 m/s, 4 2:05/500 m"})
    assert "3 2 m/s, 4 2:05/500 m" in client.get(f"/crew/{WINTER}").text
    assert (
        client.post(f"/crew/{WINTER}/stand", data=fields | {"paces": "3 quick"}).status_code == 409
    )
    client.post(f"/desk/{WINTER}/text", data={"text": "5 x 2:00/2:00 pace 3\n  run\n", "base": "3"})
    assert (
        "Pace 3, 11 of 18 have theirs: 2:00 is 240 m for the slowest"
        in client.get(f"/desk/{WINTER}?block=0").text
    )
    assert "7 of 18 have none of their own" in client.get(f"/desk/{WINTER}").text
    session = new(client, "warm-up 6:00\n5 x 12/70 at 10\n  run\n")
    for person in (1, 2):
        client.post(f"/crew/{session}/place", data={"person": person, "group": 0})
    assert "All-out, and one person is new or just back" in client.get(f"/desk/{session}").text


def test_scores_teach_the_club_its_pace(client: TestClient) -> None:
    session = new(client, "people: 4\namrap 10:00 at 7\n  10 push-up\n  10 squat\n")
    for person in (1, 2, 3, 4):
        client.post(f"/crew/{session}/place", data={"person": person, "group": 0})
    where = client.post(f"/desk/{session}/floor", follow_redirects=False).headers["location"]
    class_id = where.rsplit("/", 1)[1]
    for person, text in ((1, "5 + 3"), (2, "5 + 0"), ("", "6 + 0")):
        fields = {"op": f"s{person}", "block": "0", "text": text, "person": str(person)}
        assert client.post(f"/debrief/{class_id}/score", data=fields).status_code == 200
    assert "from <b>3</b> scores" in client.get("/club").text
    assert "slower, from 1 score<" in client.get(f"/crew/{session}").text
    assert "from 3 scores" in client.get(f"/desk/{session}?block=0").text
    assert "Anouk K 5 + 3" in client.get(f"/debrief/{class_id}").text
    client.post(f"/crew/{session}/who/none")
    for person in (1, 5):
        client.post(f"/crew/{session}/place", data={"person": person, "group": 0})
    told = client.get(f"/desk/{session}?block=0").text
    assert "1 by their own scores: the last does" in told


def test_the_whole_group_is_told_of(client: TestClient) -> None:
    for text, said in (
        ("people: 18\n5 rounds for time, cap 9:00\n  12 push-up\n  15 squat\n", "the first waits"),
        ("people: 18\namrap 10:00\n  10 push-up\n", "the last does"),
        ("people: 18\nevery 1:00 for 6:00\n  22 push-up\n", "make the fullest turn"),
        ("people: 18\n6 x 30/60\n", "6 x 30/60"),
    ):  # fmt: skip
        assert said in client.get(f"/desk/{new(client, text)}?block=0").text


def test_days_around_are_looked_at(client: TestClient) -> None:
    hard = "date: 2026-11-{}\ntitle: Day {}\nwarm-up 6:00\n12 x 1:00/1:00 at 8\n  squat\ncool-down 3:00\n"
    session = new(client, hard.format(24, 24))
    assert "still carried" not in client.get(f"/desk/{session}").text
    new(client, hard.format(25, 25))
    said = (
        "“Day 25” tomorrow asks hard work of legs, where hard work of this session, 24 hours before"
    )
    assert said in client.get(f"/desk/{session}").text


def test_the_api_fits_and_recasts(client: TestClient) -> None:
    wish = {"slate": AMRAP, "wish": {"figure": "total", "seconds": 900, "gives": ["work"]}}
    told = client.post("/api/fit", json=wish).json()
    assert told["fits"][0]["total_s"] == 900
    made = client.post("/api/recast", json={"slate": AMRAP, "to": "every"}).json()
    assert "every 1:00 for 20:00" in made["slate"]
    for path, body in (("fit", wish | {"slate": ""}), ("recast", {"slate": AMRAP, "to": "waltz"})):
        refused = client.post(f"/api/{path}", json=body)
        assert refused.status_code == 422 and refused.json()["errors"][0]["text"]


def test_every_move_is_drawn_and_stands_on_its_floor() -> None:
    assert drawings().keys() == {key_of(one.name) for one in shipped().moves}
    for name, drawn in drawings().items():
        for pose in (drawn.start, drawn.end):
            made = figure(pose)
            lowest = min(point.y for limb in made.limbs for point in limb.joints)
            assert 0 <= lowest < 0.5 and 0 < made.top < 1.7 and made.right > 0, name
        shown = picture(name)
        assert shown and all(
            -12 <= float(x) <= 112
            for line in shown.lines
            for x in re.findall(r"[-\d.]+", line.points)
        )
