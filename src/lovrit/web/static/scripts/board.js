// The board: what is to be done and by whom, drawn from a moment. The wall, a station and the coach read the same one.
import { comingWork, standing, works } from "./foretold.js";
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
 * What is shown in a moment: in a rest what comes, where people are sent on; in work what it is.
 * @param {View} view @param {number} nth @returns {{moment: Moment, coming: boolean}}
 */
export function shownAt(view, nth) {
  const moment = view.moments[nth];
  if (moment.kind === "count") return { moment, coming: true };
  if (works(moment.kind) || moment.lanes) return { moment, coming: false };
  const next = comingWork(view, nth);
  const sentOn = next && (next.block === moment.block || moment.kind !== "rest");
  return sentOn ? { moment: next, coming: true } : { moment, coming: false };
}

/** Draw the board anew. @param {HTMLElement} list @param {View} view @param {number} nth @param {number} [station] only this one */
export function draw(list, view, nth, station) {
  const { moment, coming } = shownAt(view, nth);
  let rows = view.rows[moment.rows] ?? [];
  if (station !== undefined && rows[0]?.nth) rows = rows.filter((row) => row.nth === station);
  const together = rows.length === 1 && !rows[0].nth;
  const plain = together && rows[0].does.length === 1 && rows[0].does[0] === moment.says && !coming;
  list.dataset.shape = moment.shape;
  list.dataset.coming = coming ? "1" : "";
  list.dataset.many = String(together ? rows[0].does.length : rows.length);
  list.dataset.together = together ? "1" : "";
  if (plain) list.replaceChildren();
  else if (together) list.replaceChildren(...tasks(rows[0], coming));
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

/** Everybody does the same: each line of it large. @param {Row} row @param {boolean} coming */
function tasks(row, coming) {
  return row.does.map((does, at) => {
    const line = made("li", "", coming ? "task coming" : "task");
    const drawn = row.does.length === 1 ? drawing(row.station) : null;
    line.append(...(drawn ? [drawn] : []), made("span", does, "station-name"));
    if (at === 0) line.append(...extras(row, coming));
    if (coming && row.does.length === 1) line.append(...told(row.station)); // that is when it is shown to people
    return line;
  });
}

/** What a move's card tells of it: one thing to see, and ways to do it. @param {string} station */
function told(station) {
  cards ??= JSON.parse(document.getElementById("cards")?.textContent ?? "[]");
  const card = cards?.find((one) => one.station === station);
  return card ? [...(card.cue ? [made("small", card.cue, "cue")] : []), ...(card.ways.length ? [made("small", `easier: ${card.ways.join(", ")}`, "cue")] : [])] : [];
}

/** @param {Row} row @param {boolean} coming @param {boolean} alone whether it is one station's own screen
 * @param {View["names"]} [names] first names by group, where the club shows them in breaks */
function stationRow(row, coming, alone, names) {
  const line = made("li");
  const here = made("span", "", "here");
  here.append(...row.groups.map((letter) => patch(letter, coming ? "outline" : "fill")));
  if (coming && names) here.append(...row.groups.map((letter) => made("small", (names[letter] ?? []).join(", "), "names")));
  const name = made("span", `${row.nth} ${row.does.join(" + ")}`, "station-name");
  name.append(...extras(row, coming));
  const drawn = drawing(row.station);
  const then = made("span", "", "then");
  if (alone) name.append(...told(row.station));
  if (row.then.length && !coming) then.append("then ", ...row.then.map((letter) => patch(letter, "outline")));
  line.append(here, ...(drawn ? [drawn] : []), name, then);
  return line;
}

/** @param {Row} row @param {boolean} coming */
function extras(row, coming) {
  return [row.side && made("small", ` ${row.side}`), row.part && made("em", ` ${coming ? "first" : "now"} ${row.part}`, "part")].filter((one) => one !== "" && one !== null);
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
  return left ?? (moment.shape === "race" ? "" : lane.came ? `${since}, ${lane.came} in` : since);
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
  const told = moment.shape === "race" ? [] : (moment.lanes ?? []).filter((lane) => moment.shape !== "partners" || lane.on);
  const lines = told.map((lane) => {
    const line = made("li", "", `lane ${lane.does}`);
    line.dataset.lane = lane.lane;
    line.append(...laneHead(lane, groups), made("span", "", "says"));
    return line;
  });
  return list.replaceChildren(...lines, ...(moment.counts ? counted(view, groups) : []));
}

/** Rounds so far, of groups that have any. @param {View} view @param {string[]} groups */
function counted(view, groups) {
  return groups.filter((letter) => view.rounds[letter]).map((letter) => {
    const line = made("li", "", "lane");
    line.append(patch(letter, "fill"), made("span", `${view.rounds[letter]}`, "rounds"));
    return line;
  });
}

/** Who may go: a whole group by its letter, else by initials; of the others only how many. @param {Lane[]} lanes @param {string[]} groups */
function gate(lanes, groups) {
  const may = lanes.filter((lane) => lane.does !== "rest" && lane.does !== "waiting");
  const all = groups.filter((letter) => lanes.some((lane) => lane.group === letter) && lanes.every((lane) => lane.group !== letter || may.includes(lane)));
  const single = may.filter((lane) => !all.includes(lane.group));
  const line = made("li", "", "may-go");
  line.append(...all.map((letter) => patch(letter, "fill")), ...single.map((lane) => made("b", laneName(lane))));
  const left = lanes.length - may.length;
  return [...(may.length ? [line] : []), ...(left && lanes.length > 1 ? [made("li", `${left} more to come`, "lane rest")] : [])];
}

/** Each lane's seconds, as they run. @param {HTMLElement} list @param {View} view @param {Moment} moment @param {number} now */
export function tickLanes(list, view, moment, now) {
  for (const line of list.children) {
    const lane = moment.lanes?.find((one) => one.lane === /** @type {HTMLElement} */ (line).dataset.lane);
    const says = line.querySelector(".says");
    const text = lane ? laneSays(view, moment, lane, now) : "";
    if (says && says.textContent !== text) says.textContent = text;
  }
}
