// What every page has: htmx, the keys dialog, going from screen to screen, groups moved by hand.
import htmx from "htmx.org/dist/htmx.esm.js";
import "./morph.js";
import { typing } from "./hands.js";

Object.assign(window, { htmx });
document.documentElement.classList.add("scripted");

/** @param {string} text Say something to whoever listens with a screen reader, and show it for a moment. */
export function say(text) {
  const said = document.getElementById("said");
  if (said) said.textContent = text;
}

// the session's steps in the order of the work, as its thread lists them; then the club's pages
const STEPS = ["/desk", "/crew", "/hall", "/run", "/debrief"];

/** Where Alt and a digit lead. @param {number} nth from 0 */
function screenAt(nth) {
  const step = document.querySelectorAll("#thread nav a")[nth];
  if (nth < STEPS.length) return step instanceof HTMLAnchorElement ? step.href : STEPS[nth];
  const page = document.querySelectorAll("#clubs a")[nth - STEPS.length];
  return page instanceof HTMLAnchorElement ? page.href : undefined;
}

document.addEventListener("keydown", (event) => {
  if (event.ctrlKey || event.metaKey) return;
  const digit = /^Digit([0-9])$/.exec(event.code)?.[1];
  const screen = digit && event.altKey && !event.shiftKey ? screenAt((Number(digit) + 9) % 10) : undefined;
  if (screen) {
    event.preventDefault();
    location.assign(screen);
  } else if (event.altKey || typing(event.target)) {
    return;
  } else if (event.key === "?") openDialog("keys");
  else if (event.key === "/" && document.getElementById("finder")) {
    event.preventDefault();
    openDialog("finder");
  }
});

// In what was found the arrows go up and down; Enter in the line takes the first.
document.addEventListener("keydown", (event) => {
  const finder = /** @type {HTMLElement} */ (event.target).closest?.("#finder");
  if (!finder) return;
  const found = /** @type {HTMLElement[]} */ ([...finder.querySelectorAll("#found a, #found button")]);
  const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
  const at = found.indexOf(/** @type {HTMLElement} */ (document.activeElement));
  if (step) {
    event.preventDefault();
    (found[at + step] ?? (step < 0 ? document.getElementById("sought") : found[at]))?.focus();
  } else if (event.key === "Enter" && at < 0 && found.length) {
    event.preventDefault();
    found[0].click();
  }
});

// What a session's steps still lack follows what is done on its pages.
const THREAD_MS = 400;
let threadDue = 0;

function followThread() {
  window.clearTimeout(threadDue);
  if (document.getElementById("thread")) threadDue = window.setTimeout(fetchThread, THREAD_MS);
}

async function fetchThread() {
  const shown = document.getElementById("thread");
  if (!shown) return;
  if (shown.contains(document.activeElement)) {
    followThread(); // not under somebody's focus: told as soon as it has gone on
    return;
  }
  try {
    const answer = await fetch(`/thread/${shown.dataset.thread}?here=${shown.dataset.here}`);
    if (answer.ok) shown.outerHTML = await answer.text();
  } catch {
    return; // it is told with the next page
  }
}
document.addEventListener("lovrit-changed", followThread);
document.addEventListener("htmx:afterRequest", (event) => {
  const { target, successful } = /** @type {CustomEvent} */ (event).detail;
  if (successful && target instanceof Element && !target.closest("#finder")) followThread();
});

// A menu closes with Esc, and when the hand goes elsewhere.
document.addEventListener("keydown", (event) => {
  const open = event.key === "Escape" ? document.querySelector("details.menu[open]") : null;
  if (!open) return;
  open.removeAttribute("open");
  open.querySelector("summary")?.focus();
});
document.addEventListener("pointerdown", (event) => {
  for (const open of document.querySelectorAll("details.menu[open]")) {
    if (!open.contains(/** @type {Node} */ (event.target))) open.removeAttribute("open");
  }
});

document.addEventListener("click", (event) => {
  const button = /** @type {HTMLElement} */ (event.target).closest("[data-opens]");
  if (button instanceof HTMLElement) openDialog(button.dataset.opens ?? "");
});

/** @param {string} id */
function openDialog(id) {
  const dialog = document.getElementById(id);
  if (dialog instanceof HTMLDialogElement && !dialog.open) dialog.showModal();
}

// A post by htmx that was refused, or that nobody answered, says so.
document.addEventListener("htmx:responseError", (event) => {
  const { xhr, elt } = /** @type {CustomEvent} */ (event).detail;
  const why = xhr.responseText || "That did not work.";
  const form = elt instanceof Element ? elt.closest("form") : null;
  if (form) besides(form, why);
  else say(why);
});

