"""The first page, the thread, the finder by hand; and a member who runs a session alone with the network off."""

import re

import pytest
from playwright.sync_api import Browser, Page, Route, expect

from lovrit.house.mine import own_link
from tests.browser.conftest import Here, post
from tests.browser.test_thread import until

WINTER, MARA = 4, 13


def test_the_thread_leads_through_the_evening_and_follows_what_is_done(
    page: Page, server: Here
) -> None:
    post(server, f"/tonight/{WINTER}/day", {"day": "today"})
    post(server, f"/crew/{WINTER}/who/none", {})
    page.goto(server.url)
    expect(page.get_by_role("heading", level=1)).to_have_text("Winter hall 4, legs and pull")
    page.get_by_role("button", name="everyone").click()
    expect(page.locator(".minds")).not_to_contain_text("Nobody is down")
    page.keyboard.press("Alt+2")
    expect(page.get_by_role("heading", level=1)).to_have_text("Who comes")
    who = page.locator("#thread a", has_text="Who")
    expect(who).to_contain_text("20 in")
    page.get_by_role("button", name="Nobody").click()
    expect(who).to_contain_text("nobody yet")  # the page stayed, the thread followed
    page.keyboard.press("Alt+1")
    expect(page.locator("#thread")).to_contain_text("at 18:10")
    page.keyboard.press("Alt+7")
    expect(page).to_have_url(re.compile("/weeks"))
    page.keyboard.press("Alt+3")
    expect(page).to_have_url(re.compile(r"/hall/\d+"))


def slash(page: Page) -> None:
    """The finder by its key, once the page listens."""
    page.wait_for_function("document.documentElement.classList.contains('scripted')")
    page.keyboard.press("/")
    expect(page.locator("#sought")).to_be_focused()


def test_one_finder_from_anywhere_by_key_and_by_words(page: Page, server: Here) -> None:
    page.goto(f"{server.url}/club")
    slash(page)
    page.keyboard.type("mara")
    expect(page.locator("#found a").first).to_contain_text("Mara")
    page.keyboard.press("Enter")
    expect(page).to_have_url(re.compile(f"/people/{MARA}$"))
    slash(page)
    page.keyboard.type("ring ro")
    expect(page.locator("#found a", has_text="ring row").first).to_be_visible()
    page.keyboard.press("ArrowDown")
    expect(page.locator("#found a").first).to_be_focused()
    page.keyboard.press("ArrowUp")
    expect(page.locator("#sought")).to_be_focused()
    page.locator("#found li", has_text="move").locator("a", has_text="ring row").first.click()
    expect(page).to_have_url(re.compile("/moves/"))
    slash(page)
    page.keyboard.type("new sess")
    expect(page.locator("#found button").first).to_contain_text("new session")
    page.keyboard.press("Enter")
    expect(page).to_have_url(re.compile(r"/desk/\d+"))


COLOUR = "one => getComputedStyle(one).color"
GONE = """() => localStorage.setItem(`lovrit-sent-${location.pathname}`, JSON.stringify(
  [{ key: "of-one-gone", session: 99999, at_ms: 1e12, lasted_s: 60, felt: 8, word: "rain" }]))"""


