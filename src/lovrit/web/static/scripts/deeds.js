// What can be done with a thing on the page, as one table: its keys, and the words behind its handle, are read from it.

/**
 * @template T
 * @typedef {{keys: string[], said: string, shown: string, run: (of: T) => void}} Deed
 */

/** A key as the tables name it: "Alt-ArrowUp", "d"; empty where Ctrl or ⌘ is held, those belong to the browser.
 * @param {{key: string, altKey: boolean, ctrlKey: boolean, metaKey: boolean}} event */
export function keyOf(event) {
  if (event.ctrlKey || event.metaKey) return "";
  return (event.altKey ? "Alt-" : "") + event.key;
}

/** @template T @param {Deed<T>[]} deeds @param {KeyboardEvent} event */
export function deedOf(deeds, event) {
  if (event.repeat) return undefined; // a key that is held down does a thing once
  const key = keyOf(event);
  return deeds.find((deed) => deed.keys.includes(key));
}

let wanted = "";

/** @param {string} key Where the keyboard is to be after the page has followed. */
export function focusNext(key) {
  wanted = key;
}

/** The key to focus after the page has followed, once. */
export function focusWanted() {
  const key = wanted;
  wanted = "";
  return key;
}

/**
 * Words typed where a thing stands; Escape leaves it as it was.
 * @param {HTMLElement} place @param {{said: string, value: string}} asked @param {(text: string) => void} then
 */
export function askAt(place, asked, then) {
  const input = Object.assign(document.createElement("input"), { className: "typed", placeholder: asked.said, value: asked.value });
  input.setAttribute("aria-label", asked.said);
  place.after(input);
  place.hidden = true;
  input.focus();
  input.select();
  let over = false;
  const done = (/** @type {boolean} */ keep) => {
    if (over) return;
    over = true;
    const text = input.value.trim();
    input.remove();
    place.hidden = false;
    place.focus();
    if (keep && text) then(text);
  };
  answerBy(input, done);
}

/** Enter keeps what is typed, Escape doesn't, leaving the field does.
 * @param {HTMLInputElement} input @param {(keep: boolean) => void} done */
export function answerBy(input, done) {
  input.addEventListener("keydown", (event) => {
    event.stopPropagation();
    if (event.key !== "Enter" && event.key !== "Escape") return;
    event.preventDefault(); // the same Enter would press what gets the focus back
    done(event.key === "Enter");
  });
  input.addEventListener("blur", () => { if (input.isConnected) done(true); });
}

/**
 * The menu behind a handle: each deed in words, with its key beside it.
 * @template T
 * @param {HTMLElement} handle @param {Deed<T>[]} deeds @param {T} of
 */
export function openDeeds(handle, deeds, of) {
  closeDeeds();
  const menu = Object.assign(document.createElement("div"), { className: "deeds" });
  menu.setAttribute("role", "menu");
  menu.setAttribute("aria-label", handle.getAttribute("aria-label") ?? "");
  menu.append(...deeds.map((deed) => itemOf(deed, () => { closeDeeds(); deed.run(of); })));
  placeUnder(menu, handle);
  handle.setAttribute("aria-expanded", "true");
  const leave = new AbortController();
  open = { menu, handle, leave };
  menu.addEventListener("keydown", walk);
  document.addEventListener("pointerdown", (event) => {
    if (!menu.contains(/** @type {Node} */ (event.target))) closeDeeds();
  }, { signal: leave.signal, capture: true });
  firstOf(menu)?.focus();
}

/** @type {{menu: HTMLElement, handle: HTMLElement, leave: AbortController} | null} */
let open = null;

/** Close the menu that is open; whether there was one. */
export function closeDeeds() {
  if (!open) return false;
  open.leave.abort();
  open.menu.remove();
  open.handle.removeAttribute("aria-expanded");
  open = null;
  return true;
}

/** @template T @param {Deed<T>} deed @param {() => void} run */
function itemOf(deed, run) {
  const item = Object.assign(document.createElement("button"), { type: "button" });
  item.setAttribute("role", "menuitem");
  item.append(deed.said, Object.assign(document.createElement("kbd"), { textContent: deed.shown }));
  item.addEventListener("click", run);
  return item;
}

/** Under its handle, or above it where there is no room. @param {HTMLElement} menu @param {HTMLElement} handle */
function placeUnder(menu, handle) {
  document.body.append(menu);
  const at = handle.getBoundingClientRect();
  const { width, height } = menu.getBoundingClientRect();
  const below = at.bottom + height < innerHeight;
  menu.style.left = `${Math.max(4, Math.min(at.left, innerWidth - width - 4)) + scrollX}px`;
  menu.style.top = `${(below ? at.bottom : Math.max(4, at.top - height)) + scrollY}px`;
}

/** @param {HTMLElement} menu */
function firstOf(menu) {
  return /** @type {HTMLElement | null} */ (menu.firstElementChild);
}

/** Up and down walk through a menu, Escape leaves it. @param {KeyboardEvent} event */
function walk(event) {
  const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
  const here = document.activeElement;
  if (by && open) {
    const items = [...open.menu.children];
    const next = items[(items.indexOf(/** @type {Element} */ (here)) + by + items.length) % items.length];
    /** @type {HTMLElement} */ (next).focus();
  } else if (event.key === "Escape" || event.key === "Tab") {
    open?.handle.focus();
    closeDeeds();
  } else return;
  event.preventDefault();
  event.stopPropagation();
}
