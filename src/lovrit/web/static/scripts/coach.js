// The coach's hands on a class: controls, taps, people, ways to end on time. Every press is taken back by the next one.
import { made, patch } from "./board.js";
import { clock, readClock, typing } from "./hands.js";
import { tapButtons, tickTaps } from "./taps.js";
import { GO_ON_MS } from "./events.js";

/** @typedef {import("./run.js").Run} Run */
/** @typedef {import("./events.js").EventKind} EventKind */
/** @typedef {import("./foretold.js").Moment} Moment */

const HOLD_MS = 1000;
const WORTH_S = 30;
const EARLY_S = 60; // ahead of its plan by so much, a class has room for more
const AHEAD = 4; // so many that come, after the next, are shown
const PHASES = /** @type {Record<string, string>} */ ({ ready: "Start the class", on: "Hold", held: "Go on", over: "Done" });

/** @type {Record<string, string>} */
const KEYS = {
  " ": "start", ArrowLeft: "back", ArrowRight: "next", "+": "longer", "=": "longer", "-": "shorter", a: "again", s: "stops", m: "mark",
  u: "undo", o: "more", k: "broke", f: "efforts", w: "ask-why",
};

const ME = "lovrit-me";

/** Who presses here, kept with this browser; empty where nobody said. */
export function me() {
  try {
    return localStorage.getItem(ME) ?? "";
  } catch {
    return "";
  }
}

/** @param {string} name */
function keepMe(name) {
  try {
    localStorage.setItem(ME, name.slice(0, 40));
  } catch {
    // a browser that keeps nothing asks again
  }
}

/** @param {string} id */
const at = (id) => document.getElementById(id);
/** @param {string} id */
const dialogOf = (id) => /** @type {HTMLDialogElement | null} */ (at(id));

/** The place of a group among people, made where it is new. @param {Element} people @param {string} letter @returns {Element} */
function groupIn(people, letter) {
  const found = people.querySelector(`dd[data-group="${letter}"]`);
  if (found) return found;
  const head = made("dt");
  const place = made("dd");
  place.dataset.group = letter;
  head.append(patch(letter, "fill"));
  people.append(head, place);
  return place;
}

export class Coach {
  /** @param {Run} run */
  constructor(run) {
    this.run = run;
    this.tapped = "";
    this.late = "";
    this.heard = 0;
    this.jumpTo = "";
    this.labels = JSON.parse(at("labels")?.textContent ?? "[]");
    /** @type {import("./shown.js").Card[]} */
    this.cards = JSON.parse(at("cards")?.textContent ?? "[]");
    const scored = document.querySelector("[data-happens=score] [name=block]");
    scored?.addEventListener("change", () => this.asks(/** @type {HTMLSelectElement} */ (scored)));
    at("strip")?.addEventListener("click", (event) => this.offerJump(event.clientX));
    run.root.addEventListener("click", (event) => this.clicked(event));
    for (const button of document.querySelectorAll("[data-hold]")) this.held(/** @type {HTMLElement} */ (button));
    for (const form of document.querySelectorAll("[data-happens]")) {
      form.addEventListener("submit", (event) => { event.preventDefault(); this.said(/** @type {HTMLFormElement} */ (form)); });
    }
    for (const select of document.querySelectorAll("[data-fills]")) {
      select.addEventListener("change", () => this.fill(/** @type {HTMLSelectElement} */ (select)));
      this.fill(/** @type {HTMLSelectElement} */ (select));
    }
  }

  /** @param {string} key */
  keyed(key) {
    return KEYS[key];
  }

