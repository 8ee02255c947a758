"""Every page at three widths: for those who see or press otherwise, nothing sideways, a clean console."""

import pytest
from playwright.sync_api import Browser, Page

from tests.browser.conftest import Here
from tests.browser.test_thread import AXE, hold_to_end, until

pytestmark = pytest.mark.browser
# rows of long lists are alike: the first two dozen of each are looked at
LEVELS = """axe.run({ exclude: [["li:nth-child(n+25)"], ["tr:nth-child(n+25)"], ["article:nth-child(n+25)"]] }, {
  runOnly: ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa', 'best-practice'], resultTypes: ['violations'], preload: false,
})"""
WIDTHS = {1280: 800, 390: 844}
BETWEEN = 1024  # what stands there is what stands on the wider and the narrower one; only how wide it gets is looked at


WIDER = "document.documentElement.scrollWidth > innerWidth"


def looked_at(page: Page, where: str, wrong: list[str]) -> None:
    page.evaluate(AXE.read_text("utf-8"))
    found = page.evaluate(
        f"{LEVELS}.then(done => done.violations.map(one => [one.id, one.nodes[0].html.slice(0, 90)]))"
    )
    wrong += [f"{where}: {rule} at {html}" for rule, html in found]
    if page.evaluate(WIDER):
        wrong.append(f"{where}: wider than the window")
    window = page.viewport_size
    if window and window["width"] > BETWEEN:
        page.set_viewport_size({"width": BETWEEN, "height": 768})
        if page.evaluate(WIDER):
            wrong.append(f"{where}: wider than a window of {BETWEEN}")
        page.set_viewport_size(window)


@pytest.mark.parametrize("width", WIDTHS)
def test_every_page_is_for_everybody(browser: Browser, server: Here, width: int) -> None:
    page = browser.new_page(viewport={"width": width, "height": WIDTHS[width]})
    wrong: list[str] = []
    page.on(
        "console",
        lambda one: wrong.append(f"{page.url}: {one.text}") if one.type == "error" else None,
    )
    page.on("pageerror", lambda error: wrong.append(f"{page.url}: {error}"))
    made = page.request.post(f"{server.url}/desk/4/floor", form={"anew": "true"})
    class_id = int(made.url.rsplit("/", 1)[1])
    for path in (
        "/desk",
        "/desk/4",
        "/desk/4/revisions",
        "/desk/4/session.sheet",
        "/desk/4/session.ics",
        "/crew/4",
    ):
        page.goto(f"{server.url}{path}")
        page.wait_for_load_state("load")
        looked_at(page, path, wrong)
    for path in (
        f"/wall/{class_id}",
        f"/station/{class_id}/2",
        f"/run/{class_id}/screens",
        f"/run/{class_id}/talk",
        f"/run/{class_id}/cards",
        f"/run/{class_id}/sheets",
        "/crew/4/fit",
        "/hall/4",
        "/people/1",
        "/people/1/progress",
        "/desk/4/try",
        "/desk/4/message",
        "/join",
        "/people",
        "/people/2",
        "/straps",
        "/weeks",
        "/weeks/clashes",
        "/weeks/returns",
        "/weeks/series?session=4",
        "/weeks/paper",
        "/debrief/club",
        "/debrief?words=swing",
        "/",
        "/find?words=knee",
        "/first",
        "/run/of/1",
        "/debrief/of/4",
        "/debrief",
        "/moves",
        "/moves/ring%20row",
        "/moves/new",
        "/club",
        "/passphrase",
    ):
        page.goto(f"{server.url}{path}")
        looked_at(page, path, wrong)
    page.goto(f"{server.url}/run/{class_id}/screens")
    page.goto(page.locator("a[href*='/hand/']").first.get_attribute("href") or "")
    looked_at(page, "hand", wrong)
    page.goto(f"{server.url}/run/{class_id}")
    looked_at(page, "ready", wrong)
    page.keyboard.press("Space")
    page.keyboard.press("ArrowRight")
    page.keyboard.press("ArrowRight")
    until(page, "!run.presses.waiting.length && run.view.phase === 'on'")
    looked_at(page, "running", wrong)
    hold_to_end(page)
    until(page, "!run.presses.waiting.length")
    looked_at(page, "over", wrong)
    page.goto(f"{server.url}/debrief/{class_id}")
    looked_at(page, "debrief", wrong)
    page.close()
    assert not wrong, "\n".join(wrong)


def test_a_menu_stays_in_the_hand_and_closes_with_escape(browser: Browser, server: Here) -> None:
    page = browser.new_page(viewport={"width": 390, "height": 844})
    page.goto(f"{server.url}/desk/4")
    page.locator(".menu summary").click()
    box = page.locator(".menu > div").bounding_box()
    assert box and box["x"] >= 0 and box["x"] + box["width"] <= 390
    page.keyboard.press("Escape")
    assert page.locator(".menu[open]").count() == 0
    page.close()
