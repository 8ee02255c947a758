"""What a coach changed of a class, in words: said of one event, wherever a class is told afterwards."""

from collections.abc import Sequence

from lovrit.core.run.board import CLOSED
from lovrit.core.run.going import Happening
from lovrit.core.run.late import plan_in_words
from lovrit.core.session.session import Session


def change_said(event: Happening, session: Session, labels: Sequence[str]) -> str:
    """What an event changed; empty where it changed nothing of the plan. ``labels`` are what blocks are called."""
    of = {name: str(value) for name, value in event.fields.items()}
    at = of.get("block", "")
    whose = f" of {labels[int(at)]}" if at.isdecimal() and int(at) < len(labels) else ""
    move = of.get("move")
    words = {
        "replace": f"{of.get('station')} {'was closed' if move == CLOSED else f'became {move}'}",
        "plan": plan_in_words(of.get("way", ""), session),
        "skip-round": "a round was left out",
        "skip-block": "a block was left out",
        "drop-round": f"one round fewer{whose}",
    }
    return words.get(event.kind, "")
