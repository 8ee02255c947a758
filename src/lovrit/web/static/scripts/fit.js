// The fit sheet by keyboard and touch: steps easier and harder where the cell stands, and the focus stays there.
import { typing } from "./hands.js";

const DO = /** @type {Record<string, string>} */ ({ ArrowLeft: "easier", ArrowRight: "harder", "=": "all", Backspace: "rule", Delete: "rule" });

const root = document.getElementById("fit");

/** @param {FormData} fields @param {string} focus the cell to go back to */
async function step(fields, focus, url = root?.dataset.url ?? "") {
  const answer = await fetch(url, { method: "POST", body: new URLSearchParams(/** @type {any} */ (fields)), headers: { "x-lovrit": "1" } });
  const html = await answer.text();
  if (!answer.ok) return say(html);
  const fresh = new DOMParser().parseFromString(html, "text/html").getElementById("fit-sheet");
  const old = document.getElementById("fit-sheet");
  if (!fresh || !old) return undefined;
  const left = old.querySelector(".scrolls")?.scrollLeft ?? 0;
  fresh.querySelector("#all-cells")?.toggleAttribute("open", Boolean(old.querySelector("#all-cells[open]")));
  old.replaceWith(document.adoptNode(fresh));
  const scrolls = document.querySelector("#fit-sheet .scrolls");
  if (scrolls) scrolls.scrollLeft = left;
  const cell = /** @type {HTMLElement | null} */ (document.querySelector(focus));
  cell?.focus();
  document.dispatchEvent(new Event("lovrit-changed"));
  return say(cell?.getAttribute("aria-label") ?? "");
}

/** @param {string} text */
function say(text) {
  const said = document.getElementById("said");
  if (said) said.textContent = text;
}

/** @param {Element} target */
function focusOf(target) {
  if (target instanceof HTMLElement && target.dataset.cell) return `[data-cell="${target.dataset.cell}"]`;
  return `[aria-label="${CSS.escape(target.getAttribute("aria-label") ?? "")}"]`;
}

root?.addEventListener("submit", (event) => {
  const form = /** @type {HTMLFormElement} */ (event.target);
  const { submitter } = /** @type {SubmitEvent} */ (event);
  if (!form.closest("#fit-sheet") || !submitter) return;
  event.preventDefault();
  step(new FormData(form, submitter), focusOf(submitter), form.action);
});

root?.addEventListener("keydown", (event) => {
  const cell = /** @type {Element} */ (event.target).closest("[data-cell]");
  if (!(cell instanceof HTMLButtonElement) || event.ctrlKey || event.metaKey || event.altKey) return;
  const what = DO[event.key];
  if (what) {
    event.preventDefault();
    const fields = new FormData(cell.form ?? undefined);
    fields.set("do", what);
    step(fields, focusOf(cell));
  } else if (event.key === "ArrowUp" || event.key === "ArrowDown") {
    event.preventDefault();
    const row = cell.closest("tr");
    const next = event.key === "ArrowUp" ? row?.previousElementSibling : row?.nextElementSibling;
    const nth = (cell.dataset.cell ?? "").split("-")[1];
    const other = next?.querySelector(`[data-cell$="-${nth}"]`);
    if (other instanceof HTMLElement) other.focus();
  }
});

// all cells at a key; a browser's window remembers it
document.addEventListener("keydown", (event) => {
  if (event.key.toLowerCase() !== "c" || event.ctrlKey || event.metaKey || event.altKey || typing(event.target)) return;
  const all = document.getElementById("all-cells");
  all?.toggleAttribute("open");
  all?.querySelector("summary")?.focus();
});

const KEPT = "lovrit-all-cells";
const cells = document.getElementById("all-cells");
if (recalled()) cells?.setAttribute("open", "");
document.addEventListener("toggle", (event) => {
  if (/** @type {HTMLElement} */ (event.target).id !== "all-cells") return;
  try {
    sessionStorage.setItem(KEPT, /** @type {HTMLDetailsElement} */ (event.target).open ? "open" : "");
  } catch {
    // a browser that keeps nothing begins with what differs
  }
}, true);

function recalled() {
  try {
    return sessionStorage.getItem(KEPT) === "open";
  } catch {
    return false;
  }
}
