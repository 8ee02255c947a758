// A session of one person alone, step after step, by the phone's own clock: nothing here needs a network or a page.
import { clock } from "./hands.js";

/**
 * @typedef {{block: number, phase: string, says: string, what: string[], next: string[], where: string,
 *   ends: "clock" | "tap", seconds: number, cap_s: number | null, share: number | null, effort: number | null,
 *   counts: boolean, place: string, of: string, next_of: string}} Step
 * @typedef {{at: number, began: number, heldAt: number | null, blockBegan: number, laps: [number, string, number][],
 *   rounds: Record<string, number>, started: number, whole: boolean, over: number | null}} Place
 */

const NOWHERE = { at: -1, began: 0, heldAt: null, blockBegan: 0, laps: [], rounds: {}, started: 0, whole: true, over: null };
const BACK_GRACE_MS = 3000; // within the first seconds of a step, back goes to the one before

export class Alone {
  /** @param {Step[]} steps @param {Partial<Place>} kept where it was, over a reload */
  constructor(steps, kept = {}) {
    this.steps = steps;
    /** @type {Place} */
    this.is = { ...structuredClone(NOWHERE), ...kept };
  }

  /** @returns {Step | undefined} */
  get step() {
    return this.is.over === null ? this.steps[this.is.at] : undefined;
  }

  /** @returns {"before" | "on" | "held" | "over"} */
  get phase() {
    if (this.is.over !== null) return "over";
    if (this.is.at < 0) return "before";
    return this.is.heldAt === null ? "on" : "held";
  }

  /** @param {number} now ms */
  start(now) {
    if (this.is.at >= 0) return;
    this.is.started = now;
    this.enter(0, now);
  }

  /** @param {number} at @param {number} now */
  enter(at, now) {
    const before = this.steps[this.is.at];
    this.is.at = at;
    this.is.began = now;
    const step = this.steps[at];
    if (!step) this.is.over = now;
    else if (!before || before.block !== step.block) this.is.blockBegan = now;
  }

  /** How long the step that is on lasts, in ms; null where only a tap ends it. */
  get lengthMs() {
    const step = this.step;
    if (!step) return null;
    const cap = this.capMs;
    const own = step.ends === "tap" ? null : 1000 * (step.share ? step.share * this.lastWorkS : step.seconds);
    if (own === null) return cap;
    return cap === null ? own : Math.min(own, cap);
  }

  /** What is left of a block's cap when its step began, in ms; null where it has none. */
  get capMs() {
    const first = this.steps.find((one) => one.block === this.step?.block);
    return first?.cap_s == null ? null : 1000 * first.cap_s - (this.is.began - this.is.blockBegan);
  }

  get lastWorkS() {
    const works = this.is.laps.filter(([, phase]) => phase === "work");
    return works.at(-1)?.[2] ?? 0;
  }

  /** Seconds into the step that is on. @param {number} now */
  intoS(now) {
    return Math.max(0, (this.is.heldAt ?? now) - this.is.began) / 1000;
  }

  /** Seconds that its clock leaves it; null where it counts up. @param {number} now */
  leftS(now) {
    const length = this.lengthMs;
    return this.step?.ends === "tap" || length === null ? null : Math.max(0, length / 1000 - this.intoS(now));
  }

  /** Time goes on: what its clock has ended is over, at its own moment. @param {number} now */
  look(now) {
    while (this.phase === "on") {
      const length = this.lengthMs;
      if (length === null || this.is.began + length > now) return;
      const ends = this.is.began + length;
      this.lap(ends);
      this.enter(this.capped(ends) ? this.nextBlock : this.is.at + 1, ends);
    }
  }

  /** @param {number} now */
  capped(now) {
    const first = this.steps.find((one) => one.block === this.step?.block);
    return first?.cap_s != null && now - this.is.blockBegan >= 1000 * first.cap_s - 1;
  }

  get nextBlock() {
    const here = this.step?.block;
    const at = this.steps.findIndex((one, nth) => nth > this.is.at && one.block !== here);
    return at < 0 ? this.steps.length : at;
  }

