// Presses of a screen: each is kept, also over a reload, until the server has taken it or refused it in words.
import { freshId } from "./hands.js";

/** @typedef {import("./foretold.js").View} State */
/** @typedef {import("./foretold.js").Press} Press */

const SLOW_MS = 1500;
const LIMIT_MS = 4000;
const AGAIN_MS = 1000;
const MOST_AGAIN_MS = 8000;
// answers with which a press is done with: its place or its person isn't there, or it is no press
const REFUSED = new Set([404, 409, 422]);

export class Presses {
  /**
   * @param {string} url where presses go
   * @param {(state: State) => void} taken the server's state after a press
   * @param {(said: string, waiting: number) => void} tell what to show of those that wait; empty where none does
   */
  constructor(url, taken, tell) {
    this.url = url;
    this.taken = taken;
    this.tell = tell;
    this.key = `lovrit-presses-${url}`;
    /** @type {Press[]} */
    this.waiting = this.kept();
    /** Who asked to hear how a press was answered. @type {Map<string, (refused: string) => void>} */
    this.asked = new Map();
    this.sending = false;
    this.again = AGAIN_MS;
    this.timer = 0;
    if (this.waiting.length) this.flush();
  }

  /** @returns {Press[]} */
  kept() {
    try {
      const found = JSON.parse(sessionStorage.getItem(this.key) ?? "[]");
      return Array.isArray(found) ? found : [];
    } catch {
      return [];
    }
  }

  keep() {
    try {
      if (this.waiting.length) sessionStorage.setItem(this.key, JSON.stringify(this.waiting));
      else sessionStorage.removeItem(this.key);
    } catch {
      // a browser that keeps nothing still sends; only a reload would lose what waits
    }
  }

  /** Something happened. @param {Omit<Press, "id">} press @param {(refused: string) => void} [answered] why it was refused, or empty
   * @returns {Press} */
  add(press, answered) {
    const whole = { ...press, id: freshId() };
    if (answered) this.asked.set(whole.id, answered);
    this.waiting.push(whole);
    this.keep();
    this.flush();
    return whole;
  }

  /** @param {string} why */
  waits(why) {
    const count = this.waiting.length;
    const presses = count === 1 ? "One press waits" : `${count} presses wait`;
    this.tell(count ? `${why} ${presses}, kept here and sent again.` : "", count);
  }

  async flush() {
    if (this.sending) return;
    clearTimeout(this.timer);
    this.sending = true;
    const slow = setTimeout(() => this.waits("The server does not answer."), SLOW_MS);
    try {
      while (this.waiting.length && (await this.sendFirst())) this.again = AGAIN_MS;
    } catch {
      this.waits("The server is not reached.");
    } finally {
      clearTimeout(slow);
      this.sending = false;
    }
    if (this.waiting.length) this.later();
  }

  later() {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.flush(), this.again);
    this.again = Math.min(MOST_AGAIN_MS, this.again * 2);
  }

  /** Send the first that waits; whether it is done with. */
  async sendFirst() {
    const press = this.waiting[0];
    const answer = await fetch(this.url, {
      method: "POST",
      headers: { "content-type": "application/json", "x-lovrit": "1" },
      body: JSON.stringify(press),
      signal: AbortSignal.timeout(LIMIT_MS),
    });
    if (!answer.ok && !REFUSED.has(answer.status)) {
      this.waits(answer.status === 401 ? "The passphrase is asked again: open Lovrit in another tab." : await answer.text());
      return false;
    }
    const said = answer.ok ? await answer.json() : { state: null, refused: await answer.text() };
    this.waiting.shift();
    this.keep();
    if (said.state) this.taken(said.state);
    this.asked.get(press.id)?.(said.refused ?? "");
    if (this.asked.delete(press.id)) return true;
    this.tell(said.refused ? `Not counted: ${said.refused}` : "", this.waiting.length);
    return true;
  }
}
