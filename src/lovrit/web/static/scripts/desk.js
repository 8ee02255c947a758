// The Desk: what is typed or dragged goes to the server one post at a time, and the page follows its answer.
import { ChangeSet } from "@codemirror/state";
import { EditorView } from "@codemirror/view";
import { handleBlocks } from "./blocks.js";
import { askAt, closeDeeds, focusNext, focusWanted } from "./deeds.js";
import { handleFigures } from "./figures.js";
import { freshId, typing } from "./hands.js";
import { swapParts } from "./morph.js";
import { handlePanel } from "./panel.js";
import { handlePaste } from "./pasted.js";
import { difference, makeEditor, remote, showClocks, showProblems } from "./slate.js";
import { handleStations } from "./stations.js";
import { listenOn } from "./stream.js";

const AFTER_TYPING_MS = 140;
const AGAIN_MS = 1500;
/** @type {Record<string, string>} */
const TOLD = { undo: "Undone", redo: "Done again" };
const MOST_AGAIN_MS = 10_000;
const LIMIT_MS = 20_000;

/**
 * What a browser kept of a slate; kept by an earlier version of this page it is the text alone.
 * @param {string | null} kept @returns {{text: string, base: number, sent: string} | null}
 */
function readKept(kept) {
  if (kept === null) return null;
  try {
    const found = JSON.parse(kept);
    if (typeof found?.text === "string") return found;
  } catch {
    // the text alone
  }
  return { text: kept, base: -1, sent: "" };
}

class Desk {
  /** @param {HTMLElement} root */
  constructor(root) {
    this.root = root;
    this.url = `/desk/${root.dataset.session}`;
    this.kept = `lovrit-slate-${root.dataset.session}`;
    this.hand = freshId();
    const now = this.now();
    this.version = Number(now.dataset.version);
    this.synced = now.textContent ?? "";
    this.block = Number(now.dataset.block);
    this.part = Number(now.dataset.partShown);
    /** @type {Promise<void>} */
    this.queue = Promise.resolve();
    this.waiting = 0;
    this.busy = 0;
    this.looking = 0;
    this.looked = "";
    this.editor = this.makeEditor();
    this.pending = ChangeSet.empty(this.synced.length);
    this.restore();
    this.showProblems();
    this.listen();
    if (!this.synced.trim()) this.editor.focus(); // an empty slate is a place to write
  }

  now() {
    return /** @type {HTMLElement} */ (document.getElementById("slate-now"));
  }

  makeEditor() {
    const form = /** @type {HTMLFormElement} */ (document.getElementById("slate-form"));
    const area = /** @type {HTMLTextAreaElement} */ (document.getElementById("slate-text"));
    const words = JSON.parse(document.getElementById("completion")?.textContent ?? "{}");
    area.hidden = true;
    area.previousElementSibling?.remove();
    const box = document.createElement("div");
    box.className = "editor";
    form.prepend(box);
    return makeEditor(box, this.synced, words, {
      changed: (changes) => this.typed(changes),
      moved: (line) => this.follow(line),
      keys: [
        { key: "Mod-z", run: () => this.step("undo"), shift: () => this.step("redo"), preventDefault: true },
        { key: "Mod-y", run: () => this.step("redo"), preventDefault: true },
        { key: "Alt-Enter", run: () => this.take() },
        { key: "Alt-ArrowDown", run: () => this.nextPlace(1) },
        { key: "Alt-ArrowUp", run: () => this.nextPlace(-1) },
      ],
    });
  }

  /** What was typed and never reached the server comes back after a reload; with what others wrote meanwhile, merged. */
  restore() {
    const kept = readKept(localStorage.getItem(this.kept));
    if (!kept || kept.text === this.synced) {
      localStorage.removeItem(this.kept);
    } else if (kept.base < 0 || kept.base === this.version || kept.sent === this.synced) {
      this.editor.dispatch({ changes: difference(this.synced, kept.text) });
    } else {
      this.enqueue(async () => {
        const taken = await this.post("text", { text: kept.text, base: String(kept.base) });
        if (taken) localStorage.removeItem(this.kept);
        else this.editor.dispatch({ changes: difference(this.synced, kept.text) }); // that version is not known there
      });
    }
  }

