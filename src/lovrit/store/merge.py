"""Two people at one slate: lines of both are kept, and where both wrote the same lines, neither is lost."""

from merge3 import Merge3

ALSO = "# at the same time: "


def merge(base: str, theirs: str, mine: str) -> tuple[str, bool]:
    """Merge two texts that began as ``base``, and say whether they collided.

    Where both changed the same lines, mine stand and theirs are kept above them as comments.
    """
    merged: list[str] = []
    collided = False
    merging = Merge3(base.split("\n"), theirs.split("\n"), mine.split("\n"))
    for group in merging.merge_groups():
        if group[0] != "conflict":
            merged += group[1]
            continue
        collided = True
        _, _, of_theirs, of_mine = group
        merged += [_kept(line) for line in of_theirs if line.strip() and line not in of_mine]
        merged += of_mine
    return "\n".join(merged), collided


def _kept(line: str) -> str:
    text = line.strip()
    return text if text.startswith("#") else f"{ALSO}{text}"
