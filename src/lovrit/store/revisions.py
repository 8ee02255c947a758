"""How often each table was written to: what is worked out from one is known to be of before once it was written again.

Nobody has to say so: statements are read as they are carried out, and count once they are on the disk.
"""

import re
from collections import Counter
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from functools import cache
from threading import Lock, local
from typing import Any

from sqlalchemy import Engine, event
from sqlmodel import Session as Work
from sqlmodel import SQLModel

WRITES = re.compile(r"\s*(?:INSERT\s+INTO|UPDATE)\s+\"?(\w+)", re.IGNORECASE)
# what may take rows of other tables along
TAKES = re.compile(
    r"\s*(?:DELETE\s+FROM|REPLACE\s+INTO|INSERT\s+OR\s+\w+\s+INTO|UPDATE\s+OR\s+\w+)\s+\"?(\w+)",
    re.IGNORECASE,
)
AT = "revisions"
Moved = Callable[[frozenset[str]], None]


class Revisions:
    """The revision of each table of one database, and who is told when one moves."""

    def __init__(self, engine: Engine) -> None:
        self._counts: Counter[str] = Counter()
        self._lock, self._here = Lock(), local()
        self._told: list[Moved] = []
        event.listen(engine, "after_cursor_execute", self._carried_out)

    def now(self) -> Counter[str]:
        """The revisions of all tables that were written to, as they stand."""
        with self._lock:
            return Counter(self._counts)

    def tell(self, told: Moved) -> None:
        """Whoever is told of the tables that a unit of work has written to, once it is on the disk and over."""
        self._told.append(told)

    @contextmanager
    def noting(self) -> Iterator[set[str]]:
        """What is written to in a unit of work; one that stands in another is told of when that one is over."""
        open_ = self._open
        wrote: set[str] = set()
        open_.append(wrote)
        try:
            yield wrote
        finally:
            open_.pop()

    def moved(self, wrote: set[str]) -> None:
        """Tables were written to."""
        self._due.update(wrote)
        if self._open:
            return
        due = frozenset(self._due)
        self._due.clear()
        with self._lock:
            self._counts.update(due)
        for told in self._told if due else ():
            told(due)

    @property
    def _open(self) -> list[set[str]]:
        """The units of work of this thread that are not over, the outermost first."""
        if not hasattr(self._here, "open"):
            self._here.open, self._here.due = [], set()
        found: list[set[str]] = self._here.open
        return found

    @property
    def _due(self) -> set[str]:
        found: set[str] = self._here.due
        return found

    def _carried_out(self, _connection: Any, _cursor: Any, statement: str, *_: Any) -> None:
        if not self._open:
            return
        if found := WRITES.match(statement):
            self._open[-1].add(found[1].lower())
        elif found := TAKES.match(statement):
            self._open[-1].update(_with(found[1].lower()))


def revisions_at(work: Work, tables: frozenset[str]) -> tuple[int, ...]:
    """The revisions of some tables as they were when a unit of work began: what it reads is of then or later."""
    at: Counter[str] = work.info[AT]
    return tuple(at[one] for one in sorted(tables))


@cache
def _with(table: str) -> frozenset[str]:
    """A table with all that follow it where one of its rows goes."""
    found, ahead = {table}, [table]
    while ahead:
        one = ahead.pop()
        for other in SQLModel.metadata.tables.values():
            points = any(key.column.table.name == one for key in other.foreign_keys)
            if points and other.name not in found:
                found.add(other.name)
                ahead.append(other.name)
    return frozenset(found)
