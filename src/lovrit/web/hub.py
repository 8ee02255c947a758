"""Server to browser: messages on named channels, as server-sent events."""

import asyncio
from collections.abc import AsyncIterator, Awaitable, Callable, Iterator
from contextlib import contextmanager

KEEP_ALIVE_S = 15
MOST_WAITING = 200


class Hub:
    """Who listens to what. Messages are (event, data); a listener that can't keep up is let go and comes again."""

    def __init__(self) -> None:
        self._listeners: dict[str, set[asyncio.Queue[tuple[str, str] | None]]] = {}
        self.closing = asyncio.Event()

    def say(self, channel: str, event: str, data: str) -> None:
        """Send a message to everyone on a channel."""
        for queue in list(self._listeners.get(channel, ())):
            if queue.qsize() >= MOST_WAITING:
                queue.put_nowait(None)
            else:
                queue.put_nowait((event, data))

    def heard(self, channel: str) -> int:
        """How many listen to a channel."""
        return len(self._listeners.get(channel, ()))

    @contextmanager
    def listening(self, channel: str) -> Iterator[asyncio.Queue[tuple[str, str] | None]]:
        """A queue of the channel's messages."""
        queue: asyncio.Queue[tuple[str, str] | None] = asyncio.Queue()
        self._listeners.setdefault(channel, set()).add(queue)
        try:
            yield queue
        finally:
            self._listeners[channel].discard(queue)
            if not self._listeners[channel]:
                del self._listeners[channel]

    def close(self) -> None:
        """Let everyone go, so that the server can stop."""
        self.closing.set()
        for queues in self._listeners.values():
            for queue in queues:
                queue.put_nowait(None)


def message(event: str, data: str) -> str:
    """One server-sent event."""
    lines = "".join(f"data: {line}\n" for line in data.split("\n"))
    return f"event: {event}\n{lines}\n"


async def stream(
    hub: Hub, channel: str, first: Callable[[], list[tuple[str, str]]], gone: Callable[[], Awaitable[bool]]
) -> AsyncIterator[str]:
    """The first messages, then all of a channel until the browser leaves or the server stops."""
    with hub.listening(channel) as queue:
        yield "retry: 1000\n\n"
        for event, data in first():
            yield message(event, data)
        while not hub.closing.is_set() and not await gone():
            try:
                said = await asyncio.wait_for(queue.get(), KEEP_ALIVE_S)
            except TimeoutError:
                yield ": still here\n\n"
                continue
            if said is None:
                return
            yield message(*said)
