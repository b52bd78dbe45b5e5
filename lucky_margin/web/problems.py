"""Errors as ``application/problem+json`` (RFC 9457): one class, one status, one sentence."""

import logging

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from starlette.exceptions import HTTPException

from lucky_margin.core.document import Value
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
)

STATUS: dict[type[LuckyMarginError], int] = {
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
}

UNKNOWN = "Something went wrong here that should not; nothing was changed. Try again."

HTTP_DETAILS = {
    404: "There is nothing at this address; go back to the shelf.",
    405: "This address can't be used that way; see the API's description.",
}

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
    """Make every error of ``app`` a problem; an unknown one tells nothing of the inside."""
    app.add_exception_handler(LuckyMarginError, _known)
    app.add_exception_handler(RequestValidationError, _invalid)
    app.add_exception_handler(HTTPException, _http)
    app.add_exception_handler(Exception, _unknown)


def problem_response(problem: Problem) -> JSONResponse:
    return JSONResponse(
        problem.model_dump(exclude_none=True),
        status_code=problem.status,
        media_type="application/problem+json",
    )


def _known(request: Request, error: Exception) -> JSONResponse:
    return problem_response(
        Problem(
            title=type(error).__name__,
            status=STATUS[type(error)],  # type: ignore[index] # only LuckyMarginError comes here
            detail=str(error),
            etag=getattr(error, "etag", None),
            finishes=getattr(error, "finishes", None),
        )
    )


def _invalid(request: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, RequestValidationError)
    first = error.errors()[0]
    place = ".".join(str(part) for part in first["loc"] if part != "body") or "The request"
    message = str(first["msg"]).removeprefix("Value error, ")
    detail = f"{place}: {message}; correct it and send it again."
    return problem_response(Problem(title="BadInput", status=422, detail=detail))


def _http(request: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, HTTPException)
    detail = HTTP_DETAILS.get(error.status_code, f"{error.detail}; check the address.")
    return problem_response(Problem(title="BadRequest", status=error.status_code, detail=detail))


def _unknown(request: Request, error: Exception) -> JSONResponse:
    log.error("%s %s failed", request.method, request.url.path, exc_info=error)
    return problem_response(Problem(title="Unknown", status=500, detail=UNKNOWN))
