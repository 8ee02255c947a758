"""Days as people write them: those of the list, and none that is made up."""

import tomllib
from datetime import date, timedelta
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.days import NoSuchDay, read_day
from tests.conftest import examples

LIST = tomllib.loads((Path(__file__).parents[1] / "cases/days.toml").read_text("utf-8"))
TODAY = date.fromisoformat(LIST["today"])


@pytest.mark.parametrize("case", LIST["case"], ids=lambda case: case["text"])
def test_a_day_is_read_as_it_was_meant_or_not_at_all(case: dict[str, Any]) -> None:
    how = {name: case[name] for name in ("toward", "habit") if name in case}
    if "day" in case:
        assert f"{read_day(case['text'], TODAY, **how)}" == case["day"]
        return
    with pytest.raises(NoSuchDay, match=case["says"]):
        read_day(case["text"], TODAY, **how)


@examples(200)
@given(st.dates(date(1950, 1, 1), date(2090, 1, 1)), st.dates(date(2000, 1, 1), date(2080, 1, 1)))
def test_what_is_printed_is_read(day: date, today: date) -> None:
    for form in ("{:%Y-%m-%d}", "{:%-d.%-m.%Y}", "{:%A %-d %B %Y}", "{:%a %-d %b %Y}"):
        assert read_day(form.format(day), today) == day
    near = today + timedelta((day - today).days % 300)
    for form in ("{:%-d.%-m.}", "{:%A %-d %B, %H:%M}", "{:%a %-d %b}", "{:%a %-d}, {:%m-%d}"):
        said = form.format(near, near)
        assert read_day(said, today) == near, said


@examples(200)
@given(st.text(max_size=60))
def test_anything_is_a_day_or_a_sentence(text: str) -> None:
    try:
        assert isinstance(read_day(text, TODAY), date)
    except NoSuchDay as refused:
        said = str(refused)
    else:
        return
    assert said.endswith((".", "?"))
