"""Is it a change? The cases of coaches, and what must hold for any company and any evening."""

import tomllib
from pathlib import Path
from random import Random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.review.compare import CannotCompare, Evening, compare
from lovrit.formats.compare_files import compared_object

CASES = tomllib.loads((Path(__file__).parents[1] / "cases" / "changes.toml").read_text("utf-8"))


def evenings(*lines: dict[str, float]) -> tuple[Evening, ...]:
    return tuple(Evening(day=7 * nth, values=values) for nth, values in enumerate(lines))


@pytest.mark.parametrize(("figure", "better", "before", "now", "verdict"), CASES["rows"])
def test_what_a_coach_would_say(
    figure: str, better: str, before: list[float], now: float, verdict: str
) -> None:
    told = compare(figure, better == "more", evenings(*({"a": one} for one in before), {"a": now}))
    assert told.people["a"].verdict == verdict, told.people["a"]
    assert "evening" in told.text or "nothing to compare" in told.text


@pytest.mark.parametrize(("figure", "better", "usual", "shift"), CASES["all"])
def test_an_evening_that_moves_everybody_is_the_evening(
    figure: str, better: str, usual: float, shift: float
) -> None:
    people = {f"p{nth}": usual + nth for nth in range(6)}
    last = {who: value + shift for who, value in people.items()}
    told = compare(figure, better == "more", evenings(people, people, people, last))
    assert {one.verdict for one in told.people.values()} == {"same"}
    assert told.shift and (told.shift > 0) == (shift > 0) and "the evening" in told.text


@given(st.integers(0, 10_000), st.floats(-20, 20))
def test_adding_the_same_to_everybody_tonight_changes_no_verdict(seed: int, more: float) -> None:
    chance = Random(seed)
    lines = [{f"p{who}": 150 + chance.gauss(0, 6) for who in range(6)} for _ in range(4)]
    moved = [*lines[:-1], {who: value + more for who, value in lines[-1].items()}]
    one, other = (compare("heart", False, evenings(*some)) for some in (lines, moved))
    assert {who: v.verdict for who, v in one.people.items()} == {
        who: v.verdict for who, v in other.people.items()
    }


def test_false_alarms_are_few_and_real_changes_are_found() -> None:
    """Synthetic people whose reps wobble by a typical error, with an evening effect of the same size."""
    chance, alarms, found, count = Random(11), 0, 0, 400
    for _ in range(count):
        levels = {f"p{who}": chance.uniform(40, 120) for who in range(6)}
        drift = [chance.gauss(0, 0.04) for _ in range(4)]
        lines = [
            {who: level * (1 + chance.gauss(0, 0.04) + day) for who, level in levels.items()}
            for day in drift
        ]
        told = compare("reps", True, evenings(*lines))
        alarms += sum(one.verdict in ("better", "worse") for one in told.people.values())
        lines[-1]["p0"] *= 1.12  # three typical errors
        found += compare("reps", True, evenings(*lines)).people["p0"].verdict == "better"
    assert alarms / (6 * count) < 0.13 and found / count > 0.6, (
        alarms / (6 * count),
        found / count,
    )


def test_a_trend_is_told_from_four_evenings_on_and_only_where_there_is_one() -> None:
    steady = [{"a": value} for value in (40, 41, 42, 44, 45, 47, 48)]
    assert (
        "a month up, over 7 evenings" in compare("reps", True, evenings(*steady)).people["a"].trend
    )
    wobbling = [{"a": value} for value in (40, 44, 41, 45, 39, 44, 40)]
    assert compare("reps", True, evenings(*wobbling)).people["a"].trend == ""


@pytest.mark.parametrize(
    ("given_file", "said"),
    [
        ({}, "A file is"),
        ({"figure": "luck", "evenings": [{"date": "2026-11-02", "values": {"a": 1}}]}, "no figure"),
        ({"figure": "reps", "evenings": []}, "no evening"),
        ({"figure": "reps", "evenings": [{"date": "2.11.", "values": {"a": 1}}]}, "is no day"),
        (
            {"figure": "reps", "evenings": [{"date": "2026-11-02", "values": {"a": "x"}}]},
            "no figure",
        ),
        (
            {"figure": "reps", "evenings": [{"date": "2026-11-02", "values": {"a": 0}}]},
            "above nothing",
        ),
        ({"figure": "reps", "better": "up", "evenings": []}, "more or less"),
    ],
)
def test_what_cannot_be_compared_is_said(given_file: dict, said: str) -> None:
    with pytest.raises(CannotCompare, match=said):
        compared_object(given_file)


@pytest.mark.parametrize(
    ("values", "said"),
    [
        ([20, 25, 25, 30, 30], "About 2 rungs of 5 s a month up, over 5 evenings."),
        ([20, 30, 40, 50, 60], "About 4 rungs of 10 s a month up, over 5 evenings."),
        ([20, 20, 20, 25, 25, 25, 25, 30], "About a rung of 5 s a month up, over 8 evenings."),
        ([20] * 6 + [25] * 6 + [30] * 4, "About a rung of 5 s in 7 weeks up, over 16 evenings."),
        ([20, 26, 33, 41, 47], "% a month up"),  # no grid: a hold as long as one can
    ],
)
def test_what_moves_in_rungs_is_told_in_rungs(values: list[float], said: str) -> None:
    told = compare("hold_s", True, evenings(*({"a": value} for value in values)))
    assert said in told.people["a"].trend, told.people["a"].trend


@given(st.lists(st.integers(0, 8), min_size=5, max_size=9), st.integers(5, 15))
def test_on_a_grid_nothing_is_said_in_per_cent(rungs: list[int], step: int) -> None:
    lines = [{"a": float(20 + one * step), "b": float(20 + step)} for one in rungs]
    told = compare("hold_s", True, evenings(*lines, {"a": 20.0, "b": 20.0 + 2 * step}))
    assert not any("%" in one.text + one.trend for one in told.people.values())
