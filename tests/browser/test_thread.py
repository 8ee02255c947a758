"""What a coach does of an evening, start to end, in real browsers."""

import json
import re
from pathlib import Path

import pytest
from playwright.sync_api import BrowserContext, Page, expect

from tests.browser.conftest import Here, Server

pytestmark = pytest.mark.browser
AXE = Path(__file__).parents[2] / "node_modules" / "axe-core" / "axe.min.js"
SHORT = """title: Short and sweet
slot: 10:00

warm-up 0:05 at 3

2 rounds of 0:08/0:04, break 0:05, at 8   # quick
  squat
  ring row
  plank

as many as possible in 0:05
  5 swing
"""


def until(page: Page, expression: str, timeout: int = 30_000, said: str = "") -> None:
    """Wait for something to be so; asked from outside, since the content policy lets no page evaluate text."""
    for _ in range(timeout // 50):
        if page.evaluate(expression):
            return
        page.wait_for_timeout(50)
    raise AssertionError(f"{expression} {said}")


def slate_of(page: Page) -> str:
    return page.evaluate("desk.editor.state.doc.toString()")


def write(page: Page, text: str) -> None:
    page.locator(".cm-content").click()
    page.keyboard.press("Control+a")
    page.keyboard.insert_text(text)


def settled(page: Page) -> None:
    until(page, "desk.pending.empty && !desk.busy")


def new_session(page: Page, server: Here, text: str) -> str:
    page.goto(f"{server.url}/desk")
    page.get_by_role("button", name="New session").click()
    page.wait_for_selector(".cm-content")
    write(page, text)
    settled(page)
    return page.url


def hold_to_end(page: Page) -> None:
    """End a class: E is held for a second, so that nothing ends one by mistake."""
    page.keyboard.down("e")
    until(page, "run.view.phase === 'over'")
    page.keyboard.up("e")


def drag(page: Page, selector: str, dx: float, dy: float) -> None:
    box = page.locator(selector).first.bounding_box()
    assert box
    x, y = box["x"] + box["width"] / 2, box["y"] + min(box["height"] / 2, 14)
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + dx / 2, y + dy / 2, steps=4)
    page.mouse.move(x + dx, y + dy, steps=4)
    page.mouse.up()


def no_serious_findings(page: Page) -> None:
    """axe-core, run in the page's own world, since the content policy keeps foreign scripts out."""
    page.evaluate(AXE.read_text("utf-8"))
    found = page.evaluate("axe.run().then(done => done.violations)")
    serious = [one for one in found if one["impact"] in ("serious", "critical")]
    said = [(one["id"], [node["html"][:90] for node in one["nodes"][:3]]) for one in serious]
    assert not serious, json.dumps(said, indent=1)


