"""What the pieces of a line say together: roles, each found by its neighbours wherever in the line it stands.

A way of saying is a pattern over kinds of pieces (not over letters), and what it gives. At each place the first way
that fits is taken; what none takes is left for the names of moves, or is asked about.
"""

import re
from collections.abc import Sequence
from functools import cache
from typing import NamedTuple

from lovrit.core.reading.giving import NOT_THIS, Pieces, Role
from lovrit.core.reading.token import Token
from lovrit.core.reading.ways import WAYS

KIND = re.compile(r"[A-Za-z_]{2,}|[XR](?![A-Za-z_])")


@cache
def _letters() -> dict[str, str]:
    """A letter for each kind of piece, so that ways of saying can be looked for in one go."""
    kinds = {kind for pattern, _ in WAYS for kind in KIND.findall(pattern)}
    more = {
        "word",
        "name",
        "count",
        "far",
        "cal",
        "size",
        "odd",
        "sign",
        "AND",
        "OR",
        "THEN",
        "UNTIL",
        "HOUR",
        "BACK",
        "ALL",
        "SHARE",
        "MAX",
    }
    measures = ("count", "time", "far", "cal", "load", "share", "watt", "split", "size")
    more |= {f"{one}{form}" for one in measures for form in ("", "_range", "_list", "_pair")}
    return {kind: chr(0xE000 + nth) for nth, kind in enumerate(sorted(kinds | more))}


@cache
def _all_ways() -> re.Pattern[str]:
    letters = _letters()
    made = []
    for nth, (pattern, _) in enumerate(WAYS):
        spread = re.sub(r"\((load|share|watt)", r"(\1", pattern)
        spread = re.sub(
            r"\(\?:load\|share\|watt\)\(\?:_range\|_pair\|_list\)\?",
            "(?:"
            + "|".join(
                f"{one}{form}"
                for one in ("load", "share", "watt")
                for form in ("", "_range", "_pair", "_list")
            )
            + ")",
            spread,
        )
        own = KIND.sub(lambda found: letters[found[0]], spread)
        own = re.sub(r"(?<=[\ue000-\uf8ff])\?", "?", own).replace("+ ", "+").replace(" ", "")
        made.append(f"(?P<w{nth}>{own})")
    return re.compile("|".join(made))


def spelled(tokens: Sequence[Token]) -> str:
    """A line as the letters of its pieces."""
    letters = _letters()
    return "".join(
        letters.get(one.kind, one.kind if len(one.kind) == 1 else "\ue0ff") for one in tokens
    )


class Taken(NamedTuple):
    """A place in a line: the roles that a way of saying gives there, or a piece that none took."""

    roles: tuple[Role, ...]
    tokens: tuple[Token, ...]


def taken(tokens: Sequence[Token]) -> list[Taken]:
    """The line from left to right: roles, and between them what is left for names."""
    said, ways = spelled(tokens), _all_ways()
    made: list[Taken] = []
    at = 0
    while at < len(tokens):
        found = ways.match(said, at)
        if found and found.end() > at:
            nth = int((found.lastgroup or "w0")[1:])
            part = tuple(tokens[at : found.end()])
            roles = tuple(WAYS[nth][1](Pieces(part)))
            if NOT_THIS in roles:
                made.append(Taken((), part[:1]))
                at += 1
                continue
            made.append(Taken(roles, part))
            at = found.end()
        else:
            made.append(Taken((), (tokens[at],)))
            at += 1
    return made
