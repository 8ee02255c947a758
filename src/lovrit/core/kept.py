"""Where the core keeps what takes long to make from its own data: tables that can be thrown away at any time."""

from os import environ
from pathlib import Path


def kept_at(name: str) -> Path | None:
    """A file of this name among the user's caches; None where there is no place for it."""
    home = Path(environ.get("XDG_CACHE_HOME") or Path.home() / ".cache") / "lovrit"
    try:
        home.mkdir(parents=True, exist_ok=True)
    except OSError:
        return None
    return home / name
