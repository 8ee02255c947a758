"""Hearts after a class: what doesn't hold is told and kept apart, files are laid where they belong, hearts learn."""

import csv
import io
import re
from collections.abc import Iterator
from pathlib import Path

import pytest

from lovrit.core.crew.fit import Fitted
from lovrit.house import floor as floor_module
from lovrit.house.erased import forget_hearts
from lovrit.house.learnt import learn_newest
from lovrit.store import classes, club, people
from lovrit.store.unkept import OLD_MS, thin_old
from tests.conftest import Clock
from tests.house.test_floor import House

ROWS = 44 * 60  # seconds of a class that is long enough to learn from
SLATE = "warm-up 5:00 at 3\n\n8 x 60/90 at 8\n\nrest 2:00\n\n3 x 2:00/2:00 at 7\n\ncool-down 3:00 at 2\n"


@pytest.fixture
def house(tmp_path: Path, clock: Clock) -> Iterator[House]:
    made = House(tmp_path, clock)
    yield made
    made.stop()


def ran(house: House, worn: dict[str, str] | None = None) -> int:
    """A class that was run to its end by four people, whose straps behave as said."""
    session = int(house.client.post("/desk", data={"text": SLATE}).url.path.rsplit("/", 1)[1])
    for person in (1, 2, 3, 5):
        house.client.post(f"/crew/{session}/place", data={"person": person, "group": 0})
    for person, how in (worn or {}).items():
        house.client.post("/straps/plays", data={"person": person, "how": how})
    class_id = house.to_the_floor(session)
    house.happen(class_id, "start")
    house.clock.on(ROWS)
    while not house.floor.live(class_id).closed:  # it ticks beside us too
        house.floor.tick(house.clock.ms)
    return class_id


def csv_of(house: House, class_id: int, name: str) -> list[dict[str, str]]:
    return list(
        csv.DictReader(io.StringIO(house.client.get(f"/debrief/{class_id}/{name}.csv").text))
    )


def test_what_does_not_hold_is_told_and_the_raw_stays(house: House) -> None:
    class_id = ran(house, {"1": "per cent", "2": "drops"})
    names = {one.id: one.name for one in house.floor.live(class_id).comers}
    page = house.client.get(f"/debrief/{class_id}?person=1").text
    assert "per cent" in page and f"{names[1]}’s heart in figures" in page
    assert re.search(rf"Not to be trusted: the hearts of .*{names[1]}.*per cent", page)
    rows = csv_of(house, class_id, "clean")
    with house.floor.house.database.work() as work:
        raw = classes.traces(work, class_id)
    mine = [row for row in rows if row["person"] == names[1] and row["told"]]
    assert [float(row["told"]) for row in mine][:600] == [bpm for _, bpm in raw[1]][:600]
    assert sum(row["fault"] == "per cent" for row in mine) > 0.8 * len(mine)
    lost = [row for row in rows if row["person"] == names[2] and row["told"] == "0"]
    assert lost and all(row["fault"] == "dropout" and not row["holds"] for row in lost)
    sound = [row for row in rows if row["person"] == names[3]]
    assert sum(bool(row["holds"]) for row in sound) > 0.97 * len(sound)
    turns = csv_of(house, class_id, "turns")
    assert {row["turn"] for row in turns if row["person"] == names[3]} == {
        str(nth) for nth in range(1, 12)
    }
    drops = [float(row["drop_60"]) for row in turns if row["person"] == names[3] and row["drop_60"]]
    assert len(drops) >= 8 and all(5 < drop < 80 for drop in drops)
    assert not any(row["average"] for row in turns if row["person"] == names[1])