def test_the_whole_thread_on_two_screens_with_the_server_killed(
    page: Page, context: BrowserContext, mortal: Server
) -> None:
    new_session(page, mortal, SHORT)
    expect(page.locator("h1")).to_have_text("Short and sweet")
    expect(page.locator("#readout")).to_contain_text("1:23 of a 10:00 slot")
    page.locator(".cm-line", has_text="2 rounds").click()
    expect(page.locator(".rails .names li")).to_have_count(3)
    page.locator('[data-why="total"]').click()
    expect(page.locator("#why")).to_contain_text("= 1:23")
    page.keyboard.press("Escape")

    page.get_by_role("link", name="Who").click()
    expect(page.locator(".group")).to_have_count(0)
    for nth in range(1, 6):
        page.locator(f"#to-{nth}").select_option("0" if nth < 4 else "1")
        expect(page.locator(f".groups #to-{nth}")).to_have_count(1)
    expect(page.locator(".readout")).to_contain_text("5 people")
    page.locator("#groups").fill("3")
    page.get_by_role("button", name="Make groups").click()
    expect(page.locator(".group")).to_have_count(3)

    page.get_by_role("button", name="Take to the floor").click()
    page.wait_for_selector("#run[data-phase=ready]")
    expect(page.locator("#ready")).to_contain_text("chest pain")
    class_url = page.url
    wall = context.new_page()
    wall.goto(class_url.replace("/run/", "/wall/"))
    page.bring_to_front()
    page.keyboard.press("Space")
    expect(page.locator("#what")).to_have_text("get ready")
    expect(wall.locator("#what")).to_have_text("get ready")
    expect(page.locator("#what")).to_have_text("warm-up")
    expect(wall.locator("#what")).to_have_text("warm-up")

    page.keyboard.press("ArrowRight")
    expect(wall.locator("#what")).to_have_text("work")
    expect(wall.locator("#stands li").first).to_contain_text("squat")
    expect(wall.locator("#stands li").first).to_contain_text("A")
    page.keyboard.press("+")
    for screen in (page, wall):
        until(screen, "run.view.moments[0].zero - run.view.moments[0].began === 18000")
    times = [int(re.sub(r"\D", "", one.locator("#time").inner_text())) for one in (page, wall)]
    assert abs(times[0] - times[1]) <= 1

    mortal.kill()
    expect(page.locator("#said")).to_contain_text("not reached")
    expect(page.locator("#what")).to_have_text("work")
    before = page.locator("#time").inner_text()
    until(page, f"document.getElementById('time').textContent !== '{before}'")
    page.keyboard.press("Space")
    expect(page.locator("#what")).to_have_text("held")
    mortal.start()
    expect(wall.locator("#what")).to_have_text("held")
    until(page, "run.presses.waiting.length === 0")
    held = page.locator("#time").inner_text()
    page.reload()
    expect(page.locator("#what")).to_have_text("held")
    expect(page.locator("#time")).to_have_text(held)
    page.keyboard.press("Space")
    expect(wall.locator("#what")).to_have_text("work")

    expect(page.locator(".threads .initials")).to_have_count(5)
    expect(page.locator(".bead")).not_to_have_count(0)
    assert wall.locator(".bead, .initials").count() == 0
    page.keyboard.press("s")
    page.locator("#who-stops [data-person]").first.click()
    expect(page.locator(".threads .thread.stopped")).to_have_count(1)
    page.keyboard.press("ArrowRight")
    page.keyboard.press("ArrowRight")
    until(page, "!run.presses.waiting.length")
    hold_to_end(page)
    expect(page.locator("#what")).to_have_text("done")
    expect(wall.locator("#what")).to_have_text("done")

    page.get_by_role("link", name="To the debrief").click()
    expect(page.locator(".readout")).to_contain_text("5 came, 1 stopped")
    with page.expect_response(lambda answer: "/score" in answer.url):
        page.locator(".class-score [name=text]").first.fill("3 + 2")
        page.keyboard.press("Enter")
    expect(page.locator(".class-score [name=text]").first).to_have_value("3 + 2")
    page.locator(".felt input[name=value]").first.fill("8")
    page.keyboard.press("Enter")
    expect(page.locator(".readout")).to_contain_text("effort felt 8")
    page.locator("#note").fill("Quiet landings, good.")
    with page.expect_navigation():
        page.locator(".note button").click()
    page.goto(f"{mortal.url}/debrief")
    page.get_by_role("link", name="Short and sweet").click()
    expect(page.locator("#note")).to_have_value("Quiet landings, good.")


def test_typing_dragging_scrubbing_and_undo_in_their_order_also_after_a_reload(
    page: Page, server: Here
) -> None:
    new_session(page, server, SHORT)
    page.locator(".cm-line", has_text="2 rounds").click()
    expect(page.locator(".rails .names li")).to_have_count(3)
    drag(page, '.station[data-move="0"]', 0, 130)
    settled(page)
    assert [line for line in slate_of(page).splitlines() if line.startswith("  ")][:3] == [
        "  ring row",
        "  plank",
        "  squat",
    ]
    assert "# quick" in slate_of(page)
    drag(page, '[data-scrub][data-figure="work"]', 60, 0)
    settled(page)
    assert re.search(r"^2 rounds of 1:08/0:04, break", slate_of(page), re.MULTILINE)
    page.locator('[data-scrub][data-figure="break"]').focus()
    page.keyboard.press("ArrowUp")
    settled(page)
    assert "break 0:10" in slate_of(page)
    page.keyboard.type("1:00")
    page.keyboard.press("Enter")
    settled(page)
    assert "break 1:00" in slate_of(page)
    drag(page, '.rails .handle[data-figure="rest"]', 40, 0)
    settled(page)
    assert "/0:04" not in slate_of(page)
    page.locator(".cm-line", has_text="title").click()
    page.keyboard.press("End")
    page.keyboard.type(" indeed")
    settled(page)
    page.reload()
    page.wait_for_selector(".cm-content")
    texts = [slate_of(page)]
    while page.locator("#steps button", has_text="Undo").is_enabled():
        page.locator("#steps button", has_text="Undo").click()
        settled(page)
        texts.append(slate_of(page))
    assert texts[1] == texts[0].replace(" indeed", "")
    assert "break 1:00" in texts[2] and "/0:04" in texts[2]
    assert texts[-1] == "" and SHORT in texts
    page.keyboard.press("Control+y")
    settled(page)
    assert slate_of(page) == SHORT


def test_an_error_stands_at_its_line_and_the_nearest_is_taken_at_a_key(
    page: Page, server: Here
) -> None:
    new_session(page, server, SHORT)
    page.locator(".cm-line", has_text="2 rounds").click()
    page.keyboard.press("Home")
    page.keyboard.insert_text("2 runds of 40/20 at 8 # ")
    expect(page.locator("#problems")).to_contain_text("2 runds")
    expect(page.locator(".cm-lintRange-error")).to_have_count(1)
    expect(page.locator(".rails .names li").first).to_contain_text("squat")
    expect(page.locator("#readout")).to_contain_text("as it last could be read")
    assert "2 runds of 40/20" in slate_of(page)
    page.keyboard.press("Alt+Enter")
    settled(page)
    assert "2 rounds of 40/20 at 8" in slate_of(page)
    expect(page.locator("#problems .problem")).to_have_count(0)


