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
WARM_UP_S = 75
MARA = 13
LAST_OF_SEASON = 15
REPEATS = "title: Repeats\n\nwarm-up 6:00 at 3\n  easy laps\n\n5 x 200 m, rest 0:40, at 8\n  run\n"


LEGS = """title: Legs and lungs
slot: 18:10-18:55

warm-up 6:00 at 3

5 rounds of 60/20, break 1:00, at 8
  goblet squat
  reverse lunge

cool-down 4:00 at 2
"""


MESSAGE = """Hi all, tomorrow in the hall
WU 8 min easy laps
A. Front squat 5x3, tempo 31X1
B. 3 Runden 40s / 20s, 2 min b/w rounds
- ring row
- Liegestütze
- plank
C. AMRAP 10: 12 cal row, 10 thrusters (40/30), 8 burpees
Bring water, please
CD 5 min
"""
PASTE = """(text) => {
  const event = new ClipboardEvent("paste", { clipboardData: new DataTransfer(), bubbles: true, cancelable: true });
  event.clipboardData.setData("text/plain", text);
  document.querySelector(".cm-content").dispatchEvent(event);
}"""


def serve(data: Path) -> subprocess.Popen[bytes]:
    """The demo, fresh, on a port of its own."""
    env = os.environ | {"LOVRIT_DATA": str(data), "LOVRIT_PORT": str(PORT)}
    process = subprocess.Popen(
        [sys.executable, "-m", "lovrit.cli", "demo"], env=env, stdout=subprocess.DEVNULL
    )
    if not any(answers("/clock") for _ in range(100)):
        raise SystemExit("the demo did not start")
    if not any(answers(f"/debrief/{LAST_OF_SEASON}") for _ in range(600)):
        raise SystemExit("the demo's season was not filled")
    return process


def answers(path: str) -> bool:
    """Whether the demo answers here; waits a moment where it doesn't yet."""
    try:
        urllib.request.urlopen(URL + path, timeout=5).read()
    except OSError:
        time.sleep(0.1)
        return False
    return True


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


def placed(browser: Browser) -> Page:
    """The hall with everything placed, and a bell missing."""
    page = open_page(browser, "/hall/4", DESK)
    page.get_by_role("button", name="Place it").click()
    page.wait_for_selector(".took")
    page.get_by_text("The hall and its kit, in figures").click()
    page.get_by_label("bell 12 kg away tonight").fill("1")
    page.get_by_role("button", name="Save the hall").click()
    page.wait_for_selector(".clashes")
    page.locator("#thread", has_text="clashes").wait_for()
    page.get_by_text("The hall and its kit, in figures").click()
    page.evaluate("scrollTo(0, 0)")
    return page


def thinking(browser: Browser) -> None:
    """A message read, and a fit."""
    page = open_page(browser, "/desk", DESK)
    page.get_by_role("button", name="New session").click()
    page.wait_for_selector(".cm-content")
    page.evaluate(PASTE, MESSAGE)
    page.wait_for_selector(".became")
    page.locator(".answer").first.click()
    page.wait_for_timeout(1500)
    page.evaluate("desk.editor.contentDOM.blur()")
    take(page, "desk-message")
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


def worn(browser: Browser) -> Page:
    """The strap wall, with straps that a program of its own plays, two of them with a fault."""
    command = [
        sys.executable,
        "-m",
        "lovrit.cli",
        "straps",
        "--to",
        URL,
        "--people",
        "12",
        "--faults",
    ]
    straps = subprocess.Popen([*command, "--seconds", "12"], stdout=subprocess.DEVNULL)
    page = open_page(browser, "/straps", DESK)
    page.wait_for_selector(".strap-wall")
    for nth in range(1, 11):
        form = {"strap": f"S{nth:02}", "person": str(nth + (nth > 4))}
        page.request.post(f"{URL}/straps/wear", form=form)
    page.reload()
    page.wait_for_timeout(2500)
    straps.wait()
    return page


