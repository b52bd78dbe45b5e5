"""Figures of the store and of the service as a page uses it."""

import io
import json
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from contextlib import ExitStack, contextmanager
from http.client import HTTPConnection
from itertools import count
from pathlib import Path
from typing import Any

from PIL import Image

from bench.figure import Figure
from bench.material import DEMO_PHOTO
from lucky_margin.core.document import FixedPixels, MarginAnchor, Size, TextPiece, new_finish
from lucky_margin.store import PhotosWanted, Store

_TRIES = 300


def shelf_figures(undo: ExitStack) -> Iterator[Figure]:
    """The first page of finishes, and photos that are looked for: 5,000 against 50."""
    folder = Path(undo.enter_context(tempfile.TemporaryDirectory()))
    few, many = _filled(folder / "few", 50), _filled(folder / "many", 5000)
    for store in (few, many):
        undo.callback(store.close)
    yield Figure(
        "first page of the shelf, 5,000 finishes",
        lambda: (many.finishes.list(), many.finishes.count()),
        lambda: (few.finishes.list(), few.finishes.count()),
        "50 finishes",
        "2",
    )
    wanted = PhotosWanted(search="photo", colour="green")
    yield Figure(
        "50 photos found by name and colour among 5,000",
        lambda: many.photos.page(wanted),
        lambda: few.photos.page(wanted),
        "among 50",
        "2",
    )


def pointer_figures(undo: ExitStack) -> Iterator[Figure]:
    """One move of a pointer that drags a piece, with 30 pieces and 8 sizes: what the page asks of
    the service, against a request that is answered at once."""
    page = undo.enter_context(_service())
    draft = page.send("/drafts", _crowded(page.photo))["draft"]
    page.send("/bench/draft", {"draft": draft, "size_id": "s0"})
    moves = count(1)

    def move() -> None:
        edit = {"kind": "drag_pieces", "ids": ["text-3"], "dx": next(moves) % 200, "dy": 4}
        body = {"draft": draft, "size_id": "s0", "edit": edit, "since": draft}
        page.send("/bench/draft", body)

    before = page.bytes
    move()
    yield Figure(
        "a piece dragged among 30 on 8 sizes",
        move,
        lambda: page.send("/bench/neutral", {}),
        "an empty request",
        f"-; {page.bytes - before} bytes",
    )


# Without the built front end, which another checkout may not have.
_SERVE = """
import sys
from pathlib import Path
from lucky_margin.web.server import serve
serve(data=Path(sys.argv[1]), frontend=None, port=0)
"""


class _Page:
    """What a page sends and gets."""

    def __init__(self, address: str) -> None:
        self._connection = HTTPConnection(address)
        self.bytes = 0
        self.photo = ""

    def send(self, path: str, body: Any) -> Any:
        data = body if isinstance(body, bytes) else json.dumps(body).encode()
        kind = "octet-stream" if isinstance(body, bytes) else "json"
        headers = {"Content-Type": f"application/{kind}"}
        got = self._answer("POST", f"/api{path}", data, headers)
        self.bytes += len(data) + len(got)
        return json.loads(got)

    def _answer(self, *request: Any) -> bytes:
        """The answer's body; the service closes connections that were idle, and starts slowly."""
        for _ in range(_TRIES):
            try:
                self._connection.request(*request)
                return self._connection.getresponse().read()
            except ConnectionError:
                self._connection.close()
                time.sleep(0.1)
        raise SystemExit("The service does not answer.")


@contextmanager
def _service() -> Iterator[_Page]:
    """A service of this checkout in a process of its own, with a photo."""
    with tempfile.TemporaryDirectory() as folder:
        command = [sys.executable, "-c", _SERVE, folder]
        process = subprocess.Popen(
            command, stdin=subprocess.DEVNULL, stdout=subprocess.PIPE, text=True
        )
        try:
            assert process.stdout is not None
            url = process.stdout.readline().split()[4]
            page = _Page(url.removeprefix("http://"))
            page.photo = page.send("/photos?name=mugs.jpg", DEMO_PHOTO.read_bytes())["sha256"]
            yield page
        finally:
            process.terminate()
            process.wait()


def _crowded(photo: str) -> dict[str, Any]:
    """A document with 30 pieces and 8 sizes."""
    pieces = tuple(
        TextPiece(
            id=f"text-{number}",
            text=f"Piece number {number}",
            anchor=MarginAnchor(x=number % 6 / 5, y=number // 6 / 5),
            size=0.04,
        )
        for number in range(30)
    )
    sizes = tuple(
        Size(id=f"s{n}", name=f"Size {n}", pixels=FixedPixels(width=1080 + n, height=1350))
        for n in range(8)
    )
    finish = new_finish(name="many", photo_sha256=photo)
    document: dict[str, Any] = json.loads(
        finish.model_copy(update={"pieces": pieces, "sizes": sizes}).model_dump_json()
    )
    return document


def _filled(folder: Path, count: int) -> Store:
    store = Store(folder)
    buffer = io.BytesIO()
    Image.new("RGB", (64, 64)).save(buffer, "PNG")
    photo, _ = store.photos.add(buffer.getvalue(), "photo.png")
    # One transaction, so that filling is quick.
    with store.finishes._database.write() as connection:
        for number in range(count):
            store.finishes.create(new_finish(name=f"Finish {number}", photo_sha256=photo.sha256))
            connection.execute(
                "INSERT INTO photos SELECT ?, ?, bytes, facts, exif, created_at, ?, ?"
                " FROM photos WHERE sha256 = ?",
                (
                    f"{number:064x}",
                    f"Photo {number}",
                    f"photo {number}",
                    " green grey " if number < 50 else " blue grey ",
                    photo.sha256,
                ),
            )
    return store