def test_what_is_typed_afterwards_cleans_no_heart_again(house: House) -> None:
    class_id = ran(house)
    live = house.floor.live(class_id)

    def hearts() -> object:
        with house.floor.house.database.work() as work:
            return house.floor.cleaned.of(live, classes.traces(work, class_id))

    while live.unwritten:  # what straps told last is written down beside us
        house.floor.write_all()
    before = hearts()
    for nth, body in enumerate(({"person": "1", "value": "7"}, {"person": "2", "value": "8"})):
        house.client.post(f"/debrief/{class_id}/felt", data={"op": f"f{nth}", **body})
    assert hearts() is before
    with house.floor.house.database.writing() as work:
        classes.add_samples(work, class_id, [(live.state.over_ms + 1000, {1: 90})])
    assert hearts() is not before


def test_a_thinned_trace_still_tells_what_the_whole_one_did(house: House) -> None:
    class_id = ran(house)
    while house.floor.live(class_id).unwritten:  # what straps told last is written down beside us
        house.floor.write_all()
    whole = csv_of(house, class_id, "turns")
    with house.floor.house.database.writing() as work:
        club.set_about(work, club.about(work).but(traces="thinned"))
        assert thin_old(work, house.floor.live(class_id).state.over_ms + OLD_MS + 1) == 1
        assert all(len(one) < ROWS / 4 for one in classes.traces(work, class_id).values())
    thinned = csv_of(house, class_id, "turns")
    for figure, near in (("average", 0.6), ("highest", 3), ("drop_60", 6)):
        pairs = [
            (float(one[figure]), float(other[figure]))
            for one, other in zip(whole, thinned, strict=True)
            if one[figure]
        ]
        assert len(pairs) > 20 and all(abs(one - other) <= near for one, other in pairs), figure
    assert "Not to be trusted" not in house.client.get(f"/debrief/{class_id}").text


@pytest.mark.parametrize("do", ["freeze", "throw"])
def test_what_is_said_of_a_heart_while_it_is_learnt_stays(
    house: House, monkeypatch: pytest.MonkeyPatch, do: str
) -> None:
    ran(house)
    house.floor.learn()
    ran(house)
    clean, said = house.floor.cleaned.of, []
    database = house.floor.house.database

    def meanwhile(*given: object) -> object:
        monkeypatch.undo()
        found = clean(*given)
        house.client.post("/people/1/heart", data={"do": do})
        with database.work() as work:
            said.append(people.get(work, 1))
        return found

    monkeypatch.setattr(house.floor.cleaned, "of", meanwhile)
    learn_newest(database, house.floor.cleaned, house.floor.live, house.clock.ms)
    with database.work() as work:
        one, other = people.get(work, 1), people.get(work, 2)
    assert other.heart and other.heart.evenings == 2 and [one] == said
    assert one.heart is None or one.heart.frozen


def test_a_heart_is_learnt_used_frozen_and_thrown_away(house: House) -> None:
    class_id = ran(house)
    house.floor.learn()
    with house.floor.house.database.work() as work:
        known = {one.id: one.heart for one in people.everyone(work)}
    assert {who for who, fit in known.items() if fit} >= {1, 2, 3}
    learnt = [who for who, fit in known.items() if fit and not fit.as_start]
    assert learnt and set(learnt) <= {1, 2, 3, 5}
    who = learnt[0]
    fit = known[who]
    assert fit and fit.after < fit.before and fit.evenings == 1
    assert "Will be used from now on" in house.client.get(f"/debrief/{class_id}").text
    house.client.post(f"/people/{who}/heart", data={"do": "freeze"})
    assert "stays so" in house.client.get(f"/people/{who}").text
    ran(house, {str(who): "steady"})
    house.floor.learn()
    with house.floor.house.database.work() as work:
        assert people.get(work, who).heart == fit.but(frozen=True)
    series = house.client.get(f"/people/{who}/progress/hearts").text
    assert "average heart" in series and "drop in 60 s of rest" in series
    assert "Too few evenings to say where it goes" in series
    house.client.post(f"/people/{who}/heart", data={"do": "throw"})
    house.floor.teach()
    house.floor.learn()
    with house.floor.house.database.work() as work:
        assert people.get(work, who).heart is None
    refused = house.client.post(f"/people/{who}/heart", data={"do": "limit", "limit": "soon"})
    assert "“soon” can’t be" in refused.text and 'value="soon"' in refused.text
    house.client.post(f"/people/{who}/heart", data={"do": "limit", "limit": "150"})
    house.client.post(f"/people/{who}/heart", data={"do": "highest", "bpm": "199"})
    with house.floor.house.database.work() as work:
        one = people.get(work, who)
    assert (one.limit_hr, one.max_hr) == (150, 199) and "held ten seconds" in one.measured
    assert "Nothing was learnt yet" in house.client.get(f"/people/{who}").text


