"""Shapes written from an empty page, by keyboard alone and with the mouse, carried between windows, undone."""

import re

import pytest
from playwright.sync_api import BrowserContext, Page, expect

from tests.browser.conftest import Here
from tests.browser.test_thread import new_session, no_serious_findings, settled, slate_of, until

pytestmark = pytest.mark.browser

# Every row of the structure table: its name, what is typed, and the length of its last block.
ROWS = (
    ("full-recovery sprint", "6 x 12/70 at 10\n  shuttle run", "8:12"),
    ("short-rest set", "8 sets of 20/10 at 9\n  swing", "4:00"),
    ("long hard interval", "8 x 60/75 at 8", "18:00"),
    ("at a personal pace", "5 x 2:30/2:30 pace 3-4", "25:00"),
    ("one-to-two with active rest", "6 x 45/90 at 8.5, rest at 5, lead-in 1:30\n  row", "15:00"),
    ("easy-start long interval", "5 x 2:30/3:00 at 7-9, rest at 2-3\n  easy laps", "27:30"),
    ("dense", "3 x (30/10 60/20 90/30) at 7", "12:00"),
    ("shrinking rest", "4 x 30/60\n4 x 30/45\n4 x 30/30", "4:00"),
    ("station circuit", "2 rounds of 45/15, break 1:30\n  squat\n  plank", "5:15"),
    ("circuits of two halves", "2 sets of 40/20\n  squat\n3 sets of 20/10\n  push-up", "1:30"),
    ("every minute", "every 1:00 for 12:00 at 7\n  8 push-up\n  10 swing", "12:00"),
    ("as many as possible", "as many as possible in 12:00, ladder 2 +2\n  squat", "12:00"),
    ("for time", "4 rounds for time, cap 18:00\n  12 squat\n  16 hollow rock", None),
    ("repeats by distance", "6 x 400 m, rest 2:00, score slowest\n  run", None),
    ("partners", "as many as possible in 14:00, partners alternate\n  10 squat", "14:00"),
    ("growing hold", "hold ladder 15 +5 every 1:00 for 8:00\n  plank", "8:00"),
    ("tempo ladder", "tempo 90 to 160 in 8 steps of 20, up and down", "5:00"),
    ("strength window", "build 12:00 to heavy 4", "12:00"),
    ("strength sets", "3 sets of 15 reps, rest 1:30\n  split squat each side", None),
    (
        "primer",
        "every 1:00 for 9:00 at 4, half start at 0:30\n  6 push-up, easier 4 reps, harder 8 reps",
        "9:30",
    ),
    (
        "warm-up rounds",
        "3 rounds for quality, rest 0:30, at 3 4 5\n  8 squat\n3 x 10/60 at 8",
        "3:30",
    ),
)
KEYS_A_MINUTE = 150  # two and a half a second: somebody who hunts for the letters


def test_shapes_are_written_by_keyboard_alone_and_all_undone(page: Page, server: Here) -> None:
    new_session(page, server, " ")
    page.keyboard.press("Control+a")
    page.keyboard.press("Delete")
    for name, text, length in ROWS:
        assert type_rows(page, text) < KEYS_A_MINUTE, name
        settled(page)
        expect(page.locator("#problems .problem"), name).to_have_count(0)
        if length:
            page.keyboard.press("ArrowUp")
            expect(page.locator(".rails h2 .figure"), name).to_have_text(length)
            page.keyboard.press("ArrowDown")
    kinds = sum(1 for _, text, _ in ROWS for line in text.split("\n") if not line.startswith(" "))
    assert page.evaluate("desk.lines().length") == kinds
    written = slate_of(page)
    for _ in range(100):
        page.keyboard.press("Control+z")
        settled(page)
        if not slate_of(page).strip():
            break
    assert not slate_of(page).strip()
    for nth in range(100):
        page.keyboard.press("Control+Shift+Z" if nth % 2 else "Control+Shift+z")
        settled(page)
        if slate_of(page) == written:
            break
    assert slate_of(page) == written


def type_rows(page: Page, text: str) -> int:
    """Type lines as a coach does, the editor indenting what it can; how many keys that took."""
    keys = 0
    for line in text.split("\n"):
        here = page.evaluate(
            "desk.editor.state.doc.lineAt(desk.editor.state.selection.main.head).text"
        )
        if here == "  " and not line.startswith(" "):
            page.keyboard.press("Enter")
            keys += 1
        typed = line.strip() if here == "  " else line
        page.keyboard.type(typed)
        for key in ("Escape", "Enter"):
            page.keyboard.press(key)
        keys += len(typed) + 2
    page.keyboard.press("Enter")
    return keys + 1


