// Somebody's own page: what their phone did alone, and could not tell where there was no network, is told from here.
import { Outbox } from "./outbox.js";

const root = /** @type {HTMLElement | null} */ (document.querySelector("[data-mine]"));
if (root) {
  const outbox = new Outbox(root.dataset.mine ?? "");
  const send = async () => {
    let taken = 0;
    await outbox.send((_, ok) => { taken += Number(ok); });
    if (taken) location.reload(); // it stands among what they did
  };
  window.addEventListener("online", send);
  send();
}
