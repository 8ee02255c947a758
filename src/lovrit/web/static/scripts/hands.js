// What hands do on every screen: whether somebody types, and ids that let a post sent twice count once.

/** @param {EventTarget | null} target Whether keys belong to a field rather than to the page. */
export function typing(target) {
  return target instanceof HTMLElement
    && target.closest("input, textarea, select, [contenteditable=true], .cm-editor") !== null;
}

/** Whether a key presses what has the focus: space and Enter belong to a button before they belong to the page.
 * @param {KeyboardEvent} event */
export function presses(event) {
  return (event.key === " " || event.key === "Enter") && event.target instanceof HTMLElement
    && event.target.closest("button, a[href], summary, label, [role=button], [role=menuitem]") !== null;
}

/** A fresh id. @returns {string} */
export function freshId() {
  return crypto.randomUUID?.() ?? `${Date.now()}-${Math.random().toString(36).slice(2)}`;
}

/** @param {number} seconds m:ss, as everywhere. */
export function clock(seconds) {
  const whole = Math.max(0, Math.round(seconds));
  const hours = Math.floor(whole / 3600);
  const two = (/** @type {number} */ n) => String(n).padStart(2, "0");
  if (hours) return `${hours}:${two(Math.floor(whole / 60) % 60)}:${two(whole % 60)}`;
  return `${Math.floor(whole / 60)}:${two(whole % 60)}`;
}

/** @param {string} text Seconds of m:ss or of a bare number; NaN where it is neither. */
export function readClock(text) {
  const said = text.trim();
  if (/^\d+(\.\d+)?$/.test(said)) return Number(said);
  const found = /^(\d+):([0-5]\d)$/.exec(said);
  return found ? Number(found[1]) * 60 + Number(found[2]) : Number.NaN;
}
