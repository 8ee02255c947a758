"""For everyone: in colours of one's own, four times as large, by words alone, without motion, by key, on paper."""

import re

import httpx
import pytest
from playwright.sync_api import Browser, Page, expect

from tests.browser.conftest import Hall, Here
from tests.browser.test_left_alone import CLASSES, begun, press

pytestmark = pytest.mark.browser

# what is drawn on a page and has the colour of its ground
GONE = """() => {
  const seen = (one) => { const box = one.getBoundingClientRect(); return box.width > 1 && box.height > 1; };
  const ground = getComputedStyle(document.body).backgroundColor;
  // a letter on its own bar has that for a ground
  const shapes = "rect, path, line, text:not(.letter, .nth), ellipse, circle";
  const drawn = [...document.querySelectorAll(`main svg :is(${shapes})`)].filter(seen);
  return drawn.filter((one) => {
    const { fill, stroke } = getComputedStyle(one);
    return fill === ground && ["none", ground].includes(stroke);
  }).map((one) => one.outerHTML.slice(0, 90));
}"""
# words in the colour of what is behind them; under words that the browser may colour it puts a ground of its own
UNREAD = """() => [...document.querySelectorAll("main :is(.press, .patch, a, button, b, p, h1, h2, td, small)")]
  .filter((one) => one.checkVisibility({ visibilityProperty: true }) && one.textContent.trim())
  .filter((one) => {
    const { color, backgroundColor, forcedColorAdjust } = getComputedStyle(one);
    const ground = getComputedStyle(document.body).backgroundColor;
    return forcedColorAdjust === "none" ? color === backgroundColor : color === ground;
  })
  .map((one) => one.outerHTML.slice(0, 90))"""
# the colours of text, ground and links that somebody has set: dark, as most do who need it
OWN = {"forced_colors": "active", "color_scheme": "dark"}


@pytest.mark.parametrize(
    "path", ["/desk/4", "/weeks", "/hall/4", "/people/1", "/moves/ring%20row", "/crew/4"]
)
def test_drawings_take_the_colours_that_somebody_has_set(
    browser: Browser, server: Here, path: str
) -> None:
    page = browser.new_context(**OWN).new_page()
    page.goto(server.url + path)
    assert page.evaluate("getComputedStyle(document.body).backgroundColor") == "rgb(0, 0, 0)"
    ink = page.evaluate("getComputedStyle(document.documentElement).getPropertyValue('--ink')")
    assert ink.strip() == "CanvasText"
    assert page.evaluate(GONE) == []
    assert page.evaluate(UNREAD) == []


def test_four_times_as_large_the_clock_is_on_the_first_screen(hall: Hall, browser: Browser) -> None:
    number = begun(hall, CLASSES["stations"])
    screens = httpx.get(f"{hall.url}/run/{number}/screens").text
    hand = re.findall(r'href="[^"]*?(/hand/[^"]+)"', screens)[0]
    for path in (f"/run/{number}", f"/wall/{number}", hand):
        page = browser.new_page(viewport={"width": 320, "height": 200})  # 1280 x 800 at 400 %
        page.goto(hall.url + path)
        box = page.locator("#time").bounding_box()
        assert box and box["y"] >= 0 and box["y"] + box["height"] <= 200, (path, box)
        assert not page.evaluate("document.documentElement.scrollWidth > innerWidth"), path


def test_the_rails_say_who_is_where_when(page: Page, server: Here) -> None:
    page.goto(f"{server.url}/desk/4")
    page.locator(".tape a.stretch").nth(1).click()
    said = page.get_by_role("list", name="Who is where when").get_by_role("listitem")
    expect(said.first).to_have_text(re.compile(r"^\d+:\d\d A [a-z].*; B [a-z].*; C [a-z]"))
    first, second = said.nth(0).inner_text(), said.nth(1).inner_text()
    assert first.split(" ", 1)[1] != second.split(" ", 1)[1]  # they have moved on
    stations = page.locator("#rails .names b").all_inner_texts()
    assert all(name in first for name in stations[:3])


def test_who_wants_no_motion_gets_none(hall: Hall, browser: Browser) -> None:
    number = begun(hall, "tempo 90 to 160 in 8 steps of 10, up and down\n  line hop\n")
    page = browser.new_context(reduced_motion="reduce").new_page()
    page.goto(f"{hall.url}/run/{number}")
    moving = "[...document.querySelectorAll('main *')].flatMap(one => one.getAnimations()).length"
    page.wait_for_function("window.run")
    assert page.evaluate(moving) == 0


