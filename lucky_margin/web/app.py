"""Putting the service together."""

import threading
from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from dataclasses import dataclass
from pathlib import Path

from fastapi import FastAPI
from fastapi.responses import FileResponse
from starlette.staticfiles import StaticFiles

from lucky_margin import __version__
from lucky_margin.core.warm_up import warm_up
from lucky_margin.web import problems
from lucky_margin.web.app_state import AppState
from lucky_margin.web.guard import guard, token_guard
from lucky_margin.web.routes import (
    badges,
    bench,
    codes,
    drafts,
    exports,
    finishes,
    fonts,
    frames,
    icons,
    jobs,
    library,
    looks,
    marks,
    outlines,
    packages,
    photos,
    shelf,
    sizes,
    styles,
    subjects,
    tables,
    treatments,
    words,
)

ROUTES = (
    photos, finishes, drafts, bench, words, jobs, exports, sizes, looks, outlines, frames, subjects,
    fonts, icons, marks, treatments, badges, library, styles, tables, shelf, codes,
    packages,
)  # fmt: skip


@dataclass(frozen=True)
class Settings:
    """Where an application keeps its data and finds its built front end (None: only the API), how
    many bytes of memory pictures under way may take, and the token that guards it, if any."""

    data: Path
    frontend: Path | None = None
    memory: int | None = None
    token: str | None = None


def create_app(settings: Settings) -> FastAPI:
    """The service on one data folder."""

    @asynccontextmanager
    async def lifespan(app: FastAPI) -> AsyncIterator[None]:
        threading.Thread(target=warm_up, name="warm-up", daemon=True).start()
        yield
        app.state.shared.close()

    app = FastAPI(
        title="Lucky Margin",
        version=__version__,
        summary="Finish single photos at exact pixel sizes.",
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/openapi.json",
        lifespan=lifespan,
        separate_input_output_schemas=False,
        responses={"default": {"model": problems.Problem, "description": "Why it was refused."}},
    )
    app.state.shared = AppState(settings.data, settings.memory)
    problems.install(app)
    if settings.token:
        app.middleware("http")(token_guard(settings.token))
    app.middleware("http")(guard)
    for module in ROUTES:
        app.include_router(module.router, prefix="/api")
    if settings.frontend is not None:
        _serve_frontend(app, settings.frontend)
    describe = app.openapi
    app.openapi = lambda: app.openapi_schema or problems.described(describe())  # type: ignore[method-assign]
    return app


def _serve_frontend(app: FastAPI, folder: Path) -> None:
    app.mount("/assets", StaticFiles(directory=folder / "assets"))

    @app.get("/favicon.svg", include_in_schema=False)
    def favicon() -> FileResponse:
        return FileResponse(folder / "favicon.svg")

    @app.get("/", include_in_schema=False)
    @app.get("/sheet", include_in_schema=False)
    @app.get("/finish/{finish_id}", include_in_schema=False)
    def page(finish_id: str = "") -> FileResponse:
        return FileResponse(folder / "index.html", headers={"Cache-Control": "no-cache"})