  /** @param {Event} event */
  clicked(event) {
    // a tick by hand leaves space to the class; one by key stays where it is
    if (event.target instanceof HTMLInputElement && event.target.type === "checkbox" && /** @type {MouseEvent} */ (event).detail) event.target.blur();
    const button = /** @type {Element} */ (event.target).closest("button");
    if (!button || button.dataset.hold) return;
    if (button.dataset.tap) this.run.send({ kind: /** @type {EventKind} */ (button.dataset.tap), lane: button.dataset.lane });
    else if (button.dataset.way) this.run.send({ kind: "plan", way: button.dataset.way });
    else if (button.closest("#who-stops") && button.dataset.person) this.stops(Number(button.dataset.person));
    else if (button.dataset.feltOf) this.feltBy(button);
    else if (button.dataset.why !== undefined) this.why(button.dataset.why);
    else if (button.dataset.broke) this.broke(button.dataset.broke);
    else if (button.dataset.do) this.run.press(button.dataset.do);
    if (button.dataset.closes) button.closest("dialog")?.close();
    if (button.dataset.do || button.dataset.tap) button.blur();
  }

  /** @param {string} what */
  press(what) {
    const { view } = this.run;
    const block = this.block();
    const presses = /** @type {Record<string, () => void>} */ ({
      start: () => {
        this.run.sound.wake();
        const kind = /** @type {Record<string, EventKind>} */ ({ ready: "start", on: "hold", held: "resume" })[view.phase];
        if (kind) this.run.send({ kind });
      },
      longer: () => this.run.send({ kind: "longer", seconds: 10 }),
      shorter: () => this.run.send({ kind: "longer", seconds: -10 }),
      "longer-all": () => this.run.send({ kind: "longer", seconds: 10, every: true }),
      "shorter-all": () => this.run.send({ kind: "longer", seconds: -10, every: true }),
      "drop-round": () => { if (block !== null) this.run.send({ kind: "drop-round", block }); },
      stops: () => {
        dialogOf("who-stops")?.showModal();
        at("who-title")?.focus(); // not a name: the next press on space would stop somebody
      },
      "ask-why": () => this.askWhy(),
      emergency: () => {
        for (const id of ["who-stops", "why-stopped"]) dialogOf(id)?.close();
        dialogOf("emergency")?.showModal();
        at("emergency-title")?.focus();
        if (view.phase === "on") this.run.send({ kind: "hold" });
        this.run.send({ kind: "show", what: "stop" });
        this.run.send({ kind: "mark", text: "somebody was unwell" });
      },
      more: () => this.more(""),
      "more-somebody": () => this.more("somebody"),
      "more-time": () => this.more("time"),
      "more-plan": () => this.more("plan"),
      "more-say": () => this.more("say"),
      efforts: () => dialogOf("efforts")?.showModal(),
      broke: () => {
        dialogOf("broke")?.showModal();
        at("broke-title")?.focus();
      },
      "all-as-asked": () => this.allAsAsked(),
      jump: () => {
        if (this.jumpTo) this.run.send({ kind: "jump", to: this.jumpTo });
        this.stay();
      },
      "no-jump": () => this.stay(),
      "show-moves": () => this.run.send({ kind: "show", what: "moves", text: "1" }),
      "show-dark": () => this.run.send({ kind: "show", what: "dark" }),
      "show-class": () => this.run.send({ kind: "show", what: "class" }),
      "next-move": () => this.run.send({ kind: "show", what: "moves", text: String((Number(view.shown?.text) % this.cards.length) + 1) }),
      voice: () => {
        this.run.sound.voice = !this.run.sound.voice;
        document.querySelector("[data-do=voice]")?.setAttribute("aria-pressed", String(this.run.sound.voice));
      },
      "say-where": () => {
        this.run.sound.where = !this.run.sound.where;
        document.querySelector("[data-do=say-where]")?.setAttribute("aria-pressed", String(this.run.sound.where));
      },
      undo: () => { if (view.undo) this.run.send({ kind: "undo", of: view.undo.of }); },
      end: () => (view.phase === "ready" ? location.assign("/run") : this.run.send({ kind: "end" })),
    });
    const does = presses[what];
    if (does) does();
    else this.run.send({ kind: /** @type {EventKind} */ (what) });
  }

