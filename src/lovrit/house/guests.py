"""Browsers that gave a passphrase, and people of the house: known by hashes alone, and let go after thirty days."""

import secrets
from collections import OrderedDict, deque
from hashlib import sha256
from threading import Lock

from argon2 import PasswordHasher
from argon2.exceptions import Argon2Error

from lovrit.core.rights import OWNER, ROLES, Role, Who
from lovrit.core.values import LovritError
from lovrit.settings import LEAST_PASSPHRASE
from lovrit.store import club, guests, keepers
from lovrit.store.database import Database
from lovrit.store.tables import KeeperRow

DAYS_MS = 30 * 86_400_000
FREE_GUESSES = 5
LONGEST_WAIT_S = 900
GUESSES_IN_ALL, IN_ALL_MS = 40, 600_000
MOST_KEPT, MOST_NAME = 10_000, 60
INVITED_MS = 3 * 86_400_000
MARK = "passphrase-mark"  # by which a changed passphrase is known for one


class NotOfTheHouse(LovritError):
    """Somebody who can't come in, or be asked in; the sentence says why."""


class Guests:
    """Who is in: by the club's passphrase, of which only the hash is held, or by a name and one of their own.

    Without a passphrase it is asked on the machine itself, and nobody is let in or out by it.
    """

    def __init__(self, database: Database, passphrase: str | None, now_ms: int) -> None:
        self.database = database
        self._hasher = PasswordHasher()
        self._hash = self._hasher.hash(passphrase or secrets.token_urlsafe(24))
        if passphrase:
            self._mind(passphrase, now_ms)
        self.read()

    def _mind(self, passphrase: str, now_ms: int) -> None:
        """Browsers that may be in no more are out: the passphrase was changed, or they are here too long."""
        with self.database.writing() as work:
            kept = club.choice(work, MARK)
            if isinstance(kept, str) and not self._fits(kept, passphrase):
                guests.let_go_of_the_club(work)  # it was changed: who came by the old one is out
            if not isinstance(kept, str) or not self._fits(kept, passphrase):
                club.choose(work, MARK, self._hash)
            guests.let_go_before(work, now_ms - DAYS_MS)

    def read(self) -> None:
        """Who is in and who may come in, as it is kept by now."""
        with self.database.work() as work:
            rows, known = guests.listed(work), keepers.listed(work)
        before = getattr(self, "_seen", {})
        self._seen = {row.key: max(row.seen_ms, before.get(row.key, 0)) for row in rows}
        self._came = {row.key: (row.came_ms, row.keeper_id) for row in rows}
        self._keepers = {row.id or 0: row for row in known}

    @property
    def named(self) -> bool:
        """Whether anybody comes in by a name of their own."""
        return bool(self._keepers)

    def right(self, name: str, given: str) -> Who | None:
        """Who somebody is by a name and their passphrase, by the club's where no name is given; None if it is wrong."""
        wanted = " ".join(name.split()).casefold()
        if not wanted:
            return OWNER if self._fits(self._hash, given) else None
        row = next((one for one in self._keepers.values() if one.name.casefold() == wanted), None)
        # an unknown name takes as long as a wrong passphrase, so that nobody finds out who is of the house
        fits = self._fits(row.hash if row and row.hash else self._hash, given)
        return _who(row) if row and row.hash and fits else None

    def _fits(self, hashed: str, given: str) -> bool:
        try:
            return self._hasher.verify(hashed, given)
        except (Argon2Error, ValueError):
            return False

    def come_in(self, said: str, now_ms: int, who: Who = OWNER) -> str:
        """Let a browser in that says it is ``said``; what its cookie is to hold."""
        token = secrets.token_urlsafe(32)
        key = key_of(token)
        with self.database.writing() as work:
            guests.add(work, key, said[:120], now_ms, who.keeper)
        self._seen[key], self._came[key] = now_ms, (now_ms, who.keeper)
        return token

    def known(self, token: str, now_ms: int) -> Who | None:
        """Who a cookie is of; None where it is of nobody who may be in."""
        key = key_of(token)
        came_ms, keeper = self._came.get(key, (0, None))
        if key not in self._came or now_ms - came_ms > DAYS_MS:
            return None
        self._seen[key] = now_ms
        if keeper is None:
            return OWNER
        row = self._keepers.get(keeper)
        return _who(row) if row else None

    def invite(self, name: str, role: Role, now_ms: int) -> str:
        """Somebody new of the house; the token of their invitation, which ends after three days.

        Raises:
            NotOfTheHouse: where the name is none, or somebody is called so.
        """
        name = " ".join(name.split())
        if not 1 < len(name) <= MOST_NAME:
            raise NotOfTheHouse(f"A name has from two to {MOST_NAME} letters.")
        if any(one.name.casefold() == name.casefold() for one in self._keepers.values()):
            raise NotOfTheHouse(f"Somebody of the house is called {name} already.")
        token = secrets.token_urlsafe(24)
        with self.database.writing() as work:
            keepers.invite(work, name, role, key_of(token), now_ms)
        self.read()
        return token

    def invite_again(self, keeper_id: int, now_ms: int) -> str:
        """A new invitation for somebody who lost theirs, or their passphrase; the token."""
        token = secrets.token_urlsafe(24)
        with self.database.writing() as work:
            keepers.invite_again(work, keepers.get(work, keeper_id), key_of(token), now_ms)
        self.read()
        return token

    def invited(self, token: str, now_ms: int) -> KeeperRow | None:
        """Whose invitation a token is; None where it is nobody's, was taken, or has ended."""
        key = key_of(token)
        row = next((one for one in self._keepers.values() if one.invite == key), None)
        return row if row and now_ms - row.invited_ms <= INVITED_MS else None

    def accept(self, token: str, passphrase: str, now_ms: int) -> Who:
        """Somebody comes by their invitation and chooses a passphrase.

        Raises:
            NotOfTheHouse: where the invitation holds no more, or the passphrase is too short.
        """
        row = self.invited(token, now_ms)
        if row is None:
            raise NotOfTheHouse("This invitation holds no more. Ask for a new one.")
        if len(passphrase) < LEAST_PASSPHRASE:
            raise NotOfTheHouse(
                f"A passphrase has {LEAST_PASSPHRASE} letters at least; a few words do."
            )
        with self.database.writing() as work:
            keepers.accept(work, keepers.get(work, row.id or 0), self._hasher.hash(passphrase))
        self.read()
        return _who(row)

    def end(self, keeper_id: int, now_ms: int) -> None:
        """Somebody may not come in any more."""
        with self.database.writing() as work:
            keepers.end(work, keepers.get(work, keeper_id), now_ms)
        self.read()

    def of_the_house(self) -> list[KeeperRow]:
        """Those who may come in by a name, or are invited, by name."""
        return sorted(self._keepers.values(), key=lambda one: one.name.casefold())

    def let_go(self, key: str) -> None:
        """Let a browser go; it is asked for the passphrase again."""
        with self.database.writing() as work:
            guests.let_go(work, key)
        self._seen.pop(key, None)
        self._came.pop(key, None)

    def seen(self) -> dict[str, int]:
        """When each was last here, in ms since 1970."""
        return dict(self._seen)


