// A class on a screen: between messages the page goes on by itself through the moments that were foretold, by the
// server's clock. Coach, wall and station are the same page with more or less on it.
import { draw, drawLanes, drawNames, made, patch, shownAt, tickLanes } from "./board.js";
import { Coach, me } from "./coach.js";
import { comingWork, cuesAhead, joined, laidOn, momentAt, nthAt, reading, standing, works } from "./foretold.js";
import { GO_ON_MS } from "./events.js";
import { clock, presses, typing } from "./hands.js";
import { Presses } from "./presses.js";
import { fillRoom } from "./room.js";
import { Shown } from "./shown.js";
import { AHEAD_MS, Sound } from "./sound.js";
import { alone, listenOn } from "./stream.js";
import { Strip } from "./strip.js";
import { tapButtons } from "./taps.js";

/** @typedef {import("./foretold.js").View} View */
/** @typedef {import("./foretold.js").Moment} Moment */
/** @typedef {Omit<import("./foretold.js").Press, "id" | "at_ms">} Sent */

const LONGEST = 14;
const TEN_MINUTES = 600; // from here on a clock has five places
const FEW = 2; // tasks that are said in one line

/** @param {import("./foretold.js").What} what */
const saidOf = (what) => [what.does, what.side].filter(Boolean).join(", ");

/** @param {string} id */
const at = (id) => document.getElementById(id);
/** @param {string} id @param {string} text */
const put = (id, text) => {
  const found = at(id);
  if (found && found.textContent !== text) found.textContent = text;
};
/** @param {string} id */
const json = (id) => JSON.parse(at(id)?.textContent ?? "null");

class Run {
  /** @param {HTMLElement} root */
  constructor(root) {
    this.toldOfHearts = "";
    this.silent = "";
    this.root = root;
    this.id = root.dataset.class;
    this.zone = root.dataset.zone;
    this.station = root.dataset.station === undefined ? undefined : Number(root.dataset.station);
    /** The server's view, on which the presses that it has not yet answered are laid. @type {View} */
    this.server = json("state");
    /** @type {View} */
    this.view = this.server;
    this.offset = this.server.now_ms - Date.now();
    this.best = Number.POSITIVE_INFINITY;
    this.sound = new Sound(json("tones") ?? {});
    this.soundKey = `lovrit-sound-${root.dataset.screen}`;
    this.sounds();
    this.drawn = "";
    this.announced = "";
    this.stillAway = "";
    this.base = root.dataset.base ?? "";
    this.presses = new Presses(`${this.base || `/run/${this.id}`}/happen`, (view) => this.answered(view), (said) => this.tell(said));
    const strip = at("strip");
    this.strip = strip ? new Strip(strip, json("strip-of") ?? []) : null;
    this.coach = root.dataset.screen === "coach" ? new Coach(this) : null;
    this.hand = root.dataset.screen === "hand";
    if (this.hand) this.inHand();
    const shown = at("shown");
    this.shown = shown ? new Shown(root, shown) : null;
    this.setClock();
    this.listen();
    this.lay();
    window.addEventListener("resize", () => { this.drawn = ""; });
    setInterval(() => this.tick(), 100);
    setInterval(() => this.setClock(), 20_000);
  }

  /** The groups that somebody is in, by now. */
  get groups() {
    return this.view.groups;
  }

  now() {
    return Date.now() + this.offset;
  }

