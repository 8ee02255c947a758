// The Desk's panels: a fit or a recast stands where the rails are, is taken at a key, and goes again.
import htmx from "htmx.org/dist/htmx.esm.js";
import { typing } from "./hands.js";

/**
 * @typedef {object} Hands
 * @property {string} url
 * @property {() => number} block
 * @property {() => Promise<void>} settled
 * @property {(text: string) => Promise<void>} take
 * @property {() => void} write puts the cursor back into the slate
 * @property {(path: string, fields: Record<string, string>) => Promise<void>} look
 */

/** @param {HTMLElement} root @param {Hands} hands */
export function handlePanel(root, hands) {
  const panel = () => document.getElementById("panel");
  /** @type {HTMLElement | null} */
  let from = null;
  let asked = 0;

  const close = () => {
    asked += 1; // an answer that comes after this opens nothing
    const open = panel();
    if (!open || open.hidden) return;
    open.hidden = true;
    open.replaceChildren();
    root.classList.remove("with-panel");
    if (from?.isConnected) from.focus();
  };

  /** @param {string} address @param {string} [key] */
  const open = async (address, key = "") => {
    asked += 1;
    const mine = asked;
    await hands.settled();
    const answer = await fetch(address, { headers: { "x-lovrit": "1" } });
    const html = await answer.text();
    const old = panel();
    if (!old || mine !== asked) return;
    if (old.hidden && document.activeElement instanceof HTMLElement) from = document.activeElement;
    htmx.swap(old, html, { swapStyle: "outerHTML", swapDelay: 0, settleDelay: 0 });
    const fresh = panel();
    if (!fresh) return;
    root.classList.add("with-panel");
    /** @type {HTMLElement | null} */
    const wanted = (key && fresh.querySelector(`[data-key="${CSS.escape(key)}"]`)) || fresh.querySelector(".offer")
      || fresh.querySelector("#fit-value, #fit-come, a[aria-current]");
    wanted?.focus();
  };

  /** @param {HTMLFormElement} form */
  const ask = (form) => {
    const fields = new URLSearchParams();
    for (const [name, value] of new FormData(form)) fields.append(name, String(value));
    if (!fields.has("give")) fields.append("give", "");
    const focused = document.activeElement;
    open(`${form.getAttribute("action")}?${fields}`, focused instanceof HTMLElement ? focused.dataset.key : "");
  };

  root.addEventListener("click", (event) => {
    const target = /** @type {Element} */ (event.target);
    const link = target.closest(".panel-link");
    if (link instanceof HTMLAnchorElement) {
      event.preventDefault();
      const why = document.getElementById("why");
      if (why) why.hidden = true;
      open(link.dataset.ofBlock === undefined ? link.getAttribute("href") ?? "" : `${hands.url}/recast?block=${hands.block()}`, link.dataset.key);
    } else if (target.closest(".panel-close")) {
      event.preventDefault();
      close();
    }
  });

  root.addEventListener("change", (event) => {
    const field = /** @type {Element} */ (event.target);
    const form = field.closest(".fit-form");
    if (field.id === "fit-figure" && form instanceof HTMLFormElement) {
      const value = form.querySelector("#fit-value");
      if (value instanceof HTMLInputElement) value.value = "";
      ask(form);
    }
  });

  root.addEventListener("submit", (event) => {
    const form = /** @type {HTMLFormElement} */ (event.target);
    if (form.matches(".fit-form")) {
      event.preventDefault();
      ask(form);
    } else if (form.matches(".take")) {
      event.preventDefault();
      const text = String(new FormData(form).get("text")).replaceAll("\r\n", "\n");
      close();
      hands.take(text);
      hands.write();
    } else if (form.matches(".to-look")) {
      event.preventDefault();
      const submitter = /** @type {SubmitEvent} */ (event).submitter;
      const fields = Object.fromEntries([...new FormData(form, submitter)].map(([name, value]) => [name, String(value)]));
      hands.look(new URL(form.action).pathname.slice(hands.url.length + 1), fields);
    } else if (form.closest("#panel") && form.matches(".edit")) close(); // the Desk sends it; all other forms lead to a page
  });

  document.addEventListener("keydown", (event) => {
    if (event.ctrlKey || event.metaKey) return;
    const way = event.altKey ? { KeyF: "fit", KeyR: `recast?block=${hands.block()}` }[event.code] : undefined;
    if (way) {
      event.preventDefault();
      open(`${hands.url}/${way}`);
    }
    if (event.altKey) return;
    const shown = panel();
    if (shown && !shown.hidden) {
      if (event.key === "Escape") {
        event.stopPropagation();
        close();
      } else if (/^[1-4]$/.test(event.key) && !typing(event.target)) {
        event.preventDefault(); // the cursor goes back to the slate, and the figure must not follow it there
        take(shown, event.key);
      }
      else if (event.key === "Enter" && event.target instanceof HTMLAnchorElement && event.target.closest("#panel nav[aria-label]")) {
        if (event.target.getAttribute("aria-current") === "true") {
          event.preventDefault();
          take(shown, "1");
        }
      }
    }
  });

  /** @param {HTMLElement} shown @param {string} nth */
  const take = (shown, nth) => {
    const button = shown.querySelector(`[data-take="${nth}"]`);
    if (button instanceof HTMLButtonElement) button.form?.requestSubmit(button);
  };
}
