"""Every structure on the floor as what it is: walked on the wall, tapped by the coach, made late, ended on time."""

import re
from typing import Any
from uuid import uuid4

import httpx
import pytest
from playwright.sync_api import BrowserContext, Page, expect

from tests.browser.conftest import Here, Server
from tests.browser.test_thread import until

pytestmark = pytest.mark.browser

ALL = """title: All of it
slot: 70:00

warm-up 6:00 at 3
  easy laps

2 rounds of 40/20, break 1:00, at 8
  goblet squat
  ring row, left then right
  ball: 20 chest pass, 20 slam

every 1:00 for 4:00
  8 swing
  6 push-up

as many as possible in 6:00, ladder 3 +3
  swing
  box step-up

3 rounds for time, cap 6:00
  12 ring row
  16 hollow rock

3 x 200 m, rest 0:40
  run

3 x 30/until 118, least 10, most 1:00 at 7
  run

every 1:00 for 3:00, half start at 0:30
  8 goblet squat

tempo 90 to 120 in 3 steps of 20
  line hop

2 sets of 8 reps, rest 0:45
  split squat

as many as possible in 4:00, partners alternate
  10 squat

hold ladder 10 +10 every 1:00 for 3:00
  plank

cool-down 4:00
"""
# what the wall says of each block, by its first words; whether its clock counts up; how many lanes it tells of
WALL = (
    ("warm-up", "easy laps", False, 0),
    ("work", "1 goblet squat", False, 0),
    ("work", "8 swing", False, 0),
    ("work", "3 swing", False, 0),
    ("work", "12 ring row", True, 0),
    ("work", "200 m run", True, 3),
    ("work", "run", False, 0),
    ("work", "8 goblet squat", False, 0),
    ("work", "line hop", False, 0),
    ("work", "8 split squat", False, 0),
    ("work", "10 squat", False, 3),
    ("work", "plank", False, 0),
    ("cool-down", "", False, 0),
)
BLOCKS = ALL.split("\n\n")[1:]
HEALTH = re.compile(
    r"\b(heart|bpm|beats|medicine|pregnan|asthma|knee|ankle|Cilla|Emrys|Anouk)", re.IGNORECASE
)


