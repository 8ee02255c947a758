"""Facts are dropped by nobody's hand: whatever is written, each is the one that is worked out afresh."""

from collections.abc import Callable
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st
from sqlmodel import Session as Work

from lovrit.core.advice.company import Schools
from lovrit.core.moves.library import Library, shipped
from lovrit.core.timeline.plan import plan_text
from lovrit.core.values import checked, plain
from lovrit.house.company import company_here
from lovrit.house.facts import MOST, Facts
from lovrit.house.house import House
from lovrit.settings import Settings
from lovrit.store import club, people, records, sessions, straps
from lovrit.store.revisions import revisions_at
from lovrit.store.tables import ClassRow
from lovrit.web.app import create_app
from tests.conftest import examples, ready

HARD = "date: 2027-01-02\n\n10 x 60/30 at 9\n  squat\n"
EASY = "date: 2027-01-03\n\nsteady 20:00 at 4\n"


def _own_move(work: Work, nth: int) -> None:
    move = shipped().find("squat")
    assert move
    club.keep_move(work, move.but(name=f"deep squat {nth}"), nth)


def _class(work: Work, nth: int) -> None:
    row = ClassRow(title="x", text="", people=[], made_ms=1, over_ms=2)
    work.add(row)
    work.flush()
    assert row.id
    records.set_unreadable(work, row.id, "2026-11-30")


WRITES: dict[str, Callable[[Work, int], Any]] = {
    "a school": lambda work, nth: club.set_schools(
        work, checked(Schools, {"hard": ("anywhere", "last")[nth % 2]}) if nth < 9 else Schools()
    ),
    "kit away": lambda work, nth: club.set_missing(work, ["bell", "rings", "rower"][: nth % 4]),
    "the club's words": lambda work, nth: club.set_about(
        work, club.About(name=f"Club {nth % 3}", zone=("", "Europe/Lisbon")[nth % 2])
    ),
    "an own move": _own_move,
    "an own move gone": lambda work, nth: club.let_go(work, f"deep squat {nth}"),
    "a strap": lambda work, nth: straps.wear(work, f"S{nth % 3}", 1 + nth % 4),
    "somebody gone": lambda work, nth: people.let_go(work, 1 + nth % 4, nth),
    "a class": _class,
    "a note of none": lambda work, nth: club.choose(work, f"spots-{nth}", {"a": "b"}),
}


def afresh(house: House) -> dict[str, Any]:
    with house.database.work() as work:
        return {
            "moves": _moves(club.library(work)),
            "schools": club.schools(work),
            "missing": club.missing(work),
            "about": club.about(work),
            "paces": club.paces(work),
            "drawings": club.drawings(work),
            "worn": straps.worn(work),
        }


def _moves(library: Library) -> list[Any]:
    return [plain(one) for one in library.moves]


def held(house: House) -> dict[str, Any]:
    return {
        "moves": _moves(house.library),
        "schools": house.schools,
        "missing": house.missing,
        "about": house.about,
        "paces": house.paces,
        "drawings": house.drawings,
        "worn": house.outside.worn,
    }


@pytest.fixture(scope="module")
def house(tmp_path_factory: pytest.TempPathFactory) -> House:
    data = tmp_path_factory.mktemp("facts")
    made: House = create_app(
        Settings(data=data, simulated=True), ready(data / "club.sqlite")
    ).state.house
    return made


@examples(60)
@given(
    st.lists(st.tuples(st.sampled_from(sorted(WRITES)), st.integers(1, 9)), max_size=6),
    st.booleans(),
)
def test_every_fact_is_the_one_worked_out_afresh(
    house: House, writes: list[tuple[str, int]], fails: bool
) -> None:
    for name, nth in writes:
        with house.database.writing() as work:
            WRITES[name](work, nth)
        assert held(house) == afresh(house), name
    if fails:
        before = held(house)
        with pytest.raises(ZeroDivisionError):
            _break_off(house)
        assert held(house) == before == afresh(house)


def _break_off(house: House) -> None:
    with house.database.writing() as work:
        club.set_missing(work, ["rower"])
        work.flush()
        raise ZeroDivisionError


def test_what_stands_in_another_unit_of_work_is_told_of_when_that_one_is_over(house: House) -> None:
    with house.database.work() as outer:
        club.about(outer)
        with house.database.writing() as work:
            club.set_missing(work, ["rings"])
    assert house.missing == {"rings"}


def test_who_began_before_a_write_is_never_taken_for_one_of_after(house: House) -> None:
    """A fact of an early look at the file, whatever it saw, is none for who looks later."""
    tables = frozenset({"club"})
    with house.database.work() as early:
        before = club.missing(early)
        with house.database.writing() as work:
            club.set_missing(work, ["sled"] if before != {"sled"} else ["rower"])
        house.facts.resting_on(early, tables, "missing", lambda: before)
    with house.database.work() as late:
        assert revisions_at(late, tables) != revisions_at(early, tables)
        new = house.facts.resting_on(late, tables, "missing", lambda: club.missing(late))
    assert new == house.missing != before


def test_the_days_around_follow_what_is_written_on_them(house: House) -> None:
    with house.database.writing() as work:
        row = sessions.create(work, EASY, "easy", 1)
        other = sessions.create(work, HARD, "hard", 1)
        other.day = "2027-01-02"
        work.add(other)

    def hard_s() -> list[int]:
        with house.database.work() as work:
            plan = plan_text(EASY, house.library)
            company = company_here(house, work, sessions.get(work, row.id or 0), plan, [], None)
            return [round(one.asks.hard_min * 60) for one in company.days]

    assert hard_s() == [600]
    with house.database.writing() as work:
        fresh = sessions.get(work, other.id or 0)
        sessions.write_text(work, fresh, HARD.replace("10 x", "4 x"), fresh.version, None, None, 2)
    assert hard_s() == [240]


def test_so_many_facts_are_remembered_and_no_more() -> None:
    facts, made = Facts(), []
    for nth in range(MOST + 9):
        assert facts.of(nth, lambda nth=nth: made.append(nth) or nth) == nth  # type: ignore[misc]
    assert facts.of(MOST, lambda: -1) == MOST and facts.of(0, lambda: -1) == -1
    assert len(facts._kept) == MOST
