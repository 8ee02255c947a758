"""Working by turns: partners, or teams of whom one works while the others rest."""

from typing import Any

from lovrit.core.blocks.options import Option, Read, flag
from lovrit.core.slate.tree import Node, tokens, whole
from lovrit.core.slate.words import Word

MOST_IN_TEAM = 20


def _team(node: Node) -> Read:
    return Read({"team": whole(tokens(node, "NUM")[0], "people in a team", 2, MOST_IN_TEAM)}, [])


def _written(block: Any) -> str:
    return f"teams of {block.team}, one works" if block.team else ""


PARTNER_WORD = Word(
    "PARTNERS.4", r"/partners(?:[ \t]+alternate)?\b/i", "“partners alternate”", "partners alternate"
)
PARTNERS = Option(
    "partners",
    "PARTNERS",
    "partners alternate",
    flag("partners"),
    lambda block: "partners alternate" if block.partners else "",
    (PARTNER_WORD,),
    "partners alternate",
)
# where nothing but the size of the team is kept, partners are a team of two
PAIR = Option(
    "partners",
    "PARTNERS",
    "partners alternate",
    lambda _node: Read({"team": 2}, []),
    lambda block: "partners alternate" if block.team == 2 else "",
    (PARTNER_WORD,),
    "partners alternate",
)
TEAMS = Option(
    "teams",
    "TEAMS NUM (COMMA? ONE_WORKS)?",
    "teams of",
    _team,
    lambda block: _written(block) if block.team > 2 or hasattr(block, "partners") else "",
    (
        Word("TEAMS.4", r"/teams?[ \t]+of\b/i", "“teams of” and how many", "teams of"),
        Word("ONE_WORKS.4", r"/one[ \t]+works\b/i", "“one works”", "one works"),
    ),
    "teams of 3, one works",
)


def share_of(block: Any) -> float:
    """Which part of the work one person does."""
    return 1 / (2 if getattr(block, "partners", False) else max(1, block.team))
