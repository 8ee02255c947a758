// On my own: a phone that runs a session alone. Once it is open it needs no network; what was done is sent when there is one.
import { Alone, cuesOf, splitsSaid } from "./alone.js";
import { clock, freshId } from "./hands.js";
import { forget, recall, remember } from "./kept.js";
import { Outbox } from "./outbox.js";
import { Sound } from "./sound.js";

/** @typedef {import("./alone.js").Step} Step */

const DRAW_MS = 100;
const AGAIN_MS = 15_000;

/** @param {string} id */
const at = (id) => /** @type {HTMLElement} */ (document.getElementById(id));
/** @param {string} id */
const told = (id) => JSON.parse(at(id)?.textContent ?? "null");

class Own {
  /** @param {HTMLElement} root */
  constructor(root) {
    this.root = root;
    this.kept = `lovrit-own-${root.dataset.base}-${root.dataset.session}-${root.dataset.home}`;
    this.outbox = new Outbox(root.dataset.base ?? "");
    /** @type {Step[]} */
    const steps = told("steps");
    const before = recall(this.kept);
    this.key = before?.key ?? freshId();
    this.alone = new Alone(steps, before?.is ?? {});
    this.sound = new Sound(told("tones"));
    /** @type {number | null} */
    this.felt = null;
    this.drawn = "";
    this.listen();
    this.sayAllowed();
    window.setInterval(() => this.look(), DRAW_MS);
    window.setInterval(() => this.send(), AGAIN_MS);
    window.addEventListener("online", () => this.send());
    this.look();
    this.send();
  }

  /** What this browser doesn't allow here, plainly. */
  sayAllowed() {
    const lacks = [];
    if (!("wakeLock" in navigator)) lacks.push("keep the screen awake: set your phone to stay on");
    if (!("vibrate" in navigator)) lacks.push("vibrate");
    const why = window.isSecureContext ? "" : " At an address without https a browser allows less.";
    at("allowed").textContent = `Once this page is open it needs no network: leave it open.${lacks.length ? ` This browser can’t ${lacks.join(", nor ")}.${why}` : ""}`;
  }

  listen() {
    const well = /** @type {HTMLInputElement} */ (at("well"));
    const begin = /** @type {HTMLButtonElement} */ (at("begin"));
    const may = () => { begin.disabled = !well.checked || !this.alone.steps.length; };
    well.addEventListener("change", may);
    may(); // it may have been ticked before this page was ready
    begin.addEventListener("click", () => this.begin());
    at("own-tap").addEventListener("click", () => this.do((now) => this.alone.tap(now)));
    at("own-hold").addEventListener("click", () => this.do((now) => this.alone.hold(now)));
    at("own-back").addEventListener("click", () => this.do((now) => this.alone.back(now)));
    at("own-on").addEventListener("click", () => this.do((now) => this.alone.go(now)));
    at("leave").addEventListener("click", () => this.do((now) => this.alone.end(now)));
    at("own-voice").addEventListener("click", () => {
      this.sound.voice = !this.sound.voice;
      at("own-voice").setAttribute("aria-pressed", `${this.sound.voice}`);
    });
    // outdoors one tap anywhere is "in", but on a button
    at("going").addEventListener("click", (event) => {
      const free = !(/** @type {HTMLElement} */ (event.target).closest("button"));
      if (free && this.alone.step?.ends === "tap") this.do((now) => this.alone.tap(now));
    });
    for (const button of /** @type {NodeListOf<HTMLButtonElement>} */ (document.querySelectorAll("[data-felt]"))) {
      button.addEventListener("click", () => {
        this.felt = Number(button.dataset.felt);
        for (const other of document.querySelectorAll("[data-felt]")) other.setAttribute("aria-pressed", `${other === button}`);
      });
    }
    at("after").addEventListener("submit", (event) => {
      event.preventDefault();
      this.save();
    });
  }

  begin() {
    this.sound.toggle();
    awake();
    this.do((now) => this.alone.start(now));
    document.documentElement.requestFullscreen?.().catch(() => undefined);
  }

  /** @param {(now: number) => void} deed */
  do(deed) {
    const before = this.alone.is.at;
    deed(Date.now());
    if (this.alone.is.at !== before) navigator.vibrate?.(60);
    this.keep();
    this.look();
  }

  keep() {
    remember(this.kept, { key: this.key, is: this.alone.is });
  }

  look() {
    const now = Date.now();
    const before = this.alone.is.at;
    this.alone.look(now);
    if (this.alone.is.at !== before) {
      navigator.vibrate?.([120, 60, 120]);
      this.keep();
    }
    this.sound.plan(cuesOf(this.alone, now), now);
    this.draw(now);
  }

