// What a class shows from now on, as the server foretold it: a list of moments that a screen walks through by its
// clock. The rules are the server's; here a press only moves the list until the server has answered, and both are held
// to each other by vectors (tests/core/run/test_vectors.py).

import { PLACED } from "./events.js";

/** @typedef {import("./events.js").Press} Press */
/**
 * @typedef {{does: string, reps?: string, side?: string, notes?: string, part?: string, parts?: string[], label?: string, opens?: boolean, climbs?: boolean, station?: string}} What
 * @typedef {{nth: number, station: string, who: string, groups: string[], then: string[], what: What[]}} Row
 * @typedef {{lane: string, said: string, group: string, does: string, since: number, ends: number | null, takes: string, nth: number, on: string, changes: boolean}} Lane
 * @typedef {[number, string, string | null]} Cue when in ms, its kind, what is said
 * @typedef {{at: number, kind: string, place: string, block: number | null, says: string, shape: string, where: string,
 *   effort: string | null, up: boolean, zero: number, began: number, least: number | null, cap: number | null, beat: number | null,
 *   usual: number | null, moves_on: boolean, last: boolean, counts: boolean, rows: number, next: number | null, resting: boolean, first: string, rest: string,
 *   rungs: Record<string, string>, cues: Cue[], lanes?: Lane[], box?: string}} Moment
 * @typedef {{now_ms: number, phase: string, moments: Moment[], rows: Row[][], whole: boolean, groups: string[], total_s: number, ends_ms: number,
 *   over_ms: number | null, rounds: Record<string, Record<string, number>>, shown?: {what: string, text: string}, names?: Record<string, string[]>, stood?: number, due_ms?: number | null, late_s?: number, early_s?: number,
 *   ways?: {way: string, text: string, ends_ms: number}[], undo?: {of: string, said: string, by: string} | null,
 *   mine?: {group: string, out: boolean, done: string, undo: {of: string, said: string} | null, felt: number | null}, in_group?: Record<string, string>,
 *   stopped?: number[], marks?: number, may_go_on?: boolean, instead?: Record<string, string>, heard?: string[]}} View
 */

const WORKS = new Set(["work", "steady", "lead-in"]);

/** The moment on which a screen's time stands: a class that is ready or held stands still. @param {View} view @param {number} now */
export function standing(view, now) {
  return view.phase === "on" ? now : (view.stood ?? view.now_ms);
}

/** Which of the moments a time is in. @param {View} view @param {number} now @returns {number} -1 where nothing is foretold */
export function nthAt(view, now) {
  const at = standing(view, now);
  const later = view.moments.findIndex((one) => one.at > at + 1);
  return later < 0 ? view.moments.length - 1 : Math.max(0, later - 1);
}

/** The moment that a class is in; undefined once it is over or where nothing is foretold.
 * @param {View} view @param {number} now @returns {Moment | undefined} */
export function momentAt(view, now) {
  if (view.phase === "over") return undefined;
  const one = view.moments[nthAt(view, now)];
  return one?.kind === "over" ? undefined : one;
}

/** The cues of what goes on and of all that begins within a while: a block's "go" is known before its time.
 * @param {View} view @param {number} now @param {number} ahead ms @returns {Cue[]} */
export function cuesAhead(view, now, ahead) {
  const from = nthAt(view, now);
  const later = standing(view, now) + ahead;
  return view.moments.filter((one, nth) => nth === from || (nth > from && one.at <= later)).flatMap((one) => one.cues);
}

/** Seconds that its clock reads: since it began where it counts up, to its end where it counts down.
 * @param {View} view @param {Moment} moment @param {number} now */
export function reading(view, moment, now) {
  const at = standing(view, now);
  return Math.max(0, (moment.up ? at - moment.zero : moment.zero - at) / 1000);
}

/** The next work after a moment, for a rest to say where to go. @param {View} view @param {number} nth @returns {Moment | undefined} */
export function comingWork(view, nth) {
  return view.moments.slice(nth + 1).find((one) => WORKS.has(one.kind));
}

/** @param {string} kind */
export const works = (kind) => WORKS.has(kind);

/** A view that tells only of what is near, with what an earlier one told of later: as far as both agree where they meet.
 * @param {View} view @param {View} before @returns {View} */
