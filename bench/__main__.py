"""``make bench``: how the design's figures (section 7) come out on this machine.

Machines are noisy, so every figure is a ratio of medians taken in turn in one run.
"""

import io
import resource
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

import numpy as np
import pyvips
from PIL import Image

from lucky_margin.core.document import (
    SIZE_LIBRARY,
    Area,
    BadgePiece,
    Border,
    EllipseMask,
    Finish,
    FixedPixels,
    LetterOutline,
    MarginAnchor,
    Piece,
    PieceChanges,
    Plate,
    Repeat,
    Shadow,
    Sides,
    Size,
    SizePlan,
    TextPiece,
    Tone,
    Turn,
    Wash,
    Watermark,
    new_finish,
)
from lucky_margin.core.edits import apply_edit
from lucky_margin.core.edits.pieces import SetPiece
from lucky_margin.core.edits.sizes import size_of_plan
from lucky_margin.core.export import export
from lucky_margin.core.photos import decode
from lucky_margin.core.render import layout, render
from lucky_margin.core.sampling import halved, sample
from lucky_margin.core.scene import MemorySources, Scene
from lucky_margin.store import Store

DEMO_PHOTO = Path(__file__).parent.parent / "demo" / "photos" / "mugs-window.jpg"
SHA = "ab" * 32
WIDTH, HEIGHT = 1080, 1350
ROUNDS = 7

PIECES: tuple[Piece, ...] = (
    TextPiece(id="title", text="New glaze,\nevery Thursday", size=0.12, shadow=Shadow()),
    TextPiece(id="line", text="from nine to five", anchor=MarginAnchor(y=1), plate=Plate()),
    TextPiece(id="price", text="€28", anchor=MarginAnchor(x=1), outline=LetterOutline()),
    BadgePiece(id="burst", form="burst", text="new", anchor=MarginAnchor(x=0, y=0.8)),
    BadgePiece(id="arrow", form="arrow", angle=30, shadow=Shadow()),
    BadgePiece(id="hearts", form="heart", width=0.05, height=0.05, repeat=Repeat()),
)

Work = Callable[[], object]


def median_times(*works: Work) -> list[float]:
    """Median seconds of each piece of work, taken in turn so that drift hits all alike."""
    times: list[list[float]] = [[] for _ in works]
    for work in works:
        work()
    for _ in range(ROUNDS):
        for work, kept in zip(works, times, strict=True):
            begin = time.perf_counter()
            work()
            kept.append(time.perf_counter() - begin)
    return [statistics.median(kept) for kept in times]


def report(what: str, ours: float, theirs: float, against: str, reach: str) -> None:
    times = f"{1000 * ours:.0f} ms : {1000 * theirs:.0f} ms"
    print(f"{what:52} {ours / theirs:5.2f} x {against} ({times}; reach {reach})")


def photo_of(megapixels: int) -> bytes:
    """The demo photo enlarged to 3:2 and this many megapixels, as a JPEG."""
    high = round((megapixels * 1e6 / 1.5) ** 0.5)
    buffer = io.BytesIO()
    Image.open(DEMO_PHOTO).resize((round(1.5 * high), high)).save(buffer, "JPEG", quality=92)
    return buffer.getvalue()


def framed(thickness: float = 0.025) -> Finish:
    finish = new_finish(name="bench", photo_sha256=SHA)
    size = finish.sizes[0].model_copy(update={"pixels": FixedPixels(width=WIDTH, height=HEIGHT)})
    border = Border(thickness=Sides.all(thickness))
    return finish.with_size(size).model_copy(update={"border": border})


def jpeg(picture: np.ndarray, quality: int = 90) -> bytes:
    buffer = io.BytesIO()
    Image.fromarray(picture).save(buffer, "JPEG", quality=quality)
    return buffer.getvalue()


def slider() -> None:
    """Border slider to preview bytes, the sampled photo cached, against one JPEG encode."""
    sources = MemorySources({SHA: decode(DEMO_PHOTO.read_bytes())})
    thickness = 0.0

    def move() -> None:
        nonlocal thickness
        thickness = (thickness + 0.003) % 0.1 + 0.01
        finish = framed(thickness)
        jpeg(render(Scene(finish, finish.sizes[0], sources)))

    picture = render(Scene(framed(), framed().sizes[0], sources))
    ours, encode = median_times(move, lambda: jpeg(picture))
    report("border slider to preview, 1080x1350", ours, encode, "JPEG encode", "10, then 6")


