"""What an earlier Lovrit left to be worked out: done once, as this one starts."""

from contextlib import suppress

import structlog

from lovrit.house.house import House
from lovrit.house.paces import learn_class, sum_up
from lovrit.store import classes, people, sessions
from lovrit.store.copies import NoCopy, forget_old, nightly
from lovrit.store.trouble import Trouble
from lovrit.web.desk.library import described

AT_ONCE = 20
EVERY_S = 20.0
LOOK_S, NIGHT = 300.0, 3
log = structlog.get_logger()
ERASED_AFTER_MS = 3_600_000  # a letting go can be taken back for so long


def settle(house: House) -> None:
    """Classes that were planned again each time they were looked at stay from now on as they are."""
    with house.database.writing() as work:
        people.erase_gone(work, house.now_ms() - ERASED_AFTER_MS)
        frozen = classes.freeze_old(work, house.library)
        for class_id in frozen:
            learn_class(house, work, class_id)
        if frozen:
            sum_up(work)


def erase_all(house: House) -> None:
    """Who was let go is erased at the hour that was promised, also by a house that runs for months."""
    while not house.closing.wait(EVERY_S):
        with suppress(Trouble), house.database.writing() as work:
            people.erase_gone(work, house.now_ms() - ERASED_AFTER_MS)


def copy_nightly(house: House) -> None:
    """A copy of the club's file each night from three on, while no class is on; old ones go."""
    path, folder = house.settings.database, house.settings.copies_in
    while not house.closing.wait(LOOK_S):
        forget_old(path)
        now = house.when(house.now_ms())
        if folder is None or now.hour < NIGHT or not path.is_file():
            continue
        try:
            nightly(path, folder, now.date())
            house.copies_said = ""
        except (NoCopy, Trouble) as trouble:
            if house.copies_said != str(trouble):
                log.error("no copy tonight", why=str(trouble))
            house.copies_said = str(trouble)


def describe_all(house: House) -> None:
    """Work out what sessions come to of which nobody knows, a few at a time, beside everything else."""
    while not house.closing.is_set():
        with house.database.writing() as work:
            rows = sessions.not_described(work, AT_ONCE)
            for row in rows:
                described(house, work, row)
        if not rows:
            return
