// Parts of a page put where they stand by htmx, changed no more than they must be: focus, folds and drags live on.
import htmx from "htmx.org/dist/htmx.esm.js";
import { Idiomorph } from "idiomorph";

/** A place where somebody is typing stays as it is. @param {Node} node */
const unlessTyped = (node) => !(node instanceof Element && node.matches(":has(> .typed:focus)"));

htmx.defineExtension("morph", {
  isInlineSwap: (style) => style === "morph",
  handleSwap: (style, target, made) => {
    if (style !== "morph") return false;
    const parts = /** @type {DocumentFragment} */ (made).children;
    const ways = /** @type {const} */ ({ morphStyle: "outerHTML", callbacks: { beforeNodeMorphed: unlessTyped } });
    return /** @type {Node[]} */ (Idiomorph.morph(/** @type {Element} */ (target), parts, ways));
  },
});

/** @param {Element} fold */
const keyOf = (fold) => /** @type {HTMLElement} */ (fold).dataset.key ?? "";

/**
 * Put every part of an answer in the place of the one with its id; folds that were open are open again.
 * @param {string} html its parts say `hx-swap-oob="morph"`
 */
export function swapParts(html) {
  const open = new Set([...document.querySelectorAll("details[data-key][open]")].map(keyOf));
  htmx.swap(document.body, html, { swapStyle: "none", swapDelay: 0, settleDelay: 0 });
  for (const fold of document.querySelectorAll("details[data-key]")) if (open.has(keyOf(fold))) fold.setAttribute("open", "");
}
