"""The database: SQLite in WAL mode with foreign keys on, brought up to date by migrations."""

from collections.abc import Iterator
from contextlib import closing, contextmanager
from pathlib import Path
from sqlite3 import Connection
from threading import RLock

from sqlalchemy import Engine, PoolProxiedConnection, event
from sqlalchemy.exc import DBAPIError
from sqlalchemy.pool import StaticPool
from sqlmodel import Session as Work
from sqlmodel import create_engine

from lovrit.store.migrate import migrate
from lovrit.store.revisions import AT, Revisions
from lovrit.store.trouble import Busy, trouble_of

WAIT_S = 5


class Database:
    """One open database file, or one in memory where ``path`` is None."""

    def __init__(self, path: Path | None, like: "Database | None" = None) -> None:
        """Open the file, make it where there is none, and bring it up to date.

        With ``like`` it begins with all that another one holds, taken by SQLite's own backup.

        Raises:
            Trouble: if it can't be used.
        """
        self.path = path
        self._writers = RLock()
        self._shared = (
            RLock() if path is None else None
        )  # a database in memory is one connection for all threads
        try:
            self.engine = _engine(path)
            if like:
                like.copy_to(self.engine)
            migrate(self.engine, path)
            self.revisions = Revisions(self.engine)
        except DBAPIError as error:
            raise trouble_of(error) or error from None

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
        try:
            with self.revisions.noting() as wrote, self._session() as session:
                try:
                    yield session
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
        return Work(self.engine, expire_on_commit=False, info={AT: self.revisions.now()})

    @contextmanager
    def writing(self) -> Iterator[Work]:
        """A unit of work that reads, decides and writes: no other of its kind comes in between. Keep it short.

        Raises:
            Trouble: if the file can't be written.
        """
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

    def close(self) -> None:
        """Let go of the file."""
        self.engine.dispose()


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
