"""Lanes: every structure as what it is on the floor, held to what must be so whatever happens."""

import json
from collections import defaultdict
from dataclasses import asdict, replace
from itertools import pairwise
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.moves.library import shipped
from lovrit.core.run.board import CLOSED
from lovrit.core.run.classplan import Runner, class_plan, dealt
from lovrit.core.run.events.kinds import KNOWN
from lovrit.core.run.events.plan import PLAN
from lovrit.core.run.fold import Fold
from lovrit.core.run.going import Going, Happening
from lovrit.core.run.late import early_s, ends_at_s, ways
from lovrit.core.session.reader import read
from lovrit.formats.class_files import class_object, moment_object
from tests.conftest import examples

STRUCTURES = (
    "warm-up 1:00 at 3\n  easy laps",
    "2 rounds of 40/20, break 1:00, at 8\n  goblet squat\n  ring row, left then right\n  ball: 20 chest pass, 20 slam",
    "2 sets of 20/10, change 0:30\n  swing\n  reverse lunge",
    "4 x 30/30 at 8\n  run",
    "every 1:00 for 4:00\n  8 swing\n  6 push-up",
    "every 1:00 for 3:00, half start at 0:30\n  8 swing\n  6 push-up",
    "as many as possible in 3:00, ladder 3 +3\n  swing\n  box step-up",
    "as many as possible in 2:00, partners alternate\n  10 squat",
    "3 rounds for time, cap 3:00\n  12 ring row\n  16 hollow rock",
    "2 rounds for quality, rest 0:30, cap 3:00\n  8 squat",
    "3 x 100 m, rest 0:40\n  run",
    "3 x 100 m, rest 1:2\n  run",
    "3 x 30/until 118, least 10, most 1:00",
    "3 x until 160/0:30, least 10, most 0:50",
    "hold ladder 10 +10 every 1:00 for 3:00\n  plank",
    "tempo 90 to 120 in 3 steps of 20, up and down",
    "build 3:00 to heavy 4\n  deadlift",
    "2 sets of 8 reps, rest 0:45\n  split squat each side",
    "rest 1:30",
)
COOL = "cool-down 4:00"
KINDS = [*KNOWN, "nonsense"]
LANES = ["all", "A", "B", "A1", "first", "p1", "p3", "nobody"]


def people(count: int) -> list[Runner]:
    return dealt([f"p{nth}" for nth in range(1, count + 1)], {}, 3, None)


def fold_of(text: str, count: int) -> Fold:
    reading = read(text)
    assert not reading.problems, reading.problems
    return Fold(class_plan(reading.session, shipped()), people(count))


@st.composite
def classes(draw: st.DrawFn) -> tuple[str, int]:
    blocks = draw(st.lists(st.sampled_from(STRUCTURES), min_size=1, max_size=4))
    slot = draw(st.sampled_from(["", "slot: 8:00\n\n", "slot: 45:00\n\n"]))
    return slot + "\n\n".join([*blocks, COOL]) + "\n", draw(st.integers(0, 7))


@st.composite
def events(draw: st.DrawFn) -> list[Happening]:
    at, found = 0.0, [Happening("start", "start", 0.0)]
    for nth in range(draw(st.integers(0, 14))):
        at += draw(st.sampled_from([0, 0.5, 3, 11, 40, 95, 200]))
        kind = draw(st.sampled_from(KINDS))
        fields: dict[str, Any] = {
            "lane": draw(st.sampled_from(LANES)),
            "person": draw(st.sampled_from(["p1", "p2", "p5", "q"])),
            "group": draw(st.sampled_from(["A", "B", "C"])),
            "seconds": draw(st.sampled_from([10, -10, 90, 0, -500])),
            "bpm": draw(st.sampled_from([90, 115, 165, 0])),
            "block": draw(st.integers(-1, 4)),
            "value": 7,
            "text": "so",
            "station": "swing",
            "move": "squat",
            "way": draw(st.sampled_from(["breaks", "cool-down", "round:1", "leave:1", "?"])),
            "of": draw(st.sampled_from([one.id for one in found])),
            "to": draw(st.sampled_from(["0.0", "0.1", "1.2", "1", "9.0", ""])),
            "other": draw(st.sampled_from(["p2", "p3"])),
            "what": draw(st.sampled_from(["moves", "message", "class"])),
        }
        found.append(Happening(f"e{nth}", kind, at, fields))
    return found


def told(state: Going) -> str:
    bare = replace(state, plan=None)  # what it is run by holds the whole library
    kept = asdict(bare) | {"rounds": str(state.rounds)}
    return json.dumps(kept, sort_keys=True, default=str)


