"""What people may see of the weeks that come, as it was published last; asked by the board and by members' pages."""

from pydantic import TypeAdapter
from sqlmodel import Session as Work

from lovrit.core.weeks.publish import Shown
from lovrit.store import club, people

_SHOWN: TypeAdapter[list[Shown]] = TypeAdapter(list[Shown])


def shown(work: Work) -> tuple[Shown, ...]:
    """What people see by now."""
    return tuple(_SHOWN.validate_python(club.choice(work, "shown") or []))


def shown_to(work: Work, person_id: int) -> tuple[Shown, ...]:
    """What one person sees: what they are down for, and what nobody is down for yet."""
    seen = shown(work)
    down = people.who_comes(work, [one.session for one in seen])
    return tuple(one for one in seen if not down.get(one.session) or person_id in down[one.session])
