"""Requests whose body is a file's bytes."""

from typing import Any

from fastapi import Request

from lucky_margin.core.errors import BadInput

BYTES: dict[str, Any] = {
    "requestBody": {
        "required": True,
        "content": {"application/octet-stream": {"schema": {"type": "string", "format": "binary"}}},
    }
}
"""Such a body in the OpenAPI document."""


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
