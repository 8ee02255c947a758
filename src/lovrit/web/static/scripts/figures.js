// Figures that can be scrubbed, typed or stepped, and borders that can be dragged.
import { answerBy } from "./deeds.js";
import { clock, readClock } from "./hands.js";

/** @typedef {(edit: Record<string, unknown>, burst?: string) => Promise<void>} Send */
/** @typedef {{block: number | null, figure: string, value: number, timed: boolean}} Figure */

const PIXELS_A_STEP = 5;
const AFTER_MOVING_MS = 90;
const STILL_PX = 4; // a finger that moved less than this pressed
const STEPS_OF = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1, PageUp: 6, PageDown: -6 };
const COUNTED = new Set(["rounds", "count", "sets"]);
const MAY_BE_NONE = new Set(["rest", "setup"]);

/** @param {DOMStringMap} data @returns {Figure} */
export function figureOf(data) {
  return {
    block: Number(data.block),
    figure: data.figure ?? "",
    value: Number(data.value),
    timed: data.timed !== "0",
  };
}

/** How far one step goes: five seconds, one time, half an effort. @param {Figure} figure @param {boolean} fine */
export function stepOf(figure, fine) {
  if (figure.timed) return fine ? 1 : 5;
  return figure.figure.startsWith("effort") ? 0.5 : 1;
}

/** A value inside what its figure can be. @param {Figure} figure @param {number} value */
export function held(figure, value) {
  const least = figure.timed ? (MAY_BE_NONE.has(figure.figure) ? 0 : 5) : 1;
  const most = figure.figure.startsWith("effort") ? 10 : 86_400;
  return Math.min(most, Math.max(least, Math.round(value * 2) / 2));
}

/** @param {Figure} figure @param {number} value */
const said = (figure, value) => (figure.timed ? clock(value) : String(value));

let drags = 0;

/**
 * A pointer drawn along from where it went down; every stop on the way is sent, as one burst that one undo takes back.
 * @param {PointerEvent} event @param {Figure} figure
 * @param {{change: (dx: number) => number, set: (value: number, burst: string) => void, still: () => void}} way
 */
function drag(event, figure, way) {
  event.preventDefault();
  drags += 1;
  const burst = `drag-${drags}-${Date.now()}`;
  const leave = new AbortController();
  const label = document.querySelector(`[data-scrub][data-figure="${figure.figure}"][data-block="${figure.block}"]`);
  let last = figure.value;
  let far = 0;
  let waiting = 0;
  const move = (/** @type {PointerEvent} */ at) => {
    far = Math.max(far, Math.abs(at.clientX - event.clientX));
    const value = held(figure, figure.value + way.change(at.clientX - event.clientX));
    if (value === last) return;
    last = value;
    if (label) label.textContent = said(figure, value);
    clearTimeout(waiting);
    waiting = window.setTimeout(() => way.set(value, burst), AFTER_MOVING_MS);
  };
  const up = () => {
    leave.abort();
    document.body.classList.remove("scrubbing");
    clearTimeout(waiting);
    if (last !== figure.value) way.set(last, burst);
    else if (far < STILL_PX) way.still();
  };
  document.body.classList.add("scrubbing");
  window.addEventListener("pointermove", move, { signal: leave.signal });
  for (const name of /** @type {const} */ (["pointerup", "pointercancel"])) window.addEventListener(name, up, { signal: leave.signal });
}

/** How a border's pixels become its figure's seconds or times; null where it stands in no picture. @param {Element} border @param {Figure} figure */
function scaleOf(border, figure) {
  const svg = border.closest("svg");
  const host = border.closest("[data-seconds]");
  if (!svg || !(host instanceof HTMLElement || host instanceof SVGElement)) return null;
  const seconds = Number(host.dataset.seconds) / svg.getBoundingClientRect().width;
  const unit = Number(/** @type {SVGElement} */ (border).dataset.unit);
  const step = COUNTED.has(figure.figure) ? 1 : 5;
  return { timed: step === 5, change: (/** @type {number} */ dx) => Math.round((dx * seconds) / unit / step) * step };
}

/** A figure typed where it stands. @param {HTMLElement} target @param {Figure} figure @param {string} begun @param {(value: number) => void} set */
function type(target, figure, begun, set) {
  const input = Object.assign(document.createElement("input"), { className: "typed", value: begun, inputMode: figure.timed ? "text" : "decimal" });
  input.setAttribute("aria-label", target.getAttribute("aria-label") ?? figure.figure);
  target.replaceChildren(input);
  input.focus();
  input.select();
  if (begun.length === 1) input.setSelectionRange(1, 1); // the first key is already there
  answerBy(input, (keep) => {
    const value = readClock(input.value);
    target.textContent = said(figure, figure.value);
    target.focus();
    if (keep && Number.isFinite(value) && value !== figure.value) set(value);
  });
}

/** @param {HTMLElement} root @param {Send} send */
export function handleFigures(root, send) {
  /** @param {Figure} figure @param {number} value @param {string} [burst] */
  const set = (figure, value, burst) =>
    send({ do: "set", block: figure.block, figure: figure.figure, value: held(figure, value) }, burst);

  root.addEventListener("pointerdown", (event) => {
    const target = /** @type {Element} */ (event.target).closest("[data-scrub], [data-drag]");
    if (!(target instanceof HTMLElement || target instanceof SVGElement) || event.button !== 0) return;
    if (target.querySelector("input")) return;
    const figure = figureOf(target.dataset);
    const onTo = (/** @type {number} */ value, /** @type {string} */ burst) => set(figure, value, burst);
    if (target instanceof HTMLElement) {
      target.focus();
      const change = (/** @type {number} */ dx) => Math.round(dx / PIXELS_A_STEP) * stepOf(figure, event.shiftKey);
      const still = () => { if (event.pointerType === "touch") type(target, figure, said(figure, figure.value), (value) => set(figure, value)); };
      drag(event, figure, { change, set: onTo, still });
      return;
    }
    const scale = scaleOf(target, figure);
    if (scale) drag(event, { ...figure, timed: scale.timed }, { change: scale.change, set: onTo, still: () => {} });
  });

  root.addEventListener("keydown", (event) => {
    const target = event.target;
    if (!(target instanceof HTMLElement) || target.dataset.scrub === undefined) return;
    const figure = figureOf(target.dataset);
    const by = STEPS_OF[/** @type {keyof typeof STEPS_OF} */ (event.key)];
    if (by && !event.altKey && !event.ctrlKey && !event.metaKey) {
      const value = held(figure, figure.value + by * stepOf(figure, event.shiftKey));
      target.dataset.value = String(value);
      target.textContent = said(figure, value);
      set(figure, value, `step-${figure.block}-${figure.figure}`);
    } else if (/^[\d:]$/.test(event.key) || event.key === "Enter") {
      type(target, figure, event.key === "Enter" ? "" : event.key, (value) => set(figure, value));
    } else return;
    event.preventDefault();
  });
}
