// Parts of a page put where they stand by htmx, changed no more than they must be: focus, folds and drags live on.
import htmx from "htmx.org/dist/htmx.esm.js";
import { Idiomorph } from "idiomorph";

/**
 * A place where somebody is typing stays as it is, and what comes later stands until it has come.
 * @param {Node} node @param {Node} made
 */
const mayChange = (node, made) => {
  if (!(node instanceof HTMLElement && made instanceof HTMLElement)) return true;
  if (made.dataset.later && made.dataset.has === undefined) {
    node.dataset.later = made.dataset.later;
    return false;
  }
  return !node.matches(":has(> .typed:focus)");
};

htmx.defineExtension("morph", {
  isInlineSwap: (style) => style === "morph",
  handleSwap: (style, target, made) => {
    if (style !== "morph") return false;
    const parts = /** @type {DocumentFragment} */ (made).children;
    const ways = /** @type {const} */ ({ morphStyle: "outerHTML", callbacks: { beforeNodeMorphed: mayChange } });
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
  for (const place of document.querySelectorAll("[data-later]")) fill(/** @type {HTMLElement} */ (place));
  document.dispatchEvent(new Event("lovrit-changed"));
}

/** What comes a moment after the rest of an answer, from the address that the answer names. @param {HTMLElement} place */
async function fill(place) {
  const address = place.dataset.later ?? "";
  if (place.dataset.asked === address || place.dataset.has === address) return;
  place.dataset.asked = address;
  place.setAttribute("aria-busy", "true");
  const answer = await fetch(address, { headers: { "x-lovrit": "1" } }).catch(() => null);
  if (place.dataset.later !== address || !place.isConnected) return; // another edit has overtaken it
  place.removeAttribute("aria-busy");
  place.dataset.has = answer?.ok ? address : "";
  place.innerHTML = answer?.ok ? await answer.text() : ""; // what was foretold of another text is not left standing
}