  /** Keep what is typed until the server has it, with the version that it was typed on. */
  keep() {
    const kept = { text: this.editor.state.doc.toString(), base: this.version, sent: this.synced };
    try {
      localStorage.setItem(this.kept, JSON.stringify(kept));
    } catch {
      this.say("This browser keeps nothing: don’t close the page before it says that all is saved.");
    }
  }

  /** @param {ChangeSet} changes */
  typed(changes) {
    this.pending = this.pending.compose(changes);
    this.keep();
    clearTimeout(this.waiting);
    this.waiting = window.setTimeout(() => this.flush(), AFTER_TYPING_MS);
  }

  /** Send what was typed since the last answer. */
  flush() {
    clearTimeout(this.waiting);
    return this.enqueue(async () => {
      if (this.pending.empty) return;
      const text = this.editor.state.doc.toString();
      const before = { synced: this.synced, pending: this.pending };
      this.synced = text;
      this.pending = ChangeSet.empty(text.length);
      const line = this.line();
      if (!(await this.post("text", { text, burst: `typing-${this.hand}`, line: String(line) }))) {
        this.synced = before.synced;
        this.pending = before.pending.compose(this.pending);
        return;
      }
      if (this.editor.state.doc.toString() !== text) return;
      localStorage.removeItem(this.kept);
      this.looked = this.lookedAt(line); // the answer brought the move on it
      this.keepInSight();
      if (this.line() !== line) this.follow(this.line());
    });
  }

  /** The line that the cursor is on. */
  line() {
    return this.editor.state.doc.lineAt(this.editor.state.selection.main.head).number;
  }

  /** @param {Record<string, unknown>} edit @param {string} [burst] */
  edit(edit, burst) {
    this.flush();
    return this.enqueue(async () => { await this.post("edit", { edit: JSON.stringify(edit), burst: burst ?? freshId() }); });
  }

  /** @param {"undo" | "redo"} way */
  step(way) {
    this.flush();
    this.enqueue(async () => { await this.post(way, {}); });
    return true;
  }

  /** @param {() => Promise<void>} job */
  enqueue(job) {
    this.busy += 1;
    this.queue = this.queue.then(job).catch((error) => this.say(String(error.message ?? error))).finally(() => {
      this.busy -= 1;
    });
    return this.queue;
  }

  /** Send until it is taken or refused; whether it was taken. @param {string} path @param {Record<string, string>} fields */
  async post(path, fields) {
    const body = new URLSearchParams({
      op: freshId(),
      base: String(this.version),
      block: String(this.block),
      part: String(this.part),
      ...fields,
    });
    for (let again = AGAIN_MS; ; again = Math.min(MOST_AGAIN_MS, again * 2)) {
      let said = "Not reached: what you typed is kept here and sent again.";
      try {
        const signal = AbortSignal.timeout(LIMIT_MS);
        const answer = await fetch(`${this.url}/${path}`, { method: "POST", body, signal, headers: { "x-lovrit": "1" } });
        const text = await answer.text();
        if (answer.ok) {
          this.adopt(text);
          if (path !== "text") this.told(path);
          return true;
        }
        said = `${text || "That did not work."} What you typed is kept here.`;
        if (answer.status < 500 && answer.status !== 401 && answer.status !== 429) {
          this.say(answer.status === 409 || answer.status === 422 ? text : said);
          return false;
        }
      } catch (error) {
        if (!(error instanceof TypeError || error instanceof DOMException)) throw error;
      }
      this.say(said);
      await new Promise((done) => setTimeout(done, again));
    }
  }

