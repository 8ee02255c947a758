"""Weeks by whole weeks, halls, themes, ways out, series: each step is taken back to the letter."""

import re
from datetime import date, timedelta

import pytest
from fastapi.testclient import TestClient
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from lovrit.core.session.dated import with_start
from lovrit.core.session.reader import read
from lovrit.house.house import House
from lovrit.store import club, sessions, weeks
from tests.conftest import Clock
from tests.core.session.slates import slates
from tests.web.test_one_story import on_floor
from tests.web.test_pages import happen
from tests.web.test_weeks import LEGS, PULL, days, made

AT = {"at": "2027-03-01"}
BELLS = "title: Bells\n\n3 rounds of 40/20 at 7\n  goblet squat\n  bell row\n"


def house_of(client: TestClient) -> House:
    house: House = client.app_state.house  # type: ignore[attr-defined]
    return house


def board(client: TestClient) -> tuple[object, ...]:
    """All that a step on the board may change."""
    with house_of(client).database.work() as work:
        rows = [
            (row.id, row.day, row.text)
            for row in sessions.between_days(work, "2027-02-01", "2027-05-30")
        ]
        kept = [
            club.choice(work, key) or None
            for key in (weeks.OTHERS, weeks.OFF, weeks.THEMES, weeks.COACHES, weeks.WISHES)
        ]
        return sorted(rows, key=str), kept, weeks.limit(work), weeks.all_series(work)  # type: ignore[return-value]


STEPS = (
    ("/weeks/move", {"session": "{0}", "day": "2027-03-11"}),
    ("/weeks/move", {"session": "{1}", "day": ""}),
    ("/weeks/put", {"session": "{0}", "day": "2027-03-19"}),
    ("/weeks/swap", {"session": "{0}", "other": "{1}"}),
    ("/weeks/on", {"session": "{1}", "day": "2027-03-06", "begins": "19:45", "coach": "Ana"}),
    ("/weeks/off", {"day": "2027-03-07"}),
    ("/weeks/theme", {"monday": "2027-03-01", "text": "quiet landings"}),
    ("/weeks/week", {"monday": "2027-03-01", "how": "copy", "by": "1"}),
    ("/weeks/week", {"monday": "2027-03-01", "how": "shift", "by": "2"}),
    ("/weeks/other", {"what": "exam", "day": "2027-03-04", "weight": "some"}),
    ("/weeks/wish", {"session": "{0}", "kind": "apart", "other": "{1}", "days": "3"}),
    ("/weeks/limit", {"minutes": "6,5"}),
    ("/weeks/again", {"session": "{0}", "name": "clean", "how": "skill"}),
    ("/weeks/series", {"session": "{0}", "weeks": "4", "grow": ["rounds"]}),
)


@settings(
    max_examples=12, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture]
)
@given(chosen=st.lists(st.sampled_from(STEPS), min_size=1, max_size=5))
def test_every_step_is_taken_back_to_the_letter(
    client: TestClient, chosen: list[tuple[str, dict[str, str]]]
) -> None:
    one, two = made(client, LEGS), made(client, PULL)
    for session, day in ((one, "2027-03-02"), (two, "2027-03-04")):
        client.post("/weeks/put", data={"session": session, "day": day})
    before = [board(client)]
    for path, fields in chosen:
        filled = {
            name: value.format(one, two) if isinstance(value, str) else value
            for name, value in fields.items()
        }
        answer = client.post(path, data=filled | AT)
        assert answer.status_code == 200, (path, answer.text[:400])
        now = board(client)
        if now != before[-1]:
            before.append(now)
    for earlier in reversed(before[:-1]):
        client.post("/weeks/undo", data=AT)
        assert board(client) == earlier, chosen
    for session in (one, two):
        client.post("/weeks/move", data={"session": session, "day": ""})


@given(slates(), st.times(), st.integers(10, 90))
def test_an_hour_is_set_and_all_else_stays(text: str, at: object, minutes: int) -> None:
    start = f"{at:%H:%M}"
    timed = with_start(text, start, minutes)
    before, after = read(text).session, read(timed).session
    assert after.slot and after.slot.start == start
    assert before.blocks == after.blocks and before.title == after.title
    if before.slot:
        assert after.slot.seconds // 60 == max(1, before.slot.seconds // 60)


