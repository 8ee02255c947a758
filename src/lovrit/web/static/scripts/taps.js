// Taps of the coach: somebody is in, or done, or changes; a round is counted. Each is one press, taken back by the next.
import { laneHead, laneSays, made, patch, roundsOf } from "./board.js";

/** @typedef {import("./foretold.js").View} View */
/** @typedef {import("./foretold.js").Moment} Moment */

const WORDS = /** @type {Record<string, string>} */ ({ in: "in", done: "done?", change: "change" });

/** Buttons for all that can be tapped in a moment; an empty list where nothing can. @param {View} view @param {Moment | undefined} moment @param {string[]} groups */
export function tapButtons(view, moment, groups) {
  if (!moment) return [];
  const lanes = (moment.lanes ?? []).filter((lane) => lane.takes || ["race", "repeats"].includes(moment.shape));
  const over = lanes.flatMap((lane) => (lane.changes ? [{ ...lane, takes: "change", changes: false }] : []));
  const buttons = [...over, ...lanes].map((lane) => {
    const button = tap(lane.takes, lane.lane);
    const person = lane.said !== lane.lane && groups.includes(lane.group) ? [patch(lane.group, lane.does === "work" ? "fill" : "outline")] : [];
    const head = person.length ? [...person, made("span", lane.said)] : laneHead(lane, groups);
    button.append(...head, made("small", "", "says"), made("i", WORDS[lane.takes] ?? ""));
    button.disabled = !lane.takes;
    return button;
  });
  return moment.counts ? [...buttons, ...rounds(view, moment, groups, moment.shape === "lift" ? "set" : "round")] : buttons;
}

/** A round or a set for a group: how many it has by now. @param {View} view @param {Moment} moment @param {string[]} groups @param {string} what */
function rounds(view, moment, groups, what) {
  const many = roundsOf(view, moment);
  return groups.map((letter) => {
    const button = tap("round", letter);
    button.append(patch(letter, "fill"), made("span", `${many[letter] ?? 0}`, "count"), made("i", `+1 ${what}`));
    return button;
  });
}

/** @param {string} kind @param {string} lane @returns {HTMLButtonElement} */
function tap(kind, lane) {
  const button = document.createElement("button");
  button.type = "button";
  button.className = "press tap";
  button.dataset.tap = kind;
  button.dataset.lane = lane;
  return button;
}

/** Each lane's seconds on its button. @param {HTMLElement} box @param {View} view @param {Moment} moment @param {number} now */
export function tickTaps(box, view, moment, now) {
  for (const button of box.querySelectorAll("[data-lane]")) {
    const lane = moment.lanes?.find((one) => one.lane === /** @type {HTMLElement} */ (button).dataset.lane);
    const says = button.querySelector(".says");
    const text = lane ? laneSays(view, moment, lane, now) : "";
    if (says && says.textContent !== text) says.textContent = text;
  }
}
