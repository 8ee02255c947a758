// A wall that fills the wall: of a few ways to lay it out the one in which what is to be done stands largest.
// There is no list of cases: the board's parts have their weights in the styles, and here one size is sought for all.

const SMALLEST = 12;
const LARGEST = 0.42; // of the height: one thing alone needs no more
const BETTER = 1.06; // so much larger, before it is laid out otherwise
const MOST_COLUMNS = 3;
const [WORDS_FROM, WORDS_TO, WORDS_BY] = [1, 2.2, 0.1]; // times their usual size: words beside the clock
const UNDER = 0.1; // of the size: so far the box of a last line reaches below its letters, where lines stand close

/** @typedef {{clock: string, form: string, columns: number, size: number, words: number}} Way */

/** @type {Map<string, Way>} */
const known = new Map();

/** Lay out and size what a wall shows. @param {HTMLElement} root @param {HTMLElement} boards the room that there is */
export function fillRoom(root, boards) {
  const list = /** @type {HTMLElement | null} */ (boards.querySelector(".stands"));
  if (!list) return;
  const key = [root.clientWidth, root.clientHeight, list.innerHTML.length, boards.textContent, root.querySelector(".phase")?.textContent, list.dataset.coming, root.style.getPropertyValue("--chars")].join("|");
  const best = known.get(key) ?? search(root, boards, list);
  known.set(key, best);
  lay(root, list, best);
  boards.style.setProperty("--size", `${best.size}px`);
  root.style.setProperty("--words", String(best.words));
}

/** @param {HTMLElement} root @param {HTMLElement} boards @param {HTMLElement} list @returns {Way} */
function search(root, boards, list) {
  const many = list.children.length;
  const columns = many > MOST_COLUMNS ? Math.min(MOST_COLUMNS, Math.ceil(many / 2)) : 1;
  const forms = list.dataset.together ? ["under"] : list.dataset.alone ? ["alone"] : list.querySelector(".then:not(:empty)") ? ["under", "beside", "below"] : ["under", "below"];
  root.style.setProperty("--words", "1");
  let best = { clock: "top", form: "under", columns: 1, size: 0, words: 1 };
  const sides = root.classList.contains("wall") && root.clientWidth > root.clientHeight;
  for (const clock of sides ? ["side", "top"] : ["top"]) {
    for (let nth = 1; nth <= columns; nth += 1) {
      for (const form of forms) {
        const way = { clock, form, columns: nth, size: 0, words: 1 };
        lay(root, list, way);
        const size = largest(boards);
        if (size > best.size * BETTER) best = { ...way, size };
      }
    }
  }
  lay(root, list, best);
  return { ...best, words: best.clock === "side" ? words(root) : 1 };
}

/** How many times their usual size the words under a clock at the side can be, until they fill its height.
 * @param {HTMLElement} root */
function words(root) {
  const clock = /** @type {HTMLElement | null} */ (root.querySelector(".clock"));
  if (!clock) return WORDS_FROM;
  const said = [...clock.querySelectorAll(".phase p")];
  let fits = WORDS_FROM;
  for (let many = WORDS_FROM; many <= WORDS_TO; many += WORDS_BY) {
    root.style.setProperty("--words", String(many));
    const over = clock.scrollHeight > clock.clientHeight + 1 || said.some((one) => one.scrollWidth > one.clientWidth + 1);
    if (over) break;
    fits = many;
  }
  return Math.round(fits * 10) / 10;
}

/** Where the clock stands, how a station's parts stand to each other, in how many columns.
 * @param {HTMLElement} root @param {HTMLElement} list @param {{clock: string, form: string, columns: number}} way */
function lay(root, list, way) {
  root.dataset.clock = way.clock;
  list.dataset.form = way.form;
  list.style.setProperty("--columns", String(way.columns));
  list.style.setProperty("--rows", String(Math.max(1, Math.ceil(list.children.length / way.columns))));
}

/** The largest size at which nothing runs over. @param {HTMLElement} boards */
function largest(boards) {
  let [fits, over] = [SMALLEST, Math.max(SMALLEST + 1, Math.round(window.innerHeight * LARGEST))];
  while (over - fits > 1) {
    const size = Math.floor((fits + over) / 2);
    boards.style.setProperty("--size", `${size}px`);
    if (runsOver(boards, size)) over = size;
    else fits = size;
  }
  return fits;
}

/** @param {HTMLElement} boards @param {number} size */
function runsOver(boards, size) {
  const wide = [...boards.querySelectorAll(".stands .station-name")];
  const under = boards.querySelector('.stands:not([data-together="1"]) > li + li') ? UNDER * size : 0;
  const parts = [boards, ...boards.querySelectorAll(".stands, .lanes, .stands > li, .lanes > li")];
  return [...wide, ...parts].some((one) => one.scrollWidth > one.clientWidth + 1) || parts.some((one) => one.scrollHeight > one.clientHeight + 1 + under);
}
