"""Tables of words for many photos."""

from typing import Annotated

from fastapi import APIRouter, Request
from pydantic import Field
from starlette.concurrency import run_in_threadpool

from lucky_margin.core.document import Name, Row, Value
from lucky_margin.core.errors import TooLarge
from lucky_margin.core.words_table import read_cells, read_table, rows_for
from lucky_margin.web.bodies import BYTES, body_of
from lucky_margin.web.examples import example
from lucky_margin.web.routes.finishes import MOST_TOGETHER

router = APIRouter(prefix="/tables", tags=["tables"])

MAX_TABLE_BYTES = 5_000_000


class TableWanted(Value):
    """A table as text, and the photos that its rows are about, by their names."""

    model_config = example(text="file,price\nmugs.jpg,12 €", photos=["mugs.jpg"])

    text: Annotated[str, Field(max_length=MAX_TABLE_BYTES)]
    photos: Annotated[list[Name], Field(max_length=MOST_TOGETHER)]


class TableRead(Value):
    """The columns of a table, and its row for each photo in turn."""

    columns: list[str]
    rows: list[Row]


class BlockWanted(Value):
    """Cells as a spreadsheet copies them."""

    model_config = example(text="12 €\tblue\n14 €\tgreen")

    text: Annotated[str, Field(max_length=MAX_TABLE_BYTES)]


class Block(Value):
    cells: list[list[str]]


class TableText(Value):
    text: str


@router.post("/rows")
def read_rows(wanted: TableWanted) -> TableRead:
    """Read a table, and find the row of each photo."""
    table = read_table(wanted.text)
    return TableRead(columns=list(table.columns), rows=rows_for(table, wanted.photos))


@router.post("/cells")
def read_block(wanted: BlockWanted) -> Block:
    """The cells of a block that was copied in a spreadsheet, without names of columns."""
    return Block(cells=read_cells(wanted.text))


@router.post("/text", openapi_extra=BYTES)
async def read_file(request: Request) -> TableText:
    """The table of a file, the request's body, as it would be pasted from a spreadsheet."""
    too_large = TooLarge("A table may have 5 MB at most; divide it.")
    data = await body_of(request, MAX_TABLE_BYTES, too_large)
    table = await run_in_threadpool(read_table, data)
    return TableText(text=table.as_text())
