"""The real interface in Debian's Chromium against the real service."""

import base64
import io
import re
import socket
import subprocess
import sys
import tempfile
import unittest
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

import numpy as np
from numpy.typing import NDArray
from PIL import Image
from playwright.sync_api import (
    Browser,
    BrowserContext,
    ConsoleMessage,
    Page,
    Request,
    Route,
    WebError,
    expect,
    sync_playwright,
)

from tests.support import DEMO_PHOTOS

CHROMIUM = "/usr/bin/chromium"

# No sandbox, since CI runs as root; no background network, since there is none.
ARGUMENTS = [
    *("--headless", "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run"),
    *("--disable-background-networking", "--disable-component-update", "--disable-sync"),
]

NOTE_VIOLATIONS = """
    window.violations = [];
    addEventListener('securitypolicyviolation', (event) => violations.push(event.blockedURI));
"""

DROP = """
    ([files, kind]) => {
        const transfer = new DataTransfer();
        for (const [name, type, data] of files) {
            transfer.items.add(new File([Uint8Array.fromBase64(data)], name, { type }));
        }
        const options = { bubbles: true, cancelable: true };
        document.body.dispatchEvent(kind === 'drop'
            ? new DragEvent('drop', { ...options, dataTransfer: transfer })
            : new ClipboardEvent('paste', { ...options, clipboardData: transfer }));
    }
"""

WAIT = 120_000
expect.set_options(timeout=WAIT)


class Service:
    """The service as `make demo` starts it, on a free port and a data folder of its own."""

    def __init__(self, data: Path) -> None:
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            self.port = probe.getsockname()[1]
        self.data = data
        self.url = f"http://127.0.0.1:{self.port}"
        self.start()

    def start(self) -> None:
        command = [sys.executable, "-m", "lucky_margin.cli", "serve"]
        command += ["--port", str(self.port), "--data", str(self.data)]
        self.process = subprocess.Popen(command, stdout=subprocess.PIPE, text=True)
        said = self.process.stdout.readline()
        if self.url not in said:
            raise RuntimeError(f"the service did not start: {said!r}")

    def stop(self) -> None:
        self.process.terminate()
        self.process.wait(60)  # what is under way is finished first
        self.process.stdout.close()


_running: dict[str, tuple[Service, Browser, BrowserContext]] = {}
"""What the tests of a module share, since it starts slowly."""

WINDOW = {"width": 1280, "height": 800}