  /** What is asked for less often, all of it or one part. @param {string} part */
  more(part) {
    const dialog = dialogOf("more");
    if (!dialog) return;
    dialog.dataset.part = part;
    dialog.showModal();
    at("more-title")?.focus();
  }

  block() {
    const { view } = this.run;
    return view.moments[0]?.block ?? null;
  }

  /** @param {number} person */
  stops(person) {
    const stopped = (this.run.view.stopped ?? []).includes(person);
    dialogOf("who-stops")?.close();
    this.run.send({ kind: stopped ? "returns" : "stops", person });
    this.unsaid(stopped ? 0 : person);
  }

  /** Whose reason nobody has said yet: a button asks for it, when it suits, and no key of the class waits for that. @param {number} person */
  unsaid(person) {
    const button = document.querySelector("[data-do=ask-why]");
    const dialog = dialogOf("why-stopped");
    if (!(button instanceof HTMLElement) || !dialog) return;
    const name = document.querySelector(`#who-stops [data-person="${person}"] .name`)?.textContent ?? "";
    button.hidden = !person;
    button.replaceChildren(`Why did ${name} stop?`, " ", made("kbd", "W"));
    dialog.dataset.person = String(person);
    const title = at("why-title");
    if (title) title.textContent = `${name} stopped`;
  }

  /** Why somebody stopped, once they have: they are out already, nobody waits for an answer. */
  askWhy() {
    const dialog = dialogOf("why-stopped");
    if (!Number(dialog?.dataset.person)) return;
    dialog?.showModal();
    at("why-title")?.focus();
  }

  /** What it was; nothing where that is not to be said. @param {string} text */
  why(text) {
    const dialog = dialogOf("why-stopped");
    dialog?.close();
    if (text) this.run.send({ kind: "why", person: Number(dialog?.dataset.person), text: text.slice(0, 200) });
    this.unsaid(0);
  }

  /** Something that is said in a form of the page. @param {HTMLFormElement} form */
  said(form) {
    const fields = Object.fromEntries(new FormData(form));
    const text = (/** @type {string} */ name) => String(fields[name] ?? "").trim();
    const kind = form.dataset.happens ?? "";
    if (kind === "mark") this.run.send({ kind, text: text("text").slice(0, 200) });
    if (kind === "replace" && text("move")) this.run.send({ kind, station: text("station"), move: text("move").slice(0, 200) });
    if (kind === "close") this.run.send({ kind: "replace", station: text("station"), move: "closed: rest here" });
    if (kind === "moves" || kind === "joins") this.run.send({ kind, person: Number(text("person")), group: text("group") });
    if (kind === "me") keepMe(text("name"));
    if (kind === "due") this.due(text("time"));
    if (kind === "jump") this.run.send({ kind, to: text("to") });
    if (kind === "show" && text("text")) this.run.send({ kind, what: "message", text: text("text") });
    if (kind === "swap") this.run.send({ kind, person: Number(text("person")), other: Number(text("other")) });
    if (kind === "why") this.why(text("text"));
    if (kind === "broke") this.broke(text("text"), text("person"));
    if (kind === "score") return this.score(form, text);
    form.reset();
    form.closest("dialog")?.close();
  }

  /** A score is kept where it stands until the server has taken it; why it can't be one is said beside it.
   * @param {HTMLFormElement} form @param {(name: string) => string} text */
  score(form, text) {
    const person = text("person");
    const said = at("no-score");
    const press = { kind: /** @type {EventKind} */ ("score"), block: Number(text("block")), text: text("text"), ...(person ? { person: Number(person) } : {}) };
    if (said) said.textContent = "";
    this.run.send(press, (refused) => {
      if (said) said.textContent = refused;
      if (refused) return;
      form.reset();
      form.closest("dialog")?.close();
    });
  }

