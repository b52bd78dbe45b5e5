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
            shape(page)
            tone(page)
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
    page.get_by_role("button", name="+ size").click()
    keep(page, "sizes")
    page.keyboard.press("Escape")
    step(page, "Border")
    keep(page, "bench-border")
    page.get_by_role("button", name="as seen").click()
    page.get_by_role("button", name="Video thumbnail").scroll_into_view_if_needed()
    keep(page, "proofs-as-seen")
    page.get_by_role("button", name="small again").click()
    step(page, "Export")
    page.get_by_text(re.compile("reaches it")).wait_for()
    keep(page, "export")
    page.get_by_role("button", name="Save several").click()
    with page.expect_download():
        page.get_by_role("button", name="Save 5 sizes").click()
    keep(page, "export-several")
    page.keyboard.press("Escape")


def shape(page: Page) -> None:
    page.get_by_role("button", name="Shelf").click()
    page.get_by_role("button", name="Open Bowl avatar").click()
    step(page, "Crop")
    page.get_by_role("button", name=re.compile("^Shape ")).click()
    keep(page, "bench-shape")


def tone(page: Page) -> None:
    page.get_by_role("button", name="Shelf").click()
    page.get_by_role("button", name="Open Field behind").click()
    step(page, "Tone")
    page.get_by_role("button", name="propose").click()
    page.get_by_role("button", name="Dismiss").click()
    keep(page, "bench-tone")
    page.get_by_role("button", name="Split").click()
    page.get_by_role("button", name=re.compile("^Look ")).click()
    page.get_by_role("button", name="Golden").click()
    page.get_by_role("group", name="Look").scroll_into_view_if_needed()
    page.get_by_role("heading", name="Proofs").hover()
    page.wait_for_timeout(2500)  # until all looks are drawn
    keep(page, "split")


def step(page: Page, name: str) -> None:
    page.locator("button[aria-controls]", has_text=re.compile(rf"^\d{name}")).click()


def keep(page: Page, name: str) -> None:
    page.wait_for_timeout(900)  # until the newest pictures are drawn
    page.screenshot(path=FOLDER / f"{name}.png")


if __name__ == "__main__":
    main()
