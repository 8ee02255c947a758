// Our scripts where they can be asked without a page: clocks, sound cues planned, differences, blocks as text.
import assert from "node:assert/strict";
import { test } from "node:test";
import { clock, readClock } from "../../src/lovrit/web/static/scripts/hands.js";
import { cuesAhead, laidOn, reading } from "../../src/lovrit/web/static/scripts/foretold.js";
import { AHEAD_MS, Sound } from "../../src/lovrit/web/static/scripts/sound.js";
import { textOf } from "../../src/lovrit/web/static/scripts/blocks.js";
import { difference } from "../../src/lovrit/web/static/scripts/slate.js";
import { Text } from "@codemirror/state";
import { keyOf } from "../../src/lovrit/web/static/scripts/deeds.js";
import { figureOf, held, stepOf } from "../../src/lovrit/web/static/scripts/figures.js";
import { nextSide, stationDeeds } from "../../src/lovrit/web/static/scripts/stations.js";
import { blockDeeds } from "../../src/lovrit/web/static/scripts/blocks.js";

test("times are m:ss and read back", () => {
  for (const seconds of [0, 5, 59, 60, 61, 599, 3599]) assert.equal(readClock(clock(seconds)), seconds);
  assert.equal(clock(3725), "1:02:05");
  assert.equal(readClock("45"), 45);
  assert.ok(Number.isNaN(readClock("soon")) && Number.isNaN(readClock("1:75")));
});

/** An audio clock that writes down what was planned on it and taken back; what it plays comes out 30 ms later, and its clock goes in steps. */
class Heard {
  constructor() {
    this.destination = {};
    this.starts = [];
    this.set(0);
  }

  /** @param {number} ms since its start */
  set(ms) {
    this.currentTime = 100 + 0.03 + Math.ceil(ms / 10) / 100;
    this.ms = ms;
  }

  getOutputTimestamp() {
    return { contextTime: 100 + this.ms / 1000, performanceTime: performance.now() };
  }

  createOscillator() {
    const { starts } = this;
    let from = 0;
    return {
      frequency: {},
      connect: (to) => to,
      start: (at) => {
        from = at;
        starts.push(at);
      },
      stop: (at) => at === undefined && starts.splice(starts.indexOf(from), 1),
    };
  }

  createGain() {
    return { gain: { setValueAtTime() {}, exponentialRampToValueAtTime() {} }, connect: (to) => to };
  }
}

const TONES = { go: [[0, 0.7, 880]], click: [[0, 0.02, 1500]], count: [[0, 0.12, 660]], rest: [[0, 0.22, 440]] };

/** @param {Sound} sound @param {number[]} looks ms, when the page finds time to look @param {(now: number) => any[]} cues */
function sounds(sound, looks, cues) {
  sound.on = true;
  for (const now of looks) {
    sound.context.set(now - 9000);
    sound.plan(cues(now), now);
  }
  return sound.context.starts.map((at) => Math.round((at - 100) * 1000) + 9000);
}

/** @returns {Sound} */
const heard = () => Object.assign(new Sound(TONES), { context: new Heard() });

test("cues are planned ahead on the clock of what comes out, each once, however late the page looks", () => {
  const cues = [[10_000, "go", "swing"], [10_400, "click", null], [10_900, "click", null], [13_000, "count", "3"]];
  const sound = heard();
  assert.deepEqual(sounds(sound, [9000, 9040, 9260, 9265, 9405], () => cues), [10_000, 10_400, 10_900]); // what is 4 s away is not planned yet
  sound.quiet();
  assert.deepEqual(sound.context.starts, []);
});

test("the go of what begins next is known before its time, and a page that is busy over its border loses nothing", () => {
  const moments = [
    { at: 5000, cues: [[9200, "click", null], [9900, "count", "1"]] },
    { at: 10_000, cues: [[10_000, "go", null], [10_300, "click", null]] },
    { at: 10_600, cues: [[10_600, "rest", null]] },
  ];
  const view = { phase: "on", moments };
  const ahead = (now) => cuesAhead(view, now, AHEAD_MS);
  assert.deepEqual(sounds(heard(), [9000, 9900, 10_250, 10_700], ahead), [9200, 9900, 10_000, 10_300, 10_600]);
});

test("a press that the server has already heard is not laid on its view a second time", () => {
  const moment = { at: 0, kind: "work", place: "0.0", up: false, zero: 18_000, began: 0, cues: [] };
  const view = { now_ms: 0, phase: "on", moments: [moment, { ...moment, kind: "over", place: "", at: 18_000 }], rows: [[]], ends_ms: 18_000 };
  const press = { id: "plus", kind: "longer", at_ms: 1000, place: "0.0" };
  const reads = (heard) => reading(laidOn({ ...view, heard }, [press]), laidOn({ ...view, heard }, [press]).moments[0], 0);
  assert.equal(reads(["start"]), 28);
  assert.equal(reads(["start", "plus"]), 18);
});