  /** How a score of the chosen block is written. @param {HTMLSelectElement} select */
  asks(select) {
    const field = select.form?.elements.namedItem("text");
    if (field instanceof HTMLInputElement) field.placeholder = select.selectedOptions[0]?.dataset.asks ?? "";
  }

  /** Where it broke. @param {string} text @param {string} [person] */
  broke(text, person = "") {
    dialogOf("broke")?.close();
    this.run.send({ kind: "broke", text: text.slice(0, 200), ...(person ? { person: Number(person) } : {}) });
  }

  /** One tap a person. @param {HTMLElement} button */
  feltBy(button) {
    for (const one of button.parentElement?.children ?? []) one.setAttribute("aria-pressed", String(one === button));
    this.run.send({ kind: "felt", person: Number(button.dataset.feltOf), value: Number(button.dataset.value) });
  }

  /** Everybody felt what was asked for in the last work. */
  allAsAsked() {
    const { view } = this.run;
    const asked = view.moments.find((one) => one.effort)?.effort ?? at("efforts")?.dataset.asked;
    if (!asked) return;
    for (const row of document.querySelectorAll("#efforts .tens")) {
      const button = [...row.children].find((one) => /** @type {HTMLElement} */ (one).dataset.value === String(Math.round(Number(asked))));
      if (button instanceof HTMLElement) this.feltBy(button);
    }
    dialogOf("efforts")?.close();
  }

  /** A place on the tape was pressed: going there is asked first. @param {number} x */
  offerJump(x) {
    const found = ["on", "held"].includes(this.run.view.phase) ? this.run.strip?.placeAt(x) : null;
    const bar = at("jump");
    const button = bar?.querySelector("[data-do=jump]");
    if (!found || !bar || !button) return;
    this.jumpTo = found.place;
    button.textContent = `Go to ${clock(found.at)}, ${this.labels[Number(found.place.split(".")[0])] ?? ""}`;
    bar.hidden = false;
  }

  stay() {
    this.jumpTo = "";
    at("jump")?.toggleAttribute("hidden", true);
  }

  /** The hall must be back at a time of day, of the club's. @param {string} time hh:mm */
  due(time) {
    if (!time) return this.run.send({ kind: "due", due_ms: null });
    const now = this.run.now();
    const [hours, minutes] = this.run.timeOfDay(now).split(":").map(Number);
    const minutesOn = (((readClock(time) - (hours * 60 + minutes)) % 1440) + 1440) % 1440;
    return this.run.send({ kind: "due", due_ms: Math.floor(now / 60_000) * 60_000 + minutesOn * 60_000 });
  }

  /** What may be taken in a second field follows from the first. @param {HTMLSelectElement} select */
  fill(select) {
    const list = at(select.dataset.fills ?? "");
    const ways = select.selectedOptions[0]?.dataset.ways ?? "";
    list?.replaceChildren(...ways.split("|").filter(Boolean).map((way) => Object.assign(document.createElement("option"), { value: way })));
  }

  /** Redrawn with the rest of the page. @param {Moment} moment */
  show(moment) {
    const box = at("taps");
    const lanes = JSON.stringify([moment.lanes?.map((lane) => [lane.lane, lane.does, lane.takes]), this.run.view.rounds, moment.block]);
    if (box && lanes !== this.tapped) {
      this.tapped = lanes;
      box.replaceChildren(...tapButtons(this.run.view, moment, this.run.groups));
      box.hidden = !box.children.length;
    }
    this.coming(moment);
    this.lateness();
    this.buttons();
  }

  /** What comes, a line each: how long, and what it is. @param {Moment} moment */
  coming(moment) {
    const box = at("coming");
    if (!box) return;
    const { moments } = this.run.view;
    const first = moments.findIndex((one) => one.at > moment.at && one.place !== moment.place);
    const told = first < 0 ? [] : moments.slice(first).filter((one, nth, all) => one.kind !== "over" && one.place !== all[nth - 1]?.place);
    box.replaceChildren(...told.slice(1, 1 + AHEAD).map((one) => {
      const line = made("li");
      line.append(made("b", clock(one.up ? (one.cap ?? 0) : (one.zero - one.at) / 1000)), made("span", this.run.called(one)), made("small", one.where));
      return line;
    }));
  }

