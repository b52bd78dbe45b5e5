"""The scene: what edits, rendering, layout and checks of one size all start from."""

from lucky_margin.core.scene.cache import PictureCache
from lucky_margin.core.scene.scene import NO_SCENES, Scene, Scenes, scenes_of, sound_scenes
from lucky_margin.core.scene.sources import DerivedKey, MemorySources, Sources
from lucky_margin.core.scene.taken import TakenPhoto

__all__ = [
    "NO_SCENES",
    "DerivedKey",
    "MemorySources",
    "PictureCache",
    "Scene",
    "Scenes",
    "Sources",
    "TakenPhoto",
    "scenes_of",
    "sound_scenes",
]