class BrowserTest(unittest.TestCase):
    """One service, one browser and one page for a module; each test finds the application freshly
    loaded and nothing stored by those before it. Opening a page takes three times as long as
    loading the application, so a test that needs another one (``add_init_script``, say) takes a
    ``new_page``."""

    @classmethod
    def setUpClass(cls) -> None:
        if cls.__module__ not in _running:
            _running[cls.__module__] = cls.start_all()
        cls.service, cls.browser, cls.context = _running[cls.__module__]

    @classmethod
    def start_all(cls) -> tuple[Service, Browser, BrowserContext]:
        folder = tempfile.TemporaryDirectory()
        unittest.addModuleCleanup(folder.cleanup)
        service = Service(Path(folder.name))
        unittest.addModuleCleanup(service.stop)
        playwright = unittest.enterModuleContext(sync_playwright())
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=ARGUMENTS)
        unittest.addModuleCleanup(browser.close)
        unittest.addModuleCleanup(_running.pop, cls.__module__)
        context = new_context(browser)
        context.new_page()
        return service, browser, context

    def setUp(self) -> None:
        self.errors: list[str] = []
        self.note_errors(self.context)
        self.addCleanup(self.leave_shared)
        self.page = self.context.pages[0]
        self.page.goto(f"{self.service.url}/favicon.svg")
        self.page.evaluate("localStorage.clear(); sessionStorage.clear()")
        self.page.goto(self.service.url)
        expect(self.page.get_by_role("heading", name="Add a photo")).to_be_visible()

    def leave_shared(self) -> None:
        """The shared context and its page as they were before the test."""
        page, *others = self.context.pages
        for other in others:
            other.close()
        page.unroute_all(behavior="ignoreErrors")
        page.goto("about:blank")
        page.mouse.up()
        page.mouse.move(0, 0)
        page.set_viewport_size(WINDOW)
        self.context.clear_permissions()
        self.context.remove_listener("weberror", self.note_error)
        self.context.remove_listener("console", self.note_console)

    def new_page(self, **options: Any) -> Page:
        """A page of a context of its own; ``options`` are those of the context."""
        context = new_context(self.browser, **options)
        self.addCleanup(context.close)
        self.note_errors(context)
        return context.new_page()

    def note_errors(self, context: BrowserContext) -> None:
        context.on("weberror", self.note_error)
        context.on("console", self.note_console)

    def note_error(self, found: WebError) -> None:
        self.errors.append(str(found.error))

    def note_console(self, message: ConsoleMessage) -> None:
        """The page's own errors; refused requests, which the browser logs too, are none."""
        if message.type == "error" and "Failed to load resource" not in message.text:
            self.errors.append(message.text)

    def tearDown(self) -> None:
        for page in self.page.context.pages:
            self.assertEqual(page.evaluate("window.violations"), [], "content policy reports")
        self.assertEqual(self.errors, [], "errors on the page")

    def bring(self, *names: str, kind: str = "drop") -> None:
        """Drop (or paste) demo photos on the page."""
        self.bring_data(*((name, (DEMO_PHOTOS / name).read_bytes()) for name in names), kind=kind)

    def bring_data(self, *files: tuple[str, bytes], kind: str = "drop") -> None:
        packed = [
            (name, "image/png" if name.endswith("png") else "image/jpeg",
             base64.b64encode(data).decode())
            for name, data in files
        ]  # fmt: skip
        self.page.evaluate(DROP, [packed, kind])

    def open_finish_of(self, name: str) -> None:
        """Bring a demo photo and wait until it lies on the bench with Crop open."""
        self.bring(name)
        self.on_bench()

    def on_bench(self) -> None:
        expect(self.page.get_by_role("img", name=re.compile("photo|picture"))).to_be_visible()

    def step(self, name: str) -> None:
        """Open a step of the docket."""
        line = self.page.locator("button[aria-controls]", has_text=re.compile(f"^\\d{name}"))
        if line.get_attribute("aria-expanded") == "false":
            line.click()
        expect(line).to_have_attribute("aria-expanded", "true")

    def button(self, name, **options):
        """A button, or a choice of a group that excludes the others."""
        buttons = self.page.get_by_role("button", name=name, **options)
        return buttons.or_(self.page.get_by_role("radio", name=name, **options))

    def fold(self, name: str) -> None:
        """Open a part of the open step."""
        head = self.page.get_by_role("region", name="Docket").get_by_role(
            "button", name=re.compile(f"^{name} ")
        )
        if head.get_attribute("aria-expanded") == "false":
            head.click()

    def use_size(self, name: str) -> None:
        """Make the size in hand another one of the list."""
        with self.one_change():
            self.page.get_by_role("button", name="Choose a size").click()
            self.choose_size(name)

    def add_size(self, name: str) -> None:
        with self.one_change():
            self.page.get_by_role("button", name="+ size").click()
            self.choose_size(name)

    def choose_size(self, name: str) -> None:
        dialog = self.page.get_by_role("dialog")
        dialog.get_by_role("button", name=name).click()
        expect(dialog).to_be_hidden()

    def proof(self, name: str):
        """The proof of a size, which takes it in hand."""
        proofs = self.page.get_by_role("complementary")
        return proofs.locator("button.proof", has_text=name)

    def work_on(self, name: str) -> None:
        self.proof(name).click()
        expect(self.proof(name)).to_have_attribute("aria-pressed", "true")

    def field(self, label: str):
        return self.page.get_by_label(label, exact=True)

    def type_in(self, label: str, text: str) -> None:
        self.field(label).fill(text)
        self.field(label).press("Enter")

    def changes(self) -> int:
        """How many changes of the finish are saved."""
        text = self.page.locator("header .state").text_content() or ""
        found = re.search(r"change (\d+)", text)
        return int(found.group(1)) if found else 0

    @contextmanager
    def one_change(self) -> Iterator[None]:
        """What is done in this block becomes one saved change; waits until it is."""
        expect(self.page.locator("header .state")).to_have_text(re.compile("^saved"))
        expected = self.changes() + 1
        yield
        try:
            expect(self.page.locator("header .state")).to_have_text(f"saved · change {expected}")
        except AssertionError as error:
            raise AssertionError(f"{error}\nLast changes: {self.last_changes()}") from error

    @contextmanager
    def held_back(self, address: str) -> Iterator[None]:
        """What is asked of ``address`` in this block is answered after it, so that what shows
        meanwhile can be looked at."""
        held: list[Route] = []
        holds = True
        self.page.route(address, lambda route: held.append(route) if holds else route.continue_())
        yield
        holds = False  # one may come while the others are let go
        for route in held:
            route.continue_()
        self.page.unroute(address)

    def saved_file(self, button: str = "Save this size") -> tuple[str, bytes]:
        """The name and the bytes of the file that a button of Export saves."""
        save = self.button(button)
        expect(save).to_be_enabled()
        with self.page.expect_download() as caught:
            save.click()
        return caught.value.suggested_filename, Path(caught.value.path()).read_bytes()

    def saved_picture(self, back_to: str) -> NDArray[np.int64]:
        """The pixels of the file that is saved of the size in hand, from another step."""
        self.step("Export")
        _, data = self.saved_file()
        self.step(back_to)
        return np.asarray(Image.open(io.BytesIO(data)).convert("RGB")).astype(np.int64)

    def last_changes(self) -> list[str]:
        """The newest changes of the finish by their names, as the service has them."""
        finish = self.page.url.rsplit("/", 1)[-1]
        answer = self.page.request.get(f"{self.service.url}/api/finishes/{finish}/revisions")
        return [change["label"] for change in answer.json()["revisions"][:4]]

    def wait_until(self, holds: Callable[[], bool]) -> None:
        """Wait until something about the page holds."""
        for _ in range(WAIT // 50):
            if holds():
                return
            self.page.wait_for_timeout(50)
        self.fail("waited in vain")

    def requests(self) -> list[str]:
        """What the page asks the service for from now on; pictures by the place that shows them."""
        asked: list[str] = []

        def note(request: Request) -> None:
            path = request.url.removeprefix(f"{self.service.url}/api")
            if path == request.url:
                return  # a picture that came already
            body = request.post_data_json if path == "/bench/preview" else {}
            asked.append(f"{path} {body.get('place', '')}".strip())

        self.page.on("request", note)
        return asked

    def asked_in_a_drag(self, x: float, y: float) -> set[str]:
        """What the page asks for while something at ``x``, ``y`` is dragged and rests."""
        page = self.page
        page.mouse.move(x, y)
        asked = self.requests()
        known = -1
        while known != len(asked):  # what was asked for before is answered
            known = len(asked)
            page.wait_for_timeout(1500)
        asked.clear()
        with self.one_change():
            page.mouse.down()
            for step in range(12):
                page.mouse.move(x + 2 * step, y)
            page.wait_for_timeout(800)  # resting is no letting go
            during = set(asked)
            page.mouse.up()
        return during

    def drag(
        self, start: tuple[float, float], by: tuple[float, float], *, drop: bool = True
    ) -> None:
        mouse = self.page.mouse
        mouse.move(*start)
        mouse.down()
        for part in (0.3, 0.7, 1.0):
            mouse.move(start[0] + by[0] * part, start[1] + by[1] * part)
        if drop:
            mouse.up()

    def middle(self, locator) -> tuple[float, float]:
        box = locator.bounding_box()
        return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2


def new_context(browser: Browser, **options: Any) -> BrowserContext:
    """A window of its own storage, with what tests need in each of its pages."""
    context = browser.new_context(**({"viewport": WINDOW} | options))
    context.set_default_timeout(WAIT)
    context.add_init_script(NOTE_VIOLATIONS)
    return context


def axe_source() -> str:
    return Path("frontend/node_modules/axe-core/axe.min.js").read_text()
