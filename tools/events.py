"""Write what the browser's scripts know of events, from the kinds of event themselves."""

import sys
from dataclasses import fields
from pathlib import Path

from lovrit.core.run.event import Event
from lovrit.core.run.events.goes_on import GO_ON_S
from lovrit.core.run.events.kinds import KINDS

PATH = Path(__file__).parent.parent / "src/lovrit/web/static/scripts/events.js"
ALWAYS = ("id", "kind", "at_ms")


def script() -> str:
    """The script: what kinds there are, what a press may carry, which are meant for the turn they were made in."""
    kinds = " | ".join(f'"{kind.name}"' for kind in KINDS)
    placed = ", ".join(f'"{kind.name}"' for kind in KINDS if kind.placed)
    carried = ", ".join(
        f"{one.name}?: {_type(str(one.type))}" for one in fields(Event) if one.name not in ALWAYS
    )
    return f"""// Made by `make events` from the kinds of event in core/run/events: not written by hand.

/**
 * @typedef {{{kinds}}} EventKind
 * @typedef {{{{id: string, kind: EventKind, at_ms: number, {carried}}}}} Press
 */

export const PLACED = new Set([{placed}]);
export const GO_ON_MS = {GO_ON_S * 1000:.0f};
"""


def _type(annotation: str) -> str:
    """A field's type as the scripts write it; one that means something empty may be null."""
    if "bool" in annotation:
        return "boolean"
    if "float" in annotation or ("int" in annotation and "str" not in annotation):
        return "number | null"
    return "string"


if __name__ == "__main__":
    PATH.write_text(script())
    sys.stdout.write(f"{PATH.name}: {len(KINDS)} kinds\n")
