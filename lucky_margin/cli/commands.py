"""The commands and their options."""

import argparse
import json
import os
import secrets
import sys
from collections.abc import Callable
from contextlib import suppress
from pathlib import Path
from typing import NoReturn

from pydantic import ValidationError

from lucky_margin.cli import bordering, cutting, treating, upkeep
from lucky_margin.cli.batch import BatchOutcome, finish_folder
from lucky_margin.cli.data import data_folder
from lucky_margin.cli.finishing import finish_photos
from lucky_margin.cli.lettering import add_options
from lucky_margin.cli.log import library_output_logged
from lucky_margin.cli.rendering import render_document
from lucky_margin.cli.watching import watch_folder
from lucky_margin.core.document import Export, describe_validation_error, json_schema
from lucky_margin.core.errors import LuckyMarginError
from lucky_margin.core.export import SUFFIXES

_PACKAGE = Path(__file__).parents[1]

_INSTALLED, _BUILT = _PACKAGE / "interface", _PACKAGE.parent / "frontend" / "dist"

FRONTEND = _INSTALLED if _INSTALLED.is_dir() else _BUILT
"""The built interface: inside an installed package, else where a checkout builds it."""

BYTES_PER_MB = 1_000_000

DEFAULT_PORT = 8750

BAD_INPUT = 2
"""The exit code of everything the user can put right."""

DOUBTFUL = 3
"""The exit code, where it is asked for, of cut-outs that should be checked."""

_GROUND = (
    "transparent, #RRGGBB, #RRGGBB-#RRGGBB (top to bottom), blur, this-photo or a backdrop such as "
    "paper, linen or sweep"
)


def main(arguments: list[str] | None = None) -> int:
    """Run the command line; returns the exit code."""
    chosen = _parser().parse_args(arguments)
    folder = data_folder()
    if "data" in chosen:  # a folder that the command works in, which may not be there yet
        folder = chosen.data
        with suppress(OSError):
            folder.mkdir(parents=True, exist_ok=True)
    with library_output_logged(folder):
        return _run(chosen)


def _run(chosen: argparse.Namespace) -> int:
    try:
        code: int = chosen.run(chosen)
        return code
    except LuckyMarginError as error:
        return _refuse(str(error))
    except ValidationError as error:
        return _refuse(describe_validation_error(error))
    except OSError as error:
        return _refuse(f"{error.filename or 'A file'}: {error.strerror or error}.")


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
    _add_batch(commands.add_parser("batch", help="finish a folder of photos alike"), _batch)
    watch = commands.add_parser("watch", help="finish what comes into a folder, likewise")
    _add_batch(watch, _watch)
    _add_render(commands.add_parser("render", help="export one size of a finish document"))
    schema = commands.add_parser("schema", help="print the JSON Schema of a finish document")
    schema.set_defaults(run=_schema)
    upkeep.add_commands(commands.add_parser)
    serve = commands.add_parser("serve", help="open the bench in a browser on this computer")
    serve.add_argument("--port", type=int, default=os.environ.get("PORT", DEFAULT_PORT))
    serve.add_argument("--data", type=Path, default=data_folder(), metavar="FOLDER")
    serve.add_argument(
        "--memory", type=int, metavar="MB", help="for pictures under way; default: half of all"
    )
    serve.add_argument(
        "--token",
        action="store_true",
        help="only who has the printed address may come in, no other user of this computer",
    )
    serve.add_argument("--no-browser", action="store_true", help="don't open the browser")
    serve.set_defaults(run=_serve)
    return parser


