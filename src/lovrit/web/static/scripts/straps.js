// Straps by the browser's own Bluetooth, where there is one: each measurement is sent on as it came, and read by the server.

const SERVICE = 0x180d;
const MEASUREMENT = 0x2a37;
const BATTERY_SERVICE = 0x180f;
const BATTERY_LEVEL = 0x2a19;
const SEND_EVERY_MS = 1000;
const AGAIN_MS = 4000;
const MOST_WAITING = 400;
const REFRESH_MS = 2000;

/** @type {{ id: string, measurement: string, at_ms: number, battery?: number }[]} */
let waiting = [];
const said = /** @type {HTMLElement} */ (document.getElementById("bluetooth-said"));
const button = /** @type {HTMLButtonElement} */ (document.getElementById("by-bluetooth"));
const bluetooth = /** @type {any} */ (navigator).bluetooth;

/** @param {DataView} value */
export const hexOf = (value) => [...new Uint8Array(value.buffer, value.byteOffset, value.byteLength)].map((byte) => byte.toString(16).padStart(2, "0")).join("");

/** @param {string} name */
export const idOf = (name) => name.replace(/[^\w .:-]/g, "").trim().slice(0, 64) || "strap";

/** What is waiting goes out; what could not be sent is sent with the next. */
async function send() {
  if (!waiting.length) return;
  const now = waiting.splice(0);
  try {
    const answer = await fetch("/straps/beats", { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify({ straps: now }) });
    if (!answer.ok) throw new Error(String(answer.status));
  } catch {
    waiting = [...now, ...waiting].slice(-MOST_WAITING);
  }
}

/** @param {any} device */
async function listen(device) {
  const server = await device.gatt.connect();
  let battery = /** @type {number | undefined} */ (undefined);
  try {
    const level = await (await server.getPrimaryService(BATTERY_SERVICE)).getCharacteristic(BATTERY_LEVEL);
    battery = (await level.readValue()).getUint8(0);
  } catch {
    battery = undefined; // not every strap tells
  }
  const heart = await (await server.getPrimaryService(SERVICE)).getCharacteristic(MEASUREMENT);
  const id = idOf(device.name || device.id);
  heart.addEventListener("characteristicvaluechanged", (/** @type {any} */ event) => {
    waiting.push({ id, measurement: hexOf(event.target.value), at_ms: Date.now(), ...(battery === undefined ? {} : { battery }) });
  });
  await heart.startNotifications();
  said.textContent = `${id} is heard. Leave this page open; it brings the beats.`;
}

async function add() {
  try {
    const device = await bluetooth.requestDevice({ filters: [{ services: [SERVICE] }], optionalServices: [BATTERY_SERVICE] });
    device.addEventListener("gattserverdisconnected", () => {
      said.textContent = `${idOf(device.name || device.id)} is gone; it is looked for again.`;
      window.setTimeout(() => listen(device).catch(() => {}), AGAIN_MS);
    });
    await listen(device);
  } catch (error) {
    const name = /** @type {any} */ (error)?.name;
    said.textContent = name === "NotFoundError" ? "None was chosen." : "It could not be reached: is it on, moist, and with nobody else?";
  }
}

/** What the straps tell by now; not while a hand is in the list. */
async function refresh() {
  const list = document.getElementById("strap-list");
  if (!list || document.hidden || list.contains(document.activeElement) || list.querySelector("details[open]")) return;
  try {
    const answer = await fetch("/straps/now");
    if (answer.ok) list.outerHTML = await answer.text();
  } catch {
    said.textContent = "Lovrit doesn’t answer; what stands here is old.";
  }
}
if (document.getElementById("strap-list")) window.setInterval(refresh, REFRESH_MS);
// who wears a strap is said by choosing; the list then says so
document.addEventListener("change", async (event) => {
  const choice = /** @type {HTMLElement} */ (event.target).closest("select[name=person]");
  const form = choice instanceof HTMLSelectElement ? choice.form : null;
  if (!form?.action.endsWith("/straps/wear")) return;
  await fetch(form.action, { method: "POST", body: new URLSearchParams(/** @type {any} */ (new FormData(form))) });
  if (choice instanceof HTMLElement) choice.blur();
  await refresh();
});

if (button && bluetooth) {
  button.hidden = false;
  button.addEventListener("click", add);
  window.setInterval(send, SEND_EVERY_MS);
} else if (said) {
  said.textContent = "This browser has no Bluetooth of its own; a program at the door does as well.";
}
