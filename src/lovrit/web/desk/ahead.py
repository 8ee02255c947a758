"""What the open block is likely to come to for those who come: hearts on its clock, and a sentence.

It follows an edit a moment later, in a fragment of its own: a slate is answered before anybody's heart is foreseen.
"""

from typing import NamedTuple

from sqlmodel import Session as Work

from lovrit.core.crew.person import Person
from lovrit.core.forecast.group import Someone
from lovrit.core.forecast.learned import Quickness
from lovrit.core.timeline.plan import Plan
from lovrit.house.house import House
from lovrit.store import people
from lovrit.store.tables import SessionRow
from lovrit.web.desk.corridor import CorridorStrip, corridor_strip
from lovrit.web.desk.panel import crowd_said
from lovrit.web.desk.rails import rails_view
from lovrit.web.desk.told import told_of

PEOPLE = frozenset({"person", "comes", "club"})  # tables that a forecast of those who come rests on


class Ahead(NamedTuple):
    """What stands under the rails of a block."""

    hearts: CorridorStrip | None = None
    crowd: str = ""


def ahead_of(house: House, work: Work, row: SessionRow, shown: tuple[int, int]) -> Ahead:
    """The forecast of a block of a session (and the part of it that is shown) for those who come to it."""
    text, at = row.good_text or row.text, (max(0, shown[0]), shown[1])

    def made() -> Ahead:
        who = [one for one, _ in people.comers(work, row.id or 0)]
        return _ahead(house, house.plan(text), who, at)

    key = ("ahead", row.id, text, house.library_key, at)
    return house.facts.resting_on(work, PEOPLE, key, made)


def _ahead(house: House, plan: Plan, who: list[Person], shown: tuple[int, int]) -> Ahead:
    rails = rails_view(plan, 1, *shown)
    if rails is None:
        return Ahead()
    crowd = _crowd(house, plan, rails.block, who) if _for_group(plan, rails.block) else ""
    return Ahead(corridor_strip(plan, rails, who), crowd)


def _for_group(plan: Plan, at: int) -> bool:
    """Whether there may be something to say of a block for everyone who comes."""
    block = plan.session.blocks[at]
    return block.pace is not None or bool(told_of(plan, block).said)


def _crowd(house: House, plan: Plan, block: int, who: list[Person]) -> str:
    """What a block of reps comes to for all who come; usual people, where nobody is named."""
    paces = house.paces
    group = [Someone(paces.get(one.id, Quickness()), one.pace_100_s, one.paces) for one in who]
    return crowd_said(plan, block, group or [Someone()] * (plan.session.people or 0))
