"""Badges of several parts that come with the application, with words to be replaced."""

from typing import Any

from lucky_margin.core.document import BadgePiece, TextPiece
from lucky_margin.core.document.pieces import DrawnPiece, TextPart
from lucky_margin.core.stock.item import BadgeItem, BadgeKind, colours_of

INK, PAPER, CLAY, MOSS, HONEY = "#1E2A2F", "#FBF6EC", "#B8401A", "#3F6B57", "#E9B44C"


def _form(
    form: str, width: float, height: float, colour: str | None, **fields: Any
) -> dict[str, Any]:
    return {"form": form, "width": width, "height": height, "colour": colour, **fields}


def _line(text: str, size: float, colour: str, **fields: Any) -> dict[str, Any]:
    return {"text": text, "size": size, "colour": colour, "wrap": None, **fields}


def _badge(
    kind: BadgeKind,
    name: str,
    words: str,
    *parts: dict[str, Any],
) -> BadgeItem:
    pieces: list[DrawnPiece] = []
    for number, fields in enumerate(parts, 1):
        made = BadgePiece if "form" in fields else TextPiece
        pieces.append(made(id=f"part-{number}", group=1, **fields))
    key = name.lower().replace("'", "").replace(" ", "-")
    together = tuple(pieces)
    return BadgeItem(
        key=key, name=name, words=words, kind=kind, colours=colours_of(together), parts=together
    )


BADGES: dict[str, BadgeItem] = {
    item.key: item
    for item in (
        _badge(
            "maker",
            "Maker's seal",
            "round handmade stamp since",
            _form("circle", 0.42, 0.42, INK),
            _form("circle", 0.385, 0.385, None, stroke=PAPER, stroke_width=0.004),
            _line("MADE BY HAND", 0.034, PAPER, bend=170, letter_spacing=0.12, dy=-0.092),
            _line("SINCE 2019", 0.03, PAPER, bend=-120, letter_spacing=0.12, dy=0.116),
            _form("icon", 0.12, 0.12, HONEY, icon="leaf"),
        ),
        _badge(
            "offer",
            "Percent off",
            "sale discount reduced",
            _form("burst", 0.4, 0.4, CLAY),
            _line("30%", 0.115, PAPER, family="oswald", dy=-0.028),
            _line("OFF", 0.062, PAPER, letter_spacing=0.2, dy=0.07),
        ),
        _badge(
            "offer",
            "New price",
            "was now reduced sale",
            _form("label", 0.44, 0.2, PAPER, stroke=INK, stroke_width=0.006),
            _line(
                "was 48",
                0.04,
                INK,
                weight=500,
                dx=-0.12,
                parts=[TextPart(start=0, end=6, struck=True)],
            ),
            _line("39", 0.13, CLAY, family="oswald", dx=0.1),
        ),
        _badge(
            "offer",
            "Free delivery",
            "post parcel truck",
            _form("label", 0.5, 0.13, MOSS),
            _form("icon", 0.085, 0.085, PAPER, icon="truck", dx=-0.18),
            _line("Free delivery", 0.05, PAPER, dx=0.045),
        ),
        _badge(
            "news",
            "New in",
            "fresh arrival star",
            _form("ribbon", 0.46, 0.13, INK),
            _form("star", 0.05, 0.05, HONEY, dx=-0.115),
            _line("NEW IN", 0.05, PAPER, letter_spacing=0.1, dx=0.025),
        ),
        _badge(
            "news",
            "Last pieces",
            "few left clock hurry",
            _form("label", 0.44, 0.14, HONEY),
            _form("icon", 0.075, 0.075, INK, icon="clock", dx=-0.155),
            _line("Last pieces", 0.05, INK, dx=0.045),
        ),
        _badge(
            "news",
            "Sold out",
            "gone stamp",
            _form("label", 0.46, 0.17, None, stroke=CLAY, stroke_width=0.01, angle=-10),
            _form("label", 0.43, 0.14, None, stroke=CLAY, stroke_width=0.003, angle=-10),
            _line("SOLD OUT", 0.078, CLAY, family="oswald", letter_spacing=0.06, angle=-10),
        ),
        _badge(
            "maker",
            "Fresh from the kiln",
            "fired pottery flame new",
            _form("circle", 0.36, 0.36, CLAY),
            _form("icon", 0.12, 0.12, HONEY, icon="flame", dy=-0.075),
            _line("fresh from\nthe kiln", 0.046, PAPER, line_spacing=1.05, dy=0.06),
        ),
        _badge(
            "maker",
            "Five stars",
            "rating review praise",
            _form("label", 0.5, 0.19, PAPER),
            *(_form("star", 0.06, 0.06, HONEY, dx=0.08 * at, dy=-0.035) for at in range(-2, 3)),
            _line("“Even lovelier in the hand”", 0.032, INK, weight=500, dy=0.05),
        ),
        _badge(
            "occasion",
            "Gift idea",
            "present birthday heart",
            _form("heart", 0.34, 0.34, "#C9455A"),
            _form("icon", 0.1, 0.1, PAPER, icon="gift", dy=-0.045),
            _form("ribbon", 0.42, 0.1, INK, text="Gift idea", dy=0.085),
        ),
        _badge(
            "occasion",
            "Save the date",
            "calendar day workshop market event",
            _form("label", 0.26, 0.28, PAPER),
            _form("label", 0.26, 0.085, CLAY, dy=-0.0975),
            _line("MAY", 0.048, PAPER, letter_spacing=0.14, dy=-0.0975),
            _line("24", 0.15, INK, family="oswald", dy=0.04),
        ),
        _badge(
            "occasion",
            "Season's greetings",
            "winter snow festive",
            _form("circle", 0.38, 0.38, MOSS),
            _form("circle", 0.345, 0.345, None, stroke=PAPER, stroke_width=0.004),
            _form("icon", 0.09, 0.09, PAPER, icon="snowflake", dy=-0.1),
            _line(
                "Season’s\ngreetings",
                0.062,
                PAPER,
                family="pacifico",
                weight=400,
                line_spacing=0.95,
                dy=0.045,
            ),
        ),
    )
}
