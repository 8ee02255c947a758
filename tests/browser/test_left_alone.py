"""A class is run to its end with nobody pressing anything: every screen goes on by itself, and says where it is."""

import re
from uuid import uuid4

import httpx
import pytest
from playwright.sync_api import Browser, Page, expect

from tests.browser.conftest import Hall
from tests.browser.test_thread import until

pytestmark = pytest.mark.browser

# the slate, and how it ends where nobody taps: by its clocks and caps
CLASSES = {
    "stations": "warm-up 1:00 at 3\n\n3 rounds of 20/10, break 0:30, at 7\n  squat\n  plank\n  push-up\n  ring row\n",
    "sets": "4 sets of 20/10, change 0:30, at 7\n  swing\n  reverse lunge\n  push-up\n  squat\n\n"
    "rest 0:30\n\ncool-down 2:00\n",
    "turns": "every 0:30 for 8:00\n  6 swing\n  5 push-up\n\n"
    "tempo 90 to 160 in 8 steps of 10, up and down\n  line hop\n",
    "ends by a cap": "3 rounds for time, cap 2:00\n  8 squat\n\nas many as possible in 2:00, ladder 3 +3\n  swing\n\n"
    "hold ladder 10 +2 every 0:30 for 3:00\n  plank\n\n6 x 10/until 118, least 10, most 0:20 at 7\n  run\n",
    "in company": "every 0:30 for 2:00, half start at 0:15\n  8 swing\n  6 push-up\n\n"
    "as many as possible in 1:00, partners alternate\n  10 squat\n\n"
    "2 sets of 5 reps, together, rest 0:20\n  squat\n  8 ring row\n\n"
    "2 x 20/20, score best\n  max push-up\n\n2 times, rest 0:20\n  2 x 15/10\n    ball: 6 squat, 6 slam\n",
}


