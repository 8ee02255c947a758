"""Browsers that came in with the passphrase."""

from sqlmodel import Session as Work
from sqlmodel import col, delete, select

from lovrit.store.tables import GuestRow


def add(work: Work, key: str, said: str, now_ms: int, keeper_id: int | None = None) -> None:
    """Keep a browser by its key; ``said`` is what it says it is, ``keeper_id`` whose it is."""
    row = GuestRow(key=key, said=said, came_ms=now_ms, seen_ms=now_ms, keeper_id=keeper_id)
    work.add(row)


def listed(work: Work) -> list[GuestRow]:
    """All of them, the newest first."""
    return list(work.exec(select(GuestRow).order_by(col(GuestRow.came_ms).desc())))


def let_go(work: Work, key: str) -> None:
    """Let one go."""
    work.exec(delete(GuestRow).where(col(GuestRow.key) == key))


def let_go_of_the_club(work: Work) -> None:
    """Let those go who came by the club's own passphrase."""
    work.exec(delete(GuestRow).where(col(GuestRow.keeper_id).is_(None)))


def let_go_before(work: Work, came_ms: int) -> None:
    """Let those go who came before a moment."""
    work.exec(delete(GuestRow).where(col(GuestRow.came_ms) < came_ms))
