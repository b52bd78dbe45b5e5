"""Serving the application on this computer."""

import socket
import sys
from pathlib import Path

import uvicorn

from lucky_margin.web.app import Settings, create_app

ADDRESS = "127.0.0.1"

SHUTDOWN_SECONDS = 3
"""How long requests that wait for news may hold up the end."""


def serve(*, data: Path, frontend: Path, port: int) -> int:
    """Serve until stopped; returns the exit code. A taken port is said before anything starts.

    Raises:
        UnusableFolder: the data folder is a newer version's, or another process holds it.
    """
    try:
        listener = _listen(port)
    except (OSError, OverflowError):
        print(
            f"Port {port} is already in use; stop what uses it or set PORT to another.",
            file=sys.stderr,
        )
        return 2
    with listener:
        app = create_app(Settings(data=data, frontend=frontend))
        url = f"http://{ADDRESS}:{listener.getsockname()[1]}"
        print(f"Lucky Margin is at {url}  (Ctrl C stops it)", flush=True)
        config = uvicorn.Config(
            app,
            log_config=None,
            log_level="warning",
            server_header=False,
            timeout_graceful_shutdown=SHUTDOWN_SECONDS,
        )
        uvicorn.Server(config).run(sockets=[listener])
    return 0


def _listen(port: int) -> socket.socket:
    # asyncio sends small answers at once (TCP_NODELAY) only where the protocol is named.
    listener = socket.socket(socket.AF_INET, socket.SOCK_STREAM, socket.IPPROTO_TCP)
    listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        listener.bind((ADDRESS, port))
    except BaseException:
        listener.close()
        raise
    return listener