def test_a_clash_has_ways_and_one_is_taken(client: TestClient) -> None:
    one, two = made(client, LEGS), made(client, LEGS)
    for session, day in ((one, "2027-03-02"), (two, "2027-03-03")):
        client.post("/weeks/put", data={"session": session, "day": day})
    page = client.get("/weeks/clashes?from=2027-03-01").text
    hidden = r'name="session" value="(\d+)"><input type="hidden" name="pattern" value="([\w-]+)">'
    found = re.search(
        rf'{hidden}<input type="hidden" name="said" value="(put it on [A-Z]\w+)"', page
    )
    assert found, page
    client.post(
        "/weeks/way", data={"session": found[1], "pattern": found[2], "said": found[3], **AT}
    )
    assert f" of {found[2]}" not in client.get("/weeks/clashes?from=2027-03-01").text
    gone = client.post(
        "/weeks/way", data={"session": found[1], "pattern": found[2], "said": found[3], **AT}
    )
    assert gone.status_code == 409 and "look again" in gone.text


def test_two_at_one_hour_in_one_hall_or_under_one_coach_are_said(client: TestClient) -> None:
    one, two = made(client, LEGS), made(client, PULL)
    for session in (one, two):
        client.post("/weeks/put", data={"session": session, "day": "2027-03-02"})
    assert "both want the" in client.get("/weeks?from=2027-03-01").text
    with house_of(client).database.writing() as work:
        name = "Boat shed"
        from lovrit.store import halls  # the club's second hall

        halls.take(work, int(two), name)
    assert "both want" not in client.get("/weeks?from=2027-03-01").text
    for session in (one, two):
        client.post(
            "/weeks/on", data={"session": session, "day": "2027-03-02", "coach": "Ana", **AT}
        )
    assert "both want Ana" in client.get("/weeks?from=2027-03-01").text
    client.post(
        "/weeks/on",
        data={"session": two, "day": "2027-03-02", "begins": "19:30", "coach": "ana", **AT},
    )
    assert "both want" not in client.get("/weeks?from=2027-03-01").text


@pytest.mark.parametrize(
    ("path", "fields", "said"),
    [
        ("/weeks/on", {"session": "{0}", "day": "2027-03-02", "begins": "25:00"}, "no time of day"),
        ("/weeks/on", {"session": "{0}", "day": "2027-03-02", "hall": "nowhere"}, "no hall called"),
        ("/weeks/limit", {"minutes": "0"}, "no limit"),
        ("/weeks/limit", {"minutes": "many"}, "no limit"),
        ("/weeks/week", {"monday": "2027-03-01", "how": "burn"}, "copied or shifted"),
        ("/weeks/week", {"monday": "2027-04-05", "how": "copy"}, "nothing in that week"),
        ("/weeks/wish", {"session": "{0}", "kind": "apart", "other": "{0}"}, "A wish is"),
        ("/weeks/wish", {"session": "{0}", "kind": "on", "day": "soon"}, "no day"),
        ("/weeks/off", {"day": "31.2.2027"}, "no such day"),
        ("/weeks/put", {"session": "{0}", "day": "2027-03-04", "words": "zebra"}, "No session has"),
        ("/weeks/again", {"session": "{0}", "name": "3 rounds of", "how": "skill"}, "can’t be put"),
        ("/weeks/series/on", {"session": "{0}"}, "no series"),
    ],
)
def test_what_cannot_be_is_said(
    client: TestClient, path: str, fields: dict[str, str], said: str
) -> None:
    legs = made(client, LEGS)
    client.post("/weeks/put", data={"session": legs, "day": "2027-03-02"})
    before = board(client)
    answer = client.post(path, data={name: value.format(legs) for name, value in fields.items()})
    assert answer.status_code == 409 and said in answer.text
    assert board(client) == before


