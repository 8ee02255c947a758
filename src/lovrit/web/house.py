"""What every route needs: the database, the clock, the templates, the classes that are on, in one place."""

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Annotated

from fastapi import Depends, Request
from jinja2 import Environment

from lovrit.core.advice.company import Schools
from lovrit.core.moves.library import Library, shipped
from lovrit.settings import Settings
from lovrit.store import club
from lovrit.store.database import Database
from lovrit.web.hub import Hub


@dataclass
class House:
    """One running Lovrit. ``now_ms`` is the clock, so that tests can have their own."""

    settings: Settings
    database: Database
    templates: Environment
    now_ms: Callable[[], int]
    library: Library = field(default_factory=shipped)
    hub: Hub = field(default_factory=Hub)
    schools: Schools = field(default_factory=Schools)
    missing: frozenset[str] = frozenset()

    def refresh(self) -> None:
        """Read again what the club holds; after each change of it."""
        with self.database.work() as work:
            self.library, self.schools, self.missing = club.library(work), club.schools(work), club.missing(work)


def house_of(request: Request) -> House:
    """The house that a request came to."""
    house: House = request.app.state.house
    return house


InHouse = Annotated[House, Depends(house_of)]