  /** @param {number} now */
  lap(now) {
    const step = this.step;
    if (step) this.is.laps.push([step.block, step.phase, Math.round((now - this.is.began) / 100) / 10]);
  }

  /** In, or done: what a tap ends is over. Where rounds are counted, one more. @param {number} now */
  tap(now) {
    this.look(now);
    const step = this.step;
    if (!step || this.phase !== "on") return;
    if (step.counts) this.is.rounds[step.block] = (this.is.rounds[step.block] ?? 0) + 1;
    else if (step.ends === "tap") this.go(now);
  }

  /** The next step now, whatever its clock says. @param {number} now */
  go(now) {
    this.look(now);
    if (!this.step) return;
    this.goOn(now);
    this.lap(now);
    this.enter(this.is.at + 1, now);
  }

  /** This step once more; within its first seconds the one before. @param {number} now */
  back(now) {
    if (!this.step) return;
    this.goOn(now);
    const near = now - this.is.began < BACK_GRACE_MS && this.is.at > 0;
    if (near) this.is.laps.pop();
    this.enter(this.is.at - (near ? 1 : 0), now);
  }

  /** @param {number} now */
  hold(now) {
    this.look(now);
    if (this.phase === "on") this.is.heldAt = now;
    else this.goOn(now);
  }

  /** @param {number} now */
  goOn(now) {
    if (this.is.heldAt === null) return;
    const away = now - this.is.heldAt;
    this.is.began += away;
    this.is.blockBegan += away;
    this.is.started += away;
    this.is.heldAt = null;
  }

  /** @param {number} now */
  end(now) {
    this.look(now);
    if (!this.step) return;
    this.goOn(now);
    this.lap(now);
    this.is.over = now;
    this.is.whole = false;
  }

  /** Works of the block that is on, or of another, that a tap ended: seconds each. @param {number | undefined} block */
  splits(block = this.step?.block) {
    const tapped = this.steps.some((one) => one.block === block && one.ends === "tap");
    return tapped ? this.is.laps.filter(([at, phase]) => at === block && phase === "work").map(([, , seconds]) => seconds) : [];
  }

  /** What a block's score is by what was tapped, as it is written; empty where nothing was. @param {number} block */
  scoreOf(block) {
    const rounds = this.is.rounds[block];
    if (rounds) return `${rounds} + 0`;
    const splits = this.splits(block);
    return splits.length ? clock(Math.round(Math.max(...splits))) : "";
  }
}

/** Splits in words: the last, the slowest, whether they are even. @param {number[]} splits seconds */
export function splitsSaid(splits) {
  if (!splits.length) return "";
  const slowest = Math.max(...splits);
  const spread = slowest - Math.min(...splits);
  const even = splits.length > 1 ? `, ${spread <= 0.04 * slowest ? "even" : `${clock(Math.round(spread))} apart`}` : "";
  return `${splits.length}: ${clock(Math.round(splits.at(-1) ?? 0))}, slowest ${clock(Math.round(slowest))}${even}`;
}

/** What is to sound within a step: [ms, kind, what is said]. @param {Alone} alone @param {number} now */
export function cuesOf(alone, now) {
  const step = alone.step;
  const left = alone.leftS(now);
  if (!step || left === null || alone.phase !== "on") return [];
  const ends = now + 1000 * left;
  const after = alone.steps[alone.is.at + 1];
  const working = after && after.phase !== "rest" && after.phase !== "break" && after.phase !== "change";
  /** @type {[number, string, string | null][]} */
  const cues = [3, 2, 1].map((nth) => [ends - 1000 * nth, working ? "count" : "last", null]);
  if (step.seconds > 25) cues.push([ends - 10_000, "ten", working ? `${after.what.join(", ")} in ten` : "ten more"]);
  cues.push([ends, after ? (working ? "go" : "rest") : "end", after ? (working ? after.what.join(", ") : "rest") : "done"]);
  return cues;
}
