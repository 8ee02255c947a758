"""One text on several evenings: they know of one another, and a change asks which of them it is for."""

import re

from fastapi.testclient import TestClient

from lovrit.store import sessions
from tests.web.test_weeks import made
from tests.web.test_weeks_more import house_of

TEXT = "title: Threes\ndate: 2027-03-02\n\n3 rounds of 40/20 at 7\n  squat\n  ring row\n"


def text_of(client: TestClient, number: int) -> str:
    with house_of(client).database.work() as work:
        return sessions.get(work, number).text


def put(client: TestClient, number: int, day: str) -> int:
    """One more evening of a session; its number there."""
    with house_of(client).database.work() as work:
        before = sessions.latest(work) or 0
    client.post("/weeks/put", data={"session": number, "day": day, "at": day})
    with house_of(client).database.work() as work:
        (one,) = [row for row in sessions.between_days(work, day, day) if (row.id or 0) > 0]
    assert one.id and one.id != number, before
    return one.id


def wrote(client: TestClient, number: int, text: str) -> None:
    with house_of(client).database.work() as work:
        base = sessions.get(work, number).version
    assert client.post(f"/desk/{number}/text", data={"base": base, "text": text}).status_code < 400


def said(client: TestClient, number: int) -> str:
    page = client.get(f"/desk/{number}").text
    found = re.search(r'id="evenings".*?</div>', page, re.DOTALL)
    assert found
    return " ".join(re.sub(r"<[^>]+>", " ", found[0].split(">", 1)[1]).split())


def test_a_change_asks_which_evenings_it_is_for(client: TestClient) -> None:
    first = made(client, TEXT)
    assert said(client, first) == ""
    second, third = put(client, first, "2027-03-04"), put(client, first, "2027-03-09")
    assert said(client, second) == "Also on Tuesday 2 March Tuesday 9 March"
    assert "Take it there" not in said(client, first)

    wrote(client, third, text_of(client, third).replace("squat", "lunge"))
    wrote(client, first, TEXT.replace("3 rounds", "4 rounds"))
    told = said(client, first)
    assert "Thursday 4 March as it was" in told
    assert "Tuesday 9 March changed there, which would go" in told
    page = client.get(f"/desk/{first}").text
    ticked = re.findall(r'name="to" value="(\d+)" id="[^"]+"( checked)?', page)
    assert ticked == [(str(second), " checked"), (str(third), "")]

    client.post(f"/desk/{first}/evenings", data={"to": [second, 999_999]})
    assert text_of(client, second) == TEXT.replace("3 rounds", "4 rounds").replace("-02", "-04")
    assert "lunge" in text_of(client, third)
    assert "Take it there" in said(client, first)  # the third is still another
    client.post(f"/desk/{second}/undo")
    assert "3 rounds" in text_of(client, second)


def test_a_copy_and_evenings_gone_by_are_no_further_evenings(client: TestClient) -> None:
    first = made(client, TEXT)
    client.post(f"/desk/{first}/copy")
    assert said(client, first) == ""
    put(client, first, "2020-03-04")
    assert said(client, first) == ""
