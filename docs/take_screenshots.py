"""``make screenshots``: one picture of each main view, from the demo data."""

import re
import tempfile
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from demo.seed import PIECES, seed
from tests.browser.base import ARGUMENTS, CHROMIUM, Service

# All hints but the first one are dismissed.
DISMISS_HINTS = """
    const steps = ['spots', 'tone', 'cut_out', 'treatments', 'border', 'pieces', 'watermark',
        'export']
    localStorage.setItem('lucky-margin-hints-dismissed', JSON.stringify(steps))
"""

ALL_SHOWN = """
    () => [...document.images].every(({ complete, naturalWidth, y }) =>
        (complete && naturalWidth > 0) || y > innerHeight)
"""

FOLDER = Path(__file__).parent / "screenshots"


def main() -> None:
    with tempfile.TemporaryDirectory() as data, sync_playwright() as playwright:
        seed(Path(data))
        service = Service(Path(data))
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=ARGUMENTS)
        try:
            page = browser.new_page(viewport={"width": 1280, "height": 800})
            page.add_init_script(DISMISS_HINTS)
            page.goto(service.url)
            shelf(page)
            bench(page)
            treatments(page)
            frames(page)
            spots(page)
            tone(page)
            cut_out(page)
            words(page)
            badges(page)
            try_out(page)
            house_style(page)
            contact_sheet(page)
        finally:
            browser.close()
            service.stop()


def shelf(page: Page) -> None:
    page.get_by_role("button", name="Open Thursday mugs").wait_for()
    page.wait_for_function(ALL_SHOWN, timeout=60_000)
    keep(page, "shelf")


def bench(page: Page) -> None:
    page.get_by_role("button", name="Open Thursday mugs").click()
    step(page, "Crop")
    keep(page, "bench-crop")
    page.get_by_role("button", name="+ size").click()
    keep(page, "sizes")
    page.keyboard.press("Escape")
    page.get_by_role("button", name="As seen").click()
    page.wait_for_timeout(2500)  # until all sizes are drawn
    keep(page, "proofs-as-seen")
    page.get_by_role("button", name="As seen").click()
    step(page, "Export")
    page.get_by_text(re.compile("is light enough")).wait_for()
    keep(page, "export")


def treatments(page: Page) -> None:
    """A background in print with the ready-made treatments, and a lifted bay of the shelf."""
    page.get_by_role("button", name="Shelf").click()
    page.get_by_role("button", name="Open Bird, in print").click()
    step(page, "Treatments")
    page.wait_for_timeout(8000)  # until all treatments are drawn
    keep(page, "treatments")
    page.get_by_role("button", name=re.compile("^Ready-made ")).click()
    page.get_by_role("button", name="Shelf").click()
    page.get_by_role("button", name="Open Shelf, one bay").click()
    step(page, "Treatments")
    page.get_by_role("button", name=re.compile("^Lifts ")).click()
    page.wait_for_timeout(2500)
    keep(page, "lift")
    page.get_by_role("button", name=re.compile("^Lifts ")).click()


def frames(page: Page) -> None:
    """The finished frames, one of them tried, and the brushed edges."""
    page.get_by_role("button", name="Shelf").click()
    page.get_by_role("button", name="Open Shelf, framed").click()
    step(page, "Border")
    page.get_by_role("button", name=re.compile("^Frames ")).click()
    page.wait_for_timeout(4000)  # until all frames are drawn
    page.get_by_role("radiogroup", name="Frames").get_by_role("radio", name="Oak").hover()
    keep(page, "bench-border")
    page.get_by_role("button", name=re.compile("^Frames ")).click()
    page.get_by_role("button", name="Shelf").click()
    page.get_by_role("button", name="Open Tools, brushed").click()
    step(page, "Border")
    page.get_by_role("button", name="Try them all").click()
    page.wait_for_timeout(5000)  # until all strokes and modes are drawn
    keep(page, "brushed-edges")
    page.keyboard.press("Escape")


def spots(page: Page) -> None:
    """Crumbs of clay on a bench, one being drawn over."""
    page.get_by_role("button", name="Shelf").click()
    page.get_by_role("button", name="Open Bench, wide").click()
    step(page, "Spots")
    page.get_by_label("Brush size, typed").fill("44")
    page.keyboard.press("Enter")
    box = page.locator(".stage img.picture").bounding_box()
    assert box
    for x, y in ((0.472, 0.873), (0.449, 0.842)):
        page.mouse.click(box["x"] + x * box["width"], box["y"] + y * box["height"])
        page.wait_for_timeout(1500)
    page.get_by_role("button", name="show spots (2)").click()
    page.mouse.move(box["x"] + 0.39 * box["width"], box["y"] + 0.88 * box["height"])
    page.mouse.down()
    page.mouse.move(box["x"] + 0.43 * box["width"], box["y"] + 0.87 * box["height"], steps=6)
    keep(page, "spots")
    page.mouse.up()


