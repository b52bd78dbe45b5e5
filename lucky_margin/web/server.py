"""Serving the application on this computer."""

import socket
import sqlite3
import sys
import threading
from contextlib import suppress
from pathlib import Path

import uvicorn

from lucky_margin.core.errors import LuckyMarginError
from lucky_margin.store import Store
from lucky_margin.web.app import Settings, create_app

ADDRESS = "127.0.0.1"

SNAPSHOT_SECONDS = 3600
"""How often it is looked whether the day has a copy of the database yet."""

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
        stopped = threading.Event()
        keeping = threading.Thread(target=_keep_snapshots, args=(app.state.shared.store, stopped))
        keeping.start()
        try:
            uvicorn.Server(config).run(sockets=[listener])
        finally:
            stopped.set()
            keeping.join()
    return 0


def _keep_snapshots(store: Store, stopped: threading.Event) -> None:
    """A copy of the database every day, as long as the service runs."""
    while True:
        with suppress(LuckyMarginError, OSError, sqlite3.Error):  # tried again in an hour
            store.take_snapshot()
        if stopped.wait(SNAPSHOT_SECONDS):
            return


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
