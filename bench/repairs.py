"""How near the suggested tone brings damaged photos back, by kind of damage."""

from collections import defaultdict
from collections.abc import Iterator
from pathlib import Path

import numpy as np
from PIL import Image

import tests.truth
from bench.material import DEMO_PHOTO, SHA
from lucky_margin.core.document import Export, new_finish
from lucky_margin.core.photos import decode
from lucky_margin.core.render import render
from lucky_margin.core.scene import MemorySources, Scene
from lucky_margin.core.tone import propose_tone
from lucky_margin.core.types import Picture8
from tests.support import encoded
from tests.truth.damage import DAMAGES, damaged, distance

SCENES = Path(tests.truth.__file__).parent / "scenes"

SIDE = 320

TUNED_ON = (
    *("bird-figure", "bowl-top", "shelf-wide"),
    *("dark-jug", "hair-figure", "leafy-plant", "stems-shelf"),
)
HELD_OUT = (
    *("vase-grasses", "mugs-window", "bench-tools"),
    *("fur-animal", "lattice-basket", "pale-jug", "three-mugs"),
)
SEEDS = {"tuned on": 1, "held out": 2}


def repair_report() -> Iterator[str]:
    """One line for each kind of damage: the mean OKLab distance to the clear photo before and
    after, of the photos that were tuned on and of those that were not."""
    yield "Suggested tone: mean OKLab distance to the clear photo, before and after"
    for half, names in (("tuned on", TUNED_ON), ("held out", HELD_OUT)):
        before, after = defaultdict(list), defaultdict(list)
        for name in names:
            clear = _clear(name)
            for damage in DAMAGES:
                spoilt = damaged(clear, damage, SEEDS[half])
                before[damage.kind].append(distance(spoilt, clear))
                after[damage.kind].append(distance(_repaired(spoilt), clear))
        for kind, distances in before.items():
            was, now = np.mean(distances), np.mean(after[kind])
            ratio = f"{now / was:.2f}" if was > 1e-6 else "   -"
            yield f"  {half:9} {kind:13} {was:.4f} {now:.4f} {ratio}"


def _clear(name: str) -> Picture8:
    folder = SCENES if (SCENES / f"{name}.jpg").exists() else DEMO_PHOTO.parent
    photo = Image.open(folder / f"{name}.jpg").convert("RGB")
    photo.thumbnail((SIDE, SIDE), Image.Resampling.BOX)
    return np.asarray(photo)


def _repaired(photo: Picture8) -> Picture8:
    finish = new_finish(name="Repair", photo_sha256=SHA)
    finish = finish.model_copy(update={"tone": propose_tone(photo), "export": Export(format="png")})
    sources = MemorySources({SHA: decode(encoded(photo))})
    return render(Scene(finish, finish.sizes[0], sources))
