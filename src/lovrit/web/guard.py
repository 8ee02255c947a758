"""Who may come in, and what a page may do: host names, cross-site posts, the passphrase, the content policy."""

import secrets
from collections.abc import Callable
from urllib.parse import urlsplit

from starlette.datastructures import Headers, MutableHeaders
from starlette.requests import Request
from starlette.responses import HTMLResponse, RedirectResponse, Response
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from lovrit.core.rights import Who
from lovrit.house.guests import Guests
from lovrit.settings import Settings
from lovrit.store.changed import BY
from lovrit.web.rights import THEIRS, needs

SAFE = frozenset({"GET", "HEAD", "OPTIONS"})
LOCAL_HOSTS = frozenset({"127.0.0.1", "localhost", "[::1]", "::1"})
COOKIE, SECURE_COOKIE = "lovrit-in", "__Host-lovrit-in"
# what a signed link opens, and what asks for a code
OPEN_PATHS = ("/static/", "/passphrase", "/join", "/straps/beats", *THEIRS)
KEPT = ("/static/",)
A_YEAR_S = 365 * 86_400


def content_policy(nonce: str) -> str:
    """What pages may load: own things only, nothing inline but the editor's own style sheet."""
    return (
        "default-src 'none'; script-src 'self'; connect-src 'self'; img-src 'self' data:; font-src 'self'; "
        f"worker-src 'self'; style-src 'self' 'nonce-{nonce}'; form-action 'self'; base-uri 'none'; "
        "frame-ancestors 'none'"
    )


class Guard:
    """An ASGI middleware; the first thing that a request meets. ``guests`` where there is a passphrase."""

    def __init__(
        self, app: ASGIApp, settings: Settings, guests: Guests | None, now_ms: Callable[[], int]
    ) -> None:
        self.app, self.settings, self.guests, self.now_ms = app, settings, guests, now_ms

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Refuse, ask for the passphrase, or let through with the right headers."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        nonce = secrets.token_urlsafe(12)
        scope.setdefault("state", {})["nonce"] = nonce
        refused = self._refused(Request(scope))
        may_be_kept = scope["path"].startswith(KEPT)
        over_tls = scope.get("scheme") == "https"

        async def with_headers(message: Message) -> None:
            if message["type"] == "http.response.start":
                headers = MutableHeaders(scope=message)
                headers.setdefault("Content-Security-Policy", content_policy(nonce))
                headers["X-Content-Type-Options"] = "nosniff"
                headers["Referrer-Policy"] = "same-origin"
                if over_tls:
                    headers["Strict-Transport-Security"] = f"max-age={A_YEAR_S}"
                headers["Cross-Origin-Opener-Policy"] = "same-origin"
                if not may_be_kept:  # pages have people on them
                    headers["Cache-Control"] = "no-store"
            await send(message)

        await (refused or self.app)(scope, receive, with_headers)

    def _refused(self, request: Request) -> Response | None:
        if self.settings.loopback and _host(request.headers) not in LOCAL_HOSTS | set(
            self.settings.hosts
        ):
            return _plain("Lovrit answers on this machine only.", 421)
        if request.method not in SAFE and _foreign(request):
            return _plain("That post came from another site, so nothing was done.", 403)
        path = request.url.path
        if self.guests is None or path.startswith(OPEN_PATHS):
            return None
        who = self.guests.known(token_of(request), self.now_ms())
        if who is not None:
            request.scope["state"]["who"] = who
            BY.set(who.name)  # who changes what of somebody's health is kept
            return _not_theirs(request, who)
        if request.method in SAFE and "text/html" in request.headers.get("accept", ""):
            return RedirectResponse("/passphrase", 303)
        return _plain("The passphrase first, please.", 401)


def _not_theirs(request: Request, who: Who) -> Response | None:
    """A sentence where an address is not for somebody of their role; an assistant begins on the floor."""
    least = needs(request.url.path)
    if who.may(least):
        return None
    if request.url.path == "/" and request.method in SAFE:
        return RedirectResponse("/run", 303)
    whose = "the owner" if least == "owner" else "a coach"
    return _plain(f"This is for {whose} of the house; you are in as {who.name}, {who.role}.", 403)


def cookie_name(request: Request) -> str:
    """The cookie's name; over TLS one that no other host can set."""
    return SECURE_COOKIE if request.url.scheme == "https" else COOKIE


def token_of(request: Request) -> str:
    """What a browser's cookie holds; empty where it has none."""
    return request.cookies.get(cookie_name(request), "")


def _host(headers: Headers) -> str:
    host = headers.get("host", "")
    return host.rsplit(":", 1)[0] if not host.endswith("]") else host


def _foreign(request: Request) -> bool:
    """Whether a post came from elsewhere: browsers say so, other programs send neither header."""
    site = request.headers.get("sec-fetch-site")
    if site is not None and site not in ("same-origin", "none"):
        return True
    origin = request.headers.get("origin")
    if origin is None:
        return False
    try:
        return urlsplit(origin).netloc != request.headers.get("host", "")
    except ValueError:
        return True


def _plain(text: str, status: int) -> Response:
    page = f"<!doctype html><html lang=en><title>Lovrit</title><body><h1>{text}</h1><p><a href='/'>Lovrit</a>"
    return HTMLResponse(page, status)