def test_a_fix_of_the_second_look_is_pressed_and_undone(page: Page, server: Here) -> None:
    page.goto(f"{server.url}/desk/4")
    page.wait_for_selector(".cm-content")
    before = slate_of(page)
    look = page.locator("#look li", has_text="Everything is in it but a hinge")
    look.get_by_role("button", name="hip hinge").click()
    expect(look).to_have_count(0)
    settled(page)
    assert slate_of(page) != before
    page.locator("#steps button", has_text="Undo").click()
    settled(page)
    assert slate_of(page) == before


def test_two_windows_follow_one_another(page: Page, context: BrowserContext, server: Here) -> None:
    url = new_session(page, server, SHORT)
    other = context.new_page()
    other.goto(url)
    other.wait_for_selector(".cm-content")
    page.locator(".cm-line", has_text="warm-up").click()
    page.keyboard.press("End")
    page.keyboard.type(" # in one")
    expect(other.locator(".cm-content")).to_contain_text("# in one")
    other.locator(".cm-line", has_text="5 swing").click()
    other.keyboard.press("End")
    other.keyboard.type(" # in other")
    expect(page.locator(".cm-content")).to_contain_text("# in other")
    settled(page)
    assert slate_of(page) == slate_of(other)


def test_what_was_typed_while_the_server_was_away_is_kept(page: Page, mortal: Server) -> None:
    new_session(page, mortal, SHORT)
    mortal.kill()
    page.locator(".cm-line", has_text="5 swing").click()
    page.keyboard.press("End")
    page.keyboard.type(" # while away")
    expect(page.locator("#said")).to_contain_text("Not reached")
    mortal.start()
    until(page, "desk.pending.empty && !desk.busy")
    page.reload()
    page.wait_for_selector(".cm-content")
    assert "# while away" in slate_of(page)


def test_the_thread_by_keyboard_alone(page: Page, server: Here) -> None:
    page.goto(f"{server.url}/desk/4")
    page.wait_for_selector(".cm-content")

    def tab_to(selector: str, most: int = 60) -> None:
        for _ in range(most):
            page.keyboard.press("Tab")
            if page.evaluate("s => document.activeElement?.matches(s)", selector):
                return
        raise AssertionError(f"the keyboard never reaches {selector}")

    tab_to(".station[data-move='1']", 80)
    page.keyboard.press("Alt+ArrowDown")
    settled(page)
    until(page, "document.activeElement?.dataset.key === 'station-2'")
    tab_to("[data-scrub][data-figure='work'], .station", 3)
    page.keyboard.press("Control+z")
    settled(page)
    page.evaluate("document.getElementById('main').focus()")
    page.locator("body").press("?")
    expect(page.locator("#keys")).to_be_visible()
    page.keyboard.press("Escape")
    tab_to("#floor-form button")
    page.keyboard.press("Enter")
    page.wait_for_selector("#run")
    page.keyboard.press("Space")
    expect(page.locator("#what")).to_have_text("get ready")
    page.keyboard.press("ArrowRight")
    page.keyboard.press("ArrowRight")
    expect(page.locator("#what")).to_have_text("work")
    hold_to_end(page)
    expect(page.locator("#what")).to_have_text("done")
    tab_to("a[href^='/debrief/']")
    page.keyboard.press("Enter")
    expect(page.locator("h1")).to_contain_text("Winter hall 4")


@pytest.mark.parametrize("path", ["/desk/4", "/desk", "/crew/4", "/debrief", "/nothing", "/run"])
def test_no_screen_has_serious_findings(page: Page, server: Here, path: str) -> None:
    page.goto(server.url + path)
    page.wait_for_load_state("load")
    no_serious_findings(page)


def test_no_running_screen_has_serious_findings(page: Page, server: Here) -> None:
    page.goto(f"{server.url}/desk/3")
    page.get_by_role("button", name="Take to the floor").click()
    page.wait_for_selector("#run")
    no_serious_findings(page)
    url = page.url
    page.keyboard.press("Space")
    until(page, "run.view.phase === 'on'")
    expect(page.locator(".threads .initials")).not_to_have_count(0)
    no_serious_findings(page)
    page.goto(url.replace("/run/", "/wall/"))
    expect(page.locator("#what")).not_to_be_empty()
    no_serious_findings(page)
    page.goto(url)
    hold_to_end(page)
    expect(page.locator("#what")).to_have_text("done")
    page.goto(url.replace("/run/", "/debrief/"))
    no_serious_findings(page)
