"""Every button of every page and panel is pressed: something is seen to come of it, or a sentence says why not."""

import re
from contextlib import suppress

import httpx
import pytest
from playwright.sync_api import Browser, Error, Locator, Page

from tests.browser.conftest import Hall
from tests.browser.test_left_alone import CLASSES, begun, press

pytestmark = pytest.mark.browser

PAGES = (
    "/desk", "/desk/4", "/desk/4/revisions", "/desk/4/fit", "/desk/4/recast?block=1", "/desk/4/try",
    "/desk/4/message", "/crew/4",
    "/crew/4/fit", "/hall/4", "/people", "/people/3", "/straps", "/weeks", "/weeks/clashes", "/weeks/series?session=4",
    "/club", "/debrief", "/moves", "/moves/new", "/join", "/debrief/{over}", "/run/{ready}", "/run/{on}", "/wall/{on}",
)  # fmt: skip
# what a press may do: ask the server, go somewhere, change the page, move the focus, say something
WATCH = """() => {
  window.came = 0;
  new MutationObserver((all) => { window.came += all.length; })
    .observe(document.documentElement, { subtree: true, childList: true, attributes: true, characterData: true });
  const fetched = window.fetch;
  window.fetch = (...given) => { window.came += 1; return fetched(...given); };
  document.addEventListener("focusin", () => { window.came += 1; });
}"""
OPENED = (
    "for (const one of [...document.querySelectorAll('main details')].slice(0, 6)) one.open = true"
)
# the browser's own: a screen that is full already, a field that wants something typed first, or a window of its own
NOT_HERE = re.compile(r"full screen|choose file|bluetooth", re.IGNORECASE)


# a button that only pages without scripts show is pressed by nobody here
BUTTONS = "main button:visible:not([disabled]):not(.visually-hidden)"
SIGNS = """all => all.map((one) =>
  [one.textContent.trim(), one.form?.getAttribute("action"), one.dataset.do, one.name].join("|"))"""


def signs_of(page: Page) -> list[str]:
    """What the buttons of a page are, whoever or whatever each is of: two of a kind are pressed once."""
    said = page.locator(BUTTONS).evaluate_all(SIGNS)
    return [re.sub(r"\d+|\b[A-Z][a-z]+ ?[A-Z]?\b", "", one) for one in said[:120]]


def open_at(page: Page, url: str) -> None:
    """A page, also while what was pressed before still leads somewhere else."""
    for _ in range(5):
        with suppress(Error):
            page.goto(url, wait_until="domcontentloaded")
            page.evaluate(OPENED)
            return
        page.wait_for_timeout(100)
    raise AssertionError(url)


def test_every_button_does_something(hall: Hall, browser: Browser) -> None:
    over = begun(hall, CLASSES["ends by a cap"])
    hall.on(30)
    with httpx.Client(base_url=hall.url) as client:
        press(client, over, "end")
        ready = client.post("/desk/3/floor").headers["location"].rsplit("/", 1)[1]
    on = begun(hall, CLASSES["stations"])
    dead, pressed, page = [], set[str](), browser.new_page()
    for path in PAGES:
        url = hall.url + path.format(over=over, ready=ready, on=on)
        open_at(page, url)
        signs = {sign: nth for nth, sign in reversed(list(enumerate(signs_of(page))))}
        for sign, nth in signs.items():
            if sign in pressed or NOT_HERE.search(sign):
                continue
            pressed.add(sign)
            open_at(page, url)
            there = signs_of(page)
            same = nth < len(there) and there[nth] == sign
            if same and not comes_of(page, page.locator(BUTTONS).nth(nth)):
                dead.append(f"{path}: {sign}")
    page.context.close()
    assert len(pressed) > 60
    assert not dead, "\n".join(dead)


def comes_of(page: Page, button: Locator) -> bool:
    """Whether anything comes of pressing a button, within a second."""
    page.evaluate(WATCH)
    before = page.url
    asked: list[str] = []
    page.once("request", lambda one: asked.append(one.url))
    button.evaluate(
        "one => { one.focus(); window.came = 0; }"
    )  # that it gets the focus is nothing of its own
    try:
        button.click(timeout=1500, delay=30)
    except Error:
        return True  # it stands under something, which another test looks at
    for _ in range(20):
        with suppress(Error):  # a page that goes elsewhere answers nothing
            if asked or page.url != before or page.evaluate("window.came ?? 1"):
                return True
        page.wait_for_timeout(50)
    return False