@examples(120)
@given(classes(), events(), st.floats(0, 900), st.floats(0, 900))
def test_any_events_in_any_order_make_a_class(
    made: tuple[str, int], happened: list[Happening], one: float, two: float
) -> None:
    fold = fold_of(*made)
    for nth, event in enumerate(happened, 1):
        fold.take(event)
        json.dumps(moment_object(fold.state, event.at_s))
        fresh = fold_of(*made)
        for earlier in happened[:nth] if nth == len(happened) else ():
            fresh.take(earlier)
            fresh.take(earlier)  # sent twice it counts once
            fresh.at(earlier.at_s + one)  # and looking changes nothing
        if nth == len(happened):
            assert told(fresh.state) == told(fold.state)
    now = fold.state.now_s
    first, second = now + min(one, two), now + max(one, two)
    looked = fold.at(first)
    looked.advance(second)
    assert told(looked) == told(fold.at(second))
    assert set(looked.worn) == set(looked.worn.values())  # every strap is on somebody
    laps_hold(looked)


def laps_hold(state: Going) -> None:
    by_lane = defaultdict(list)
    for lap in state.laps:
        assert lap.from_s < lap.to_s <= state.now_s + 1e-6
        by_lane[lap.lane].append(lap)
    for laps in by_lane.values():
        for before, after in pairwise(laps):
            assert before.to_s <= after.from_s + 1e-6, (before, after)


@given(classes(), st.lists(st.tuples(st.floats(1, 300), st.sampled_from(LANES)), max_size=6))
def test_time_is_never_made_or_lost(made: tuple[str, int], taps: list[tuple[float, str]]) -> None:
    fold = fold_of(*made)
    fold.take(Happening("0", "start", 0.0))
    for nth, (at, lane) in enumerate(sorted(taps)):
        for kind in ("in", "done", "change"):
            fold.take(Happening(f"{kind}{nth}", kind, at, {"lane": lane}))
    state = fold.at(5000)
    for block in {lap.block for lap in state.laps}:
        mine = [lap for lap in state.laps if lap.block == block]
        begun = min(lap.from_s for lap in mine)
        for lane in {lap.lane for lap in mine}:
            laps = [lap for lap in mine if lap.lane == lane]
            assert laps[0].from_s == begun
            for before, after in pairwise(laps):
                assert abs(before.to_s - after.from_s) < 1e-6


@given(classes(), events())
def test_undo_of_the_last_event_gives_the_state_before_it(
    made: tuple[str, int], happened: list[Happening]
) -> None:
    fold, without = fold_of(*made), fold_of(*made)
    for event in happened[:-1]:
        fold.take(event)
        without.take(event)
    last = happened[-1]
    if last.kind == "undo" or not fold.take(last):
        return
    at = fold.state.now_s + 1.5
    assert fold.take(Happening("undo", "undo", at, {"of": last.id}))
    one, two = fold.state, without.at(at)
    for state in (one, two):
        state.laps = []
        for lane in state.lanes:
            lane.lap_from_s = 0.0
    assert told(one) == told(two)
    assert not fold.take(Happening("undo", "undo", at + 1, {"of": last.id}))


@given(classes(), st.integers(5, 400), st.integers(1, 200))
def test_a_hold_moves_everything_by_its_own_length(
    made: tuple[str, int], at: int, long: int
) -> None:
    plain, held = fold_of(*made), fold_of(*made)
    for fold in (plain, held):
        fold.take(Happening("0", "start", 0.0))
    if plain.at(at).phase != "on":
        return
    held.take(Happening("h", "hold", float(at)))
    held.take(Happening("r", "resume", float(at + long)))
    for nth, (one, two) in enumerate(zip(plain.at(9000).laps, held.at(9000).laps, strict=True)):
        shift = long if one.to_s > at + 1e-6 else 0
        assert abs(two.to_s - one.to_s - shift) < 1e-6, (nth, one, two)


@given(
    st.sampled_from([one for one in STRUCTURES if "until" in one]),
    st.lists(st.tuples(st.floats(0, 400), st.integers(60, 190)), max_size=20),
)
def test_gates_end_between_least_and_most_whatever_the_signal(
    text: str, signal: list[tuple[float, int]]
) -> None:
    fold = fold_of(text, 2)
    fold.take(Happening("0", "start", 0.0))
    for nth, (at, bpm) in enumerate(sorted(signal)):
        fold.take(Happening(str(nth + 1), "heart", at, {"person": "p1", "bpm": bpm}))
    block = read(text).session.blocks[0]
    gated = "rest" if block.pairs[0].rest.until_bpm else "work"
    for lap in fold.at(9000).laps:
        if lap.phase == gated:
            assert block.least_s - 1e-6 <= lap.to_s - lap.from_s <= block.most_s + 1e-6
            assert lap.ended_by in ("clock", "heart")


