// The hall by hand: stations dragged to spots, spots moved and added where they are pressed; all forms answer in place.
const root = document.getElementById("hall");
const NEAR_M = 1.2;
const STILL_M = 0.25;

/** @param {string} text */
function say(text) {
  const said = document.getElementById("said");
  if (said) said.textContent = text;
}

/** While a placing is under way, how far it is. */
function lookAgain() {
  if (!document.querySelector("#hall-body[data-going]")) return;
  setTimeout(() => { if (document.querySelector("#hall-body[data-going]")) post(`${root?.dataset.url}/placing`); }, 400);
}

/** @param {string} url @param {URLSearchParams} [fields] none where it is only asked */
async function post(url, fields) {
  root?.classList.add("busy");
  try {
    const answer = await fetch(url, { method: fields ? "POST" : "GET", body: fields, headers: { "x-lovrit": "1" } });
    const html = await answer.text();
    if (!answer.ok) return say(html);
    say("");
    const fresh = new DOMParser().parseFromString(html, "text/html").getElementById("hall-body");
    const old = document.getElementById("hall-body");
    const open = ["drawing", "wishing"].filter((one) => old?.querySelector(`details.${one}[open]`));
    const focused = document.activeElement?.getAttribute("aria-label");
    if (fresh && old) old.replaceWith(document.adoptNode(fresh));
    const again = focused ? document.querySelector(`#hall-body [aria-label="${CSS.escape(focused)}"]`) : null;
    if (again instanceof HTMLElement) again.focus();
    for (const kept of open) document.querySelector(`details.${kept}`)?.setAttribute("open", "");
    lookAgain();
    document.dispatchEvent(new Event("lovrit-changed"));
  } catch {
    say("The server is not reached; nothing was changed.");
  } finally {
    root?.classList.remove("busy");
  }
  return undefined;
}

lookAgain();
root?.addEventListener("submit", (event) => {
  const form = /** @type {HTMLFormElement} */ (event.target);
  if (!form.closest("#hall-body") || form.enctype === "multipart/form-data") return;
  event.preventDefault();
  const { submitter } = /** @type {SubmitEvent} */ (event);
  post(form.action, new URLSearchParams(/** @type {any} */ (new FormData(form, submitter))));
});
// a choice by hand is taken at once; one by key is looked through with the arrows, and taken by Enter or as it is left
let keyed = false;
root?.addEventListener("keydown", (event) => {
  keyed = event.key !== "Enter";
  const chosen = /** @type {Element} */ (event.target);
  if (event.key !== "Enter" || !(chosen instanceof HTMLSelectElement) || !chosen.closest(".pin-form")) return;
  event.preventDefault();
  chosen.form?.requestSubmit();
});
root?.addEventListener("pointerdown", () => { keyed = false; });
root?.addEventListener("change", (event) => {
  const chosen = /** @type {Element} */ (event.target);
  const form = chosen.closest(".pin-form");
  if (!(form instanceof HTMLFormElement)) return;
  if (keyed) chosen.addEventListener("blur", () => form.requestSubmit(), { once: true });
  else form.requestSubmit();
});

/** Where a pointer is on the floor, in metres. @param {PointerEvent} event */
function metres(event) {
  const plan = /** @type {SVGSVGElement | null} */ (/** @type {unknown} */ (document.getElementById("floor-plan")));
  const matrix = plan?.getScreenCTM();
  if (!plan || !matrix) return null;
  const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
  return { x: at.x, y: at.y };
}

/** @type {{thing: SVGGElement, station: string | undefined, spot: string | undefined, shifts: string | undefined, from: {x: number, y: number}} | null} */
let held = null;

root?.addEventListener("pointerdown", (event) => {
  const target = /** @type {Element} */ (event.target);
  const from = target.closest("#floor-plan") ? metres(event) : null;
  if (!from || event.button) return;
  const thing = target.closest("[data-station], [data-spot], [data-thing]");
  if (!(thing instanceof SVGGElement)) return;
  event.preventDefault();
  held = { thing, station: thing.dataset.station, spot: thing.dataset.spot, shifts: thing.dataset.thing, from };
  thing.classList.add("carried");
});
root?.addEventListener("pointermove", (event) => {
  const at = held ? metres(event) : null;
  if (held && at) held.thing.setAttribute("transform", `translate(${at.x - held.from.x} ${at.y - held.from.y})`);
});
document.addEventListener("pointerup", (event) => {
  if (!held || !root) return;
  const { thing, station, spot, shifts, from } = held;
  held = null;
  thing.classList.remove("carried");
  thing.removeAttribute("transform");
  const at = metres(event);
  if (!at || Math.hypot(at.x - from.x, at.y - from.y) < STILL_M) return;
  const url = root.dataset.url ?? "";
  if (spot) post(`${url}/draw`, new URLSearchParams({ moved: spot, x: at.x.toFixed(1), y: at.y.toFixed(1) }));
  else if (shifts) post(`${url}/draw`, new URLSearchParams({ shifted: shifts, dx: (at.x - from.x).toFixed(1), dy: (at.y - from.y).toFixed(1) }));
  else if (station) {
    const over = [...document.querySelectorAll("[data-spot]")].find((one) => {
      const circle = one.querySelector("circle");
      return circle && Math.hypot(Number(circle.getAttribute("cx")) - at.x, Number(circle.getAttribute("cy")) - at.y) < NEAR_M;
    });
    if (over instanceof SVGGElement) post(`${url}/pin`, new URLSearchParams({ station, spot: over.dataset.spot ?? "" }));
    else say("No spot is there: put the station on a circle.");
  }
});
root?.addEventListener("click", (event) => {
  const target = /** @type {Element} */ (event.target);
  if (!target.closest("#floor-plan") || target.closest("[data-station], [data-spot], [data-thing]")) return;
  const at = metres(/** @type {PointerEvent} */ (event));
  const plan = document.getElementById("floor-plan");
  if (!at || !plan || at.x < 0 || at.y < 0 || at.x > Number(plan.dataset.width) || at.y > Number(plan.dataset.height)) return;
  post(`${root?.dataset.url}/draw`, new URLSearchParams({ added: "1", x: at.x.toFixed(1), y: at.y.toFixed(1) }));
});

export {};
