"""After a class: the paragraph says what there is and no more, and every figure is what is worked by hand."""

import tomllib
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.blocks.fade import evenness, fade
from lovrit.core.moves.library import shipped
from lovrit.core.review.after import After, Heart
from lovrit.core.review.figures import Bout, drift, figures
from lovrit.core.review.paragraph import paragraph
from lovrit.core.run.classplan import Runner, class_plan
from lovrit.core.run.fold import Fold
from lovrit.core.run.going import Happening
from lovrit.core.timeline.plan import plan_text

LIBRARY = shipped()
KEPT = Path(__file__).parents[1] / "cases"
FILE = tomllib.loads((KEPT / "reviews.toml").read_text(encoding="utf-8"))
CASES = FILE["review"]
CONCLUDED = tomllib.loads((KEPT / "concluded.toml").read_text(encoding="utf-8"))


def happening(nth: int, said: str) -> Happening:
    """“100 stops bo hurt” as an event."""
    at, kind, *rest = said.split(" ")
    text = " ".join(rest)
    fields: dict[str, Any] = {
        "stops": lambda: {"person": rest[0], "why": " ".join(rest[1:])},
        "returns": lambda: {"person": rest[0]},
        "joins": lambda: {"person": rest[0], "group": rest[1]},
        "moves": lambda: {"person": rest[0], "group": rest[1]},
        "felt": lambda: {"person": rest[0], "value": float(rest[1])},
        "longer": lambda: {"seconds": float(rest[0])},
        "drop-round": lambda: {"block": int(rest[0])},
        "score": lambda: {
            "block": int(rest[0]),
            "person": rest[1],
            "text": rest[2].replace("+", " + ").replace("_", " "),
        },
        "replace": lambda: dict(zip(("station", "move"), text.split("|"), strict=True)),
        "mark": lambda: {"text": text},
        "broke": lambda: {"text": text},
        "undo": lambda: {"of": str(nth - 1)},
    }.get(kind, lambda: {"lane": text} if text else {})()
    return Happening(str(nth), kind, float(at), fields)


def after_of(case: dict[str, Any], slates: dict[str, str] = FILE["slates"]) -> After:
    plan = plan_text(slates[case["slate"]], LIBRARY)
    people = case.get("people", [])
    fold = Fold(class_plan(plan.session, LIBRARY), [Runner(one, "A") for one in people])
    begun = fold.state.plan
    for nth, said in enumerate(case["events"]):
        fold.take(happening(nth, said))
    going = fold.at(case.get("until", 2400))
    names = {one: one for one in going.people} if people else {}
    said = case.get("hearts", {})
    lost = {who: (0.5, "no signal") for who, one in said.items() if one == "lost"}
    hearts = {who: heart_of(one) for who, one in said.items()}
    changed = tuple(case.get("changed", ()))
    return After(begun, plan, going, tuple(fold.counted), names, lost, hearts, changed)


def heart_of(said: str) -> Heart:
    """“over 9 of 12”, “187 of 190”, “187 of about 190”, “lost”."""
    figures = [int(one) for one in said.split() if one.isdecimal()]
    if said.startswith("over"):
        return Heart(over=figures[0], turns=figures[1])
    return (
        Heart(held=figures[0], highest=None if "about" in said else figures[1])
        if figures
        else Heart()
    )


@pytest.mark.parametrize("case", CASES, ids=lambda case: f"{case['slate']}: {case['events'][1:]}")
def test_the_paragraph_says_what_there_is_and_no_more(case: dict[str, Any]) -> None:
    said = " ".join(one.text for one in paragraph(after_of(case)))
    for wanted in case["says"]:
        assert wanted in said, said
    for other in case["silent"]:
        assert other not in said, said


@pytest.mark.parametrize(
    "case", CONCLUDED["class"], ids=lambda case: f"{case['slate']}: {case['says']}"
)
def test_it_concludes_what_a_coach_would_and_no_more(case: dict[str, Any]) -> None:
    told = paragraph(after_of(case, CONCLUDED["slates"]))
    said = " ".join(one.text for one in told)
    assert len(told) <= 6 and said.startswith(case.get("first", "")), said
    for wanted in case["says"]:
        assert wanted in said, said
    for other in case["silent"]:
        assert other not in said, said


def test_repeats_in_figures_by_hand() -> None:
    assert evenness([50, 50, 52, 60]) == round(10 / 53, 3)
    assert fade([50, 50, 52, 60]) == 1.12
    assert evenness([50]) is None and fade([50, 60]) is None


def test_a_heart_in_figures_by_hand() -> None:
    trace = np.concatenate(
        [np.full(20, 90.0), np.linspace(90, 170, 100), np.linspace(170, 120, 80)]
    )
    found = figures(trace, Bout(20, 120, 70))
    assert found.peak and 168 < found.peak <= 170 and abs(found.peak_after_end_s or 0) <= 1
    assert found.drop_60 == pytest.approx(60 * 50 / 79, abs=1.5)
    assert found.lag_s == pytest.approx(
        63, abs=2
    )  # a straight rise is at 63 in 100 after 63 of 100 s
    assert figures(trace, Bout(20, 120, 40)).drop_60 is None
    assert figures(trace, Bout(20, 70, 70)).lag_s is None
    lost = trace.copy()
    lost[130:142] = np.nan
    assert figures(lost, Bout(20, 120, 70)).drop_60 is None
    assert figures(np.full(200, np.nan), Bout(20, 120, 70))[:-1] == (None,) * 6


def test_drift_is_told_only_where_it_is_clear() -> None:
    assert drift([150, 160, 162, 164, 166]) == 2
    assert drift([150, 160, 160.4, 160.2, 160.8]) is None
    assert drift([150, 160, 170, 180][:3]) is None


@given(
    st.lists(st.floats(120, 200) | st.just(float("nan")), min_size=40, max_size=200),
    st.integers(5, 30),
    st.integers(0, 90),
)
def test_no_figure_leaves_what_was_read(trace: list[float], work: int, rest: int) -> None:
    found = figures(np.array(trace), Bout(5, 5 + work, rest))
    for value in (found.average, found.highest, found.peak):
        assert value is None or 119.9 <= value <= 200.1
    assert found.drop_60 is None or (rest >= 60 and abs(found.drop_60) <= 80.1)
    assert 0 <= found.clean_s <= work
