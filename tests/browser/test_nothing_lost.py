"""Nothing pressed or typed is lost, and nothing pretended: servers that fail, networks that go, two at once."""

import pytest
from playwright.sync_api import BrowserContext, Page, Route, expect

from tests.browser.conftest import Here, post
from tests.browser.test_thread import hold_to_end, new_session, settled, slate_of, until, write

pytestmark = pytest.mark.browser
STEADY = (
    "title: Steady\npeople: 4\n\neasy laps 5:00 at 3\n\n3 rounds of 0:40/0:20\n  squat\n  plank\n"
)
NASTY = "<!--<script>\"'</script><meta http-equiv=refresh content=0;url=/gone>"


def to_the_floor(page: Page, server: Here, text: str = STEADY) -> int:
    session = new_session(page, server, text).rsplit("/", 1)[1]
    page.request.post(f"{server.url}/crew/{session}/who/all")
    page.get_by_role("button", name="Take to the floor").click()
    page.wait_for_selector("#run[data-phase=ready]")
    return int(page.url.rsplit("/", 1)[1])


def answers_with(page: Page, fetch: str) -> None:
    """From now on, until it is loaded again, a page's posts are answered by this instead of by the server."""
    page.evaluate(f"window.kept = window.fetch; window.fetch = {fetch}; 0")


@pytest.mark.parametrize("status", [401, 413, 500, 507])
def test_a_press_that_was_not_taken_is_kept_and_said(page: Page, server: Here, status: int) -> None:
    to_the_floor(page, server)
    page.keyboard.press("Space")
    until(page, "run.view.phase === 'on' && !run.presses.waiting.length")
    answers_with(page, f"async () => new Response('Not now.', {{status: {status}}})")
    page.keyboard.press("Space")
    expect(page.locator("#what")).to_have_text("held")
    expect(page.locator("#said")).to_contain_text("One press waits")
    held = page.locator("#time").inner_text()
    page.reload()
    expect(page.locator("#what")).to_have_text("held")
    until(page, "!run.presses.waiting.length", 12_000)
    expect(page.locator("#time")).to_have_text(held)
    assert page.evaluate("run.server.phase") == "held"


def test_a_server_that_does_not_answer_is_said_within_two_seconds(page: Page, server: Here) -> None:
    to_the_floor(page, server)
    answers_with(page, "() => new Promise(() => {})")
    page.keyboard.press("Space")
    expect(page.locator("#said")).to_contain_text("does not answer")


def test_a_press_is_sent_with_seven_desks_open(
    page: Page, context: BrowserContext, server: Here
) -> None:
    class_id = to_the_floor(page, server)
    desks = [context.new_page() for _ in range(7)]
    for desk in desks:
        desk.goto(f"{server.url}/desk/4")
        desk.wait_for_selector(".cm-content")
    wall = context.new_page()
    wall.goto(f"{server.url}/wall/{class_id}")
    page.bring_to_front()
    page.keyboard.press("Space")
    expect(wall.locator("#what")).to_have_text("get ready")
    until(page, "!run.presses.waiting.length", 2000)
    post(server, "/desk/4/text", {"text": "rest 3:00", "base": "1"})
    for desk in desks:
        until(desk, "desk.version > 1")
    post(server, "/desk/4/undo", {})


def test_late_presses_count_from_their_own_moment(
    page: Page, context: BrowserContext, server: Here
) -> None:
    """Cut off, held for two seconds, on again: when the network is back, screen and server agree and nothing jumps."""
    to_the_floor(page, server)
    page.keyboard.press("Space")
    until(page, "run.view.phase === 'on' && run.now() > run.view.moments[0].zero + 500", 8000)
    until(page, "!run.presses.waiting.length")
    context.set_offline(True)
    began = page.evaluate("run.now()")
    until(page, f"run.now() > {began} + 500")
    page.keyboard.press("Space")
    until(page, f"run.now() > {began} + 2000")
    page.keyboard.press("Space")
    until(page, f"run.now() > {began} + 2600")
    expect(page.locator("#said")).to_contain_text("wait")
    before = page.evaluate("run.view.ends_ms")
    context.set_offline(False)
    until(page, "!run.presses.waiting.length", 15_000)
    after = page.evaluate("run.server.ends_ms")
    assert abs(after - before) < 120


