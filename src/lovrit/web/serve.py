"""Serving: settings, demo data, logs, and every reason for which it can't be, each as a sentence."""

import errno
import gc
import logging
import os
import socket
import sys
import time
from collections.abc import Callable
from datetime import UTC, datetime
from functools import partial
from getpass import getpass
from pathlib import Path
from threading import Thread

import segno
import structlog
import uvicorn
from fastapi import FastAPI
from pydantic import ValidationError

from lovrit.demo.club import dated, fill
from lovrit.demo.season import season
from lovrit.settings import LEAST_PASSPHRASE, NoZone, Settings, known_zone
from lovrit.store.copies import NoCopy, copy, put_waiting, restore
from lovrit.store.database import Database
from lovrit.store.lock import FolderLock
from lovrit.store.trouble import Trouble
from lovrit.web.app import BUILT, create_app
from lovrit.web.straps.entry import MOST_TEXT

NEEDS_ONE = (
    "Lovrit does not listen on {host} without a passphrase, since anyone there could read people's hearts.\n"
    "Set LOVRIT_PASSPHRASE to one, or leave the host at 127.0.0.1."
)
BY_NAME = (
    "Lovrit is not called by a name of others ({host}) without a passphrase, since anyone there could read people's "
    "hearts.\nSet LOVRIT_PASSPHRASE to one."
)
ASKED = f"A passphrase for coaches in the hall, {LEAST_PASSPHRASE} letters or more: "
NOBODY_TO_ASK = "Nobody is here to be asked for a passphrase: set LOVRIT_PASSPHRASE to one, then start it again."
SHORT_PASSPHRASE = (
    f"LOVRIT_PASSPHRASE is too short: {LEAST_PASSPHRASE} letters at least, or a few words."
)
NO_ASSETS = "The styles and scripts are not built yet: run `make setup` first."
REFUSED = 2
SWITCH_S = 0.001  # threads take turns this often, so that the clocks' loop waits little for a page that is worked out


class Refused(Exception):
    """It can't be served; the sentence says why."""


