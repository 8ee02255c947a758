"""Shapes written from an empty page, by keyboard alone and with the mouse, carried between windows, undone."""

import re

import pytest
from playwright.sync_api import BrowserContext, Page, expect

from tests.browser.conftest import Server
from tests.browser.test_thread import new_session, no_serious_findings, settled, slate_of, until

pytestmark = pytest.mark.browser

ROWS = (
    ("6 x 12/70 at 10\n  shuttle run", "8:12"),
    ("8 sets of 20/10 at 9\n  swing", "4:00"),
    ("6 x 45/90 at 8.5, rest at 5, lead-in 1:30\n  row", "15:00"),
    ("2 rounds of 45/15, break 1:30\n  squat\n  plank", "5:15"),
    ("every 1:00 for 12:00 at 7\n  8 push-up\n  10 swing", "12:00"),
    ("as many as possible in 12:00, ladder 2 +2\n  squat", "12:00"),
    ("hold ladder 15 +5 every 1:00 for 8:00\n  plank", "8:00"),
    ("tempo 90 to 160 in 8 steps of 20, up and down", "5:00"),
    ("build 12:00 to heavy 4", "12:00"),
)


def test_shapes_are_written_by_keyboard_alone_and_all_undone(page: Page, server: Server) -> None:
    new_session(page, server, " ")
    page.keyboard.press("Control+a")
    page.keyboard.press("Delete")
    for text, length in ROWS:
        first, *moves = text.split("\n")
        page.keyboard.type(first)
        page.keyboard.press("Escape")
        page.keyboard.press("Enter")
        for move in moves:
            indented = page.evaluate("desk.editor.state.doc.lineAt(desk.editor.state.selection.main.head).text") == "  "
            page.keyboard.type(move.strip() if indented else move)
            page.keyboard.press("Escape")
            page.keyboard.press("Enter")
        if moves:
            page.keyboard.press("Enter")
        settled(page)
        expect(page.locator("#problems .problem")).to_have_count(0)
        page.keyboard.press("ArrowUp")
        expect(page.locator(".rails h2 .figure")).to_have_text(length)
        page.keyboard.press("ArrowDown")
        page.wait_for_timeout(1700)
    blocks = page.evaluate("desk.lines().length")
    assert blocks == len(ROWS)
    for _ in range(60):
        page.keyboard.press("Control+z")
        settled(page)
    assert not slate_of(page).strip()
    for _ in range(60):
        page.keyboard.press("Control+Shift+Z")
        settled(page)
    assert page.evaluate("desk.lines().length") == blocks


def test_shapes_are_taken_from_the_rack_and_worked_on_with_the_mouse(page: Page, server: Server) -> None:
    page.goto(f"{server.url}/desk")
    page.get_by_role("button", name="New session").click()
    page.wait_for_selector(".cm-content")
    page.locator(".rack button", has_text="stations in a circle").click()
    settled(page)
    expect(page.locator(".rails .names li")).to_have_count(6)
    page.locator(".rails h2 .figure").click()
    expect(page.locator("#why")).to_contain_text("a break takes the place")
    before = page.locator(".rails h2 .figure").inner_text()
    page.locator("#why button", has_text="add the break").click()
    settled(page)
    assert "break 2:00 added" in slate_of(page)
    assert page.locator(".rails h2 .figure").inner_text() != before
    page.locator(".stretch").first.focus()
    page.keyboard.press("d")
    settled(page)
    expect(page.locator(".stretch")).to_have_count(2)
    page.keyboard.press("s")
    settled(page)
    expect(page.locator(".stretch")).to_have_count(3)
    page.keyboard.press("j")
    settled(page)
    expect(page.locator(".stretch")).to_have_count(2)
    page.keyboard.press("Delete")
    settled(page)
    expect(page.locator(".stretch")).to_have_count(1)
    page.locator('.station[data-move="0"]').focus()
    page.keyboard.press("Enter")
    page.keyboard.type("jump squat")
    page.keyboard.press("Enter")
    settled(page)
    assert re.search(r"^  jump squat \| bell", slate_of(page), re.MULTILINE)


def test_blocks_are_carried_as_text_between_sessions(page: Page, context: BrowserContext, server: Server) -> None:
    context.grant_permissions(["clipboard-read", "clipboard-write"])
    new_session(page, server, "warm-up 5:00 at 3\n\n3 rounds of 40/20   # mine\n  squat\n  row\n\nrest 1:00\n")
    page.locator(".stretch").nth(0).click(modifiers=["Shift"])
    page.locator(".stretch").nth(1).click(modifiers=["Shift"])
    expect(page.locator(".stretch.picked")).to_have_count(2)
    page.locator("h1").click()
    page.keyboard.press("Control+c")
    new_session(page, server, "cool-down 3:00\n")
    page.locator(".stretch").first.focus()
    page.keyboard.press("Control+v")
    settled(page)
    until(page, "desk.lines().length === 3")
    assert "3 rounds of 40/20   # mine\n  squat\n  row" in slate_of(page)


def test_revisions_are_kept_and_compared(page: Page, server: Server) -> None:
    url = new_session(page, server, "3 rounds of 40/20\n  squat\n  row\n")
    page.goto(url + "/revisions")
    page.locator("#reason").fill("as tried on Monday")
    page.get_by_role("button", name="Keep").click()
    page.goto(url)
    page.wait_for_selector(".cm-content")
    page.locator('[data-scrub][data-figure="rounds"]').focus()
    page.keyboard.press("ArrowUp")
    settled(page)
    page.goto(url + "/revisions")
    expect(page.locator(".readout")).to_contain_text("in all 6:00 → 8:00")
    no_serious_findings(page)
    page.get_by_role("button", name="take back").click()
    page.wait_for_selector(".cm-content")
    assert "3 rounds" in slate_of(page)