  /** What came of a press, for who doesn't see it: the session as it is by now. @param {string} path */
  told(path) {
    const told = document.getElementById("told");
    const sums = document.getElementById("readout")?.textContent?.replace(/\s+/g, " ").trim() ?? "";
    if (told) told.textContent = `${TOLD[path] ?? "Changed"}. ${sums}`;
  }

  /** The page follows an answer; what was typed meanwhile stays. @param {string} html */
  adopt(html) {
    const before = this.synced;
    this.swap(html);
    this.root.classList.toggle("with-panel", document.getElementById("panel")?.hidden === false);
    if (!html.includes("slate-now")) return;
    document.title = document.querySelector("#title .retitle")?.textContent ?? document.title;
    const now = this.now();
    this.version = Number(now.dataset.version);
    this.block = Number(now.dataset.block);
    this.part = Number(now.dataset.partShown);
    const text = now.textContent ?? "";
    const theirs = difference(before, text);
    if (!theirs.empty) {
      this.editor.dispatch({ changes: theirs.map(this.pending), annotations: remote.of(true) });
      this.pending = this.pending.map(theirs, true);
    }
    this.synced = text;
    if (now.dataset.collided === "1") this.say("The same lines were written elsewhere; both are kept on the slate.");
    else this.say("");
    this.showProblems();
  }

  /** @param {string} html */
  swap(html) {
    const active = document.activeElement;
    const focused = active instanceof HTMLElement || active instanceof SVGElement ? active : null;
    const key = focusWanted() || focused?.dataset.key || "";
    const inside = Boolean(focused?.closest("#rails, #look, #problems, #steps, #tape, #why, #panel")) || active === document.body;
    swapParts(html);
    if (key && inside) {
      const again = document.querySelector(`[data-key="${CSS.escape(key)}"]`);
      if (again instanceof HTMLElement || again instanceof SVGElement) again.focus();
    }
  }

  /** @returns {{line: number, column: number, text: string}[]} */
  problems() {
    return JSON.parse(this.now().dataset.problems ?? "[]");
  }

  showProblems() {
    const problems = this.problems();
    showProblems(this.editor, problems);
    const box = this.editor.contentDOM;
    box.setAttribute("aria-invalid", String(problems.length > 0));
    if (problems.length) box.setAttribute("aria-describedby", "problems");
    else box.removeAttribute("aria-describedby");
    showClocks(this.editor, JSON.parse(this.now().dataset.clocks ?? "[]"));
  }

  /** Take the nearest line that would be read, for the line the cursor is on, or the first. */
  take() {
    const doc = this.editor.state.doc;
    const line = doc.lineAt(this.editor.state.selection.main.head).number;
    const forms = [...document.querySelectorAll("#problems .problem")];
    const mine = forms.find((one) => Number(/** @type {HTMLElement} */ (one).dataset.line) === line) ?? forms[0];
    const form = mine?.querySelector("form");
    if (form) form.requestSubmit();
    return true;
  }

  /** To the next line that something is said of, or the one before. @param {1 | -1} way */
  nextPlace(way) {
    const here = this.line();
    const lines = [...document.querySelectorAll("#problems .goto, #look .goto")]
      .map((one) => Number(/** @type {HTMLElement} */ (one).dataset.goto)).sort((a, b) => (a - b) * way);
    const next = lines.find((line) => (line - here) * way > 0) ?? lines[0];
    if (next) this.goto(next);
    return true;
  }

  /** @param {number} line @param {number} [column] */
  goto(line, column = 1) {
    const doc = this.editor.state.doc;
    if (line > doc.lines) return;
    const at = doc.line(line);
    this.editor.dispatch({
      selection: { anchor: Math.min(at.to, at.from + column - 1) },
      effects: EditorView.scrollIntoView(at.from, { y: "center" }),
    });
    this.editor.focus();
  }

  /** The lines that blocks begin on, as the server last said. */
  lines() {
    return (this.now().dataset.lines ?? "").split(",").filter(Boolean).map(Number);
  }

