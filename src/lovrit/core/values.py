"""The ground everything in the core stands on: frozen values and the one family of errors.

Values compare by content and never change; whoever wants another one makes another one. They are plain dataclasses:
what the program makes itself is checked by its types. What comes from outside (JSON, a form, the library's data) goes
through ``checked`` and its kin, which hold every field to its annotation; the checks of a kind are built when they are
first asked for, so a command that only reads a slate starts quickly.
"""

from collections.abc import Callable
from dataclasses import MISSING, FrozenInstanceError, dataclass, field, fields
from typing import TYPE_CHECKING, Any, ClassVar, Self, TypeVar, dataclass_transform, get_type_hints

from pydantic import ConfigDict, TypeAdapter

Checked = TypeVar("Checked")
HASHED = "__hashed__"  # where a value keeps its hash, beside its fields


@dataclass_transform(frozen_default=True, kw_only_default=True, field_specifiers=(field,))
class Value:
    """A frozen value, made by the names of its fields; one that is checked refuses fields it does not know.

    It is a dataclass whose few methods are written once here, not made anew for each kind: writing them out takes a
    millisecond a kind, and a command that reads a slate would wait for a hundred of those.
    """

    __pydantic_config__ = ConfigDict(extra="forbid")

    _names: ClassVar[tuple[str, ...]] = ()
    _blank: ClassVar[dict[str, Any]] = {}
    _fresh: ClassVar[dict[str, Callable[[], Any]]] = {}

    def __init_subclass__(cls) -> None:
        dataclass(init=False, repr=False, eq=False, kw_only=True)(cls)
        every = fields(cls)  # type: ignore[arg-type]
        cls._names = tuple(one.name for one in every)
        cls._blank = {one.name: one.default for one in every if one.default is not MISSING}
        cls._fresh = {
            one.name: one.default_factory for one in every if one.default_factory is not MISSING
        }

    if not TYPE_CHECKING:  # a call is checked against the fields, where no __init__ is seen

        def __init__(self, /, **given: Any) -> None:
            made = {**self._blank, **{name: make() for name, make in self._fresh.items()}, **given}
            if made.keys() != set(self._names):
                raise TypeError(f"{type(self).__name__} is made of {', '.join(self._names)}")
            self.__dict__.update(made)

    def __setattr__(self, name: str, value: object) -> None:
        raise FrozenInstanceError(
            f"{type(self).__name__} is frozen: make another with .but({name}=...)"
        )

    def __delattr__(self, name: str) -> None:
        raise FrozenInstanceError(f"{type(self).__name__} is frozen")

    def __eq__(self, other: object) -> bool:
        return type(other) is type(self) and fields_of(self) == fields_of(other)

    def __hash__(self) -> int:
        known: int | None = self.__dict__.get(HASHED)
        if known is None:  # it never changes, so it is worked out once
            known = self.__dict__[HASHED] = hash((type(self), *fields_of(self).values()))
        return known

    def __getstate__(self) -> dict[str, Any]:
        return fields_of(self)  # a hash of text is another one in another process

    def __repr__(self) -> str:
        said = ", ".join(f"{name}={value!r}" for name, value in fields_of(self).items())
        return f"{type(self).__name__}({said})"

    def but(self, **changes: Any) -> Self:
        """The same value with other content in the fields that are named."""
        return type(self)(**{**fields_of(self), **changes})


def fields_of(value: Value) -> dict[str, Any]:
    """A value's fields by name, each as it is."""
    return {name: value.__dict__[name] for name in value._names}


def names_of(kind: type[Value]) -> tuple[str, ...]:
    """The names of a kind's fields, in their order."""
    return kind._names


def defaults_of(kind: type[Value]) -> dict[str, Any]:
    """What the fields of a kind are where nothing is said, for those that have such a default."""
    return dict(kind._blank)


def type_of(kind: type[Value], name: str) -> Any:
    """What a field may hold."""
    return get_type_hints(kind)[name]


_adapters: dict[Any, TypeAdapter[Any]] = {}


def _adapter(kind: Any) -> TypeAdapter[Any]:
    if kind not in _adapters:
        _adapters[kind] = TypeAdapter(kind)
    return _adapters[kind]


def checked(kind: type[Checked], given: object) -> Checked:
    """A value of a kind from fields that came from outside.

    Raises:
        ValidationError: naming each field that is missing, unknown, or can't be.
    """
    made: Checked = _adapter(kind).validate_python(given)
    return made


def checked_json(kind: type[Checked], text: str | bytes) -> Checked:
    """The same from JSON text."""
    made: Checked = _adapter(kind).validate_json(text)
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