def test_two_coaches_press_next_for_the_same_turn(
    page: Page, context: BrowserContext, server: Here
) -> None:
    to_the_floor(page, server)
    page.keyboard.press("Space")
    page.keyboard.press("ArrowRight")
    second = context.new_page()
    second.goto(page.url)
    until(second, "run.view.phase === 'on' && run.view.moments[0].kind !== 'count'")
    for coach in (page, second):
        answers_with(coach, "async () => new Response('', {status: 503})")
        coach.keyboard.press("ArrowRight")
        until(coach, "run.presses.waiting.length === 1")
        assert coach.evaluate("run.presses.waiting[0].place") == "0.0"
    for coach in (page, second):
        coach.evaluate("window.fetch = window.kept; 0")
    until(page, "!run.presses.waiting.length", 9000)
    until(second, "!run.presses.waiting.length", 9000)
    places = [coach.evaluate("run.server.moments[0].place") for coach in (page, second)]
    assert places == ["1.0", "1.0"]


def test_nobody_stops_and_no_class_ends_by_mistake(page: Page, server: Here) -> None:
    to_the_floor(page, server)
    page.keyboard.press("Space")
    page.keyboard.press("s")
    expect(page.locator("#who-title")).to_be_focused()
    page.keyboard.press("Space")
    page.keyboard.press("Escape")
    page.keyboard.press("e")
    pressed = page.evaluate("run.now()")
    until(page, f"run.now() > {pressed} + 1200")  # longer than a hold takes
    assert page.evaluate("[run.view.phase, run.view.stopped.length].join()") == "on,0"
    hold_to_end(page)
    expect(page.locator("#what")).to_have_text("done")
    assert page.locator("#controls .press:visible").count() <= 2
    page.get_by_role("button", name="Go on after all").click()
    expect(page.locator("#run")).to_have_attribute("data-phase", "on")
    until(page, "!run.presses.waiting.length && run.server.phase === 'on'")


def test_typing_on_an_old_version_wipes_nothing_that_others_wrote(page: Page, server: Here) -> None:
    new_session(page, server, STEADY)
    session = page.url.rsplit("/", 1)[1].split("?")[0]
    page.route("**/text", lambda route: route.fulfill(status=503, body="Held by something else."))
    page.locator(".cm-line", has_text="title").click()
    page.keyboard.press("End")
    page.keyboard.type(" and slow")
    expect(page.locator("#said")).to_contain_text("kept here")
    version = page.evaluate("desk.version")
    post(
        server,
        f"/desk/{session}/text",
        {"text": STEADY.replace("plank", "side plank"), "base": str(version)},
    )
    page.goto(f"{server.url}/clock")
    page.unroute("**/text")
    page.goto(f"{server.url}/desk/{session}")
    until(page, "window.desk && desk.editor.state.doc.toString().includes('and slow')")
    settled(page)
    page.reload()
    page.wait_for_selector(".cm-content")
    assert "Steady and slow" in slate_of(page) and "side plank" in slate_of(page)


def test_an_empty_slate_is_a_beginning(page: Page, server: Here) -> None:
    new_session(page, server, STEADY)
    page.keyboard.press("Control+a")
    page.keyboard.press("Delete")
    settled(page)
    page.reload()
    page.wait_for_selector(".cm-content")
    assert slate_of(page) == ""
    write(page, "rest 2:00")
    settled(page)
    assert slate_of(page) == "rest 2:00"


def test_letters_go_to_the_slate_after_a_fix(page: Page, server: Here) -> None:
    new_session(page, server, "6 x 12/10 at 10\n  shuttle run\n")
    page.locator("#look form.edit button").first.click()
    settled(page)
    page.keyboard.press("Control+End")
    page.keyboard.type("row")
    settled(page)
    assert slate_of(page).endswith("row") and page.locator("#panel").is_hidden()


