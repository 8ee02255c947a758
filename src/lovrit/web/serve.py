"""Serving: settings, demo data, logs, and the refusal to listen to the world without a passphrase."""

import gc
import logging
import sys
from pathlib import Path

import structlog
import uvicorn

from lovrit.demo.club import fill
from lovrit.settings import Settings
from lovrit.store.database import Database
from lovrit.web.app import BUILT, create_app

NO_PASSPHRASE = (
    "Lovrit does not listen on {host} without a passphrase, since anyone there could read people's hearts.\n"
    "Set LOVRIT_PASSPHRASE to one, or leave the host at 127.0.0.1."
)
NO_ASSETS = "The styles and scripts are not built yet: run `make setup` first."


def serve(host: str | None, port: int | None, *, demo: bool, fresh: bool) -> int:
    """Serve until stopped; the exit status."""
    gc.enable()
    given = {key: value for key, value in (("host", host), ("port", port)) if value is not None}
    settings = Settings(**given)  # type: ignore[arg-type]
    if demo:
        settings = settings.model_copy(update={"data": settings.data / "demo", "host": "127.0.0.1"})
    if not settings.loopback and not settings.passphrase:
        sys.stderr.write(NO_PASSPHRASE.format(host=settings.host) + "\n")
        return 2
    if not (BUILT / "desk.js").is_file():
        sys.stderr.write(NO_ASSETS + "\n")
        return 2
    if fresh:
        _forget(settings.database)
    log_to_stderr(settings.log_json)
    database = Database(settings.database)
    if demo:
        fill(database)
    app = create_app(settings, database)
    sys.stdout.write(f"Lovrit is at http://{settings.host}:{settings.port}/  (Ctrl-C stops it)\n")
    sys.stdout.flush()
    uvicorn.run(app, host=settings.host, port=settings.port, log_config=None, timeout_graceful_shutdown=2)
    return 0


def _forget(database: Path) -> None:
    for end in ("", "-wal", "-shm"):
        database.with_name(database.name + end).unlink(missing_ok=True)


def log_to_stderr(as_json: bool) -> None:
    """Structured logs, one line an event, on standard error."""
    last = structlog.processors.JSONRenderer() if as_json else structlog.dev.ConsoleRenderer(colors=False)
    structlog.configure(
        processors=[
            structlog.contextvars.merge_contextvars,
            structlog.processors.add_log_level,
            structlog.processors.TimeStamper(fmt="iso", utc=True),
            structlog.processors.format_exc_info,
            last,
        ],
        logger_factory=structlog.PrintLoggerFactory(sys.stderr),
    )
    logging.basicConfig(level=logging.WARNING, stream=sys.stderr)
