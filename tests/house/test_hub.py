"""Server to browser: every listener hears everything on its channel, in order, and nothing of others'."""

import asyncio
from collections.abc import Coroutine
from concurrent.futures import ThreadPoolExecutor

from lovrit.house.hub import MOST_WAITING, Hub, Message, stream


def in_a_loop(work: Coroutine) -> object:
    """Run in a thread of its own: the browser's tests leave a loop running in the main one."""
    with ThreadPoolExecutor(1) as pool:
        return pool.submit(asyncio.run, work).result()


async def heard(hub: Hub, channel: str, want: int, here: asyncio.Barrier) -> list[bytes]:
    told: list[bytes] = []

    async def first() -> list[Message]:
        await here.wait()
        return [Message(channel, "first", "0")]

    async for event in stream(hub, [channel], first):
        told.append(event)
        if len(told) == want:
            break
    return told


def test_messages_are_written_as_the_standard_says() -> None:
    said = Message("wall-1", "state", "a\nb").wire.decode()
    assert (
        said
        == 'event: said\ndata: {"on": "wall-1", "event": "state", "data": "a\\nb"}\nretry: 1000\n\n'
    )


def test_all_hear_their_channel_in_order() -> None:
    async def go() -> tuple[list[bytes], ...]:
        hub, here = Hub(), asyncio.Barrier(5)
        tasks = [asyncio.create_task(heard(hub, "coach-1", 4, here)) for _ in range(3)]
        other = asyncio.create_task(heard(hub, "coach-2", 2, here))
        await here.wait()
        for nth in range(3):
            hub.say("coach-1", "state", str(nth))
        hub.say("coach-2", "state", "other")
        told = await asyncio.gather(*tasks, other)
        return tuple(told)

    *mine, other = in_a_loop(go())
    told = [("first", "0"), *(("state", str(nth)) for nth in range(3))]
    assert all(one == [Message("coach-1", *said).wire for said in told] for one in mine)
    assert other == [
        Message("coach-2", *said).wire for said in (("first", "0"), ("state", "other"))
    ]


def test_a_listener_that_cannot_keep_up_is_let_go_and_the_rest_stay() -> None:
    async def go() -> int:
        hub = Hub()
        with hub.listening(["c"]) as slow:
            for nth in range(MOST_WAITING + 5):
                hub.say("c", "state", str(nth))
            said = [slow.get_nowait() for _ in range(slow.qsize())]
        assert hub.heard("c") == 0
        return said.index(None)

    assert in_a_loop(go()) == MOST_WAITING


def test_everyone_is_let_go_when_the_server_stops() -> None:
    async def go() -> list[str]:
        hub, here = Hub(), asyncio.Barrier(2)
        task = asyncio.create_task(heard(hub, "c", 99, here))
        await here.wait()
        hub.close()
        return await asyncio.wait_for(task, 2)

    assert in_a_loop(go()) == [Message("c", "first", "0").wire]
