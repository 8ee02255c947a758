"""The database: SQLite in WAL mode with foreign keys on, brought up to date by migrations."""

from collections.abc import Callable, Iterator
from contextlib import closing, contextmanager, nullcontext
from datetime import UTC, datetime
from pathlib import Path
from sqlite3 import Connection, Error, connect
from threading import RLock
from time import time_ns

from sqlalchemy import Engine, PoolProxiedConnection, event
from sqlalchemy.exc import DBAPIError
from sqlalchemy.pool import StaticPool
from sqlmodel import Session as Work
from sqlmodel import create_engine

from lovrit.store.migrate import migrate
from lovrit.store.revisions import AT, Revisions
from lovrit.store.trouble import Busy, CannotOpen, Moved, trouble_of

WAIT_S = 5
TODAY, NOW = "today", "now"  # of a piece of work: the day and the moment at which it is done


def _utc_day() -> str:
    return f"{datetime.now(UTC):%Y-%m-%d}"


class Database:
    """One open database file, or one in memory where ``path`` is None."""

    def __init__(self, path: Path | None, like: "Database | None" = None) -> None:
        """Open the file, make it where there is none, and bring it up to date.

        With ``like`` it begins with all that another one holds, taken by SQLite's own backup.

        Raises:
            Trouble: if it can't be used.
        """
        self.path = path
        self.now_ms: Callable[[], int] = lambda: time_ns() // 1_000_000
        self.today: Callable[[], str] = (
            _utc_day  # the house says its own: the club's zone and clock
        )
        self._writers, self._commits = RLock(), RLock()
        self._moves = 0
        self._shared = (
            RLock() if path is None else None
        )  # a database in memory is one connection for all threads
        try:
            self.engine = _engine(path)
            event.listen(self.engine, "do_connect", self._where_it_is)
            if like:
                like.copy_to(self.engine)
            migrate(self.engine, path)
            self.revisions = Revisions(self.engine)
            self._anchored = None if path is None else _Anchor(path)
        except DBAPIError as error:
            raise trouble_of(error) or error from None

    def _where_it_is(
        self, _dialect: object, _record: object, to: list[object], _more: object
    ) -> None:
        """Connections are made to where the file is by now."""
        if self.path is not None:
            to[0] = str(self.path)

    @contextmanager
    def work(self) -> Iterator[Work]:
        """A unit of work: committed at its end, rolled back if it fails.

        Raises:
            Trouble: if the file can't be read or written.
        """
        if self._shared:
            with self._shared:
                yield from self._worked()
        else:
            yield from self._worked()

    def _worked(self) -> Iterator[Work]:
        kept: set[str] = set()
        begun = self._moves
        try:
            with self.revisions.noting() as wrote, self._session() as session:
                try:
                    yield session
                    with self._commits:
                        if self._moves != begun:
                            raise Moved  # it would be written where nobody looks any more
                        session.commit()
                    kept = wrote
                except BaseException as error:
                    session.rollback()
                    trouble = trouble_of(error)
                    if trouble:
                        raise trouble from error
                    raise
        finally:
            self.revisions.moved(kept)

    def _session(self) -> Work:
        return Work(
            self.engine,
            expire_on_commit=False,
            info={AT: self.revisions.now(), TODAY: self.today(), NOW: self.now_ms()},
        )

    @contextmanager
    def writing(self) -> Iterator[Work]:
        """A unit of work that reads, decides and writes: no other of its kind comes in between. Keep it short.

        Raises:
            Trouble: if the file can't be written.
        """
        with (
            self._shared or nullcontext()
        ):  # first, as in any work: who holds it may want to write too
            if not self._writers.acquire(timeout=WAIT_S):
                raise Busy
            try:
                with self.work() as session:
                    yield session
            finally:
                self._writers.release()

    def copy_to(self, engine: Engine) -> None:
        """Put all that is kept here into another database, whole as of one moment, also while it is written to."""
        with closing(self.engine.raw_connection()) as ours, closing(engine.raw_connection()) as new:
            _sqlite(ours).backup(_sqlite(new))

    def lost(self) -> bool:
        """Whether the file was deleted, renamed or replaced by another since it was opened."""
        return self._anchored is not None and not self._anchored.in_place()

    def move_to(self, path: Path) -> None:
        """Go on in another file, with all that was kept: what was opened is still whole, wherever its name went.

        Raises:
            Trouble: if it can't be written there; nothing has moved then.
        """
        assert self._anchored is not None
        with self._writers, self._commits:
            try:
                path.unlink(missing_ok=True)
                self._anchored.copy_to(path)
                anchored = _Anchor(path)
            except (OSError, Error) as error:
                raise CannotOpen(path) from error
            self._anchored.close()
            self._anchored, self.path = anchored, path
            self._moves += 1
            self.engine.dispose()

    def close(self) -> None:
        """Let go of the file."""
        self.engine.dispose()
        if self._anchored:
            self._anchored.close()


class _Anchor:
    """A connection that stays with the file itself, whatever becomes of its name."""

    def __init__(self, path: Path) -> None:
        self._path, found = path, path.stat()
        self._is = (found.st_dev, found.st_ino)
        self._connection = connect(path, check_same_thread=False)
        self._connection.execute("SELECT count(*) FROM sqlite_master").fetchone()

    def in_place(self) -> bool:
        """Whether its name is still the file's."""
        try:
            found = self._path.stat()
        except OSError:
            return False
        return self._is == (found.st_dev, found.st_ino)

    def copy_to(self, path: Path) -> None:
        """All that is in it, whole, into a new file."""
        path.parent.mkdir(parents=True, exist_ok=True)
        path.touch(mode=0o600)
        with closing(connect(path)) as new:
            self._connection.backup(new)
            new.execute("PRAGMA journal_mode=WAL")

    def close(self) -> None:
        """Let go of it."""
        self._connection.close()


def _engine(path: Path | None) -> Engine:
    if path is None:
        options = {"poolclass": StaticPool}
        url = "sqlite://"
    else:
        path.parent.mkdir(parents=True, exist_ok=True)
        options, url = {}, f"sqlite:///{path}"
    # an insert that fails would be logged with its values, which are people's hearts
    engine = create_engine(
        url, connect_args={"check_same_thread": False}, hide_parameters=True, **options
    )
    event.listen(engine, "connect", _pragmas)
    return engine


def _sqlite(pooled: PoolProxiedConnection) -> Connection:
    raw = pooled.driver_connection
    assert isinstance(raw, Connection)
    return raw


def _pragmas(connection: Connection, _record: object) -> None:
    # FULL: what was acknowledged is on the disk, also when the power goes
    for pragma in (
        f"busy_timeout={WAIT_S * 1000}",
        "journal_mode=WAL",
        "foreign_keys=ON",
        "synchronous=FULL",
        "secure_delete=ON",  # what is deleted is written over: people's health is among it
    ):
        connection.execute(f"PRAGMA {pragma}")
