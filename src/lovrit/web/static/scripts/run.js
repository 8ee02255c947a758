// A class on a screen: between messages the page runs on by itself from the plan, by the server's clock.
import { advance, GO_ON_MS, placeOf, take } from "./fold.js";
import { clock, typing } from "./hands.js";
import { Presses } from "./presses.js";
import { Sound } from "./sound.js";
import { listenOn } from "./stream.js";

/** @typedef {{phase: string, said: string, block: number, where: string, effort: string | null, seconds: number, beat: number | null, stands: Stand[]}} Interval */
/** @typedef {{station: string, side: string | null, groups: string[], then: string[]}} Stand */
/** @typedef {{groups: string[], end_s: number, intervals: Interval[]}} Plan */
/** @typedef {import("./fold.js").State} State */

const END_MS = 1000;

/** @param {string} id */
const at = (id) => document.getElementById(id);
/** @param {string} id @param {string} text */
const put = (id, text) => {
  const found = at(id);
  if (found && found.textContent !== text) found.textContent = text;
};

class Run {
  /** @param {HTMLElement} root */
  constructor(root) {
    this.root = root;
    this.id = root.dataset.class;
    this.coach = root.dataset.screen === "coach";
    /** @type {Plan} */
    this.plan = JSON.parse(at("plan")?.textContent ?? "{}");
    /** @type {State} */
    this.state = JSON.parse(at("state")?.textContent ?? "{}");
    this.offset = (this.state.now_ms ?? Date.now()) - Date.now();
    this.best = Number.POSITIVE_INFINITY;
    this.sound = new Sound();
    this.zone = root.dataset.zone;
    this.drawn = "";
    this.announced = "";
    this.stillAway = "";
    /** The server's state, on which the presses that it has not yet answered are laid. */
    this.server = this.state;
    this.presses = new Presses(`/run/${this.id}/happen`, (state) => { this.server = state; }, (said) => this.tell(said));
    this.strip();
    this.setClock();
    this.listen();
    this.lay();
    setInterval(() => this.tick(), 100);
    setInterval(() => this.setClock(), 20_000);
  }

  now() {
    return Date.now() + this.offset;
  }

  /** The server's clock, from the quickest of a few askings. */
  async setClock() {
    for (let nth = 0; nth < 4; nth += 1) {
      const sent = performance.now();
      try {
        const answer = await fetch("/clock", { cache: "no-store" });
        const { now_ms: theirs } = await answer.json();
        const took = performance.now() - sent;
        if (took <= this.best * 1.5) {
          this.offset = theirs + took / 2 - Date.now();
          this.best = Math.min(this.best, took);
        }
      } catch {
        return;
      }
    }
  }

  /** Where the class is now: the interval, ms into it, and ms left of it. */
  place() {
    const { phase, interval, place_ms: place } = advance(this.state, this.now());
    if (phase === "over") return { interval: this.plan.intervals.length, place: 0, left: 0 };
    return { interval, place, left: (this.state.lengths_ms[interval] ?? 0) - place };
  }

  tick() {
    const { interval, place, left } = this.place();
    const one = this.plan.intervals[interval];
    this.root.dataset.phase = this.state.phase === "on" && !one ? "over" : this.state.phase;
    if (!one) return this.over();
    const countIn = place < 0 && this.state.phase !== "ready";
    const shown = countIn ? -place : left;
    put("time", this.state.phase === "ready" ? clock(this.plan.end_s) : clock(Math.ceil(shown / 1000)));
    if (this.state.phase === "on") this.sound.at(this.plan, interval, place, this.state.lengths_ms);
    this.board(interval, countIn);
    this.pointer(interval, place);
    return undefined;
  }

