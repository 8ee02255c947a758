"""Who may come in, and what a page may do: host names, cross-site posts, the passphrase, the content policy."""

import hmac
import secrets
from urllib.parse import urlsplit

from itsdangerous import BadSignature, URLSafeSerializer
from starlette.datastructures import Headers, MutableHeaders
from starlette.requests import Request
from starlette.responses import HTMLResponse, RedirectResponse, Response
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from lovrit.settings import Settings

SAFE = frozenset({"GET", "HEAD", "OPTIONS"})
LOCAL_HOSTS = frozenset({"127.0.0.1", "localhost", "[::1]", "::1", "testserver"})
COOKIE = "lovrit-pass"
OPEN_PATHS = ("/static/", "/passphrase")


def content_policy(nonce: str) -> str:
    """What pages may load: own things only, nothing inline but the editor's own style sheet."""
    return (
        "default-src 'none'; script-src 'self'; connect-src 'self'; img-src 'self' data:; font-src 'self'; "
        f"style-src 'self' 'nonce-{nonce}'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'"
    )


class Guard:
    """An ASGI middleware; the first thing that a request meets."""

    def __init__(self, app: ASGIApp, settings: Settings, secret: str):
        self.app, self.settings = app, settings
        self.signer = URLSafeSerializer(secret, salt="passphrase")

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Refuse, ask for the passphrase, or let through with the right headers."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        nonce = secrets.token_urlsafe(12)
        scope.setdefault("state", {})["nonce"] = nonce
        refused = self._refused(Request(scope))

        async def with_headers(message: Message) -> None:
            if message["type"] == "http.response.start":
                headers = MutableHeaders(scope=message)
                headers.setdefault("Content-Security-Policy", content_policy(nonce))
                headers["X-Content-Type-Options"] = "nosniff"
                headers["Referrer-Policy"] = "same-origin"
                headers["Cross-Origin-Opener-Policy"] = "same-origin"
            await send(message)

        await (refused or self.app)(scope, receive, with_headers)

    def _refused(self, request: Request) -> Response | None:
        if self.settings.loopback and _host(request.headers) not in LOCAL_HOSTS:
            return _plain("Lovrit answers on this machine only.", 421)
        if request.method not in SAFE and _foreign(request):
            return _plain("That post came from another site, so nothing was done.", 403)
        if self.settings.loopback or request.url.path.startswith(OPEN_PATHS) or self.known(request):
            return None
        if request.method in SAFE and "text/html" in request.headers.get("accept", ""):
            return RedirectResponse("/passphrase", 303)
        return _plain("The passphrase first, please.", 401)

    def known(self, request: Request) -> bool:
        """Whether this browser has given the passphrase."""
        return known(self.settings, self.signer, request.cookies.get(COOKIE, ""))


def known(settings: Settings, signer: URLSafeSerializer, cookie: str) -> bool:
    """Whether a cookie was made for the passphrase that is in force."""
    try:
        kept = signer.loads(cookie)
    except BadSignature:
        return False
    return isinstance(kept, str) and right(settings, kept)


def right(settings: Settings, given: str) -> bool:
    """Whether this is the passphrase; compared in constant time."""
    wanted = settings.passphrase.get_secret_value() if settings.passphrase else ""
    return bool(wanted) and hmac.compare_digest(given.encode(), wanted.encode())


def _host(headers: Headers) -> str:
    host = headers.get("host", "")
    return host.rsplit(":", 1)[0] if not host.endswith("]") else host


def _foreign(request: Request) -> bool:
    """Whether a post came from elsewhere: browsers say so, other programs send neither header."""
    site = request.headers.get("sec-fetch-site")
    if site is not None and site not in ("same-origin", "none"):
        return True
    origin = request.headers.get("origin")
    return origin is not None and urlsplit(origin).netloc != request.headers.get("host", "")


def _plain(text: str, status: int) -> Response:
    page = f"<!doctype html><html lang=en><title>Lovrit</title><body><h1>{text}</h1><p><a href='/'>Lovrit</a>"
    return HTMLResponse(page, status)
