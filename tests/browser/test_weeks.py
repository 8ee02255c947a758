"""Weeks by key and by hand: a session is put on a day, moved, dragged, and taken back."""

import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import Here

pytestmark = pytest.mark.browser
FROM = "2027-05-03"


def test_a_session_goes_by_key_and_by_hand_and_comes_back(page: Page, server: Here) -> None:
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
    one.focus()
    page.keyboard.press("Alt+c")
    expect(page.locator(".on[data-day='2027-05-14']")).to_have_count(1)
    page.goto(f"{server.url}/desk/{session}")
    expect(page.locator(".cm-content")).to_contain_text("date: 2027-05-07")


LEGS = "title: Legs\nslot: 18:10-18:55\n\nwarm-up 6:00 at 3\n\n5 rounds of 60/20 at 9\n  jump squat\n  squat\n  squat\n"
PULL = "title: Pull\nslot: 18:10-18:55\n\nwarm-up 6:00 at 3\n\n4 rounds of 40/20 at 8\n  ring row\n  bell row\n"


def test_four_weeks_are_laid_out_mended_seen_and_changed(page: Page, server: Here) -> None:
    """From an empty board to a change that reaches a phone and a calendar."""
    numbers = []
    for text in (LEGS, LEGS.replace("Legs", "More legs"), PULL):
        made = page.request.post(f"{server.url}/desk", form={"text": text})
        numbers.append(made.url.rsplit("/", 1)[1])
    page.goto(f"{server.url}/weeks?from=2027-06-07")
    for session, day in zip(numbers, ("2027-06-09", "2027-06-10", "2027-06-12"), strict=True):
        page.locator("#put-session").select_option(value=session)
        page.locator("#put-day").select_option(value=day)
        page.get_by_role("button", name="Put it there").first.click()
        expect(page.locator(f"[data-session='{session}']")).to_have_attribute("data-day", day)
    expect(page.locator(".clash-list")).to_contain_text(
        "More legs asks"
    )  # Thursday's clash, and what helps
    page.get_by_role("button", name="Take the better order").click()
    expect(page.get_by_role("button", name="Take the better order")).to_have_count(0)
    page.get_by_label("how many weeks are shown").select_option("6")
    expect(page.locator("section[aria-label^='Week of']")).to_have_count(6)
    page.get_by_label("theme of the week of 7 June").fill("quiet landings")
    with page.expect_navigation():
        page.keyboard.press("Tab")  # left, not entered: it is kept all the same
    expect(page.get_by_label("theme of the week of 7 June")).to_have_value("quiet landings")
    week = page.locator("section", has=page.get_by_role("heading", name="7 June"))
    week.get_by_text("this week").click()
    week.get_by_role("button", name="copy it there").click()
    expect(page.locator(".on[data-day^='2027-06']")).to_have_count(6)
    page.get_by_label("to bring").fill("indoor shoes")
    page.get_by_role("button", name="Publish").click()
    link = page.get_by_role("link", name="Their page").get_attribute("href")
    phone = page.context.browser.new_page(viewport={"width": 390, "height": 844})  # type: ignore[union-attr]
    phone.goto(f"{server.url}{link}")
    for said in ("quiet landings", "indoor shoes", "Legs", "hard legs", "9 June"):
        expect(phone.locator(".seen")).to_contain_text(said)
    phone.get_by_role("link", name="At home").first.click()
    expect(phone.get_by_role("heading", level=1)).to_contain_text("at home")
    page.locator(f"[data-session='{numbers[0]}']").focus()
    page.keyboard.press("Alt+ArrowLeft")
    expect(page.locator(".let-see")).to_contain_text("otherwise than they saw it")
    page.get_by_role("button", name="Publish").click()
    expect(page.locator(".let-see")).to_contain_text("They see it as it is")
    phone.goto(f"{server.url}{link}")
    expect(phone.locator(".was")).to_have_count(1)
    feed = page.request.get(f"{server.url}{link}/weeks.ics").text()
    assert feed.count("BEGIN:VEVENT") == 6 and feed.count("SEQUENCE:1") == 1
    phone.close()


def test_a_sheet_of_scores_is_typed_down_a_column(page: Page, server: Here) -> None:
    """Eighteen scores by keyboard: each is kept as it is typed, an impossible one stays in its cell with the limit."""
    slate = "title: Sheet\n\nas many as possible in 0:20 at 7\n  5 squat\n  5 push-up\n"
    made = page.request.post(f"{server.url}/desk", form={"text": slate})
    at = made.url.rsplit("/", 1)[1]
    for person in range(1, 19):
        page.request.post(
            f"{server.url}/crew/{at}/place", form={"person": str(person), "group": "0"}
        )
    page.goto(f"{server.url}/desk/{at}")
    page.get_by_role("button", name="Take to the floor").click()
    page.wait_for_selector("#run[data-phase=ready]")
    class_id = page.url.rsplit("/", 1)[1]
    page.keyboard.press("Space")
    page.keyboard.press("ArrowRight")
    page.keyboard.down("e")
    expect(page.get_by_role("link", name="To the debrief")).to_be_visible()
    page.keyboard.up("e")
    page.goto(f"{server.url}/debrief/{class_id}")
    cells = page.locator(".own-score input[name=text]")
    expect(cells).to_have_count(18)
    cells.first.click()
    for nth in range(18):
        page.keyboard.type(f"1r {nth % 9}")
        page.keyboard.press("Enter")
    cells.nth(4).fill("99")
    cells.nth(4).press("Enter")
    expect(page.locator(".own-score").nth(4)).to_contain_text("can't have been")
    expect(cells.nth(4)).to_have_value("99")
    wanted = [f"1 + {nth % 9}" for nth in range(18)]
    for _ in range(
        20
    ):  # the last may still be on its way as the page is left; it is sent all the same
        page.reload()
        kept = cells.evaluate_all("all => all.map(one => one.value)")
        if kept == wanted:
            break
        page.wait_for_timeout(250)
    assert kept == wanted