  /** A file dropped on the page, a slate or its JSON or CSV form, is put behind the last block. @param {DragEvent} event */
  async dropped(event) {
    const file = event.dataTransfer?.files[0];
    if (!file) return;
    event.preventDefault();
    if (file.size > 262_144) {
      this.say("That file is larger than 256 KiB, far more than a session needs.");
      return;
    }
    const text = (await file.text()).replaceAll("\r\n", "\n");
    if (text.includes("\u0000")) this.say("That file is not text.");
    else this.put(await this.slateOf(text));
  }

  /** Blocks of another slate behind the last one; its headers come along only where there is nothing yet. @param {string} slate */
  put(slate) {
    if (!slate) return;
    const blocks = slate.split("\n").filter((line) => !/^(title|date|slot|people|setup):/i.test(line)).join("\n").trim();
    if (this.lines().length) this.edit({ do: "insert", at: 5000, text: blocks });
    else this.enqueue(async () => { await this.post("text", { text: slate }); });
  }

  /** A form of a block where the cursor is: on an empty line, else under the block that the cursor is in. @param {string} form */
  putForm(form) {
    const doc = this.editor.state.doc;
    const here = this.line();
    const empty = !doc.line(here).text.trim();
    const next = this.lines().find((line) => line > here);
    const last = empty ? here : (next ?? doc.lines + 1) - 1;
    const at = empty ? doc.line(here).from : doc.line(last).to;
    const insert = empty ? form : `${doc.line(last).text.trim() ? "\n" : ""}\n${form}`;
    const end = at + insert.trimEnd().length;
    this.editor.dispatch({ changes: { from: at, to: empty ? doc.line(here).to : at, insert }, selection: { anchor: end } });
    this.editor.focus();
  }

  /** The title, changed where it stands; it is a line of the slate like any other. @param {string} title */
  retitle(title) {
    const doc = this.editor.state.doc;
    const insert = `title: ${title}`;
    for (let nth = 1; nth <= doc.lines; nth += 1) {
      const line = doc.line(nth);
      if (/^title\s*:/i.test(line.text)) return this.editor.dispatch({ changes: { from: line.from, to: line.to, insert } });
    }
    return this.editor.dispatch({ changes: { from: 0, insert: `${insert}\n` } });
  }

  /** A file's text as a slate; empty where it could not be read, and said. @param {string} text */
  async slateOf(text) {
    const json = text.trimStart().startsWith("{");
    if (!json && !/^[\w ]+(,[\w ]+)+\n/.test(text)) return text;
    const path = json ? "/api/write/slate" : "/api/read/csv";
    const body = json ? text : JSON.stringify({ csv: text });
    const answer = await fetch(path, { method: "POST", body, headers: { "content-type": "application/json" } });
    if (!answer.ok) {
      this.say(`That file is not a session in its ${json ? "JSON" : "CSV"} form.`);
      return "";
    }
    if (json) return answer.text();
    const made = await answer.json();
    if (made.left_out.length) this.say(`Left out: ${made.left_out.join("; ")}`);
    return made.slate;
  }

  /** The rails follow the cursor. @param {number} line */
  follow(line) {
    this.lookAt(line);
    this.offerForms(line);
    const block = this.lines().findLastIndex((first) => first <= line);
    if (block >= 0 && block !== this.block && this.pending.empty) this.show(block, 0);
  }

  /** The card of forms opens when it is asked for, and folds where a line is written. @param {number} line */
  offerForms(line) {
    const forms = document.getElementById("forms");
    const doc = this.editor.state.doc;
    if (!(forms instanceof HTMLDetailsElement) || forms.contains(document.activeElement)) return;
    if (doc.line(Math.min(line, doc.lines)).text) forms.open = false;
  }

