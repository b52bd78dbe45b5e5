"""Requests whose body is read by ourselves: a file's bytes, or a whole document."""

from typing import IO, Any

from fastapi import Request
from starlette.concurrency import run_in_threadpool

from lucky_margin.core.errors import BadInput
from lucky_margin.store import full_disk_is_said

BYTES: dict[str, Any] = {
    "requestBody": {
        "required": True,
        "content": {"application/octet-stream": {"schema": {"type": "string", "format": "binary"}}},
    }
}
"""Such a body in the OpenAPI document."""

DOCUMENT: dict[str, Any] = {
    "requestBody": {
        "required": True,
        "content": {"application/json": {"schema": {"$ref": "#/components/schemas/Finish"}}},
    }
}
"""A whole document as the body; it is read off the event loop, so not by FastAPI."""


async def body_into(file: IO[bytes], request: Request) -> None:
    """Write the body to a file, however large it is.

    Raises:
        StorageFull: the disk took no more bytes.
    """
    with full_disk_is_said():
        async for part in request.stream():
            await run_in_threadpool(file.write, part)


async def body_of(request: Request, most: int, too_large: BadInput) -> bytes:
    """The body, refused as soon as it is known to have more than ``most`` bytes.

    Raises:
        BadInput: ``too_large``.
    """
    parts, received = [], 0
    async for part in request.stream():
        received += len(part)
        if received > most:
            raise too_large
        parts.append(part)
    return b"".join(parts)
