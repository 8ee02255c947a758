"""How totals answer to changes: properties that hold whatever the session."""

from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.moves.library import shipped
from lovrit.core.session.edit import apply_edit
from lovrit.core.session.edits import BlockEdit, Convention, SetFigure
from lovrit.core.timeline.plan import plan_text
from tests.core.session.slates import slates

rounds, stations = st.integers(1, 6), st.integers(1, 8)
work, rest, pause = st.integers(5, 180), st.integers(0, 180), st.integers(0, 300)


def circuit(r: int, s: int, w: int, p: int, tail: str = "") -> str:
    moves = "".join(f"\n  move {chr(97 + nth)}" for nth in range(s))
    return f"{r} rounds of {w}/{p}{tail}{moves}"


def total(text: str) -> int:
    return plan_text(text, shipped()).timeline.total_s


@given(rounds, stations, work, rest, pause)
def test_a_circuit_adds_up_as_by_hand(r: int, s: int, w: int, p: int, b: int) -> None:
    plain = r * s * (w + p)
    assert total(circuit(r, s, w, p)) == plain
    assert total(circuit(r, s, w, p, f", break {b} s")) == plain + (r - 1) * (b - p)
    assert total(circuit(r, s, w, p, f", break {b} s added")) == plain + (r - 1) * b
    assert total(circuit(r, s, w, p, ", drop last rest")) == plain - p


@given(st.integers(1, 10), stations, work, rest, pause)
def test_sets_add_up_as_by_hand(n: int, s: int, w: int, p: int, c: int) -> None:
    text = circuit(n, s, w, p).replace("rounds", "sets", 1)
    plain = n * s * (w + p)
    assert total(text) == plain
    changed = text.replace(f"{w}/{p}", f"{w}/{p}, change {c} s", 1)
    assert total(changed) == plain + (s - 1) * (c - p)


@given(st.integers(1, 12), st.integers(2, 30), st.integers(10, 120), st.booleans())
def test_tempo_ladders_play_the_top_once(climb: int, steps: int, length: int, down: bool) -> None:
    text = f"tempo 90 to {90 + climb * 5} in {steps} steps of {length}" + (
        ", up and down" if down else ""
    )
    assert total(text) == length * (2 * steps - 1 if down else steps)


@given(slates())
def test_the_order_of_blocks_changes_no_total(text: str) -> None:
    before = plan_text(text, shipped())
    if len(before.session.blocks) < 2:
        return
    moved = plan_text(apply_edit(text, BlockEdit(what="move", block=0, to=1)), shipped())
    assert not moved.problems or before.problems
    if len(moved.session.blocks) == len(before.session.blocks):
        assert moved.timeline.total_s == before.timeline.total_s
        assert moved.timeline.work_s == before.timeline.work_s


@given(slates())
def test_a_block_doubled_counts_twice(text: str) -> None:
    before = plan_text(text, shipped())
    if not before.timeline.blocks:
        return
    doubled = plan_text(apply_edit(text, BlockEdit(what="duplicate", block=0)), shipped())
    if not before.problems and not doubled.problems:
        assert (
            doubled.timeline.total_s == before.timeline.total_s + before.timeline.blocks[0].seconds
        )


@given(rounds, stations, work, st.integers(1, 60), st.booleans())
def test_switches_of_convention_do_what_they_say(
    r: int, s: int, w: int, p: int, added: bool
) -> None:
    text = circuit(r, s, w, p, ", break 1:00" + (" added" if added else ""))
    switched = apply_edit(text, Convention(block=0, what="added", on=not added))
    by = (r - 1) * p * (-1 if added else 1)
    assert total(switched) == total(text) + by
    assert apply_edit(switched, Convention(block=0, what="added", on=added)) == text
    assert total(apply_edit(text, Convention(block=0, what="drop", on=True))) == total(text) - p


@given(rounds, stations, work, rest, st.integers(1, 120))
def test_a_longer_work_makes_it_longer_by_as_much(
    r: int, s: int, w: int, p: int, more: int
) -> None:
    text = circuit(r, s, w, p)
    longer = apply_edit(text, SetFigure(block=0, figure="work", value=w + more))
    assert total(longer) - total(text) == r * s * more
