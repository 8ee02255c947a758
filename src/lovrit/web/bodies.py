"""How much a post may bring: refused before it is read, and again while it comes, where nobody said how long it is."""

import re

from starlette.datastructures import Headers
from starlette.types import ASGIApp, Message, Receive, Scope, Send

MOST = 1_000_000
MOST_FILE = 5_000_000
MOST_CLUB = 2_000_000_000  # a whole club's file that is put back
FILES = frozenset({"/moves/file", "/desk/board", "/debrief/bring-class"})
RESTORED = "/club/restore"
TRACES = re.compile(r"/debrief/[0-9]+/traces", re.ASCII)


class TooLarge(Exception):
    """A body that is longer than it may be."""


class Bodies:
    """An ASGI middleware that lets no body through that is over its limit."""

    def __init__(self, app: ASGIApp, refuse: ASGIApp) -> None:
        self.app, self.refuse = app, refuse

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Refuse a body that is too long, else let it through as it comes."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        most = _most(scope["path"])
        said = Headers(scope=scope).get("content-length", "0")
        if not said.isdecimal() or int(said[:20]) > most:
            await self.refuse(scope, receive, send)
            return
        came, begun = 0, False

        async def counted() -> Message:
            nonlocal came
            message = await receive()
            came += len(message.get("body", b""))
            if came > most:
                raise TooLarge
            return message

        async def sent(message: Message) -> None:
            nonlocal begun
            begun = True
            await send(message)

        try:
            await self.app(scope, counted, sent)
        except TooLarge:
            if not begun:
                await self.refuse(scope, receive, send)


def _most(path: str) -> int:
    """How much a post to an address may bring."""
    if path == RESTORED:
        return MOST_CLUB
    return MOST_FILE if path in FILES or TRACES.fullmatch(path) else MOST
