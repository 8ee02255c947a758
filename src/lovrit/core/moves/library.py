"""The library as a whole: read from data once, asked by name."""

import json
import tomllib
from collections.abc import Iterable
from contextlib import suppress
from functools import cache, cached_property
from importlib.resources import files
from typing import Any
from zlib import crc32

from lovrit.core.kept import kept_at
from lovrit.core.moves.move import Move, Pattern, Use
from lovrit.core.moves.names import FREE, MANNERS, STOOD_ON, harmless, key_of, plainer, without_kit
from lovrit.core.values import Value, schema_of

USUAL_REP_S = 3.0
USUAL_METRE_S = 1.0


class Library(Value):
    """Moves by name. Asking is forgiving: plural, hyphen and the move's other names all find it.

    ``pace`` is how long this club takes where a usual person takes 1, as its scores say; ``rests_on`` so many scores.
    ``by_people_here`` are keys of the moves whose ``fresh`` is what this club's people do.
    """

    moves: tuple[Move, ...]
    pace: float = 1.0
    rests_on: int = 0
    by_people_here: frozenset[str] = frozenset()

    @cached_property
    def _by_key(self) -> dict[str, Move]:
        keys = {key_of(other): move for move in self.moves for other in move.also}
        return keys | {key_of(move.name): move for move in self.moves}

    @cached_property
    def _known(self) -> dict[str, tuple[Move | None, str]]:
        return {}

    def find(self, name: str) -> Move | None:
        """The move of this name, or None where the library doesn't know it; “push-up on knees” finds push-up."""
        return self.find_way(name)[0]

    def find_way(self, name: str) -> tuple[Move | None, str]:
        """The move of this name, and the named way of it that is written behind; no way where it is plain."""
        if name not in self._known:
            self._known[name] = self._found(key_of(name))
        return self._known[name]

    def _found(self, key: str) -> tuple[Move | None, str]:
        plain = self._by_key.get(key) or self._by_key.get(
            key.removeprefix("hold ").removesuffix(" hold")
        )
        if plain:
            return plain, ""
        kitted = without_kit(key)
        base = self._by_key.get(kitted.key) if kitted else None
        if base and self.takes_weight(base):
            return base, ""
        words = key.split()
        for nth in range(len(words) - 1, 0, -1):
            move = self._by_key.get(" ".join(words[:nth]))
            rest = " ".join(words[nth:])
            way = (
                next((way for way in (*move.easier, *move.harder) if key_of(way) == rest), None)
                if move
                else None
            )
            if move and way:
                return move, way
        return self._plainly(key), ""

    def _plainly(self, key: str) -> Move | None:
        """The move of a name that says more than its name, where that changes nothing of what it is."""
        head, _, tail = key.partition(" with ")
        tried = [*plainer(key), *([head] if tail and harmless(tail) else [])]
        for one in tried:
            held = not set(key.split()) - set(one.split()) <= MANNERS  # a weight, a band, one hand
            move = self._found(one)[0] if len(one) < len(key) else None
            if move and (not held or move.pattern == "carry" or self.takes_weight(move)):
                return move
        return None

    def kit_of(self, name: str) -> tuple[str, ...]:
        """The kit that a move of this name is done with; the weight that the name itself says comes before its own."""
        move = self.find(name)
        if move is None:
            return ()
        kitted = without_kit(key_of(name))
        own = self._by_key.get(key_of(name)) is move and key_of(move.name) == key_of(name)
        if kitted and not own and self.takes_weight(move):
            return (kitted.kit, *(one for one in move.kit if one not in FREE))
        return move.kit

    @staticmethod
    def takes_weight(move: Move) -> bool:
        """Whether a move may be done with another free weight than its own: none of a machine or a wall."""
        return (
            set(move.needs_kit) <= FREE | STOOD_ON
            and move.impact != "high"
            and move.counted == "reps"
        )

    def rep_s(self, name: str) -> float:
        """Seconds of one usual rep, of the way that is named where it has its own; three where nothing is known."""
        move, way = self.find_way(name)
        return self.pace * (move.way_seconds.get(way, move.seconds) if move else USUAL_REP_S)

    def metre_s(self, name: str) -> float:
        """Seconds of one usual metre; a run where no move is named, a slow second where nothing is known."""
        move = self.find(name or "run")
        return self.pace * (move.metre if move and move.metre else USUAL_METRE_S)

    def serving(self, use: Use, pattern: Pattern | None = None) -> list[Move]:
        """The moves that are taken for something, of a pattern where one is named, in the order of the library."""
        found = (move for move in self.moves if use in move.uses)
        return [move for move in found if pattern is None or move.pattern == pattern]

    def with_own(self, own: Iterable[Move]) -> "Library":
        """This library with a club's own moves; one of the same name takes the shipped one's place."""
        named = {key_of(move.name): move for move in self.moves} | {
            key_of(move.name): move for move in own
        }
        return Library(moves=tuple(named.values()), pace=self.pace, rests_on=self.rests_on)

    def at_pace(self, pace: float, rests_on: int) -> "Library":
        """This library with seconds as a club's scores have them."""
        return Library(moves=self.moves, pace=pace, rests_on=rests_on)

    def done_here(self, fresh: dict[str, int]) -> "Library":
        """This library with what this club does in one go, by a move's key."""
        moves = tuple(
            move.but(fresh=fresh[key]) if (key := key_of(move.name)) in fresh else move
            for move in self.moves
        )
        return Library(
            moves=moves, pace=self.pace, rests_on=self.rests_on, by_people_here=frozenset(fresh)
        )

    def kit(self) -> tuple[str, ...]:
        """All kit that some move is done with, by name."""
        return tuple(sorted({name for move in self.moves for name in move.kit}))


@cache
def shipped() -> Library:
    """The library that ships with Lovrit."""
    text = files("lovrit.core.moves").joinpath("moves.toml").read_text("utf-8")
    return Library(
        moves=tuple(Move(name=name, **_plain(fields)) for name, fields in _read(text).items())
    )


def _read(text: str) -> dict[str, Any]:
    """The data of the library's file. It is kept as JSON, which is read twenty times as quickly, for the next start."""
    kept = kept_at(f"moves-{crc32(text.encode()):08x}.json")
    try:
        return dict(json.loads(kept.read_text("utf-8"))) if kept else tomllib.loads(text)
    except (OSError, ValueError):
        data = tomllib.loads(text)
    with suppress(OSError):
        assert kept
        kept.write_text(json.dumps(data), "utf-8")
        for older in kept.parent.glob("moves-*.json"):
            if older != kept:
                older.unlink()
    return data


def _plain(fields: dict[str, Any]) -> dict[str, Any]:
    """Our own data as a move has it; a test holds it against the schema, so that no start has to."""
    return {
        field: tuple(value) if isinstance(value, list) else value for field, value in fields.items()
    }


def schema() -> dict[str, Any]:
    """The JSON Schema of the library's data: moves by name."""
    one = schema_of(Move)
    one["properties"].pop("name")
    one["required"] = [name for name in one["required"] if name != "name"]
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "$id": "urn:lovrit:moves:1",
        "title": "Moves by name",
        "type": "object",
        "additionalProperties": one,
    }
