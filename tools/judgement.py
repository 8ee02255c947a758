"""docs/judgement.md: what the second look looks at, rule by rule, from the rules themselves and what they rest on."""

import inspect
import re
import sys
from pathlib import Path

from lovrit.core.advice.look import RULES

OUT = Path(__file__).parent.parent / "docs" / "judgement.md"
FAMILIES = {
    "sums": "The arithmetic", "reach": "What people will get through", "reps": "Reps and holds", "load": "Loads",
    "dose": "How much, how hard", "course": "The course of a session", "hearts": "Hearts",
    "circumstances": "The hall and the weather", "order": "One after the other", "balance": "The whole body",
    "meant": "What can’t be meant", "telling": "Explaining it", "tested": "Fresh and ready",
    "untried": "What nobody has done", "landings": "Landings",
    "people": "Who comes", "pregnant": "For somebody pregnant", "days": "The days around it",
}  # fmt: skip
HEAD = """# What the second look looks at

Made by `make judgement` from the rules themselves. Each remark says its reason, what it rests on, and what can
be pressed. It never names a person, never diagnoses, and blocks nothing but what can't be run. House rules,
federations, midwives and doctors come before it.

How hard something is, is one measure: the effort that is written, else what the heart target comes to (per cent
of highest or of reserve: ACSM 2021; beats are taken of a usual highest; the threshold as 7.5). Rules, sums,
weeks and forecasts read that.

What it does **not** look at: technique, equipment's condition, food, sleep, pain that nobody said; the pace of
a named person; whether a load in kilograms suits somebody (the fit sheet does). A move that nobody has
described is known by its name only, and that is said.
"""
TAIL = """
## How far to trust it

Sessions judged on paper before the rules were read again (`tests/cases/sessions.toml`, `judged.toml`): every
doubtful one is questioned for its reason, no sound one is. Of 25 doubtful and 22 sound ones that were written
afterwards 24 were questioned and one sound one too, both mended since. Fixes are pressed in a test: each takes
its remark away and brings none that wants weighing. Figures that are ours rather than published stand as named
constants at the head of each file in `src/lovrit/core/advice`.
"""


def page() -> str:
    """The whole page."""
    found: dict[str, list[str]] = {}
    for rule in RULES:
        family = rule.__module__.rsplit(".", 1)[1]
        said = " ".join((inspect.getdoc(rule) or "").split("\n\n", 1)[0].split())
        basis = re.findall(r'basis="([^"]+)"', inspect.getsource(rule))
        rests = f" *({basis[0]})*" if basis else ""
        found.setdefault(family, []).append(f"- {said}{rests}")
    parts = [HEAD]
    for family, title in FAMILIES.items():
        parts.append("\n".join([f"\n## {title}\n", *found.pop(family)]))
    assert not found, f"a family without a title: {', '.join(found)}"
    return "\n".join(parts) + "\n" + TAIL


if __name__ == "__main__":
    OUT.write_text(page(), "utf-8")
    sys.stdout.write(f"{OUT.name}: {len(RULES)} rules\n")