  /** @param {Moment} moment @param {number} now */
  tick(moment, now) {
    const box = at("taps");
    if (box) tickTaps(box, this.run.view, moment, now);
  }

  /** How many walls and stations hear; one that fell asleep or lost its network is missed here. @param {number} count */
  walls(count) {
    const fewer = count < this.heard;
    this.heard = count;
    const found = at("walls");
    if (!found) return;
    found.textContent = fewer ? `a screen is gone: ${count || "none"} in the hall now` : "";
  }

  /** Late by how much, and honest ways out. */
  lateness() {
    const box = at("late");
    const { late_s: late = 0, early_s: early = 0, ways = [], due_ms: due, phase } = this.run.view;
    const key = JSON.stringify([Math.round(late / 5), Math.round(early / 15), ways, due, phase]);
    if (!box || key === this.late) return;
    this.late = key;
    const said = late >= WORTH_S && phase !== "over" && phase !== "ready" && due;
    const ahead = early >= EARLY_S && phase !== "over" && phase !== "ready";
    const news = box.hidden && (said || ahead);
    box.hidden = !said && !ahead;
    if (ahead && !said) {
      const add = [["longer-all", "Ten more on each, for the rest of the block"], ["again", "This turn once more"]].map(([does, text]) => {
        const button = made("button", text, "press");
        button.dataset.do = does;
        return button;
      });
      box.replaceChildren(made("p", `${clock(early)} ahead of the plan. There is room to add:`), ...add);
      this.newsOf(box, news);
    }
    if (!said) return;
    const buttons = ways.map((way) => {
      const button = made("button", `${way.text} · ends ${this.run.minuteOfDay(way.ends_ms)}`, "press");
      button.dataset.way = way.way;
      return button;
    });
    box.replaceChildren(made("p", `${clock(late)} past ${this.run.minuteOfDay(due)}, when the hall must be back.`), ...buttons);
    this.newsOf(box, news);
  }

  /** That a class is late or ahead is said when it comes up, and not again while it counts on. @param {HTMLElement} box @param {unknown} news */
  newsOf(box, news) {
    const said = at("late-said");
    if (said && news) said.textContent = box.querySelector("p")?.textContent ?? "";
  }

  /** Everybody under the letter of the group that they are in by now. */
  regroup() {
    const people = document.querySelector("dl.people");
    for (const [who, letter] of Object.entries(this.run.view.in_group ?? {})) {
      for (const one of document.querySelectorAll(`[data-person="${who}"]`)) {
        const shown = one.querySelector("b.patch");
        if (shown && shown.textContent !== letter) shown.replaceWith(patch(letter, "fill"));
        if (people?.contains(one) && one.closest("dd")?.dataset.group !== letter) groupIn(people, letter).append(one);
      }
    }
    for (const dd of people?.querySelectorAll("dd") ?? []) {
      dd.hidden = !dd.children.length;
      if (dd.previousElementSibling instanceof HTMLElement) dd.previousElementSibling.hidden = dd.hidden;
    }
  }

  buttons() {
    const { view } = this.run;
    this.regroup();
    const put = (/** @type {string} */ id, /** @type {string} */ text) => { const found = at(id); if (found) found.textContent = text; };
    this.wallShows();
    put("marks", view.marks ? `${view.marks} marked` : "");
    const start = document.querySelector("[data-do=start]");
    start?.replaceChildren(PHASES[this.run.root.dataset.phase ?? "ready"] ?? "Hold", " ", made("kbd", "space"));
    const undo = document.querySelector("[data-do=undo]");
    if (undo instanceof HTMLElement) {
      undo.hidden = !view.undo || view.phase === "over";
      undo.replaceChildren(`Undo ${view.undo?.said ?? ""}${view.undo?.by ? ` (${view.undo.by})` : ""}`, " ", made("kbd", "U"));
    }
    for (const one of document.querySelectorAll("[data-person]")) {
      const who = Number(/** @type {HTMLElement} */ (one).dataset.person);
      one.toggleAttribute("data-stopped", (view.stopped ?? []).includes(who));
    }
    this.leaves();
  }

