"""The application: a house, its guard, its screens."""

import asyncio
from collections.abc import AsyncIterator, Callable
from contextlib import asynccontextmanager
from functools import partial
from hashlib import sha256
from pathlib import Path

from anyio import to_thread
from fastapi import FastAPI
from starlette.middleware.gzip import GZipMiddleware
from starlette.responses import Response
from starlette.staticfiles import StaticFiles
from starlette.types import Scope

from lovrit.house.erased import erase_all
from lovrit.house.floor import Floor
from lovrit.house.guests import Guests
from lovrit.house.house import House
from lovrit.house.recorded import record_all
from lovrit.house.steady import SteadyClock
from lovrit.settings import Settings
from lovrit.store.database import Database
from lovrit.web.api.routes import router as api
from lovrit.web.bodies import Bodies
from lovrit.web.errors import add_error_pages, too_much
from lovrit.web.guard import Guard
from lovrit.web.pages import environment
from lovrit.web.run.drawn import hearts_drawn
from lovrit.web.screens import SCREENS
from lovrit.web.settle import beside, copy_nightly, describe_all, settle, watch_file
from lovrit.web.shell.routes import router as shell
from lovrit.web.stream.routes import router as stream
from lovrit.web.weeks.series import hold_where_too_much

# so many pages are worked out at once; more would only share the same cores and slow the clocks down
PAGES_AT_ONCE = 6
BUILT = Path(__file__).parent / "static" / "built"
ROUTERS = (api, shell, stream, *(router for screen in SCREENS for router in screen.routers))
# a router that is included has each of its routes made anew, a third of what a new application takes
ROUTES = [route for router in ROUTERS for route in router.routes]


class _Assets(StaticFiles):
    """Styles, scripts and fonts; their address carries their build, so that they may be kept for long."""

    async def get_response(self, path: str, scope: Scope) -> Response:
        response = await super().get_response(path, scope)
        response.headers["Cache-Control"] = "public, max-age=31536000, immutable"
        return response


def create_app(
    settings: Settings, database: Database | None = None, now_ms: Callable[[], int] | None = None
) -> FastAPI:
    """An application on its settings; tests hand over a database and a clock of their own.

    Raises:
        Trouble: if the club's file can't be used.
    """
    steady = SteadyClock()
    now_ms = now_ms or steady
    house = House(
        settings=settings,
        database=database or Database(settings.database),
        templates=environment(_assets_key(), SCREENS),
        now_ms=now_ms,
    )
    house.recorded.append(hold_where_too_much)
    settle(house)
    if settings.passphrase:
        house.guests = Guests(house.database, settings.passphrase.get_secret_value(), now_ms())
        settings = settings.model_copy(
            update={"passphrase": None}
        )  # from here on only its hash is held
        house.settings = settings
    floor = Floor(house, partial(hearts_drawn, house))
    steady.busy = floor.busy

    @asynccontextmanager
    async def lifespan(_app: FastAPI) -> AsyncIterator[None]:
        to_thread.current_default_thread_limiter().total_tokens = PAGES_AT_ONCE
        house.hub.loop = asyncio.get_running_loop()
        floor.open()
        working = [
            asyncio.create_task(asyncio.to_thread(beside, house, one))
            for one in (describe_all, record_all, erase_all, copy_nightly, watch_file)
        ]
        yield
        house.hub.close()
        house.closing.set()
        await floor.close()
        await asyncio.gather(*working)
        house.database.close()

    app = FastAPI(
        title="Lovrit",
        lifespan=lifespan,
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/openapi.json",
        routes=ROUTES,
    )
    app.state.house, app.state.floor = house, floor
    app.mount("/static", _Assets(directory=BUILT, check_dir=False), name="static")
    add_error_pages(app)
    app.add_middleware(GZipMiddleware, minimum_size=600, compresslevel=4)
    app.add_middleware(Bodies, refuse=too_much)
    app.add_middleware(Guard, settings=settings, guests=house.guests, now_ms=now_ms)
    return app


def _assets_key() -> str:
    """A short name for this build of the assets."""
    mark = BUILT / "build.txt"
    return sha256(mark.read_bytes()).hexdigest()[:12] if mark.exists() else "none"
