// The slate's editor: CodeMirror with our words, errors at their place, and completion.
import { autocompletion, completionKeymap } from "@codemirror/autocomplete";
import { defaultKeymap, indentWithTab } from "@codemirror/commands";
import { HighlightStyle, StreamLanguage, syntaxHighlighting } from "@codemirror/language";
import { lintGutter, setDiagnostics } from "@codemirror/lint";
import { Annotation, ChangeSet, EditorState, RangeSet, StateEffect, StateField } from "@codemirror/state";
import { EditorView, gutter, GutterMarker, keymap } from "@codemirror/view";
import { tags } from "@lezer/highlight";

/** Marks a change that came from the server. */
export const remote = Annotation.define();

/**
 * The notation's words as the server has them: headers, and what has a meaning of its own on a line.
 * @param {Record<string, string[]>} words
 */
function vocabulary(words) {
  const headers = (words.start ?? []).filter((one) => one.endsWith(":")).map((one) => one.slice(0, -1));
  return { headers: new RegExp(`^(${headers.join("|")}):`, "i"), words: new Set(words.word ?? []) };
}

/**
 * How a slate is coloured.
 * @param {ReturnType<typeof vocabulary>} known
 */
function language(known) {
  return StreamLanguage.define({
    name: "slate",
    startState: () => ({ indented: false }),
    token(stream, state) {
      if (stream.sol()) {
        state.indented = /^[ \t]/.test(stream.string);
        if (stream.match(known.headers)) {
          if (/^(title|note)/i.test(stream.current())) stream.match(/^[^#]*/);
          return "heading";
        }
      }
      if (stream.eatSpace()) return null;
      if (state.indented && stream.match(/^note\s*:[^#]*/i)) return "heading"; // said to people, and no move
      if (stream.peek() === "#") {
        stream.skipToEnd();
        return "comment";
      }
      if (stream.match(/^\d+(:\d\d)*(\.\d+)?/)) return state.indented ? "literal" : "number";
      if (stream.match(/^[^\W\d_][\w-]*/u)) {
        if (known.words.has(stream.current().toLowerCase())) return "keyword";
        return state.indented ? "content" : "name";
      }
      stream.next();
      return "punctuation";
    },
  });
}

const colours = HighlightStyle.define([
  { tag: tags.heading, class: "s-header" },
  { tag: tags.comment, class: "s-comment" },
  { tag: tags.number, class: "s-number" },
  { tag: tags.literal, class: "s-amount" },
  { tag: tags.keyword, class: "s-word" },
  { tag: tags.name, class: "s-name" },
  { tag: tags.punctuation, class: "s-mark" },
]);

/** Whether lines may stand below this one: below every block but a rest. @param {string} text @param {RegExp} headers */
export function takesLines(text, headers) {
  const code = text.split("#", 1)[0].trimEnd();
  return Boolean(code) && !/^\s/.test(code) && !headers.test(code) && !/^rest\b/i.test(code);
}

/**
 * Enter keeps the place of lines: below a block that takes some and below one of them the next is indented; on an
 * empty indented line it goes back to the edge.
 * @param {RegExp} headers
 * @returns {import("@codemirror/view").Command}
 */
const newLine = (headers) => (view) => {
  const { from, to } = view.state.selection.main;
  const line = view.state.doc.lineAt(from);
  const indent = /^[ \t]*/.exec(line.text)?.[0] ?? "";
  if (indent && !line.text.trim() && from === to) {
    view.dispatch({ changes: { from: line.from, to: line.to }, userEvent: "input" });
    return true;
  }
  const before = line.text.slice(0, from - line.from);
  const next = indent || (takesLines(before, headers) ? "  " : "");
  view.dispatch(view.state.replaceSelection(`\n${next}`), { scrollIntoView: true, userEvent: "input" });
  return true;
};

/** When a block begins, told in the margin beside its first line. */
class Begins extends GutterMarker {
  /** @param {string} clock */
  constructor(clock) {
    super();
    this.clock = clock;
  }

  /** @param {Begins} other */
  eq(other) {
    return other.clock === this.clock;
  }

  toDOM() {
    return document.createTextNode(this.clock);
  }
}

/** @type {import("@codemirror/state").StateEffectType<{line: number, clock: string}[]>} */
const begins = StateEffect.define();
const clocks = StateField.define({
  create: () => /** @type {RangeSet<Begins>} */ (RangeSet.empty),
  update(marks, change) {
    for (const effect of change.effects) {
      if (!effect.is(begins)) continue;
      const known = effect.value.filter((one) => one.line <= change.state.doc.lines);
      return RangeSet.of(known.map((one) => new Begins(one.clock).range(change.state.doc.line(one.line).from)), true);
    }
    return marks.map(change.changes);
  },
});
const margin = [clocks, gutter({ class: "cm-clocks", markers: (view) => view.state.field(clocks), initialSpacer: () => new Begins("00:00") })];

/**
 * Tell when each block begins.
 * @param {EditorView} view
 * @param {{line: number, clock: string}[]} known
 */
export function showClocks(view, known) {
  view.dispatch({ effects: begins.of(known), annotations: remote.of(true) });
}

/**
 * @param {HTMLElement} parent
 * @param {string} text
 * @param {Record<string, string[]>} words
 * @param {{changed: (changes: ChangeSet) => void, moved: (line: number) => void, keys: import("@codemirror/view").KeyBinding[]}} tell
 */
export function makeEditor(parent, text, words, tell) {
  const known = vocabulary(words);
  const view = new EditorView({
    parent,
    state: EditorState.create({
      doc: text,
      extensions: [
        EditorView.cspNonce.of(document.body.dataset.nonce ?? ""),
        keymap.of([...tell.keys, ...completionKeymap, { key: "Enter", run: newLine(known.headers) }, ...defaultKeymap, { ...indentWithTab, key: "Ctrl-]" }]),
        language(known),
        syntaxHighlighting(colours),
        margin,
        lintGutter(),
        autocompletion({ override: [completer(words)], icons: false, activateOnTyping: true }),
        EditorView.lineWrapping,
        EditorView.contentAttributes.of({ "aria-label": "The session’s text", tabindex: "0", spellcheck: "false" }),
        EditorView.updateListener.of((update) => {
          const own = update.transactions.every((one) => one.annotation(remote) === undefined);
          if (update.docChanged && own) tell.changed(update.changes);
          if (update.selectionSet && own) {
            tell.moved(update.state.doc.lineAt(update.state.selection.main.head).number);
          }
        }),
      ],
    }),
  });
  return view;
}

/** @param {Record<string, string[]>} words @returns {import("@codemirror/autocomplete").CompletionSource} */
function completer(words) {
  return (context) => {
    const line = context.state.doc.lineAt(context.pos);
    const before = line.text.slice(0, context.pos - line.from);
    if (before.includes("#")) return null;
    const word = /[^\W\d_][\w -]*$/u.exec(before)?.[0] ?? "";
    if (!word && !context.explicit) return null;
    const from = context.pos - word.trimStart().length;
    const indented = /^[ \t]/.test(before);
    let kinds = ["move"];
    if (!indented) kinds = before.trim() === word.trim() ? ["start"] : ["option"];
    else if (before.includes("|")) kinds = ["kit", "mark"];
    else if (/[,+]\s*[\w -]*$/.test(before)) kinds = ["mark", "move"];
    const options = kinds.flatMap((kind) => (words[kind] ?? []).map((label) => ({ label, type: kind })));
    return { from, options, validFor: /^[\w -]*$/ };
  };
}

/**
 * Put problems at their places.
 * @param {EditorView} view
 * @param {{line: number, column: number, text: string}[]} problems
 */
export function showProblems(view, problems) {
  const doc = view.state.doc;
  const found = problems.filter((one) => one.line <= doc.lines).map((one) => {
    const line = doc.line(one.line);
    const from = Math.min(line.to, line.from + Math.max(0, one.column - 1));
    const word = /^\S+/.exec(doc.sliceString(from, line.to))?.[0].length ?? 0;
    return { from: word ? from : line.from, to: Math.max(from + word, line.from), severity: /** @type {const} */ ("error"), message: one.text };
  });
  view.dispatch(setDiagnostics(view.state, found), { annotations: remote.of(true) });
}

/**
 * The smallest single replacement that turns one text into another.
 * @param {string} before
 * @param {string} after
 */
export function difference(before, after) {
  let start = 0;
  const most = Math.min(before.length, after.length);
  while (start < most && before[start] === after[start]) start += 1;
  let end = 0;
  while (end < most - start && before[before.length - 1 - end] === after[after.length - 1 - end]) end += 1;
  return ChangeSet.of(
    { from: start, to: before.length - end, insert: after.slice(start, after.length - end) },
    before.length,
  );
}
