// Somebody's own page: what their phone did alone, and could not tell where there was no network, is told from here.
import { Outbox } from "./outbox.js";

/** @typedef {import("./outbox.js").Done} Done */

/** What was not taken, so that nobody has to remember it. @param {Done} done */
function saidOf({ at_ms: at, felt, word }) {
  const day = new Date(Number(at)).toLocaleDateString("en-GB", { day: "numeric", month: "long" });
  const what = [felt ? `felt ${felt}` : "", word ? `“${word}”` : ""].filter(Boolean).join(", ");
  return `What you did alone on ${day} was not taken: its session is gone. Tell your coach${what ? `: ${what}` : ""}.`;
}

const root = /** @type {HTMLElement | null} */ (document.querySelector("[data-mine]"));
const untaken = document.getElementById("untaken");
if (root && untaken) {
  const outbox = new Outbox(root.dataset.mine ?? "");
  const send = async () => {
    /** @type {string[]} */
    const refused = [];
    let taken = 0;
    await outbox.send((done, ok) => {
      if (ok) taken += 1;
      else refused.push(saidOf(done));
    });
    untaken.hidden = !refused.length;
    untaken.textContent = refused.join(" ");
    if (taken && !refused.length) location.reload(); // it stands among what they did
  };
  window.addEventListener("online", send);
  send();
}