  /** The server's clock, from the quickest of a few askings. */
  async setClock() {
    for (let nth = 0; nth < 4; nth += 1) {
      const sent = performance.now();
      try {
        const answer = await fetch(`${this.base}/clock`, { cache: "no-store" });
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

  tick() {
    const now = this.now();
    const moment = momentAt(this.view, now);
    this.root.dataset.phase = moment ? this.view.phase : this.view.phase === "ready" ? "ready" : "over";
    if (!moment) return this.over();
    const ready = this.view.phase === "ready";
    const seconds = reading(this.view, moment, now);
    const shown = moment.up ? Math.floor(seconds + 0.001) : Math.ceil(seconds - 0.001);
    put("time", clock(ready ? this.view.total_s : shown));
    if (this.view.phase === "on") this.sound.plan(cuesAhead(this.view, now, AHEAD_MS), now);
    this.show(moment, now);
    this.running(moment, now);
    this.strip?.point(moment, standing(this.view, now));
    return undefined;
  }

  /** What changes with every tenth: the lanes' seconds, the bar of a turn. @param {Moment} moment @param {number} now */
  running(moment, now) {
    const boards = document.querySelector(".boards") ?? at("stands");
    if (boards) tickLanes(boards, this.view, moment, now);
    this.coach?.tick(moment, now);
    const bar = at("turnbar");
    if (!bar) return;
    const ends = moment.up ? moment.began + (moment.cap ?? 0) * 1000 : moment.zero;
    const length = ends - moment.began;
    const share = (/** @type {number} */ ms) => `${Math.min(100, Math.max(0, ((ms - moment.began) / length) * 100))}%`;
    const mark = moment.usual ?? (moment.least ? moment.began + moment.least * 1000 : null);
    bar.hidden = length <= 0 || (mark === null && !moment.up);
    bar.style.setProperty("--gone", share(standing(this.view, now)));
    bar.style.setProperty("--mark", mark === null ? "-10%" : share(mark));
  }

  /** Words and stations; redrawn only when they change. @param {Moment} moment @param {number} now */
  show(moment, now) {
    const nth = nthAt(this.view, now);
    const key = `${moment.at} ${moment.place} ${this.view.phase} ${this.view.now_ms} ${this.endsAt(now)}`;
    if (key === this.drawn) return;
    this.drawn = key;
    const ready = this.view.phase === "ready";
    const resting = !works(moment.kind);
    put("what", ready || this.view.phase === "held" ? this.view.phase : wordOf(moment));
    this.root.dataset.now = ready || moment.kind === "count" ? "rest" : moment.kind;
    this.root.dataset.shape = moment.shape;
    put("where", ready ? "the whole class" : this.where(moment, nth, resting));
    put("after", this.after(moment, nth, ready));
    put("ends", ready ? "" : `class ends ${this.endsAt(now)}`);
    this.pulse(moment, now);
    this.announce(`${at("what")?.textContent}, ${at("where")?.textContent}`);
    const list = at("stands");
    if (list && ready && this.view.names && this.station === undefined) drawNames(list, this.view.names);
    else if (list) draw(list, this.view, nth, this.station);
    const lanes = at("lanes");
    if (lanes && this.coach && moment.shape !== "gate") lanes.replaceChildren(); // taps tell of the others
    else if (lanes) drawLanes(lanes, this.view, moment, this.groups);
    this.coach?.show(moment);
    if (this.hand) this.mine(moment, nth);
    this.room(moment, now);
  }

  /** What stands on a wall is as large as the wall has room for. @param {Moment} moment @param {number} now */
  room(moment, now) {
    const boards = /** @type {HTMLElement | null} */ (document.querySelector(":is(.wall, .hand) .boards"));
    if (!boards) return;
    this.running(moment, now); // what takes room stands before it is measured
    const longest = Math.max(reading(this.view, moment, now), moment.up ? (moment.cap ?? TEN_MINUTES) : 0);
    this.root.style.setProperty("--chars", longest >= TEN_MINUTES ? "5" : "4");
    fillRoom(this.root, boards);
  }

  /** One's own box or effort, and one's own taps. @param {Moment} moment @param {number} nth */
  mine(moment, nth) {
    const { out, done, undo } = this.view.mine ?? {};
    this.who();
    const told = moment.resting ? (comingWork(this.view, nth) ?? moment) : moment;
    put("box", out || done ? "" : (told.box ?? ""));
    if (out) this.says("stopped", "You have stopped. Tell your coach before you come back.");
    else if (moment.lanes?.[0]?.on) put("what", moment.lanes[0].does === "work" ? "you work" : "you rest");
    else if (done) this.says(`done ${done}`, moment.cap ? "Easy until the others are in." : "");
    const taps = at("taps");
    const buttons = out || this.view.phase !== "on" ? [] : tapButtons(this.view, { ...moment, counts: false }, this.groups).filter((one) => !one.disabled);
    const shown = undo && !out ? [...buttons, takesBack(undo.said)] : buttons;
    taps?.replaceChildren(...shown);
    taps?.toggleAttribute("hidden", !shown.length);
    this.asksFelt(false);
  }

  /** Their group, as it is by now. */
  who() {
    const letter = this.view.mine?.group;
    const shown = document.querySelector(".me .patch");
    if (letter && shown && shown.textContent !== letter) shown.replaceWith(patch(letter, "fill"));
  }

  /** @param {string} what @param {string} where */
  says(what, where) {
    put("what", what);
    put("where", where);
    this.announce(`${what}. ${where}`);
  }

  /** How hard it was is asked once the class is over, or they have stopped. @param {boolean} over */
  asksFelt(over) {
    const { out, felt } = this.view.mine ?? {};
    at("felt")?.toggleAttribute("hidden", !over && !out);
    for (const one of /** @type {NodeListOf<HTMLElement>} */ (document.querySelectorAll("[data-felt]"))) {
      one.setAttribute("aria-pressed", String(Number(one.dataset.felt) === felt));
    }
  }

  /** @param {Moment} moment @param {number} nth @param {boolean} resting */
  where(moment, nth, resting) {
    const shown = shownAt(this.view, nth);
    const before = works(moment.kind) ? null : moment;
    if (resting && shown.coming && before?.moves_on) return "go to your next station";
    const effort = moment.effort ? `effort ${moment.effort} of 10` : "";
    const hint = wordOf(moment) === moment.says ? "" : moment.says;
    const said = moment.says.startsWith("rest,") && shown.coming && this.view.moments.slice(nth + 1).some((one) => works(one.kind)) ? "" : hint;
    const limits = moment.shape === "gate" && moment.up ? limitsOf(moment) : "";
    return [moment.where, said, limits, moment.rest, effort].filter(Boolean).join("\n");
  }

  /** What comes then; in a rest it stands large, and isn't said again. @param {Moment} moment @param {number} nth @param {boolean} ready */
  after(moment, nth, ready) {
    if (ready) {
      const first = this.view.moments.find((one) => one.kind !== "count");
      return first ? `first: ${this.called(first)}` : "";
    }
    if (moment.resting && moment.next !== null) return "";
    const said = this.coming(moment);
    if (said) return `then ${said}`;
    return moment.last && !this.view.moments.slice(nth + 1).some((one) => one.kind === "work") ? "the last one" : "";
  }

  /** A pause with its seconds, and the work behind it where that is few words. @param {Moment} moment */
  coming(moment) {
    const rows = moment.next === null ? [] : (this.view.rows[moment.next] ?? []);
    const tasks = rows.length === 1 ? rows[0].what : [];
    const work = tasks.length && tasks.length <= FEW ? tasks.map(saidOf).join(" + ") : "";
    return [moment.first, work || (rows.length && !moment.first ? (moment.moves_on ? "next station" : "the stations") : "")].filter(Boolean).join(", then ");
  }

  /** What a moment is called ahead of it: its task where all do the same, else its word. @param {Moment} moment */
  called(moment) {
    const rows = this.view.rows[moment.rows] ?? [];
    const tasks = rows.length === 1 ? rows[0].what : [];
    if (moment.kind === "work" && tasks.length && tasks.length <= FEW) return tasks.map(saidOf).join(" + ");
    return moment.where && moment.shape === "race" ? moment.where : wordOf(moment);
  }

  /** The beat in step with the click. @param {Moment} moment @param {number} now */
  pulse(moment, now) {
    const box = at("pulse");
    if (!box) return;
    box.hidden = !moment.beat;
    if (!moment.beat) return;
    const every = 60_000 / moment.beat;
    box.replaceChildren(made("i"), made("span", `${moment.beat}`));
    box.style.setProperty("--beat", `${every}ms`);
    box.style.setProperty("--since", `${-((now - moment.began) % every)}ms`);
  }

  /** A change of phase, said once to who listens with a screen reader. @param {string} text */
  announce(text) {
    if (text === this.announced) return;
    this.announced = text;
    put("announce", text);
  }

  /** When the class will end, by the wall clock; while nothing runs it moves on. @param {number} now */
  endsAt(now) {
    const stands = this.view.phase === "on" ? 0 : now - standing(this.view, now);
    return this.minuteOfDay(this.view.ends_ms + stands);
  }

  /** The nearest minute: when a class ends, must end or would end is told alike. @param {number} ms */
  minuteOfDay(ms) {
    return this.timeOfDay(Math.round(ms / 60_000) * 60_000);
  }

  /** @param {number} ms */
  timeOfDay(ms) {
    return new Date(ms).toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit", timeZone: this.zone });
  }

  over() {
    const key = `over ${this.view.now_ms}`;
    if (this.drawn === key) return;
    this.drawn = key;
    this.root.dataset.now = "rest";
    this.root.dataset.shape = "plain";
    put("time", "0:00");
    const never = this.view.phase === "ready";
    put("what", never ? "ready" : "done");
    this.announce(never ? "There is nothing on the clock." : "The class is over.");
    put("where", never ? "There is nothing on the clock of this session." : "Walk, breathe, drink.");
    for (const id of ["after", "ends"]) put(id, "");
    for (const id of ["stands", "lanes"]) at(id)?.replaceChildren();
    for (const id of ["pulse", "turnbar"]) at(id)?.toggleAttribute("hidden", true);
    this.coach?.over();
    if (!this.hand) return;
    put("box", "");
    at("taps")?.toggleAttribute("hidden", true);
    this.asksFelt(!never);
  }

  /** Whether an end can still be taken back. */
  mayGoOn() {
    return this.view.phase === "over" && this.view.may_go_on === true && this.now() - (this.view.over_ms ?? 0) < GO_ON_MS;
  }

  listen() {
    /** @type {Record<string, (data: string) => void>} */
    const hears = {
      state: (data) => this.answered(JSON.parse(data)),
      hearts: (data) => {
        const box = at("hearts");
        if (!box) return;
        box.innerHTML = data;
        this.root.classList.toggle("no-hearts", !box.querySelector("ellipse.bead")); // who is where takes their place
        const called = box.querySelector(".calls")?.textContent ?? "";
        if (called && called !== this.toldOfHearts) put("announce", called);
        this.toldOfHearts = called;
      },
      walls: (data) => this.coach?.walls(Number(data)),
      trouble: (data) => { // of the house itself: the class goes on
        this.stillAway = data;
        this.tell("");
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
      // the link that this page came by was ended: asked again, the server says so
      ended: () => { if (this.base) location.reload(); },
    };
    if (this.base) alone("", hears, `${this.base}/stream`);
    else listenOn(`${this.coach ? "coach" : "wall"}-${this.id}`, hears);
    document.addEventListener("keydown", (event) => {
      if (typing(event.target) || presses(event) || event.ctrlKey || event.metaKey || event.altKey || document.querySelector("dialog[open]")) return;
      const sound = event.key === "b";
      const does = sound ? "sound" : this.coach?.keyed(event.key);
      if (!does) return;
      event.preventDefault();
      if (!event.repeat) this.press(does);
    });
    this.root.addEventListener("click", (event) => {
      const button = /** @type {Element} */ (event.target).closest("[data-do=sound], [data-do=full]");
      if (button instanceof HTMLElement && !this.coach) this.press(button.dataset.do ?? "");
    });
  }

  /** What somebody presses for themselves. */
  inHand() {
    this.root.addEventListener("click", (event) => {
      const button = /** @type {Element} */ (event.target).closest("button");
      if (button?.dataset.tap) this.send({ kind: /** @type {import("./events.js").EventKind} */ (button.dataset.tap) });
      if (button?.dataset.do === "take-back" && this.view.mine?.undo) this.send({ kind: "undo", of: this.view.mine.undo.of });
      if (button?.dataset.felt) this.send({ kind: "felt", value: Number(button.dataset.felt) });
    });
  }

  /** @param {string} what */
  press(what) {
    if (what === "sound") {
      remember(this.soundKey, this.sound.toggle());
      this.showSound();
    } else if (what === "full") {
      if (document.fullscreenElement) document.exitFullscreen();
      else document.documentElement.requestFullscreen?.();
      awake();
    } else this.coach?.press(what);
  }

  /** A screen that sounded before it was opened anew does so again; a browser lets it once a hand has touched the page. */
  sounds() {
    if (remembered(this.soundKey)) {
      this.sound.on = true;
      this.sound.wake();
    }
    for (const touch of ["pointerdown", "keydown"]) {
      document.addEventListener(touch, () => { if (this.sound.on && !this.sound.heard) this.sound.wake(); }, { capture: true });
    }
    this.sound.changed = () => this.showSound();
    setTimeout(() => this.showSound(), 400); // by then a browser that lets it sound does
  }

  /** Whether this screen can be heard, on its button and at the foot. */
  showSound() {
    const { on, heard } = this.sound;
    for (const button of document.querySelectorAll("[data-do=sound]")) {
      button.setAttribute("aria-pressed", String(heard));
      button.toggleAttribute("data-waits", on && !heard);
    }
    this.silent = on && !heard ? "This screen can’t be heard yet: press anything on it once." : "";
    this.tell("");
  }

  /** What is said at the foot: of presses that wait, else of a server that is away. @param {string} said */
  tell(said) {
    put("said", said || this.stillAway || this.silent);
    this.lay();
  }

  /** @param {View} view */
  answered(view) {
    if (view.now_ms < this.server.now_ms) return;
    this.server = joined(view, this.server);
    this.lay();
  }

  /** The server's view with the presses that it has not yet answered laid on it. */
  lay() {
    const before = this.view;
    this.view = laidOn(this.server, this.presses?.waiting ?? []);
    if (this.view.phase !== "on" && before.phase === "on") this.sound.quiet();
    this.drawn = "";
    this.shown?.draw(this.view.shown);
    this.tick();
  }

  /** Something happened: it shows at once, and is sent until the server has it.
   * @param {Sent} event @param {(refused: string) => void} [answered] */
  send(event, answered) {
    const now = Math.round(this.now());
    const place = momentAt(this.view, now)?.place;
    const by = this.coach ? me() : "";
    this.presses.add({ ...event, ...(place ? { place } : {}), ...(by ? { by } : {}), at_ms: now }, answered);
    this.lay();
  }
}

/** A press that takes back one's own tap. @param {string} said */
function takesBack(said) {
  const button = made("button", `Take back ${said}`, "press");
  Object.assign(button, { type: "button" });
  button.dataset.do = "take-back";
  return button;
}

/** The word of a moment, read from the last row: what it says where that is short, else its kind. @param {Moment} moment */
const wordOf = (moment) => (moment.says.length <= LONGEST ? moment.says : moment.kind);

/** Between which seconds a heart may let people go. @param {Moment} moment */
function limitsOf(moment) {
  return [moment.least ? `at least ${clock(moment.least)}` : "", moment.cap ? `at most ${clock(moment.cap)}` : ""].filter(Boolean).join(", ");
}

/** Whether something was on in this browser. @param {string} key */
function remembered(key) {
  try {
    return localStorage.getItem(key) === "on";
  } catch {
    return false;
  }
}

/** @param {string} key @param {boolean} on */
function remember(key, on) {
  try {
    localStorage.setItem(key, on ? "on" : "off");
  } catch {
    // a browser that keeps nothing asks again
  }
}

/** Keep the screen from sleeping, where the browser can. */
async function awake() {
  try {
    await navigator.wakeLock?.request("screen");
  } catch {
    // a screen that sleeps comes back by itself
  }
}

const root = at("run");
if (root) {
  Object.assign(window, { run: new Run(root) });
  awake();
  document.addEventListener("visibilitychange", () => { if (document.visibilityState === "visible") awake(); });
}

export { Run };
