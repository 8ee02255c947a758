"""Erasing who was let go, at the hour that was promised: on the disk, in its logs, and in what is held in memory."""

from contextlib import suppress

from lovrit.house.house import House
from lovrit.store.erase import erase_gone, off_the_disk
from lovrit.store.trouble import Trouble
from lovrit.store.unkept import forget_unkept, thin_old

AFTER_MS = 3_600_000  # a letting go can be taken back for so long
EVERY_S = 20.0
HEARTS_EVERY = 15  # times of looking: who may not be kept is looked for every five minutes


def erase(house: House) -> int:
    """Erase all who were let go an hour ago and more; how many they were."""
    with house.database.writing() as work:
        count = erase_gone(work, house.now_ms() - AFTER_MS)
    for tell in house.erased if count else ():
        tell()
    return count


def forget_hearts(house: House) -> int:
    """Readings of who said no, or was not asked for a day, and old ones by the club's rule; of how many classes."""
    with house.database.writing() as work:
        count = forget_unkept(work, house.now_ms()) + thin_old(work, house.now_ms())
    for tell in house.erased if count else ():
        tell()
    return count


def erase_all(house: House) -> None:
    """The same for as long as the house is open, also one that runs for months."""
    left = False  # something of somebody still stands in a log
    turn = 0
    while not house.closing.wait(EVERY_S):
        with suppress(Trouble):
            left = bool(erase(house)) or left
            if turn % HEARTS_EVERY == 0:
                left = bool(forget_hearts(house)) or left
            turn += 1
            if left and house.database.path:
                left = not off_the_disk(house.database.path)
