"""Sizes in millimetres, centimetres and inches: units and the pixels they come to."""

from typing import Literal

from pydantic import Field, model_validator

from lucky_margin.core.document.values import MAX_SIDE, Ratio, Value

Unit = Literal["mm", "cm", "in"]

MM_PER_UNIT: dict[Unit, float] = {"mm": 1.0, "cm": 10.0, "in": 25.4}
"""The international inch is 25.4 mm exactly (ISO 31-1)."""

DEFAULT_PPI = 300.0
"""Pixels per inch at which prints are usually made."""


def pixels_of(length: float, unit: Unit, ppi: float) -> int:
    """The whole pixels of ``length`` at ``ppi`` pixels per inch."""
    return round(length * MM_PER_UNIT[unit] / MM_PER_UNIT["in"] * ppi)


class Printed(Value):
    """A size as it is measured on paper; the resolution goes into the file."""

    width: float = Field(gt=0, le=100_000)
    height: float = Field(gt=0, le=100_000)
    unit: Unit = "mm"
    ppi: float = Field(default=DEFAULT_PPI, ge=10, le=2400)

    @model_validator(mode="after")
    def _comes_to_pixels(self) -> "Printed":
        if not all(1 <= side <= MAX_SIDE for side in self.pixels):
            raise ValueError(
                f"{self.label} at {self.ppi:g} ppi comes to {self.pixels[0]} × {self.pixels[1]} "
                f"pixels; each side has to come to 1 to {MAX_SIDE}"
            )
        return self

    @property
    def pixels(self) -> tuple[int, int]:
        """Width and height in whole pixels."""
        return (
            pixels_of(self.width, self.unit, self.ppi),
            pixels_of(self.height, self.unit, self.ppi),
        )

    @property
    def label(self) -> str:
        """Both sides with their unit: "50 × 40 mm"."""
        return f"{self.width:g} × {self.height:g} {self.unit}"

    def with_ratio(self, ratio: Ratio) -> "Printed":
        """The same longer side, the shorter one following ``ratio``."""
        long = max(self.width, self.height)
        return Printed(
            width=long * min(1, ratio.value),
            height=long / max(1, ratio.value),
            unit=self.unit,
            ppi=self.ppi,
        )
