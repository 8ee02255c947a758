"""The ground everything in the core stands on: frozen values and the one family of errors.

Values compare by content and never change; whoever wants another one makes another one. They are plain dataclasses:
what the program makes itself is checked by its types. What comes from outside (JSON, a form, the library's data) goes
through ``checked`` and its kin, which hold every field to its annotation; the checks of a kind are built when they are
first asked for, so a command that only reads a slate starts quickly.
"""

from dataclasses import dataclass, field, fields, replace
from typing import Any, Self, TypeVar, dataclass_transform, get_type_hints

from pydantic import ConfigDict, TypeAdapter

Kind = TypeVar("Kind")


@dataclass_transform(frozen_default=True, kw_only_default=True, field_specifiers=(field,))
class Value:
    """A frozen value, made by the names of its fields; one that is checked refuses fields it does not know."""

    __pydantic_config__ = ConfigDict(extra="forbid")

    def __init_subclass__(cls) -> None:
        dataclass(frozen=True, kw_only=True)(cls)

    def but(self, **changes: Any) -> Self:
        """The same value with other content in the fields that are named."""
        return replace(self, **changes)  # type: ignore[type-var]


def fields_of(value: Value) -> dict[str, Any]:
    """A value's fields by name, each as it is."""
    return {one: getattr(value, one) for one in names_of(type(value))}


def names_of(kind: type[Value]) -> tuple[str, ...]:
    """The names of a kind's fields, in their order."""
    return tuple(one.name for one in fields(kind))  # type: ignore[arg-type]


def type_of(kind: type[Value], name: str) -> Any:
    """What a field may hold."""
    return get_type_hints(kind)[name]


_adapters: dict[Any, TypeAdapter[Any]] = {}


def _adapter(kind: Any) -> TypeAdapter[Any]:
    if kind not in _adapters:
        _adapters[kind] = TypeAdapter(kind)
    return _adapters[kind]


def checked(kind: type[Kind], given: object) -> Kind:
    """A value of a kind from fields that came from outside.

    Raises:
        ValidationError: naming each field that is missing, unknown, or can't be.
    """
    made: Kind = _adapter(kind).validate_python(given)
    return made


def checked_json(kind: type[Kind], text: str | bytes) -> Kind:
    """The same from JSON text."""
    made: Kind = _adapter(kind).validate_json(text)
    return made


def plain(value: Value, **how: Any) -> dict[str, Any]:
    """A value as what JSON can hold; ``how`` as TypeAdapter.dump_python takes it."""
    made: dict[str, Any] = _adapter(type(value)).dump_python(value, mode="json", **how)
    return made


def schema_of(kind: type[Value]) -> dict[str, Any]:
    """The JSON Schema (2020-12) of a kind."""
    return _adapter(kind).json_schema(mode="validation")


class LovritError(Exception):
    """Something a person can cause. ``str(error)`` is the sentence that the person reads."""