def _add_finish(finish: argparse.ArgumentParser) -> None:
    finish.add_argument("photos", nargs="+", type=Path, metavar="PHOTO")
    finish.add_argument(
        "--size",
        action="append",
        metavar="SIZE",
        help="1080x1350, 1080x or x1350 (one side), 50x40mm (cm, in; @300 for the resolution) or a "
        "name such as tall-post; several times for several files; default: as cropped",
    )
    finish.add_argument("--ratio", metavar="W:H", help="such as 4:5, or original")
    finish.add_argument(
        "--square",
        metavar="X1,Y1,...,X4,Y4",
        help="show a flat thing straight on: its corners in photo pixels, clockwise from the top "
        "left",
    )
    finish.add_argument("--trim", action="store_true", help="trim the plain margin first")
    finish.add_argument(
        "--straighten", type=float, default=0, metavar="DEGREES", help="clockwise, -45 to 45"
    )
    finish.add_argument("--window", metavar="LEFT,TOP,WIDTH,HEIGHT", help="in photo pixels")
    finish.add_argument("--focus", metavar="X,Y", help="what stays in view, 0..1, or auto")
    finish.add_argument("--contain", action="store_true", help="show the whole photo")
    finish.add_argument(
        "--shape", metavar="NAME", help="circle, heart, polygon:6, star:5 and so on; also blob:7"
    )
    finish.add_argument(
        "--radius", metavar="N%%", help="of a rectangle's corners, of its short side"
    )
    finish.add_argument("--backdrop", metavar="GROUND", help=f"behind the photo: {_GROUND}")
    finish.add_argument("--outside", metavar="GROUND", help="outside the shape: the same")
    finish.add_argument(
        "--auto", action="store_true", help="set the tone from measurements of the photo"
    )
    finish.add_argument(
        "--look", metavar="NAME[:N%%]", help="such as golden, ink:60%% or a .cube file"
    )
    finish.add_argument(
        "--tone", metavar="NAME=N,...", help="such as exposure=0.5,highlights=-30; over the others"
    )
    treating.add_options(finish)
    bordering.add_options(finish)
    cutting.add_options(finish)
    add_options(finish)
    finish.add_argument("--format", choices=list(SUFFIXES), help="default: by OUT, else jpeg")
    weight = finish.add_mutually_exclusive_group()
    weight.add_argument("--quality", type=int, default=Export().quality, metavar="1..100")
    weight.add_argument("--max-kb", type=float, metavar="N", help="1 KB is 1000 bytes")
    finish.add_argument("--lossless", action="store_true", help="of a WebP")
    finish.add_argument("--progressive", action="store_true", help="of a JPEG")
    finish.add_argument("--colours", type=int, metavar="2..256", help="of a PNG or GIF")
    finish.add_argument(
        "--bleed", type=float, default=0, metavar="MM", help="of a PDF, at each side"
    )
    finish.add_argument(
        "--layers", action="store_true", help="with each file another of its layers (OpenRaster)"
    )
    finish.add_argument("--title", default="", metavar="TEXT")
    finish.add_argument("--description", default="", metavar="TEXT")
    finish.add_argument("--alt", default="", metavar="TEXT", help="what it shows, read aloud")
    _add_output(finish, "a file, or a folder for several files")
    finish.set_defaults(run=_finish)


def _add_batch(batch: argparse.ArgumentParser, run: Callable[[argparse.Namespace], int]) -> None:
    batch.add_argument("folder", type=Path, metavar="FOLDER", help="with the photos")
    alike = batch.add_mutually_exclusive_group(required=True)
    alike.add_argument(
        "--style",
        metavar="NAME",
        help="a house style of the shelf, or a file that one was saved to",
    )
    alike.add_argument(
        "--like", metavar="NAME", help="a finish of the shelf, or a file that one was saved to"
    )
    batch.add_argument(
        "--table",
        type=Path,
        metavar="CSV",
        help="words for the columns in its texts: a row for each photo in the order of "
        "their names, or a column “file” that names it",
    )
    batch.add_argument(
        "--jobs", type=int, default=0, metavar="N", help="at a time; default: one a processor"
    )
    batch.add_argument("--strict", action="store_true", help="exit with 3 if a cut-out is doubtful")
    _add_output(batch, "a folder")
    batch.set_defaults(run=run)


def _add_render(render: argparse.ArgumentParser) -> None:
    render.add_argument("document", type=Path, metavar="FINISH.json")
    render.add_argument(
        "--photo", type=Path, help="default: found by its SHA-256 next to the document"
    )
    render.add_argument("--size", required=True, metavar="NAME", help="a size's name or id")
    _add_output(render, "a file")
    render.set_defaults(run=_render)


def _add_output(command: argparse.ArgumentParser, what: str) -> None:
    command.add_argument("-o", "--out", required=True, type=Path, metavar="OUT", help=what)
    command.add_argument("--replace", action="store_true", help="overwrite OUT if it exists")


def _finish(chosen: argparse.Namespace) -> int:
    outcome = finish_photos(chosen)
    if outcome.failed:
        return BAD_INPUT
    return DOUBTFUL if outcome.doubtful and chosen.strict else 0


def _batch(chosen: argparse.Namespace) -> int:
    outcome = finish_folder(chosen)
    _tell(outcome)
    if outcome.failed:
        return BAD_INPUT
    return DOUBTFUL if outcome.doubtful and chosen.strict else 0


def _watch(chosen: argparse.Namespace) -> int:
    print(f"Waiting for photos in {chosen.folder}; Ctrl C ends it.", flush=True)
    with suppress(KeyboardInterrupt):
        watch_folder(chosen, _tell)
    return 0


def _tell(outcome: BatchOutcome) -> None:
    parts = [f"{outcome.finished} finished"]
    parts += [f"{outcome.known} finished before"] if outcome.known else []
    parts += [f"{outcome.failed} failed"] if outcome.failed else []
    parts += [f"{outcome.doubtful} to check"] if outcome.doubtful else []
    print(", ".join(parts), flush=True)


def _render(chosen: argparse.Namespace) -> int:
    render_document(chosen)
    return 0


def _schema(_: argparse.Namespace) -> int:
    print(json.dumps(json_schema(), indent=2, ensure_ascii=False))
    return 0


def _serve(chosen: argparse.Namespace) -> int:
    from lucky_margin.web.server import serve  # the other commands need no web

    return serve(
        data=chosen.data,
        frontend=FRONTEND,
        port=chosen.port,
        memory=chosen.memory and chosen.memory * BYTES_PER_MB,
        token=secrets.token_urlsafe() if chosen.token else None,
        browse=not chosen.no_browser,
    )
