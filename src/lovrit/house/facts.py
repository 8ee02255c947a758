"""What is worked out from what is kept: once, for all who ask, by a key; dropped by nobody's hand.

A fact is a pure function of its key. One that rests on tables has their revisions in its key, as they were when the
unit of work that asks began: what is written later makes another key, and the old one is let go in its turn.
"""

from collections import OrderedDict
from collections.abc import Callable, Hashable
from threading import Lock
from typing import Any, TypeVar

from sqlmodel import Session as Work

from lovrit.store.database import TODAY
from lovrit.store.revisions import revisions_at

T = TypeVar("T")
MOST = 800  # facts that are remembered; a season's weeks with all that their days ask are some two hundred


class Facts:
    """Remembered facts, so many of them at most; the least lately asked are let go first."""

    def __init__(self, most: int = MOST) -> None:
        self.most = most
        self._kept: OrderedDict[Hashable, Any] = OrderedDict()
        self._lock = Lock()

    def of(self, key: Hashable, make: Callable[[], T]) -> T:
        """A fact by its key, made where nobody has asked for it yet."""
        with self._lock:
            if key in self._kept:
                self._kept.move_to_end(key)
                known: T = self._kept[key]
                return known
        made = make()
        with self._lock:
            self._kept[key] = made
            while len(self._kept) > self.most:
                self._kept.popitem(last=False)
        return made

    def resting_on(
        self, work: Work, tables: frozenset[str], key: Hashable, make: Callable[[], T]
    ) -> T:
        """A fact that rests on some tables as this unit of work sees them, on its day."""
        return self.of((key, revisions_at(work, tables), work.info[TODAY]), make)