  /** Words and stations; redrawn only when they change. @param {number} interval @param {boolean} countIn */
  board(interval, countIn) {
    const one = this.plan.intervals[interval];
    const next = this.plan.intervals[interval + 1];
    const key = `${interval} ${countIn} ${this.state.phase} ${this.state.lengths_ms.length} ${this.endsAt(interval)}`;
    if (key === this.drawn) return;
    this.drawn = key;
    const ready = this.state.phase === "ready";
    put("what", ready ? "ready" : this.state.phase === "held" ? "held" : countIn ? "get ready" : one.said);
    this.root.dataset.now = countIn || ready ? "rest" : one.phase;
    const effort = one.effort ? `effort ${one.effort} of 10` : "";
    const moves = !ready && one.phase !== "work" && one.phase !== "steady" && this.moves(interval);
    put("where", ready ? "the whole class" : moves ? "go to your next station" : [one.where, effort].filter(Boolean).join(" · "));
    put("after", ready ? `first: ${one.said}` : next ? `then ${next.said} ${clock(next.seconds)}` : "the last one");
    put("ends", ready ? "" : `class ends ${this.endsAt(interval)}`);
    this.announce(`${at("what")?.textContent}, ${at("where")?.textContent}`);
    this.stands(one.phase === "rest" || one.phase === "break" || one.phase === "change", interval);
    this.buttons();
  }

  /** A change of phase, said once to who listens with a screen reader. @param {string} text */
  announce(text) {
    if (text === this.announced) return;
    this.announced = text;
    put("announce", text);
  }

  /** Whether people change stations before the next work. @param {number} interval */
  moves(interval) {
    const before = this.plan.intervals.slice(0, interval).findLast((one) => one.phase === "work" || one.phase === "steady");
    const after = this.plan.intervals.slice(interval).find((one) => one.phase === "work" || one.phase === "steady");
    return JSON.stringify(before?.stands.map((one) => one.groups)) !== JSON.stringify(after?.stands.map((one) => one.groups));
  }

  /** When the class will end, by the wall clock. @param {number} interval */
  endsAt(interval) {
    const { left } = this.place();
    const rest = this.state.lengths_ms.slice(interval + 1).reduce((sum, one) => sum + one, 0);
    const end = new Date(Math.round((this.now() + left + rest) / 5000) * 5000);
    return end.toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit", second: "2-digit", timeZone: this.zone });
  }

  /** In a rest the coming stations are shown, where to go; at work where everyone is. @param {boolean} resting @param {number} interval */
  stands(resting, interval) {
    const list = at("stands");
    if (!list) return;
    const one = this.plan.intervals[interval];
    let shown = one;
    if (resting) shown = this.plan.intervals.slice(interval + 1).find((later) => later.phase === "work" || later.phase === "steady") ?? one;
    list.replaceChildren(...shown.stands.map((stand, nth) => this.stand(stand, nth, shown.stands.length, resting)));
    list.dataset.many = String(shown.stands.length);
  }

  /** @param {Stand} stand @param {number} nth @param {number} of @param {boolean} coming */
  stand(stand, nth, of, coming) {
    const row = document.createElement("li");
    const here = document.createElement("span");
    here.className = "here";
    for (const letter of stand.groups.length === this.plan.groups.length && of > 0 && stand.groups.length > 1 ? ["all"] : stand.groups) {
      here.append(this.patch(letter, coming ? "outline" : "fill"));
    }
    const name = document.createElement("span");
    name.className = "station-name";
    name.textContent = of > 1 && stand.groups.length < this.plan.groups.length ? `${nth + 1} ${stand.station}` : stand.station;
    if (stand.side) {
      const side = document.createElement("small");
      side.textContent = ` ${stand.side}`;
      name.append(side);
    }
    const drawn = document.querySelector(`#drawings [data-station="${CSS.escape(stand.station)}"] svg`);
    row.append(here, ...(drawn ? [drawn.cloneNode(true)] : []), name);
    const then = document.createElement("span");
    then.className = "then";
    if (stand.then.length && !coming) {
      then.append("then ", ...stand.then.map((letter) => this.patch(letter, "outline")));
    }
    row.append(then);
    return row;
  }

  /** @param {string} letter @param {"fill" | "outline"} how */
  patch(letter, how) {
    const patch = document.createElement("b");
    const nth = this.plan.groups.indexOf(letter);
    patch.className = letter === "all" ? "patch all" : `patch ${how}-${nth % 6}`;
    patch.textContent = letter;
    return patch;
  }