  /** What is looked at on a line: the same words on the same line need no second look. @param {number} line */
  lookedAt(line) {
    return `${line} ${this.editor.state.doc.line(Math.min(line, this.editor.state.doc.lines)).text}`;
  }

  /** The cursor stays in sight when a move is shown below the slate. */
  keepInSight() {
    const head = this.editor.state.selection.main.head;
    const effects = EditorView.scrollIntoView(head, { yMargin: 24 });
    requestAnimationFrame(() => this.editor.dispatch({ effects, annotations: remote.of(true) }));
  }

  /** The move on the cursor's line is shown beside the slate. @param {number} line */
  lookAt(line) {
    const said = this.lookedAt(line);
    if (said === this.looked || !this.pending.empty) return;
    this.looked = said;
    const text = this.editor.state.doc.line(Math.min(line, this.editor.state.doc.lines)).text;
    clearTimeout(this.looking);
    this.looking = window.setTimeout(async () => {
      const move = document.getElementById("move");
      if (!/^\s+\S/.test(text)) {
        if (move) move.hidden = true;
        return;
      }
      const answer = await fetch(`${this.url}/move?line=${line}`, { headers: { "x-lovrit": "1" } });
      if (!answer.ok) return;
      swapParts(await answer.text());
      this.keepInSight();
    }, AFTER_TYPING_MS);
  }

  /** @param {number} block @param {number} part */
  show(block, part) {
    this.block = block;
    this.part = part;
    return this.enqueue(() => this.refresh());
  }

  async refresh() {
    const answer = await fetch(`${this.url}/parts?block=${this.block}&part=${this.part}`, { headers: { "x-lovrit": "1" } });
    if (answer.ok) this.adopt(await answer.text());
  }

  /** @param {string} text */
  say(text) {
    const said = document.getElementById("said");
    if (said && said.textContent !== text) said.textContent = text;
  }

  listen() {
    const send = (/** @type {Record<string, unknown>} */ edit, /** @type {string | undefined} */ burst) => this.edit(edit, burst);
    handleFigures(this.root, send);
    handleStations(this.root, send);
    handleBlocks(this.root, send, {
      text: () => this.editor.state.doc.toString(),
      lines: () => this.lines(),
      shown: () => this.block,
    });
    handlePanel(this.root, {
      url: this.url,
      block: () => this.block,
      settled: () => { this.flush(); return this.enqueue(async () => {}); },
      take: (text) => { this.flush(); return this.enqueue(async () => { await this.post("text", { text }); }); },
      write: () => this.editor.focus(),
      look: (path, fields) => this.enqueue(async () => { await this.post(path, fields); }),
    });
    handlePaste(this.editor.dom, {
      empty: () => !this.editor.state.doc.toString().trim(),
      put: (text) => this.editor.dispatch(this.editor.state.replaceSelection(text)),
      read: (text) => { this.flush(); this.enqueue(async () => { await this.post("message", { text, said: "", was: "" }); }); },
    });
    this.root.addEventListener("dragover", (event) => event.preventDefault());
    this.root.addEventListener("drop", (event) => this.dropped(event));
    this.root.addEventListener("submit", (event) => this.submitted(event));
    this.root.addEventListener("click", (event) => this.clicked(event));
    document.addEventListener("keydown", (event) => this.pressed(event));
    document.addEventListener("keydown", (event) => this.redone(event), true);
    listenOn(`desk-${this.root.dataset.session}`, {
      version: (data) => {
        if (Number(data) <= this.version || this.busy) return;
        this.flush();
        this.enqueue(async () => { if (Number(data) > this.version) await this.refresh(); });
      },
    });
  }