export function joined(view, before) {
  const last = view.moments[view.moments.length - 1];
  if (view.whole || !last || !before) return view;
  const meets = before.moments.findIndex((one) => one.place === last.place && one.kind === last.kind && Math.abs(one.zero - last.zero) < 5);
  if (meets < 0 || Math.abs(before.moments[meets].at - last.at) > 5) return view;
  const rows = [...view.rows];
  /** @type {Map<number, number>} */
  const taken = new Map();
  const take = (/** @type {number} */ at) => {
    if (!taken.has(at)) taken.set(at, rows.push(before.rows[at]) - 1);
    return taken.get(at) ?? 0;
  };
  const later = before.moments.slice(meets + 1).map((one) => ({ ...one, rows: take(one.rows), next: one.next === null ? null : take(one.next) }));
  return { ...view, moments: [...view.moments, ...later], rows, whole: before.whole };
}

/** @param {Moment} one @param {number} by ms @returns {Moment} */
function shifted(one, by) {
  const lanes = one.lanes?.map((lane) => ({ ...lane, since: lane.since + by, ends: lane.ends === null ? null : lane.ends + by }));
  return {
    ...one, at: one.at + by, zero: one.zero + by, began: one.began + by, usual: one.usual === null ? null : one.usual + by,
    cues: one.cues.map(([at, kind, say]) => [at + by, kind, say]), ...(lanes ? { lanes } : {}),
  };
}

/** @param {View} view @param {number} by ms @param {number} [from] @returns {View} */
function moved(view, by, from = 0) {
  const moments = view.moments.map((one, nth) => (nth < from ? one : shifted(one, by)));
  return { ...view, moments, ends_ms: view.ends_ms + by };
}

/** The view with a press laid on it that the server has not yet answered. What it can't know it leaves as it is.
 * @param {View} view @param {Press} press @returns {View} */
export function lay(view, press) {
  const place = momentAt(view, press.at_ms)?.place;
  if (PLACED.has(press.kind) && press.place !== undefined && press.place !== place) return view;
  return HAPPENINGS[press.kind]?.(view, press.at_ms, press) ?? view;
}

/** The server's view with the presses laid on it that it has not heard: a stream may tell of a press before its own answer
 * does. @param {View} view @param {Press[]} waiting @returns {View} */
export function laidOn(view, waiting) {
  return waiting.filter((one) => !view.heard?.includes(one.id)).reduce(lay, view);
}

/** @type {Record<string, (view: View, at: number, press: Press) => View>} */
const HAPPENINGS = {
  start: (view, at) => (view.phase !== "ready" || !view.moments.length ? view : { ...moved(view, at - view.now_ms), phase: "on" }),
  hold: (view, at) => (view.phase === "on" && momentAt(view, at) ? { ...view, phase: "held", stood: at } : view),
  resume: (view, at) => (view.phase === "held" ? { ...moved(view, at - standing(view, at)), phase: "on", stood: undefined } : view),
  next: (view, at) => {
    const nth = nthAt(view, at);
    const here = view.moments[nth];
    const to = view.moments.findIndex((one, other) => other > nth && one.place !== here?.place);
    if (!["on", "held"].includes(view.phase) || to < 0 || here.lanes) return view;
    const gone = moved(view, standing(view, at) - view.moments[to].at, to);
    return { ...gone, moments: gone.moments.slice(to) };
  },
  longer: (view, at, press) => {
    const nth = nthAt(view, at);
    const here = view.moments[nth];
    if (!["on", "held"].includes(view.phase) || !here || here.up || here.lanes || press.every) return view;
    const border = view.phase === "held" ? 2 : 0; // a class that stands goes over none
    const by = Math.max((press.seconds ?? 10) * 1000, standing(view, at) - here.zero + border);
    const last = view.moments.findLastIndex((one) => one.place === here.place);
    const later = moved(view, by, last + 1);
    const longer = later.moments.map((one) => (one.place === here.place ? { ...one, zero: one.zero + by } : one));
    return { ...later, moments: longer };
  },
  end: (view, at) => (["on", "held"].includes(view.phase) ? { ...view, phase: "over", over_ms: at } : view),
};
