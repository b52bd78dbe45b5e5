"""The command line: the same job without the bench.

Every refusal is one sentence on standard error and exit code 2.
"""

import argparse
import json
import os
import sys
from collections.abc import Iterable, Iterator
from hashlib import sha256
from pathlib import Path
from typing import NoReturn, TypeVar

from pydantic import ValidationError
from tqdm import tqdm

from lucky_margin.core.document import (
    Border,
    Export,
    ExportChanges,
    Finish,
    FixedPixels,
    Focus,
    Point,
    Shape,
    Sides,
    describe_validation_error,
    json_schema,
    new_finish,
    read_finish,
)
from lucky_margin.core.errors import BadInput, FileExists, LuckyMarginError, NotFound
from lucky_margin.core.export import SUFFIXES, ExportedFile, export
from lucky_margin.core.photos import DecodedPhoto, decode
from lucky_margin.core.render import MemorySources
from lucky_margin.core.types import ImageFormat

FRONTEND = Path(__file__).parent.parent / "frontend" / "dist"

DEFAULT_PORT = 8750

BAD_INPUT = 2
"""The exit code of everything the user can put right."""

FORMAT_OF_SUFFIX: dict[str, ImageFormat] = {
    **{f".{suffix}": image_format for image_format, suffix in SUFFIXES.items()},
    ".jpeg": "jpeg",
}

PHOTO_SUFFIXES = frozenset(
    [".jpg", ".jpeg", ".png", ".webp", ".avif", ".heic", ".heif", ".tif", ".tiff", ".gif", ".bmp"]
)

Item = TypeVar("Item")


def main(arguments: list[str] | None = None) -> int:
    """Run the command line; returns the exit code."""
    chosen = _parser().parse_args(arguments)
    try:
        code: int = chosen.run(chosen)
        return code
    except LuckyMarginError as error:
        return _refuse(str(error))
    except ValidationError as error:
        return _refuse(describe_validation_error(error))
    except OSError as error:
        return _refuse(f"{error.filename or 'A file'}: {error.strerror or error}.")


def data_folder() -> Path:
    """Where the data is: ``LUCKY_MARGIN_DATA``, or ``data`` in the present folder."""
    return Path(os.environ.get("LUCKY_MARGIN_DATA", "data"))


class _Parser(argparse.ArgumentParser):
    def error(self, message: str) -> NoReturn:
        sentence = f"{message[:1].upper()}{message[1:]}; see “{self.prog} --help”."
        raise SystemExit(_refuse(sentence))


def _refuse(sentence: str) -> int:
    print(sentence, file=sys.stderr)
    return BAD_INPUT


def _parser() -> argparse.ArgumentParser:
    parser = _Parser(prog="lucky-margin", description="Finish single photos at exact pixel sizes.")
    commands = parser.add_subparsers(required=True, metavar="COMMAND", parser_class=_Parser)
    _add_finish(commands.add_parser("finish", help="finish photos, all in the same way"))
    _add_render(commands.add_parser("render", help="export one size of a finish document"))
    schema = commands.add_parser("schema", help="print the JSON Schema of a finish document")
    schema.set_defaults(run=_schema)
    serve = commands.add_parser("serve", help="open the bench in a browser on this computer")
    serve.add_argument("--port", type=int, default=os.environ.get("PORT", DEFAULT_PORT))
    serve.add_argument("--data", type=Path, default=data_folder(), metavar="FOLDER")
    serve.set_defaults(run=_serve)
    return parser


