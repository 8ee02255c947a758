"""What is drawn of a text with lines that can't be read: each as it last could be, else without it."""

from difflib import SequenceMatcher

from lovrit.core.session.reader import read, split_lines


def drawn_text(text: str, good: str) -> str:
    """A text in which each line that can't be read stands as it did in the last text that could be read whole.

    Lines keep their numbers; a line that stood nowhere before is left as it is.
    """
    if not good or text == good:
        return text
    bad = {one.line for one in read(text, 0).problems}
    if not bad:
        return text
    now, before = split_lines(text), split_lines(good)
    for tag, i, j, k, end in SequenceMatcher(None, now, before, autojunk=False).get_opcodes():
        if tag == "replace":
            for nth in range(min(j - i, end - k)):
                if i + nth + 1 in bad:
                    now[i + nth] = before[k + nth]
    return "\n".join(now)


def block_in(text: str, drawn: str, block: int) -> int | None:
    """Where a block of what is drawn stands in the text itself; None where its line can't be read there."""
    places = read(drawn, 0).blocks
    if text == drawn or not 0 <= block < len(places):
        return block
    lines = [one.line for one in read(text, 0).blocks]
    return lines.index(places[block].line) if places[block].line in lines else None
