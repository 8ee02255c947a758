// Keys pressed before a page's scripts stand are kept and pressed again once they do: a hand is quicker than a network.

/** @type {[EventTarget | null, KeyboardEvent][]} */
const early = [];

/** @param {KeyboardEvent} event */
function keep(event) {
  const typed = event.target instanceof Element && event.target.closest("input, textarea, select, a, button, summary");
  // what a script that stands already has taken is no more early
  if (event.isTrusted && !event.repeat && !typed && !event.defaultPrevented) early.push([event.target, event]);
}

window.addEventListener("keydown", keep);
// scripts of a page are modules, which have run by now, in their order
document.addEventListener("DOMContentLoaded", () => {
  window.removeEventListener("keydown", keep);
  for (const [on, { key, code, altKey, ctrlKey, metaKey, shiftKey }] of early.splice(0)) {
    const there = on instanceof Element && on.isConnected ? on : document.body;
    there.dispatchEvent(new KeyboardEvent("keydown", { key, code, altKey, ctrlKey, metaKey, shiftKey, bubbles: true, cancelable: true }));
  }
});