  /** @param {SubmitEvent} event */
  submitted(event) {
    const form = /** @type {HTMLFormElement} */ (event.target);
    if (form.matches(".edit")) {
      event.preventDefault();
      if (form.closest("#why")) form.closest("#why")?.setAttribute("hidden", "");
      this.edit(JSON.parse(String(new FormData(form).get("edit"))));
      this.editor.focus(); // the next letters are meant for the slate
    } else if (form.matches(".step")) {
      event.preventDefault();
      this.step(form.action.endsWith("undo") ? "undo" : "redo");
    } else if (form.id === "slate-form") {
      event.preventDefault();
      this.flush();
    } else if ((form.id === "floor-form" || form.matches(".try-form")) && !this.pending.empty) {
      event.preventDefault();
      this.flush().then(() => form.submit());
    }
  }

  /** @param {MouseEvent} event */
  clicked(event) {
    const target = /** @type {Element} */ (event.target);
    const form = target.closest("[data-form]");
    if (form instanceof HTMLElement) {
      this.putForm(form.dataset.form ?? "");
      return;
    }
    const title = target.closest(".retitle");
    if (title instanceof HTMLElement) {
      askAt(title, { said: "Title", value: title.textContent ?? "" }, (text) => this.retitle(text));
      return;
    }
    const goto = target.closest(".goto");
    if (goto instanceof HTMLElement || goto instanceof SVGElement) {
      event.preventDefault();
      this.goto(Number(goto.dataset.goto), Number(goto.dataset.column ?? 1));
      return;
    }
    if (target.closest(".why-close")) {
      this.hideWhy();
      return;
    }
    const figure = target.closest("[data-why]");
    if (figure instanceof HTMLElement) {
      event.preventDefault();
      this.why(figure.dataset.why ?? "");
      return;
    }
    const link = target.closest(".stretch, .windows a");
    if (link instanceof HTMLElement || link instanceof SVGElement) {
      event.preventDefault();
      this.show(Number(link.dataset.block), Number(link.dataset.shown ?? 0));
    }
  }

  /** @param {string} figure */
  async why(figure) {
    const answer = await fetch(`${this.url}/why/${figure}`, { headers: { "x-lovrit": "1" } });
    swapParts(await answer.text());
  }

  /** Shift with a small z, as caps lock makes it, redoes as well. @param {KeyboardEvent} event */
  redone(event) {
    if (!(event.ctrlKey || event.metaKey) || !event.shiftKey || event.key !== "z") return;
    event.preventDefault();
    event.stopPropagation();
    this.step("redo");
  }

  /** Keys of the page, wherever the hand is. @param {KeyboardEvent} event */
  pressed(event) {
    const elsewhere = !typing(event.target);
    const key = (event.ctrlKey || event.metaKey ? "Ctrl-" : "") + (event.altKey ? "Alt-" : "") + (event.altKey ? event.code : event.key.toLowerCase());
    const inPlace = event.target instanceof Element && event.target.closest(".station, .stretch, .deeds-of");
    /** @type {Record<string, (() => void) | false>} */
    const does = {
      "Ctrl-z": elsewhere && (() => this.step(event.shiftKey ? "redo" : "undo")),
      "Ctrl-y": elsewhere && (() => this.step("redo")),
      "Alt-ArrowDown": elsewhere && !inPlace && (() => this.nextPlace(1)),
      "Alt-ArrowUp": elsewhere && !inPlace && (() => this.nextPlace(-1)),
      "Alt-Enter": elsewhere && (() => this.take()),
      "Alt-BracketLeft": () => this.stepBlock(-1),
      "Alt-BracketRight": () => this.stepBlock(1),
    };
    if (event.key === "Escape") this.hideWhy();
    const run = does[key];
    if (!run) return;
    event.preventDefault();
    run();
  }

  /** The block before the one that is open, or after it. @param {1 | -1} way */
  stepBlock(way) {
    focusNext("");
    this.show(Math.min(this.lines().length - 1, Math.max(0, this.block + way)), 0);
  }

  hideWhy() {
    if (closeDeeds()) return;
    const why = document.getElementById("why");
    if (why) why.hidden = true;
  }
}

const root = document.getElementById("desk");
if (root) Object.assign(window, { desk: new Desk(root) });
