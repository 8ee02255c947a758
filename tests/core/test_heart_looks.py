"""What the second look says of hearts, and where it is silent: as written down before its rules."""

import tomllib
from pathlib import Path
from typing import Any

import pytest

from lovrit.core.advice.company import company_of
from lovrit.core.advice.look import second_look
from lovrit.core.crew.person import Person
from lovrit.core.heart.foresee import body_of, foresee
from lovrit.core.moves.library import shipped
from lovrit.core.session.edit import apply_edit
from lovrit.core.session.writer import block_lines
from lovrit.core.timeline.plan import plan_text
from lovrit.core.values import checked

CASES = tomllib.loads((Path(__file__).parents[1] / "cases" / "heart_looks.toml").read_text("utf-8"))
CODES = {
    "heart-out-of-reach", "rest-heart-out-of-reach", "heart-effort-at-odds", "corridor-held-too-long",
    "gate-not-reached", "heart-from-age", "heart-cannot-steer", "gate-drives-effort", "threshold-unknown",
}  # fmt: skip


def test_a_target_of_each_round_is_read_written_and_used() -> None:
    plan = plan_text("4 x 2:00/2:00 heart 120-130 150-160, at 7", shipped())
    block = plan.session.blocks[0]
    assert (
        not plan.problems
        and plan_text("\n".join(block_lines(block)), shipped()).session.blocks[0] == block
    )
    assert [block.heart_in(nth).low for nth in (1, 2, 3, 4)] == [120, 150, 150, 150]  # type: ignore[union-attr]
    someone = Person(id=1, name="", initials="", rest_hr=60, max_hr=190)
    turns = foresee(plan, someone, body_of(someone)).turns
    assert [one.target for one in turns] == [(120, 130), *[(150, 160)] * 3]


@pytest.mark.parametrize("case", CASES["look"], ids=lambda case: case["slate"][19:60])
def test_what_is_said_of_hearts(case: dict[str, Any]) -> None:
    plan = plan_text(case["slate"], shipped())
    assert not plan.problems, plan.problems
    people = [
        checked(Person, {"id": nth, "name": "A", "initials": "A", **one})
        for nth, one in enumerate(case.get("people", []))
    ]
    company = company_of(people, None)
    notes = [one for one in second_look(plan, shipped(), company) if one.code in CODES]
    said = {one.code for one in notes}
    assert set(case.get("says", [])) <= said
    assert said if "says" in case else not said, said
    for note in notes:
        assert note.fixes or note.way
        for fix in note.fixes:
            after = plan_text(apply_edit(case["slate"], fix.edit), shipped())
            assert not after.problems, (fix, after.problems)
            again = {one.code for one in second_look(after, shipped(), company)}
            assert note.code not in again, (note.code, fix.text)
