"""Server to browser: messages on named channels, as server-sent events.

A browser has one stream for all its pages (it keeps six connections to a host, and more would leave none for a press),
so a listener hears several channels and each message says which one it is of.
"""

import asyncio
import json
from collections.abc import AsyncIterator, Awaitable, Callable, Iterable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from functools import cached_property

from sse_starlette import ServerSentEvent

KEEP_ALIVE_S = 15
MOST_WAITING = 400


@dataclass(frozen=True)
class Message:
    """Something said on a channel."""

    channel: str
    event: str
    data: str

    @cached_property
    def wire(self) -> bytes:
        """As a server-sent event, written once for all who hear it; browsers that lose it come again after a second."""
        body = json.dumps({"on": self.channel, "event": self.event, "data": self.data})
        return ServerSentEvent(body, event="said", retry=1000, sep="\n").encode()


Queue = asyncio.Queue[Message | None]


class Hub:
    """Who listens to what; a listener that can't keep up is let go and comes again."""

    def __init__(self) -> None:
        self._listeners: dict[str, set[Queue]] = {}
        self.closing = asyncio.Event()
        self.loop: asyncio.AbstractEventLoop | None = None

    def say(self, channel: str, event: str, data: str) -> None:
        """Send a message to everyone on a channel; from any thread."""
        if self.loop is None:
            self._say(Message(channel, event, data))
        elif not self.loop.is_closed():
            self.loop.call_soon_threadsafe(self._say, Message(channel, event, data))

    def _say(self, message: Message) -> None:
        for queue in list(self._listeners.get(message.channel, ())):
            queue.put_nowait(None if queue.qsize() >= MOST_WAITING else message)

    def say_all(self, event: str, data: str) -> None:
        """Send a message to everyone who listens to anything; from any thread."""
        for channel in list(self._listeners):
            self.say(channel, event, data)

    def heard(self, channel: str) -> int:
        """How many listen to a channel."""
        return len(self._listeners.get(channel, ()))

    @contextmanager
    def listening(self, channels: Iterable[str]) -> Iterator[Queue]:
        """A queue of the channels' messages."""
        queue: Queue = asyncio.Queue()
        wanted = set(channels)
        for channel in wanted:
            self._listeners.setdefault(channel, set()).add(queue)
        try:
            yield queue
        finally:
            for channel in wanted:
                self._listeners[channel].discard(queue)
                if not self._listeners[channel]:
                    del self._listeners[channel]

    def close(self) -> None:
        """Let everyone go, so that the server can stop."""
        self.closing.set()
        for queues in self._listeners.values():
            for queue in queues:
                queue.put_nowait(None)


async def stream(
    hub: Hub, channels: Iterable[str], first: Callable[[], Awaitable[list[Message]]]
) -> AsyncIterator[bytes]:
    """What is so when somebody comes, then everything said on the channels until they go or the server stops."""
    with hub.listening(channels) as queue:
        for message in await first():
            yield message.wire
        while not hub.closing.is_set():
            said = await queue.get()
            if said is None:
                return
            yield said.wire