def _who(row: KeeperRow) -> Who:
    roles: dict[str, Role] = {one: one for one in ROLES}
    return Who(row.name, roles.get(row.role, "assistant"), row.id)


def key_of(token: str) -> str:
    """What is kept of a cookie: from it nobody can make the cookie again."""
    return sha256(token.encode("utf-8", "replace")).hexdigest()


class Guesses:
    """Wrong passphrases slow down whoever gives them: each after the fifth doubles the wait, and all share a limit.

    A guess is counted before it is looked at, so that many at once are as slow as many in a row. Strangers share a
    limit; from where somebody once came in rightly, only one's own guesses count.
    """

    def __init__(self) -> None:
        self._wrong: dict[str, tuple[int, int]] = {}
        self._all: deque[int] = deque(maxlen=GUESSES_IN_ALL)
        self._known: OrderedDict[str, None] = OrderedDict()
        self._lock = Lock()

    def begin(self, address: str, now_ms: int) -> int:
        """Count a guess from an address; seconds until it is looked at, 0 where it may be now."""
        with self._lock:
            wait_s = self._wait_s(address, now_ms)
            if not wait_s:
                if len(self._wrong) > MOST_KEPT:  # an address more or less is no matter, memory is
                    self._wrong.clear()
                count, _ = self._wrong.get(address, (0, 0))
                self._wrong[address] = (count + 1, now_ms)
                if address not in self._known:
                    self._all.append(now_ms)
            return wait_s

    def _wait_s(self, address: str, now_ms: int) -> int:
        count, last_ms = self._wrong.get(address, (0, 0))
        mine = (
            min(LONGEST_WAIT_S, 2 ** (count - FREE_GUESSES)) * 1000 if count >= FREE_GUESSES else 0
        )
        waits = [last_ms + mine - now_ms]
        if address not in self._known and len(self._all) == GUESSES_IN_ALL:
            waits.append(self._all[0] + IN_ALL_MS - now_ms)
        return max(0, -(-max(waits) // 1000))

    def right(self, address: str) -> None:
        """A right one clears what went before."""
        with self._lock:
            self._wrong.pop(address, None)
            self._known[address] = None
            while len(self._known) > MOST_KEPT:
                self._known.popitem(last=False)
