// The board: what is to be done and by whom, drawn from a moment. The wall, a station and the coach read the same one.
import { standing } from "./foretold.js";
import { clock } from "./hands.js";

/** @typedef {import("./foretold.js").View} View */
/** @typedef {import("./foretold.js").Moment} Moment */
/** @typedef {import("./foretold.js").Row} Row */
/** @typedef {import("./foretold.js").Lane} Lane */

/** @type {import("./shown.js").Card[] | undefined} */
let cards;

/** @param {string} name @param {string} [text] @param {string} [css] */
export function made(name, text = "", css = "") {
  const found = document.createElement(name);
  found.textContent = text;
  if (css) found.className = css;
  return found;
}

/** A group's letter on its colour, which is the letter's own on every page. @param {string} letter @param {"fill" | "outline"} how */
export function patch(letter, how) {
  const nth = /^[A-Z]$/.test(letter) ? letter.charCodeAt(0) - 65 : -1;
  return made("b", letter, nth < 0 ? "patch all" : `patch ${how}-${nth}`);
}

/**
 * What is shown in a moment: in a rest what comes, else what is on.
 * @param {View} view @param {number} nth @returns {{moment: Moment, rows: Row[], coming: boolean}}
 */
export function shownAt(view, nth) {
  const moment = view.moments[nth];
  const coming = moment.resting && moment.next !== null;
  return { moment, rows: view.rows[coming ? (moment.next ?? 0) : moment.rows] ?? [], coming };
}

/** Draw the board anew. @param {HTMLElement} list @param {View} view @param {number} nth @param {number} [station] only this one */
export function draw(list, view, nth, station) {
  const { moment, rows: every, coming } = shownAt(view, nth);
  const rows = station !== undefined && every[0]?.nth ? every.filter((row) => row.nth === station) : every;
  const together = rows.length === 1 && !rows[0].nth;
  const plain = together && !coming && rows[0].what.length === 1 && rows[0].what[0].does === moment.says;
  list.dataset.coming = coming ? "1" : "";
  list.dataset.together = together ? "1" : "";
  list.dataset.alone = station !== undefined && !together && rows.length === 1 ? "1" : "";
  const lines = together ? rows[0].what.length : rows.length;
  list.dataset.many = String(lines);
  list.style.setProperty("--lines", String(lines));
  list.style.setProperty("--here", String(Math.max(1, ...rows.map((row) => (row.who ? Math.max(HALF_WIDE, row.groups.length) : row.groups.length)))));
  if (plain) list.replaceChildren();
  else if (together) list.replaceChildren(...rows[0].what.map((what) => task(what, coming, rows[0].what.length)));
  else list.replaceChildren(...rows.map((row) => stationRow(row, coming, station !== undefined, view.names)));
}

/** Who is in which group, before a class begins. @param {HTMLElement} list @param {Record<string, string[]>} names */
export function drawNames(list, names) {
  list.dataset.shape = "names";
  list.dataset.coming = list.dataset.together = "";
  list.dataset.many = String(Object.keys(names).length);
  list.replaceChildren(...Object.entries(names).map(([letter, some]) => {
    const line = made("li");
    line.append(patch(letter, "fill"), made("span", some.join(", "), "station-name"));
    return line;
  }));
}

const HALF_WIDE = 2.2; // letters as wide as the words of a half
const DRAWN = 3; // lines beside which there is room for their drawings

/** A line of what everybody does: how much of what, large. @param {import("./foretold.js").What} what @param {boolean} coming @param {number} lines */
function task(what, coming, lines) {
  const line = made("li", "", coming ? "task coming" : "task");
  const drawn = lines <= DRAWN ? drawing(what.station ?? "") : null;
  const said = made("span", "", "station-name");
  said.append(...(what.opens ? [made("small", "then ", "opens")] : []), ...(what.label ? [made("b", `${what.label} `, "label")] : []), ...whole(what.does), ...extras(what, coming));
  line.append(...(drawn ? [drawn] : []), said);
  if (coming && lines === 1) line.append(...told(what.station ?? "")); // that is when it is shown to people
  return line;
}

