"""The ground everything in the core stands on: frozen values and the one family of errors.

Values compare by content and never change; whoever wants another one makes another one. What comes from outside
(JSON, a form, the library's data) is checked by ``model_validate`` and its kin. What the program makes itself is
checked by its types, so making a value builds no validator: a command that only reads a slate starts quickly.
"""

from functools import cache
from typing import TYPE_CHECKING, Any

from pydantic import BaseModel, ConfigDict


class Value(BaseModel):
    """A frozen value that refuses fields it does not know."""

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)

    if not TYPE_CHECKING:  # the types of a call are checked against the fields, where no __init__ is seen

        def __init__(self, /, **fields: Any):
            blank, required = _blank(type(self))
            if not (required <= fields.keys() <= blank.keys()):
                raise TypeError(f"{type(self).__name__} is made of {', '.join(blank)}, not {', '.join(fields)}")
            object.__setattr__(self, "__dict__", {**blank, **fields})
            object.__setattr__(self, "__pydantic_fields_set__", set(fields))
            object.__setattr__(self, "__pydantic_extra__", None)
            object.__setattr__(self, "__pydantic_private__", None)

        __init__.__pydantic_base_init__ = True  # validation fills a value by itself and doesn't come here

        def model_copy(self, *, update: dict[str, Any] | None = None, deep: bool = False) -> Any:
            """The same value but for what is in ``update``; nothing of a frozen value needs a deep copy."""
            del deep
            kept = {name: self.__dict__[name] for name in _blank(type(self))[0]}
            return type(self)(**{**kept, **(update or {})})


@cache
def _blank(kind: type[BaseModel]) -> tuple[dict[str, Any], frozenset[str]]:
    """A kind's fields in their order with their defaults, and the names of those that have none."""
    fields = kind.model_fields
    required = frozenset(name for name, field in fields.items() if field.is_required())
    return {name: field.get_default(call_default_factory=True) for name, field in fields.items()}, required


class LovritError(Exception):
    """Something a person can cause. ``str(error)`` is the sentence that the person reads."""
