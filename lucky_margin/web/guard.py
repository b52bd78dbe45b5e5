"""What keeps the local service local: Host and Origin checks and a strict content policy."""

import secrets
from collections.abc import Awaitable, Callable
from urllib.parse import urlsplit

from fastapi import Request, Response
from fastapi.responses import RedirectResponse

from lucky_margin.web.problems import Problem, problem_response, unforeseen

MAX_JSON_BYTES = 1_000_000
"""Of a request in JSON."""

OWN_BODIES = frozenset({"/api/drafts"})
"""Where JSON is read, and limited, by the route."""

LOCAL_HOSTS = frozenset({"127.0.0.1", "localhost", "[::1]"})

# Element Plus sets style attributes on elements; blob: and data: are our own previews and icons.
CONTENT_POLICY = "; ".join(
    (
        "default-src 'none'",
        "script-src 'self'",
        "style-src 'self' 'unsafe-inline'",
        "img-src 'self' blob: data:",
        "font-src 'self'",
        "connect-src 'self'",
        "base-uri 'none'",
        "form-action 'none'",
        "frame-ancestors 'none'",
    )
)

HEADERS = {
    "Content-Security-Policy": CONTENT_POLICY,
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "no-referrer",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
}

TOKEN, COOKIE = "token", "lucky-margin-token"

Next = Callable[[Request], Awaitable[Response]]


async def guard(request: Request, call_next: Next) -> Response:
    """Refuse requests for other hosts or from other origins, and mark every answer.

    An error that nobody foresaw becomes its answer here, so that this one is marked too.
    """
    refusal = _refusal(request)
    try:
        response = problem_response(refusal) if refusal else await call_next(request)
    except Exception as error:
        response = unforeseen(request, error)
    response.headers.update(HEADERS)
    return response


def token_guard(token: str) -> Callable[[Request, Next], Awaitable[Response]]:
    """Let only those in who come with the token once, at an address that ends in ``?token=``; the
    browser then brings it along as a cookie. So other users of the same computer stay outside.
    """

    async def let_in(request: Request, call_next: Next) -> Response:
        brought = request.query_params.get(TOKEN, "")
        if secrets.compare_digest(brought.encode(), token.encode()):
            page = RedirectResponse(request.url.path, status_code=303)
            page.set_cookie(COOKIE, token, httponly=True, samesite="strict")
            return page
        if secrets.compare_digest(request.cookies.get(COOKIE, "").encode(), token.encode()):
            return await call_next(request)
        detail = "This shelf is guarded; open the address that “lucky-margin serve” printed."
        return problem_response(Problem(title="NoToken", status=401, detail=detail))

    return let_in


def _refusal(request: Request) -> Problem | None:
    host = request.headers.get("host", "")
    if _without_port(host) not in LOCAL_HOSTS:
        detail = "This service answers on this computer only; open it at 127.0.0.1."
        return Problem(title="WrongHost", status=421, detail=detail)
    origin = request.headers.get("origin")
    if origin is not None and _host_of(origin) != host:
        detail = "Another site tried to use this service; open it in a tab of its own."
        return Problem(title="WrongOrigin", status=403, detail=detail)
    return None if request.url.path in OWN_BODIES else _oversized(request)


def _oversized(request: Request) -> Problem | None:
    """A body that FastAPI would read whole, and check on the event loop, has to say how long it is
    and not to be too long."""
    if not request.headers.get("content-type", "").startswith("application/json"):
        return None
    length = request.headers.get("content-length", "")
    if not length.isdecimal():
        detail = "A request in JSON has to say how long it is; send it with its Content-Length."
        return Problem(title="LengthRequired", status=411, detail=detail)
    if int(length) > MAX_JSON_BYTES:
        detail = f"A request has at most {MAX_JSON_BYTES // 1_000_000} MB; ask for less at once."
        return Problem(title="TooLarge", status=413, detail=detail)
    return None


def _without_port(host: str) -> str:
    return host.rsplit(":", 1)[0] if not host.endswith("]") else host


def _host_of(origin: str) -> str | None:
    """The host and port of an origin; None when it is malformed."""
    try:
        return urlsplit(origin).netloc
    except ValueError:
        return None