def laid_out(browser: Browser) -> Page:
    """Three weeks with sessions that clash, a regatta and an exam, a theme, an hour and a day off; seen by people."""
    page = open_page(browser, "/weeks?weeks=3", DESK)
    days = page.locator("[data-day].day").evaluate_all("all => all.map(one => one.dataset.day)")
    for session, day in ((4, 8), (3, 11), (2, 15), (4, 16), (3, 18)):
        page.request.post(f"{URL}/weeks/put", form={"session": str(session), "day": days[day]})
    made = page.request.post(f"{URL}/desk", form={"text": LEGS}).url.rsplit("/", 1)[1]
    page.request.post(f"{URL}/weeks/put", form={"session": made, "day": days[9]})
    for what, day, weight in (("Regatta", 13, "hard"), ("Exams", 17, "some")):
        page.request.post(
            f"{URL}/weeks/other", form={"what": what, "day": days[day], "weight": weight}
        )
    page.request.post(f"{URL}/weeks/theme", form={"monday": days[7], "text": "quiet landings"})
    page.request.post(f"{URL}/weeks/off", form={"day": days[19]})
    words = {"bring": "indoor shoes, water", "words": "See you in the hall."}
    page.request.post(f"{URL}/weeks/see", form={"at": days[0], "until": days[20], **words})
    page.goto(f"{URL}/weeks?from={days[7]}&weeks=2")
    page.wait_for_timeout(1200)
    return page


def seen(browser: Browser, weeks: Page) -> None:
    """What people see of it in the hand; a member's own page, and a session that they run alone."""
    link = weeks.get_by_role("link", name="Their page").get_attribute("href") or ""
    take(open_page(browser, link, HAND), "seen")
    mine = open_page(browser, f"/people/{MARA}/link", HAND)
    mine.get_by_role("button", name="I come").first.click()
    mine.wait_for_timeout(600)
    take(mine, "mine")
    mine.get_by_role("link", name="as it is").first.click()
    mine.get_by_label("I have read it").check()
    mine.get_by_text("it needs no network").wait_for()
    mine.context.set_offline(True)
    mine.get_by_role("button", name="Begin").click()
    mine.get_by_role("button", name="Next", exact=True).click()
    mine.wait_for_timeout(1200)
    take(mine, "own")


def own_page(browser: Browser, path: str) -> Page:
    """What one person sees of a class in the hand: Cilla, who does some of it in another version."""
    screens = open_page(browser, f"{path}/screens", DESK)
    link = screens.locator("a[href*='/hand/']", has_text="Cilla").first.get_attribute("href")
    return open_page(browser, (link or "").removeprefix(URL), HAND)


def main() -> None:
    """All pictures."""
    OUT.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as data, sync_playwright() as play:
        process = serve(Path(data))
        browser = play.chromium.launch(
            executable_path="/usr/bin/chromium-headless-shell", args=QUIET
        )
        try:
            take(open_page(browser, "/", DESK), "tonight")
            take(open_page(browser, "/desk/4", DESK), "desk")
            take(open_page(browser, "/moves", DESK), "moves")
            thinking(browser)
            take(open_page(browser, "/crew/4", DESK), "crew")
            take(open_page(browser, "/crew/4/fit", DESK), "fit-sheet")
            take(placed(browser), "hall")
            path, coach = run_class(browser)
            take(coach, "run-coach")
            take(open_page(browser, path.replace("/run/", "/wall/"), DESK), "run-wall")
            take(open_page(browser, path, HAND), "run-hand")
            take(own_page(browser, path), "run-person")
            weeks = laid_out(browser)
            take(weeks, "weeks")
            seen(browser, weeks)
            take(worn(browser), "straps")
            take(open_page(browser, f"/debrief/{LAST_OF_SEASON}", DESK), "debrief")
            take(open_page(browser, "/debrief/club", DESK), "club")
        finally:
            browser.close()
            process.kill()


if __name__ == "__main__":
    main()
