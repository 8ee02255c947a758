"""People of the house: owners, coaches, assistants, each with a name and, once they came, a passphrase (its hash)."""

from sqlmodel import Session as Work
from sqlmodel import col, delete, select

from lovrit.store.sessions import Gone
from lovrit.store.tables import GuestRow, KeeperRow


def listed(work: Work) -> list[KeeperRow]:
    """Those who may come in or are invited, by name."""
    query = select(KeeperRow).where(col(KeeperRow.ended_ms).is_(None))
    return sorted(work.exec(query), key=lambda one: one.name.casefold())


def get(work: Work, keeper_id: int) -> KeeperRow:
    """One of them.

    Raises:
        Gone: where there is none of this number, or no more.
    """
    row = work.get(KeeperRow, keeper_id)
    if row is None or row.ended_ms is not None:
        raise Gone("Nobody of the house is meant by that any more.")
    return row


def invite(work: Work, name: str, role: str, invite: str, now_ms: int) -> KeeperRow:
    """Somebody new, who comes in first by an invitation (its hash)."""
    row = KeeperRow(name=name, role=role, invite=invite, invited_ms=now_ms)
    work.add(row)
    work.flush()
    return row


def invite_again(work: Work, row: KeeperRow, invite: str, now_ms: int) -> None:
    """A new invitation in the place of the passphrase; their browsers are out."""
    row.hash, row.invite, row.invited_ms = None, invite, now_ms
    work.add(row)
    _out(work, row.id or 0)


def accept(work: Work, row: KeeperRow, hashed: str) -> None:
    """They came, and chose a passphrase (its hash); their other browsers are out."""
    row.hash, row.invite = hashed, None
    work.add(row)
    _out(work, row.id or 0)


def end(work: Work, row: KeeperRow, now_ms: int) -> None:
    """They may not come in any more, nor may their browsers."""
    row.ended_ms, row.hash, row.invite = now_ms, None, None
    work.add(row)
    _out(work, row.id or 0)


def _out(work: Work, keeper_id: int) -> None:
    work.exec(delete(GuestRow).where(col(GuestRow.keeper_id) == keeper_id))
