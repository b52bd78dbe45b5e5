"""Reveals: animations from the plain photo to its lifts, one after the other.

Only the pictures between which it goes are rendered; what is seen at a moment is one of them over
the other, as far as it has come. A GIF's pictures are brought to one palette once, and then pixels
change from one to the other by the pattern of the dither, so what stands still does not flicker.
"""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

import cv2
import numpy as np
from numpy.typing import NDArray
from PIL import Image

from lucky_margin.core.document import Lifts, LiftsChanges, Reveal, rgb_of
from lucky_margin.core.errors import BadInput
from lucky_margin.core.export.encode import carried
from lucky_margin.core.export.export import ExportedFile
from lucky_margin.core.export.file_names import file_names
from lucky_margin.core.export.metadata import metadata_of
from lucky_margin.core.export.names import safe_stem
from lucky_margin.core.export.weight import BYTES_PER_KB, Encoded, best_under
from lucky_margin.core.photos.profiles import srgb_profile
from lucky_margin.core.progress import Progress, part_of, untold
from lucky_margin.core.render import render
from lucky_margin.core.render.compose import with_alpha
from lucky_margin.core.render.layers import flatten_colour
from lucky_margin.core.sampling import dither_pattern
from lucky_margin.core.saving import saved
from lucky_margin.core.scene import Scene
from lucky_margin.core.types import Picture8

Floats = NDArray[np.float32]

MOMENT_MS = 50
"""Between two pictures of the animation: GIF knows only hundredths of a second."""

FIRST_MS = 600
"""How long the plain photo stays."""

MOST_PIXELS = 8_000_000
"""Of each picture of an animation."""

SOFT = 0.12
"""Of the way: over how much of it an edge that comes in is soft."""

DRAWN = 0.3
"""Share of the work that is done when all pictures are rendered."""

PALETTES = (256, 128, 64, 32)
"""Colours that a GIF may have, most first: fewer make it lighter."""

LOOKED_AT = 120_000
"""Pixels by which a palette is found."""

ROUNDS = 2
"""Of k-means by which a palette's colours are bettered."""

METHOD = 2
"""How hard WebP tries, 0 to 6; above this it takes twice as long for a few percent."""


@dataclass(frozen=True)
class Moment:
    """How far (0..1) one picture has come over the one before it, and how long it stays so."""

    picture: int
    share: float
    milliseconds: int


def moments_of(reveal: Reveal, lifts: int) -> list[Moment]:
    """Every moment of an animation of so many lifts; its pictures are the plain photo (0) and what
    it is after each lift."""
    steps = max(1, round(1000 * reveal.seconds / MOMENT_MS))
    moments = [Moment(0, 1, FIRST_MS)]
    for number in range(1, lifts + 1):
        moments += [Moment(number, _eased((step + 1) / steps), MOMENT_MS) for step in range(steps)]
    pause = max(MOMENT_MS, round(1000 * reveal.pause / MOMENT_MS) * MOMENT_MS)
    return [*moments[:-1], replace(moments[-1], milliseconds=pause)]


def export_reveal(scene: Scene, progress: Progress = untold) -> ExportedFile:
    """The reveal of a size as an animated file, under its weight cap if it can be.

    Raises:
        BadInput: nothing is lifted, or the size is too large for an animation.
        Cancelled: by ``progress``.
        NotFound, OriginalMissing: the photo is not to be had.
    """
    wanted = scene.finish.export_of(scene.size)
    count = len(scene.lifts.seen)
    if not count:
        raise BadInput("Nothing is lifted, so there is nothing to reveal; lift a part first.")
    width, height = scene.sides
    if width * height > MOST_PIXELS:
        raise BadInput(
            f"An animation has {MOST_PIXELS // 1_000_000} megapixels at most; ask for fewer pixels."
        )
    pictures = []
    for number in range(count + 1):
        progress(DRAWN * number / (count + 1))
        pictures.append(render(_with_lifts(scene, number)))
    moments = moments_of(wanted.reveal, count)
    encoding = part_of(progress, DRAWN, 1)
    if wanted.reveal.format == "gif":
        encoded = _as_gif(scene, pictures, moments, encoding)
    else:
        encoded = _as_webp(scene, pictures, moments, encoding)
    stem = file_names(scene.finish, scene.facts)[scene.size.id].rpartition(".")[0]
    return ExportedFile(
        data=encoded.data,
        file_name=f"{safe_stem(stem)}-reveal.{wanted.reveal.format}",
        image_format=wanted.reveal.format,
        width=width,
        height=height,
        quality=encoded.quality,
        max_kb=wanted.max_kb,
    )


def share_over(way: str, share: float, width: int, height: int) -> Floats:
    """How much (0..1) of each pixel is the picture that comes in, after ``share`` of its way; shape
    (height, width)."""
    if way == "fade" or share >= 1:
        return np.full((height, width), share, np.float32)
    along = np.linspace(0, 1, width if way == "side" else height, dtype=np.float32)
    if way == "below":
        along = along[::-1]
    come = np.clip((share * (1 + SOFT) - along) / np.float32(SOFT), 0, 1)
    line = come[None, :] if way == "side" else come[:, None]
    return np.ascontiguousarray(np.broadcast_to(line, (height, width)), np.float32)