def _add_finish(finish: argparse.ArgumentParser) -> None:
    finish.add_argument("photos", nargs="+", type=Path, metavar="PHOTO")
    finish.add_argument("--size", required=True, metavar="WxH", help="pixels, such as 1080x1350")
    finish.add_argument("--focus", metavar="X,Y", help="what stays in view, 0..1 from top left")
    finish.add_argument("--radius", default="0%", metavar="N%%", help="of the short side")
    finish.add_argument("--border", metavar="N%%[:#COLOUR]", help="of the short side")
    finish.add_argument("--border-outside", action="store_true", help="frame the photo smaller")
    finish.add_argument("--format", choices=list(SUFFIXES), help="default: by OUT, else jpeg")
    weight = finish.add_mutually_exclusive_group()
    weight.add_argument("--quality", type=int, default=Export().quality, metavar="1..100")
    weight.add_argument("--max-kb", type=float, metavar="N", help="1 KB is 1000 bytes")
    _add_output(finish, "a file, or a folder for several photos")
    finish.set_defaults(run=_finish)


def _add_render(render: argparse.ArgumentParser) -> None:
    render.add_argument("document", type=Path, metavar="FINISH.json")
    render.add_argument(
        "--photo", type=Path, help="default: found by its SHA-256 beside the document"
    )
    render.add_argument("--size", required=True, metavar="NAME", help="a size's name or id")
    _add_output(render, "a file")
    render.set_defaults(run=_render)


def _add_output(command: argparse.ArgumentParser, what: str) -> None:
    command.add_argument("-o", "--out", required=True, type=Path, metavar="OUT", help=what)
    command.add_argument("--replace", action="store_true", help="replace what is at OUT")


def _schema(_: argparse.Namespace) -> int:
    print(json.dumps(json_schema(), indent=2, ensure_ascii=False))
    return 0


def _serve(chosen: argparse.Namespace) -> int:
    from lucky_margin.web.server import serve  # the other commands need no web

    return serve(data=chosen.data, frontend=FRONTEND, port=chosen.port)


def _finish(chosen: argparse.Namespace) -> int:
    several = len(chosen.photos) > 1
    if several and chosen.out.suffix.lower() in FORMAT_OF_SUFFIX:
        raise BadInput(f"Several photos need a folder as OUT, not the file {chosen.out}.")
    to_folder = several or chosen.out.is_dir() or not chosen.out.suffix
    image_format = chosen.format or "jpeg" if to_folder else _format(chosen.out, chosen.format)
    settings = _settings(chosen, image_format)
    failed = 0
    for path in _with_progress(chosen.photos):
        try:
            photo, digest = _read_photo(path)
            finish = Finish.model_validate(
                new_finish(name=path.stem[:120], photo_sha256=digest).model_dump() | settings
            )
            file = export(finish, finish.sizes[0], MemorySources({digest: photo}))
            _write(file, chosen.out / file.file_name if to_folder else chosen.out, chosen.replace)
        except (LuckyMarginError, OSError) as error:
            if not several:
                raise
            failed += 1
            print(f"{path}: {error}", file=sys.stderr)
    return BAD_INPUT if failed else 0


def _settings(chosen: argparse.Namespace, image_format: ImageFormat) -> dict[str, object]:
    """The fields of a finish that the options of ``finish`` set."""
    width, height = _numbers(chosen.size, "x", "--size", "1080x1350")
    if not (width.is_integer() and height.is_integer()):
        raise BadInput(f"--size needs whole pixels such as 1080x1350, not “{chosen.size}”.")
    size = {
        "id": "main",
        "name": chosen.size,
        "pixels": FixedPixels(width=int(width), height=int(height)),
        "shape": Shape(radius=_percent(chosen.radius, "--radius")),
    }
    focus = None
    if chosen.focus:
        x, y = _numbers(chosen.focus, ",", "--focus", "0.5,0.4")
        focus = Focus(point=Point(x=x, y=y))
    border = Border()
    if chosen.border:
        thickness, _, colour = chosen.border.partition(":")
        border = Border(
            thickness=Sides.all(_percent(thickness, "--border")),
            colour=colour or Border().colour,
            outside=chosen.border_outside,
        )
    exported = Export(format=image_format, quality=chosen.quality, max_kb=chosen.max_kb)
    return {"sizes": [size], "focus": focus, "border": border, "export": exported}


