"""What a club holds is kept in its file, and comes along when an older file is brought up to date."""

import sqlite3
from pathlib import Path

from alembic import command
from alembic.config import Config
from sqlalchemy import create_engine

from lovrit.core.advice.company import Schools
from lovrit.core.forecast.learned import Quickness
from lovrit.core.moves.figure import Drawing, Pose
from lovrit.core.moves.library import shipped
from lovrit.core.moves.move import Move
from lovrit.store import club, people, sessions
from lovrit.store.database import Database
from lovrit.store.migrate import MIGRATIONS
from tests.conftest import ready

HERON = Move(name="heron stand", pattern="lunge", seconds=4, easier=("hand on the wall",))


def test_everything_that_a_club_chooses_is_there_after_a_restart(tmp_path: Path) -> None:
    first = Database(tmp_path / "club.sqlite")
    with first.work() as work:
        row = sessions.create(work, "rest 1:00", "x", 0)
        club.set_schools(work, Schools(hard="anywhere"))
        club.set_missing(work, ["rings", "bell", "bell"])
        club.keep_move(work, HERON, 1, Drawing(start=Pose(), end=Pose(torso=60)))
        club.keep_move(work, HERON.but(cue="Still."), 2)
        club.set_paces(
            work, Quickness(factor=1.2, rests_on=9), {3: Quickness(factor=0.9, rests_on=2)}
        )
        for _ in range(2):
            club.put_aside(work, "no-cap", row.id, "we watch the clock", 3)
        club.put_aside(work, "no-cap", None, "", 4)
    first.close()
    with Database(tmp_path / "club.sqlite").work() as work:
        assert club.schools(work) == Schools(hard="anywhere")
        assert club.missing(work) == {"bell", "rings"}
        library = club.library(work)
        found = library.find("Heron stands")
        assert found and found.cue == "Still." and library.pace == 1.2 and library.rests_on == 9
        assert len(library.moves) == len(shipped().moves) + 1
        drawn = club.drawings(work)["heron stand"]
        assert drawn and drawn.end.torso == 60
        assert club.paces(work) == {3: Quickness(factor=0.9, rests_on=2)}
        assert [row.reason for row in club.asides(work, 1)] == ["", "we watch the clock"]
        assert [row.session_id for row in club.asides(work, 2)] == [None]
        for row in club.asides(work):
            club.bring_back(work, row.id or 0)
        club.let_go(work, "heron stand")
        assert not club.asides(work) and club.library(work).find("heron stand") is None


def test_an_own_version_stands_in_the_shipped_ones_place(tmp_path: Path) -> None:
    with ready(filled=False).work() as work:
        swing = shipped().find("swing")
        assert swing
        club.keep_move(work, swing.but(seconds=9.0), 1)
        library = club.library(work)
        assert library.rep_s("swing") == 9 and len(library.moves) == len(shipped().moves)
        club.let_go(work, "swing")
        assert club.library(work) is shipped()


def test_a_file_from_before_comes_along_with_its_people(tmp_path: Path) -> None:
    path = tmp_path / "old.sqlite"
    engine = create_engine(f"sqlite:///{path}")
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, "0001")
    engine.dispose()
    with sqlite3.connect(path) as old:
        old.execute(
            "insert into person (name, initials, rest_hr, max_hr, effort_only, strap, mind)"
            " values ('Ada B', 'AB', 60, 180, 0, 'steady', 'knee'), ('Bo', 'BO', 62, 186, 0, 'steady', '')"
        )
        old.execute(
            "insert into session (title, text, good_text, version, position, groups, created_ms, changed_ms)"
            " values ('', '', '', 1, 1, 0, 1, 1)"
        )
        old.execute("insert into comes values (1, 1, 1, 2)")
    database = Database(path)
    with database.work() as work:
        person, assumed = people.everyone(work)
        assert people.comers(work, 1) == [(person, 2)]
        assert (person.rest_hr, assumed.rest_hr, assumed.rest) == (60, None, 62)
        assert person.assumed == "" and assumed.assumed == "rest assumed, highest assumed"
        assert (person.name, person.mind, person.standing, person.limits) == (
            "Ada B",
            "knee",
            "usual",
            (),
        )
        people.stand(work, person.id, "new", "2026-11-01", ("jumps",))
    with database.work() as work:
        assert people.everyone(work)[0].limits == ("jumps",)
