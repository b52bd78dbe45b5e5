"""Affine mappings of the plane."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Affine:
    """``x' = a x + b y + x0``, ``y' = c x + d y + y0``."""

    a: float
    b: float
    c: float
    d: float
    x0: float = 0
    y0: float = 0

    def __call__(self, x: float, y: float) -> tuple[float, float]:
        """Where a point leads to."""
        return self.a * x + self.b * y + self.x0, self.c * x + self.d * y + self.y0

    def after(self, first: "Affine") -> "Affine":
        """The mapping that does ``first`` and then this one."""
        x0, y0 = self(first.x0, first.y0)
        return Affine(
            a=self.a * first.a + self.b * first.c,
            b=self.a * first.b + self.b * first.d,
            c=self.c * first.a + self.d * first.c,
            d=self.c * first.b + self.d * first.d,
            x0=x0,
            y0=y0,
        )

    @property
    def inverse(self) -> "Affine":
        """The mapping back.

        Raises:
            ZeroDivisionError: there is none.
        """
        determinant = self.a * self.d - self.b * self.c
        a, b = self.d / determinant, -self.b / determinant
        c, d = -self.c / determinant, self.a / determinant
        return Affine(a, b, c, d, -(a * self.x0 + b * self.y0), -(c * self.x0 + d * self.y0))

    @property
    def mean_scale(self) -> float:
        """How long a unit comes out, on average over directions."""
        return float(abs(self.a * self.d - self.b * self.c) ** 0.5)


UNCHANGED = Affine(1, 0, 0, 1)


def scaling(x: float, y: float) -> Affine:
    """The mapping that makes everything so many times larger."""
    return Affine(x, 0, 0, y)
