"""Two people at one slate: lines of both are kept, and where both wrote the same lines, neither is lost."""

from collections import Counter
from collections.abc import Iterator
from difflib import SequenceMatcher
from typing import NamedTuple

ALSO = "# at the same time: "
# comparing lines can take as long as their number squared; a session of this length is none any more
MOST_BYTES = 64 * 1024


class _Same(NamedTuple):
    """Lines that all three have: where they begin in each, and how many there are."""

    base: int
    theirs: int
    mine: int
    lines: int


def merge(base: str, theirs: str, mine: str) -> tuple[str, bool]:
    """Merge two texts that began as ``base``, and say whether they collided.

    Where both changed the same lines, mine stand and theirs are kept above them as comments. Texts over 64 KiB are
    not merged: mine stands, and theirs is one step back in the history.
    """
    if theirs in (base, mine):
        return mine, False
    if max(len(base), len(theirs), len(mine)) > MOST_BYTES:
        return mine, True
    texts = [text.split("\n") for text in (base, theirs, mine)]
    merged, collided = _by_stretches(texts)
    if _lacks(merged, *texts):  # both moved lines: what one takes out here the other puts in there
        merged = []
        collided = _stretch(merged, *texts)
    return "\n".join(merged), collided


def _by_stretches(texts: list[list[str]]) -> tuple[list[str], bool]:
    """What one of both changed, stretch by stretch."""
    merged: list[str] = []
    collided = False
    at = (0, 0, 0)
    for same in _same(*texts):
        ends = (same.base, same.theirs, same.mine)
        before, of_theirs, of_mine = (
            lines[a:b] for lines, a, b in zip(texts, at, ends, strict=True)
        )
        collided |= _stretch(merged, before, of_theirs, of_mine)
        merged += texts[0][same.base : same.base + same.lines]
        at = (same.base + same.lines, same.theirs + same.lines, same.mine + same.lines)
    return merged, collided


def _lacks(merged: list[str], base: list[str], theirs: list[str], mine: list[str]) -> bool:
    """Whether a line that all three have has gone, or stands oftener than in any of them."""
    every = [Counter(base), Counter(theirs), Counter(mine)]
    now = Counter(merged)
    kept = every[0] & every[1] & every[2]
    most = every[0] | every[1] | every[2]
    return any(now[one] < many for one, many in kept.items()) or any(
        now[one] > most[one] for one in kept if one.strip()
    )


def _stretch(merged: list[str], before: list[str], theirs: list[str], mine: list[str]) -> bool:
    """Add what stands between two stretches that all three have; whether both changed it, each in their own way."""
    if theirs in (before, mine):
        merged += mine
        return False
    if mine == before:
        merged += theirs
        return False
    merged += [_kept(line) for line in theirs if line.strip() and line not in mine]
    merged += mine
    return True


def _same(base: list[str], theirs: list[str], mine: list[str]) -> Iterator[_Same]:
    """The stretches of ``base`` that both others still have, in order; the last is empty and stands at the end."""
    left = SequenceMatcher(None, base, theirs).get_matching_blocks()
    right = SequenceMatcher(None, base, mine).get_matching_blocks()
    nth, other = 0, 0
    while nth < len(left) and other < len(right):
        a, b = left[nth], right[other]
        start, end = max(a.a, b.a), min(a.a + a.size, b.a + b.size)
        if start < end:
            yield _Same(start, a.b + start - a.a, b.b + start - b.a, end - start)
        if a.a + a.size < b.a + b.size:
            nth += 1
        else:
            other += 1
    yield _Same(len(base), len(theirs), len(mine), 0)


def _kept(line: str) -> str:
    text = line.strip()
    return text if text.startswith("#") else f"{ALSO}{text}"
