"""Every picture of docs/screenshots, taken from the demo data in one go."""

import os
import subprocess
import sys
import tempfile
import time
import urllib.request
from pathlib import Path

from playwright.sync_api import Browser, Page, sync_playwright

OUT = Path("docs/screenshots")
PORT = 8497
URL = f"http://127.0.0.1:{PORT}"
QUIET = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-background-networking",
    "--disable-component-update",
]
DESK = (1280, 800)
HAND = (390, 844)
SHEET = (794, 1123)
WARM_UP_S = 75


def serve(data: Path) -> subprocess.Popen[bytes]:
    """The demo, fresh, on a port of its own."""
    env = os.environ | {"LOVRIT_DATA": str(data), "LOVRIT_PORT": str(PORT)}
    process = subprocess.Popen(
        [sys.executable, "-m", "lovrit.cli", "demo"], env=env, stdout=subprocess.DEVNULL
    )
    for _ in range(100):
        try:
            urllib.request.urlopen(f"{URL}/clock", timeout=1).read()
        except OSError:
            time.sleep(0.1)
        else:
            return process
    raise SystemExit("the demo did not start")


def open_page(browser: Browser, path: str, size: tuple[int, int]) -> Page:
    """A page of the demo at a size."""
    page = browser.new_page(viewport={"width": size[0], "height": size[1]})
    page.goto(URL + path)
    page.wait_for_timeout(700)
    return page


def take(page: Page, name: str) -> None:
    """One picture."""
    page.screenshot(path=OUT / f"{name}.png")
    sys.stdout.write(f"{name}\n")


def compared(browser: Browser) -> Page:
    """Two revisions of a session side by side."""
    page = open_page(browser, "/desk/2", DESK)
    page.request.post(f"{URL}/desk/2/revisions", form={"reason": "as written in autumn"})
    edit = '{"do": "set", "block": 1, "figure": "count", "value": 4}'
    page.request.post(f"{URL}/desk/2/edit", form={"edit": edit, "base": "1"})
    page.goto(f"{URL}/desk/2/revisions")
    return page


TOO_MUCH = """title: Too much of a good thing
slot: 18:10-18:55
people: 18
setup: 2:00

as many as possible in 20:00 at 9
  20 push-up
  30 jump squat
  20 swing
"""


def hold_to_end(page: Page) -> None:
    """End a class: E is held for a second."""
    page.keyboard.down("e")
    page.wait_for_timeout(1200)
    page.keyboard.up("e")


def thinking(browser: Browser) -> None:
    """A session that is too much, what is said of it, its recast, and a fit."""
    page = open_page(browser, "/desk", DESK)
    page.get_by_role("button", name="New session").click()
    page.wait_for_selector(".cm-content")
    page.locator(".cm-content").click()
    page.keyboard.insert_text(TOO_MUCH)
    page.wait_for_timeout(1500)
    page.locator(".cm-line", has_text="jump squat").click()
    page.wait_for_timeout(1500)
    take(page, "desk-forecast")
    page.evaluate("desk.editor.contentDOM.blur()")
    page.keyboard.press("Alt+r")
    page.wait_for_timeout(900)
    take(page, "desk-recast")
    page = open_page(browser, "/desk/4", DESK)
    page.keyboard.press("Alt+f")
    page.wait_for_timeout(600)
    page.fill("#fit-value", "40:00")
    page.keyboard.press("Enter")
    page.wait_for_timeout(1500)
    take(page, "desk-fit")


def run_class(browser: Browser) -> tuple[str, Page]:
    """Take the winter session to the floor and let it run into its second turn."""
    page = open_page(browser, "/desk/4", DESK)
    page.get_by_role("button", name="Take to the floor").click()
    page.wait_for_selector("#run")
    page.keyboard.press("Space")
    page.wait_for_timeout(WARM_UP_S * 1000)
    page.keyboard.press("ArrowRight")
    page.wait_for_timeout(90_000)
    return page.url.removeprefix(URL), page


def main() -> None:
    """All pictures."""
    OUT.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as data, sync_playwright() as play:
        process = serve(Path(data))
        browser = play.chromium.launch(executable_path="/usr/bin/chromium", args=QUIET)
        try:
            take(open_page(browser, "/desk/4", DESK), "desk")
            take(open_page(browser, "/desk/4", HAND), "desk-hand")
            take(open_page(browser, "/desk/1?block=3", DESK), "desk-ladder")
            take(open_page(browser, "/desk/3?block=3", DESK), "desk-every-minute")
            take(open_page(browser, "/desk", DESK), "sessions")
            take(open_page(browser, "/moves", DESK), "moves")
            take(open_page(browser, "/moves/ring%20row", DESK), "move")
            thinking(browser)
            take(compared(browser), "revisions")
            take(open_page(browser, "/desk/4/session.sheet", SHEET), "sheet")
            take(open_page(browser, "/crew/4", DESK), "crew")
            path, coach = run_class(browser)
            take(coach, "run-coach")
            take(open_page(browser, path.replace("/run/", "/wall/"), DESK), "run-wall")
            take(open_page(browser, path, HAND), "run-hand")
            coach.wait_for_timeout(240_000)
            hold_to_end(coach)
            coach.wait_for_timeout(500)
            take(open_page(browser, path.replace("/run/", "/debrief/"), DESK), "debrief")
        finally:
            browser.close()
            process.kill()


if __name__ == "__main__":
    main()