  /** @param {number} now */
  draw(now) {
    const { phase, step } = this.alone;
    this.root.dataset.phase = phase;
    at("before").hidden = phase !== "before";
    at("going").hidden = phase !== "on" && phase !== "held";
    at("after").hidden = phase !== "over";
    at("leave").hidden = phase !== "on" && phase !== "held";
    if (step) this.drawStep(step, now);
    else if (phase === "over" && this.drawn !== "over") this.drawOver();
  }

  /** @param {Step} step @param {number} now */
  drawStep(step, now) {
    const left = this.alone.leftS(now);
    at("own-time").textContent = left === null ? clock(Math.floor(this.alone.intoS(now))) : clock(Math.ceil(left - 0.001));
    at("own-hold").textContent = this.alone.phase === "held" ? "Go on" : "Hold";
    const rounds = this.alone.is.rounds[step.block] ?? 0;
    at("own-splits").textContent = splitsSaid(this.alone.splits());
    const tap = at("own-tap");
    tap.hidden = step.ends !== "tap" && !step.counts;
    tap.textContent = step.counts ? `+1 round · ${rounds}` : step.where.startsWith("repeat") ? "In" : "Done";
    const key = `${this.alone.is.at} ${this.alone.phase}`;
    if (this.drawn === key) return;
    this.drawn = key;
    const resting = step.phase === "rest" || step.phase === "break" || step.phase === "change";
    const effort = step.effort ? ` · effort ${step.effort}` : "";
    at("own-says").textContent = this.alone.phase === "held" ? "held" : `${step.says}${resting ? "" : effort}`;
    at("own-where").textContent = step.where.split(", usual people")[0];
    const what = resting ? step.next : step.what;
    at("own-what").replaceChildren(...what.map(item));
    at("own-what").dataset.many = `${Math.min(4, what.length)}`;
    const drawing = what.length === 1 ? drawingOf(resting ? step.next_of : step.of) : null;
    if (drawing) at("own-what").prepend(drawing);
    at("own-what").classList.toggle("coming", resting);
    at("own-next").textContent = !resting && step.next.length ? `then ${step.next.join(", ")}` : "";
    at("announce").textContent = `${step.says}: ${(resting ? step.next : step.what).join(", ")}`;
  }

  drawOver() {
    this.drawn = "over";
    const lasted = ((this.alone.is.over ?? 0) - this.alone.is.started) / 1000;
    at("after-said").textContent = `${clock(Math.round(lasted))}${this.alone.is.whole ? "" : ", not to the end"}.`;
    for (const field of /** @type {NodeListOf<HTMLInputElement>} */ (document.querySelectorAll("[data-score]"))) {
      field.value ||= this.alone.scoreOf(Number(field.dataset.score));
    }
    at("after-title").focus();
  }

  save() {
    const { is } = this.alone;
    const fields = /** @type {HTMLInputElement[]} */ ([...document.querySelectorAll("[data-score]")]);
    const done = {
      key: this.key,
      session: Number(this.root.dataset.session),
      home: Boolean(this.root.dataset.home),
      at_ms: is.started,
      lasted_s: Math.round(((is.over ?? is.started) - is.started) / 1000),
      whole: is.whole,
      felt: this.felt,
      word: /** @type {HTMLInputElement} */ (at("own-word")).value,
      scores: fields.filter((one) => one.value.trim()).map((one) => [Number(one.dataset.score), one.value.trim()]),
      laps: is.laps,
    };
    this.outbox.put(done);
    forget(this.kept);
    at("sent").textContent = "Kept on this phone; it is sent from here or from your own page as soon as there is a network.";
    this.send();
  }

  send() {
    return this.outbox.send((done, taken) => {
      if (done.key !== this.key) return;
      at("sent").textContent = taken ? "Saved as yours." : "It was not taken: this link has ended, or the session is gone.";
      at("to-mine").hidden = false;
    });
  }
}

/** @param {string} text */
function item(text) {
  return Object.assign(document.createElement("li"), { textContent: text });
}

/** How the one thing that is done looks. @param {string} name */
function drawingOf(name) {
  const kept = document.querySelector(`#drawings [data-station="${CSS.escape(name)}"]`);
  return kept?.firstElementChild?.cloneNode(true) ?? null;
}

async function awake() {
  try {
    await navigator.wakeLock?.request("screen");
  } catch {
    // a screen that sleeps comes back by itself
  }
}

const root = at("own");
if (root) {
  const own = new Own(root);
  Object.assign(window, { own });
  document.addEventListener("visibilitychange", () => {
    if (document.visibilityState === "visible" && own.alone.phase === "on") awake();
  });
}
