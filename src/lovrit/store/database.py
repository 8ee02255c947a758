"""The database: SQLite in WAL mode with foreign keys on, brought up to date by migrations."""

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from sqlite3 import Connection

from alembic import command
from alembic.config import Config
from sqlalchemy import Engine, event
from sqlalchemy.pool import StaticPool
from sqlmodel import Session, create_engine

MIGRATIONS = Path(__file__).parent / "migrations"


class Database:
    """One open database file, or one in memory where ``path`` is None."""

    def __init__(self, path: Path | None):
        self.path = path
        self.engine = _engine(path)
        migrate(self.engine)

    @contextmanager
    def work(self) -> Iterator[Session]:
        """A unit of work: committed at its end, rolled back if it fails."""
        with Session(self.engine, expire_on_commit=False) as session:
            try:
                yield session
                session.commit()
            except BaseException:
                session.rollback()
                raise

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
    engine = create_engine(url, connect_args={"check_same_thread": False}, **options)
    event.listen(engine, "connect", _pragmas)
    return engine


def _pragmas(connection: Connection, _record: object) -> None:
    for pragma in ("journal_mode=WAL", "foreign_keys=ON", "synchronous=NORMAL", "busy_timeout=5000"):
        connection.execute(f"PRAGMA {pragma}")


def migrate(engine: Engine) -> None:
    """Bring the tables up to the newest migration."""
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, "head")
