"""Scores as coaches write them: read, written back the same, refused with a limit that is true."""

import re
import tomllib
from pathlib import Path
from typing import Any

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from lovrit.core.blocks.score import Impossible
from lovrit.core.moves.library import shipped
from lovrit.core.review.kin import worth
from lovrit.core.review.scores import score
from lovrit.core.timeline.plan import plan_text

CASES = tomllib.loads((Path(__file__).parents[1] / "cases" / "scores.toml").read_text("utf-8"))
PLANS = {name: plan_text(slate, shipped()) for name, slate in CASES["slates"].items()}


def read(on: str, said: str) -> str:
    plan = PLANS[on]
    return score(plan.session.blocks[0], plan.timeline.blocks[0], said, shipped())


@pytest.mark.parametrize("case", CASES["score"], ids=lambda case: f"{case['on']}: {case['said']}")
def test_a_score_is_read_as_coaches_write_it(case: dict[str, Any]) -> None:
    assert not PLANS[case["on"]].problems
    if "refused" in case:
        with pytest.raises(Impossible, match=re.escape(case["refused"])):
            read(case["on"], case["said"])
        return
    assert read(case["on"], case["said"]) == case["written"]
    assert case.get("reads", "") in PLANS[case["on"]].session.blocks[0].reads(case["written"])


@pytest.mark.parametrize("case", CASES["score"], ids=lambda case: f"{case['on']}: {case['said']}")
def test_what_is_taken_as_a_score_can_be_used_everywhere(case: dict[str, Any]) -> None:
    if "refused" in case:
        return
    block = PLANS[case["on"]].session.blocks[0]
    kept = read(case["on"], case["said"])
    assert read(case["on"], kept) == kept
    worth(block, kept)
    pace = block.pace_of(kept, shipped())
    assert pace is None or pace > 0


WORTH = (
    ("amrap", "7 + 12", ("reps", 222.0, True)),
    ("parts", "2 + part 2 + 5", None),
    ("race", "9:41", ("time_s", 581.0, False)),
    ("race", "cap + 14", None),
    ("repeats", "1:32 1:35 1:38", ("slowest_s", 98.0, False)),
    ("every", "9 of 12", ("turns", 9.0, True)),
    ("sets", "80 kg x 5, 5 sets", ("top_set", 80.0, True)),
    ("sets", "80 kg x 3", None),
    ("build", "42.5 kg", ("top_set", 42.5, True)),
    ("clocked", "12 11 10 reps", None),
    ("clocked", "82 reps", ("reps", 82.0, True)),
    ("tempo", "140 a minute", None),
)


@pytest.mark.parametrize(("on", "said", "value"), WORTH)
def test_what_a_score_is_worth_where_it_is_compared(on: str, said: str, value: object) -> None:
    assert worth(PLANS[on].session.blocks[0], said) == value


NUMBERS = st.integers(0, 400)
SAID = st.one_of(
    st.builds("{} + {}".format, NUMBERS, NUMBERS),
    st.builds("{}:{:02d}".format, st.integers(0, 40), st.integers(0, 59)),
    st.builds("cap + {}".format, NUMBERS),
    st.builds("{} kg x {}".format, NUMBERS, NUMBERS),
    st.builds("{} of {}".format, NUMBERS, NUMBERS),
    st.lists(NUMBERS, min_size=1, max_size=9).map(lambda some: " ".join(map(str, some))),
    st.text(max_size=12),
)


@given(st.sampled_from(sorted(PLANS)), SAID)
def test_what_is_taken_is_written_back_the_same_and_what_is_not_says_why(
    on: str, said: str
) -> None:
    try:
        written = read(on, said)
    except Impossible as refused:
        why = str(refused)
        assume(not (why.endswith((".", "?")) and len(why) > 10))
        raise
    assert read(on, written) == written
    PLANS[on].session.blocks[0].reads(written)


LIMITED = {
    "every": ("{}", 12), "grow": ("{} s", 60), "race": ("cap + {}", 60), "build": ("{} kg", 500),
    "amrap": ("0 + {}", 29), "tempo": ("{} a minute", 160), "parts": ("2 + part {} + 0", 2),
}  # fmt: skip


@given(st.sampled_from(sorted(LIMITED)), st.integers(1, 1000))
def test_a_limit_that_is_told_is_the_limit(on: str, value: int) -> None:
    how, most = LIMITED[on]
    assume(on != "tempo" or value >= 90)
    if value <= most:
        assert read(on, how.format(value))
    else:
        with pytest.raises(Impossible):
            read(on, how.format(value))
