"""Whether a finish can be shown at all, before it is kept."""

from lucky_margin.core.document import Finish, photos_of
from lucky_margin.core.scene import Sources, sound_scenes


def check_sound(finish: Finish, sources: Sources) -> None:
    """Check what laying out any of the finish's sizes would stumble over.

    Raises:
        NotFound: a photo or picture is not known.
        TooLarge: a size comes to too many pixels.
    """
    for sha256 in photos_of(finish):
        sources.facts(sha256)
    sound_scenes(finish, sources)
