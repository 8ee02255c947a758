"""A text planned: read, laid on the clock, and every problem with it."""

from dataclasses import dataclass, replace

from lovrit.core.moves.library import Library
from lovrit.core.session.model import Session
from lovrit.core.session.problem import Problem
from lovrit.core.session.reader import BlockPlace, Reading, read
from lovrit.core.timeline.interval import Timeline
from lovrit.core.timeline.lay import TooMuch, lay


@dataclass(frozen=True)
class Plan:
    """What could be read, on the clock, what stands in the way of the rest, and the moves it was laid out with."""

    reading: Reading
    timeline: Timeline
    library: Library

    @property
    def session(self) -> Session:
        """The session of all that could be read."""
        return self.reading.session

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
    while True:
        try:
            return Plan(reading, lay(reading.session, library), library)
        except TooMuch as error:
            reading = _without(reading, error)


def _without(reading: Reading, error: TooMuch) -> Reading:
    at = error.block
    problem = Problem(line=reading.blocks[at].line, column=1, text=str(error))
    blocks = reading.session.blocks
    return replace(
        reading,
        session=reading.session.model_copy(update={"blocks": blocks[:at] + blocks[at + 1 :]}),
        blocks=reading.blocks[:at] + reading.blocks[at + 1 :],
        problems=tuple(sorted((*reading.problems, problem), key=lambda one: (one.line, one.column))),
    )
