// Blocks by hand on the tape: picked, moved, doubled, split, joined, and carried as slate text between windows.
import { focusNext } from "./figures.js";
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

/**
 * @param {HTMLElement} root @param {Send} send
 * @param {{text: () => string, lines: () => number[], shown: () => number}} desk
 */
export function handleBlocks(root, send, desk) {
  /** @type {Set<number>} */
  const picked = new Set();

  const draw = () => {
    for (const one of root.querySelectorAll(".stretch")) {
      one.classList.toggle("picked", picked.has(Number(/** @type {SVGElement} */ (one).dataset.block)));
    }
  };
  const some = () => (picked.size ? [...picked] : [focused() ?? desk.shown()]);
  const focused = () => {
    const one = document.activeElement?.closest(".stretch");
    return one instanceof SVGElement ? Number(one.dataset.block) : undefined;
  };

  root.addEventListener("click", (event) => {
    const one = /** @type {Element} */ (event.target).closest(".stretch");
    if (!(one instanceof SVGElement)) return;
    if (!event.shiftKey) {
      picked.clear();
      draw();
      return;
    }
    event.preventDefault();
    event.stopImmediatePropagation();
    const block = Number(one.dataset.block);
    if (!picked.delete(block)) picked.add(block);
    draw();
  }, true);

  root.addEventListener("keydown", (event) => {
    const block = focused();
    if (block === undefined || event.ctrlKey || event.metaKey) return;
    const last = desk.lines().length - 1;
    const moves = { ArrowLeft: block - 1, ArrowRight: block + 1 }[event.key];
    if (event.altKey && moves !== undefined && moves >= 0 && moves <= last) {
      focusNext(`block-${moves}`);
      send({ do: "block", what: "move", block, to: moves });
    } else if (event.key === "Delete" || event.key === "Backspace") {
      focusNext(`block-${Math.max(0, Math.min(block, last - 1))}`);
      remove(some());
    } else if (!event.altKey && event.key === "x") {
      if (!picked.delete(block)) picked.add(block);
      draw();
    } else if (!event.altKey && ["d", "s", "j"].includes(event.key)) {
      const what = { d: "duplicate", s: "split", j: "join" }[event.key];
      focusNext(`block-${block}`);
      send({ do: "block", what, block });
    } else return;
    event.preventDefault();
  });

  /** From the last to the first, so that no number moves. @param {number[]} blocks */
  function remove(blocks) {
    for (const block of [...blocks].sort((a, b) => b - a)) send({ do: "block", what: "remove", block });
    picked.clear();
  }

  const mine = (/** @type {Event} */ event) =>
    !typing(event.target) && (picked.size || focused() !== undefined) && !String(getSelection() ?? "");

  document.addEventListener("copy", (event) => {
    if (!mine(event)) return;
    event.clipboardData?.setData("text/plain", textOf(desk.text(), desk.lines(), some()));
    event.preventDefault();
  });
  document.addEventListener("cut", (event) => {
    if (!mine(event)) return;
    event.clipboardData?.setData("text/plain", textOf(desk.text(), desk.lines(), some()));
    event.preventDefault();
    remove(some());
  });
  document.addEventListener("paste", (event) => {
    const text = event.clipboardData?.getData("text/plain") ?? "";
    if (typing(event.target) || !text.trim() || text.length > 65_536) return;
    event.preventDefault();
    send({ do: "insert", at: (focused() ?? desk.shown()) + 1, text });
  });
}
