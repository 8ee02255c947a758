// The Debrief: efforts, scores and the note are saved as they are typed; Enter or an arrow goes on to the next person.
import { freshId } from "./hands.js";

const AFTER_TYPING_MS = 350;
const AGAIN_MS = 2000;

/** A field that saves itself: one post at a time, the last that was typed wins, a refusal stands beside it. */
class Saved {
  /** @param {HTMLInputElement | HTMLTextAreaElement} field */
  constructor(field) {
    this.field = field;
    this.form = /** @type {HTMLFormElement} */ (field.form);
    this.taken = field.value;
    this.timer = 0;
    this.sending = false;
    field.addEventListener("input", () => this.later(AFTER_TYPING_MS));
    field.addEventListener("change", () => this.save());
    window.addEventListener("pagehide", () => this.save(true));
  }

  /** @param {number} ms */
  later(ms) {
    clearTimeout(this.timer);
    this.timer = window.setTimeout(() => this.save(), ms);
  }

  /** @param {boolean} [leaving] */
  async save(leaving = false) {
    clearTimeout(this.timer);
    const { value } = this.field;
    if (value === this.taken || (this.sending && !leaving)) return;
    this.sending = true;
    const body = new URLSearchParams();
    for (const [name, said] of new FormData(this.form)) body.append(name, String(said));
    body.set("op", freshId());
    try {
      const answer = await fetch(this.form.action, { method: "POST", body, headers: { "x-lovrit": "1" }, keepalive: leaving });
      const done = answer.ok || (answer.status < 500 && answer.status !== 401 && answer.status !== 429);
      const text = await answer.text();
      this.say(answer.ok ? "" : text);
      const line = new DOMParser().parseFromString(answer.ok ? text : "", "text/html").getElementById("readout");
      if (line) document.getElementById("readout")?.replaceWith(document.adoptNode(line));
      if (done) this.taken = value;
      else this.later(AGAIN_MS);
      if (answer.ok) document.dispatchEvent(new Event("lovrit-changed"));
    } catch {
      this.say("Not reached: kept here and sent again.");
      this.later(AGAIN_MS);
    } finally {
      this.sending = false;
    }
    if (this.field.value !== value) this.save();
  }

  /** @param {string} text */
  say(text) {
    const id = `${this.field.id}-no`;
    const old = document.getElementById(id);
    if (!text) {
      old?.remove();
      this.field.removeAttribute("aria-invalid");
      this.field.removeAttribute("aria-describedby");
      return;
    }
    const said = old ?? Object.assign(document.createElement("p"), { id, className: "stop" });
    said.setAttribute("role", "alert");
    said.textContent = text;
    if (!old) this.form.append(said);
    this.field.setAttribute("aria-invalid", "true");
    this.field.setAttribute("aria-describedby", id);
  }
}

/** A column of fields: Enter and the arrows go from person to person in it. @param {HTMLInputElement[]} fields */
function column(fields) {
  for (const [nth, field] of fields.entries()) walk(field, nth, fields);
}

/** @param {HTMLInputElement} field @param {number} nth @param {HTMLInputElement[]} fields */
function walk(field, nth, fields) {
  const saved = new Saved(field);
  field.form?.addEventListener("submit", (event) => event.preventDefault());
  field.addEventListener("keydown", (event) => {
    const by = { Enter: 1, ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (!by) return;
    event.preventDefault();
    saved.save();
    const next = fields[nth + by];
    next?.focus();
    next?.select();
  });
}

const rows = [...document.querySelectorAll("#scores-table tbody tr")].map((row) => /** @type {HTMLInputElement[]} */ ([...row.querySelectorAll(".felt input:not([type=hidden])")]));
// the row of the class has no effort: columns are counted from the right
for (const nth of rows[0]?.keys() ?? []) column(rows.flatMap((row) => row[row.length - rows[0].length + nth] ?? []));
const chooser = document.getElementById("one-block");
if (chooser instanceof HTMLSelectElement) {
  const only = () => {
    for (const cell of document.querySelectorAll("#scores-table .scored-in")) cell.classList.toggle("shown", cell instanceof HTMLElement && cell.dataset.nth === chooser.value);
    document.getElementById("scores-table")?.classList.add("by-one");
  };
  chooser.addEventListener("change", only);
  only();
}
const note = document.getElementById("note");
if (note instanceof HTMLTextAreaElement) new Saved(note);
