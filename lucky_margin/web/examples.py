"""Examples for the OpenAPI document."""

from typing import Any

from pydantic import ConfigDict

from lucky_margin.core.document import EXAMPLE

FINISH = EXAMPLE
DRAFT = "5f" * 32
REVISION = 14
ETAG = 3


def example(**fields: Any) -> ConfigDict:
    """A model configuration that shows one example of the model."""
    return ConfigDict(json_schema_extra={"examples": [fields]})