def _render(chosen: argparse.Namespace) -> int:
    try:
        document = json.loads(chosen.document.read_text(encoding="utf-8"))
    except ValueError as error:
        raise BadInput(f"{chosen.document} is no JSON; export the finish again.") from error
    finish = read_finish(document)
    size = next((one for one in finish.sizes if chosen.size in (one.name, one.id)), None)
    if size is None:
        names = ", ".join(f"“{one.name}”" for one in finish.sizes)
        raise NotFound(f"The finish has no size “{chosen.size}”; it has {names}.")
    wanted = finish.export_of(size)
    own = wanted.model_copy(update={"format": _format(chosen.out, None)})
    finish = finish.model_copy(update={"export": own})
    size = size.model_copy(update={"own": size.own.model_copy(update={"export": ExportChanges()})})
    photo = _photo_of(finish, chosen)
    file = export(finish, size, MemorySources({finish.photo.sha256: photo}))
    _write(file, chosen.out, chosen.replace)
    return 0


def _photo_of(finish: Finish, chosen: argparse.Namespace) -> DecodedPhoto:
    """The document's photo: the one named, or the one beside it with the right SHA-256."""
    wanted = finish.photo.sha256
    if chosen.photo:
        photo, digest = _read_photo(chosen.photo)
        if digest != wanted:
            raise BadInput(
                f"{chosen.photo} is not the photo of this finish; name the one it is of."
            )
        return photo
    for path in sorted(chosen.document.resolve().parent.iterdir()):
        if path.suffix.lower() in PHOTO_SUFFIXES and path.is_file():
            data = path.read_bytes()
            if sha256(data).hexdigest() == wanted:
                return decode(data, path.name)
    raise NotFound(
        f"The photo of this finish is not beside {chosen.document}; name it with --photo."
    )


def _read_photo(path: Path) -> tuple[DecodedPhoto, str]:
    data = path.read_bytes()
    return decode(data, path.name), sha256(data).hexdigest()


def _write(file: ExportedFile, path: Path, replace: bool) -> None:
    """Write the file, unless something is there that may not be replaced."""
    if not file.meets_cap:
        raise BadInput(
            f"{path.name} would weigh {len(file.data) / 1000:.0f} KB even at quality "
            f"{file.quality}; allow more, ask for fewer pixels or take another format."
        )
    path.parent.mkdir(parents=True, exist_ok=True)
    try:
        with path.open("wb" if replace else "xb") as target:
            target.write(file.data)
    except FileExistsError as error:
        raise FileExists(f"{path} is already there; add --replace to write over it.") from error


def _format(out: Path, asked: ImageFormat | None) -> ImageFormat:
    """The format of OUT's suffix, which may not contradict ``--format``."""
    by_suffix = FORMAT_OF_SUFFIX.get(out.suffix.lower())
    if by_suffix is None:
        raise BadInput(f"{out} needs a suffix of {', '.join(FORMAT_OF_SUFFIX)}.")
    if asked and asked != by_suffix:
        raise BadInput(
            f"{out} is a {by_suffix} by its suffix, but --format says {asked}; drop one."
        )
    return by_suffix


def _numbers(text: str, between: str, option: str, example: str) -> tuple[float, float]:
    try:
        first, second = (float(part) for part in text.lower().split(between))
    except ValueError:
        raise BadInput(f"{option} needs two numbers such as {example}, not “{text}”.") from None
    return first, second


def _percent(text: str, option: str) -> float:
    try:
        return float(text.removesuffix("%")) / 100
    except ValueError:
        raise BadInput(f"{option} needs a percentage such as 2%, not “{text}”.") from None


def _with_progress(items: list[Item]) -> Iterator[Item]:
    """``items``, with a progress bar when there are several and somebody is watching."""
    quiet = len(items) == 1 or not sys.stderr.isatty()
    shown: Iterable[Item] = tqdm(items, unit="photo", disable=quiet)
    yield from shown


if __name__ == "__main__":
    sys.exit(main())
