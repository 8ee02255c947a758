"""Running the migrations that a file lacks, by their own tool."""

import sqlite3
from pathlib import Path

from alembic import command
from alembic.config import Config
from alembic.runtime.migration import MigrationContext
from alembic.script import ScriptDirectory
from sqlalchemy import Connection, Engine, create_engine, inspect

from lovrit.store.migrate import MIGRATIONS
from lovrit.store.trouble import Foreign, Newer

OURS = frozenset({"person", "session", "class", "comes"})


def upgrade(engine: Engine, path: Path | None) -> None:
    """Bring the tables up to the newest migration in one transaction.

    Raises:
        Newer: if a later Lovrit wrote the file.
        Foreign: if it is not ours.
    """
    config = _config()
    scripts = ScriptDirectory.from_config(config)
    with engine.connect() as connection:
        at = MigrationContext.configure(connection).get_current_revision()
        if at == scripts.get_current_head():
            return
        _refuse(connection, scripts, at, path)
        if at is not None and path is not None:
            _copy(path, path.with_name(f"{path.name}.before-{scripts.get_current_head()}"))
        connection.rollback()
        _upgrade(connection, config)


def _config() -> Config:
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    return config


def _refuse(
    connection: Connection, scripts: ScriptDirectory, at: str | None, path: Path | None
) -> None:
    tables = set(inspect(connection).get_table_names())
    if at is None and tables - {"alembic_version"} and not tables & OURS:
        raise Foreign(path)
    if at is not None and at not in {one.revision for one in scripts.walk_revisions()}:
        raise Newer(path) if tables >= OURS else Foreign(path)


def _copy(path: Path, to: Path) -> None:
    """The file as it is, taken by SQLite's own backup, so that what stands in the log beside it comes along."""
    part = to.with_name(to.name + ".part")
    with sqlite3.connect(path) as old, sqlite3.connect(part) as new:
        old.backup(new)
    old.close()
    new.close()
    part.chmod(0o600)
    part.replace(to)


def make_at(path: Path, version: str) -> None:
    """A new file with the tables of a version that has landed.

    Raises:
        Newer: if this Lovrit knows no such version.
    """
    config = _config()
    known = {one.revision for one in ScriptDirectory.from_config(config).walk_revisions()}
    if version not in known:
        raise Newer(path)
    engine = create_engine(f"sqlite:///{path}")
    try:
        with engine.connect() as connection:
            _upgrade(connection, config, version)
    finally:
        engine.dispose()


def _upgrade(connection: Connection, config: Config, to: str = "head") -> None:
    """Run the migrations in one transaction of our own: the driver would commit each change of a table by itself."""
    raw = connection.connection.dbapi_connection
    assert isinstance(raw, sqlite3.Connection)
    before, raw.isolation_level = raw.isolation_level, None
    try:
        raw.execute(
            "PRAGMA foreign_keys=OFF"
        )  # a table that is made anew takes nothing along that points at it
        raw.execute("BEGIN IMMEDIATE")
        config.attributes["connection"] = connection
        command.upgrade(config, to)
        connection.commit()
    except BaseException:
        connection.rollback()
        raise
    finally:
        raw.execute("PRAGMA foreign_keys=ON")
        raw.isolation_level = before
