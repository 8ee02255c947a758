"""Names as people write them: found as what they are, or left unknown with what they say of themselves."""

import tomllib
from pathlib import Path

import pytest

from lovrit.core.moves.guess import guess, nearest
from lovrit.core.moves.library import shipped
from lovrit.core.moves.names import key_of
from lovrit.formats.found_json import found_object

CASES = tomllib.loads((Path(__file__).parents[2] / "cases" / "names.toml").read_text("utf-8"))


@pytest.mark.parametrize(("said", "name"), CASES["known"].items())
def test_a_name_is_found_as_what_it_is(said: str, name: str) -> None:
    found = found_object(said, shipped())
    assert found["move"] == name and found["asked"] is None
    for other in (said.upper(), f" {said} ", said.replace(" ", "  ")):
        assert shipped().find(other) is shipped().find(said)


@pytest.mark.parametrize(("said", "says"), CASES["unknown"].items())
def test_an_unknown_name_turns_cautions_on_and_is_never_something_else(
    said: str, says: list[str]
) -> None:
    found = found_object(said, shipped())
    if found["move"]:  # it came into the library since: with all that its name says
        move = shipped().find(said)
        assert (
            move
            and (move.skill or "skill" not in says)
            and (move.overhead or "overhead" not in says)
        )
        assert move.impact == "high" or "jump" not in says
        return
    assert set(says) <= set(guess(said).said())
    for name in nearest(said, shipped()):
        near = shipped().find(name)
        assert near and guess(said).pattern in (near.pattern, None)
        assert (near.impact == "high") == (guess(said).impact == "high")


def test_the_kit_in_a_name_is_the_kit_that_is_used() -> None:
    library = shipped()
    kits = {
        said: library.kit_of(said)
        for said in ("bar thruster", "db thrusters", "KB swings", "box jumps", "squat")
    }
    assert kits == {
        "bar thruster": ("bar",),
        "db thrusters": ("bell",),
        "KB swings": ("bell",),
        "box jumps": ("box",),
        "squat": (),
    }
    assert library.find("bar row") is library.find("bell row") and library.find("ball row") is None
    assert key_of("Biceps Curls") == "biceps curl"
