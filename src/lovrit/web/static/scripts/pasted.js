// A message that is pasted into the slate is read; a slate, or a few lines of one, goes where the cursor is.

/**
 * @typedef {object} Hands
 * @property {() => boolean} empty whether nothing stands on the slate
 * @property {(text: string) => void} put puts a text where the cursor is
 * @property {(text: string) => void} read has a text read as a message
 */

/**
 * Whether a text can only be lines of a slate: one line, or lines that stand in.
 * @param {string} text
 */
export function isLines(text) {
  const lines = text.split("\n").filter((line) => line.trim());
  return lines.length < 2 || /^[ \t]/.test(lines[0] ?? "");
}

/**
 * Whether what was read is the text itself, or nothing but moves that belong below a block.
 * @param {string} text @param {{slate: string, asked: {answers: string[]}[]}} made @param {boolean} empty
 */
export function staysAsItIs(text, made, empty) {
  if (made.slate.trim() === text.trim()) return true;
  const read = made.slate.split("\n").some((line) => line.trim() && !/^(#|title:|note:)/.test(line));
  return !read && !empty;
}

/** @param {HTMLElement} editor @param {Hands} hands */
export function handlePaste(editor, hands) {
  editor.addEventListener("paste", async (event) => {
    const text = (event.clipboardData?.getData("text/plain") ?? "").replaceAll("\r\n", "\n");
    if (isLines(text)) return;
    event.preventDefault();
    event.stopPropagation();
    const body = JSON.stringify({ text });
    const answer = await fetch("/api/read/message", { method: "POST", body, headers: { "content-type": "application/json" } }).catch(() => null);
    if (!answer?.ok || staysAsItIs(text, await answer.json(), hands.empty())) hands.put(text);
    else hands.read(text);
  }, true);
}
