// Holds the screen's fold to what the server's says: reads cases from standard input, exits 1 at the first that differs.
import assert from "node:assert/strict";
import { readFileSync } from "node:fs";
import { advance, take } from "../../src/lovrit/web/static/scripts/fold.js";

const cases = JSON.parse(readFileSync(0, "utf-8"));
for (const { start, steps } of cases) {
  let state = start;
  for (const { press, now, after, looked } of steps) {
    state = take(state, press);
    assert.deepEqual(state, after, JSON.stringify({ press, start }));
    assert.deepEqual(advance(state, now), looked, JSON.stringify({ now, after }));
  }
}
console.log(`${cases.length} cases`);
