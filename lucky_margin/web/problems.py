"""Errors as ``application/problem+json`` (RFC 9457): one class, one status, one sentence."""

import logging
from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from starlette.exceptions import HTTPException

from lucky_margin.core.document import Value, describe_invalid
from lucky_margin.core.errors import (
    BadDocument,
    BadInput,
    Conflict,
    FileExists,
    LuckyMarginError,
    NotFound,
    OriginalMissing,
    PhotoInUse,
    StaleSave,
    StorageFull,
    TooLarge,
    UnreadableFont,
    UnreadablePhoto,
    UnreadableTable,
    UnusableFolder,
)

STATUS: dict[type, int] = {
    BadInput: 422,
    UnreadablePhoto: 415,
    UnreadableTable: 415,
    UnreadableFont: 415,
    TooLarge: 413,
    BadDocument: 422,
    NotFound: 404,
    Conflict: 409,
    StaleSave: 412,
    PhotoInUse: 409,
    FileExists: 409,
    OriginalMissing: 410,
    StorageFull: 507,
    UnusableFolder: 503,
}

UNKNOWN = "Something went wrong; nothing was changed. Try again."

HTTP_DETAILS = {
    404: "There is nothing at this address; go back to the shelf.",
    405: "This address can't be used that way; see the API's description.",
}

MEDIA_TYPE = "application/problem+json"

log = logging.getLogger("lucky_margin")


class Problem(Value):
    """What is sent when a request cannot be carried out."""

    type: str = "about:blank"
    title: str
    status: int
    detail: str
    etag: int | None = None
    finishes: list[str] | None = None


def install(app: FastAPI) -> None:
    """Make every foreseen error of ``app`` a problem, and say so in its description."""
    app.add_exception_handler(LuckyMarginError, _known)
    app.add_exception_handler(RequestValidationError, _invalid)
    app.add_exception_handler(HTTPException, _http)


def problem_response(problem: Problem) -> JSONResponse:
    """The answer that tells a problem."""
    return JSONResponse(
        problem.model_dump(exclude_none=True),
        status_code=problem.status,
        media_type=MEDIA_TYPE,
    )


def problem_of(error: Exception) -> Problem:
    """An error as it is told; of one that nobody foresaw nothing of the inside."""
    if not isinstance(error, LuckyMarginError):
        return Problem(title="Unknown", status=500, detail=UNKNOWN)
    return Problem(
        title=type(error).__name__,
        status=status_of(type(error)),
        detail=str(error),
        etag=getattr(error, "etag", None),
        finishes=getattr(error, "finishes", None),
    )


def _known(request: Request, error: Exception) -> JSONResponse:
    return problem_response(problem_of(error))


def _invalid(request: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, RequestValidationError)
    detail = f"{describe_invalid(error.errors()[0], 'The request')}; correct it and send it again."
    return problem_response(Problem(title="BadInput", status=422, detail=detail))


def _http(request: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, HTTPException)
    detail = HTTP_DETAILS.get(error.status_code, f"{error.detail}; check the address.")
    return problem_response(Problem(title="BadRequest", status=error.status_code, detail=detail))


def status_of(kind: type) -> int:
    """The status of an error, or of the nearest class above it that has one."""
    return next(STATUS[parent] for parent in kind.__mro__ if parent in STATUS)


def unforeseen(request: Request, error: Exception) -> JSONResponse:
    """The answer to an error that nobody foresaw."""
    log.error("%s %s failed", request.method, request.url.path, exc_info=error)
    return problem_response(problem_of(error))


def described(openapi: dict[str, Any]) -> dict[str, Any]:
    """An OpenAPI document that says how refusals are really sent: all of them as problems."""
    for path in openapi["paths"].values():
        for operation in path.values():
            responses = operation["responses"]
            responses.pop("422", None)  # FastAPI's own kind, which is never sent
            refusal = responses["default"]["content"]
            refusal[MEDIA_TYPE] = refusal.pop("application/json")
    for unused in ("HTTPValidationError", "ValidationError"):
        openapi["components"]["schemas"].pop(unused, None)
    return openapi
