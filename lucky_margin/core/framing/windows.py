"""Windows: which part of a photo a size shows. All boxes here are in photo pixels."""

from lucky_margin.core.document import Box, Focus

MIN_WINDOW = 1.0
"""The shortest side of a window, in photo pixels."""


def whole(photo_width: int, photo_height: int) -> Box:
    """The whole photo as a box."""
    return Box(left=0, top=0, width=photo_width, height=photo_height)


def largest_inside(outer: Box, ratio: float) -> Box:
    """The largest box of ``ratio`` (width over height) inside ``outer``, on its centre."""
    width = min(outer.width, outer.height * ratio)
    height = width / ratio
    x, y = outer.center
    return Box(left=x - width / 2, top=y - height / 2, width=width, height=height)


def moved_inside(box: Box, photo: Box) -> Box:
    """``box`` moved the least way that brings it inside ``photo``; sides that are longer than
    the photo's are shortened to them first."""
    width, height = min(box.width, photo.width), min(box.height, photo.height)
    x, y = box.center
    return Box(
        left=clamped(x - width / 2, photo.left, photo.right - width),
        top=clamped(y - height / 2, photo.top, photo.bottom - height),
        width=width,
        height=height,
    )


def on_whole_pixels(box: Box, photo: Box) -> Box:
    """``box`` with whole sides and corners, each within half a pixel, inside ``photo``."""
    width, height = max(1, round(box.width)), max(1, round(box.height))
    return moved_inside(
        Box(left=round(box.left), top=round(box.top), width=width, height=height), photo
    )


def following(focus: Focus | None, photo: Box, ratio: float | None) -> Box:
    """The largest window of ``ratio`` inside ``photo`` that follows ``focus``.

    It is centred on the focus point, then moved to keep the focus box in. Where the box is
    larger than the window the window is centred on the box. Without a focus it is centred on
    the photo; without a ratio it is the whole photo.
    """
    if ratio is None:
        return photo
    window = largest_inside(photo, ratio)
    if focus is None:
        return window
    x, y = focus.point.x * photo.width, focus.point.y * photo.height
    left, top = x - window.width / 2, y - window.height / 2
    if focus.box is not None:
        box = focus.box.scaled(photo.width, photo.height)
        left = _covering(left, window.width, box.left, box.width)
        top = _covering(top, window.height, box.top, box.height)
    return moved_inside(Box(left=left, top=top, width=window.width, height=window.height), photo)


def _covering(start: float, length: float, box_start: float, box_length: float) -> float:
    """The start nearest to ``start`` at which a window covers the box (or is centred on it)."""
    if box_length > length:
        return box_start + (box_length - length) / 2
    return clamped(start, box_start + box_length - length, box_start)


def clamped(value: float, low: float, high: float) -> float:
    """``value``, or the nearer of the two bounds."""
    return min(max(value, low), high)
