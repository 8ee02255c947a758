"""Every form is read back by somebody else's parser."""

import csv
import io
import re
from datetime import UTC, datetime, timedelta

import pytest
import vobject
import webvtt
from hypothesis import given
from markdown_it import MarkdownIt

from lovrit.core.moves.library import shipped
from lovrit.core.session.rack import rack
from lovrit.core.session.reader import read
from lovrit.core.timeline.plan import Plan, plan_text
from lovrit.formats.board import read_board
from lovrit.formats.calendar import NoDay
from lovrit.formats.interval_csv import from_csv, to_csv
from lovrit.formats.session_json import NotASession, from_json, to_json
from lovrit.formats.writers import WRITERS, When
from tests.core.session.slates import slates as drawn

WHEN = When(datetime(2026, 11, 23, 8, 0, tzinfo=UTC), "Europe/Berlin")


def plan(text: str) -> Plan:
    return plan_text(text, shipped())


def written(form: str, text: str) -> str:
    return WRITERS[form].write(plan(text), WHEN)


def test_csv_has_an_interval_a_row(winter: str) -> None:
    rows = list(csv.DictReader(io.StringIO(written("csv", winter))))
    timeline = plan(winter).timeline
    assert len(rows) == len(timeline.intervals)
    assert int(rows[-1]["end_s"]) == timeline.total_s
    assert {row["phase"] for row in rows} == {"steady", "work", "rest", "break"}


def test_csv_read_back_is_the_same_session_on_the_clock(slates: dict[str, str]) -> None:
    for text in slates.values():
        before = plan(text)
        made = from_csv(to_csv(before))
        after = plan(made.slate)
        assert not made.left_out and not after.problems
        assert [block.kind for block in after.timeline.blocks] == [
            block.kind for block in before.timeline.blocks
        ]


def test_csv_of_others_is_read_with_an_account_of_the_rest() -> None:
    rows = "start_s,end_s,phase,station\n0,40,work,squat\n40,60,rest,\n60,100,work,row\n100,120,rest,\nx,y,work,\n"
    made = from_csv(rows)
    assert made.left_out == ("Row 6 says no start, end and phase that fit together.",)
    assert plan(made.slate).timeline.total_s == 120
    assert "missing" in from_csv("a,b\n1,2\n").left_out[0]


def test_the_calendar_event_is_where_and_when_it_is(winter: str) -> None:
    text = written("ics", "date: 2026-11-30\n" + winter)
    assert all(len(line.encode()) <= 75 for line in text.split("\r\n"))
    event = vobject.readOne(text).vevent
    assert event.summary.value == "Winter hall 4, legs and pull"
    assert event.dtstart.value.utcoffset().total_seconds() == 3600
    assert (event.dtend.value - event.dtstart.value).total_seconds() == 45 * 60
    assert event.dtstart.value.hour == 18 and "goblet squat" in event.description.value
    all_day = vobject.readOne(written("ics", "date: 2026-11-30\nrest 1:00")).vevent
    assert not hasattr(all_day.dtstart.value, "hour")
    with pytest.raises(NoDay):
        written("ics", winter)


@given(drawn())
def test_cues_follow_the_intervals(text: str) -> None:
    planned = plan(text)
    cues = webvtt.from_string(WRITERS["vtt"].write(planned, WHEN))
    assert len(cues) == len(planned.timeline.intervals)
    if cues.captions:
        assert cues.captions[-1].end_in_seconds == planned.timeline.total_s


def test_markdown_has_a_heading_a_block_and_an_item_a_move(winter: str) -> None:
    tokens = MarkdownIt().parse(written("md", winter))
    blocks = plan(winter).session.blocks
    assert sum(token.type == "heading_open" and token.tag == "h2" for token in tokens) == len(
        blocks
    )
    assert sum(token.type == "list_item_open" for token in tokens) == sum(
        len(block.moves) for block in blocks
    )


def test_card_and_sheet_say_what_is_needed(winter: str) -> None:
    card = written("card", winter)
    assert (
        "work 0:40, rest 0:20, 6 times; 3 rounds" in card and "between rounds 2:00 instead" in card
    )
    sheet = written("sheet", "title: <b>\n" + winter.split("\n", 1)[1])
    assert "&lt;b&gt;" in sheet and "@page" in sheet and sheet.count("<section>") == 6


@given(drawn())
def test_json_there_and_back_is_the_same(text: str) -> None:
    session = read(text).session
    assert from_json(to_json(session)) == session


@pytest.mark.parametrize(
    "text",
    [
        '{"blocks": [{"kind": "rotate", "rounds": {"low": 3, "high": 1}, "pair": {"work": {}, "rest": {}}}]}',
        '{"blocks": [{"kind": "steady", "label": "two\\nlines", "total_s": 60}]}',
        '{"blocks": [{"kind": "steady", "label": "", "total_s": 60}]}',
        "[1, 2]",
        "[" * 100_000,
    ],
)
def test_json_that_no_slate_could_say_is_refused(text: str) -> None:
    with pytest.raises(NotASession):
        from_json(text)


BOARD = """Winter circuit
warm up: 8
3 rounds 40 on 20 off
- squat
- ring row
2) plank
EMOM 10
8 push-ups
do the thing with the rope ??
AMRAP 12 min:
10 swing
cool down 4
"""


def test_a_pasted_board_is_read_as_far_as_possible_and_the_rest_is_asked() -> None:
    made = read_board(BOARD)
    reading = read(made.slate)
    assert not reading.problems
    assert [block.kind for block in reading.session.blocks] == [
        "steady",
        "rotate",
        "every",
        "amrap",
        "steady",
    ]
    assert [line.name for line in reading.session.blocks[1].moves] == ["squat", "ring row", "plank"]
    assert reading.session.title == "Winter circuit"
    assert all(one.text in made.slate for one in made.asked)


def test_the_rack_is_sound() -> None:
    assert len(rack()) >= 20
    for shape in rack():
        assert not plan(shape.slate).problems
        assert re.fullmatch(r"[a-z-]+", shape.key) and shape.purpose.endswith(".")
    kinds = {block.kind for shape in rack() for block in plan(shape.slate).session.blocks}
    assert kinds == {
        "intervals", "sets", "rotate", "every", "amrap", "for-time", "hold-ladder", "tempo", "build", "strength",
        "quality", "rest",
    }  # fmt: skip


def test_an_hour_that_the_clocks_leap_over_is_told_as_the_next() -> None:
    from lovrit.formats.moments import later, moment

    start = moment(datetime.fromisoformat("2027-03-28T02:30"), "Europe/Berlin")
    assert start.isoformat() == "2027-03-28T03:30:00+02:00"
    early = moment(datetime.fromisoformat("2027-03-28T01:40"), "Europe/Berlin")
    assert later(early, timedelta(minutes=45)).isoformat() == "2027-03-28T03:25:00+02:00"
