"""What a coach changed of a class, in words, wherever a class is told afterwards."""

from collections.abc import Iterable, Iterator, Sequence

from lovrit.core.run.events.kind import Telling
from lovrit.core.run.events.kinds import KNOWN
from lovrit.core.run.going import Happening
from lovrit.core.session.session import Session


def changes_said(
    counted: Iterable[Happening], session: Session, labels: Sequence[str]
) -> Iterator[tuple[Happening, str]]:
    """Each event that changed the plan, with what it changed. ``labels`` are what blocks are called."""
    told = Telling({}, session, labels)
    for event in counted:
        kind = KNOWN[event.kind]
        words = kind.said(event, told) if kind.replans else ""
        if words:
            yield event, words
