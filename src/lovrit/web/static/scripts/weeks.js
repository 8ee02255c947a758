// Weeks by hand and by key: a session is dragged to a day, or goes there by Alt and an arrow; Ctrl-Z takes it back.

const board = /** @type {HTMLElement} */ (document.getElementById("weeks"));
const from = board.dataset.from ?? "";
const DAY_MS = 86_400_000;
const WEEK = 7;
const STEPS = /** @type {Record<string, number>} */ ({ ArrowLeft: -1, ArrowRight: 1, ArrowUp: -WEEK, ArrowDown: WEEK });

/** @param {string} path @param {Record<string, string>} fields */
function post(path, fields) {
  const form = document.createElement("form");
  form.method = "post";
  form.action = path;
  for (const [name, value] of Object.entries({ at: from, ...fields })) {
    const field = document.createElement("input");
    field.type = "hidden";
    field.name = name;
    field.value = value;
    form.append(field);
  }
  form.hidden = true;
  document.body.append(form);
  form.requestSubmit();
}

/** @param {string} day @param {number} by */
export const dayAfter = (day, by) => new Date(Date.parse(`${day}T12:00:00Z`) + by * DAY_MS).toISOString().slice(0, 10);

/** The day on which a session is seen here. @param {string} session */
const dayOf = (session) => /** @type {HTMLElement | null} */ (board.querySelector(`[data-session="${CSS.escape(session)}"]`))?.dataset.day ?? "";

/** @param {Event} event */
const dayAt = (event) => /** @type {HTMLElement | null} */ (/** @type {HTMLElement} */ (event.target).closest("[data-day].day"));

board.addEventListener("dragstart", (event) => {
  const one = /** @type {HTMLElement} */ (event.target).closest("[data-session]");
  if (one instanceof HTMLElement) event.dataTransfer?.setData("text/plain", one.dataset.session ?? "");
});
board.addEventListener("dragover", (event) => {
  const day = dayAt(event);
  for (const other of board.querySelectorAll(".day.over")) if (other !== day) other.classList.remove("over");
  if (!day) return;
  event.preventDefault();
  day.classList.add("over");
});
board.addEventListener("drop", (event) => {
  const day = dayAt(event);
  const session = event.dataTransfer?.getData("text/plain") ?? "";
  if (!day || !session) return;
  event.preventDefault();
  post(event.ctrlKey || event.metaKey ? "/weeks/put" : "/weeks/move", { session, day: day.dataset.day ?? "", was: dayOf(session) });
});
/** A day is chosen by a tap: each shows a button, and what is going there is said at the foot of the screen.
 * @param {HTMLElement} one @param {string} how move, or put for a copy */
function choose(one, how) {
  stop();
  const title = one.querySelector("a")?.textContent ?? "";
  const bar = Object.assign(document.createElement("p"), { className: "choosing-bar", id: "choosing" });
  bar.setAttribute("role", "status");
  bar.append(`${how === "put" ? "A copy of" : ""} ${title}: tap its day. `);
  const no = Object.assign(document.createElement("button"), { type: "button", className: "press", textContent: "Not now" });
  no.addEventListener("click", stop);
  bar.append(no);
  board.append(bar);
  board.classList.add("choosing");
  for (const day of /** @type {NodeListOf<HTMLElement>} */ (board.querySelectorAll("[data-day].day"))) {
    const here = Object.assign(document.createElement("button"), { type: "button", className: "press here", textContent: "here" });
    here.setAttribute("aria-label", `${day.querySelector(".label")?.textContent ?? ""}: here`);
    here.addEventListener("click", () => post(`/weeks/${how}`, { session: one.dataset.session ?? "", day: day.dataset.day ?? "", was: one.dataset.day ?? "" }));
    day.append(here);
  }
  no.focus({ preventScroll: true });
}

function stop() {
  document.getElementById("choosing")?.remove();
  board.classList.remove("choosing");
  for (const here of board.querySelectorAll(".here")) here.remove();
}

board.addEventListener("click", (event) => {
  const button = /** @type {HTMLElement} */ (event.target).closest("[data-choose]");
  const one = button?.closest("[data-session]");
  if (button instanceof HTMLElement && one instanceof HTMLElement) choose(one, button.dataset.choose ?? "move");
});
document.addEventListener("keydown", (event) => {
  if (event.key === "Escape" && board.classList.contains("choosing")) stop();
  const on = /** @type {HTMLElement} */ (event.target);
  if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "z" && !on.closest("input, textarea")) {
    event.preventDefault();
    const undo = /** @type {HTMLFormElement | null} */ (document.getElementById("undo-weeks"));
    undo?.requestSubmit();
    return;
  }
  const one = on.closest("[data-session]");
  if (event.altKey && event.key.toLowerCase() === "c" && one instanceof HTMLElement) {
    event.preventDefault();
    post("/weeks/put", { session: one.dataset.session ?? "", day: dayAfter(one.dataset.day ?? "", WEEK) });
    return;
  }
  const by = event.altKey ? STEPS[event.key] : undefined;
  if (!(one instanceof HTMLElement) || by === undefined) return;
  event.preventDefault();
  sessionStorage.setItem("weeks-on", one.dataset.session ?? "");
  post("/weeks/move", { session: one.dataset.session ?? "", day: dayAfter(one.dataset.day ?? "", by), was: one.dataset.day ?? "" });
});
// what is chosen or typed in the frame of the board is taken as it is left, also without its key
for (const field of board.querySelectorAll(".how-many select, .theme-of input")) {
  field.addEventListener("change", () => /** @type {HTMLSelectElement | HTMLInputElement} */ (field).form?.requestSubmit());
}
// where a key has moved something, it is under the hand again
const moved = sessionStorage.getItem("weeks-on");
if (moved) {
  sessionStorage.removeItem("weeks-on");
  const again = board.querySelector(`[data-session="${CSS.escape(moved)}"]`);
  if (again instanceof HTMLElement) again.focus();
}
