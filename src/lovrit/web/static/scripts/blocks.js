// Blocks by hand on the tape: picked, moved, doubled, split, joined, and carried as slate text between windows.
import { deedOf, focusNext, openDeeds } from "./deeds.js";
import { typing } from "./hands.js";

/** @typedef {import("./figures.js").Send} Send */

/**
 * The slate text of some blocks, from the whole text and the lines (from 1) that blocks begin on.
 * @param {string} text @param {number[]} lines @param {number[]} blocks
 */
export function textOf(text, lines, blocks) {
  const all = text.split("\n");
  return [...blocks].sort((a, b) => a - b).map((block) => {
    const first = lines[block] - 1;
    const until = block + 1 < lines.length ? lines[block + 1] - 1 : all.length;
    return all.slice(first, until).join("\n").trimEnd();
  }).join("\n\n");
}

/** @typedef {{text: () => string, lines: () => number[], shown: () => number}} Shown */

/** @param {Send} send @param {Shown} desk @param {Picked} picked @returns {import("./deeds.js").Deed<number>[]} */
export function blockDeeds(send, desk, picked) {
  const shift = (/** @type {number} */ block, /** @type {number} */ by) => {
    const to = block + by;
    if (to < 0 || to >= desk.lines().length) return;
    focusNext(`block-${to}`);
    send({ do: "block", what: "move", block, to });
  };
  const does = (/** @type {string} */ what) => (/** @type {number} */ block) => {
    focusNext(`block-${block}`);
    send({ do: "block", what, block });
  };
  return [
    { keys: ["D"], said: "double", shown: "Shift-D", run: does("duplicate") },
    { keys: ["S"], said: "split", shown: "Shift-S", run: does("split") },
    { keys: ["J"], said: "join with the next", shown: "Shift-J", run: does("join") },
    { keys: ["Alt-ArrowLeft"], said: "earlier", shown: "Alt-←", run: (block) => shift(block, -1) },
    { keys: ["Alt-ArrowRight"], said: "later", shown: "Alt-→", run: (block) => shift(block, 1) },
    { keys: ["x"], said: "pick", shown: "X", run: (block) => picked.turn(block) },
    { keys: ["Delete", "Backspace"], said: "take out", shown: "Delete", run: (block) => {
      focusNext(`block-${Math.max(0, Math.min(block, desk.lines().length - 2))}`);
      // from the last to the first, so that no number moves
      for (const one of picked.or(block).sort((a, b) => b - a)) send({ do: "block", what: "remove", block: one });
      picked.none();
    } },
  ];
}

/** The blocks that are picked to be copied, cut or taken out together. */
class Picked {
  /** @param {HTMLElement} root */
  constructor(root) {
    this.root = root;
    /** @type {Set<number>} */
    this.blocks = new Set();
  }

  /** @param {number} block */
  or(block) {
    return this.blocks.size ? [...this.blocks] : [block];
  }

  /** @param {number} block */
  turn(block) {
    if (!this.blocks.delete(block)) this.blocks.add(block);
    this.draw();
  }

  none() {
    this.blocks.clear();
    this.draw();
  }

  draw() {
    for (const one of this.root.querySelectorAll(".stretch")) {
      one.classList.toggle("picked", this.blocks.has(Number(/** @type {SVGElement} */ (one).dataset.block)));
    }
  }
}

/** The block on the tape that the keyboard is on. */
function focused() {
  const stretch = document.activeElement?.closest(".stretch");
  return stretch instanceof SVGElement ? Number(stretch.dataset.block) : undefined;
}

/** @param {HTMLElement} root @param {Send} send @param {Shown} desk */
export function handleBlocks(root, send, desk) {
  const picked = new Picked(root);
  const deeds = blockDeeds(send, desk, picked);

  root.addEventListener("click", (event) => {
    const target = /** @type {Element} */ (event.target);
    const handle = target.closest(".deeds-of[data-of-block]");
    if (handle instanceof HTMLElement) openDeeds(handle, deeds, Number(handle.dataset.ofBlock));
    const stretch = target.closest(".stretch");
    if (!(stretch instanceof SVGElement)) return;
    if (!event.shiftKey) return picked.none();
    event.preventDefault();
    event.stopImmediatePropagation();
    picked.turn(Number(stretch.dataset.block));
  }, true);

  root.addEventListener("keydown", (event) => {
    const block = focused();
    const deed = block === undefined ? undefined : deedOf(deeds, event);
    if (block === undefined || !deed) return;
    event.preventDefault();
    deed.run(block);
  });

  carryAsText(send, desk, { picked, out: (block) => deeds.at(-1)?.run(block) });
}

/**
 * Blocks go from window to window as slate text, by copy, cut and paste.
 * @param {Send} send @param {Shown} desk @param {{picked: Picked, out: (block: number) => void}} hand
 */
function carryAsText(send, desk, { picked, out }) {
  const here = () => focused() ?? desk.shown();
  const mine = (/** @type {Event} */ event) =>
    !typing(event.target) && (picked.blocks.size || focused() !== undefined) && !String(getSelection() ?? "");
  const copy = (/** @type {ClipboardEvent} */ event) => {
    if (!mine(event)) return false;
    event.clipboardData?.setData("text/plain", textOf(desk.text(), desk.lines(), picked.or(here())));
    event.preventDefault();
    return true;
  };
  document.addEventListener("copy", copy);
  document.addEventListener("cut", (event) => { if (copy(event)) out(here()); });
  document.addEventListener("paste", (event) => {
    const text = event.clipboardData?.getData("text/plain") ?? "";
    if (typing(event.target) || !text.trim() || text.length > 65_536) return;
    event.preventDefault();
    send({ do: "insert", at: here() + 1, text });
  });
}
