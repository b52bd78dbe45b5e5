"""The scene: what edits, rendering, layout and checks of one size all start from."""

from lucky_margin.core.scene.cache import PictureCache
from lucky_margin.core.scene.scene import NO_SCENES, Scene, Scenes, scenes_of, sound_scenes
from lucky_margin.core.scene.sources import DerivedKey, MemorySources, Sources
from lucky_margin.core.scene.subjects import MATTE, Subject, subject_digest, subjects_in
from lucky_margin.core.scene.taken import TakenPhoto

__all__ = [
    "MATTE",
    "NO_SCENES",
    "DerivedKey",
    "MemorySources",
    "PictureCache",
    "Scene",
    "Scenes",
    "Sources",
    "Subject",
    "TakenPhoto",
    "scenes_of",
    "sound_scenes",
    "subject_digest",
    "subjects_in",
]
