// What walls and stations show instead of the class: its moves one by one, a message, nothing.
import { made } from "./board.js";

/** @typedef {{station: string, cue: string, ways: string[], kit: string[]}} Card */

/** @param {string} id */
const json = (id) => JSON.parse(document.getElementById(id)?.textContent ?? "[]");

export class Shown {
  /** @param {HTMLElement} root @param {HTMLElement} box */
  constructor(root, box) {
    this.root = root;
    this.box = box;
    /** @type {Card[]} */
    this.cards = json("cards");
    this.drawn = "";
  }

  /** @param {{what: string, text: string} | undefined} shown */
  draw(shown) {
    const { what, text } = shown ?? { what: "class", text: "" };
    const key = `${what} ${text}`;
    if (key === this.drawn) return;
    this.drawn = key;
    const card = what === "moves" ? this.cards[Number(text) - 1] : undefined;
    this.root.dataset.shows = what === "moves" && !card ? "class" : what;
    this.box.hidden = this.root.dataset.shows === "class";
    if (card) this.box.replaceChildren(...this.move(card, Number(text)));
    else if (what === "stop") this.box.replaceChildren(made("p", "Stop. Put it down. Stand back.", "message"));
    else this.box.replaceChildren(...(what === "message" ? [made("p", text, "message")] : []));
  }

  /** @param {Card} card @param {number} nth */
  move(card, nth) {
    const drawing = document.querySelector(`#drawings [data-station="${CSS.escape(card.station)}"] svg`)?.cloneNode(true);
    const words = made("div", "", "words");
    words.append(made("h2", card.station), ...(card.cue ? [made("p", card.cue)] : []), ...(card.ways.length ? [made("p", card.ways.join(", "), "ways")] : []),
      made("small", `${nth} of ${this.cards.length}`));
    return [...(drawing ? [drawing] : []), words];
  }
}
