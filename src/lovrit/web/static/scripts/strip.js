// The strip above: the whole class as it was planned, drawn once, with where it is now.

/** @typedef {import("./foretold.js").Moment} Moment */
/** @typedef {[number, string, string]} Stretch seconds, phase, place */

const SVG = "http://www.w3.org/2000/svg";

/** @param {string} name @param {Record<string, string | number>} attributes */
function shape(name, attributes) {
  const found = document.createElementNS(SVG, name);
  for (const [key, value] of Object.entries(attributes)) found.setAttribute(key, String(value));
  return found;
}

export class Strip {
  /** @param {HTMLElement} box @param {Stretch[]} stretches */
  constructor(box, stretches) {
    const svg = shape("svg", { width: "100%", height: 30, preserveAspectRatio: "none" });
    /** Where each place begins, and how long it is. @type {Map<string, [number, number]>} */
    this.places = new Map();
    let start = 0;
    for (const [seconds, phase, place] of stretches) {
      const high = phase === "work" ? 22 : phase === "steady" || phase === "lead-in" ? 10 : 0;
      svg.append(shape("rect", { class: phase, x: start, width: seconds, y: 26 - high, height: high }));
      this.places.set(place, [start, seconds]);
      const [block] = place.split(".");
      if (!this.places.has(block)) this.places.set(block, [start, Number.POSITIVE_INFINITY]);
      start += seconds;
    }
    svg.setAttribute("viewBox", `0 0 ${Math.max(1, start)} 30`);
    this.marker = shape("rect", { class: "pointer", y: 0, height: 30, width: Math.max(2, start / 500) });
    svg.append(this.marker);
    box.replaceChildren(svg);
    this.seconds = Math.max(1, start);
    this.box = box;
  }

  /** Where the plan is at a place along the strip: the step there, and how far into the class it begins.
   * @param {number} x of the page @returns {{place: string, at: number} | null} */
  placeAt(x) {
    const { left, width } = this.box.getBoundingClientRect();
    const wanted = ((x - left) / Math.max(1, width)) * this.seconds;
    for (const [place, [begins, seconds]] of this.places) {
      if (place.includes(".") && wanted >= begins && wanted < begins + seconds) return { place, at: begins };
    }
    return null;
  }

  /** @param {Moment} moment @param {number} now ms */
  point(moment, now) {
    const [start, seconds] = this.places.get(moment.place) ?? [0, 0];
    this.marker.setAttribute("x", String(start + Math.min(seconds, Math.max(0, (now - moment.began) / 1000))));
  }
}
