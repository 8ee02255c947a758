"""Hearts in a browser: straps that are heard, one that comes by Bluetooth, faults named, a wall without hearts."""

import subprocess
import sys

import pytest
from playwright.sync_api import Browser, Locator, Page, expect

from tests.browser.conftest import Here
from tests.browser.test_thread import until

pytestmark = pytest.mark.browser
WORK = "6 x 30/60 at 8.5, heart 76-88% reserve, rest heart 130-150 at 5"
SLATE = f"title: One to two\npeople: 18\n\nwarm-up 0:20 at 5\n\n{WORK}\n"
# a strap as the browser's Bluetooth would hand it out: it tells 72 and 141 beats, with contact, and a battery of 63
BLUETOOTH = """
const level = { getUint8: () => 63 };
const heard = [];
const heart = { addEventListener: (_, does) => heard.push(does), startNotifications: async () => {
  let nth = 0;
  setInterval(() => {
    const bytes = nth++ % 2 ? [0x06, 72] : [0x06, 141];
    for (const does of heard) does({ target: { value: new DataView(new Uint8Array(bytes).buffer) } });
  }, 300);
} };
const battery = { getCharacteristic: async () => ({ readValue: async () => level }) };
const services = { 0x180d: { getCharacteristic: async () => heart }, 0x180f: battery };
const gatt = { connect: async () => ({ getPrimaryService: async (which) => services[which] }) };
const device = { name: "Red (7)", addEventListener: () => {}, gatt };
Object.defineProperty(navigator, "bluetooth", { value: { requestDevice: async () => device } });
"""


def playing(server: Here, people: int) -> subprocess.Popen[bytes]:
    command = [
        sys.executable,
        "-m",
        "lovrit.cli",
        "straps",
        "--to",
        server.url,
        "--people",
        str(people),
    ]
    return subprocess.Popen([*command, "--faults"], stdout=subprocess.DEVNULL)


def strap_of(page: Page, name: str) -> Locator:
    return page.locator(f".strap-wall li:has(.strap-id:text-is('{name}'))")


def test_a_strap_comes_by_bluetooth_and_is_given_to_somebody(page: Page, server: Here) -> None:
    page.add_init_script(BLUETOOTH)
    page.goto(f"{server.url}/straps")
    expect(page.locator("#strap-list")).to_contain_text("No strap from outside")
    page.get_by_role("button", name="Add one by Bluetooth").click()
    row = page.locator(".strap-wall li", has_text="Red 7")
    expect(row).to_contain_text("63 %")
    expect(row).to_contain_text("contact")
    row.locator("select[name=person]").select_option(label="Faye")
    expect(page.locator("#strap-list .readout")).to_contain_text("1 worn")
    page.reload()
    expect(row.locator("select[name=person] option:checked")).to_have_text("Faye")
    row.locator("summary").click()
    with (
        page.expect_navigation()
    ):  # a page that is still coming takes the place of one that is asked for
        row.get_by_role("button", name="forget it").click()
    page.goto(f"{server.url}/desk/4")  # its page brings no more beats


def test_a_class_with_straps_of_its_own_and_a_wall_without_hearts(
    browser: Browser, page: Page, server: Here
) -> None:
    straps = playing(server, 18)
    try:
        page.goto(f"{server.url}/straps")
        expect(page.locator(".strap-wall li")).to_have_count(18)
        low = strap_of(page, "S10")  # it shows per cent
        expect(low).to_contain_text("may be per cent")
        for nth in range(1, 19):
            choice = strap_of(page, f"S{nth:02}").locator("select[name=person]")
            choice.select_option(index=nth)
            expect(page.locator("#strap-list .readout")).to_contain_text(f"{nth} worn")
        session = page.request.post(f"{server.url}/desk", form={"text": SLATE}).url.rsplit("/", 1)[
            1
        ]
        page.request.post(f"{server.url}/crew/{session}/who/all")
        page.goto(f"{server.url}/desk/{session}?block=1")
        said = page.locator(".hearts-said")
        expect(said).to_contain_text("under, which is normal: a heart lags")
        assert page.locator(".corridor-strip .box").count() == 12  # of work and of rest
        page.get_by_role("button", name="Take to the floor").click()
        expect(page.locator("#ready")).to_contain_text("18 straps of their own")
        wall = browser.new_page()
        wall.goto(page.url.replace("/run/", "/wall/"))
        page.keyboard.press("Space")
        until(page, "document.querySelectorAll('#hearts .bead').length >= 12", 120_000)
        expect(page.locator(".calls").first).to_contain_text("strap tells nothing", timeout=40_000)
        text = wall.locator("main").inner_text()
        assert "strap" not in text and "heart" not in text.lower()
        assert not wall.locator(".bead, .thread, #hearts").count()
    finally:
        straps.terminate()
        straps.wait()
