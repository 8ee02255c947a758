// Figures that can be scrubbed, typed or stepped, borders that can be dragged, stations that can be moved.
import { clock, readClock, typing } from "./hands.js";

/** @typedef {(edit: Record<string, unknown>, burst?: string) => Promise<void>} Send */
/** @typedef {{block: number | null, figure: string, value: number, timed: boolean}} Figure */

const PIXELS_A_STEP = 5;

/** @param {DOMStringMap} data @returns {Figure} */
function figureOf(data) {
  return {
    block: Number(data.block),
    figure: data.figure ?? "",
    value: Number(data.value),
    timed: data.timed !== "0",
  };
}

/** @param {Figure} figure @param {boolean} fine How far one step goes: five seconds, one time, half an effort. */
function stepOf(figure, fine) {
  if (figure.timed) return fine ? 1 : 5;
  return figure.figure.startsWith("effort") ? 0.5 : 1;
}

/** @param {Figure} figure @param {number} value */
function held(figure, value) {
  const least = figure.timed ? (["rest", "setup"].includes(figure.figure) ? 0 : 5) : 1;
  const most = figure.figure.startsWith("effort") ? 10 : 86_400;
  return Math.min(most, Math.max(least, Math.round(value * 2) / 2));
}

/** @param {HTMLElement} root @param {Send} send */
export function handleFigures(root, send) {
  let drags = 0;

  /** @param {Figure} figure @param {number} value @param {string} [burst] */
  const set = (figure, value, burst) =>
    send({ do: "set", block: figure.block, figure: figure.figure, value: held(figure, value) }, burst);

  /** @param {PointerEvent} event @param {Figure} figure @param {(dx: number) => number} change */
  function drag(event, figure, change) {
    event.preventDefault();
    drags += 1;
    const burst = `drag-${drags}-${Date.now()}`;
    let last = figure.value;
    let waiting = 0;
    const move = (/** @type {PointerEvent} */ at) => {
      const value = held(figure, figure.value + change(at.clientX - event.clientX));
      if (value === last) return;
      last = value;
      const label = document.querySelector(`[data-scrub][data-figure="${figure.figure}"][data-block="${figure.block}"]`);
      if (label) label.textContent = figure.timed ? clock(value) : String(value);
      clearTimeout(waiting);
      waiting = window.setTimeout(() => set(figure, value, burst), 90);
    };
    const up = () => {
      window.removeEventListener("pointermove", move);
      window.removeEventListener("pointerup", up);
      window.removeEventListener("pointercancel", up);
      document.body.classList.remove("scrubbing");
      clearTimeout(waiting);
      if (last !== figure.value) set(figure, last, burst);
    };
    document.body.classList.add("scrubbing");
    window.addEventListener("pointermove", move);
    window.addEventListener("pointerup", up);
    window.addEventListener("pointercancel", up);
  }

  root.addEventListener("pointerdown", (event) => {
    const target = /** @type {Element} */ (event.target).closest("[data-scrub], [data-drag]");
    if (!(target instanceof HTMLElement || target instanceof SVGElement) || event.button !== 0) return;
    const figure = figureOf(target.dataset);
    if (target.dataset.scrub !== undefined) {
      /** @type {HTMLElement} */ (target).focus();
      drag(event, figure, (dx) => Math.round(dx / PIXELS_A_STEP) * stepOf(figure, event.shiftKey));
      return;
    }
    const svg = target.closest("svg");
    const host = target.closest("[data-seconds]");
    if (!svg || !(host instanceof HTMLElement || host instanceof SVGElement)) return;
    const scale = Number(host.dataset.seconds) / svg.getBoundingClientRect().width;
    const unit = Number(target.dataset.unit);
    const step = figure.figure === "rounds" || figure.figure === "count" || figure.figure === "sets" ? 1 : 5;
    drag(event, { ...figure, timed: step === 5 }, (dx) => Math.round((dx * scale) / unit / step) * step);
  });

  root.addEventListener("keydown", (event) => {
    const target = event.target;
    if (!(target instanceof HTMLElement) || target.dataset.scrub === undefined) return;
    const figure = figureOf(target.dataset);
    const by = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1, PageUp: 6, PageDown: -6 }[event.key];
    if (by && !event.altKey && !event.ctrlKey && !event.metaKey) {
      event.preventDefault();
      const value = held(figure, figure.value + by * stepOf(figure, event.shiftKey));
      target.dataset.value = String(value);
      target.textContent = figure.timed ? clock(value) : String(value);
      set(figure, value, `step-${figure.block}-${figure.figure}`);
    } else if (/^[\d:]$/.test(event.key) || event.key === "Enter") {
      event.preventDefault();
      type(target, figure, event.key === "Enter" ? "" : event.key);
    }
  });

  /** @param {HTMLElement} target @param {Figure} figure @param {string} begun */
  function type(target, figure, begun) {
    const input = document.createElement("input");
    input.className = "typed";
    input.setAttribute("aria-label", target.getAttribute("aria-label") ?? figure.figure);
    input.value = begun;
    target.replaceChildren(input);
    input.focus();
    const done = (/** @type {boolean} */ keep) => {
      const value = readClock(input.value);
      target.textContent = figure.timed ? clock(figure.value) : String(figure.value);
      target.focus();
      if (keep && Number.isFinite(value)) set(figure, value);
    };
    input.addEventListener("keydown", (event) => {
      event.stopPropagation();
      if (event.key === "Enter") done(true);
      if (event.key === "Escape") done(false);
    });
    input.addEventListener("blur", () => { if (input.isConnected) done(true); });
  }
}

