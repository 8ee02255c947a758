// What a phone did alone and has not told yet: kept on it, sent from whichever page of theirs is open once there is a network.
import { recall, remember } from "./kept.js";

/** @typedef {{key: string, [field: string]: unknown}} Done an evening alone; its key is its own, so that it counts once */

export class Outbox {
  /** @param {string} base the address of somebody's own pages */
  constructor(base) {
    this.to = `${base}/own`;
    this.name = `lovrit-sent-${base}`;
  }

  /** @returns {Done[]} */
  get all() {
    return recall(this.name) ?? [];
  }

  /** @param {Done} done said again, it takes the place of what was said before */
  put(done) {
    remember(this.name, [...this.without(done), done]);
  }

  /** Send what waits, the oldest first; without a network it goes on waiting.
   * @param {(done: Done, taken: boolean) => void} told of each that has an answer */
  async send(told) {
    for (const done of this.all) {
      const answer = await sent(this.to, done);
      // what the house refuses for good is told, and not sent again and again
      if (!answer || (!answer.ok && answer.status >= 500)) return;
      remember(this.name, this.without(done));
      told(done, answer.ok);
    }
  }

  /** @param {Done} done @returns {Done[]} */
  without(done) {
    return this.all.filter((one) => one.key !== done.key);
  }
}

/** @param {string} to @param {Done} done @returns {Promise<Response | null>} nothing without a network */
async function sent(to, done) {
  try {
    return await fetch(to, { method: "POST", headers: { "Content-Type": "application/json" }, body: JSON.stringify(done) });
  } catch {
    return null;
  }
}