def exposure_slider() -> None:
    """Exposure slider to preview bytes with shadows, contrast, muted_colours and a border set, the
    sampled photo cached, against one JPEG encode."""
    sources = MemorySources({SHA: decode(DEMO_PHOTO.read_bytes())})
    exposure = 0.0

    def move(others: Tone, **more: object) -> None:
        nonlocal exposure
        exposure = (exposure + 0.05) % 1
        tone = others.model_copy(update={"exposure": exposure + 0.01})
        moved = framed().model_copy(update={"tone": tone, **more})
        jpeg(render(Scene(moved, moved.sizes[0], sources)))

    picture = render(Scene(framed(), framed().sizes[0], sources))
    mark = Watermark(text="Pebblewick Pottery", place="repeated")
    area = Area(masks=(EllipseMask(),), exposure=0.3, saturation=20)
    alone, local, full, lettered, encode = median_times(
        lambda: move(Tone()),
        lambda: move(Tone(areas=(area,), washes=(Wash(),))),
        lambda: move(Tone(shadows=30, contrast=15, muted_colours=20)),
        lambda: move(Tone(), pieces=PIECES, watermark=mark),
        lambda: jpeg(picture),
    )
    report("exposure slider to preview, exposure alone", alone, encode, "JPEG encode", "10, then 6")
    report("the same with an area and a wash", local, encode, "JPEG encode", "10, then 6")
    report(
        "the same with shadows, contrast, muted_colours", full, encode, "JPEG encode", "10, then 6"
    )
    report("exposure, six pieces, repeated mark", lettered, encode, "JPEG encode", "10, then 6")


def typing() -> None:
    """A letter typed into a headline among six pieces: the draft laid out and its picture as the
    stage shows it, against one JPEG encode. The reach is 0.1 s."""
    sources = MemorySources({SHA: decode(DEMO_PHOTO.read_bytes())})
    mark = Watermark(text="Pebblewick Pottery", place="repeated")
    finish = framed().model_copy(update={"pieces": PIECES, "watermark": mark})
    finish = finish.model_copy(update={"tone": Tone(exposure=0.3, shadows=20)})
    written = ""

    def letter() -> None:
        nonlocal written
        written = (written + "every Thursday "[len(written) % 15])[-60:]
        changes = PieceChanges(text=written)
        edit = SetPiece(ids=("title",), changes=changes)
        typed = apply_edit(Scene(finish, finish.sizes[0], sources), edit).finish
        layout(Scene(typed, typed.sizes[0], sources))
        jpeg(render(Scene(typed, typed.sizes[0], sources)))

    picture = render(Scene(framed(), framed().sizes[0], sources))
    ours, encode = median_times(letter, lambda: jpeg(picture))
    report("a letter typed, six pieces, tone and mark", ours, encode, "JPEG encode", "100 ms")


def file_to_file() -> None:
    """A 24 MP JPEG to a finished 1080x1350 JPEG with border, nothing cached."""
    data = photo_of(24)
    finish = framed()
    full = Tone(exposure=0.3, shadows=30, contrast=15, muted_colours=20, local_contrast=10)
    with_tone = finish.model_copy(update={"tone": full})
    inner = (round(0.025 * WIDTH), WIDTH, HEIGHT)

    def ours() -> None:
        export(Scene(finish, finish.sizes[0], MemorySources({SHA: decode(data)})))

    def ours_toned() -> None:
        export(Scene(with_tone, with_tone.sizes[0], MemorySources({SHA: decode(data)})))

    def pillow() -> None:
        opened = Image.open(io.BytesIO(data))
        opened.draft("RGB", (WIDTH, HEIGHT))
        image = opened.convert("RGB")
        wide = image.height * WIDTH / HEIGHT
        left = (image.width - wide) / 2
        small = image.resize(
            (WIDTH, HEIGHT), Image.Resampling.BOX, box=(left, 0, left + wide, image.height)
        )
        band = inner[0]
        card = Image.new("RGB", (WIDTH, HEIGHT), "white")
        card.paste(small.crop((band, band, WIDTH - band, HEIGHT - band)), (band, band))
        jpeg(np.asarray(card))

    def vips() -> None:
        image = pyvips.Image.thumbnail_buffer(data, WIDTH, height=HEIGHT, crop="centre")
        band = inner[0]
        inside = image.crop(band, band, WIDTH - 2 * band, HEIGHT - 2 * band)
        inside.embed(band, band, WIDTH, HEIGHT, extend="white").write_to_buffer(".jpg", Q=90)

    mine, toned, theirs, others = median_times(ours, ours_toned, pillow, vips)
    report("24 MP file to finished file, border", mine, theirs, "Pillow with draft", "1.0")
    report("24 MP file to finished file, border", mine, others, "libvips", "0.8")
    report("the same with full tone", toned, theirs, "Pillow with draft, no tone", "1.5")


