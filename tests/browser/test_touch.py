"""By touch: a tablet at the Desk, and the Desk in one hand."""

from collections.abc import Iterator

import pytest
from playwright.sync_api import Browser, BrowserContext, Locator, Page, TimeoutError, expect

from tests.browser.conftest import Here
from tests.browser.test_thread import settled, slate_of, until

pytestmark = pytest.mark.browser


@pytest.fixture(params=[(1024, 768), (390, 844)], ids=["tablet", "hand"])
def touched(request: pytest.FixtureRequest, browser: Browser, server: Here) -> Iterator[Page]:
    width, height = request.param
    context: BrowserContext = browser.new_context(
        viewport={"width": width, "height": height}, has_touch=True
    )
    page = context.new_page()
    made = page.request.post(
        f"{server.url}/desk",
        form={"text": "3 rounds of 40/20\n  squat\n  row\n  plank\n"},
        max_redirects=0,
    )
    page.goto(server.url + made.headers["location"])
    page.wait_for_selector(".cm-content")
    yield page
    context.close()


SCORED = "as many as possible in 20:00\n  20 push-up\n  30 jump squat\n  18 cal row\n"
# what stands out over the right edge, so that the page would move sideways under a thumb
WIDE = """document.documentElement.scrollWidth <= innerWidth ? [] : [...document.querySelectorAll("body *")]
  .filter((one) => one.getBoundingClientRect().right > innerWidth + 1)
  .map((one) => `${one.tagName} ${one.getAttribute("class")} ${one.textContent.trim().slice(0, 20)}`)"""


def swipe(page: Page, what: Locator, dx: float, dy: float) -> None:
    """A finger put down, drawn along and lifted."""
    what.scroll_into_view_if_needed()
    box = what.bounding_box()
    assert box
    x, y = box["x"] + min(20, box["width"] / 2), box["y"] + box["height"] / 2
    finger = page.context.new_cdp_session(page)
    finger.send(
        "Input.dispatchTouchEvent", {"type": "touchStart", "touchPoints": [{"x": x, "y": y}]}
    )
    for share in (0.2, 0.5, 0.8, 1):
        point = {"x": x + dx * share, "y": y + dy * share}
        finger.send("Input.dispatchTouchEvent", {"type": "touchMove", "touchPoints": [point]})
    finger.send("Input.dispatchTouchEvent", {"type": "touchEnd", "touchPoints": []})
    page.wait_for_timeout(
        650
    )  # sooner, the browser takes the next tap for part of this gesture, now and then
    settled(page)


def menu_of(page: Page, handle: Locator, deed: str) -> Locator:
    """What a handle's menu offers; a browser takes a tap for part of the gesture before it, now and then."""
    wanted = page.get_by_role("menuitem", name=deed)
    for _ in range(5):
        handle.tap()
        try:
            wanted.wait_for(timeout=2000)
        except TimeoutError:
            continue
        break
    return wanted


def test_stations_and_figures_are_moved_by_a_finger(touched: Page) -> None:
    page = touched
    page.locator(".stretch").first.tap()
    settled(page)
    rail = float(page.locator(".names").get_attribute("data-rail") or 0)
    handles = page.locator(".names .deeds-of")
    swipe(page, handles.first, 0, rail * 1.1)
    assert (
        slate_of(page).index("row") < slate_of(page).index("squat") < slate_of(page).index("plank")
    )
    menu_of(page, handles.nth(1), "double").tap()
    settled(page)
    assert slate_of(page).count("squat") == 2
    menu_of(page, page.locator("h2 .deeds-of"), "split").tap()
    settled(page)
    expect(page.locator(".stretch")).to_have_count(2)
    for _ in "split", "double":
        page.locator("#steps button", has_text="Undo").tap()
        settled(page)
    assert slate_of(page).count("squat") == 1
    page.locator('[data-scrub][data-figure="rest"]').tap()
    page.locator(".scrubs .typed").fill("0:25")
    page.locator(".scrubs .typed").press("Enter")
    until(page, "desk.editor.state.doc.toString().includes('of 40/25')")
    settled(page)
    page.locator("#steps button", has_text="Undo").tap()
    until(page, "desk.editor.state.doc.toString().includes('of 40/20')")
    settled(page)
    before = page.locator("#readout").inner_text()
    swipe(page, page.locator('[data-scrub][data-figure="work"]'), 60, 0)
    assert "of 40/20" not in slate_of(page) and page.locator("#readout").inner_text() != before
    for _ in range(5):  # a tap becomes a click a little later, or is taken for part of the gesture
        page.locator("#steps button", has_text="Undo").tap()
        page.wait_for_timeout(1000)
        if "of 40/20" in slate_of(page):
            break
    assert "of 40/20" in slate_of(page)
    assert not page.evaluate(WIDE)


