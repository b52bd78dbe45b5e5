"""Print the service's OpenAPI document, from which the front end's types are made."""

import json
import tempfile
from pathlib import Path
from typing import Any

from lucky_margin.web.app import Settings, create_app


def openapi() -> dict[str, Any]:
    """The OpenAPI document; it depends on no data."""
    with tempfile.TemporaryDirectory() as folder:
        return create_app(Settings(data=Path(folder))).openapi()


if __name__ == "__main__":
    print(json.dumps(openapi(), indent=1))
