// Holds what a screen foretells to what the server's fold then says: reads cases from standard input, exits 1 at the
// first that differs.
import assert from "node:assert/strict";
import { readFileSync } from "node:fs";
import { lay, momentAt, reading } from "../../src/lovrit/web/static/scripts/foretold.js";

/** What a screen shows at a moment, in the words of the fold. */
function shown(view, now) {
  const moment = momentAt(view, now);
  if (!moment) return { phase: "over" };
  if (view.phase === "ready") return { phase: "ready" };
  const clock = Math.round(reading(view, moment, now) * 1000);
  return { phase: view.phase, place: moment.place, says: moment.says, clock, up: moment.up };
}

/** Alike, clocks within two milliseconds. */
function alike(said, { clock, ...expected }, where) {
  const { clock: reads, ...rest } = said;
  assert.deepEqual(rest, expected, where);
  assert.ok(Math.abs((reads ?? 0) - (clock ?? 0)) <= 2, `${reads} and ${clock} ms: ${where}`);
}

const cases = JSON.parse(readFileSync(0, "utf-8"));
for (const { text, steps } of cases) {
  for (const { view, ahead, press, after } of steps) {
    for (const [now, expected] of ahead) alike(shown(view, now), expected, JSON.stringify({ text, now: now - view.now_ms }));
    const laid = lay(view, press);
    for (const [now, expected] of after) alike(shown(laid, now), expected, JSON.stringify({ text, press, now: now - view.now_ms }));
  }
}
console.log(`${cases.length} cases`);
