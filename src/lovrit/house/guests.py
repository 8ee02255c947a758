"""Browsers that gave the passphrase: known by what their cookie holds, kept hashed, let go after thirty days."""

import secrets
from collections import deque
from hashlib import sha256
from threading import Lock

from argon2 import PasswordHasher
from argon2.exceptions import Argon2Error

from lovrit.store import guests
from lovrit.store.database import Database

DAYS_MS = 30 * 86_400_000
FREE_GUESSES = 5
LONGEST_WAIT_S = 900
GUESSES_IN_ALL, IN_ALL_MS = 40, 600_000


class Guests:
    """Who is in. The passphrase is held as its hash alone."""

    def __init__(self, database: Database, passphrase: str, now_ms: int) -> None:
        self.database = database
        self._hasher = PasswordHasher()
        self._hash = self._hasher.hash(passphrase)
        with database.work() as work:
            guests.let_go_before(work, now_ms - DAYS_MS)
            rows = guests.listed(work)
        self._seen = {row.key: row.seen_ms for row in rows}
        self._came = {row.key: row.came_ms for row in rows}

    def right(self, given: str) -> bool:
        """Whether this is the passphrase."""
        try:
            return self._hasher.verify(self._hash, given)
        except (Argon2Error, ValueError):
            return False

    def come_in(self, said: str, now_ms: int) -> str:
        """Let a browser in that says it is ``said``; what its cookie is to hold."""
        token = secrets.token_urlsafe(32)
        key = key_of(token)
        with self.database.writing() as work:
            guests.add(work, key, said[:120], now_ms)
        self._seen[key] = self._came[key] = now_ms
        return token

    def known(self, token: str, now_ms: int) -> bool:
        """Whether a cookie is of a browser that is in."""
        key = key_of(token)
        came = self._came.get(key)
        if came is None or now_ms - came > DAYS_MS:
            return False
        self._seen[key] = now_ms
        return True

    def let_go(self, key: str) -> None:
        """Let a browser go; it is asked for the passphrase again."""
        with self.database.writing() as work:
            guests.let_go(work, key)
        self._seen.pop(key, None)
        self._came.pop(key, None)

    def seen(self) -> dict[str, int]:
        """When each was last here, in ms since 1970."""
        return dict(self._seen)


def key_of(token: str) -> str:
    """What is kept of a cookie: from it nobody can make the cookie again."""
    return sha256(token.encode("utf-8", "replace")).hexdigest()


class Guesses:
    """Wrong passphrases slow down whoever gives them: each after the fifth doubles the wait, and all share a limit."""

    def __init__(self) -> None:
        self._wrong: dict[str, tuple[int, int]] = {}
        self._all: deque[int] = deque(maxlen=GUESSES_IN_ALL)
        self._lock = Lock()

    def wait_s(self, address: str, now_ms: int) -> int:
        """Seconds until the next guess from an address is looked at."""
        with self._lock:
            count, last_ms = self._wrong.get(address, (0, 0))
            mine = (
                min(LONGEST_WAIT_S, 2 ** (count - FREE_GUESSES)) * 1000
                if count >= FREE_GUESSES
                else 0
            )
            waits = [last_ms + mine - now_ms]
            if len(self._all) == GUESSES_IN_ALL:
                waits.append(self._all[0] + IN_ALL_MS - now_ms)
            return max(0, -(-max(waits) // 1000))

    def wrong(self, address: str, now_ms: int) -> None:
        """Count a wrong guess."""
        with self._lock:
            if len(self._wrong) > 10_000:  # an address more or less is no matter, memory is
                self._wrong.clear()
            count, _ = self._wrong.get(address, (0, 0))
            self._wrong[address] = (count + 1, now_ms)
            self._all.append(now_ms)

    def right(self, address: str) -> None:
        """A right one clears what went before."""
        with self._lock:
            self._wrong.pop(address, None)