class Class:
    """A class of nine people in three groups that was opened, and what is pressed in it from elsewhere."""

    def __init__(self, server: Here, text: str) -> None:
        self.client = httpx.Client(base_url=server.url)
        desk = self.client.post("/desk", data={"text": text}).headers["location"]
        session = desk.rsplit("/", 1)[1]
        for nth in range(1, 10):
            place = {"person": nth, "group": (nth - 1) // 3}
            self.client.post(f"/crew/{session}/place", data=place)
        self.path = self.client.post(f"{desk}/floor").headers["location"]
        self.id = self.path.rsplit("/", 1)[1]

    def happens(self, kind: str, **fields: object) -> dict[str, Any]:
        body = {"id": uuid4().hex, "kind": kind, "at_ms": 0, **fields}
        told: dict[str, Any] = self.client.post(f"{self.path}/happen", json=body).json()
        return told


def seconds_of(page: Page) -> int:
    minutes, seconds = page.locator("#time").inner_text().split(":")
    return int(minutes) * 60 + int(seconds)


def test_every_structure_is_walked_on_the_wall(
    page: Page, context: BrowserContext, server: Here
) -> None:
    made = Class(server, ALL)
    made.happens("start")
    made.happens("next")
    page.goto(f"{server.url}/wall/{made.id}")
    coach, station = context.new_page(), context.new_page()
    coach.goto(f"{server.url}/run/{made.id}")
    station.goto(f"{server.url}/station/{made.id}/2")
    for nth, (word, does, up, lanes) in enumerate(WALL):
        if nth:
            assert made.happens("skip-block")["refused"] is None
        expect(page.locator("#what")).to_have_text(word)
        if does:
            expect(page.locator("#stands li").first).to_contain_text(does)
        if "half start" in BLOCKS[nth]:
            expect(page.locator("#stands li .half")).to_have_text(["first half", "second half"])
            expect(page.locator("#stands li .says").last).to_contain_text("in 0:")
            expect(coach.locator("#stands li .says").last).to_contain_text("in 0:")
        expect(page.locator("#lanes li")).to_have_count(lanes)
        before = seconds_of(page)
        until(
            page,
            f"document.getElementById('time').textContent !== '{page.locator('#time').inner_text()}'",
        )
        assert (seconds_of(page) > before) == up, word
        for screen in (page, station):
            text = screen.locator("#run").inner_text()
            for cue in screen.locator(".cue").all_inner_texts():
                text = text.replace(cue, "")  # what a move must look like may name a knee
            assert not HEALTH.search(text), (word, screen.url)
        expect(coach.locator("#what")).to_have_text(word)
        if nth == 1:
            expect(station.locator("#stands li")).to_have_count(1)
            expect(station.locator("#stands li")).to_contain_text("ring row")
    made.happens("end")
    expect(page.locator("#what")).to_have_text("done")


def test_taps_are_counted_shown_and_taken_back(page: Page, server: Here) -> None:
    made = Class(server, ALL)
    made.happens("start")
    made.happens("next")
    for _ in range(3):
        made.happens("skip-block")
    page.goto(f"{server.url}{made.path}")
    rounds = page.locator("#taps [data-lane=A]")
    rounds.click()
    expect(page.locator("#stands li").first).to_contain_text("6 swing")
    rounds.click()
    expect(rounds.locator(".count")).to_have_text("2")
    page.keyboard.press("u")
    expect(rounds.locator(".count")).to_have_text("1")
    made.happens("skip-block")
    page.locator("#taps [data-lane='1']").click()
    expect(page.locator("#where")).to_contain_text("1 of 9 are done")
    expect(page.locator("#taps [data-lane='1']")).to_be_disabled()
    made.happens("skip-block")
    page.goto(f"{server.url}{made.path}/screens")
    own = page.locator("a[href*='/hand/']").nth(3).get_attribute("href") or ""
    hand = page.context.new_page()
    hand.goto(own)
    hand.locator("#taps button").click()  # one of three of B is in: the others are still out
    expect(hand.locator("#taps [data-tap]")).to_have_count(0)
    expect(hand.locator("#taps")).to_contain_text("Take back")
    assert not HEALTH.search(hand.locator("#run").inner_text().replace("beats", ""))
    page.goto(f"{server.url}{made.path}")
    alone = page.locator("#taps [data-lane='4']")  # who has come in rests from then on, alone
    expect(alone).to_contain_text("starts in 0:")
    page.locator("#taps [data-lane=B]").click()
    expect(page.locator("#taps [data-lane=B]")).to_contain_text("starts in 0:")
    expect(page.locator("[data-do=undo]")).to_contain_text("Undo “in”")
    page.locator("[data-do=undo]").click()
    expect(page.locator("#taps [data-lane=B]")).to_be_enabled()


def test_a_class_made_late_with_everything_going_wrong_ends_on_time_and_its_debrief_tells_it(
    page: Page, context: BrowserContext, mortal: Server
) -> None:
    """Late twice, a ring that broke, one who stops, one who comes late, the server killed once."""
    made = Class(mortal, ALL)
    wall = context.new_page()
    wall.goto(f"{mortal.url}/wall/{made.id}")
    page.goto(f"{mortal.url}{made.path}")
    page.get_by_label("all here").check()
    page.keyboard.press("Space")
    page.keyboard.press("ArrowRight")
    until(page, "run.server.moments[0].place === '0.0'")
    made.happens("skip-block")
    until(page, "run.server.moments[0].place === '1.0'")
    ends = page.evaluate("run.server.ends_ms")
    for late_s in (70, 130):
        made.happens("due", due_ms=ends - late_s * 1000)
        expect(page.locator("#late")).to_contain_text("past")
        page.locator("#late [data-way]").first.click()
        expect(page.locator("#late")).to_be_hidden()
        assert page.evaluate("run.server.ends_ms - run.server.due_ms") <= 5000

    page.keyboard.press("o")
    page.locator("form[data-happens=replace] select").select_option("ring row")
    page.locator("form[data-happens=replace] input").fill("bench pull")
    page.get_by_role("button", name="For the rest of the class").click()
    expect(wall.locator("#stands")).to_contain_text("bench pull")
    page.keyboard.press("o")
    page.locator("form[data-happens=joins] select").first.select_option(label="Keir")
    page.locator("form[data-happens=joins] select").last.select_option("B")
    page.get_by_role("button", name="Comes in").click()
    expect(page.locator(".threads .initials")).to_have_count(10)
    hold = page.locator("[data-do=start]")
    stood = {}
    for width in (390, 1280):
        page.set_viewport_size({"width": width, "height": 844})
        stood[width] = hold.bounding_box()
    page.keyboard.press("s")
    page.locator("#who-stops [data-person='3']").click()
    expect(page.get_by_role("button", name="Why did Cilla stop?")).to_be_visible()
    for width in (390, 1280):  # nothing moves from under a finger
        page.set_viewport_size({"width": width, "height": 844})
        assert hold.bounding_box() == stood[width]
    page.set_viewport_size({"width": 1280, "height": 800})
    expect(page.locator(".people [data-person='3']")).to_have_attribute("data-stopped", "")
    page.keyboard.press("Space")  # nobody waits for why: the class is held, and goes on
    expect(page.locator("#what")).to_have_text("held")
    page.keyboard.press("Space")
    expect(page.locator("#what")).not_to_have_text("held")
    page.keyboard.press("w")
    expect(page.locator("#why-title")).to_have_text("Cilla stopped")
    page.set_viewport_size({"width": 390, "height": 844})
    for seen in ("Somebody is unwell press long", "had to leave"):
        expect(page.locator("#why-stopped").get_by_role("button", name=seen)).to_be_in_viewport(
            ratio=1
        )
    page.set_viewport_size({"width": 1280, "height": 800})
    page.get_by_role("button", name="knee", exact=True).click()
    until(page, "run.view.undo?.said === 'the reason'")

    extra = context.browser.new_context()
    extra.new_page().goto(f"{mortal.url}/station/{made.id}/1")
    until(page, "run.coach.heard > 1")
    extra.close()
    expect(page.locator("#walls")).to_contain_text("a screen is gone", timeout=6000)

    mortal.kill()
    expect(page.locator("#said")).to_contain_text("not reached", timeout=6000)
    page.keyboard.press("m")
    mortal.start()
    until(page, "!run.presses.waiting.length", 12_000)
    expect(page.locator("#stands")).to_contain_text("bench pull")
    for _ in range(12):
        made.happens("skip-block")
    expect(page.locator("#what")).to_have_text("done")
    page.get_by_role("link", name="To the debrief").click()
    expect(page.locator("main")).to_contain_text("10 came")
    expect(page.locator("main")).to_contain_text("1 stopped (Cilla)")
    told = page.locator(".chronicle").inner_text()
    for said in (
        "to end on time:",
        "ring row became bench pull",
        "Keir came late, into B",
        "Cilla stopped for: knee",
        "marked",
    ):
        assert said in told, (said, told)


LARGE = """title: Walls

2 rounds of 40/20 at 8
  goblet squat @ 16 kg
  ring row, left then right
  bench step-up, each side
  ball: 20 chest pass, 20 slam

2 rounds of 40/20 at 8
  goblet squat
  ring row
  bench step-up
  medicine ball slam
  plank
  side step

2 rounds of 40/20, break 0:20 at 8
  goblet squat
  ring row
  bench step-up
  medicine ball slam
  plank
  side step
  push-up
  swing
  dead bug
  hip bridge
  rope skip
  band pull

every 1:00 for 12:00 at 7
  8 push-up

every 1:00 for 6:00, half start at 0:30
  8 swing
  6 push-up

as many as possible in 12:00 at 7
  18/14 cal row
  6 strict press each side
  then
  12 push press @ 40 kg

21-15-9 for time, cap 12:00
  thruster @ 30 kg
  pull-up

3 x 400 m, rest 1:30
  run

4 sets of 6 reps, together, rest 2:00
  squat @ 80%
  8 ring row

4 x 30/until 118, least 10, most 1:00
  squat

4 x 30/15
  ball: 6 squat, 6 push-up, 6 slam

as many as possible in 8:00, partners alternate
  10 squat

tempo 90 to 120 in 3 steps of 20
  squat

rest 2:00

steady 6:00 at 3
  easy laps
  hip circles
  reach and twist
"""
SIZES = ((1920, 1080), (1280, 800), (1024, 768), (1080, 1920), (768, 1024))
MEASURED = """() => {
  const px = (e) => parseFloat(getComputedStyle(e).fontSize);
  const seen = (e) => e.offsetParent !== null && e.textContent.trim() && !e.closest(".corner, .visually-hidden");
  const boards = document.querySelector(".boards");
  const names = [...boards.querySelectorAll(".station-name")];
  const size = parseFloat(boards.style.getPropertyValue("--size")); // a last line's box reaches below its letters
  const under = boards.querySelector('.stands:not([data-together="1"]) > li + li') ? 0.1 * size : 0;
  const parts = () => [boards, ...boards.querySelectorAll(".stands, .lanes, li")];
  const wide = () => [...parts(), ...boards.querySelectorAll(".station-name")];
  const over = () => wide().some((e) => e.scrollWidth > e.clientWidth + 1)
    || parts().some((e) => e.scrollHeight > e.clientHeight + 1 + under);
  const now = over();
  boards.style.setProperty("--size", `${size * 1.1 + 2}px`);
  const larger = over();
  boards.style.setProperty("--size", `${size}px`);
  const every = document.querySelectorAll("#run p, #run li :is(span, small, b, em, i)");
  const texts = [...every].filter(seen);
  const root = document.documentElement;
  const box = (e) => e.getBoundingClientRect();
  const across = (a, b) => Math.min(a.right, b.right) - Math.max(a.left, b.left) > 2
    && Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top) > 0.12 * size + 2;
  const every_part = boards.querySelectorAll(".stands > li > *, .stands .here > *, .lanes > li");
  const shown = [...every_part].filter((e) => box(e).width);
  const laid = shown.filter((e) => !shown.some((one) => one !== e && e.contains(one)));
  const called = (e) => `${e.getAttribute("class")} ${e.textContent.trim()}`;
  const cross = laid.flatMap((one, nth) => laid.slice(nth + 1).filter((other) => across(box(one), box(other)))
    .map((other) => `${called(one)} over ${called(other)}`));
  return {
    cross, over: now, larger: larger || size > innerHeight * 0.41, lines: names.length,
    name: Math.min(...names.map(px)), clock: px(document.getElementById("time")),
    smallest: Math.min(...texts.map(px)), small: Math.min(innerWidth, innerHeight),
    page: [root.scrollWidth - innerWidth, root.scrollHeight - innerHeight],
  };
}"""


def test_a_wall_fills_the_wall_at_any_size(page: Page, server: Here) -> None:
    """Clock, what to do, where to go: as large as there is room for, of every structure, and nothing cut."""
    made = Class(server, LARGE)
    page.goto(f"{server.url}/wall/{made.id}")
    made.happens("start")
    made.happens("next")
    seen = []
    for nth in range(LARGE.count("\n\n")):
        if nth:
            made.happens("skip-block")
        until(page, f"run.view.moments[0].block === {nth}")
        for width, height in SIZES:
            page.set_viewport_size({"width": width, "height": height})
            page.evaluate("run.drawn = ''; run.tick()")
            found = page.evaluate(MEASURED)
            where = (nth, width, height, found)
            assert not found["over"] and found["larger"], where
            assert not found["cross"], where
            assert max(found["page"]) <= 1, where
            assert found["clock"] >= found["small"] * 300 / 1080, where
            if found["lines"]:
                least = {1: 150, 2: 110, 3: 84}.get(
                    found["lines"], 60 if found["lines"] <= 6 else 40
                )
                if (width, height) == SIZES[0] and found["lines"] <= 6:
                    least = 109  # ten metres
                upright = 0.7 if height > width else 0.97  # longer names wrap on half the width
                assert found["name"] >= upright * found["small"] * least / 1080, where
            seen.append(found["smallest"] / found["small"] * 1080)
    assert min(seen) >= 20, min(seen)