def test_a_recast_and_a_fit_are_taken_by_taps(touched: Page) -> None:
    page = touched
    page.get_by_role("link", name="Recast").tap()
    page.locator("#panel nav a", has_text="gentler").tap()
    page.get_by_role("button", name="Make it gentler").tap()
    until(page, "desk.editor.state.doc.toString().includes('30/30')")
    settled(page)
    page.get_by_role("link", name="Fit").tap()
    page.locator("#fit-value").fill("12:00")
    page.get_by_role("button", name="Find the nearest").tap()
    page.locator(".offer").first.tap()
    settled(page)
    expect(page.locator("#readout")).to_contain_text("12:00")
    page.request.post(
        page.url.split("?")[0] + "/text",
        form={"base": page.evaluate("desk.version"), "text": SCORED},
    )
    page.reload()
    expect(page.locator("table.told")).to_contain_text("usual")
    assert not page.evaluate(WIDE)


def test_a_session_goes_to_a_day_that_is_tapped_and_off_again(
    browser: Browser, server: Here
) -> None:
    """On a phone: move, copy, not now, take it off; each is seen where it went and can be undone."""
    phone = browser.new_page(viewport={"width": 390, "height": 844}, has_touch=True)
    made = phone.request.post(f"{server.url}/desk", form={"text": "title: Tapped\n\nrest 5:00\n"})
    session = made.url.rsplit("/", 1)[1]
    monday = "2027-05-03"
    phone.request.post(
        f"{server.url}/weeks/put", form={"session": session, "day": "2027-05-04", "at": monday}
    )
    phone.goto(f"{server.url}/weeks?from={monday}&weeks=1")

    def days() -> list[str]:
        found = phone.locator("article[data-session]").evaluate_all(
            "all => all.map((one) => one.dataset.day)"
        )
        return sorted(found)

    def choose(name: str) -> None:
        if not phone.locator("article[data-session] .goes[open]").count():
            phone.locator("article[data-session] .goes summary").first.tap()
        phone.get_by_role("button", name=name).first.tap()

    choose("move Tapped to a day that is tapped")
    phone.get_by_role("button", name="Not now").tap()
    assert phone.locator(".here").count() == 0 and days() == ["2027-05-04"]
    choose("move Tapped to a day that is tapped")
    assert phone.locator(".here").count() == 7
    phone.locator("[data-day='2027-05-06'] .here").tap()
    expect(phone.locator("article[data-day='2027-05-06']")).to_have_count(1)
    assert days() == ["2027-05-06"]
    choose("copy Tapped to a day that is tapped")
    phone.locator("[data-day='2027-05-08'] .here").tap()
    expect(phone.locator("article[data-session]")).to_have_count(2)
    assert days() == ["2027-05-06", "2027-05-08"]
    choose("take Tapped off this day")
    expect(phone.locator("article[data-session]")).to_have_count(1)
    phone.get_by_role("button", name="Undo").tap()
    expect(phone.locator("article[data-session]")).to_have_count(2)
    phone.close()
