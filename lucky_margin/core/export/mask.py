"""The cut-out as a picture of its own."""

from lucky_margin.core.errors import BadInput
from lucky_margin.core.png import png
from lucky_margin.core.render.shown import shown_photo
from lucky_margin.core.sampling import as_8_bits
from lucky_margin.core.scene import Scene


def mask_file(scene: Scene) -> bytes:
    """A greyscale PNG over the whole photo, in photo pixels: white is subject. Given back as a
    mask it cuts out the same.

    Raises:
        BadInput: nothing is cut out.
        NotFound: the photo is not known.
    """
    photo = shown_photo(scene)
    if photo.shows != "subject":
        raise BadInput("Nothing is cut out yet; find the subject first.")
    return png(as_8_bits(photo.level(0))[:, :, 3])
