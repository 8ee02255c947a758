"""Classes found again by words, as written down before the code; records that follow their class."""

import tomllib
from datetime import UTC, date, datetime
from pathlib import Path
from typing import Any

import pytest

from lovrit.core.crew.person import Comer
from lovrit.core.moves.library import shipped
from lovrit.core.review.sought import sought
from lovrit.core.run.event import Event
from lovrit.core.run.frozen import freeze
from lovrit.core.timeline.plan import plan_text
from lovrit.house.house import House
from lovrit.house.recorded import up_to_date
from lovrit.settings import Settings
from lovrit.store import classes, people, records, sessions
from lovrit.store.erase import erase_gone
from lovrit.web.app import create_app
from tests.conftest import ready

CASES = tomllib.loads((Path(__file__).parents[1] / "cases" / "found_again.toml").read_text("utf-8"))
TODAY = date(2026, 11, 26)


def ran(house: House, day: str, slate: str, names: list[str], note: str, title: str = "") -> int:
    """A class of an evening that ran to its end."""
    frozen = freeze(plan_text(f"title: {title}\n{slate}" if title else slate, shipped()))
    at_ms = round(datetime.fromisoformat(f"{day}T18:00").replace(tzinfo=UTC).timestamp() * 1000)
    with house.database.work() as work:
        here = {one.name: one.id for one in people.everyone(work)}
        there = [here.get(name) or people.add_person(work, name).id for name in names]
        comers = [
            Comer(id=nth, name=name, initials="", group=0)
            for nth, name in zip(there, names, strict=True)
        ]
        session = sessions.latest(work) or 0
        row = classes.make(work, session, title, slate, comers, at_ms, frozen)
        assert row.id is not None
        start = Event(id="s", kind="start", at_ms=at_ms + 1000)
        told = Event(id="n", kind="note", at_ms=at_ms + 4_000_000, text=note)
        classes.add_events(work, row.id, [start, told])
        row.over_ms = at_ms + 1000 * (frozen.timeline.total_s + 12)
        work.add(row)
        return row.id


@pytest.fixture(scope="module")
def house(tmp_path_factory: pytest.TempPathFactory) -> House:
    settings = Settings(data=tmp_path_factory.mktemp("records"), time_zone="Europe/London")
    made: House = create_app(settings, ready(filled=False)).state.house
    with made.database.work() as work:
        sessions.create(work, "rest 1:00", "", 0)
    for one in CASES["class"]:
        number = ran(made, one["day"], one["slate"], one["people"], one["note"], one["title"])
        assert number == one["id"]
    while not up_to_date(made):
        pass
    return made


@pytest.mark.parametrize("case", CASES["find"], ids=lambda case: case["words"] or "nothing")
def test_classes_are_found_again_by_words(house: House, case: dict[str, Any]) -> None:
    wanted = sought(case["words"], TODAY)
    assert bool(wanted.asks) == case.get("asks", False)
    with house.database.work() as work:
        found = records.find(work, wanted)
    everything = [one["id"] for one in CASES["class"]]
    assert sorted(everything if found is None else found) == case["finds"]


def test_a_record_follows_its_class(house: House) -> None:
    slate = "as many as possible in 4:00\n  5 pull-up\n  5 squat"
    number = ran(house, "2026-11-20", slate, ["Gil Roth"], "quiet", "Gone soon")
    up_to_date(house)
    with house.database.work() as work:
        who = next(one.id for one in people.everyone(work) if one.name == "Gil Roth")
        assert records.find(work, sought("gil quiet", TODAY)) == [number]
        assert not records.scores_of(work, who)
        score = Event(id="x", kind="score", at_ms=2**41, person=who, block=0, text="4 + 2")
        classes.add_event(work, number, score)
        assert (
            records.outcome(work, number) is None and records.find(work, sought("gil", TODAY)) == []
        )
    assert up_to_date(house)
    with house.database.work() as work:
        (kept,) = records.scores_of(work, who)
        assert (kept.value, kept.said, kept.figure) == (42.0, "4 + 2", "reps")
        people.let_go(work, who, 1)
        erase_gone(work, 2)
    up_to_date(house)
    with house.database.work() as work:
        assert not records.scores_of(work, who) and records.find(work, sought("gil", TODAY)) == []
        assert records.find(work, sought("gone soon", TODAY)) == [number]
