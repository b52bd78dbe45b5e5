"""``make screenshots``: one picture of each main view, from the demo data."""

import re
import tempfile
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from demo.seed import seed
from tests.browser.base import ARGUMENTS, CHROMIUM, Service

FOLDER = Path(__file__).parent / "screenshots"


def main() -> None:
    with tempfile.TemporaryDirectory() as data, sync_playwright() as playwright:
        seed(Path(data))
        service = Service(Path(data))
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=ARGUMENTS)
        try:
            page = browser.new_page(viewport={"width": 1280, "height": 800})
            page.goto(service.url)
            shelf(page)
            bench(page)
        finally:
            browser.close()
            service.stop()


def shelf(page: Page) -> None:
    page.get_by_role("button", name="Open Thursday mugs").wait_for()
    keep(page, "shelf")


def bench(page: Page) -> None:
    page.get_by_role("button", name="Open Thursday mugs").click()
    step(page, "Crop")
    keep(page, "bench-crop")
    step(page, "Border")
    keep(page, "bench-border")
    step(page, "Export")
    page.get_by_text(re.compile("reaches it")).wait_for()
    keep(page, "export")


def step(page: Page, name: str) -> None:
    page.locator("button[aria-controls]", has_text=re.compile(rf"^\d{name}")).click()


def keep(page: Page, name: str) -> None:
    page.wait_for_timeout(900)  # until the newest pictures are drawn
    page.screenshot(path=FOLDER / f"{name}.png")


if __name__ == "__main__":
    main()
