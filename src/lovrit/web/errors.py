"""Every error a person can meet, as a page in the same look with a way on."""

import structlog
from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import HTMLResponse, JSONResponse, Response
from sqlalchemy.exc import DBAPIError, IntegrityError
from starlette.exceptions import HTTPException
from starlette.types import Receive, Scope, Send

from lovrit.core.slate.problem import Problem
from lovrit.core.values import LovritError
from lovrit.formats.plan_json import errors_object
from lovrit.store.sessions import Gone
from lovrit.store.trouble import DiskFull, Trouble, trouble_of
from lovrit.web.bodies import TooLarge
from lovrit.web.inhouse import house_of
from lovrit.web.pages import page
from lovrit.web.rights import THEIRS

log = structlog.get_logger()
UNCHANGED = "Nothing was changed."
SAID = {
    404: ("There is nothing at this address.", "The link may be old, or a letter of it lost."),
    405: ("That can't be done here.", "The page was opened in a way that it isn't meant for."),
    400: (
        "That post could not be taken.",
        "It may be more than Lovrit takes at once; it stays where you typed it.",
    ),
    413: (
        "That is too much at once.",
        "Nothing of it was taken; what you typed stays where it is.",
    ),
}
NOT_OURS = (OverflowError, RecursionError, UnicodeError)


def add_error_pages(app: FastAPI) -> None:
    """Register the pages."""
    app.add_exception_handler(HTTPException, _http)
    app.add_exception_handler(RequestValidationError, _form)
    app.add_exception_handler(LovritError, _lovrit)
    app.add_exception_handler(DBAPIError, _database)
    for kind in NOT_OURS:
        app.add_exception_handler(kind, _no_such)
    app.add_exception_handler(TooLarge, _too_much)
    app.add_exception_handler(Exception, _ours)


def say(request: Request, status: int, title: str, text: str) -> Response:
    """An error as a page, or as JSON where a program asked."""
    if request.url.path.startswith("/api/"):
        problem = Problem(line=1, column=1, text=f"{title} {text}".strip())
        return JSONResponse(errors_object((problem,)), status)
    if request.headers.get("x-lovrit") or request.headers.get("hx-request"):
        return HTMLResponse(
            f"{title} {text}".strip(), status, media_type="text/plain; charset=utf-8"
        )
    # where a signed link leads: nothing of the coach's, no door that is shut to them
    theirs = request.url.path.startswith(THEIRS)
    if theirs and request.method == "GET" and text == UNCHANGED:
        text = ""
    return page(
        request, house_of(request), "shell/error.html",
        status=status, title=title, text=text, theirs=theirs,
    )  # fmt: skip


async def too_much(scope: Scope, receive: Receive, send: Send) -> None:
    """The answer to a body that is longer than it may be, before it is read."""
    await say(Request(scope), 413, *SAID[413])(scope, receive, send)


async def _http(request: Request, error: Exception) -> Response:
    assert isinstance(error, HTTPException)
    if isinstance(error.__cause__, TooLarge):
        return say(request, 413, *SAID[413])
    fallback = ("That did not work.", str(error.detail))
    title, text = SAID.get(error.status_code, fallback)
    return say(request, error.status_code, title, text)


async def _form(request: Request, error: Exception) -> Response:
    assert isinstance(error, RequestValidationError)
    first = error.errors()[0]
    where = " ".join(str(part) for part in first["loc"][1:])
    said = f"{where}: {first['msg']}.".encode("utf-8", "replace").decode()
    return say(request, 422, "Something in that post could not be read.", said)


async def _lovrit(request: Request, error: Exception) -> Response:
    if isinstance(error, Trouble):
        return say(request, 507 if isinstance(error, DiskFull) else 503, str(error), "")
    if request.url.path.startswith("/api/"):
        return say(request, 422, str(error), "")
    status = 404 if isinstance(error, Gone) else 409
    return say(request, status, str(error), UNCHANGED)


async def _database(request: Request, error: Exception) -> Response:
    """What the file could not do; a row that names one which is gone is the sender's, not ours."""
    trouble = trouble_of(error)
    if trouble:
        return await _lovrit(request, trouble)
    if isinstance(error, IntegrityError):
        return say(request, 409, "Something that this names is not here any more.", UNCHANGED)
    return await _ours(request, error)


async def _no_such(request: Request, _error: Exception) -> Response:
    """A number, a letter or a depth that nothing of ours has."""
    return say(
        request,
        422,
        "Something in that could not be read.",
        "A number in it is too large, or a letter is none.",
    )


async def _too_much(request: Request, _error: Exception) -> Response:
    return say(request, 413, *SAID[413])


async def _ours(request: Request, error: Exception) -> Response:
    """A mistake of ours: said plainly, and written to the log without what people posted."""
    log.error("our mistake", path=request.url.path, kind=type(error).__name__)
    return say(
        request,
        500,
        "That is our mistake, not yours.",
        "What you typed is still in your browser; go back and try once more.",
    )
