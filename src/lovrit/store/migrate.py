"""Bringing a file up to date: all of it or nothing, with a copy of how it was beside it."""

from pathlib import Path

from sqlalchemy import Engine, inspect, text

from lovrit.store.trouble import CannotOpen

MIGRATIONS = Path(__file__).parent / "migrations"


def migrate(engine: Engine, path: Path | None) -> None:
    """Bring the tables up to the newest migration in one transaction; a kill in its middle leaves the file as it was.

    A file that is up to date is let be without the migrations' own tool, which takes a while to load.

    Raises:
        Newer: if a later Lovrit wrote the file.
        Foreign: if it is not ours.
        CannotOpen: if there is no file to be had there.
    """
    if path is not None and path.exists() and not path.is_file():
        raise CannotOpen(path)
    with engine.connect() as connection:
        if inspect(connection).has_table("alembic_version"):
            at = connection.execute(text("SELECT version_num FROM alembic_version")).scalar()
            if at == _newest():
                return
    from lovrit.store.upgrade import upgrade

    upgrade(engine, path)


def _newest() -> str:
    """The newest migration there is, by its number."""
    return max(one.name.partition("_")[0] for one in (MIGRATIONS / "versions").glob("[0-9]*.py"))
