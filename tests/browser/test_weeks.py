"""Weeks by key and by hand: a session is put on a day, moved, dragged, and taken back."""

import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import Server

pytestmark = pytest.mark.browser
FROM = "2027-05-03"


def test_a_session_goes_by_key_and_by_hand_and_comes_back(page: Page, server: Server) -> None:
    page.goto(f"{server.url}/weeks?from={FROM}")
    expect(page.locator(".readout")).to_contain_text("Nothing is planned here yet")
    made = page.request.post(f"{server.url}/desk", form={"text": "title: Laps\n\n6 x 60/60 at 8\n"})
    session = made.url.rsplit("/", 1)[1]
    page.reload()
    page.locator("#put-session").select_option(value=session)
    page.locator("#put-day").select_option(value="2027-05-04")
    page.get_by_role("button", name="Put it there").first.click()
    one = page.locator(f"[data-session='{session}']")
    expect(one).to_have_attribute("data-day", "2027-05-04")
    one.focus()
    page.keyboard.press("Alt+ArrowRight")
    expect(one).to_have_attribute("data-day", "2027-05-05")
    expect(one).to_be_focused()
    page.keyboard.press("Alt+ArrowDown")
    expect(one).to_have_attribute("data-day", "2027-05-12")
    page.keyboard.press("Control+z")
    expect(one).to_have_attribute("data-day", "2027-05-05")
    page.drag_and_drop(f"[data-session='{session}']", ".day[data-day='2027-05-07']")
    expect(one).to_have_attribute("data-day", "2027-05-07")
    page.goto(f"{server.url}/desk/{session}")
    expect(page.locator(".cm-content")).to_contain_text("date: 2027-05-07")