/** What a move's card tells of it: one thing to see, and ways to do it. @param {string} station */
function told(station) {
  cards ??= JSON.parse(document.getElementById("cards")?.textContent ?? "[]");
  const card = cards?.find((one) => one.station === station);
  if (!card) return [];
  const more = [...(card.kit.length ? [card.kit.join(", ")] : []), ...card.ways].join(" · ");
  return [...(card.cue ? [made("small", card.cue, "cue")] : []), ...(more ? [made("small", more, "cue")] : [])];
}

/** @param {Row} row @param {boolean} coming @param {boolean} alone whether it is one station's own screen
 * @param {View["names"]} [names] first names by group, where the club shows them in breaks */
function stationRow(row, coming, alone, names) {
  const line = made("li");
  const here = made("span", "", "here");
  const half = row.who ? made("span", "", "says") : null;
  if (half) line.dataset.lane = Object.keys(HALVES).find((name) => HALVES[name] === row.who) ?? row.who;
  here.append(...(row.who ? [made("b", row.who, "half")] : []), ...row.groups.map((letter) => patch(letter, coming ? "outline" : "fill")));
  if (coming && names) here.append(...row.groups.map((letter) => made("small", (names[letter] ?? []).join(", "), "names")));
  const name = made("span", "", "station-name");
  if (row.nth) name.append(made("small", `${row.nth} `, "nth"));
  name.append(...row.what.flatMap((what, nth) => [...(nth ? [" + "] : []), ...whole(what.does), ...extras(what, coming)]));
  const drawn = drawing(row.station);
  const then = made("span", "", "then");
  if (alone) name.append(...told(row.station));
  if (row.then.length && !coming) then.append("then ", ...row.then.map((letter) => patch(letter, "outline")));
  line.append(here, ...(drawn ? [drawn] : []), name, ...(half ? [half] : []), then);
  return line;
}

/** Words that no line breaks at their hyphen: “step-up” is read whole from ten metres. @param {string} text */
function whole(text) {
  return text.split(/(\S+-\S+)/).filter(Boolean).map((part) => (part.includes("-") ? made("span", part, "whole") : part));
}

/** Side, marks and parts of what is done; the part that is on is said by itself. @param {import("./foretold.js").What} what @param {boolean} coming */
function extras(what, coming) {
  const beside = [what.side, what.notes].filter(Boolean).join(", ");
  const parts = (what.parts ?? []).map((part) => made(part === what.part && !coming ? "em" : "i", part, "part"));
  return [...(beside ? [made("small", ` ${beside}`)] : []), ...(parts.length ? [listed(parts)] : [])];
}

/** @param {HTMLElement[]} parts */
function listed(parts) {
  const row = made("span", "", "parts");
  row.append(...parts);
  return row;
}

/** @param {string} station */
function drawing(station) {
  return document.querySelector(`#drawings [data-station="${CSS.escape(station)}"] svg`)?.cloneNode(true) ?? null;
}

/** What a lane is told: its own seconds. @param {View} view @param {Moment} moment @param {Lane} lane @param {number} now */
export function laneSays(view, moment, lane, now) {
  const at = standing(view, now);
  const left = lane.ends === null ? null : clock(Math.ceil((lane.ends - at) / 1000));
  if (lane.does === "done") return moment.shape === "race" ? `done ${clock((lane.since - moment.began) / 1000)}` : "done";
  if (lane.does === "waiting") return `in ${left}`;
  if (lane.on) return lane.on;
  if (lane.does === "rest") return left === null ? "rest" : moment.shape === "repeats" ? `starts in ${left}` : `rest ${left}`;
  if (moment.shape === "gate") return "go";
  const since = clock((at - lane.since) / 1000);
  return left ?? (moment.shape === "race" ? "" : since);
}