def begun(hall: Hall, slate: str) -> int:
    """A class of eight in four groups, on the floor and started."""
    with httpx.Client(base_url=hall.url, timeout=30) as client:
        desk = client.post("/desk", data={"text": slate}).headers["location"]
        number = desk.rsplit("/", 1)[1]
        for who in range(1, 9):
            client.post(f"/crew/{number}/place", data={"person": who, "group": (who - 1) // 2})
        made = client.post(f"/desk/{number}/floor").headers["location"].rsplit("/", 1)[1]
        press(client, int(made), "start")
    return int(made)


def press(client: httpx.Client, class_id: int, kind: str, **fields: object) -> None:
    said = {"id": uuid4().hex, "kind": kind, "at_ms": 0} | fields
    assert client.post(f"/run/{class_id}/happen", json=said).json()["refused"] is None


def opened(hall: Hall, browser: Browser, class_id: int) -> dict[str, Page]:
    """The coach's screen, the wall, a station, a screen that was joined, two people's own pages."""
    listed = httpx.get(f"{hall.url}/run/{class_id}/screens").text
    screens = re.findall(r'href="[^"]*?(/screen/[^"]+)"', listed)
    hands = re.findall(r'href="[^"]*?(/hand/[^"]+)"', listed)
    addresses = {
        "coach": f"/run/{class_id}", "wall": f"/wall/{class_id}", "station": f"/station/{class_id}/1",
        "joined": screens[0], "hand": hands[0], "other hand": hands[5],
    }  # fmt: skip
    return {name: hall.page(browser, address) for name, address in addresses.items()}


# where a screen is, what its clock says, and whether anything is told to do
LOOKS = """() => [run.drawn.split(" ")[1], document.getElementById("time").innerText,
  document.querySelector("#stands li") ? "stations" : document.getElementById("what").innerText]"""


def follows(hall: Hall, class_id: int, page: Page, name: str) -> None:
    """A screen is where the class is by now, and its clock says something."""
    live = hall.floor.live(class_id)
    for _ in range(100):
        there, here = live.told(hall.clock()).going.place, page.evaluate(LOOKS)
        if there in (here[0], "over"):
            break
        page.wait_for_timeout(50)
    assert there in (here[0], "over"), (name, there, here)
    assert here[1] and here[2], name  # whatever it is, everybody is told something


@pytest.mark.parametrize("kind", CLASSES)
def test_every_screen_goes_on_to_the_end(hall: Hall, browser: Browser, kind: str) -> None:
    class_id = begun(hall, CLASSES[kind])
    pages = opened(hall, browser, class_id)
    live = hall.floor.live(class_id)
    for _ in range(90):
        hall.on(37)
        if live.told(hall.clock()).going.phase == "over":
            break
        for name, page in pages.items():
            follows(hall, class_id, page, name)
    assert live.going.phase == "over"
    for name, page in pages.items():
        expect(page.locator("#what"), name).to_have_text("done")


def test_somebody_moves_stops_and_comes_back_on_every_screen(hall: Hall, browser: Browser) -> None:
    class_id = begun(hall, CLASSES["stations"].removeprefix("warm-up 1:00 at 3\n\n"))
    pages = opened(hall, browser, class_id)
    hall.on(8)
    mine, wall, coach = pages["hand"], pages["wall"], pages["coach"]
    expect(mine.locator(".me")).to_contain_text("A")
    expect(mine.locator("#stands")).to_contain_text("quat")
    with httpx.Client(base_url=hall.url) as client:
        press(client, class_id, "moves", person=1, group="B")
        expect(mine.locator(".me .patch")).to_have_text("B")
        expect(mine.locator("#stands")).to_contain_text("lank")
        expect(coach.locator('dd[data-group="B"] [data-person="1"]')).to_be_visible()
        expect(wall.locator("#stands li").first).to_contain_text("A")
        press(client, class_id, "stops", person=2)  # the last one of A
        expect(wall.locator("#stands li").first.locator(".patch")).to_have_text(["D"])
        press(client, class_id, "stops", person=1)
        expect(mine.locator("#what")).to_have_text("stopped")
        expect(mine.locator("#stands")).to_be_empty()
        expect(mine.locator("#felt")).to_be_visible()
        press(client, class_id, "returns", person=1)
        expect(mine.locator("#stands")).to_contain_text("lank")
        expect(mine.locator("#felt")).to_be_hidden()


def test_who_is_done_sees_it_and_takes_it_back(hall: Hall, browser: Browser) -> None:
    class_id = begun(hall, "3 rounds for time, cap 8:00\n  12 ring row\n  16 squat\n")
    pages = opened(hall, browser, class_id)
    mine = pages["hand"]
    expect(mine.locator("#felt")).to_be_hidden()
    hall.on(5 + 7)
    with httpx.Client(base_url=hall.url) as client:
        press(client, class_id, "hold")
        hall.on(25)
        press(client, class_id, "resume")
    mine.get_by_role("button", name="done").click()
    expect(mine.locator("#what")).to_have_text("done 0:07")  # what was held counts for nobody
    mine.get_by_role("button", name="Take back").click()
    expect(mine.get_by_role("button", name="Take back")).to_have_count(0)
    until(mine, "!run.presses.waiting.length")
    assert mine.locator("#what").inner_text() == "work"


def test_space_presses_what_has_the_focus(hall: Hall, browser: Browser) -> None:
    class_id = begun(hall, CLASSES["stations"])
    coach = opened(hall, browser, class_id)["coach"]
    hall.on(10)
    for name, dialog in (("Someone stops", "#who-stops"), ("All", "#more")):
        coach.get_by_role("button", name=re.compile(f"^{name}")).first.focus()
        coach.keyboard.press("Space")
        expect(coach.locator(dialog)).to_be_visible()
        assert coach.evaluate("run.view.phase") == "on"
        coach.keyboard.press("Escape")
    coach.locator("[data-do=sound]").first.focus()
    coach.keyboard.press("Space")
    expect(coach.locator("#controls [data-do=sound]")).to_have_attribute("aria-pressed", "true")
    assert coach.evaluate("run.view.phase") == "on"


def test_a_screen_that_cannot_be_heard_says_so(hall: Hall, browser: Browser) -> None:
    class_id = begun(hall, CLASSES["stations"])
    context = browser.new_context()
    wall = context.new_page()
    wall.goto(f"{hall.url}/wall/{class_id}")
    wall.get_by_role("button", name="Sound").click()
    until(wall, "run.sound.heard")
    wall.reload()
    until(wall, "run.sound.on")  # it was on before
    wall.evaluate("run.sound.context.suspend()")
    expect(wall.locator("#said")).to_contain_text("can’t be heard yet")
    wall.locator("#time").click()
    until(wall, "run.sound.heard")
    expect(wall.locator("#said")).to_have_text("")
    context.close()


def test_a_team_hands_over_on_its_phones_and_takes_it_back(hall: Hall, browser: Browser) -> None:
    class_id = begun(hall, "4 rounds for time, teams of 2, one works, cap 8:00\n  12 ring row\n")
    pages = opened(hall, browser, class_id)
    hall.on(8)
    mine, wall = pages["hand"], pages["wall"]
    expect(mine.locator("#what")).to_have_text("you work")
    expect(wall.locator("#lanes li")).to_have_count(4)
    before = wall.locator("#lanes li").first.inner_text()
    mine.get_by_role("button", name="change").click()
    expect(mine.locator("#what")).to_have_text("you rest")
    expect(wall.locator("#lanes li").first).not_to_have_text(before)
    mine.get_by_role("button", name=re.compile("take back", re.IGNORECASE)).click()
    expect(mine.locator("#what")).to_have_text("you work")
