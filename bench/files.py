"""Figures from file to file, nothing cached, and of sampling alone."""

import io
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from contextlib import ExitStack

import numpy as np
import pyvips
from PIL import Image

from bench.figure import Figure, Work
from bench.material import DEMO_PHOTO, HEIGHT, SHA, WIDTH, framed, jpeg, photo_of
from lucky_margin.core.document import (
    SIZE_LIBRARY,
    Border,
    Finish,
    FixedPixels,
    Size,
    SizePlan,
    Tone,
    Turn,
)
from lucky_margin.core.edits.sizes import size_of_plan
from lucky_margin.core.export import export
from lucky_margin.core.photos import decode
from lucky_margin.core.render import render
from lucky_margin.core.sampling import halved, sample
from lucky_margin.core.scene import MemorySources, Scene

BAND = round(0.025 * WIDTH)
"""The border of the finish that is measured, in output pixels."""


def file_figures(_: ExitStack) -> Iterator[Figure]:
    """A 24 MP JPEG to finished JPEGs."""
    data = photo_of(24)
    finish = framed()
    full = Tone(exposure=0.3, shadows=30, contrast=15, muted_colours=20, local_contrast=10)
    toned = finish.model_copy(update={"tone": full})
    name = "24 MP file to finished file, border"
    ours = _exported(data, finish, finish.sizes)
    yield Figure(name, ours, lambda: _with_pillow(data), "Pillow with draft", "1.0")
    yield Figure("the same against libvips", ours, lambda: _with_vips(data), "libvips", "0.8")
    against = "Pillow with draft, no tone"
    ours = _exported(data, toned, toned.sizes)
    yield Figure("the same with full tone", ours, lambda: _with_pillow(data), against, "1.5")
    sizes = eight_sizes()
    eight = finish.model_copy(update={"sizes": sizes})
    tall = tuple(size for size in sizes if size.name == "Tall post")
    yield Figure(
        "24 MP file to eight finished files",
        _exported(data, eight, sizes),
        _exported(data, eight, tall),
        "the tall post",
        "4",
    )


def sampling_figures(_: ExitStack) -> Iterator[Figure]:
    """Resampling in linear light against Pillow's of encoded values."""
    photo = decode(DEMO_PHOTO.read_bytes())
    picture, image = photo.picture, Image.fromarray(photo.picture)
    box, step = (840, 0, 2760, 2400), 1920 / WIDTH
    region = (0, 0, WIDTH, HEIGHT)
    yield Figure(
        "sampling 1920x2400 to 1080x1350, linear light",
        lambda: sample(picture, left=840, top=0, step_x=step, step_y=step, region=region),
        lambda: image.resize((WIDTH, HEIGHT), Image.Resampling.BOX, box=box),
        "Pillow, encoded",
        "-",
    )
    yield Figure(
        "halving 3600x2400, linear light",
        lambda: halved(picture),
        lambda: image.reduce(2),
        "Pillow, encoded",
        "-",
    )
    turned = framed().model_copy(update={"turn": Turn(straighten=4), "border": Border()})

    def straighten() -> None:
        render(Scene(turned, turned.sizes[0], MemorySources({SHA: photo})))

    def pillow() -> None:
        small = image.resize((WIDTH * 3 // 2, HEIGHT), Image.Resampling.BOX)
        small.rotate(-4, Image.Resampling.BICUBIC)

    name = "straightened 1080x1350, linear light"
    yield Figure(name, straighten, pillow, "Pillow, encoded", "-")


def peak_memory() -> str:
    """Peak memory of a process that exports a 100 MP JPEG 1:1, with tone."""
    with tempfile.NamedTemporaryFile(suffix=".jpg") as file:
        file.write(photo_of(100))
        file.flush()
        job = [sys.executable, "-c", _MEMORY_JOB, file.name]
        told = subprocess.run(job, check=True, stdout=subprocess.PIPE, text=True).stdout
    peak = int(told) * 1024 / 1e9
    return f"{'100 MP JPEG exported 1:1 with tone, peak memory':52} {peak:5.2f} GB (reach 1.5)"


_MEMORY_JOB = """
import sys
from lucky_margin.core.document import Tone, new_finish
from lucky_margin.core.export import export
from lucky_margin.core.photos import decode
from lucky_margin.core.scene import MemorySources, Scene
sources = MemorySources({"ab" * 32: decode(open(sys.argv[1], "rb").read())})
finish = new_finish(name="x", photo_sha256="ab" * 32)
finish = finish.model_copy(update={"tone": Tone(exposure=0.3, shadows=20)})
export(Scene(finish, finish.sizes[0], sources))
# Not what getrusage says, which counts the process before it became this program too.
status = dict(line.split(":") for line in open("/proc/self/status"))
print(status["VmHWM"].removesuffix(" kB\\n"))
"""


def _exported(data: bytes, finish: Finish, sizes: tuple[Size, ...]) -> Work:
    def work() -> None:
        sources = MemorySources({SHA: decode(data)})
        for size in sizes:
            export(Scene(finish, size, sources))

    return work


def _with_pillow(data: bytes) -> None:
    opened = Image.open(io.BytesIO(data))
    opened.draft("RGB", (WIDTH, HEIGHT))
    image = opened.convert("RGB")
    wide = image.height * WIDTH / HEIGHT
    left = (image.width - wide) / 2
    box = (left, 0, left + wide, image.height)
    small = image.resize((WIDTH, HEIGHT), Image.Resampling.BOX, box=box)
    card = Image.new("RGB", (WIDTH, HEIGHT), "white")
    card.paste(small.crop((BAND, BAND, WIDTH - BAND, HEIGHT - BAND)), (BAND, BAND))
    jpeg(np.asarray(card))


def _with_vips(data: bytes) -> None:
    image = pyvips.Image.thumbnail_buffer(data, WIDTH, height=HEIGHT, crop="centre")
    inside = image.crop(BAND, BAND, WIDTH - 2 * BAND, HEIGHT - 2 * BAND)
    card = inside.embed(BAND, BAND, WIDTH, HEIGHT, extend="white")
    card.write_to_buffer(".jpg", Q=90)


def eight_sizes() -> tuple[Size, ...]:
    """The six stock sizes, a round 400 and a 1640x856."""
    stock = ("square-post", "tall-post", "story", "video-thumbnail", "link-card", "wide-banner")
    plans = [size.plan for size in SIZE_LIBRARY if size.key in (*stock, "round-avatar")]
    plans.append(SizePlan(name="Cover", pixels=FixedPixels(width=1640, height=856)))
    return tuple(size_of_plan(plan, f"s{number}") for number, plan in enumerate(plans))
