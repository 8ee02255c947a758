"""The thread of a session as it stands: what each of its steps has or lacks, gathered once for every page."""

from typing import NamedTuple

from sqlmodel import Session as Work

from lovrit.core.advice.look import second_look
from lovrit.core.tonight.people import HARD
from lovrit.core.tonight.thread import (
    After,
    Floor,
    Step,
    StepKey,
    Text,
    Where,
    Who,
    after_step,
    floor_step,
    where_step,
    who_step,
    write_step,
)  # fmt: skip
from lovrit.core.tonight.which import in_words
from lovrit.house.company import company_here
from lovrit.house.evening import InHall, clashes_in, evening_of, stood
from lovrit.house.house import House
from lovrit.house.live import Live
from lovrit.store import answers, classes, club
from lovrit.store.tables import SessionRow

# whatever a step is told of; the steps are worked out anew once one of these was written to
RESTS_ON = frozenset(
    {"session", "person", "comes", "club", "own_move", "aside", "answer", "class", "class_event", "class_record"}
)  # fmt: skip
CLASS = frozenset({"class", "class_event"})
PATHS: dict[StepKey, str] = {
    "write": "/desk/{0}", "who": "/crew/{0}", "where": "/hall/{0}", "floor": "/run/of/{0}", "after": "/debrief/of/{0}",
}  # fmt: skip


class Thread(NamedTuple):
    """A session's steps; ``when`` is its evening in words, empty where it has no day."""

    id: int
    title: str
    when: str
    steps: tuple[tuple[Step, str], ...]


def thread_of(house: House, session_id: int) -> Thread:
    """The thread of a session.

    Raises:
        Gone: if there is none of this number.
    """
    with house.database.work() as work:
        key = ("thread", session_id, house.today, house.library_key)
        return house.facts.resting_on(work, RESTS_ON, key, lambda: _made(house, work, session_id))


def _made(house: House, work: Work, session_id: int) -> Thread:
    now = evening_of(house, work, session_id)
    steps = (
        write_step(_text(house, work, now)),
        who_step(_who(work, now)),
        where_step(_where(house, now)),
        floor_step(_floor(house, work, now.row)),
        after_step(_after(house, work, now.row)),
    )
    when = said_when(house, now)
    return Thread(
        session_id,
        now.row.title or "Untitled session",
        when,
        tuple((one, PATHS[one.key].format(session_id)) for one in steps),
    )


def said_when(house: House, now: InHall) -> str:
    """When a session's evening is, in words; empty where it has no day."""
    slot, today = now.plan.session.slot, house.when(house.now_ms()).replace(tzinfo=None)
    return in_words(now.row.day, today, slot.begins if slot else None) if now.row.day else ""


def _text(house: House, work: Work, now: InHall) -> Text:
    typed = house.plan(now.row.text)
    groups = len({group for _, group in now.comers})
    company = company_here(
        house, work, now.row, typed, [one for one, _ in now.comers], groups or None
    )
    aside = frozenset(one.code for one in club.asides(work, now.row.id))
    levels = [note.level for note in second_look(typed, house.library, company, aside)]
    slot = typed.session.slot
    return Text(
        typed.timeline.total_s,
        slot.seconds if slot else 0,
        len(typed.problems),
        levels.count("stop"),
        levels.count("weigh"),
    )


def _who(work: Work, now: InHall) -> Who:
    here = {one.id for one, _ in now.comers}
    said = answers.of_session(work, now.row.id or 0)
    effort = max((one.effort or 0 for one in now.plan.timeline.intervals), default=0)
    return Who(
        len(here),
        len({group for _, group in now.comers}),
        sum(one.comes and one.person not in here for one in said),
        sum(not one.comes and one.person in here for one in said),
        sum(one.cleared == "not yet" for one, _ in now.comers) if effort >= HARD else 0,
    )


def _where(house: House, now: InHall) -> Where:
    here = stood(now, house.library) if now.hall.spots else None
    stations = 0 if now.at is None else len(now.plan.session.blocks[now.at].moves)
    clashes = clashes_in(now, house)
    return Where(stations, bool(now.hall.spots), len(here.told.spots) if here else 0, clashes)


def _floor(house: House, work: Work, row: SessionRow) -> Floor:
    for open_ in classes.open_of(work, row.id or 0):
        begun = classes.has_begun(work, open_.id or 0)
        return Floor("on" if begun else "ready", f"{house.when(open_.made_ms):%H:%M}")
    return Floor()


def _after(house: House, work: Work, row: SessionRow) -> After:
    ran = classes.of_sessions(work, [row.id or 0])
    if not ran:
        return After()
    missing, unfelt = unwritten(house, work, ran[-1].id or 0)
    return After(f"{house.when(ran[-1].made_ms):%-d %b}", missing, unfelt)


def unwritten(house: House, work: Work, class_id: int) -> tuple[int, bool]:
    """How many blocks that were run want a score and have none, and whether nobody said how hard it was."""
    key = ("written down", class_id)
    return house.facts.resting_on(work, CLASS, key, lambda: _unwritten(house, class_id))


def _unwritten(house: House, class_id: int) -> tuple[int, bool]:
    live = Live(house.database, class_id, house.now_ms())
    state, blocks = live.state, live.plan.session.blocks
    ran = {live.plan.timeline.intervals[lap.interval].block for lap in state.laps}
    told = {one.block for one in state.scores} | {one.block for one in state.taps}
    wanted = {at for at, block in enumerate(blocks) if block.asks_for and at in ran}
    return len(wanted - told), not state.felt and bool(ran)
