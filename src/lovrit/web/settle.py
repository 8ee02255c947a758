"""What an earlier Lovrit left to be worked out: done once, as this one starts."""

from collections.abc import Callable

import structlog

from lovrit.house.erased import erase
from lovrit.house.house import House
from lovrit.house.paces import learn_class, sum_up
from lovrit.store import classes, sessions
from lovrit.store.copies import NoCopy, forget_old, nightly
from lovrit.store.erase import off_the_disk
from lovrit.store.trouble import Busy, Moved, Trouble
from lovrit.web.desk.library import described

AT_ONCE = 20
LOOK_S, NIGHT = 300.0, 3
WATCH_S = 1.0
AGAIN_S = 2.0
log = structlog.get_logger()


def settle(house: House) -> None:
    """Classes that were planned again each time they were looked at stay from now on as they are."""
    if erase(house) and house.database.path:
        off_the_disk(house.database.path)
    with house.database.writing() as work:
        frozen = classes.freeze_old(work, house.library)
        for class_id in frozen:
            learn_class(house, work, class_id)
        if frozen:
            sum_up(work)


def copy_nightly(house: House) -> None:
    """A copy of the club's file each night from three on, while no class is on; old ones go."""
    folder = house.settings.copies_in
    while not house.closing.wait(LOOK_S):
        path = house.kept_in
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


def watch_file(house: House) -> None:
    """The club's file deleted, renamed or replaced under a house that runs: seen in two seconds and told everywhere.

    All that was kept goes on in a new file beside it, nothing is lost, and somebody decides.
    """
    while not house.closing.wait(WATCH_S):
        look_after_file(house)
    house.file_comes_home()


def look_after_file(house: House) -> None:
    """Go on beside it where the file is gone from its name."""
    if not house.database.lost():
        return
    beside = (
        house.settings.data / f"lovrit-rescued-{house.when(house.now_ms()):%Y%m%d-%H%M%S}.sqlite"
    )
    try:
        house.database.move_to(beside)
    except Trouble as trouble:
        log.error("the club's file is gone and can't be written anew", why=str(trouble))
        return
    house.beside = beside
    log.error("the club's file is gone from its place; all goes on beside it", file=beside.name)
    house.hub.say_all("trouble", house.beside_said)


def beside(house: House, does: Callable[[House], None]) -> None:
    """Work that nobody waits for: where the file is held or just moving it begins again later, and ends nothing."""
    while True:
        try:
            does(house)
            return
        except (Busy, Moved) as trouble:
            log.warning("tried again later", what=does.__name__, why=str(trouble))
        if house.closing.wait(AGAIN_S):
            return


def describe_all(house: House) -> None:
    """Work out what sessions come to of which nobody knows, a few at a time, beside everything else."""
    while not house.closing.is_set():
        with house.database.writing() as work:
            rows = sessions.not_described(work, AT_ONCE)
            for row in rows:
                described(house, work, row)
        if not rows:
            return