  /** What is left of a group if somebody stops: said before it is pressed, where that is few. */
  leaves() {
    const stopped = this.run.view.stopped ?? [];
    const buttons = /** @type {HTMLElement[]} */ ([...document.querySelectorAll("#who-stops [data-person]")]);
    const here = buttons.filter((one) => !stopped.includes(Number(one.dataset.person)));
    for (const one of buttons) {
      const letter = one.querySelector("b")?.textContent;
      const left = here.filter((other) => other !== one && other.querySelector("b")?.textContent === letter).length;
      const said = one.querySelector(".leaves");
      if (said) said.textContent = here.includes(one) && left < 2 ? ` ${letter} has ${left || "nobody"} then` : "";
    }
  }

  /** What the walls show instead of the class. */
  wallShows() {
    const { what, text } = this.run.view.shown ?? { what: "class", text: "" };
    const box = at("wall-shows");
    const said = box?.querySelector("span");
    if (!box || !said) return;
    box.hidden = what === "class";
    said.textContent = what === "moves" ? `Walls show ${this.cards[Number(text) - 1]?.station ?? "moves"}.` : what === "dark" ? "Walls are dark." : what === "stop" ? "Walls say that everyone stops." : `Walls say “${text}”.`;
    box.querySelector("[data-do=next-move]")?.toggleAttribute("hidden", what !== "moves");
  }

  over() {
    const box = at("taps");
    if (box) box.hidden = true;
    this.tapped = "";
    this.lateness();
    this.buttons();
    const row = made("li");
    const link = Object.assign(document.createElement("a"), { className: "press strong", href: `/debrief/${this.run.id}`, textContent: "To the debrief" });
    row.append(link);
    if (this.run.mayGoOn()) {
      const again = Object.assign(document.createElement("button"), { type: "button", className: "press", textContent: "Go on after all" });
      again.dataset.do = "goes-on";
      row.append(" ", again);
      setTimeout(() => again.remove(), GO_ON_MS - (this.run.now() - (this.run.view.over_ms ?? 0)));
    }
    if (this.run.view.phase === "over") at("stands")?.append(row);
  }

  /** What ends things is held for a second, by key or by hand, so that nothing ends a class by mistake. @param {HTMLElement} button */
  held(button) {
    const key = button.dataset.hold ?? "";
    let timer = 0;
    const begin = () => {
      if (timer) return;
      button.dataset.held = "1";
      timer = window.setTimeout(() => {
        leave();
        if (button.dataset.closes) button.closest("dialog")?.close();
        this.press(button.dataset.do ?? "");
      }, HOLD_MS);
    };
    const leave = () => {
      clearTimeout(timer);
      timer = 0;
      delete button.dataset.held;
    };
    button.addEventListener("pointerdown", begin);
    for (const name of ["pointerup", "pointerleave", "pointercancel", "blur"]) button.addEventListener(name, leave);
    const isIt = (/** @type {KeyboardEvent} */ event) => event.key.toLowerCase() === key
      || (event.target === button && (event.key === "Enter" || event.key === " "));
    document.addEventListener("keydown", (event) => {
      if (!isIt(event) || typing(event.target) || event.ctrlKey || event.metaKey || event.altKey || (document.querySelector("dialog[open]") && !button.closest("dialog[open]"))) return;
      event.preventDefault();
      event.stopPropagation();
      begin();
    }, true);
    document.addEventListener("keyup", (event) => { if (isIt(event)) leave(); }, true);
  }
}