def test_a_heart_is_kept_only_where_it_was_asked(house: House) -> None:
    """Asked once under After; a no forgets it at once, no answer a day later, and neither teaches anything."""
    database = house.floor.house.database
    with database.writing() as work:
        for person in (1, 2, 3):
            people.change(work, person, hearts="", hearts_since=None)
    class_id = ran(house)
    page = house.client.get(f"/debrief/{class_id}").text
    assert "Whose hearts may be kept?" in page
    house.client.post("/people/2/hearts", data={"may": "yes"})
    house.client.post("/people/3/hearts", data={"may": "no"})
    floor = house.floor  # by itself: beside us it may be learning already, and be asked in vain
    learn_newest(database, floor.cleaned, floor.live, house.clock.ms)

    def told() -> set[int]:
        with database.work() as work:
            return set(classes.traces(work, class_id))

    assert told() == {1, 2}
    forget_hearts(house.floor.house)
    assert told() == {1, 2}
    house.clock.on(25 * 3600)
    forget_hearts(house.floor.house)
    assert told() == {2}
    with database.work() as work:
        hearts = {who: people.get(work, who).heart for who in (1, 2, 3)}
    assert hearts[2] and not hearts[1] and not hearts[3]
    page = house.client.get(f"/debrief/{class_id}").text
    assert "Whose hearts may be kept?" not in page
    mine = house.client.get("/people/3").text
    assert "said no" in mine and "may be kept" in mine
    assert "classes with a strap teach it" not in mine  # they don't: the answer was no


def test_a_childs_heart_is_kept_by_a_guardians_word_alone(house: House) -> None:
    """Their no is enough; their yes is not, and says why."""
    database = house.floor.house.database
    with database.writing() as work:
        people.change(work, 2, hearts="", hearts_since=None, born=house.floor.house.year - 13)
    class_id = ran(house)
    assert "13: a guardian’s name" in house.client.get(f"/debrief/{class_id}").text
    refused = house.client.post("/people/2/hearts", data={"may": "yes", "guardian": "  "})
    assert refused.status_code == 422 and "is 13: a guardian decides" in refused.text
    with database.work() as work:
        assert not people.get(work, 2).heart_stays
    house.client.post("/people/2/hearts", data={"may": "yes", "guardian": "Rhea Tam"})
    with database.work() as work:
        assert people.get(work, 2).heart_stays
    assert "may be kept: Rhea Tam said so" in house.client.get("/people/2").text
    house.client.post("/people/2/hearts", data={"may": "no"})
    with database.work() as work:
        assert not people.get(work, 2).heart_stays and people.get(work, 2).guardian == ""


def test_changed_straps_are_changed_over_and_back_by_a_press(house: House) -> None:
    class_id = ran(house)
    deed = {"op": "over", "person": "1", "other": "2"}
    before = csv_of(house, class_id, "traces")
    names = {one.id: one.name for one in house.floor.live(class_id).comers}

    def of(rows: list[dict[str, str]], who: int) -> list[str]:
        return [row["beats_per_minute"] for row in rows if row["person"] == names[who]]

    refused = house.client.post(f"/debrief/{class_id}/changed", data=deed | {"other": "1"})
    assert "Two people are needed" in refused.text
    house.client.post(f"/debrief/{class_id}/changed", data=deed)
    after = csv_of(house, class_id, "traces")
    assert of(after, 1) == of(before, 2) and of(after, 2) == of(before, 1) != of(after, 1)
    page = house.client.get(f"/debrief/{class_id}").text
    assert f"{names[1]} and {names[2]} wore each other’s straps" in page
    house.client.post(f"/debrief/{class_id}/changed", data=deed | {"op": "again"})
    assert of(csv_of(house, class_id, "traces"), 1) == of(before, 1)


