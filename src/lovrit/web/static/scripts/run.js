// A class on a screen: between messages the page runs on by itself from the plan, by the server's clock.
import { clock, freshId, typing } from "./hands.js";
import { Sound } from "./sound.js";

/** @typedef {{phase: string, said: string, block: number, where: string, effort: string | null, seconds: number, beat: number | null, stands: Stand[]}} Interval */
/** @typedef {{station: string, side: string | null, groups: string[], then: string[]}} Stand */
/** @typedef {{groups: string[], end_s: number, intervals: Interval[]}} Plan */
/** @typedef {{now_ms: number, phase: string, interval: number, place_ms: number, since_ms: number, lengths_ms: number[], started_ms: number | null, over_ms: number | null, stopped?: number[]}} State */

const COUNT_IN_MS = 5000;
const AGAIN_MS = 1000;

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
    this.offset = this.state.now_ms - Date.now();
    this.best = Number.POSITIVE_INFINITY;
    this.sound = new Sound();
    this.drawn = "";
    /** @type {Record<string, unknown>[]} */
    this.unsent = [];
    this.sending = false;
    this.strip();
    this.setClock();
    this.listen();
    this.tick();
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
    let { interval, place_ms: place } = this.state;
    if (this.state.phase === "on") place += Math.max(0, this.now() - this.state.since_ms);
    if (this.state.phase === "over") return { interval: this.plan.intervals.length, place: 0, left: 0 };
    while (interval < this.plan.intervals.length && place >= this.state.lengths_ms[interval]) {
      place -= this.state.lengths_ms[interval];
      interval += 1;
    }
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
    this.stands(one.phase === "rest" || one.phase === "break" || one.phase === "change", interval);
    this.buttons();
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
    const end = new Date(Math.round((Date.now() + left + rest) / 5000) * 5000);
    return end.toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit", second: "2-digit" });
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
      at("stands")?.append(row);
    }
    this.buttons();
  }

  buttons() {
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
    const events = new EventSource(`/run/${this.id}/events?screen=${this.coach ? "coach" : "wall"}`);
    events.addEventListener("state", (event) => this.take(JSON.parse(event.data)));
    events.addEventListener("hearts", (event) => {
      const box = at("hearts");
      if (box) box.innerHTML = event.data;
    });
    events.onerror = () => { this.root.dataset.away = "1"; put("said", "The server is not reached; the class goes on from the plan."); };
    events.onopen = () => { delete this.root.dataset.away; put("said", ""); this.setClock(); this.flush(); };
    window.addEventListener("pagehide", () => events.close());
    this.root.addEventListener("click", (event) => {
      const button = /** @type {Element} */ (event.target).closest("[data-do], .who [data-person]");
      if (!(button instanceof HTMLElement)) return;
      if (button.dataset.person) this.stops(Number(button.dataset.person));
      else this.press(button.dataset.do ?? "");
      if (button.dataset.do) button.blur();
    });
    document.addEventListener("keydown", (event) => {
      const open = document.querySelector("dialog[open]");
      if (typing(event.target) || event.ctrlKey || event.metaKey || event.altKey || open) return;
      const keys = { " ": "start", ArrowLeft: "back", ArrowRight: "next", "+": "longer", "=": "longer", s: "stops", m: "mark", e: "end", b: "sound" };
      const does = keys[/** @type {keyof typeof keys} */ (event.key)];
      if (!does || (!this.coach && does !== "sound")) return;
      event.preventDefault();
      this.press(does);
    });
  }

  /** @param {State} state */
  take(state) {
    if (this.unsent.length) return;
    this.state = state;
    this.drawn = "";
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

  /** Something happened: it shows at once, and is sent until the server has it. @param {Record<string, unknown>} event */
  send(event) {
    const whole = { ...event, id: freshId(), at_ms: Math.round(this.now()) };
    this.unsent.push(whole);
    this.foretell(whole);
    this.flush();
  }

  async flush() {
    if (this.sending) return;
    this.sending = true;
    try {
      while (this.unsent.length) {
        const answer = await fetch(`/run/${this.id}/happen`, {
          method: "POST",
          headers: { "content-type": "application/json", "x-lovrit": "1" },
          body: JSON.stringify(this.unsent[0]),
        });
        this.unsent.shift();
        if (answer.ok) this.take(await answer.json());
      }
    } catch {
      put("said", "Not reached: kept here, and sent when the server is back.");
      setTimeout(() => this.flush(), AGAIN_MS);
    } finally {
      this.sending = false;
    }
  }

  /** What the clock will do, until the server has said so. @param {Record<string, unknown>} event */
  foretell(event) {
    const now = Number(event.at_ms);
    const { interval, place } = this.place();
    const here = { ...this.state, interval, place_ms: place, since_ms: now };
    if (event.kind === "start") Object.assign(here, { phase: "on", place_ms: -COUNT_IN_MS });
    else if (event.kind === "hold") here.phase = "held";
    else if (event.kind === "resume") here.phase = "on";
    else if (event.kind === "next") Object.assign(here, { interval: interval + (place < 0 ? 0 : 1), place_ms: 0 });
    else if (event.kind === "back") Object.assign(here, { interval: Math.max(0, interval - (place <= 3000 ? 1 : 0)), place_ms: 0 });
    else if (event.kind === "longer") here.lengths_ms = here.lengths_ms.map((one, nth) => (nth === interval ? one + 10_000 : one));
    else if (event.kind === "end") here.phase = "over";
    this.state = here;
    this.drawn = "";
    this.tick();
  }
}

const root = at("run");
if (root) Object.assign(window, { run: new Run(root) });