def sampling() -> None:
    """Shrinking in linear light against Pillow's shrinking of encoded values."""
    photo = decode(DEMO_PHOTO.read_bytes()).picture
    image = Image.fromarray(photo)
    box = (840, 0, 2760, 2400)

    def ours() -> None:
        sample(photo, left=840, top=0, step_x=1920 / WIDTH, step_y=2400 / HEIGHT,
               region=(0, 0, WIDTH, HEIGHT))  # fmt: skip

    mine, theirs = median_times(
        ours, lambda: image.resize((WIDTH, HEIGHT), Image.Resampling.BOX, box=box)
    )
    report("sampling 1920x2400 to 1080x1350, linear light", mine, theirs, "Pillow, encoded", "-")
    mine, theirs = median_times(lambda: halved(photo), lambda: image.reduce(2))
    report("halving 3600x2400, linear light", mine, theirs, "Pillow, encoded", "-")


def eight_sizes() -> None:
    """A 24 MP JPEG to eight finished files, nothing cached, against the 1080x1350 one alone."""
    data = photo_of(24)
    stock = ("square-post", "tall-post", "story", "video-thumbnail", "link-card", "wide-banner")
    plans = [size.plan for size in SIZE_LIBRARY if size.key in (*stock, "round-avatar")]
    plans.append(SizePlan(name="Cover", pixels=FixedPixels(width=1640, height=856)))
    sizes = tuple(size_of_plan(plan, f"s{number}") for number, plan in enumerate(plans))
    finish = framed().model_copy(update={"sizes": sizes})
    tall = next(size for size in sizes if size.name == "Tall post")

    def export_of(chosen: tuple[Size, ...]) -> None:
        sources = MemorySources({SHA: decode(data)})
        for size in chosen:
            export(Scene(finish, size, sources))

    all_of_them, one = median_times(lambda: export_of(sizes), lambda: export_of((tall,)))
    report("24 MP file to eight finished files", all_of_them, one, "the tall post", "4")


def straighten() -> None:
    """A straightened 1080x1350 sampling against Pillow's bicubic turning of the shrunk photo."""
    photo = decode(DEMO_PHOTO.read_bytes())
    turned = framed().model_copy(update={"turn": Turn(straighten=4), "border": Border()})
    image = Image.fromarray(photo.picture)

    def ours() -> None:
        render(Scene(turned, turned.sizes[0], MemorySources({SHA: photo})))

    def pillow() -> None:
        small = image.resize((WIDTH * 3 // 2, HEIGHT), Image.Resampling.BOX)
        small.rotate(-4, Image.Resampling.BICUBIC)

    mine, theirs = median_times(ours, pillow)
    report("straightened 1080x1350, linear light", mine, theirs, "Pillow, encoded", "-")


def shelf() -> None:
    """The first page of finishes with 5,000 of them against 50."""
    with tempfile.TemporaryDirectory() as folder:
        few, many = (
            filled(Path(folder) / name, count) for name, count in (("few", 50), ("many", 5000))
        )
        mine, theirs = median_times(
            lambda: (many.finishes.list(), many.finishes.count()),
            lambda: (few.finishes.list(), few.finishes.count()),
        )
        few.close()
        many.close()
    report("first page of the shelf, 5,000 finishes", mine, theirs, "50 finishes", "2")


def filled(folder: Path, count: int) -> Store:
    store = Store(folder)
    buffer = io.BytesIO()
    Image.new("RGB", (64, 64)).save(buffer, "PNG")
    photo, _ = store.photos.add(buffer.getvalue(), "photo.png")
    with store.finishes._database.write():  # one transaction, so that filling is quick
        for number in range(count):
            store.finishes.create(new_finish(name=f"Finish {number}", photo_sha256=photo.sha256))
    return store


MEMORY_JOB = """
import sys
from lucky_margin.core.document import Tone, new_finish
from lucky_margin.core.export import export
from lucky_margin.core.photos import decode
from lucky_margin.core.scene import MemorySources, Scene
sources = MemorySources({"ab" * 32: decode(open(sys.argv[1], "rb").read())})
finish = new_finish(name="x", photo_sha256="ab" * 32)
finish = finish.model_copy(update={"tone": Tone(exposure=0.3, shadows=20)})
export(finish, finish.sizes[0], sources)
"""


def memory() -> None:
    """Peak memory of a process that exports a 100 MP JPEG 1:1, with tone."""
    with tempfile.NamedTemporaryFile(suffix=".jpg") as file:
        file.write(photo_of(100))
        file.flush()
        subprocess.run([sys.executable, "-c", MEMORY_JOB, file.name], check=True)
    peak = resource.getrusage(resource.RUSAGE_CHILDREN).ru_maxrss * 1024 / 1e9
    print(f"{'100 MP JPEG exported 1:1 with tone, peak memory':52} {peak:5.2f} GB (reach 1.5)")


if __name__ == "__main__":
    print(f"Medians of {ROUNDS} rounds; photo: {DEMO_PHOTO.name}, enlarged where need be.")
    for measure in (
        slider,
        exposure_slider,
        typing,
        file_to_file,
        eight_sizes,
        sampling,
        straighten,
        shelf,
        memory,
    ):
        measure()