def test_what_a_heart_makes_one_ask_is_asked_until_it_is_answered(house: House) -> None:
    plain = Fitted(tau_on=28, tau_off=65, gain=1, minutes=60, evenings=3, before=4, after=4)
    with house.floor.house.database.writing() as work:
        people.set_heart(work, 1, plain.but(as_start=True, ask="top", seen=125))
        who = people.get(work, 1)
    page = house.client.get("/people/1").text
    assert f"{who.name}’s heart never passes 125" in page and "Goes as usual hearts do" in page
    house.client.post("/people/1/heart", data={"do": "answered"})
    assert "never passes" not in house.client.get("/people/1").text
    with house.floor.house.database.writing() as work:
        people.set_heart(work, 1, plain.but(ask="top", seen=125))
    house.client.post("/people/1/heart", data={"do": "by-effort"})
    with house.floor.house.database.work() as work:
        assert people.get(work, 1).effort_only


def test_a_file_is_laid_where_it_belongs_and_never_over_a_strap(house: House) -> None:
    class_id = ran(house)
    names = {one.id: one.name for one in house.floor.live(class_id).comers}
    mine = [row for row in csv_of(house, class_id, "clean") if row["person"] == names[3]]
    with house.floor.house.database.writing() as work:
        work.connection().exec_driver_sql(
            f"delete from sample where person_id = 3 and class_id = {class_id}"
        )
    house.floor.cleaned = type(house.floor.cleaned)()
    begins = 240  # the watch was started four minutes late
    text = "second,bpm\n" + "".join(
        f"{nth},{row['holds']}\n" for nth, row in enumerate(mine[begins:])
    )
    page = house.client.post(f"/debrief/{class_id}/traces", files={"file": ("x.csv", text)}).text
    found = int(re.search(r'name="offset-0" value="(-?\d+)"', page)[1])
    assert abs(found - begins) <= 6 and "by its pattern" in page
    name = re.search(r'name="name" value="(\w+)"', page)[1]
    fields = {"name": name, "person-0": "3", "offset-0": "soon"}
    refused = house.client.post(f"/debrief/{class_id}/traces/lay", data=fields)
    assert refused.status_code == 422 and "no number of seconds" in refused.text
    elsewhere = house.client.post(f"/debrief/{class_id + 1}/traces/lay", data=fields)
    assert elsewhere.status_code in (404, 409)  # it was read for this class
    fields["offset-0"] = str(begins)
    assert house.client.post(f"/debrief/{class_id}/traces/lay", data=fields).status_code == 200
    again = [row for row in csv_of(house, class_id, "clean") if row["person"] == names[3]]
    assert [row["told"] for row in again[begins + 5 : 900]] == [
        row["holds"] for row in mine[begins + 5 : 900]
    ]
    fields["person-0"] = "2"
    refused = house.client.post(f"/debrief/{class_id}/traces/lay", data=fields)
    assert refused.status_code == 422 and "not written over" in refused.text
    no = house.client.post(f"/debrief/{class_id}/traces", files={"file": ("x.csv", "a,b\n1,2\n")})
    assert no.status_code == 409 and "Head the columns" in no.text


GATED = "warm-up 1:00 at 3\n3 x 1:30/until 132, least 20, most 3:00, at 8\n"


