// What every page has: htmx, the keys dialog, going from screen to screen, groups moved by hand.
import htmx from "htmx.org/dist/htmx.esm.js";
import { typing } from "./hands.js";

Object.assign(window, { htmx });
document.documentElement.classList.add("scripted");

/** @param {string} text Say something to whoever listens with a screen reader, and show it for a moment. */
export function say(text) {
  const said = document.getElementById("said");
  if (said) said.textContent = text;
}

const screens = { d: "/", c: "/crew", r: "/run", b: "/debrief", m: "/moves", k: "/club" };
let going = false;

document.addEventListener("keydown", (event) => {
  if (typing(event.target) || event.ctrlKey || event.metaKey || event.altKey) return;
  if (event.key === "?") openDialog("keys");
  else if (event.key === "g" && !document.getElementById("run")) {
    going = true;
    setTimeout(() => { going = false; }, 1500);
  } else if (going && event.key in screens) {
    location.assign(screens[/** @type {keyof typeof screens} */ (event.key)]);
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
