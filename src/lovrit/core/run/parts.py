"""Parts inside one work: when each begins. Screens, sound and files all ask here."""

from lovrit.core.blocks.worktime import amount_s
from lovrit.core.moves.library import Library
from lovrit.core.slate.line import Line, Way
from lovrit.core.slate.written import way_said


def parts_of(line: Line, work_s: float, library: Library) -> list[tuple[float, str]]:
    """When each part of a work begins, in seconds into it: by its seconds or its reps, else its equal share.

    Where their own seconds are more than the work has, all are shortened alike, so that each has its time.
    """
    parts = line.tasks[0].parts if line.tasks else ()
    own = [_part_s(part, line.tasks[0].name, library) for part in parts]
    asked, open_parts = sum(one or 0 for one in own), own.count(None)
    share = max(0.0, work_s - asked) / open_parts if open_parts else 0.0
    fits = min(1.0, work_s / asked) if asked else 1.0
    begins, at = [], 0.0
    for part, seconds in zip(parts, own, strict=True):
        begins.append((round(at, 3), way_said(part)))
        at += share if seconds is None else seconds * fits
    return begins


def _part_s(part: Way, name: str, library: Library) -> float | None:
    if not part.amount:
        return None
    return amount_s(part.amount, part.name or name, library)
