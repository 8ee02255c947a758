"""The board: what a moment says, by cases that were written before it, and by what must be so of any class."""

import tomllib
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.crew.fits import told
from lovrit.core.crew.groups import letter
from lovrit.core.crew.person import Comer
from lovrit.core.moves.library import shipped
from lovrit.core.run.board import Board
from lovrit.core.run.classplan import Runner, class_plan
from lovrit.core.run.fold import Fold
from lovrit.core.run.foretold import Moment, foretold, moment
from lovrit.core.run.going import Happening
from lovrit.core.session.rack import rack
from lovrit.core.session.reader import read
from lovrit.core.slate.line import Line
from lovrit.core.slate.written import amount, kit_words, load, notes_of, way_said, ways_said
from lovrit.house.own import Versions, own_moment
from lovrit.house.telling import move_cards
from tests.conftest import examples
from tests.core.run.test_lanes import STRUCTURES
from tests.core.session.slates import slates

CASES = tomllib.loads(Path("tests/cases/floor.toml").read_text("utf-8"))["case"]
TWO = {"A": 3, "B": 3}


def crew(groups: dict[str, int]) -> list[Comer]:
    names = [name for name, many in groups.items() for _ in range(many)]
    return [
        Comer(id=nth, name=f"P{nth}", initials=f"P{nth}", group=ord(name) - 65)
        for nth, name in enumerate(names, 1)
    ]


def opened(slate: str, people: list[Comer]) -> Fold:
    reading = read(slate)
    runners = [Runner(str(one.id), letter(one.group)) for one in people]
    fold = Fold(class_plan(reading.session, shipped()), runners)
    fold.take(Happening("0", "start", 0.0))
    return fold


def at(case: dict[str, Any], people: list[Comer]) -> tuple[Fold, Moment]:
    fold = opened(case["slate"], people)
    for nth, event in enumerate(case.get("events", [])):
        given = {
            key: value.removeprefix("p") if key in ("lane", "person") else value
            for key, value in event.items()
        }
        fold.take(Happening(f"e{nth}", event["kind"], event["at_s"], given))
    return fold, moment(fold.at(case["at"]))


def told_to(one: Moment, mine: Comer) -> str:
    """What one person is told: to work, rest or wait, and of what."""
    own = own_moment(one, mine, Versions(shipped()), out=False)
    lane = next(iter(own.lanes), None)
    does = lane.does if lane else "rest" if one.board.coming else "work"
    rows = own.board.rows
    what = " + ".join(what.text for row in rows for what in row.what)
    if does == "done" or what == "rest":
        return "done" if does == "done" else "rest"
    return f"{'wait' if does == 'waiting' else does} {what}"


def found(case: dict[str, Any]) -> dict[str, Any]:
    """What a case asks for, as it is."""
    people = crew(case.get("groups", TWO))
    fold, one = at(case, people)
    board: Board = one.board
    parts = next((what for row in board.rows for what in row.what if what.parts), None)
    counted = {
        who: many for (at, who), many in fold.at(case["at"]).rounds.items() if at == one.block
    }
    everything = {
        "what": [what.text for what in board.what],
        "whom": list(board.whom),
        "ends": board.ends,
        "of": board.of,
        "then": [text for text in board.then if text in case.get("then", board.then)],
        "coming": [what.text for row in board.coming for what in row.what],
        "rest": board.rest,
        "part": parts.part if parts else "",
        "parts": list(parts.parts) if parts else [],
        "counted": counted,
        "teams": sorted(len(lane.people) for lane in one.lanes),
        "goes": {
            group: what.text for row in board.coming for what in row.what for group in row.groups
        },
        "mine": {
            f"p{who.id}": told_to(one, who)
            for who in people
            if f"p{who.id}" in case.get("mine", {})
        },
        "silent": [word for word in case.get("silent", []) if word not in repr(board.of)],
    }
    return {name: value for name, value in everything.items() if name in case}


@pytest.mark.parametrize("case", CASES, ids=lambda case: case["name"])
def test_a_board_says_what_a_coach_would_read(case: dict[str, Any]) -> None:
    asked = {
        name: value
        for name, value in case.items()
        if name not in ("name", "slate", "at", "groups", "events")
    }
    assert found(case) == asked


SHAPES = st.one_of(
    slates(), st.sampled_from(STRUCTURES), st.sampled_from([one.slate for one in rack()])
)
TAPS = st.lists(
    st.tuples(
        st.sampled_from(["in", "done", "change", "round", "hold", "resume", "next", "stops"]),
        st.sampled_from(["all", "A", "B", "A1", "1", "2", "3"]),
        st.integers(0, 400),
    ),
    max_size=8,
)


