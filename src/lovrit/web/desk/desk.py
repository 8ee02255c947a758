"""One session on the Desk: its text as kept, its picture as last read, and edits to it."""

from collections import Counter
from dataclasses import dataclass

from sqlmodel import Session as Work

from lovrit.core.advice.company import Company
from lovrit.core.crew.groups import most_stations, usual_groups
from lovrit.core.crew.person import Person
from lovrit.core.moves.names import key_of
from lovrit.core.session.edit import apply_edit
from lovrit.core.session.edits import BlockEdit, Edit
from lovrit.core.session.picture import block_in, drawn_text
from lovrit.core.session.slatetext import CannotEdit
from lovrit.core.timeline.plan import Plan
from lovrit.house.company import company_here
from lovrit.house.evenings import AlsoOn, evenings_of
from lovrit.house.house import House
from lovrit.store import club, sessions
from lovrit.store.people import Counted, counted
from lovrit.store.sessions import Written
from lovrit.store.tables import AsideRow, SessionRow
from lovrit.web.desk.library import describe
from lovrit.web.desk.panel import LineMove, line_move
from lovrit.web.desk.view import DeskView, Listener, People, desk_view

COME = frozenset({"person", "comes"})  # tables that say who comes to a session


@dataclass
class Desk:
    """A session as one request finds it."""

    house: House
    row: SessionRow
    people: People
    written: Written
    typed: Plan
    drawn: Plan
    company: Company
    asides: list[AsideRow]
    who: list[Person]
    evenings: list[AlsoOn]

    def move_on(self, line: int) -> LineMove | None:
        """The move that stands on a line of the slate."""
        shown = line_move(self.drawn, line, self.house.library)
        return shown.drawn_by(self.house.drawings.get(key_of(shown.move.name))) if shown else None

    def block_at(self, line: int, otherwise: int) -> int:
        """The block that a line of the slate belongs to; another, where the picture is of an earlier text."""
        if self.stale or line < 1:
            return otherwise
        before = [nth for nth, place in enumerate(self.drawn.reading.blocks) if place.line <= line]
        return before[-1] if before else otherwise

    @property
    def stale(self) -> bool:
        """Whether the picture is of an earlier text, since nothing of this one can be read."""
        return bool(self.typed.problems and self.drawn.reading.text == self.row.good_text)

    def view(self, block: int, part: int) -> DeskView:
        """What the page shows."""
        shown = (max(0, block), part)
        problems = self.typed.problems
        said = Listener(self.company, frozenset(row.code for row in self.asides))
        return desk_view(
            self.drawn, self.house.library, self.people, shown, said, problems, self.stale
        )


def open_desk(
    house: House,
    work: Work,
    session_id: int,
    written: Written | None = None,
    typed: Plan | None = None,
) -> Desk:
    """A session with its picture; ``typed`` is the plan of its text, where somebody has just made it.

    Raises:
        Gone: if there is none of this number.
    """
    row = sessions.get(work, session_id)
    typed = typed or house.plan(row.text)
    drawn = typed
    if not typed.problems:
        keep_good(work, row, typed)
    else:
        keep_what_is_read(work, row, typed)
        drawn = house.plan(drawn_text(row.text, row.good_text or ""))
        if not drawn.session.blocks and row.good_text:
            drawn = house.plan(row.good_text)
    down = _counted(house, work, session_id)
    who = [one.person for one in down]
    people = _people(down, typed)
    company = company_here(house, work, row, typed, who, len(people.groups) or None)
    asides = club.asides(work, session_id)
    return Desk(
        house,
        row,
        people,
        written or sessions.state(work, row),
        typed,
        drawn,
        company,
        asides,
        who,
        evenings_of(house, work, row),
    )


def _counted(house: House, work: Work, session_id: int) -> list[Counted]:
    """Who comes, as far as the rules count them; asked again once somebody was changed, or a day has begun."""
    key = ("counted", session_id)
    return house.facts.resting_on(work, COME, key, lambda: counted(work, session_id))


def keep_good(work: Work, row: SessionRow, plan: Plan) -> None:
    """Keep a text that could be read whole as the one that is drawn, and what it comes to."""
    if not plan.problems and (row.good_text != row.text or row.length_s is None):
        row.good_text = row.text
        describe(row, plan)
        work.add(row)


def keep_what_is_read(work: Work, row: SessionRow, plan: Plan) -> None:
    """Of a text with a line that can't be read keep its title, and what could be read where nothing ever was whole."""
    title = plan.session.title or row.title
    if not row.good_text and (row.length_s, row.title) != (plan.timeline.total_s, title):
        describe(row, plan)
    if row.title != title:
        row.title = title
        work.add(row)


def _people(who: list[Counted], plan: Plan) -> People:
    if who:
        sizes = Counter(one.group for one in who)
        return People(len(who), tuple(sizes[group] for group in sorted(sizes)))
    coming = plan.session.people or 0
    if not coming:
        return People(0, ())
    count = usual_groups(coming, most_stations(plan))
    size, more = divmod(coming, count)
    return People(coming, tuple(size + (nth < more) for nth in range(count)))


def edited(row: SessionRow, text: str, edit: Edit) -> str:
    """A text after an edit by hand. Blocks are counted as they are drawn, and found in the text by their lines.

    Raises:
        CannotEdit: where the text has no place for it now.
    """
    drawn = drawn_text(text, row.good_text or "")
    for name in (
        ("block", "to") if isinstance(edit, BlockEdit) and edit.what == "move" else ("block",)
    ):
        at = getattr(edit, name, None)
        if at is not None:
            found = block_in(text, drawn, at)
            if found is None:
                raise CannotEdit("That block's line can't be read as it stands; mend it first.")
            edit = edit.but(**{name: found})
    return apply_edit(text, edit)