def test_a_series_is_laid_out_changed_by_hand_and_follows(client: TestClient) -> None:
    slate = "title: Bells\n\nwarm-up 6:00 at 3\n\n3 rounds of 40/20, break 1:00, at 8\n  goblet squat\n  push-up\n"
    first = made(client, slate)
    client.post("/weeks/put", data={"session": first, "day": "2027-03-02"})
    page = client.get(f"/weeks/series?session={first}&weeks=6&grow=rounds").text
    assert page.count("<pre>") == 6 and "Create the series" in page
    client.post(
        "/weeks/series", data={"session": first, "weeks": "6", "grow": "rounds", "easier": "4"}
    )
    page = client.get(f"/weeks/series?session={first}").text
    assert page.count("<b>week ") == 6 and "2027-04-06" in page
    numbers = re.findall(r'<a href="/desk/(\d+)">2027', page)
    assert numbers[0] == first
    second = client.get(f"/desk/{numbers[1]}/session.slate").text
    client.post(
        f"/desk/{numbers[1]}/text",
        data={"text": second.replace("3 rounds", "5 rounds"), "version": 1},
    )
    with house_of(client).database.writing() as work:
        row = sessions.get(work, int(numbers[1]))
        sessions.write_text(
            work, row, second.replace("3 rounds", "5 rounds"), row.version, None, None, 1
        )
    client.post("/weeks/series/on", data={"session": numbers[1]})
    assert "5 rounds" in client.get(f"/desk/{numbers[2]}/session.slate").text
    assert "3 rounds" in client.get(f"/desk/{first}/session.slate").text
    no_more = made(client, "rest 1:00")
    answer = client.get(f"/weeks/series?session={no_more}")
    assert answer.status_code == 200 and "held" in answer.text
    unread = made(client, "3 runds of")
    assert client.get(f"/weeks/series?session={unread}").status_code == 422


def test_a_session_is_put_there_by_words(client: TestClient) -> None:
    made(client, LEGS)
    pull = made(client, PULL.replace("Pull", "Windmill evening"))
    client.post(
        "/weeks/put", data={"session": 1, "day": "2027-03-09", "words": "windmill row", **AT}
    )
    assert days(client)[pull] == "2027-03-09"


def test_what_comes_back_in_an_empty_club_says_so(client: TestClient) -> None:
    assert "No class has been run yet" in client.get("/weeks/returns").text
    assert client.get("/people/1/returns").text.strip() == ""


def test_a_week_on_paper_and_at_home_and_for_one(client: TestClient) -> None:
    legs, bells = (
        made(client, LEGS),
        made(client, "title: Bells\n\n3 rounds of 40/20 at 7\n  goblet squat\n  bell row\n"),
    )
    for session, day in ((legs, "2027-03-02"), (bells, "2027-03-04")):
        client.post("/weeks/put", data={"session": session, "day": day})
    client.post("/weeks/off", data={"day": "2027-03-05", **AT})
    sheet = client.get("/weeks/paper?from=2027-03-01").text
    assert (
        "week of <b>1 March</b>" in sheet
        and "18:10" in sheet
        and sheet.count("door-sheet") == 1
        and ">off" in sheet
    )
    client.post("/weeks/see", data={"at": "2027-03-01", "until": "2027-03-28"})
    link = re.search(r'href="(/see/[^"/]+)"', client.get("/weeks?from=2027-03-01").text)[1]  # type: ignore[index]
    home = client.get(f"{link}/home/{bells}").text
    assert "Bells, at home" in home and ">goblet squat<" not in home
    assert "bell row" not in home
    assert client.get(f"{link}/home/4").status_code == 404
    client.post(f"/crew/{legs}/place", data={"person": 1, "group": 0})
    mine = re.search(r'href="(/see/[^"]+)"', client.get("/people/1").text)[1]  # type: ignore[index]
    theirs = re.search(r'href="(/see/[^"]+)"', client.get("/people/2").text)[1]  # type: ignore[index]
    assert client.get(f"{mine}/weeks.ics").text.count("BEGIN:VEVENT") == 2
    assert (
        client.get(f"{theirs}/weeks.ics").text.count("BEGIN:VEVENT") == 1
    )  # legs are for those who are down for them
    client.post("/weeks/move", data={"session": legs, "day": "2027-03-03"})
    assert '<span class="quiet">for Anouk K</span>' in client.get("/weeks?from=2027-03-01").text
    client.post("/weeks/renew")
    assert client.get(f"{mine}/weeks.ics").status_code == 404


