"""Where the subject of a photo may be, when nobody has drawn a box."""

from lucky_margin.core.cut_out.places import WHOLE_PHOTO
from lucky_margin.core.document import Box
from lucky_margin.core.finding.boxes import with_room
from lucky_margin.core.finding.focus import focus_candidates
from lucky_margin.core.scene import TakenPhoto

ROOM = 0.06
"""What is added round a box that was found, of its sides."""


def subject_candidates(taken: TakenPhoto) -> list[Box]:
    """Boxes (photo space) that may hold the subject, the likeliest first; at least one. A face is
    none: what belongs to it is the person.

    Raises:
        NotFound: the photo is not known.
    """
    found = [one.box for one in focus_candidates(taken) if one.found_by != "faces"]
    return [with_room(box, ROOM) for box in found] or [WHOLE_PHOTO]
