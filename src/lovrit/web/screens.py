"""The screens, in the order of the work. A new one is a line here: its folder has its routes and its templates."""

from dataclasses import dataclass

from fastapi import APIRouter

from lovrit.core.tonight.thread import StepKey
from lovrit.web.club.routes import router as club
from lovrit.web.club.who import router as who
from lovrit.web.crew.answers import router as answers
from lovrit.web.crew.fits import router as fits
from lovrit.web.crew.rises import router as rises
from lovrit.web.crew.routes import router as crew
from lovrit.web.debrief.folder import router as folder
from lovrit.web.debrief.kin import router as kin
from lovrit.web.debrief.progress import router as progress
from lovrit.web.debrief.routes import router as debrief
from lovrit.web.debrief.together import router as together
from lovrit.web.debrief.traces import router as traces
from lovrit.web.desk.evenings import router as evenings
from lovrit.web.desk.library import router as library
from lovrit.web.desk.message import router as message
from lovrit.web.desk.revisions import router as revisions
from lovrit.web.desk.routes import router as desk
from lovrit.web.desk.think import router as think
from lovrit.web.desk.tries import router as tries
from lovrit.web.hall.drawing import router as hall_drawn
from lovrit.web.hall.placing import router as placing
from lovrit.web.hall.routes import router as hall
from lovrit.web.mine.routes import router as mine
from lovrit.web.moves.routes import router as moves
from lovrit.web.people.person import router as person
from lovrit.web.people.routes import router as people
from lovrit.web.run.hand import router as hand
from lovrit.web.run.paper import router as paper
from lovrit.web.run.routes import router as run
from lovrit.web.run.screens import router as in_the_hall
from lovrit.web.run.talk import router as talk
from lovrit.web.straps.entry import router as entry
from lovrit.web.straps.routes import router as straps
from lovrit.web.tonight.finder import router as finder
from lovrit.web.tonight.routes import router as tonight
from lovrit.web.weeks.clashing import router as clashing
from lovrit.web.weeks.days import router as days
from lovrit.web.weeks.paper import router as on_the_door
from lovrit.web.weeks.publish import router as published
from lovrit.web.weeks.returning import router as returning
from lovrit.web.weeks.routes import router as weeks
from lovrit.web.weeks.seen import router as seen
from lovrit.web.weeks.series import router as series


@dataclass(frozen=True, eq=False)
class Screen:
    """A screen: the folder that it lives in, what it is called, where it begins, and its routes.

    One of the club's stands in the row above; one that is a ``step`` of a session stands in its thread; one that is
    neither is reached from another.
    """

    key: str
    name: str
    path: str
    routers: tuple[APIRouter, ...]
    step: StepKey | None = None
    named: bool = True


# the thread of a session in the order of the work, then the club's pages
SCREENS = (
    Screen(
        "desk",
        "Write",
        "/desk",
        (library, message, revisions, think, tries, evenings, desk),
        "write",
    ),
    Screen("crew", "Who", "/crew", (fits, rises, answers, crew), "who"),
    Screen("hall", "Where", "/hall", (hall_drawn, placing, hall), "where"),
    Screen("run", "Floor", "/run", (run, hand, in_the_hall, paper, talk), "floor"),
    Screen(
        "debrief", "After", "/debrief", (together, debrief, kin, progress, traces, folder), "after"
    ),
    Screen("tonight", "Tonight", "/", (tonight, finder)),
    Screen(
        "weeks",
        "Weeks",
        "/weeks",
        (weeks, days, clashing, returning, series, on_the_door, published, seen),
    ),
    Screen("people", "People", "/people", (people, person)),
    Screen("moves", "Moves", "/moves", (moves,)),
    Screen("club", "Club", "/club", (club, who)),
    Screen("mine", "Mine", "/mine", (mine,), named=False),
    Screen("straps", "Straps", "/straps", (straps, entry), named=False),
)
