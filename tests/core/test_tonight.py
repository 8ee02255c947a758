"""The first page's cases: which evening is meant, who is missing or back, whom to watch; and the steps' words."""

import tomllib
from datetime import datetime, time
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as some

from lovrit.core.crew.person import Person
from lovrit.core.tonight.people import (
    LastTime,
    Seen,
    arriving_said,
    last_whole,
    missing_said,
    watch_said,
)
from lovrit.core.tonight.thread import (
    After,
    Floor,
    Text,
    Where,
    Who,
    after_step,
    floor_step,
    where_step,
    who_step,
    write_step,
)  # fmt: skip
from lovrit.core.tonight.which import Dated, Doing, evening_meant

CASES = tomllib.loads((Path(__file__).parent.parent / "cases/tonight.toml").read_text("utf-8"))
TODAY = "2026-12-01"


def _named(kind: str) -> Any:
    return pytest.mark.parametrize("case", CASES[kind], ids=lambda case: case["name"])


@_named("next")
def test_the_evening_that_is_meant(case: dict[str, Any]) -> None:
    sessions = [Dated(one, day, time.fromisoformat(at)) for one, day, at, _ in case["sessions"]]
    doing = Doing(case.get("on"), frozenset(case.get("over", ())), frozenset(case.get("off", ())))
    now = datetime.fromisoformat(f"{TODAY} {case['now']}")
    assert evening_meant(sessions, now, doing) == case.get("is")


def _person(case: dict[str, Any]) -> Person:
    fields = ("standing", "since", "until", "mind", "limits", "cleared", "effort_only")
    return Person(
        id=1, name="Ivy", initials="IV", **{one: case[one] for one in fields if one in case}
    )


@_named("seen")
def test_who_is_missing_new_or_back(case: dict[str, Any]) -> None:
    tell = arriving_said if case.get("comes") else missing_said
    assert tell(_person(case), Seen(case["last"], case["classes_since"]), TODAY) == case["said"]


@_named("watch")
def test_whom_to_watch(case: dict[str, Any]) -> None:
    fields = ("stopped", "over", "turns", "felt", "asked")
    told = {one: case[one] for one in fields if one in case}
    if told.get("stopped") == "back":
        told["stopped"] = ""
    last = LastTime(case["on"], **told) if "on" in case else None
    minds = watch_said(_person(case), case.get("hardest", 0), TODAY, last, case.get("word", ""))
    assert "; ".join(one.text for one in minds) == case["said"]


@_named("whole")
def test_all_that_is_told_of_last_time(case: dict[str, Any]) -> None:
    lists = {one: tuple(case[one]) for one in ("loads", "changed") if one in case}
    told = {one: value for one, value in case.items() if one not in ("name", "said")}
    assert last_whole(LastTime(**told | lists), TODAY) == case["said"]


@given(
    some.builds(Text, *(some.integers(0, 9000),) * 2, *(some.integers(0, 9),) * 3),
    some.builds(Who, *(some.integers(0, 30),) * 5),
    some.builds(
        Where,
        some.integers(0, 12),
        some.booleans(),
        some.integers(0, 12),
        some.tuples() | some.just(("a clash",)),
    ),
    some.builds(
        Floor,
        some.sampled_from(["none", "ready", "on", "held"]),
        some.just("18:12"),
        some.integers(0, 300),
    ),
    some.builds(
        After, some.sampled_from(["", "24 November"]), some.integers(0, 5), some.booleans()
    ),
)
def test_every_step_has_three_words_and_what_stops_a_class_is_red(
    text: Text, who: Who, where: Where, floor: Floor, after: After
) -> None:
    steps = (
        write_step(text),
        who_step(who),
        where_step(where),
        floor_step(floor),
        after_step(after),
    )
    assert [one.key for one in steps] == ["write", "who", "where", "floor", "after"]
    for one in steps:
        assert one.line and 1 <= len(one.short.split()) <= 4
    unfit = text.unread or text.stops or not text.total_s or 0 < text.slot_s < text.total_s
    assert steps[0].red == bool(unfit)
    assert steps[2].red == bool(where.clashes)
