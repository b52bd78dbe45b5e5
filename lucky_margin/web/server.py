"""Serving the application on this computer."""

import gc
import os
import socket
import sqlite3
import sys
import threading
import webbrowser
from contextlib import suppress
from pathlib import Path

import uvicorn

from lucky_margin.core.errors import LuckyMarginError
from lucky_margin.store import Store
from lucky_margin.web.app import Settings, create_app
from lucky_margin.web.guard import TOKEN

ADDRESS = "127.0.0.1"

SNAPSHOT_SECONDS = 3600
"""How often it is looked whether the day has a copy of the database yet."""

SHUTDOWN_SECONDS = 3
"""How long requests that wait for news may hold up the end."""


def serve(
    *,
    data: Path,
    frontend: Path | None,
    port: int,
    memory: int | None = None,
    token: str | None = None,
    browse: bool = False,
) -> int:
    """Serve until stopped; returns the exit code. A taken port is said before anything starts.

    ``memory`` is how many bytes pictures under way may take, ``token`` what a browser has to bring
    (see ``token_guard``); with ``browse`` one is opened where there is a desktop.

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
        app = create_app(Settings(data=data, frontend=frontend, memory=memory, token=token))
        url = f"http://{ADDRESS}:{listener.getsockname()[1]}"
        if token:
            url += f"/?{TOKEN}={token}"
        print(f"Lucky Margin is at {url}  (Ctrl C stops it)", flush=True)
        if browse and _has_desktop():
            webbrowser.open(url)  # the listener takes it until the service answers
        config = uvicorn.Config(
            app,
            log_config=None,
            log_level="warning",
            server_header=False,
            timeout_graceful_shutdown=SHUTDOWN_SECONDS,
        )
        # All that is loaded by now stays. To look through it for garbage takes nearly a tenth of a
        # second, in which no request goes on.
        gc.freeze()
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


def _has_desktop() -> bool:
    """Whether there is a screen on which a browser could open."""
    if sys.platform in ("darwin", "win32"):
        return True
    return bool(os.environ.get("DISPLAY") or os.environ.get("WAYLAND_DISPLAY"))


def _listen(port: int) -> socket.socket:
    # asyncio sends small answers at once (TCP_NODELAY) only where the protocol is named.
    listener = socket.socket(socket.AF_INET, socket.SOCK_STREAM, socket.IPPROTO_TCP)
    listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        listener.bind((ADDRESS, port))
        listener.listen()  # whoever comes before the service is ready waits
    except BaseException:
        listener.close()
        raise
    return listener
