"""Frame styles: finished borders to start from."""

from dataclasses import dataclass

from lucky_margin.core.document import (
    Border,
    BorderBand,
    BrushedBand,
    LineBand,
    MatBand,
    PatternBand,
    Sides,
)

WHITE, PAPER, SAND, INK = "#FFFFFF", "#F5F1E8", "#D9C6A5", "#1E2A2F"
OAK, BRASS, CLAY, GREEN, BLUE = "#8C6A43", "#A98438", "#B8401A", "#1F6B4B", "#22445C"


@dataclass(frozen=True)
class FrameStyle:
    """A border that is offered by its name."""

    key: str
    name: str
    border: Border


def _line(thickness: float, colour: str = WHITE, around: bool = True, **fields: object) -> LineBand:
    known = {"thickness": Sides.all(thickness), "colour": colour, "around": around}
    return LineBand.model_validate(known | fields)


def _mat(thickness: float, colour: str = PAPER, **fields: object) -> MatBand:
    known = {"thickness": Sides.all(thickness), "colour": colour, "around": True}
    return MatBand.model_validate(known | fields)


def _moulding(thickness: float, colour: str, profile: str, **fields: object) -> MatBand:
    plain = {"profile": profile, "bevel": 0, "texture": "smooth", "depth": 0.008}
    return _mat(thickness, colour, **(plain | fields))


def _pattern(
    key: str, thickness: float, colour: str, ground: str | None, **fields: object
) -> PatternBand:
    known = {"pattern": key, "thickness": Sides.all(thickness), "colour": colour, "ground": ground}
    return PatternBand.model_validate(known | {"around": True} | fields)


def _brushed(look: str, thickness: float, **fields: object) -> BrushedBand:
    return BrushedBand.model_validate({"look": look, "thickness": Sides.all(thickness)} | fields)


def _style(name: str, *bands: BorderBand) -> FrameStyle:
    return FrameStyle(name.lower().replace(" ", "-"), name, Border.of(*bands))


FRAME_STYLES = (
    _style("White edge", _line(0.03)),
    _style(
        "Caption strip",
        LineBand(thickness=Sides(top=0.045, right=0.045, bottom=0.17, left=0.045), around=True),
    ),
    _style("Soft corners", _line(0.05, PAPER, corners="round", corner_size=0.07)),
    _style("Cut corners", _line(0.05, SAND, corners="cut", corner_size=0.08)),
    _style("Fine rule", _line(0.05), _line(0.006, INK), _line(0.02)),
    _style(
        "Gallery",
        MatBand(thickness=Sides(top=0.11, right=0.11, bottom=0.14, left=0.11), around=True),
    ),
    _style("Night mat", _mat(0.1, INK, core=SAND)),
    _style("Oak", _moulding(0.05, OAK, "stepped", texture="linen"), _mat(0.08)),
    _style("Black frame", _moulding(0.035, "#242424", "sloped"), _mat(0.1, WHITE)),
    _style("Brass", _moulding(0.045, BRASS, "round"), _mat(0.07, BLUE, core=SAND)),
    _style("Deep box", _moulding(0.06, WHITE, "sloped", depth=0.03, softness=0.7)),
    _style("Beaded", _moulding(0.03, INK, "round"), _pattern("beads", 0.03, SAND, INK)),
    _style("Vine", _pattern("leaves", 0.075, GREEN, PAPER)),
    _style("Key", _pattern("key", 0.06, BLUE, PAPER)),
    _style("Picnic", _pattern("checks", 0.06, CLAY, WHITE)),
    _style("Stitched", _line(0.02, SAND), _pattern("stitches", 0.03, CLAY, SAND)),
    _style("Scallops", _pattern("scallops", 0.05, WHITE, None, around=False)),
    _style("Fans", _pattern("fans", 0.08, BLUE, PAPER)),
    _style("Painted", _brushed("paint", 0.09)),
    _style("Dry brush", _brushed("dry", 0.11)),
    _style("Torn", _brushed("torn", 0.07, colour=PAPER)),
    _style("Chalk", _brushed("chalk", 0.09)),
    _style("Dots", _brushed("dots", 0.12)),
    _style("Mosaic", _brushed("mosaic", 0.12)),
)
"""In the order in which they are offered."""