const SIDES = ["none", "each", "by-round"];

/** @param {HTMLElement} root @param {Send} send */
export function handleStations(root, send) {
  root.addEventListener("pointerdown", (event) => {
    const button = /** @type {Element} */ (event.target).closest(".station[data-move]");
    const list = button?.closest(".names");
    if (!(button instanceof HTMLElement) || !(list instanceof HTMLElement) || event.button !== 0) return;
    const start = Number(button.dataset.move);
    const height = Number(list.dataset.rail);
    const last = list.children.length - 1;
    let to = start;
    const move = (/** @type {PointerEvent} */ at) => {
      const by = Math.round((at.clientY - event.clientY) / height);
      to = Math.min(last, Math.max(0, start + by));
      button.classList.toggle("carried", to !== start);
      for (const [nth, one] of [...list.children].entries()) {
        one.classList.toggle("drop-above", nth === to && to < start);
        one.classList.toggle("drop-below", nth === to && to > start);
      }
    };
    const up = () => {
      window.removeEventListener("pointermove", move);
      button.classList.remove("carried");
      for (const one of list.children) one.classList.remove("drop-above", "drop-below");
      if (to !== start) send({ do: "station", block: Number(button.dataset.block), start, to });
    };
    window.addEventListener("pointermove", move);
    window.addEventListener("pointerup", up, { once: true });
  });

  root.addEventListener("keydown", (event) => {
    const button = event.target;
    if (!(button instanceof HTMLElement) || !button.matches(".station[data-move]")) return;
    const block = Number(button.dataset.block);
    const move = Number(button.dataset.move);
    const last = (button.closest(".names")?.children.length ?? 1) - 1;
    if (event.altKey && (event.key === "ArrowUp" || event.key === "ArrowDown")) {
      event.preventDefault();
      const to = move + (event.key === "ArrowUp" ? -1 : 1);
      if (to < 0 || to > last) return;
      focusNext(`station-${to}`);
      send({ do: "station", block, start: move, to });
    } else if (event.key === "Delete" || event.key === "Backspace") {
      event.preventDefault();
      focusNext(`station-${Math.max(0, move - (move === last ? 1 : 0))}`);
      send({ do: "line", what: "remove", block, move });
    } else if (event.key === "d" && !event.ctrlKey && !event.metaKey) {
      event.preventDefault();
      focusNext(`station-${move + 1}`);
      send({ do: "line", what: "duplicate", block, move });
    } else if (event.key === "s" && !event.ctrlKey && !event.metaKey) {
      event.preventDefault();
      focusNext(`station-${move}`);
      const side = SIDES[(SIDES.indexOf(button.dataset.side ?? "none") + 1) % SIDES.length];
      send({ do: "side", block, move, side });
    } else if (["a", "e", "h"].includes(event.key) && !event.ctrlKey && !event.metaKey) {
      event.preventDefault();
      const word = { a: "or", e: "easier", h: "harder" }[event.key] ?? "or";
      ask(button, `${word} …`, "", (text) => {
        focusNext(`station-${move}`);
        send({ do: "mark", block, move, text: `${word} ${text}` });
      });
    } else if (event.key === "Enter" || event.key === "i") {
      event.preventDefault();
      const insert = event.key === "i";
      ask(button, insert ? "New station" : "Another move", insert ? "" : (button.dataset.name ?? ""), (name) => {
        focusNext(`station-${move + (insert ? 1 : 0)}`);
        if (insert) send({ do: "line", what: "insert", block, move, text: name });
        else if (name !== button.dataset.name) send({ do: "rename", block, move, name });
      });
    }
  });

  /**
   * Words typed where a station stands.
   * @param {HTMLElement} button @param {string} said @param {string} value @param {(text: string) => void} then
   */
  function ask(button, said, value, then) {
    const input = document.createElement("input");
    input.className = "typed";
    input.setAttribute("aria-label", said);
    input.placeholder = said;
    input.value = value;
    button.after(input);
    button.hidden = true;
    input.focus();
    input.select();
    let over = false;
    const done = (/** @type {boolean} */ keep) => {
      if (over) return;
      over = true;
      const text = input.value.trim();
      input.remove();
      button.hidden = false;
      button.focus();
      if (keep && text) then(text);
    };
    input.addEventListener("keydown", (event) => {
      event.stopPropagation();
      if (event.key === "Enter") done(true);
      if (event.key === "Escape") done(false);
    });
    input.addEventListener("blur", () => done(true));
  }
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

export { typing };