def test_shapes_are_taken_from_the_rack_and_worked_on_with_the_mouse(
    page: Page, server: Here
) -> None:
    page.goto(f"{server.url}/desk")
    page.get_by_role("button", name="New session").click()
    page.wait_for_selector(".cm-content")
    page.locator(".rack button", has_text="stations in a circle").click()
    settled(page)
    expect(page.locator(".rails .names li")).to_have_count(6)
    expect(page.locator("#title")).to_have_text("Stations in a circle")
    expect(page).to_have_title("Stations in a circle")
    page.locator(".rails h2 .figure").click()
    expect(page.locator("#why")).to_contain_text("a break takes the place")
    before = page.locator(".rails h2 .figure").inner_text()
    page.locator("#why button", has_text="add the break").click()
    settled(page)
    assert "break 2:00 added" in slate_of(page)
    assert page.locator(".rails h2 .figure").inner_text() != before
    page.locator(".stretch").nth(1).focus()  # between the warm-up and the cool-down
    page.keyboard.press("Shift+D")
    settled(page)
    expect(page.locator(".stretch")).to_have_count(4)
    page.keyboard.press("Shift+S")
    settled(page)
    expect(page.locator(".stretch")).to_have_count(5)
    page.keyboard.press("Shift+J")
    settled(page)
    expect(page.locator(".stretch")).to_have_count(4)
    page.keyboard.press("Delete")
    settled(page)
    expect(page.locator(".stretch")).to_have_count(3)
    page.locator('.station[data-move="0"]').focus()
    page.keyboard.press("Enter")
    page.keyboard.type("jump squat")
    page.keyboard.press("Enter")
    settled(page)
    assert re.search(r"^  jump squat \| bell", slate_of(page), re.MULTILINE)


def test_blocks_are_carried_as_text_between_sessions(
    page: Page, context: BrowserContext, server: Here
) -> None:
    context.grant_permissions(["clipboard-read", "clipboard-write"])
    new_session(
        page,
        server,
        "warm-up 5:00 at 3\n\n3 rounds of 40/20   # mine\n  squat\n  row\n\nrest 1:00\n",
    )
    page.locator(".stretch").nth(0).click(modifiers=["Shift"])
    page.locator(".stretch").nth(1).click(modifiers=["Shift"])
    expect(page.locator(".stretch.picked")).to_have_count(2)
    page.mouse.click(640, 8)
    page.keyboard.press("Control+c")
    new_session(page, server, "cool-down 3:00\n")
    page.locator(".stretch").first.focus()
    page.keyboard.press("Control+v")
    settled(page)
    until(page, "desk.lines().length === 3")
    assert "3 rounds of 40/20   # mine\n  squat\n  row" in slate_of(page)


def test_revisions_are_kept_and_compared(page: Page, server: Here) -> None:
    url = new_session(page, server, "3 rounds of 40/20\n  squat\n  row\n")
    page.goto(url + "/revisions")
    page.locator("#reason").fill("as tried on Monday")
    with page.expect_navigation():
        page.get_by_role("button", name="Save").click()
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


def test_lines_and_blocks_are_changed_by_keys(page: Page, server: Here) -> None:
    new_session(page, server, "2 rounds of 40/20\n  split squat   # mine\n  row\n\nrest 1:00\n")
    page.locator(".stretch").first.click()
    for side in (", each side", ", left then right", ""):
        page.locator('.station[data-move="0"]').press("s")
        until(page, f"desk.editor.state.doc.toString().includes('  split squat{side}   # mine')")
        settled(page)
    for key, word in (
        ("a", "or squat"),
        ("e", "easier hand on the wall"),
        ("h", "harder slow down"),
    ):
        page.locator('.station[data-move="1"]').press(key)
        page.keyboard.type(word.split(" ", 1)[1])
        page.keyboard.press("Enter")
        until(page, f"desk.editor.state.doc.toString().includes({word!r})")
        settled(page)
    page.locator(".stretch").nth(0).press("x")
    page.locator(".stretch").nth(1).press("x")
    expect(page.locator(".stretch.picked")).to_have_count(2)
    page.locator(".stretch").nth(1).press("Delete")
    settled(page)
    expect(page.locator(".stretch")).to_have_count(0)


DROP = """([name, text]) => {
  const files = new DataTransfer();
  files.items.add(new File([text], name));
  const options = { dataTransfer: files, bubbles: true, cancelable: true };
  document.getElementById("desk").dispatchEvent(new DragEvent("drop", options));
}"""


def test_files_of_every_form_are_dropped_on_the_desk(page: Page, server: Here) -> None:
    new_session(page, server, "title: Mine\n\nrest 1:00\n")
    slate = "title: Theirs\n\n3 rounds of 40/20\n  squat\n"
    as_json = page.request.post(f"{server.url}/api/read/slate", data={"slate": slate}).text()
    session = page.request.post(f"{server.url}/api/read/slate", data={"slate": slate}).json()
    as_csv = page.request.post(f"{server.url}/api/write/csv", data=session).text()
    for count, (name, text) in enumerate(
        (("a.slate", slate), ("a.json", as_json), ("a.csv", as_csv)), 2
    ):
        page.evaluate(DROP, [name, text])
        until(page, f"desk.lines().length === {count}")
        settled(page)
    assert "title: Mine" in slate_of(page) and "Theirs" not in slate_of(page)
    page.evaluate(DROP, ["b.json", '{"blocks": 3}'])
    expect(page.locator("#said")).to_contain_text("not a session in its JSON form")
    assert page.evaluate("desk.lines().length") == 4