def serve(
    host: str | None, port: int | None, *, demo: bool, fresh: bool, hall: bool = False
) -> int:
    """Serve until stopped, with ``hall`` for phones and screens near by; the exit status."""
    gc.enable()
    sys.setswitchinterval(SWITCH_S)
    os.umask(0o077)
    try:
        if hall:
            host = host or "0.0.0.0"  # noqa: S104 - that is what it is asked for
            _asked_for_passphrase()
        settings = _settings(host, port, demo)
        listening = _listening(settings)
        lock = FolderLock(settings.data, _who(settings))
        if fresh:
            _forget(settings.database)
        log_to_stderr(settings.log_json)
        before = put_waiting(settings.database, f"{datetime.now(UTC):%Y%m%d-%H%M%S}")
        if before:
            sys.stdout.write(
                f"The copy that waited is in place; what was there is {before.name}.\n"
            )
        database = Database(settings.database)
        if demo:
            fill(database)
            dated(database, time.time_ns() // 1_000_000)
        app = create_app(settings, database)
        settings = settings.model_copy(update={"passphrase": None})
        os.environ.pop("LOVRIT_PASSPHRASE", None)
    except (Refused, Trouble, NoZone, NoCopy) as refused:
        sys.stderr.write(f"{refused}\n")
        return REFUSED
    gc.collect()
    gc.freeze()  # what is there for good is not looked through again, which would stop every clock for a moment
    config = uvicorn.Config(
        app, log_config=None, timeout_graceful_shutdown=2, access_log=False, ws_max_size=MOST_TEXT,
        proxy_headers=True, forwarded_allow_ips=list(settings.proxies),
    )  # fmt: skip
    past = partial(_past, database, app) if demo and settings.season else None
    _Server(config, settings, past).run(sockets=[listening])
    lock.release()
    return 0


class _Server(uvicorn.Server):
    """A server that says where it is once it is there."""

    def __init__(
        self, config: uvicorn.Config, settings: Settings, beside: Callable[[], None] | None
    ) -> None:
        super().__init__(config)
        self.settings, self.beside = settings, beside

    async def startup(self, sockets: list[socket.socket] | None = None) -> None:
        """Start, then say so."""
        await super().startup(sockets)
        if self.started:
            host = f"[{self.settings.host}]" if ":" in self.settings.host else self.settings.host
            sys.stdout.write(
                f"Lovrit is at http://{host}:{self.settings.port}/  (Ctrl-C stops it)\n"
            )
            if not self.settings.loopback:
                _say_where(self.settings.port)
            sys.stdout.flush()
            if self.beside:
                Thread(target=self.beside, daemon=True).start()


def _asked_for_passphrase() -> None:
    """A passphrase where none is set, asked of who started it.

    Raises:
        Refused: where nobody can be asked.
    """
    if os.environ.get("LOVRIT_PASSPHRASE"):
        return
    if not sys.stdin.isatty():
        raise Refused(NOBODY_TO_ASK)
    while len(said := getpass(ASKED)) < LEAST_PASSPHRASE:
        sys.stdout.write(f"{LEAST_PASSPHRASE} letters at least, or a few words.\n")
    os.environ["LOVRIT_PASSPHRASE"] = said


def _say_where(port: int) -> None:
    """The address that phones near by reach it at, and a code to read it from."""
    url = f"http://{_near_by()}:{port}/"
    sys.stdout.write(f"In the hall, on the same network: {url}  (screens join at {url}join)\n")
    segno.make(url, error="l").terminal(out=sys.stdout, compact=True)


def _near_by() -> str:
    """This machine's address on the network that it would go out by; nothing is sent."""
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as out:
        try:
            out.connect(("192.0.2.1", 9))
            return str(out.getsockname()[0])
        except OSError:
            return socket.gethostname()


def _past(database: Database, app: FastAPI) -> None:
    """The sample club's season, made beside the first pages."""
    season(database)
    app.state.floor.teach()


def _settings(host: str | None, port: int | None, demo: bool) -> Settings:
    given = {key: value for key, value in (("host", host), ("port", port)) if value is not None}
    try:
        settings = Settings(**given)  # type: ignore[arg-type]
    except ValidationError as error:
        raise Refused(_cannot_be(error)) from None
    known_zone(settings.time_zone)
    if "simulated" not in settings.model_fields_set:
        settings = settings.model_copy(update={"simulated": demo})
    if demo:
        settings = settings.model_copy(update={"data": settings.data / "demo", "host": "127.0.0.1"})
    passphrase = settings.passphrase.get_secret_value() if settings.passphrase else ""
    if not settings.loopback and not passphrase:
        raise Refused(NEEDS_ONE.format(host=settings.host))
    if settings.hosts and not passphrase:
        raise Refused(BY_NAME.format(host=settings.hosts[0]))
    if passphrase and len(passphrase) < LEAST_PASSPHRASE:
        raise Refused(SHORT_PASSPHRASE)
    if not (BUILT / "desk.js").is_file():
        raise Refused(NO_ASSETS)
    return settings


def _cannot_be(error: ValidationError) -> str:
    first = error.errors()[0]
    return f"LOVRIT_{str(first['loc'][0]).upper()} can't be “{first['input']}”: {first['msg'].lower()}."


def _listening(settings: Settings) -> socket.socket:
    """A socket that listens where it is to be served."""
    try:
        where = socket.getaddrinfo(
            settings.host, settings.port, type=socket.SOCK_STREAM, flags=socket.AI_PASSIVE
        )[0]
        made = socket.socket(
            *where[:3]
        )  # with its protocol named, or asyncio would leave small answers waiting
        made.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        made.bind(where[4])
    except socket.gaierror:
        raise Refused(f"There is no address “{settings.host}” to listen on.") from None
    except OSError as error:
        if error.errno == errno.EADDRINUSE:
            said = f"Port {settings.port} is taken by something else, perhaps another Lovrit. Choose one with --port."
        elif error.errno == errno.EACCES:
            said = f"Port {settings.port} may not be used by you; ports from 1024 on may. Choose one with --port."
        else:
            said = (
                f"Lovrit can't listen on {settings.host}, port {settings.port}: {error.strerror}."
            )
        raise Refused(said) from None
    return made


def _who(settings: Settings) -> str:
    since = datetime.fromtimestamp(time.time()).astimezone()
    return f"process {os.getpid()}, at http://{settings.host}:{settings.port}/, since {since:%-d %B %H:%M}"


def _forget(database: Path) -> None:
    for end in ("", "-wal", "-shm"):
        database.with_name(database.name + end).unlink(missing_ok=True)


def check() -> int:
    """Look through the club's file and say what is wrong with it; the exit status."""
    from lovrit.store.check import look_through

    try:
        found = look_through(Settings().database)
    except ValidationError as error:
        sys.stderr.write(f"{_cannot_be(error)}\n")
        return REFUSED
    sys.stdout.write("".join(f"{line}\n" for line in found.said))
    return 0 if found.sound else 1


def backup(to: Path) -> int:
    """A whole copy of the club's file, also while Lovrit runs; the exit status."""
    try:
        copied = copy(Settings().database, to)
    except (NoCopy, Trouble, ValidationError) as error:
        return _refused(error)
    sys.stdout.write(
        f"{copied}: {copied.stat().st_size // 1024} KiB, whole. Keep it where this machine isn’t.\n"
    )
    return 0


def _refused(error: Exception) -> int:
    said = _cannot_be(error) if isinstance(error, ValidationError) else error
    sys.stderr.write(f"{said}\n")
    return REFUSED


def put_back(copied: Path) -> int:
    """A copy in the place of the club's file, while no Lovrit has it open; the exit status."""
    try:
        settings = Settings()
        lock = FolderLock(settings.data, "putting a copy in place")
        before = restore(copied, settings.database, f"{datetime.now(UTC):%Y%m%d-%H%M%S}")
        lock.release()
    except (NoCopy, Trouble, ValidationError) as error:
        return _refused(error)
    kept = f" What was there is kept for two weeks as {before.name}." if before else ""
    sys.stdout.write(f"{copied.name} is in place.{kept}\n")
    return 0


def log_to_stderr(as_json: bool) -> None:
    """Structured logs, one line an event, on standard error."""
    last = (
        structlog.processors.JSONRenderer()
        if as_json
        else structlog.dev.ConsoleRenderer(colors=False)
    )
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