const HALVES = /** @type {Record<string, string>} */ ({ first: "first half", second: "second half" });

/** What a lane is called on a screen. @param {Lane} lane */
export const laneName = (lane) => HALVES[lane.lane] ?? lane.said;

/** A lane's patch where it is of a group or a pair of one, else its name. @param {Lane} lane @param {string[]} groups */
export function laneHead(lane, groups) {
  const team = groups.includes(lane.group) && /^[A-Z]\d*$/.test(lane.lane);
  if (!team) return [made("b", laneName(lane))];
  const found = patch(lane.group, lane.does === "work" ? "fill" : "outline");
  found.textContent = lane.lane;
  return [found];
}

/** The lanes that the wall tells of: each repeat's start, each half's clock, who may go; never who is last.
 * @param {HTMLElement} list @param {View} view @param {Moment} moment @param {string[]} groups */
export function drawLanes(list, view, moment, groups) {
  list.dataset.shape = moment.shape;
  if (moment.shape === "gate") return list.replaceChildren(...gate(moment.lanes ?? [], groups));
  const inRows = view.rows[moment.rows]?.some((row) => row.who);
  const alone = moment.shape === "race" && !moment.lanes?.some((lane) => lane.on);
  const told = alone || inRows ? [] : (moment.lanes ?? []);
  const lines = told.map((lane) => {
    const line = made("li", "", `lane ${lane.does}`);
    line.dataset.lane = lane.lane;
    line.append(...laneHead(lane, groups), made("span", "", "says"));
    return line;
  });
  return list.replaceChildren(...lines, ...(moment.counts ? counted(view, moment, groups) : []));
}

/** Rounds that groups have counted in a block. @param {View} view @param {Moment} moment @returns {Record<string, number>} */
export const roundsOf = (view, moment) => view.rounds[String(moment.block)] ?? {};

/** Rounds so far, of groups that have any; where reps climb, the rung that each is at. @param {View} view @param {Moment} moment @param {string[]} groups */
function counted(view, moment, groups) {
  const rounds = roundsOf(view, moment);
  return groups.filter((letter) => rounds[letter]).map((letter) => {
    const line = made("li", "", "lane");
    const rung = moment.rungs[letter] ? `, at ${moment.rungs[letter]}` : "";
    line.append(patch(letter, "fill"), made("span", `${rounds[letter]}${rung}`, "rounds"));
    return line;
  });
}

/** Who may go: a whole group by its letter, else by initials; of the others only how many. @param {Lane[]} lanes @param {string[]} groups */
function gate(lanes, groups) {
  const may = lanes.filter((lane) => lane.does !== "rest" && lane.does !== "waiting");
  if (may.length === lanes.length) return []; // nobody waits for a heart
  const all = groups.filter((letter) => lanes.some((lane) => lane.group === letter) && lanes.every((lane) => lane.group !== letter || may.includes(lane)));
  const single = may.filter((lane) => !all.includes(lane.group));
  const line = made("li", "", "may-go");
  line.append(...all.map((letter) => patch(letter, "fill")), ...single.map((lane) => made("b", laneName(lane))));
  const left = lanes.length - may.length;
  return [...(may.length ? [line] : []), ...(left && lanes.length > 1 ? [made("li", `${left} more to come`, "lane rest")] : [])];
}

/** Each lane's seconds, as they run. @param {Element} list @param {View} view @param {Moment} moment @param {number} now */
export function tickLanes(list, view, moment, now) {
  for (const line of list.querySelectorAll("[data-lane]")) {
    const lane = moment.lanes?.find((one) => one.lane === /** @type {HTMLElement} */ (line).dataset.lane);
    const says = line.querySelector(".says");
    const text = lane ? laneSays(view, moment, lane, now) : "";
    if (says && says.textContent !== text) says.textContent = text;
  }
}
