"""Clear photos damaged in known ways, and how far apart two pictures look.

Nothing here is the application's own: the formulas stand a second time, so that a repair is
judged by what it did not make itself. Light is linear sRGB (IEC 61966-2-1), 0..1.
"""

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.types import Picture8

Floats = NDArray[np.float64]

KINDS = ("dark", "bright", "haze", "cast", "noise", "low contrast", "none")

CASTS = {
    "warm": (1.25, 1.0, 0.72),
    "tungsten": (1.45, 1.0, 0.50),
    "shade": (0.80, 1.0, 1.28),
    "green": (0.92, 1.12, 0.90),
    "magenta": (1.12, 0.88, 1.10),
    "yellow": (1.10, 1.06, 0.65),
}
"""Gains of red, green and blue light."""

VEILS = {"light": 0.78, "middle": 0.60, "strong": 0.42}
"""How much of the photo's own light comes through a haze."""

AIR = (0.74, 0.79, 0.84)
"""The haze's own light."""


@dataclass(frozen=True)
class Damage:
    """One way to spoil a photo."""

    kind: str
    name: str
    of: Callable[[Floats, np.random.Generator], Floats]
    """Linear light, shape (rows, columns, 3), and chance, to linear light."""


def _exposed(stops: float) -> Damage:
    return Damage(
        "bright" if stops > 0 else "dark", f"{stops:+.2f} EV", lambda light, _: light * 2**stops
    )


def _hazed(name: str, through: float, *, deep: bool) -> Damage:
    """An even veil, or one that is thicker towards the top, where things are further away."""

    def of(light: Floats, _: np.random.Generator) -> Floats:
        share = np.full((len(light), 1, 1), through)
        if deep:
            share = through ** np.linspace(1.5, 0.5, len(light))[:, None, None]
        veiled: Floats = light * share + np.array(AIR) * (1 - share)
        return veiled

    return Damage("haze", f"{name} veil{', deep' if deep else ''}", of)


def _cast(name: str, gains: tuple[float, float, float]) -> Damage:
    return Damage("cast", name, lambda light, _: light * gains)


def _noisy(stops: float, read: float, shot: float) -> Damage:
    """Too dark, with the noise that a sensor has: even, and growing with the light; neighbouring
    pixels share a little of it."""

    def of(light: Floats, chance: np.random.Generator) -> Floats:
        dark = light * 2**stops
        raw: Floats = chance.standard_normal((light.shape[0] + 1, light.shape[1] + 1, 3))
        shared = (raw[1:, 1:] + 0.5 * raw[:-1, 1:] + 0.5 * raw[1:, :-1]) / np.sqrt(1.5)
        noisy: Floats = dark + np.sqrt(read**2 + shot * np.maximum(dark, 0)) * shared
        return noisy

    return Damage("noise", f"{stops:+.2f} EV, noise {read:g}", of)


def _flat(slope: float, lift: float) -> Damage:
    """Less contrast, in encoded values, about a middle that moves by ``lift``."""
    return Damage(
        "low contrast",
        f"contrast {slope:g}{lift:+g}",
        lambda light, _: decoded(0.5 + lift + slope * (encoded(light) - 0.5)),
    )


DAMAGES = (
    *(_exposed(stops) for stops in (-2.0, -1.3, -0.7, 0.5, 1.0, 1.5)),
    *(_hazed(name, share, deep=deep) for name, share in VEILS.items() for deep in (False, True)),
    *(_cast(name, gains) for name, gains in CASTS.items()),
    _noisy(-1.5, 0.004, 0.0008),
    _noisy(-2.0, 0.006, 0.0012),
    *(_flat(slope, lift) for slope, lift in ((0.75, 0.0), (0.6, 0.05), (0.5, -0.05))),
    Damage("none", "untouched", lambda light, _: light),
)


def damaged(photo: Picture8, damage: Damage, seed: int) -> Picture8:
    """``photo`` spoilt, at 8 bits again."""
    light = decoded(photo.astype(np.float64) / 255)
    spoilt = damage.of(light, np.random.default_rng(seed))
    return np.rint(255 * encoded(spoilt)).astype(np.uint8)


def distance(a: Picture8, b: Picture8) -> float:
    """The mean distance of two pictures in OKLab (B. Ottosson, 2020), whose lightness goes from
    0 to 1."""
    return float(np.linalg.norm(_oklab(a) - _oklab(b), axis=2).mean())


def decoded(values: Floats) -> Floats:
    """Linear light of encoded values (0..1), clipped."""
    values = np.clip(values, 0, 1)
    return np.where(values <= 0.04045, values / 12.92, ((values + 0.055) / 1.055) ** 2.4)


def encoded(light: Floats) -> Floats:
    """The inverse of ``decoded``; light is clipped."""
    light = np.clip(light, 0, 1)
    return np.where(light <= 0.0031308, 12.92 * light, 1.055 * light ** (1 / 2.4) - 0.055)


def _oklab(picture: Picture8) -> Floats:
    red, green, blue = np.moveaxis(decoded(picture[:, :, :3] / 255), 2, 0)
    long = np.cbrt(0.4122214708 * red + 0.5363325363 * green + 0.0514459929 * blue)
    middle = np.cbrt(0.2119034982 * red + 0.6806995451 * green + 0.1073969566 * blue)
    short = np.cbrt(0.0883024619 * red + 0.2817188376 * green + 0.6299787005 * blue)
    return np.stack(
        [
            0.2104542553 * long + 0.7936177850 * middle - 0.0040720468 * short,
            1.9779984951 * long - 2.4285922050 * middle + 0.4505937099 * short,
            0.0259040371 * long + 0.7827717662 * middle - 0.8086757660 * short,
        ],
        axis=2,
    )
