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

// in the order of the work, as the page lists them
const screens = /** @type {NodeListOf<HTMLAnchorElement>} */ (document.querySelectorAll("nav[aria-label=Screens] a"));

document.addEventListener("keydown", (event) => {
  if (event.ctrlKey || event.metaKey) return;
  const nth = Number(/^Digit([1-9])$/.exec(event.code)?.[1] ?? 0) - 1;
  const screen = event.altKey && !event.shiftKey ? screens[nth]?.href : undefined;
  if (screen) {
    event.preventDefault();
    location.assign(screen);
  } else if (event.key === "?" && !event.altKey && !typing(event.target)) openDialog("keys");
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
