"""Ready-made treatments to start from."""

from dataclasses import dataclass

from lucky_margin.core.document import (
    Dots,
    Drawing,
    Glow,
    Grain,
    LensBlur,
    Mosaic,
    Paint,
    Poster,
    Relief,
    SharpZone,
    Treatment,
    Vignette,
)

CLAY, GREEN, BLUE, SAND = "#B8401A", "#1F6B4B", "#22445C", "#D9C6A5"


@dataclass(frozen=True)
class TreatmentStyle:
    """A treatment that is offered by its name."""

    key: str
    name: str
    treatment: Treatment


TREATMENT_STYLES = (
    TreatmentStyle("squares", "Squares", Mosaic()),
    TreatmentStyle("honeycomb", "Honeycomb", Mosaic(form="hexagon", cell=0.035, joint=0.08)),
    TreatmentStyle("pebbles", "Pebbles", Mosaic(form="pebble", cell=0.03, joint=0.14)),
    TreatmentStyle("print-dots", "Print dots", Dots()),
    TreatmentStyle(
        "colour-dots", "Colour dots", Dots(ink=None, pitch=0.016, angle=0, paper="#FFFFFF")
    ),
    TreatmentStyle(
        "print-lines", "Print lines", Dots(form="line", pitch=0.011, angle=-35, ink=BLUE)
    ),
    TreatmentStyle("pencil", "Pencil", Drawing()),
    TreatmentStyle("pen", "Pen and ink", Drawing(medium="ink", detail=58, shading=70)),
    TreatmentStyle("red-chalk", "Red chalk", Drawing(line=0.005, detail=45, shading=75, ink=CLAY)),
    TreatmentStyle("poster-4", "Four colours", Poster(colours=4, smooth=0.02)),
    TreatmentStyle("poster-8", "Eight colours", Poster(colours=8, smooth=0.008)),
    TreatmentStyle("brush", "Brush strokes", Paint()),
    TreatmentStyle("broad-brush", "Broad brush", Paint(brush=0.035, bristles=60)),
    TreatmentStyle("rough-paper", "Rough paper", Relief()),
    TreatmentStyle("canvas", "Canvas", Relief(ground="canvas", grain=0.007, depth=45)),
    TreatmentStyle("plaster", "Plaster", Relief(ground="plaster", grain=0.012, depth=60)),
    TreatmentStyle("fine-grain", "Fine grain", Grain(amount=25)),
    TreatmentStyle("coarse-grain", "Coarse grain", Grain(size=0.004, amount=45)),
    TreatmentStyle("dark-corners", "Dark corners", Vignette()),
    TreatmentStyle("light-corners", "Light corners", Vignette(colour="#FFFFFF", amount=70)),
    TreatmentStyle("soft-light", "Soft glow", Glow()),
    TreatmentStyle("blur", "Blur", LensBlur()),
    TreatmentStyle("sharp-band", "Sharp band", SharpZone()),
    TreatmentStyle("sharp-circle", "Sharp circle", SharpZone(form="round", sharp=0.25)),
)
"""In the order in which they are offered."""