/** A refusal stands where it was typed, until the next try. @param {Element} form @param {string} why */
function besides(form, why) {
  form.querySelector(".refused-here")?.remove();
  const line = Object.assign(document.createElement("p"), { className: "refused-here", textContent: why });
  line.setAttribute("role", "alert");
  form.append(line);
}
// A form that is refused stays as it was typed, with why beside it: it is sent from here, and the page goes on only
// where it was taken. Without a script the server shows what was typed again.
document.addEventListener("submit", (event) => {
  const form = /** @type {HTMLFormElement} */ (event.target);
  if (event.defaultPrevented || form.method !== "post" || form.target || form.hasAttribute("hx-post")) return;
  event.preventDefault();
  send(form, /** @type {SubmitEvent} */ (event).submitter);
});

const KEPT_ALIVE = 60_000;
let leaving = false;
window.addEventListener("beforeunload", () => { leaving = true; });
window.addEventListener("pageshow", () => { leaving = false; });

/** @param {HTMLFormElement} form @param {HTMLElement | null} submitter */
async function send(form, submitter) {
  const button = submitter instanceof HTMLButtonElement ? submitter : null;
  const fields = new FormData(form, button);
  const body = form.enctype === "multipart/form-data" ? fields : new URLSearchParams(/** @type {any} */ (fields));
  button?.setAttribute("aria-busy", "true");
  try {
    // a page that is left at once takes what was sent along, as far as a browser lets it
    const keepalive = body instanceof URLSearchParams && String(body).length < KEPT_ALIVE;
    const answer = await fetch(button?.getAttribute("formaction") ?? form.action, { method: "POST", body, keepalive });
    if (answer.ok) return goOn(answer);
    refused(form, await whyOf(answer));
  } catch {
    refused(form, "Not reached: nothing was changed. Try again.");
  }
  button?.removeAttribute("aria-busy");
  return undefined;
}

/** A form that nobody sees says it where all is said. @param {HTMLFormElement} form @param {string} why */
const refused = (form, why) => (form.hidden ? say(why) : besides(form, why));

/** What came of a form: where it leads, or the page that it is answered with. @param {Response} answer */
async function goOn(answer) {
  if (leaving) return undefined; // the hand is on its way elsewhere already
  if (answer.redirected) return location.assign(answer.url);
  const shown = new DOMParser().parseFromString(await answer.text(), "text/html");
  document.title = shown.title;
  document.body.replaceWith(document.adoptNode(shown.body));
  return htmx.process(document.body);
}

/** Why a form was refused, in the words of the page that came back. @param {Response} answer */
async function whyOf(answer) {
  const text = await answer.text();
  if (!(answer.headers.get("content-type") ?? "").includes("html")) return text;
  const shown = new DOMParser().parseFromString(text, "text/html");
  const said = shown.querySelector("main [role=alert], main .stop") ?? shown.querySelector("main h1");
  return said?.textContent?.trim() || "That did not work.";
}

document.addEventListener("htmx:sendError", () => say("Not reached: nothing was changed. Try again."));
document.addEventListener("htmx:afterRequest", (event) => {
  if (/** @type {CustomEvent} */ (event).detail.successful) say("");
});

// A person is carried to another group with the pointer; the list beside the name does the same by keyboard.
document.addEventListener("pointerdown", (event) => {
  const name = /** @type {HTMLElement} */ (event.target).closest("[data-drag-person]");
  if (!(name instanceof HTMLElement)) return;
  event.preventDefault();
  name.classList.add("carried");
  const over = (/** @type {PointerEvent} */ at) => {
    const found = document.elementFromPoint(at.clientX, at.clientY)?.closest("[data-group]");
    for (const one of document.querySelectorAll("[data-group].under")) one.classList.remove("under");
    found?.classList.add("under");
    return found;
  };
  const drop = (/** @type {PointerEvent} */ at) => {
    window.removeEventListener("pointermove", over);
    name.classList.remove("carried");
    const group = over(at);
    const select = name.closest("li")?.querySelector("select");
    if (!(group instanceof HTMLElement) || !select || select.value === group.dataset.group) return;
    select.value = group.dataset.group ?? "";
    select.dispatchEvent(new Event("change", { bubbles: true }));
  };
  window.addEventListener("pointermove", over);
  window.addEventListener("pointerup", drop, { once: true });
});