  over() {
    if (this.drawn === "over") return;
    this.drawn = "over";
    this.root.dataset.phase = "over";
    this.root.dataset.now = "rest";
    put("time", "0:00");
    put("what", "done");
    this.announce("The class is over.");
    put("where", "Walk, breathe, drink.");
    put("after", "");
    put("ends", "");
    at("stands")?.replaceChildren();
    if (this.coach) {
      const row = document.createElement("li");
      const link = document.createElement("a");
      link.className = "press strong";
      link.href = `/debrief/${this.id}`;
      link.textContent = "To the debrief";
      row.append(link);
      if (this.mayGoOn()) {
        const again = Object.assign(document.createElement("button"), { type: "button", className: "press", textContent: "Go on after all" });
        again.dataset.do = "goes-on";
        row.append(" ", again);
        setTimeout(() => again.remove(), GO_ON_MS - (this.now() - this.state.since_ms));
      }
      at("stands")?.append(row);
    }
    this.buttons();
  }

  /** Whether an end can still be taken back. */
  mayGoOn() {
    return this.state.phase === "over" && this.state.ended_from !== null && this.now() - this.state.since_ms < GO_ON_MS;
  }

  buttons() {
    put("marks", this.state.marks ? `${this.state.marks} marked` : "");
    const start = document.querySelector("[data-do=start]");
    const words = { ready: "Start the class", on: "Hold", held: "Go on", over: "Done" };
    if (start) {
      const phase = /** @type {keyof typeof words} */ (this.root.dataset.phase ?? "ready");
      start.innerHTML = "";
      start.append(words[phase] ?? "Hold", " ", Object.assign(document.createElement("kbd"), { textContent: "space" }));
    }
    for (const button of document.querySelectorAll("[data-person]")) {
      const who = Number(/** @type {HTMLElement} */ (button).dataset.person);
      button.toggleAttribute("data-stopped", (this.state.stopped ?? []).includes(who));
    }
  }

  /** The strip above: this stretch of the class, drawn once, moved under its pointer. */
  strip() {
    const strip = at("strip");
    if (!strip) return;
    const svg = document.createElementNS("http://www.w3.org/2000/svg", "svg");
    svg.setAttribute("width", "100%");
    svg.setAttribute("height", "30");
    svg.setAttribute("preserveAspectRatio", "none");
    let start = 0;
    for (const one of this.plan.intervals) {
      const bar = document.createElementNS("http://www.w3.org/2000/svg", "rect");
      const high = one.phase === "work" ? 22 : one.phase === "steady" || one.phase === "lead-in" ? 10 : 0;
      bar.setAttribute("class", one.phase);
      bar.setAttribute("x", String(start));
      bar.setAttribute("width", String(one.seconds));
      bar.setAttribute("y", String(26 - high));
      bar.setAttribute("height", String(high));
      svg.append(bar);
      start += one.seconds;
    }
    svg.setAttribute("viewBox", `0 0 ${Math.max(1, start)} 30`);
    const pointer = document.createElementNS("http://www.w3.org/2000/svg", "rect");
    pointer.setAttribute("class", "pointer");
    pointer.setAttribute("y", "0");
    pointer.setAttribute("height", "30");
    pointer.setAttribute("width", String(Math.max(2, start / 500)));
    svg.append(pointer);
    strip.replaceChildren(svg);
    this.marker = pointer;
  }

  /** @param {number} interval @param {number} place */
  pointer(interval, place) {
    const before = this.plan.intervals.slice(0, interval).reduce((sum, one) => sum + one.seconds, 0);
    const one = this.plan.intervals[interval];
    const within = Math.min(one.seconds, Math.max(0, place / 1000));
    this.marker?.setAttribute("x", String(before + within));
  }

  listen() {
    listenOn(`${this.coach ? "coach" : "wall"}-${this.id}`, {
      state: (data) => this.take(JSON.parse(data)),
      hearts: (data) => {
        const box = at("hearts");
        if (box) box.innerHTML = data;
      },
      away: () => {
        this.root.dataset.away = "1";
        this.stillAway = "The server is not reached; the class goes on from the plan.";
        this.tell("");
      },
      back: () => {
        delete this.root.dataset.away;
        this.stillAway = "";
        this.tell("");
        this.setClock();
        this.presses.flush();
      },
    });
    this.root.addEventListener("click", (event) => {
      const button = /** @type {Element} */ (event.target).closest("[data-do], .who [data-person]");
      if (!(button instanceof HTMLElement) || button.dataset.do === "end") return;
      if (button.dataset.person) this.stops(Number(button.dataset.person));
      else this.press(button.dataset.do ?? "");
      if (button.dataset.do) button.blur();
    });
    this.holdToEnd();
    document.addEventListener("keydown", (event) => {
      const open = document.querySelector("dialog[open]");
      if (typing(event.target) || event.ctrlKey || event.metaKey || event.altKey || open) return;
      const does = KEYS[event.key];
      if (!does || (!this.coach && does !== "sound")) return;
      event.preventDefault();
      if (!event.repeat) this.press(does);
    });
  }