# what can be reached by Tab and is not seen when it is
UNSEEN = """() => [...document.querySelectorAll("a[href], button, input, select, textarea, summary, [tabindex='0']")]
  .filter((one) => one.tabIndex >= 0 && !one.disabled && one.checkVisibility({ visibilityProperty: true }))
  .filter((one) => { one.focus(); const box = one.getBoundingClientRect();
    return document.activeElement === one && (box.width < 8 || box.height < 8); })
  .map((one) => one.outerHTML.slice(0, 100))"""
STOPS = """[...document.querySelectorAll("a[href], button, input, select, textarea, summary, [tabindex='0']")]
  .filter((one) => one.tabIndex >= 0 && !one.disabled && one.checkVisibility({ visibilityProperty: true })).length"""
# how often Tab is pressed at the most: more is a walk, not a page (People is a sheet that is typed in)
TABS = {"/weeks": 90, "/": 45, "/desk/4": 90, "/crew/4": 90}


@pytest.mark.parametrize("path", TABS)
def test_by_key_nothing_is_reached_that_is_not_seen(page: Page, server: Here, path: str) -> None:
    page.goto(server.url + path)
    assert page.evaluate(UNSEEN) == []
    assert page.evaluate(STOPS) <= TABS[path]


# what still looks like something to press or to fill in: a frame, or a ground of its own
PRINTED = """() => [...document.querySelectorAll("main :is(button, select, input:not([type=hidden]), textarea)")]
  .filter((one) => one.checkVisibility({ visibilityProperty: true }) && one.getBoundingClientRect().height > 1)
  .filter((one) => {
    const { borderTopStyle, borderTopWidth, borderTopColor, backgroundColor } = getComputedStyle(one);
    const none = "rgba(0, 0, 0, 0)";
    const framed = borderTopStyle !== "none" && parseFloat(borderTopWidth) > 0 && borderTopColor !== none;
    return (framed && !one.matches(".swapped")) || ![none, "rgb(255, 255, 255)"].includes(backgroundColor);
  })
  .map((one) => one.outerHTML.slice(0, 90))"""


def test_paper_has_no_buttons_and_no_boxes_and_loses_nothing(hall: Hall, browser: Browser) -> None:
    number = begun(hall, CLASSES["ends by a cap"])
    hall.on(60)
    page = browser.new_page(viewport={"width": 794, "height": 1123})  # A4 at 96 to the inch
    page.emulate_media(media="print")
    for path in (
        "/crew/4/fit",
        f"/debrief/{number}",
        f"/run/{number}/cards",
        f"/run/{number}/sheets",
        "/weeks/paper",
    ):
        page.goto(hall.url + path)
        assert page.evaluate(PRINTED) == [], path
        assert not page.evaluate("document.documentElement.scrollWidth > innerWidth"), path


def test_what_comes_of_a_press_is_told_to_who_does_not_see_it(page: Page, server: Here) -> None:
    page.goto(f"{server.url}/desk/4")
    slate = page.locator(".cm-content")
    slate.click()
    page.keyboard.press("Control+End")
    page.keyboard.type("\n\n4 x banana")
    expect(slate).to_have_attribute("aria-invalid", "true")
    told = page.locator(f"#{slate.get_attribute('aria-describedby')}")
    expect(told).to_contain_text("banana")
    page.get_by_role("button", name="Undo").click()
    expect(slate).to_have_attribute("aria-invalid", "false")
    expect(page.locator("#told")).to_have_text(re.compile(r"^Undone\. 42:20 of a 45:00 slot"))


def test_that_a_class_is_late_or_ahead_is_said_once(hall: Hall, browser: Browser) -> None:
    with httpx.Client(base_url=hall.url) as client:
        number = int(client.post("/desk/4/floor").headers["location"].rsplit("/", 1)[1])
        press(client, number, "start")
        page = hall.page(browser, f"/run/{number}")
        press(client, number, "next")
        press(client, number, "next")
    expect(page.locator("#late")).to_contain_text("ahead of the plan")
    expect(page.locator("#late-said")).to_contain_text("ahead of the plan")


def test_by_touch_a_day_is_made_a_day_off_without_a_mouse_over_it(
    browser: Browser, server: Here
) -> None:
    tablet = browser.new_context(
        viewport={"width": 768, "height": 1024}, has_touch=True, is_mobile=True
    ).new_page()
    tablet.goto(f"{server.url}/weeks")
    expect(tablet.locator(".label-of button").first).to_have_css("opacity", "1")
