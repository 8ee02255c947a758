"""The sample club's past: eight weeks that are read like any class."""

from lovrit.core.run.account import account
from lovrit.core.run.event import happening
from lovrit.core.run.fold import Fold
from lovrit.demo.season import season
from lovrit.store import classes, club
from tests.conftest import ready


def test_a_season_is_there_once_and_every_class_of_it_can_be_read() -> None:
    database = ready()
    season(database)
    season(database)
    with database.work() as work:
        rows = classes.listed(work)
        assert len(rows) == 16 and classes.open_ids(work) == []
        assert {len(classes.comers(row)) for row in rows} <= set(range(14, 18))
        stopped, scores, seconds = 0, 0, 0
        for row in rows:
            frozen = classes.run_by(row)
            fold = Fold(frozen.plan(), [])
            for event in classes.events(work, row.id):
                fold.take(happening(event, row.made_ms, kept=True))
            told = account(fold.state, frozen, row.made_ms)
            assert told.over_ms == row.over_ms and told.note
            stopped += sum(event.kind == "stops" for event in classes.events(work, row.id))
            scores += len(told.scores)
            traces = classes.traces(work, row.id)
            seconds += sum(map(len, traces.values()))
            beats = [bpm for trace in traces.values() for _, bpm in trace if bpm]
            assert all(40 < bpm < 215 for bpm in beats)
        assert stopped and scores > 200 and seconds > 150_000
        assert club.pace(work)[1] > 0
