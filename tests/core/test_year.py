"""A person's year in sentences, held to the cases that were written down before."""

import re
import tomllib
from datetime import date, timedelta
from pathlib import Path
from typing import Any

import pytest

from lovrit.core.review.year import Evening, year_said

CASES = tomllib.loads((Path(__file__).parents[1] / "cases" / "years.toml").read_text("utf-8"))
TOKEN = re.compile(r"(\.|c)([\d.]+)?(/)?([\d.]+)?(x)?")


def evenings(weeks: str) -> list[Evening]:
    row, day = [], date(2026, 12, 1) - timedelta(weeks=len(weeks.split()))
    for token in weeks.split():
        said = TOKEN.fullmatch(token)
        assert said, token
        felt, asked = (float(one) if one else None for one in (said[2], said[4]))
        row.append(Evening(day, said[1] == "c", felt, asked, bool(said[5])))
        day += timedelta(weeks=1)
    return row


@pytest.mark.parametrize("case", CASES["year"], ids=lambda case: case["weeks"])
def test_a_year_says_what_it_holds_and_no_more(case: dict[str, Any]) -> None:
    said = "; ".join(year_said(evenings(case["weeks"])))
    at = 0
    for words in case["says"]:
        assert words in said[at:], said
        at = said.index(words, at) + len(words)
    assert not [words for words in case.get("never", ()) if words in said], said