def test_a_member_comes_and_runs_alone_with_the_network_off(page: Page, server: Here) -> None:
    page.goto(f"{server.url}/weeks?from=2031-01-06")
    expect(page.locator(".let-see")).to_contain_text("Nothing is planned here from today on")
    post(server, f"/tonight/{WINTER}/day", {"day": "today"})
    house = server.app.state.house
    post(server, "/weeks/see", {"at": house.today, "until": house.today})
    with house.database.work() as work:
        mine = own_link(house, work, MARA)
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(server.url + mine)
    page.get_by_placeholder("a word to the coach").first.fill("knee again")
    come, cannot = (page.get_by_role("button", name=name).first for name in ("I come", "I can’t"))
    expect(come).to_have_attribute("aria-pressed", "false")
    come.click()
    expect(page.get_by_role("status").first).to_contain_text("You said that you come.")
    expect(come).to_have_attribute("aria-pressed", "true")
    expect(cannot).to_have_attribute("aria-pressed", "false")
    late: list[Route] = []  # a phone that is slow: it is ticked before the page's script has come

    def held(one: Route) -> None:
        late.append(one)

    page.route("**/static/own.js*", held)
    page.get_by_role("link", name="as it is").click(no_wait_after=True)
    expect(page.get_by_role("button", name="Begin")).to_be_disabled()
    page.get_by_label("I have read it").check()
    until(page, "document.readyState !== 'loading'")
    for one in late:
        one.continue_()
    expect(page.get_by_text("it needs no network")).to_be_visible()
    expect(page.get_by_role("button", name="Begin")).to_be_enabled()
    page.context.set_offline(True)
    page.get_by_role("button", name="Begin").click()
    expect(page.locator("#own-time")).to_have_text(re.compile(r"^[56]:\d\d$"))
    expect(page.locator("#own-what")).to_contain_text("easy laps")
    page.get_by_role("button", name="Next", exact=True).click()
    expect(page.locator("#own-what")).to_contain_text("goblet squat")
    page.get_by_role("button", name="Hold").click()
    expect(page.locator("#own-says")).to_have_text("held")
    page.get_by_role("button", name="Go on").click()
    page.get_by_role("button", name="end here").click()
    page.get_by_role("button", name="7", exact=True).click()
    page.get_by_label("A word").fill("wind")
    page.get_by_role("button", name="Save it as mine").click()
    expect(page.locator("#sent")).to_contain_text("Kept on this phone")
    phone, outdoors = page.context, page
    page = phone.new_page()
    outdoors.close()  # before there was a network: their own page tells it, with nothing to press
    phone.set_offline(False)
    page.goto(server.url + mine)
    expect(page.locator(".plainlist")).to_contain_text("felt 7, not to the end, “wind”")
    page.get_by_role("link", name="as it is").click()
    page.get_by_label("I have read it").check()
    page.get_by_role("button", name="Begin").click()
    page.get_by_role("button", name="end here").click()
    page.get_by_role("button", name="Save it as mine").click()
    expect(page.locator("#sent")).to_have_text("Saved as yours.")
    on = page.get_by_role(
        "link", name="To my page"
    )  # no dead end, and it is seen: light on the dark ground
    assert on.evaluate(COLOUR) == page.get_by_role("heading", name="Done").evaluate(COLOUR)
    on.click()
    expect(page.locator(".plainlist").get_by_text("alone:")).to_have_count(2)
    page.evaluate(GONE)  # what is refused for good is told with what was said of it
    page.reload()
    expect(page.get_by_role("alert")).to_contain_text("was not taken: its session is gone")
    expect(page.get_by_role("alert")).to_contain_text("felt 8, “rain”")
    page.goto(server.url)
    expect(page.locator(".minds")).to_contain_text("knee again")


SMALL = """() => [...document.querySelectorAll("main a, main button, main input, main select, main summary, header a")]
  .filter((one) => one.checkVisibility() && !one.closest("dialog, svg, table, .cm-editor"))
  .map((one) => [one.textContent.trim().slice(0, 30), Math.round(one.getBoundingClientRect().height)])
  .filter(([, high]) => high > 1 && high < 43)"""


@pytest.mark.parametrize("path", ["/", f"/desk/{WINTER}", f"/crew/{WINTER}", "/weeks", "/people"])
def test_by_touch_every_control_has_room_for_a_finger(
    browser: Browser, server: Here, path: str
) -> None:
    touched = browser.new_context(
        viewport={"width": 768, "height": 1024}, has_touch=True, is_mobile=True
    )
    page = touched.new_page()
    page.goto(server.url + path)
    page.wait_for_function(
        "document.documentElement.classList.contains('scripted') && document.fonts.status === 'loaded'"
    )
    small = [one for one in page.evaluate(SMALL) if one[0] not in ("",)]
    ticks = (
        page.locator("main input[type=checkbox]").count()
        + page.locator("main input[type=radio]").count()
    )
    touched.close()
    assert len(small) <= 2 + ticks, small
