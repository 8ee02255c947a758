// A session alone by the phone's own clock: no time made or lost, whatever is tapped and however late the phone looks.
import assert from "node:assert/strict";
import { test } from "node:test";
import { Alone, cuesOf, splitsSaid } from "../../src/lovrit/web/static/scripts/alone.js";

const step = (more) => ({ block: 0, phase: "work", says: "work", what: ["squat"], next: [], where: "", ends: "clock", seconds: 40,
  cap_s: null, share: null, effort: 8, counts: false, place: "0.0", of: "", next_of: "", ...more });
const REPEATS = [1, 2, 3].flatMap((nth) => [
  step({ ends: "tap", seconds: 75, where: `repeat ${nth} of 3` }),
  step({ phase: "rest", seconds: 120, where: `repeat ${nth} of 3` }),
]);

/** A small generator of its own, so that every run draws the same. */
function drawn(seed) {
  let at = seed;
  return () => {
    at = (at * 48271) % 2147483647;
    return at / 2147483647;
  };
}

test("clocks end steps at their own moment, however late the phone looks", () => {
  const alone = new Alone([step({}), step({ phase: "rest", seconds: 20 }), step({ block: 1, seconds: 30 })]);
  alone.start(1000);
  alone.look(1000 + 65_000);
  assert.equal(alone.is.at, 2);
  assert.equal(alone.leftS(1000 + 65_000), 25);
  alone.look(1000 + 500_000);
  assert.equal(alone.phase, "over");
  assert.equal(alone.is.over, 1000 + 90_000);
  assert.deepEqual(alone.is.laps.map(([, , seconds]) => seconds), [40, 20, 30]);
});

test("a repeat waits for its tap, and splits are told", () => {
  const alone = new Alone(REPEATS);
  alone.start(0);
  alone.look(70_000);
  assert.equal(alone.leftS(70_000), null);
  alone.tap(70_000);
  assert.equal(alone.step.phase, "rest");
  alone.tap(90_000); // in a rest a tap is nothing
  alone.look(70_000 + 121_000);
  assert.equal(alone.is.at, 2);
  alone.tap(70_000 + 120_000 + 74_000);
  assert.deepEqual(alone.splits(), [70, 74]);
  assert.equal(splitsSaid(alone.splits()), "2: 1:14, slowest 1:14, 0:04 apart");
  assert.equal(alone.scoreOf(0), "1:14");
});

test("a cap ends a block whatever was tapped, and counted rounds are its score", () => {
  const alone = new Alone([step({ ends: "tap", cap_s: 60, seconds: 50 }), step({ block: 1, counts: true, seconds: 100 })]);
  alone.start(0);
  alone.look(61_000);
  assert.equal(alone.step.block, 1);
  assert.equal(alone.is.began, 60_000);
  alone.tap(70_000);
  alone.tap(80_000);
  alone.look(161_000);
  assert.equal(alone.scoreOf(1), "2 + 0");
  assert.equal(alone.phase, "over");
});

test("a hold stops the clock and moves all that comes by its length", () => {
  const alone = new Alone([step({}), step({ seconds: 10 })]);
  alone.start(0);
  alone.hold(15_000);
  alone.look(500_000);
  assert.equal(alone.leftS(500_000), 25);
  alone.hold(100_000);
  alone.look(124_999);
  assert.equal(alone.is.at, 0);
  alone.look(125_000);
  assert.equal(alone.is.at, 1);
});

test("whatever is pressed, laps follow on one another and sum to what went by", () => {
  for (let seed = 1; seed <= 300; seed += 1) {
    const some = drawn(seed);
    const steps = Array.from({ length: 2 + Math.floor(some() * 8) }, (_, nth) => step({
      block: Math.floor(nth / 3), phase: nth % 2 ? "rest" : "work", ends: some() < 0.3 ? "tap" : "clock", seconds: 5 + Math.floor(some() * 60),
    }));
    let alone = new Alone(steps);
    let now = 1_000;
    alone.start(now);
    for (let press = 0; press < 30 && alone.phase !== "over"; press += 1) {
      now += Math.floor(some() * 20_000);
      const deed = ["look", "tap", "go", "hold", "look"][Math.floor(some() * 5)];
      alone[deed](now);
      alone = new Alone(steps, JSON.parse(JSON.stringify(alone.is))); // a reload loses nothing
    }
    alone.end(now);
    const went = alone.is.over - alone.is.started;
    const sum = alone.is.laps.reduce((all, [, , seconds]) => all + seconds, 0);
    assert.ok(Math.abs(sum * 1000 - went) <= 60 * alone.is.laps.length, `seed ${seed}: ${sum} of ${went}`);
    assert.ok(alone.is.laps.every(([, , seconds]) => seconds >= 0));
  }
});

test("before a change it counts down, and says what comes", () => {
  const alone = new Alone([step({ phase: "rest", seconds: 30 }), step({ what: ["swing"] })]);
  alone.start(0);
  const cues = cuesOf(alone, 1000);
  assert.deepEqual(cues.map(([at, kind]) => [at, kind]), [[27_000, "count"], [28_000, "count"], [29_000, "count"], [20_000, "ten"], [30_000, "go"]]);
  assert.equal(cues.at(-1)[2], "swing");
});
