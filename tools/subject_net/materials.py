"""Made-up materials for the path tracer: of any colour or pattern, dull to shiny."""

import cv2
import mitsuba as mi
import numpy as np
from numpy.random import Generator
from numpy.typing import NDArray

from tools.subject_net.meshes import Points, Shape


class Materials:
    """Draws one material after another, in Mitsuba's terms."""

    def __init__(self, rng: Generator) -> None:
        self.rng, self.uniform = rng, rng.uniform

    def any(self) -> Shape:
        """Plain or patterned, now and then metal."""
        pattern = self._pattern() if self.uniform() < 0.6 else np.ones((2, 2, 3)) * self._colour()
        metallic = self.uniform(0.6, 1) if self.uniform() < 0.1 else 0.01
        surface = {
            "type": "principled",
            "roughness": float(self.uniform(0.08, 0.95)),
            "specular": float(self.uniform(0.1, 0.8)),
            "metallic": float(metallic),
            "base_color": {
                "type": "bitmap", "bitmap": mi.Bitmap(pattern.astype(np.float32)), "raw": True,
            },
        }  # fmt: skip
        return {"type": "twosided", "surface": surface}

    def _colour(self) -> Points:
        hue, value = self.uniform(0, 180), self.uniform(0.1, 0.95) * 255
        saturation = self.uniform(0, 255) * self.rng.choice([0.3, 1])
        colour = cv2.cvtColor(np.uint8([[[hue, saturation, value]]]), cv2.COLOR_HSV2RGB)[0, 0]
        return np.asarray((colour / 255.0) ** 2.2)

    def _noise(self, side: int, cells: float, octaves: int = 4) -> NDArray[np.float32]:
        total = np.zeros((side, side), np.float32)
        for octave in range(octaves):
            count = max(2, int(cells * 2**octave))
            field = self.rng.standard_normal((count, count)).astype(np.float32)
            total += cv2.resize(field, (side, side), interpolation=cv2.INTER_CUBIC) * 0.55**octave
        return total

    def _pattern(self, side: int = 128) -> Points:
        """Linear colours, shape (side, side, 3)."""
        uniform, noise = self.uniform, self._noise
        colours = [self._colour() for _ in range(4)]
        y, x = np.mgrid[0:side, 0:side] / side
        wavy = 20 * y * uniform(0.2, 2)
        share = [
            lambda: noise(side, uniform(2, 12)) * 0.5 + 0.5,
            lambda: np.sin((x * uniform(0, 30) + y * uniform(3, 40)) * 2 * np.pi
                           + noise(side, 3) * uniform(0, 1.5)) > 0,
            lambda: (np.floor(x * self.rng.integers(2, 14))
                     + np.floor(y * self.rng.integers(2, 14))) % 2,
            lambda: noise(side, uniform(5, 25), 2) > 1,
            lambda: y + 0.15 * noise(side, 5),
            lambda: ((x * 6) % 1 < 0.06) | ((y * 6) % 1 < 0.06),
            lambda: np.abs(np.sin(x * 3 * uniform(1, 5) + 3 * noise(side, 2) + wavy)),
        ][self.rng.integers(7)]()  # fmt: skip
        share = np.clip(share, 0, 1)[..., None]
        pattern = colours[0] * (1 - share) + colours[1] * share
        if uniform() < 0.4:  # another half
            below = (y > uniform(0.2, 0.8))[..., None]
            pattern = np.where(below, colours[2] * (1 - share) + colours[3] * share, pattern)
        return np.clip(pattern * (1 + 0.12 * noise(side, 10)[..., None]), 0.005, 0.95)
