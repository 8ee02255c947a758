"""A message from a phone becomes a session on the floor: pasted, asked, answered by presses, without the guide."""

import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import Here
from tests.browser.test_thread import new_session

pytestmark = pytest.mark.browser
MESSAGE = """Hi team, tomorrow in the hall
WU 8 min easy laps
A. Front squat 5x3, tempo 31X1
B. 3 Runden 40s / 20s, 2 min b/w rounds
- ring row
- Liegestütze
- plank
C. AMRAP 10
12 cal row
10 thrusters (40/30)
8 burpees e/s
Bring water, please
CD 5 min
"""
PASTE = """(text) => {
  const event = new ClipboardEvent("paste", { clipboardData: new DataTransfer(), bubbles: true, cancelable: true });
  event.clipboardData.setData("text/plain", text);
  document.querySelector(".cm-content").dispatchEvent(event);
}"""


def _new(page: Page, server: Here) -> None:
    page.goto(f"{server.url}/desk")
    page.get_by_role("button", name="New session").first.click()
    page.wait_for_url("**/desk/*")


def test_a_message_is_pasted_answered_and_taken_to_the_floor(page: Page, server: Here) -> None:
    _new(page, server)
    expect(page.locator(".cm-content")).to_be_focused()
    page.evaluate(PASTE, MESSAGE)
    expect(page.get_by_role("heading", name="2 questions about it")).to_be_visible()
    slate = page.locator("#slate-now")
    expect(slate).to_contain_text("# A. Front squat 5x3, tempo 31X1")
    page.get_by_role("button", name="rest 2:00").first.click()
    expect(slate).to_contain_text("5 sets of 3 reps, rest 2:00\n  front squat tempo 3-1-0-1")
    page.get_by_role("button", name="40/30 kg").click()
    expect(page.get_by_role("heading", name="Read, line by line")).to_be_visible()
    expect(slate).to_contain_text("10 thrusters @ 40/30 kg")
    expect(slate).to_contain_text("note: Bring water, please")
    page.get_by_role("button", name="Take to the floor").click()
    page.wait_for_url("**/run/*")


def test_lines_of_a_slate_go_where_the_cursor_is(page: Page, server: Here) -> None:
    _new(page, server)
    page.evaluate(PASTE, "warm-up 8:00 at 3\n  easy laps\n\n6 x 30/60 at 9\n")
    expect(page.locator("#slate-now")).to_have_text(
        "warm-up 8:00 at 3\n  easy laps\n\n6 x 30/60 at 9\n"
    )
    assert page.locator(".became").count() == 0
    page.keyboard.press("Control+End")
    page.evaluate(PASTE, "  run\n  # all out\n")
    expect(page.locator("#slate-now")).to_contain_text("6 x 30/60 at 9\n  run\n  # all out")


def test_a_line_that_cannot_be_read_costs_that_line(page: Page, server: Here) -> None:
    new_session(page, server, "warm-up 8:00 at 3\nevery 2 of something\nrest 1:00\n")
    expect(page.locator("#tape .stretch")).to_have_count(2)
    expect(page.locator("#tape .unread")).to_have_count(1)
    expect(page.locator("#readout")).to_contain_text("without 1 line that can’t be read")
    page.locator("#tape .unread").click()
    expect(page.locator(".cm-content")).to_be_focused()
