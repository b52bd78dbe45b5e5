"""What a table says of one photo."""

from typing import Annotated

from pydantic import Field, StringConstraints

MOST_COLUMNS = 50
LONGEST_CELL = 1000

Cell = Annotated[str, StringConstraints(max_length=LONGEST_CELL)]
Row = Annotated[dict[Cell, Cell], Field(max_length=MOST_COLUMNS)]
"""Cells by the names of their columns."""

NO_ROW: Row = {}