@examples(120)
@given(SHAPES, st.integers(1, 9), st.integers(1, 4), TAPS)
def test_everybody_is_told_exactly_one_thing_and_all_screens_agree(
    text: str, count: int, groups: int, taps: list[tuple[str, str, int]]
) -> None:
    people = [
        Comer(id=nth, name=f"P{nth}", initials=f"P{nth}", group=nth % groups)
        for nth in range(1, count + 1)
    ]
    fold = opened(text, people)
    for nth, (kind, lane, at_s) in enumerate(sorted(taps, key=lambda one: one[2])):
        fold.take(Happening(f"e{nth}", kind, float(at_s), {"lane": lane, "person": lane}))
    versions = Versions(shipped())
    for one in foretold(fold.state, 60):
        if one.kind in ("over", "count"):
            continue
        for who in people:
            own = own_moment(one, who, versions, out=str(who.id) in fold.state.stopped)
            if str(who.id) in fold.state.stopped:
                assert not own.board.rows and not own.lanes
                continue
            assert len(own.board.rows) == 1 and len(own.lanes) <= 1, (one, who)
            row = own.board.rows[0]
            assert len(own.board.coming) <= 1
            assert bool(one.lanes) == bool(own.lanes)
            on_wall = [[(what.line, what.nth) for what in wall.what] for wall in one.board.rows]
            assert [(what.line, what.nth) for what in row.what] in on_wall
            for what in row.what:
                assert what.line is None or told(who, what.line, shipped())[what.nth] in what.does


@pytest.mark.parametrize(
    ("slate", "asked", "own"),
    [
        ("3 sets of 12 reps, rest 1:00\n  squat jump", "12 squat jump", "12 squat"),
        ("as many as possible in 4:00, ladder 3 +3\n  squat jump", "3 squat jump", "3 squat"),
        ("21-15-9 for time\n  squat jump", "21-15-9 squat jump", "21-15-9 squat"),
        ("3 x 10 reps, rest 1:00\n  squat jump", "10 squat jump", "10 squat"),
        ("every 1:00, ladder 1 +1, cap 5:00\n  squat jump", "1 squat jump", "1 squat"),
    ],
)
def test_who_may_not_jump_is_never_shown_the_jump(slate: str, asked: str, own: str) -> None:
    """Sets, rungs and repeats were once looked up by words that stood nowhere, and told as everybody's."""
    mine = Comer(id=1, name="P1", initials="P1", group=0, limits=frozenset({"jumps"}))
    one = moment(opened(slate, [mine]).at(2.0))
    assert [what.text for what in one.board.what] == [asked]
    shown = own_moment(one, mine, Versions(shipped()), out=False).board
    assert [what.text for what in shown.what] == [own]


def words_of(line: Line) -> set[str]:
    """What a line of the slate says, piece by piece, as it must stand on some screen while it is done."""
    said = {way_said(part) for task in line.tasks for part in task.parts}
    for task in line.tasks:
        said |= {task.name, *notes_of(task), *ways_said(task), *map(kit_words, task.kit)}
        said |= {amount(task.amount)} if task.amount else set()
        said |= {load(task.load)} if task.load and task.load.form != "by-set" else set()
        said |= {"each side"} if task.side == "each" else set()
    return said | ({"then"} if line.opens_part else set())


@examples(120)
@given(SHAPES)
def test_every_word_of_a_line_is_on_some_screen_while_it_is_done(text: str) -> None:
    fold = opened(text, crew(TWO))
    moments = foretold(fold.state, 400)
    cards = {one["station"]: one for one in move_cards(fold.state.plan)}
    shown: dict[tuple[int | None, str], str] = {}
    for one in moments:
        for what in one.board.what:
            card = cards.get(what.station, {"ways": [], "kit": []})
            told = " | ".join([what.text, what.part, *what.parts, *card["ways"], *card["kit"]])
            key = (one.block, what.station)
            shown[key] = f"{shown.get(key, '')} | {told}"
    if not moments or moments[-1].kind != "over":
        return  # it is longer than it was looked ahead
    for planned in fold.state.plan.blocks:
        for line in planned.block.moves if planned.floor.steps else ():
            on = shown.get((planned.at, line.name), "")
            same = [one for one in planned.block.moves if one.name == line.name]
            if line.is_rest or len(same) > 1 or not on:
                continue
            missing = [word for word in words_of(line) if word not in on]
            assert not missing, (line, on)
