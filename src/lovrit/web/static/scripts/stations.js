// Stations by hand: reordered by drawing them along, and all else by a key or by the words behind their handle.
import { askAt, deedOf, focusNext, openDeeds } from "./deeds.js";

/** @typedef {import("./figures.js").Send} Send */
/** @typedef {{button: HTMLElement, block: number, move: number, last: number, name: string, side: string}} Station */

const SIDES = ["none", "each", "by-round"];

/** The side after this one. @param {string} side */
export function nextSide(side) {
  return SIDES[(SIDES.indexOf(side) + 1) % SIDES.length];
}

/** @param {Send} send @returns {import("./deeds.js").Deed<Station>[]} */
export function stationDeeds(send) {
  const shift = (/** @type {Station} */ of, /** @type {number} */ by) => {
    const to = of.move + by;
    if (to < 0 || to > of.last) return;
    focusNext(`station-${to}`);
    send({ do: "station", block: of.block, start: of.move, to });
  };
  const way = (/** @type {string} */ word) => (/** @type {Station} */ of) =>
    askAt(of.button, { said: `${word} …`, value: "" }, (text) => {
      focusNext(`station-${of.move}`);
      send({ do: "mark", block: of.block, move: of.move, text: `${word} ${text}` });
    });
  return [
    { keys: ["Enter"], said: "another move", shown: "Enter", run: (of) => rename(of, send) },
    { keys: ["i"], said: "one more below", shown: "I", run: (of) => insert(of, send) },
    { keys: ["d"], said: "double", shown: "D", run: ({ block, move }) => {
      focusNext(`station-${move + 1}`);
      send({ do: "line", what: "duplicate", block, move });
    } },
    { keys: ["Alt-ArrowUp"], said: "up", shown: "Alt-↑", run: (of) => shift(of, -1) },
    { keys: ["Alt-ArrowDown"], said: "down", shown: "Alt-↓", run: (of) => shift(of, 1) },
    { keys: ["s"], said: "sides", shown: "S", run: ({ block, move, side }) => {
      focusNext(`station-${move}`);
      send({ do: "side", block, move, side: nextSide(side) });
    } },
    { keys: ["e"], said: "easier …", shown: "E", run: way("easier") },
    { keys: ["h"], said: "harder …", shown: "H", run: way("harder") },
    { keys: ["a"], said: "or …", shown: "A", run: way("or") },
    { keys: ["Delete", "Backspace"], said: "take out", shown: "Delete", run: ({ block, move, last }) => {
      focusNext(`station-${Math.max(0, move - (move === last ? 1 : 0))}`);
      send({ do: "line", what: "remove", block, move });
    } },
  ];
}

/** @param {Station} of @param {Send} send */
function rename(of, send) {
  askAt(of.button, { said: "Another move", value: of.name }, (name) => {
    focusNext(`station-${of.move}`);
    if (name !== of.name) send({ do: "rename", block: of.block, move: of.move, name });
  });
}

/** @param {Station} of @param {Send} send */
function insert(of, send) {
  askAt(of.button, { said: "New station", value: "" }, (text) => {
    focusNext(`station-${of.move + 1}`);
    send({ do: "line", what: "insert", block: of.block, move: of.move, text });
  });
}

/** @param {HTMLElement} button @returns {Station} */
function stationOf(button) {
  return {
    button,
    block: Number(button.dataset.block),
    move: Number(button.dataset.move),
    last: (button.closest(".names")?.children.length ?? 1) - 1,
    name: button.dataset.name ?? "",
    side: button.dataset.side ?? "none",
  };
}

/** The station that a pointer took hold of: a finger takes it by the handle, so that a swipe elsewhere scrolls.
 * @param {PointerEvent} event */
function taken(event) {
  const target = /** @type {Element} */ (event.target);
  const handle = target.closest(".deeds-of[data-station]");
  const hold = handle ?? (event.pointerType === "touch" ? null : target.closest(".station[data-move]"));
  const button = hold?.closest("li")?.querySelector(".station[data-move]");
  return button instanceof HTMLElement && event.button === 0 ? button : null;
}

/** @param {PointerEvent} event @param {HTMLElement} button @param {(nth: number) => void} then */
function carry(event, button, then) {
  const list = /** @type {HTMLElement} */ (button.closest(".names"));
  const rows = [...list.children];
  const start = Number(button.dataset.move);
  const leave = new AbortController();
  let to = start;
  const move = (/** @type {PointerEvent} */ at) => {
    to = Math.min(rows.length - 1, Math.max(0, start + Math.round((at.clientY - event.clientY) / Number(list.dataset.rail))));
    button.classList.toggle("carried", to !== start);
    for (const [nth, row] of rows.entries()) {
      row.classList.toggle("drop-above", nth === to && to < start);
      row.classList.toggle("drop-below", nth === to && to > start);
    }
  };
  const up = () => {
    leave.abort();
    button.classList.remove("carried");
    for (const row of rows) row.classList.remove("drop-above", "drop-below");
    if (to !== start) then(to);
  };
  window.addEventListener("pointermove", move, { signal: leave.signal });
  for (const name of /** @type {const} */ (["pointerup", "pointercancel"])) window.addEventListener(name, up, { signal: leave.signal });
}

/** @param {HTMLElement} root @param {Send} send */
export function handleStations(root, send) {
  const deeds = stationDeeds(send);

  root.addEventListener("pointerdown", (event) => {
    const button = taken(event);
    if (!button) return;
    const of = stationOf(button);
    carry(event, button, (to) => send({ do: "station", block: of.block, start: of.move, to }));
  });

  root.addEventListener("click", (event) => {
    const handle = /** @type {Element} */ (event.target).closest(".deeds-of[data-station]");
    const button = handle?.closest("li")?.querySelector(".station[data-move]");
    if (handle instanceof HTMLElement && button instanceof HTMLElement) openDeeds(handle, deeds, stationOf(button));
  });

  root.addEventListener("keydown", (event) => {
    const target = event.target;
    if (!(target instanceof HTMLElement) || !target.matches(".station[data-move]")) return;
    const deed = deedOf(deeds, event);
    if (!deed) return;
    event.preventDefault();
    deed.run(stationOf(target));
  });
}