def test_efforts_are_saved_as_they_are_typed(page: Page, server: Here) -> None:
    class_id = to_the_floor(page, server)
    page.keyboard.press("Space")
    page.keyboard.press("ArrowRight")
    page.keyboard.press("ArrowRight")
    page.keyboard.press("m")
    until(page, "!run.presses.waiting.length")
    hold_to_end(page)
    page.goto(f"{server.url}/debrief/{class_id}")
    expect(page.locator(".chronicle")).to_contain_text("marked")
    after = page.locator("#thread a", has_text="After")
    expect(after).to_contain_text("how hard?")
    first, second = (
        page.locator(".felt input[name=value]").nth(0),
        page.locator(".felt input[name=value]").nth(1),
    )
    first.click()
    page.keyboard.type("7,5")
    page.keyboard.press("ArrowDown")
    expect(second).to_be_focused()
    page.keyboard.type("12")
    expect(page.locator(".felt .stop")).to_contain_text("no effort")
    expect(second).to_be_focused()
    expect(page.locator("#readout")).to_contain_text("effort felt 7.5")
    expect(after).not_to_contain_text("how hard?")  # the thread tells it as the page does
    page.reload()
    expect(first).to_have_value("7.5")


def test_names_of_any_kind_go_nowhere(page: Page, server: Here) -> None:
    """Every page with a name that would break out of it, if it could: it is shown, and nothing happens."""
    said: list[str] = []
    page.on(
        "console",
        lambda message: (
            said.append(f"{page.url} {message.text} {message.location}")
            if message.type == "error"
            else None
        ),
    )
    page.on("pageerror", lambda error: said.append(str(error)))
    page.on("dialog", lambda dialog: said.append(dialog.message))
    text = f"title: {NASTY}\npeople: 4\n\n2 rounds of 0:20/0:10\n  squat\n  plank | kit </script>\n"
    page.goto(f"{server.url}/desk")
    post(server, "/desk", {"text": text.replace(" | kit </script>", "")})
    page.goto(f"{server.url}/desk")
    page.locator(".sessions a").first.click()
    page.wait_for_url("**/desk/*")
    session = page.evaluate("location.pathname").rsplit("/", 1)[1]
    post(
        server,
        "/moves",
        {"name": "heron stand", "pattern": "lunge", "seconds": "3", "kit": NASTY, "cue": NASTY},
    )
    post(server, f"/crew/{session}/join", {"name": NASTY[:58]})
    post(server, f"/desk/{session}/revisions", {"reason": NASTY})
    post(server, f"/desk/{session}/aside", {"code": "no-warm-up", "reason": NASTY})
    page.goto(f"{server.url}/desk/{session}")
    page.get_by_role("button", name="Take to the floor").click()
    page.wait_for_selector("#run[data-phase=ready]")
    class_id = int(page.url.rsplit("/", 1)[1])
    page.keyboard.press("Space")
    until(page, "!run.presses.waiting.length && run.view.phase === 'on'")
    post(server, f"/debrief/{class_id}/note", {"op": "n", "text": NASTY})
    paths = [
        "/desk",
        f"/desk/{session}",
        f"/desk/{session}/revisions",
        f"/desk/{session}/session.sheet",
        f"/crew/{session}",
    ]
    paths += [f"/run/{class_id}"]
    paths += [f"/wall/{class_id}", f"/debrief/{class_id}", "/debrief", "/moves", "/club"]
    for path in paths:
        page.goto(f"{server.url}{path}")
        page.wait_for_load_state("load")
        assert page.evaluate("location.pathname") == path
        assert page.evaluate("document.querySelectorAll('meta[http-equiv]').length") == 0
    assert not said, "\n".join(said)


def test_a_key_that_is_quicker_than_its_page_counts(page: Page, server: Here) -> None:
    """The coach presses Space while the script is still on its way; it begins as though it had been there."""
    class_id = to_the_floor(page, server)
    waiting: list[Route] = []

    def holds_back(route: Route) -> None:
        waiting.append(route)

    page.route("**/static/run.js*", holds_back)
    with page.expect_request("**/static/run.js*"):
        page.goto(f"{server.url}/run/{class_id}", wait_until="commit")
    page.locator("#run").wait_for(state="attached")
    page.keyboard.press("Space")
    waiting[0].continue_()
    expect(page.locator("#run")).to_have_attribute("data-phase", "on")
