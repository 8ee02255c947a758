"""Tasks under a period without labels: one a turn, or all of them in every turn; asked where either could be."""

from collections.abc import Iterator
from dataclasses import replace

from lovrit.core.blocks.worktime import line_s
from lovrit.core.moves.library import shipped
from lovrit.core.reading.draft import Draft
from lovrit.core.reading.giving import seconds_in
from lovrit.core.reading.line import Task
from lovrit.core.reading.written import task_line
from lovrit.core.session.movelines import read_move
from lovrit.core.slate.problem import Unreadable

FULL = 0.9  # of a turn: what takes longer than this can't all be done in it


def ways_of_turns(draft: Draft) -> Iterator[Draft]:
    """The block as it stands, or with all its tasks in one turn, or both where nobody can know."""
    alone = draft.moves < 2 or "period" not in draft.roles or "turns" in draft.own_roles()
    said = "alternating" in draft.roles or any(draft.labels) or "work" in draft.roles
    if alone or said or any(line[0].name == "rest" for line in draft.tasks):
        yield draft
        return
    period = seconds_in(draft.roles["period"])
    fits = _lasts(draft) <= FULL * period
    rounds = "rounds" in draft.roles
    if not (rounds and fits):
        yield draft
    if fits:
        yield replace(draft, tasks=[[one for line in draft.tasks for one in line]])


def _lasts(draft: Draft) -> float:
    """Seconds that all its tasks take a usual person; nothing where one of them isn't known."""
    return sum(_line_lasts(line) for line in draft.tasks)


def _line_lasts(line: list[Task]) -> float:
    try:
        move = read_move(f"  {task_line(line)}")
    except Unreadable:
        return 0.0  # it is asked about anyway
    return (line_s(move, shipped(), "likely") or 0.0) if move else 0.0