def _eased(share: float) -> float:
    """Slow at both ends."""
    return share * share * (3 - 2 * share)


def _with_lifts(scene: Scene, count: int) -> Scene:
    """The scene with its first lifts only; with none, its base is not toned down either."""
    lifts = scene.lifts
    kept = Lifts(base=lifts.base, lifted=lifts.seen[:count]) if count else Lifts()
    changes = LiftsChanges(base=kept.base, lifted=kept.lifted)
    return replace(scene, size=scene.size.with_overrides(lifts=changes))


def _as_webp(
    scene: Scene, pictures: Sequence[Picture8], moments: Sequence[Moment], progress: Progress
) -> Encoded:
    wanted = scene.finish.export_of(scene.size)

    def encode_at(quality: int) -> bytes:
        frames = (Image.fromarray(one) for one in _mixed(wanted.reveal.way, pictures, moments))
        options = {"quality": quality, "method": METHOD, "icc_profile": srgb_profile()}
        options |= carried(metadata_of(wanted, scene.facts), "webp")
        return _animated(frames, "WEBP", moments, options)

    if wanted.max_kb is None:
        return Encoded(encode_at(wanted.quality), wanted.quality)
    return best_under(wanted.max_kb, encode_at, progress)


def _mixed(way: str, pictures: Sequence[Picture8], moments: Sequence[Moment]) -> Iterator[Picture8]:
    """Each moment's picture."""
    some_are_clear = any(picture.shape[2] == 4 for picture in pictures)
    alike = [with_alpha(picture) for picture in pictures] if some_are_clear else pictures
    height, width = alike[0].shape[:2]
    for moment in moments:
        if moment.share >= 1:
            yield alike[moment.picture]
            continue
        above = share_over(way, moment.share, width, height)
        below, over = alike[moment.picture - 1], alike[moment.picture]
        mixed = cv2.blendLinear(over, below, above, 1 - above)
        yield np.asarray(mixed, np.uint8)


def _as_gif(
    scene: Scene, pictures: Sequence[Picture8], moments: Sequence[Moment], progress: Progress
) -> Encoded:
    """With as many colours as its weight cap leaves."""
    wanted = scene.finish.export_of(scene.size)
    flat = [_flattened(picture, flatten_colour(scene)) for picture in pictures]
    encoded = Encoded(b"", 0)
    for number, colours in enumerate(PALETTES):
        progress(number / len(PALETTES))
        indexed, palette = _on_one_palette(flat, colours)
        frames = _stippled(wanted.reveal.way, indexed, palette, moments)
        data = _animated(frames, "GIF", moments, {"optimize": False})
        encoded = Encoded(data, 100 * colours // PALETTES[0])
        if wanted.max_kb is None or len(data) <= wanted.max_kb * BYTES_PER_KB:
            break
    return encoded


def _flattened(picture: Picture8, colour: str) -> Image.Image:
    image = Image.fromarray(picture)
    if picture.shape[2] == 3:
        return image
    ground = Image.new("RGBA", image.size, (*rgb_of(colour), 255))
    return Image.alpha_composite(ground, image).convert("RGB")


def _on_one_palette(
    pictures: Sequence[Image.Image], colours: int
) -> tuple[list[NDArray[np.uint8]], list[int]]:
    """All pictures in the same few colours, as numbers of those, dithered by Floyd and Steinberg's
    method. Where a picture is the same as the one before it, so are its numbers."""
    together = np.vstack([np.asarray(picture) for picture in pictures])
    step = max(1, round(math.sqrt(together.size / 3 / LOOKED_AT)))
    sampled = np.ascontiguousarray(together[::step, ::step])
    shared = Image.fromarray(sampled).quantize(
        colours, method=Image.Quantize.MEDIANCUT, kmeans=ROUNDS
    )
    indexed: list[NDArray[np.uint8]] = []
    for number, picture in enumerate(pictures):
        found = np.asarray(picture.quantize(palette=shared, dither=Image.Dither.FLOYDSTEINBERG))
        if number:
            before = np.asarray(pictures[number - 1])
            stands_still = (np.asarray(picture) == before).all(axis=2)
            found = np.where(stands_still, indexed[-1], found)
        indexed.append(np.asarray(found, np.uint8))
    return indexed, shared.getpalette() or []


def _stippled(
    way: str,
    indexed: Sequence[NDArray[np.uint8]],
    palette: list[int],
    moments: Sequence[Moment],
) -> Iterator[Image.Image]:
    """Each moment's picture: every pixel is of one picture or the other."""
    height, width = indexed[0].shape
    pattern = dither_pattern(width, height) + 0.5
    for moment in moments:
        shown = indexed[moment.picture]
        if moment.share < 1:
            come = share_over(way, moment.share, width, height) > pattern
            shown = np.where(come, shown, indexed[moment.picture - 1])
        image = Image.fromarray(np.asarray(shown, np.uint8))
        image.putpalette(palette)
        yield image


def _animated(
    frames: Iterator[Image.Image],
    image_format: str,
    moments: Sequence[Moment],
    options: dict[str, object],
) -> bytes:
    return saved(
        next(frames),
        image_format,
        save_all=True,
        append_images=frames,
        duration=[moment.milliseconds for moment in moments],
        loop=0,
        **options,
    )
