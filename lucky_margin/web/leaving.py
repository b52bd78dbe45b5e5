"""Work whose asker may go away before it is done."""

import asyncio
from collections.abc import Coroutine
from typing import Any, TypeVar

from fastapi import Request

Result = TypeVar("Result")


class GoneAway(Exception):
    """Whoever asked is not there any more."""


async def while_there(request: Request, work: Coroutine[Any, Any, Result]) -> Result:
    """What ``work`` comes to; it is cancelled when the asker goes away first.

    Raises:
        GoneAway: the asker went away.
    """
    working = asyncio.ensure_future(work)
    leaving = asyncio.ensure_future(_left(request))
    try:
        await asyncio.wait({working, leaving}, return_when=asyncio.FIRST_COMPLETED)
        if not working.done():
            raise GoneAway
        return working.result()
    finally:
        working.cancel()
        leaving.cancel()


async def _left(request: Request) -> None:
    """Returns once the connection is closed; the body must have been read."""
    while (await request.receive())["type"] != "http.disconnect":
        pass
