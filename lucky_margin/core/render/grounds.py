"""The grounds of a finish as something to compose with."""

from lucky_margin.core.affine import Affine
from lucky_margin.core.document import (
    BlurredPhoto,
    Box,
    Gradient,
    Ground,
    OtherPhoto,
    SolidColour,
    StockBackdrop,
    ThisPhoto,
)
from lucky_margin.core.framing import Frame, following, laid, whole
from lucky_margin.core.grounds import (
    blurred_cover,
    gradient_over,
    stock_backdrop,
    toned_down,
    working_sides,
)
from lucky_margin.core.render.grid import Grid
from lucky_margin.core.render.laying import pick_level, placed
from lucky_margin.core.render.shown import ShownPhoto, shown_photo
from lucky_margin.core.render.treated import base_treatments, treated_under
from lucky_margin.core.sampling import sample
from lucky_margin.core.scene import Scene, Sources, TakenPhoto
from lucky_margin.core.types import AnyPicture, Picture8, Picture16

_UNIT = Box(left=0, top=0, width=1, height=1)


Fill = str | Picture8 | None
"""What fills a ground: one colour (``#RRGGBB``), a picture of the grid's sides, or nothing."""


def fill_of(ground: Ground, scene: Scene, grid: Grid) -> Fill:
    """``ground`` on ``grid``; grounds of photos cover all of the size. Of no photo, a blurred one
    is nothing.

    Raises:
        NotFound: another photo is not known.
    """
    match ground:
        case SolidColour():
            return ground.colour
        case Gradient():
            return scene.sources.cache.get_or_make(
                ("gradient", ground, grid.columns, grid.rows, grid.region),
                lambda: gradient_over(ground, grid.columns, grid.rows, grid.region),
            )
        case BlurredPhoto():
            return _blurred(ground, scene, grid) if scene.finish.photo else None
        case ThisPhoto():
            return _this_photo(ground, scene, grid) if scene.finish.photo else None
        case StockBackdrop():
            return _stock(ground, scene, grid)
        case OtherPhoto():
            return _other(ground, scene.frame, grid, scene.sources)
    return None


def _blurred(ground: BlurredPhoto, scene: Scene, grid: Grid) -> Picture8:
    frame, sources = scene.frame, scene.sources
    ratio = frame.output.width / frame.output.height
    window = following(scene.focus, frame.photo, ratio)
    mapping = frame.photo.to_photo.after(laid(window, _UNIT))
    photo = shown_photo(scene).whole

    def make() -> Picture16:
        width, height = working_sides(ratio)
        to_photo = mapping.after(Affine(1 / width, 0, 0, 1 / height))
        copy, onto_copy = pick_level(photo, to_photo)
        return blurred_cover(copy, onto_copy, width, height, ground.blur)

    blurred = sources.cache.get_or_make(("blurred", photo.key, mapping, ratio, ground), make)
    rows, columns = blurred.shape[:2]
    return _enlarged(blurred, grid, whole(columns, rows))


def _stock(ground: StockBackdrop, scene: Scene, grid: Grid) -> Picture8:
    width, height = scene.sides
    ratio = width / height
    drawn = scene.sources.cache.get_or_make(
        ("stock", ground, ratio), lambda: stock_backdrop(ground, ratio)
    )
    rows, columns = drawn.shape[:2]
    return _enlarged(drawn, grid, ground.part_of(whole(columns, rows), columns / rows))


def _this_photo(ground: ThisPhoto, scene: Scene, grid: Grid) -> Picture8:
    """The photo with the scene's tone and treatments where it lies; blurred, it is filled behind
    the subject."""
    photo = shown_photo(scene)
    blur = ground.blur if photo.shows == "subject" else 0.0
    shown = photo.behind(blur) if blur else photo.whole
    laid_photo = treated_under(shown, scene, grid, base_treatments(scene))
    return toned_down(laid_photo, ground.grey, ground.light)


def _enlarged(drawn: AnyPicture, grid: Grid, part: Box) -> Picture8:
    """A part of a ground drawn at a working size, over the grid."""
    return sample(
        drawn,
        left=part.left,
        top=part.top,
        step_x=part.width / grid.columns,
        step_y=part.height / grid.rows,
        region=grid.region,
    )


def _other(ground: OtherPhoto, frame: Frame, grid: Grid, sources: Sources) -> Picture8:
    facts = sources.facts(ground.sha256)
    output = whole(frame.output.width, frame.output.height)
    window = ground.part_of(whole(facts.width, facts.height), output.ratio)
    photo = ShownPhoto(TakenPhoto(ground.sha256, sources))
    return placed(photo, laid(window, output).after(grid.to_full), grid.region)
