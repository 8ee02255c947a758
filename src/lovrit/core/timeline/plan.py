"""A text planned: read, laid on the clock, and every problem with it."""

from dataclasses import dataclass, replace
from functools import cached_property

from lovrit.core.moves.library import Library
from lovrit.core.session.reader import BlockPlace, Reading, read
from lovrit.core.session.session import Session
from lovrit.core.slate.problem import Problem
from lovrit.core.timeline.interval import Timeline
from lovrit.core.timeline.lay import lay_what_fits
from lovrit.core.timeline.sums import Sums, sums_of


@dataclass(frozen=True)
class Plan:
    """What could be read, on the clock, what stands in the way of the rest, and the moves it was laid out with."""

    reading: Reading
    timeline: Timeline
    library: Library

    @cached_property
    def sums(self) -> Sums:
        """What it comes to; every telling of a figure is this one."""
        return sums_of(self.session, self.timeline)

    @property
    def session(self) -> Session:
        """The session of all that could be read."""
        return self.reading.session

    def on_day(self, day: str) -> "Plan":
        """The same plan on a day (YYYY-MM-DD)."""
        session = self.reading.session.but(date=day)
        return Plan(replace(self.reading, session=session), self.timeline, self.library)

    @property
    def problems(self) -> tuple[Problem, ...]:
        """What could not be read, by line."""
        return self.reading.problems


def plan_text(text: str, library: Library) -> Plan:
    """Read a slate and lay it on the clock; a block that passes a limit becomes a problem of its line."""
    return plan_reading(read(text), library)


def plan_session(session: Session, library: Library) -> Plan:
    """Lay a session that was not read from a slate; its blocks have no lines, so they count as lines."""
    places = tuple(BlockPlace(line=at) for at in range(1, len(session.blocks) + 1))
    return plan_reading(Reading(session=session, blocks=places), library)


def plan_reading(reading: Reading, library: Library) -> Plan:
    """Lay what was read; blocks that pass a limit are left out and said."""
    fitting = lay_what_fits(reading.session, library)
    if not fitting.left_out:
        return Plan(reading, fitting.timeline, library)
    problems = [
        Problem(line=reading.blocks[one.block].line, column=1, text=str(one))
        for one in fitting.left_out
    ]
    blocks = tuple(reading.session.blocks[at] for at in fitting.kept)
    kept = replace(
        reading,
        session=reading.session.but(blocks=blocks),
        blocks=tuple(reading.blocks[at] for at in fitting.kept),
        problems=tuple(
            sorted((*reading.problems, *problems), key=lambda one: (one.line, one.column))
        ),
    )
    return Plan(kept, fitting.timeline, library)
