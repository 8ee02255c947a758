// The fold, as a screen needs it until the server has answered: the same rules as core/run/state.py, held to it by
// vectors made from the Python fold (tests/core/run/test_vectors.py).

/**
 * @typedef {{phase: string, interval: number, place_ms: number, since_ms: number, lengths_ms: number[],
 *   started_ms: number | null, over_ms: number | null, ended_from: string | null, now_ms?: number,
 *   stopped?: number[], marks?: number}} State
 * @typedef {{id: string, kind: string, at_ms: number, place?: number, seconds?: number, person?: number}} Press
 */

export const COUNT_IN_MS = 5000;
export const COUNT_IN = -1;
export const GO_ON_MS = 60_000;
const BACK_GRACE_MS = 3000;
const APART_MS = 1500;
const TEN_MORE_S = 10;
const PLACED = new Set(["next", "back", "longer"]);

/** Where a class is, as a press says it: its interval, or COUNT_IN. @param {State} state */
export function placeOf(state) {
  return (state.phase === "on" || state.phase === "held") && state.place_ms < 0 ? COUNT_IN : state.interval;
}

/** The state at a later moment with nothing else happening. @param {State} state @param {number} now @returns {State} */
export function advance(state, now) {
  if (state.phase !== "on" || now <= state.since_ms) return state;
  let { interval, place_ms: place, since_ms: since } = state;
  while (interval < state.lengths_ms.length) {
    const ends = since + state.lengths_ms[interval] - place;
    if (ends > now) return { ...state, interval, place_ms: place + now - since, since_ms: now };
    interval += 1;
    place = 0;
    since = ends;
  }
  return { ...state, phase: "over", interval, place_ms: 0, since_ms: since, over_ms: since };
}

/** The state after one more press, counted from its own moment. @param {State} state @param {Press} press @returns {State} */
export function take(state, press) {
  const at = Math.max(press.at_ms, state.since_ms);
  const here = arrived(advance(state, at), press, at);
  if (here.phase === "over" && press.kind !== "goes-on") return here;
  if (PLACED.has(press.kind) && press.place !== undefined && press.place !== placeOf(here)) return here;
  const does = HAPPENINGS[press.kind];
  return does ? does(here, at, press) : here;
}

/** A screen whose clock is a little ahead pressed in the interval that is just about to begin: it begins now.
 * @param {State} state @param {Press} press @param {number} at @returns {State} */
function arrived(state, press, at) {
  if (state.phase !== "on" || !PLACED.has(press.kind) || press.place !== placeOf(state) + 1) return state;
  const left = state.place_ms >= 0 ? state.lengths_ms[state.interval] - state.place_ms : -state.place_ms;
  return left > APART_MS ? state : jump(state, Math.max(0, press.place ?? 0), at);
}

/** @param {State} state @param {number} to @param {number} at @returns {State} */
function jump(state, to, at) {
  if (to >= state.lengths_ms.length) return over(state, at, null);
  const countedIn = state.place_ms < 0 && state.interval === 0;
  return { ...state, interval: to, place_ms: 0, since_ms: at, started_ms: countedIn ? at : state.started_ms };
}

/** @param {State} state @param {number} at @param {string | null} from @returns {State} */
function over(state, at, from) {
  return { ...state, phase: "over", over_ms: at, since_ms: at, ended_from: from };
}

/** @param {State} state */
const going = (state) => state.phase === "on" || state.phase === "held";

/** @type {Record<string, (state: State, at: number, press: Press) => State>} */
const HAPPENINGS = {
  start: (state, at) => (state.phase !== "ready" || !state.lengths_ms.length ? state
    : { ...state, phase: "on", place_ms: -COUNT_IN_MS, since_ms: at, started_ms: at + COUNT_IN_MS }),
  hold: (state, at) => (state.phase === "on" ? { ...state, phase: "held", since_ms: at } : state),
  resume: (state, at) => (state.phase === "held" ? { ...state, phase: "on", since_ms: at } : state),
  next: (state, at) => (going(state) ? jump(state, state.interval + (state.place_ms < 0 ? 0 : 1), at) : state),
  back: (state, at) => (going(state) ? jump(state, Math.max(0, state.interval - (state.place_ms <= BACK_GRACE_MS ? 1 : 0)), at) : state),
  longer: (state, at, press) => {
    const seconds = press.seconds ?? TEN_MORE_S;
    if (!going(state) || !seconds) return state;
    const lengths = [...state.lengths_ms];
    lengths[state.interval] = Math.max(lengths[state.interval] + seconds * 1000, state.place_ms, 0);
    return { ...state, lengths_ms: lengths, since_ms: Math.max(at, state.since_ms) };
  },
  end: (state, at) => over(state, at, going(state) ? state.phase : null),
  "goes-on": (state, at) => (state.phase !== "over" || !state.ended_from || at - state.since_ms > GO_ON_MS ? state
    : { ...state, phase: state.ended_from, over_ms: null, since_ms: at, ended_from: null }),
};
