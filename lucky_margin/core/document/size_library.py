"""Sizes by purpose, under neutral names."""

from typing import Literal

from pydantic import Field

from lucky_margin.core.document.covered import Covered, CoveredZone
from lucky_margin.core.document.measures import Printed
from lucky_margin.core.document.overrides import BorderChanges, ExportChanges, Overrides
from lucky_margin.core.document.shapes import PlainShape, Rectangle, Shape
from lucky_margin.core.document.sizes import DEFAULT_SEEN_WIDTH, FixedPixels, Pixels
from lucky_margin.core.document.values import Box, Identifier, Name, PixelSide, Value

Group = Literal["posts", "pages", "small", "paper"]


class SizePlan(Value):
    """A size that can be chosen: what it is called, its pixels, shape and overrides."""

    name: Name
    pixels: Pixels
    shape: Shape = Rectangle()
    seen_width: PixelSide = DEFAULT_SEEN_WIDTH
    in_column: bool = False
    covered: Covered = ()
    overrides: Overrides = Overrides()


class LibrarySize(Value):
    """A size that is offered, and what for."""

    key: Identifier
    group: Group
    purpose: str = Field(max_length=200)
    plan: SizePlan


ROUND = PlainShape(kind="circle")
CUT_OUT = Overrides(border=BorderChanges(on=False), export=ExportChanges(format="png"))
"""What a round picture usually wants: no border, and its corners transparent."""


def _screen(
    key: str, group: Group, name: str, purpose: str, sides: tuple[int, int], seen: int
) -> LibrarySize:
    pixels = FixedPixels(width=sides[0], height=sides[1])
    plan = SizePlan(name=name, pixels=pixels, seen_width=seen)
    return LibrarySize(key=key, group=group, purpose=purpose, plan=plan)


def _paper(key: str, name: str, purpose: str, sides: tuple[float, float]) -> LibrarySize:
    pixels = FixedPixels.on_paper(Printed(width=sides[0], height=sides[1]))
    seen = min(pixels.width, DEFAULT_SEEN_WIDTH)
    plan = SizePlan(name=name, pixels=pixels, seen_width=seen)
    return LibrarySize(key=key, group="paper", purpose=purpose, plan=plan)


def _zone(name: str, left: float, top: float, width: float, height: float) -> CoveredZone:
    return CoveredZone(name=name, box=Box(left=left, top=top, width=width, height=height))


STORY_BARS = (_zone("upper bar", 0, 0, 1, 0.12), _zone("lower bar", 0, 0.86, 1, 0.14))
THUMBNAIL_CLOCK = (_zone("clock", 0.84, 0.84, 0.14, 0.12),)
BANNER_PICTURE = (
    _zone("round picture", 0.03, 0.52, 0.14, 0.42).model_copy(update={"round": True}),
)
"""What is often laid over such sizes, made up: nobody's own measures."""


def _with(size: LibrarySize, **fields: object) -> LibrarySize:
    """The same size with other fields in its plan."""
    return size.model_copy(update={"plan": size.plan.model_copy(update=fields)})


SIZE_LIBRARY: tuple[LibrarySize, ...] = (
    _screen("square-post", "posts", "Square post", "a post in a feed", (1080, 1080), 600),
    _screen("tall-post", "posts", "Tall post", "fills more of a feed", (1080, 1350), 600),
    _with(
        _screen("story", "posts", "Story", "a full upright screen", (1080, 1920), 400),
        covered=STORY_BARS,
    ),
    _with(
        _screen("video-thumbnail", "posts", "Video thumbnail", "a video's still", (1280, 720), 320),
        covered=THUMBNAIL_CLOCK,
    ),
    _screen("link-card", "posts", "Link card", "the picture of a shared link", (1200, 630), 500),
    _with(
        _screen("wide-banner", "pages", "Wide banner", "the head of a page", (1500, 500), 600),
        covered=BANNER_PICTURE,
    ),
    _screen("tall-banner", "pages", "Tall banner", "the side of a page", (600, 1200), 300),
    _with(
        _screen("page-header", "pages", "Page header", "above a column", (1200, 400), 1200),
        in_column=True,
    ),
    _screen("shop-picture", "pages", "Shop picture", "a product for sale", (1600, 1600), 600),
    _with(
        _screen("round-avatar", "small", "Round avatar", "beside a name", (400, 400), 96),
        shape=ROUND,
        overrides=CUT_OUT,
    ),
    _screen("list-thumbnail", "small", "List thumbnail", "in a list of many", (300, 300), 96),
    _with(
        _paper("round-sticker", "Round sticker", "on boxes and bags", (50, 50)),
        shape=ROUND,
        overrides=CUT_OUT,
    ),
    _paper("square-sticker", "Square sticker", "on boxes and bags", (40, 40)),
    _paper("label", "Label", "on jars and parcels", (70, 40)),
    _paper("small-print", "Small print", "a photo to hand over", (150, 100)),
    _paper("postcard", "Postcard", "a card by post (A6)", (148, 105)),
)
