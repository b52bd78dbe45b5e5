"""QR codes, kept as pictures of the shelf."""

from typing import Annotated

from fastapi import APIRouter
from pydantic import StringConstraints

from lucky_margin.core.codes import qr_code
from lucky_margin.core.document import Colour, Value
from lucky_margin.web.app_state import AppStateDep
from lucky_margin.web.examples import example
from lucky_margin.web.routes.photos import Photo, told_photo
from lucky_margin.web.work_desk import Priority

router = APIRouter(prefix="/codes", tags=["photos"])

NAMED_LETTERS = 60
"""Of what a code says, in the name of its picture."""


class CodeWanted(Value):
    """What a code says, and its colours; without ``light`` what is behind it shows."""

    model_config = example(text="https://pebblewick.example/shop", dark="#1E2A2F")

    text: Annotated[str, StringConstraints(max_length=4000)]
    dark: Colour = "#000000"
    light: Colour | None = "#FFFFFF"


@router.post("", status_code=201)
async def add_code(wanted: CodeWanted, state: AppStateDep) -> Photo:
    """Draw a QR code and keep it as a picture."""

    def add() -> Photo:
        png = qr_code(wanted.text, dark=wanted.dark, light=wanted.light)
        name = f"QR code {' '.join(wanted.text.split())[:NAMED_LETTERS]}"
        return told_photo(*state.store.photos.add(png, name))

    return await state.desk.run(add, Priority.CHECK)