def test_daylight_saving_between_two_classes_moves_no_hour(client: TestClient) -> None:
    legs = made(client, LEGS)
    client.post("/weeks/put", data={"session": legs, "day": "2027-03-25"})
    client.post("/weeks/week", data={"monday": "2027-03-22", "how": "copy", "by": "1"})
    assert list(days(client).values()) == ["2027-03-25"]
    page = client.get("/weeks?from=2027-03-22").text
    assert (
        page.count(">18:10 ·") == 2 and (date(2027, 4, 1) - timedelta(days=7)).isoformat() in page
    )


def test_a_way_is_taken_in_the_last_of_eight_weeks_and_eight_stay_shown(client: TestClient) -> None:
    one, two = made(client, LEGS), made(client, LEGS)
    for session, day in ((one, "2027-04-20"), (two, "2027-04-21")):
        client.post("/weeks/put", data={"session": session, "day": day})
    assert client.get("/weeks?from=2027-03-01&weeks=8").text.count("Week of") == 8
    page = client.get("/weeks/clashes?from=2027-03-01&weeks=8").text
    found = re.search(
        r'name="pattern" value="([\w-]+)"><input type="hidden" name="said" value="(put it [^"]+)"',
        page,
    )
    assert found and "asks" not in client.get("/weeks/clashes?from=2027-03-01&weeks=4").text
    answer = client.post(
        "/weeks/way", data={"session": two, "pattern": found[1], "said": found[2], **AT}
    )
    assert answer.status_code == 200 and answer.text.count("Week of") == 8
    client.cookies.set("weeks", "many")
    assert client.get("/weeks").text.count("Week of") == 4


def test_an_order_looks_at_the_week_after_it(client: TestClient) -> None:
    """Legs on Sunday cost what Monday's legs make of them."""
    numbers = [made(client, text) for text in (LEGS, LEGS, PULL, LEGS)]
    spread = ("2027-03-02", "2027-03-03", "2027-03-07", "2027-03-08")
    for session, day in zip(numbers, spread, strict=True):
        client.post("/weeks/put", data={"session": session, "day": day})

    better = "/weeks/better?from=2027-03-01"
    assert "Take the better order" not in client.get(better).text
    client.post("/weeks/move", data={"session": numbers[3], "day": ""})
    assert "Take the better order" in client.get(better).text


def test_a_wish_is_seen_kept_and_taken_back_also_where_nothing_clashes(client: TestClient) -> None:
    legs, pull = made(client, LEGS), made(client, PULL)
    for session, day in ((legs, "2027-03-02"), (pull, "2027-03-06")):
        client.post("/weeks/put", data={"session": session, "day": day})
    client.post(
        "/weeks/wish", data={"session": legs, "kind": "not-before", "day": "2027-03-04", **AT}
    )
    assert "Legs not before Thursday 4 March" in client.get("/weeks?from=2027-03-01").text
    client.post("/weeks/wish/0/gone", data=AT)
    assert "not before Thursday" not in client.get("/weeks?from=2027-03-01").text


def test_what_was_noted_last_stands_where_the_next_one_is_written(
    client: TestClient, clock: Clock
) -> None:
    number = made(client, LEGS)
    client.post(f"/crew/{number}/place", data={"person": 1, "group": 0})
    class_id = on_floor(client, f"{number}")
    happen(client, class_id, "start")
    clock.on(60)
    happen(client, class_id, "end")
    happen(client, class_id, "note", text="Two bells too few, and cold.")
    client.post("/weeks/put", data={"session": number, "day": "2027-03-02"})
    assert "“Two bells too few, and cold.”" in client.get(f"/desk/{number}").text
    assert "noted: Two bells too few" in client.get("/weeks?from=2027-03-01").text
    again = on_floor(client, f"{number}")
    assert "Two bells too few" in client.get(f"/run/{again}/talk").text
    assert "Two bells" not in client.get(f"/run/{class_id}/talk").text