test("what is no longer to come is taken back, what the server says anew is not doubled, what is about to sound is left", () => {
  const later = { 9000: [[9500, "click", null], [10_000, "go", null]], 9480: [[9501, "click", null], [10_900, "go", null]] };
  assert.deepEqual(sounds(heard(), [9000, 9480, 9990], (now) => later[now] ?? []), [9500]); // and the go is gone again
  assert.deepEqual(sounds(heard(), [9000, 9480], (now) => later[now]), [9500, 10_900]); // held, ten more: one go, later
});

test("the smallest difference turns one text into the other", () => {
  const texts = ["", "rest 1:00", "rest 1:30", "warm-up 5:00\nrest 1:00", "rest 1:00\n# so", "aaa", "aa"];
  for (const before of texts) {
    for (const after of texts) {
      const changed = difference(before, after).apply(Text.of(before.split("\n"))).toString();
      assert.equal(changed, after);
    }
  }
});

test("changes of two hands meet in the same text", () => {
  const base = "warm-up 5:00\nrest 1:00\ncool-down 3:00";
  const mine = difference(base, base.replace("5:00", "6:00"));
  const theirs = difference(base, base.replace("3:00", "4:00"));
  const doc = Text.of(base.split("\n"));
  const one = theirs.map(mine).apply(mine.apply(doc)).toString();
  const two = mine.map(theirs, true).apply(theirs.apply(doc)).toString();
  assert.equal(one, two);
  assert.equal(one, base.replace("5:00", "6:00").replace("3:00", "4:00"));
});

test("blocks are carried with their lines and comments, in their order", () => {
  const text = "title: x\n\nwarm-up 5:00\n  laps\n\n3 rounds of 40/20  # mine\n  squat\n\nrest 1:00\n";
  const lines = [3, 6, 9];
  assert.equal(textOf(text, lines, [1]), "3 rounds of 40/20  # mine\n  squat");
  assert.equal(textOf(text, lines, [2, 0]), "warm-up 5:00\n  laps\n\nrest 1:00");
});

const pressed = (key, more = {}) => ({ key, altKey: false, ctrlKey: false, metaKey: false, ...more });

test("figures step by what they are and stay inside what they can be", () => {
  const rest = figureOf({ block: "1", figure: "rest", value: "20", timed: "1" });
  const effort = figureOf({ block: "1", figure: "effort", value: "8", timed: "0" });
  assert.deepEqual([stepOf(rest, false), stepOf(rest, true), stepOf(effort, false)], [5, 1, 0.5]);
  assert.deepEqual([held(rest, -10), held({ ...rest, figure: "work" }, 0), held(effort, 12), held(effort, 0)], [0, 5, 10, 1]);
  for (let value = -20; value < 200; value += 0.3) {
    assert.equal(held(effort, held(effort, value)), held(effort, value));
    assert.equal((held(effort, value) * 2) % 1, 0);
  }
});

test("sides go round, and no key means two deeds", () => {
  assert.deepEqual(["none", "each", "by-round", "?"].map(nextSide), ["each", "by-round", "none", "none"]);
  const picked = { or: (block) => [block], turn: () => {}, none: () => {} };
  for (const deeds of [stationDeeds(() => {}), blockDeeds(() => {}, { lines: () => [1, 4] }, picked)]) {
    const keys = deeds.flatMap((deed) => deed.keys);
    assert.equal(new Set(keys).size, keys.length);
    assert.ok(deeds.every((deed) => deed.said && deed.shown));
  }
  assert.equal(keyOf(pressed("ArrowUp", { altKey: true })), "Alt-ArrowUp");
  assert.equal(keyOf(pressed("d", { ctrlKey: true })), "");
});

test("a station does not leave its block, and blocks go out from the last to the first", () => {
  const sent = [];
  const send = (edit) => sent.push(edit);
  const station = { button: null, block: 2, move: 0, last: 2, name: "row", side: "none" };
  const deed = (deeds, key) => deeds.find((one) => one.keys.includes(key));
  deed(stationDeeds(send), "Alt-ArrowUp").run(station);
  assert.deepEqual(sent, []);
  deed(stationDeeds(send), "Alt-ArrowDown").run(station);
  assert.deepEqual(sent.pop(), { do: "station", block: 2, start: 0, to: 1 });
  const picked = { or: () => [0, 2, 1], turn: () => {}, none: () => {} };
  deed(blockDeeds(send, { lines: () => [1, 2, 3] }, picked), "Delete").run(1);
  assert.deepEqual(sent.map((edit) => edit.block), [2, 1, 0]);
});