  /** An end is held for a second, by key or by hand, so that nothing ends a class by mistake. */
  holdToEnd() {
    const button = document.querySelector("[data-do=end]");
    if (!(button instanceof HTMLElement)) return;
    let timer = 0;
    const begin = () => {
      if (timer) return;
      button.dataset.held = "1";
      timer = window.setTimeout(() => { leave(); this.press("end"); }, END_MS);
    };
    const leave = () => {
      clearTimeout(timer);
      timer = 0;
      delete button.dataset.held;
    };
    button.addEventListener("pointerdown", begin);
    for (const name of ["pointerup", "pointerleave", "pointercancel", "blur"]) button.addEventListener(name, leave);
    const isEnd = (/** @type {KeyboardEvent} */ event) => event.key.toLowerCase() === "e"
      || (event.target === button && (event.key === "Enter" || event.key === " "));
    document.addEventListener("keydown", (event) => {
      if (!isEnd(event) || typing(event.target) || event.ctrlKey || event.metaKey || event.altKey || document.querySelector("dialog[open]")) return;
      event.preventDefault();
      event.stopPropagation();
      begin();
    }, true);
    document.addEventListener("keyup", (event) => { if (isEnd(event)) leave(); }, true);
  }

  /** What is said at the foot: of presses that wait, else of a server that is away. @param {string} said */
  tell(said) {
    put("said", said || this.stillAway);
    this.lay();
  }

  /** @param {State} state */
  take(state) {
    if ((state.now_ms ?? 0) < (this.server.now_ms ?? 0)) return;
    this.server = state;
    this.lay();
  }

  /** The server's state with the presses that it has not yet answered laid on it. */
  lay() {
    const before = JSON.stringify([this.state, this.plan.intervals.length]);
    this.state = (this.presses?.waiting ?? []).reduce((state, press) => take(state, press), this.server);
    if (before !== JSON.stringify([this.state, this.plan.intervals.length]) || !this.drawn) this.drawn = "";
    this.tick();
  }

  /** @param {string} what */
  press(what) {
    if (what === "sound") {
      const on = this.sound.toggle();
      for (const button of document.querySelectorAll("[data-do=sound]")) button.setAttribute("aria-pressed", String(on));
    } else if (what === "stops") {
      const dialog = at("who-stops");
      if (dialog instanceof HTMLDialogElement) dialog.showModal();
      at("who-title")?.focus(); // not a name: the next press on space would stop somebody
    } else if (what === "start") {
      this.sound.wake();
      const does = { ready: "start", on: "hold", held: "resume" }[this.state.phase];
      if (does) this.send({ kind: does });
    } else if (what === "longer") this.send({ kind: "longer", seconds: 10 });
    else if (what === "end") {
      if (this.state.phase === "ready") location.assign("/run");
      else this.send({ kind: "end" });
    } else this.send({ kind: what });
  }

  /** @param {number} person */
  stops(person) {
    const stopped = (this.state.stopped ?? []).includes(person);
    const dialog = at("who-stops");
    if (dialog instanceof HTMLDialogElement) dialog.close();
    this.send({ kind: stopped ? "returns" : "stops", person });
  }

  /** Something happened: it shows at once, and is sent until the server has it. @param {{kind: string, seconds?: number, person?: number}} event */
  send(event) {
    const now = Math.round(this.now());
    this.presses.add({ ...event, at_ms: now, place: placeOf(advance(this.state, now)) });
    this.lay();
  }
}

/** @type {Record<string, string>} */
const KEYS = { " ": "start", ArrowLeft: "back", ArrowRight: "next", "+": "longer", "=": "longer", s: "stops", m: "mark", b: "sound" };

const root = at("run");
if (root) Object.assign(window, { run: new Run(root) });
