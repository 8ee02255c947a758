"""Ways out of a clash, as written down before the code: each that is offered is taken, and the clash is gone."""

import tomllib
from datetime import date, datetime, timedelta
from functools import partial
from pathlib import Path
from typing import Any

import pytest

from lovrit.core.asked.carried import Other, Planned
from lovrit.core.asked.clashing import clashes, real
from lovrit.core.asked.dose import asks
from lovrit.core.moves.library import shipped
from lovrit.core.session.edit import apply_edit
from lovrit.core.timeline.plan import plan_text
from lovrit.core.weeks.ways import Around, ways_out

FILE = tomllib.loads((Path(__file__).parents[2] / "cases" / "day_clashes.toml").read_text("utf-8"))


@pytest.mark.parametrize("case", FILE["board"], ids=str)
def test_every_way_out_that_is_offered_helps(case: dict[str, Any]) -> None:
    slates = {f"d{day}": FILE["slates"][name] for day, name in case["days"].items()}
    sessions = [
        Planned(
            id=f"d{day}",
            at=datetime.fromisoformat(f"2026-12-0{day}T18:00"),
            asks=asks(plan_text(slates[f"d{day}"], shipped())),
            fixed=int(day) in case.get("fixed", []),
        )
        for day in case["days"]
    ]
    others = [
        Other(at=datetime.fromisoformat(f"2026-12-0{day}T12:00"), what=what, weight=case.get("weight", "hard"),
              patterns=tuple(case.get("patterns", ())))
        for day, what in case.get("other", {}).items()
    ]  # fmt: skip
    off = frozenset(date(2026, 12, day) for day in case.get("off", []))
    around = Around(sessions, others, off)
    found = [one for one in real(clashes(sessions, others)) if one.pattern != "breath"]
    assert bool(found) == ("ways" in case), found
    if not found:
        return
    since = found[0].since
    before = plan_text(slates[since], shipped()) if since in slates else None
    plan = plan_text(slates[found[0].session], shipped())
    ways = ways_out(found[0], around, plan, before=(before, asks))
    said = "; ".join(one.said for one in ways)
    assert all(one in said for one in case["ways"]), said
    assert not any(one in said for one in case.get("never", ())), said
    for way in ways:
        changed = way.other if way.at_other else found[0].session
        text = slates[changed]
        for edit in way.edits:
            text = apply_edit(text, edit)
        new = (changed, asks(plan_text(text, shipped())))
        after = around.after(way.moves, new)
        left = real(clashes(after, others))
        assert (found[0].session, found[0].pattern) not in {
            (one.session, one.pattern) for one in left
        }
        assert len({one.at for one in after}) == len(after)
        assert all(one.at.date() not in off for one in after if one.id in dict(way.moves))


def test_what_is_past_or_fixed_is_not_moved() -> None:
    plan = plan_text(FILE["slates"]["legs"], shipped())
    at = datetime.fromisoformat("2026-12-01T18:00")
    sessions = [
        Planned(id=f"{nth}", at=at + timedelta(days=nth), asks=asks(plan)) for nth in range(2)
    ]
    clash = next(one for one in clashes(sessions, []) if one.pattern == "legs")
    later = Around(sessions, [], today=date(2026, 12, 20))
    assert all(not way.moves for way in ways_out(clash, later, plan))


def test_a_way_is_weighed_as_the_day_weighs_it() -> None:
    """What nobody has done for weeks asks half as much again, also after it was changed."""
    plan = plan_text("10 x 60/30 at 8\n  squat", shipped())
    new = frozenset({"squat"})
    at = datetime.fromisoformat("2026-12-01T18:00")
    sessions = [
        Planned(id="a", at=at, asks=asks(plan)),
        Planned(id="b", at=at + timedelta(days=1), asks=asks(plan, new)),
    ]
    clash = next(one for one in clashes(sessions, []) if one.pattern == "legs")
    (gentler,) = [
        way
        for way in ways_out(clash, Around(sessions, []), plan, partial(asks, unused=new))
        if way.said.startswith("a gentler way")
    ]
    text = apply_edit(plan.reading.text, gentler.edits[0])
    after = asks(plan_text(text, shipped()), new).left
    assert after.worth("legs") < asks(plan, new).left.worth("legs") and after.worth("legs") < 4
