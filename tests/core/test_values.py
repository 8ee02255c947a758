"""Values are frozen, compare by content, share nothing, and hold what comes from outside to their fields."""

from dataclasses import FrozenInstanceError, field

import pytest
from pydantic import ValidationError

from lovrit.core.blocks.parts import Effort
from lovrit.core.run.account import Class
from lovrit.core.values import Value, checked, checked_json, plain


class Box(Value):
    """A value with a default made anew."""

    name: str
    held: dict[int, int] = field(default_factory=dict)


def test_a_value_is_made_by_its_fields_alone() -> None:
    for given in ({}, {"name": "a", "other": 1}, {"other": 1}):
        with pytest.raises(TypeError, match="Box is made of name, held"):
            Box(**given)  # type: ignore[arg-type]


def test_values_share_nothing_and_never_change() -> None:
    one, two = Box(name="a"), Box(name="a")
    assert (
        one == two
        and one.held is not two.held
        and Class(interval=1).stopped is not Class(interval=1).stopped
    )
    one.held[1] = 1
    assert two.held == {}
    with pytest.raises(FrozenInstanceError, match="frozen"):
        one.name = "b"  # type: ignore[misc]
    assert one.but(name="b").name == "b" and one.name == "a"
    assert (
        repr(Effort(low=1, high=2)) == "Effort(low=1, high=2)"
        and len({Effort(low=1, high=2)} | {Effort(low=1, high=2)}) == 1
    )


def test_what_comes_from_outside_is_held_to_the_fields() -> None:
    assert checked(Effort, {"low": 3, "high": 4}) == checked_json(Effort, '{"low": 3, "high": 4}')
    for wrong in (
        {"low": 99, "high": 1},
        {"low": 1, "high": "x"},
        {"low": 1},
        {"low": 1, "high": 2, "more": 3},
    ):
        with pytest.raises(ValidationError):
            checked(Effort, wrong)
    assert plain(Effort(low=1, high=2)) == {"low": 1, "high": 2}
