"""Remembering what a line means, and that it means nothing: an edit changes one line of many."""

from collections.abc import Callable
from functools import lru_cache, wraps
from typing import Any, ParamSpec, TypeVar

from lovrit.core.slate.problem import Unreadable

Args = ParamSpec("Args")
Result = TypeVar("Result")


_KEPT: list[Callable[[], None]] = []


def forget_all() -> None:
    """Nothing is remembered any more: for who measures what reading costs."""
    for clear in _KEPT:
        clear()


def remembered(most: int) -> Callable[[Callable[Args, Result]], Callable[Args, Result]]:
    """Keep the last so many answers of a pure function, its refusals too, which take as long to find."""

    def keep(of: Callable[Args, Result]) -> Callable[Args, Result]:
        @lru_cache(maxsize=most)
        def found(*args: Any) -> tuple[Any, Unreadable | None]:
            try:
                return of(*args), None  # type: ignore[call-arg]
            except Unreadable as error:
                return None, error

        _KEPT.append(found.cache_clear)

        @wraps(of)
        def asked(*args: Any) -> Any:
            value, error = found(*args)
            if error:  # a new one each time: who catches it may say more
                raise Unreadable(error.text, error.column, error.expected, error.nearest)
            return value

        return asked  # type: ignore[return-value]

    return keep
