// Our scripts where they can be asked without a page: clocks, sound cues planned, differences, blocks as text.
import assert from "node:assert/strict";
import { test } from "node:test";
import { clock, readClock } from "../../src/lovrit/web/static/scripts/hands.js";
import { Sound } from "../../src/lovrit/web/static/scripts/sound.js";
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

/** An audio clock that writes down what was planned on it. */
class Heard {
  constructor() {
    this.currentTime = 100;
    this.destination = {};
    this.starts = [];
  }

  createOscillator() {
    return { frequency: {}, connect: (to) => to, start: (at) => this.starts.push(at), stop() {} };
  }

  createGain() {
    return { gain: { setValueAtTime() {}, exponentialRampToValueAtTime() {} }, connect: (to) => to };
  }
}

test("cues are planned ahead on the audio clock, each once, however late the page looks", () => {
  const sound = new Sound({ go: [[0, 0.7, 880]], click: [[0, 0.02, 1500]], count: [[0, 0.12, 660]] });
  sound.on = true;
  sound.context = new Heard();
  const cues = [[10_000, "go", "swing"], [10_400, "click", null], [10_900, "click", null], [13_000, "count", "3"]];
  let now = 9000;
  for (const busy of [0, 40, 220, 5, 140]) {
    now += busy;
    sound.context.currentTime = 100 + (now - 9000) / 1000;
    sound.plan(cues, now);
  }
  const starts = sound.context.starts.map((at) => Math.round(at * 1000));
  assert.deepEqual(starts, [101_000, 101_400, 101_900]); // what is 4 s away is not planned yet
  sound.quiet();
  assert.equal(sound.planned.size, 0);
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