def test_one_rest_ends_by_a_heart_and_one_by_the_clock_and_lost_is_not_there(house: House) -> None:
    session = int(house.client.post("/desk", data={"text": GATED}).url.path.rsplit("/", 1)[1])
    for person in (1, 2, 3):
        house.client.post(f"/crew/{session}/place", data={"person": person, "group": 0})
    house.client.post(
        "/straps/plays", data={"person": "2", "how": "late"}
    )  # eight minutes of nothing
    class_id = house.to_the_floor(session)
    house.happen(class_id, "start")
    for _ in range(13 * 60):
        house.clock.on(1)
        house.floor.tick(house.clock.ms)
    laps = [one for one in house.floor.live(class_id).going.laps if one.phase == "rest"]
    ended = {who: {one.ended_by for one in laps if one.lane == who} for who in ("1", "2", "3")}
    assert ended["1"] == {"heart"} and "clock" in ended["2"], ended
    assert all(19.9 <= one.to_s - one.from_s <= 180.1 for one in laps)


def test_half_of_a_group_that_is_down_lets_all_go(house: House) -> None:
    ends = {}
    for when in ("when all", "when half"):
        text = GATED.replace("at 8", f"at 8, {when}")
        session = int(house.client.post("/desk", data={"text": text}).url.path.rsplit("/", 1)[1])
        for person in (1, 2, 3, 5):
            house.client.post(f"/crew/{session}/place", data={"person": person, "group": 0})
        class_id = house.to_the_floor(session)
        house.happen(class_id, "start")
        for _ in range(6 * 60):
            house.clock.on(1)
            house.floor.tick(house.clock.ms)
        rest = next(one for one in house.floor.live(class_id).going.laps if one.phase == "rest")
        ends[when] = rest.to_s - rest.from_s
        house.happen(class_id, "end")
    assert 20 <= ends["when half"] <= ends["when all"] <= 180


@pytest.mark.parametrize("seconds", [0, 2, 6, 7, 9, 15, 31, 70])
def test_a_class_of_any_length_is_told(house: House, seconds: int) -> None:
    class_id = house.to_the_floor()
    house.happen(class_id, "start")
    house.clock.on(seconds)
    house.floor.tick(house.clock.ms)
    house.happen(class_id, "end")
    house.floor.learn()
    for path in ("", "?person=3", "/clean.csv", "/turns.csv", "/traces.csv"):
        assert house.client.get(f"/debrief/{class_id}{path}").status_code == 200


@pytest.mark.parametrize("swapped", [True, False])
def test_changed_straps_are_suspected_while_the_class_is_on(
    house: House, monkeypatch: pytest.MonkeyPatch, swapped: bool
) -> None:
    """Said once it has looked so twice in a row, and no more once somebody said so."""
    with house.floor.house.database.writing() as work:
        people.change(work, 1, rest_hr=44, max_hr=158)
        people.change(work, 2, rest_hr=78, max_hr=204)
        one, other = people.get(work, 1).name, people.get(work, 2).name

    def as_worn(work: object, live: object) -> dict[int, object]:
        told = dict(real(work, live))
        told[1], told[2] = (told[2], told[1]) if swapped else (told[1], told[2])
        return told

    real = floor_module.traces_of
    monkeypatch.setattr(floor_module, "traces_of", as_worn)
    session = int(house.client.post("/desk", data={"text": SLATE}).url.path.rsplit("/", 1)[1])
    for person in (1, 2, 3, 5):
        house.client.post(f"/crew/{session}/place", data={"person": person, "group": 0})
    class_id = house.to_the_floor(session)
    house.happen(class_id, "start")
    house.clock.on(20 * 60)
    house.floor.tick(house.clock.ms)
    live = house.floor.live(class_id)
    said = f"{one} and {other} seem to wear each other’s straps"

    def told() -> bool:
        return any(said in call for call in live.hearts().calls)

    live.calls.suspect([])
    house.floor.suspect()
    assert not told()
    house.floor.suspect()
    assert told() == swapped
    house.happen(class_id, "swap", person=1, other=2)
    house.floor.suspect()
    assert not told()
