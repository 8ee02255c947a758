"""Commands on what is kept, on the machine itself: a club or a class in and out as open files, who may come in."""

import time
from argparse import Namespace
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from functools import wraps
from pathlib import Path
from typing import TYPE_CHECKING

from lovrit.cli.given import UNREADABLE, Ended, print_text
from lovrit.core.values import LovritError

if TYPE_CHECKING:
    from lovrit.house.guests import Guests
    from lovrit.settings import Settings


def _in_words(command: Callable[[Namespace], int]) -> Callable[[Namespace], int]:
    """What is refused is said in its sentence, with the exit status of what can't be done."""

    @wraps(command)
    def said(asked: Namespace) -> int:
        try:
            return command(asked)
        except (LovritError, OSError) as error:
            raise Ended(UNREADABLE, str(error)) from None

    return said


def _settings() -> "Settings":
    from pydantic import ValidationError

    from lovrit.settings import Settings

    try:
        return Settings()
    except ValidationError as error:
        first = error.errors()[0]
        said = f"LOVRIT_{str(first['loc'][0]).upper()} can't be “{first['input']}”: {first['msg'].lower()}."
        raise Ended(UNREADABLE, said) from None


@contextmanager
def _alone(what: str) -> "Iterator[Settings]":
    """The settings, while no Lovrit has the folder open."""
    from lovrit.store.lock import FolderLock

    settings = _settings()
    settings.data.mkdir(parents=True, exist_ok=True)
    lock = FolderLock(settings.data, what)
    try:
        yield settings
    finally:
        lock.release()


@_in_words
def export_club(asked: Namespace) -> int:
    """Write the whole club as open files in one zip, also while Lovrit runs."""
    from lovrit.store.archive import export_club as export

    made = export(_settings().database, Path(asked.to))
    print_text(f"{made}: {made.stat().st_size // 1024} KiB. It holds names and hearts: keep it so.")
    return 0


@_in_words
def import_club(asked: Namespace) -> int:
    """Read a club's open files into an empty folder."""
    from lovrit.store.archive import import_club as bring

    archive = Path(asked.archive)
    with _alone("bringing a club in") as settings:
        bring(archive, settings.database)
    print_text(
        f"{archive.name} is in place. Links that were sent out before hold no more: send new ones."
    )
    return 0


@_in_words
def read_class(asked: Namespace) -> int:
    """Bring a class that was taken out as a folder back into the club, while no Lovrit runs on it."""
    from lovrit.house.class_folder import KEPT, bring_back
    from lovrit.store.database import Database

    folder = Path(asked.folder)
    raw = (folder / KEPT if folder.is_dir() else folder).read_bytes()
    with _alone("bringing a class back") as settings, Database(settings.database).writing() as work:
        number = bring_back(work, raw)
    print_text(f"It is class {number} here.")
    return 0


@_in_words
def of_the_house(asked: Namespace) -> int:
    """Say who may come in; invite somebody, invite them again, or end it, while no Lovrit runs."""
    from lovrit.house.guests import Guests, NotOfTheHouse
    from lovrit.store.database import Database

    path = _settings().database
    if not path.is_file():
        raise NotOfTheHouse(f"There is no club’s file at {path} yet.")
    if asked.do == "list":
        known = Guests(Database(path), None, _now_ms()).of_the_house()
        lines = [f"{one.name}, {one.role}{'' if one.hash else ', invited'}" for one in known]
        print_text(
            "\n".join(lines)
            or "Nobody comes in by a name yet; the club’s passphrase opens all of it."
        )
        return 0
    with _alone("changing who may come in"):
        print_text(_changed(Guests(Database(path), None, _now_ms()), asked))
    return 0


def _changed(known: "Guests", asked: Namespace) -> str:
    from lovrit.house.guests import NotOfTheHouse

    if asked.do == "invite":
        return _invitation(known.invite(asked.name, asked.role, _now_ms()))
    wanted = asked.name.casefold()
    row = next((one for one in known.of_the_house() if one.name.casefold() == wanted), None)
    if row is None:
        raise NotOfTheHouse(f"Nobody of the house is called “{asked.name}”.")
    if asked.do == "again":
        return _invitation(known.invite_again(row.id or 0, _now_ms()))
    known.end(row.id or 0, _now_ms())
    return f"{row.name} may not come in any more."


def _invitation(token: str) -> str:
    return f"Open /invited/{token} on this Lovrit within three days."


def _now_ms() -> int:
    return round(time.time() * 1000)
