"""Every error a person can meet, as a page in the same look with a way on."""

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import HTMLResponse, JSONResponse, Response
from starlette.exceptions import HTTPException

from lovrit.core.session.problem import Problem
from lovrit.core.values import LovritError
from lovrit.formats.plan_json import errors_object
from lovrit.store.sessions import Gone
from lovrit.web.house import house_of
from lovrit.web.pages import page

SAID = {
    404: ("There is nothing at this address.", "The link may be old, or a letter of it lost."),
    405: ("That can't be done here.", "The page was opened in a way that it isn't meant for."),
    400: ("That post could not be taken.", "It may be more than Lovrit takes at once; it stays where you typed it."),
    413: ("That is too much at once.", "Nothing of it was taken."),
}


def add_error_pages(app: FastAPI) -> None:
    """Register the pages."""
    app.add_exception_handler(HTTPException, _http)
    app.add_exception_handler(RequestValidationError, _form)
    app.add_exception_handler(LovritError, _lovrit)
    app.add_exception_handler(Exception, _ours)


def say(request: Request, status: int, title: str, text: str) -> Response:
    """An error as a page, or as JSON where a program asked."""
    if request.url.path.startswith("/api/"):
        problem = Problem(line=1, column=1, text=f"{title} {text}".strip())
        return JSONResponse(errors_object((problem,)), status)
    if request.headers.get("x-lovrit"):
        return HTMLResponse(f"{title} {text}".strip(), status, media_type="text/plain; charset=utf-8")
    return page(request, house_of(request), "shell/error.html", status=status, title=title, text=text)


async def _http(request: Request, error: Exception) -> Response:
    assert isinstance(error, HTTPException)
    fallback = ("That did not work.", str(error.detail))
    title, text = SAID.get(error.status_code, fallback)
    return say(request, error.status_code, title, text)


async def _form(request: Request, error: Exception) -> Response:
    assert isinstance(error, RequestValidationError)
    first = error.errors()[0]
    where = " ".join(str(part) for part in first["loc"][1:])
    return say(request, 422, "Something in that post could not be read.", f"{where}: {first['msg']}.")


async def _lovrit(request: Request, error: Exception) -> Response:
    if request.url.path.startswith("/api/"):
        return say(request, 422, str(error), "")
    status = 404 if isinstance(error, Gone) else 409
    return say(request, status, str(error), "Nothing was changed.")


async def _ours(request: Request, _error: Exception) -> Response:
    """A mistake of ours: said plainly, and written to the log by whoever raised it on."""
    return say(
        request,
        500,
        "That is our mistake, not yours.",
        "What you typed is still in your browser; go back and try once more.",
    )
