"""The library as a whole: read from data once, asked by name."""

import tomllib
from functools import cache, cached_property
from importlib.resources import files
from typing import Any

from lovrit.core.moves.move import Move
from lovrit.core.values import Value

USUAL_REP_S = 3.0


class Library(Value):
    """Moves by name. Asking is forgiving: plural, hyphen and the move's other names all find it."""

    moves: tuple[Move, ...]

    @cached_property
    def _by_key(self) -> dict[str, Move]:
        keys = {_key(other): move for move in self.moves for other in move.also}
        return keys | {_key(move.name): move for move in self.moves}

    def find(self, name: str) -> Move | None:
        """The move of this name, or None where the library doesn't know it."""
        key = _key(name)
        found = self._by_key.get(key)
        return found or self._by_key.get(key.removeprefix("hold ").removesuffix(" hold"))

    def rep_s(self, name: str) -> float:
        """Seconds of one usual rep; three where nothing is known."""
        move = self.find(name)
        return move.seconds if move else USUAL_REP_S


def _key(name: str) -> str:
    words = name.lower().replace("-", " ").split()
    return " ".join(word if word.endswith("ss") else word.removesuffix("s") for word in words)


@cache
def shipped() -> Library:
    """The library that ships with Lovrit."""
    data = tomllib.loads(files("lovrit.core.moves").joinpath("moves.toml").read_text("utf-8"))
    return Library(moves=tuple(Move(name=name, **_plain(fields)) for name, fields in data.items()))


def _plain(fields: dict[str, Any]) -> dict[str, Any]:
    """Our own data as a move has it; a test holds it against the schema, so that no start has to."""
    return {field: tuple(value) if isinstance(value, list) else value for field, value in fields.items()}


def schema() -> dict[str, Any]:
    """The JSON Schema of the library's data: moves by name."""
    one = Move.model_json_schema()
    one["properties"].pop("name")
    one["required"] = [name for name in one["required"] if name != "name"]
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "$id": "urn:lovrit:moves:1",
        "title": "Moves by name",
        "type": "object",
        "additionalProperties": one,
    }
