"""The Desk that thinks along: fitted, recast, mended and undone by keyboard alone; moves and club looked at."""

import re

import pytest
from playwright.sync_api import Page, expect

from lovrit.core.moves.library import shipped
from tests.browser.conftest import Here
from tests.browser.test_thread import new_session, no_serious_findings, settled, slate_of, until

pytestmark = pytest.mark.browser
TOO_MUCH = """title: Twenty
slot: 18:10-18:55
setup: 2:00

as many as possible in 20:00 at 9
  20 push-up
  30 jump squat
  20 swing
"""


def leave_the_slate(page: Page) -> None:
    page.evaluate("desk.editor.contentDOM.blur()")


def press_on(page: Page, name: str) -> None:
    """Press a button of the second look by keyboard."""
    if page.locator("#look .more:not([open]) > summary", has_text="lighter").count():
        page.locator("#look .more > summary", has_text="lighter").first.press("Enter")
    version = page.evaluate("desk.version")
    button = page.locator("#look button", has_text=name).first
    expect(button).to_be_visible()
    button.press("Enter")
    until(page, f"desk.version > {version}")
    settled(page)


def test_fit_recast_two_fixes_and_undo_by_keyboard(page: Page, server: Here) -> None:
    new_session(page, server, TOO_MUCH)
    before = slate_of(page)
    leave_the_slate(page)
    page.keyboard.press("Alt+f")
    expect(page.locator("#fit-value")).to_be_focused()
    page.keyboard.type("25:00")
    page.keyboard.press("Enter")
    expect(page.locator("#panel")).to_contain_text("press its number")
    no_serious_findings(page)
    page.keyboard.press("1")
    settled(page)
    expect(page.locator("#readout")).to_contain_text("25:00 of a 45:00 slot")

    leave_the_slate(page)
    page.keyboard.press("Alt+r")
    expect(page.locator("#panel nav a[aria-current]")).to_be_focused()
    expect(page.locator("#panel .recast-why")).to_contain_text("Kinder")
    no_serious_findings(page)
    page.keyboard.press("Enter")
    settled(page)
    expect(page.locator("#panel")).to_be_hidden()
    assert "every 1:00 for 25:00" in slate_of(page)

    weighed = page.locator("#look li").count()
    press_on(page, "add a cool-down")
    press_on(page, "from its own moves")
    assert "for quality" in slate_of(page)
    assert page.locator("#look li").count() < weighed
    leave_the_slate(page)
    for _ in range(8):
        page.keyboard.press("Control+z")
        settled(page)
        if slate_of(page) == before:
            break
    assert slate_of(page) == before


def test_a_hard_twenty_becomes_a_kind_evening_that_ends_on_time(page: Page, server: Here) -> None:
    new_session(
        page,
        server,
        TOO_MUCH.replace("slot: 18:10-18:55\nsetup: 2:00\n", "people: 18\nsetup: 2:00\n"),
    )
    expect(page.locator("#look")).to_contain_text("that holds for about")
    page.get_by_role("link", name="Recast").click()
    page.locator("#panel nav a", has_text="a task a minute").click()
    page.get_by_role("button", name="Make it a task a minute").click()
    settled(page)
    press_on(page, "from its own moves")
    press_on(page, "add a cool-down")
    page.get_by_role("link", name="Fit").click()
    page.locator("#fit-figure").select_option("slot")
    page.locator("#fit-come").fill("18:10")
    page.locator("#fit-leave").fill("18:55")
    page.get_by_role("button", name="Find the nearest").click()
    page.locator(".offer").first.click()
    settled(page)
    expect(page.locator("#readout")).to_contain_text(
        re.compile(r"^43:00 .*of a 45:00 slot, 0:00 spare")
    )
    expect(page.locator("#look .stop")).to_have_count(0)
    page.get_by_role("button", name="Take to the floor").click()
    expect(page).to_have_url(re.compile(r"/run/\d+$"))


def test_the_move_under_the_cursor_is_shown_and_a_remark_put_aside(
    page: Page, server: Here
) -> None:
    new_session(page, server, TOO_MUCH)
    page.locator(".cm-line", has_text="push-up").click()
    expect(page.locator("#move")).to_contain_text("One plank from head to heel")
    expect(page.locator("#crowd")).to_have_count(0)
    page.locator("#look summary", has_text="hide").first.click()
    said = page.locator("#look li").first.inner_text().split("\n")[0]
    page.locator("#look .aside[open] button", has_text="in this session").click()
    until(page, f"!document.querySelector('#look ol').innerText.includes({said[8:30]!r})")
    page.locator("#look summary", has_text="1 hidden").click()
    page.locator("#look button", has_text="show it again").click()
    expect(page.locator("#look summary", has_text="hidden")).to_have_count(0)


def test_moves_and_club_are_plain_to_everyone(page: Page, server: Here) -> None:
    for path, said in (
        ("/moves", f"{len(shipped().moves)} moves"),
        ("/moves/swing", "Hinge, snap, float"),
        ("/club", "all-out?"),
        ("/moves/new", "A move"),
    ):
        page.goto(server.url + path)
        expect(page.locator("main")).to_contain_text(said)
        no_serious_findings(page)
    page.goto(f"{server.url}/desk/4/fit?value=40:00")
    expect(page.locator(".offer").first).to_be_visible()
    no_serious_findings(page)


def test_forms_at_hand_a_title_in_place_and_a_move_said_once(page: Page, server: Here) -> None:
    new_session(page, server, "3 rounds of 40/20\n  squat\n  stick pogo\n\n")
    page.locator(".retitle").click()
    page.keyboard.type("Tuesday, cold hall")
    page.keyboard.press("Enter")
    until(page, "desk.editor.state.doc.toString().startsWith('title: Tuesday, cold hall')")
    settled(page)
    expect(page.locator("h1")).to_have_text("Tuesday, cold hall")
    page.locator(".cm-content").click()
    page.keyboard.press("Control+End")
    page.locator("#forms summary").click()
    page.locator("#forms button", has_text="hold ladder").click()
    settled(page)
    expect(page.locator(".stretch")).to_have_count(2)
    expect(page.locator("#problems .problem")).to_have_count(0)
    said = page.locator("#look li", has_text="stick pogo")
    said.locator("summary", has_text="say it once").click()
    said.get_by_role("button", name="save").click()  # nothing is kept of a form left empty
    expect(said).to_have_count(1)
    said.locator("select").select_option("jump")
    said.locator("[name=seconds]").fill("0.8")
    said.locator("[name=lands]").check()
    said.get_by_role("button", name="save").click()
    expect(page.locator("#look li", has_text="is not in the library")).to_have_count(0)
    page.goto(f"{server.url}/moves/stick%20pogo")
    expect(page.locator("main")).to_contain_text("jump")
