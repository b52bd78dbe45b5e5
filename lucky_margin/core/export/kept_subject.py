"""A subject as it is kept for other finishes."""

from lucky_margin.core.cut_out import FAINT, box_of
from lucky_margin.core.document import SubjectOfPhoto
from lucky_margin.core.errors import BadInput
from lucky_margin.core.render.shown import shown_photo
from lucky_margin.core.scene import Scene


def kept_subject(scene: Scene) -> SubjectOfPhoto:
    """What of the scene's photo is cut out, and the box around all that shows of it.

    Raises:
        BadInput: nothing is cut out, or nothing was found.
        NotFound: the photo is not known.
    """
    photo = shown_photo(scene)
    if photo.shows != "subject":
        raise BadInput("Nothing is cut out yet; find the subject first.")
    box = box_of(photo.matte(), FAINT)
    if box is None:
        raise BadInput("Nothing was found to save; draw a box around the subject.")
    return SubjectOfPhoto(
        sha256=photo.taken.sha256, square=photo.taken.square, cut_out=scene.cut_out, box=box
    )
