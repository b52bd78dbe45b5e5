"""The command line: ``lucky-margin serve`` and the printed formats."""

import argparse
import json
import os
import sys
from pathlib import Path

from lucky_margin.core.document import json_schema

FRONTEND = Path(__file__).parent.parent / "frontend" / "dist"

DEFAULT_PORT = 8750


def main(arguments: list[str] | None = None) -> int:
    """Run the command line; returns the exit code."""
    parser = _parser()
    chosen = parser.parse_args(arguments)
    code: int = chosen.run(chosen)
    return code


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="lucky-margin", description="Finish single photos.")
    commands = parser.add_subparsers(required=True, metavar="COMMAND")
    serve = commands.add_parser("serve", help="open the bench in a browser on this computer")
    serve.add_argument("--port", type=int, default=int(os.environ.get("PORT", DEFAULT_PORT)))
    serve.add_argument("--data", type=Path, default=data_folder())
    serve.set_defaults(run=_serve)
    schema = commands.add_parser("schema", help="print the JSON Schema of a finish")
    schema.set_defaults(run=_schema)
    return parser


def data_folder() -> Path:
    """Where the data is: ``LUCKY_MARGIN_DATA``, or ``data`` in the present folder."""
    return Path(os.environ.get("LUCKY_MARGIN_DATA", "data"))


def _schema(_: argparse.Namespace) -> int:
    print(json.dumps(json_schema(), indent=2, ensure_ascii=False))
    return 0


def _serve(chosen: argparse.Namespace) -> int:
    from lucky_margin.web.server import serve

    return serve(data=chosen.data, frontend=FRONTEND, port=chosen.port)


if __name__ == "__main__":
    sys.exit(main())
