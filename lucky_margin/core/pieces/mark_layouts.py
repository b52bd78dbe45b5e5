"""Arrangements that a mark can start from; the person's own words go into them."""

from lucky_margin.core.document import MarkDesign

MARK_LAYOUTS: dict[str, MarkDesign] = {
    "plain": MarkDesign(family="figtree", weight=900),
    "with rule": MarkDesign(family="zilla-slab", weight=700, rule=True),
    "stacked": MarkDesign(family="figtree", icon="sprout"),
    "side by side": MarkDesign(family="zilla-slab", layout="beside", icon="sprout"),
    "side by side with rule": MarkDesign(
        family="source-serif-4", layout="beside", icon="sprout", rule=True
    ),
    "on a ring": MarkDesign(family="figtree", layout="round", case="capitals"),
    "round with icon": MarkDesign(
        family="zilla-slab", layout="round", case="capitals", icon="sprout"
    ),
    "round seal": MarkDesign(
        family="figtree", layout="round", case="capitals", icon="sprout", frame="circle"
    ),
    "label": MarkDesign(family="figtree", weight=900, case="capitals", frame="label"),
    "boxed": MarkDesign(family="zilla-slab", frame="box", rule=True),
    "oval": MarkDesign(family="playfair-display", frame="oval", icon="sprout"),
    "badge": MarkDesign(family="source-serif-4", frame="circle", icon="sprout", rule=True),
}
"""A dozen, by what they are called; icons stand for one's own."""