@given(classes(), events())
def test_a_way_ends_when_it_says_and_touches_nothing_that_is_done(
    made: tuple[str, int], happened: list[Happening]
) -> None:
    fold = fold_of(
        "slot: 5:00\n" + made[0].removeprefix("slot: 8:00\n\n").removeprefix("slot: 45:00\n\n"),
        made[1],
    )
    for event in happened:
        fold.take(event)
    for nth, way in enumerate(ways(fold.state)):
        state = fold.state.copy()
        laps, at = list(state.laps), state.at
        assert PLAN.deed(state, Happening(f"w{nth}", "plan", state.now_s, {"way": way.way}))
        assert abs(ends_at_s(state) - way.ends_at_s) < 1e-3
        assert way.ends_at_s < ends_at_s(fold.state)
        assert (state.laps, state.at) == (laps, at)


def test_nobody_waits_for_who_has_stopped() -> None:
    fold = fold_of(STRUCTURES[8] + "\n\n" + COOL, 3)
    fold.take(Happening("0", "start", 0.0))
    for nth, who in enumerate(("p1", "p2", "p3")):
        done = nth < 2
        fold.take(
            Happening(who, "done" if done else "stops", 60.0 + nth, {"lane": who, "person": who})
        )
    state = fold.at(63)
    assert state.at == 1 and state.phase == "on"
    assert [lap.ended_by for lap in state.laps] == ["tap", "tap", "coach"]


WALKED = "\n\n".join(STRUCTURES) + "\n\n" + COOL


def walked(at: list[float], happened: list[dict[str, Any]]) -> dict[str, Any]:
    listed = [Happening(one["id"], one["kind"], one["at_s"], one) for one in happened]
    return class_object(read(WALKED).session, shipped(), people(6), listed, at)


@pytest.mark.parametrize(
    ("block", "kind", "says", "does"),
    [
        (1, "down", "work", "goblet squat"),
        (4, "down", "the rest of the minute is yours", "8 swing"),
        (6, "down", "work", "3 swing"),
        (7, "down", "one works, the other rests", "10 squat"),
        (8, "up", "as it suits you, to the end", "12 ring row"),
        (10, "up", "work", "100 m run"),
        (15, "down", "work", "work"),
    ],
)
def test_each_structure_says_what_it_is(block: int, kind: str, says: str, does: str) -> None:
    skips = [{"id": f"s{nth}", "kind": "skip-block", "at_s": 1.0 + nth} for nth in range(block)]
    at = 5.0 + block
    moment = walked([at], [{"id": "0", "kind": "start", "at_s": 0}, *skips])["at"][0]
    assert moment["block"] == block and moment["clock"]["kind"] == kind
    assert moment["says"] == says
    assert does in [one for row in moment["rows"] for one in row["does"]]


def test_in_the_last_rest_nobody_is_sent_on_and_a_rung_climbs() -> None:
    start = {"id": "0", "kind": "start", "at_s": 0}
    moments = walked([130.0, 450.0], [start])["at"]
    assert [row["then"] for row in moments[0]["rows"]] != [[], [], []]
    assert moments[1]["says"].startswith("rest") and all(
        not row["then"] for row in moments[1]["rows"]
    )
    skips = [{"id": f"s{nth}", "kind": "skip-block", "at_s": 1.0 + nth} for nth in range(6)]
    counted = [
        {"id": f"r{nth}", "kind": "round", "at_s": 20.0 + nth, "lane": "p2"} for nth in range(2)
    ]
    rung = walked([30.0], [start, *skips, *counted])["at"][0]
    assert rung["rows"][0]["does"] == ["9 swing", "9 box step-up"]


def test_each_lane_rests_as_long_as_its_own_work_asks() -> None:
    fold = fold_of(STRUCTURES[11], 6)
    fold.take(Happening("0", "start", 0.0))
    fold.take(Happening("a", "in", 20.0, {"lane": "A"}))
    fold.take(Happening("b", "in", 31.0, {"lane": "B"}))
    lanes = {lane.name: lane for lane in fold.at(35.0).lanes}
    assert lanes["A"].left_s(35.0) == 40 - 15 and lanes["B"].left_s(35.0) == 62 - 4
    assert lanes["C"].left_s(35.0) is None


def test_a_station_that_is_closed_is_a_rest_for_who_comes_there() -> None:
    fold = fold_of("3 rounds of 40/20\n  10 squat\n  row\n", 4)
    fold.take(Happening("s", "start", 0.0))
    fold.take(Happening("c", "replace", 5.0, {"station": "squat", "move": CLOSED}))
    told = moment_object(fold.at(10.0), 10.0)["rows"]
    assert [row["does"] for row in told] == [[CLOSED], ["row"]]


def test_a_class_ahead_of_its_plan_says_by_how_much() -> None:
    fold = fold_of("slot: 20:00\n\nwarm-up 5:00 at 3\n\ncool-down 5:00\n", 2)
    fold.take(Happening("s", "start", 0.0))
    assert early_s(fold.at(60.0)) == 0
    fold.take(Happening("n", "next", 180.0))
    assert early_s(fold.at(200.0)) == 120
    fold.take(Happening("h", "hold", 200.0))
    assert early_s(fold.at(500.0)) == 0  # it has stood for longer than it was ahead