def tone(page: Page) -> None:
    page.get_by_role("button", name="Shelf").click()
    page.get_by_role("button", name="Open Field behind").click()
    step(page, "Tone")
    page.get_by_role("button", name="Suggest").click()
    page.get_by_role("alert").get_by_role("button", name="Close").last.click()
    keep(page, "bench-tone")
    page.get_by_role("button", name="Split").click()
    page.get_by_role("button", name=re.compile("^Look ")).click()
    page.get_by_role("radio", name="Golden").click()
    page.get_by_role("radiogroup", name="Look").scroll_into_view_if_needed()
    page.get_by_role("heading", name="Proofs").hover()
    page.wait_for_timeout(2500)  # until all looks are drawn
    keep(page, "split")
    page.get_by_role("button", name="Split").click()
    page.get_by_role("button", name=re.compile("^Look ")).click()


def cut_out(page: Page) -> None:
    page.get_by_role("button", name="Shelf").click()
    page.get_by_role("button", name="Open Bird, cut out").click()
    step(page, "Cut-out")
    page.locator(".stage img.picture").wait_for()
    page.wait_for_timeout(3000)  # until the subject is found
    keep(page, "cut-out")
    grounds = page.get_by_role("radiogroup", name="Background, which")
    grounds.get_by_role("radio", name="Paper", exact=True).click()
    ready = page.get_by_role("radiogroup", name="Ready-made outlines")
    ready.get_by_role("radio", name="white").click()
    page.locator(".docket").get_by_text(re.compile("hardly shows")).wait_for()
    page.locator(".docket").get_by_text(re.compile("hardly shows")).scroll_into_view_if_needed()
    page.wait_for_timeout(1500)
    keep(page, "cut-out-outline")


def words(page: Page) -> None:
    """A headline on the stage, hard to read, with its checks."""
    page.get_by_role("button", name="Shelf").click()
    page.get_by_role("button", name="Open Thursday mugs").click()
    step(page, "Text & badges")
    page.locator("[data-piece=text-1]").click()
    page.get_by_label("Letter colour, typed").fill("#C9B89A")
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Make it readable").first.wait_for()
    page.get_by_role("heading", name="Checks").hover()
    keep(page, "words")
    page.get_by_role("button", name="Undo").click()


def badges(page: Page) -> None:
    page.get_by_role("button", name="Shelf").click()
    page.get_by_role("button", name="Open Reactive blue").click()
    step(page, "Text & badges")
    page.get_by_role("button", name="Badge, arrow").click()
    page.get_by_role("button", name="Burst", exact=True).first.click()
    page.locator("[data-piece=badge-2]").wait_for()
    page.get_by_label("Words inside").fill("new")
    page.keyboard.press("Tab")
    page.wait_for_timeout(1500)  # until the pieces of the list are drawn
    piece = page.locator("[data-piece=badge-2]").bounding_box()
    x, y = piece["x"] + piece["width"] / 2, piece["y"] + piece["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 205, y + 125, steps=6)
    keep(page, "badges")
    page.mouse.up()


def house_style(page: Page) -> None:
    """A piece in the house style, its border changed since."""
    page.get_by_role("button", name="Shelf").click()
    page.get_by_role("button", name="Open Tall vase").click()
    step(page, "Border")
    page.get_by_label("Border colour, typed").fill("#DCE5DE")
    page.keyboard.press("Enter")
    page.get_by_role("button", name=re.compile("^House style: ")).click()
    page.get_by_text("You changed what is marked").wait_for()
    page.get_by_role("img", name="This picture in").wait_for()
    keep(page, "house-style")
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Undo").click()


def contact_sheet(page: Page) -> None:
    """The pieces that are in the house style."""
    page.get_by_role("button", name="Shelf").click()
    for name in PIECES:
        page.get_by_label(f"Choose {name}").check()
    page.get_by_role("button", name=f"Contact sheet of {len(PIECES)}").click()
    page.get_by_role("heading", name="Being checked").wait_for(state="detached", timeout=60_000)
    page.wait_for_function(ALL_SHOWN, timeout=60_000)
    keep(page, "contact-sheet")


def try_out(page: Page) -> None:
    """A video's still among others in a list."""
    page.get_by_role("button", name="Shelf").click()
    page.get_by_role("button", name="Open Reactive blue, video").click()
    page.get_by_role("button", name="Try-out").click()
    page.get_by_role("dialog").get_by_role("img", name="Reactive blue, video").wait_for()
    keep(page, "try-out")
    page.keyboard.press("Escape")


def step(page: Page, name: str) -> None:
    page.locator("button[aria-controls]", has_text=re.compile(rf"^\d{name}")).click()
    page.get_by_role("heading", name="Docket").hover()  # or a tip would lie on the stage


def keep(page: Page, name: str) -> None:
    page.wait_for_timeout(900)  # until the newest pictures are drawn
    page.screenshot(path=FOLDER / f"{name}.png")


if __name__ == "__main__":
    main()
