"""Whatever is asked, an edit gives a sound finish or a sentence."""

import unittest
from collections import Counter
from typing import get_args

from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import TypeAdapter, ValidationError

from lucky_margin.core.checks import check
from lucky_margin.core.document import STOCK_PATTERNS, TREATMENT_KINDS, read_finish
from lucky_margin.core.edits import Edit, apply_edit
from lucky_margin.core.errors import LuckyMarginError
from lucky_margin.core.render import layout, render
from lucky_margin.core.scene import Scene
from tests.support import SHA, finish_of, noise, sources_of

any_number = st.one_of(
    st.floats(allow_nan=False, allow_infinity=False),
    st.floats(-4000, 4000),
    st.sampled_from([0, 1, -1, 0.5, 1e-9, 1e9, 1e300, -1e300]),
)
any_side = st.one_of(st.integers(-2, 20_000), st.integers(1, 400))
fractions = st.one_of(st.floats(-0.1, 1.1), st.sampled_from([0, 0.45, 0.5]))


def kind(name, /, **fields):
    return st.fixed_dictionaries({"kind": st.just(name), **fields})


EDITS = {}


def edit(name, /, **fields):
    EDITS[name] = kind(name, **fields)


boxes = st.fixed_dictionaries(dict.fromkeys(("left", "top", "width", "height"), any_number))
pixels = st.one_of(
    kind("fixed", width=any_side, height=any_side),
    kind("one_side", side=st.sampled_from(["width", "height"]), length=any_side),
    kind("as_cropped"),
)
sides = st.fixed_dictionaries(dict.fromkeys(("top", "right", "bottom", "left"), fractions))
places = {"scale": fractions, "x": fractions, "y": fractions}
plain = st.sampled_from(["circle", "oval", "arch", "triangle", "diamond", "heart", "bubble"])
shapes = st.one_of(
    kind("rectangle", radius=fractions),
    kind("polygon", sides=st.integers(2, 25), **places),
    kind("star", points=st.integers(2, 25), depth=fractions, **places),
    kind("blob", seed=st.integers(-1, 10_000), **places),
    st.fixed_dictionaries({"kind": plain, **places}),
)
turns = st.fixed_dictionaries(
    {},
    optional={
        "straighten": st.one_of(st.floats(-50, 50), any_number),
        "quarters": st.integers(-1, 4),
        "mirrored": st.booleans(),
        "empty_corners": st.booleans(),
    },
)
spots = st.fixed_dictionaries({"x": any_number, "y": fractions})
masks = st.one_of(
    kind("band", start=spots, end=spots, inverted=st.booleans()),
    kind("ellipse", centre=spots, radius_x=fractions, angle=any_number),
    kind("light", low=st.floats(-5, 105), softness=fractions),
    kind("hue", hue=any_number, reach=st.floats(0, 200)),
    kind("subject", shift=fractions, feather=fractions, inverted=st.booleans()),
)
areas = st.fixed_dictionaries(
    {
        "masks": st.lists(masks, max_size=5),
        "exposure": st.floats(-6, 6),
        "shadows": st.floats(-110, 110),
    }
)
stops = st.fixed_dictionaries({"at": fractions, "colour": st.just("#886644")})
washes = st.fixed_dictionaries(
    {
        "stops": st.lists(stops, max_size=6),
        "start": spots,
        "end": spots,
        "form": st.sampled_from(["linear", "radial"]),
        "blend": st.sampled_from(["color-burn", "luminosity", "hue"]),
    }
)
tones = st.fixed_dictionaries(
    {},
    optional={
        **dict.fromkeys(
            ("exposure", "contrast", "shadows", "black_point", "tint", "black_and_white", "warmth"),
            st.one_of(st.floats(-120, 120), fractions, any_number),
        ),
        "fade": st.fixed_dictionaries({"amount": fractions, "colour": st.none()}),
        "look": kind("stock", key=st.sampled_from(["ink", "clay", "none"])),
        "areas": st.lists(areas, max_size=3),
        "washes": st.lists(washes, max_size=3),
    },
)
grounds = st.one_of(
    kind("transparent"),
    kind("colour", colour=st.just("#123456")),
    kind("gradient", angle=any_number),
    kind("blurred", blur=fractions),
)
mask_kinds = st.sampled_from(["band", "ellipse", "light", "hue", "subject"])
tone_grips = st.sampled_from(["start", "middle", "end", "right", "below"])
few = st.integers(-1, 2)
drawn_points = st.lists(st.tuples(any_number, any_number), min_size=1, max_size=4)
piece_id = st.sampled_from(["text-1", "badge-1", "picture-1", "mark-1", "text-9"])
piece_ids = st.lists(piece_id, max_size=2)
piece_ends = st.sampled_from(["tail", "tip"])
piece_grips = st.sampled_from(["n", "e", "se", "nw"])
piece_changes = st.fixed_dictionaries(
    {},
    optional={
        "text": st.text(max_size=30),
        "match": any_number,
        "size": st.floats(-0.1, 5),
        "fill": st.booleans(),
        "wrap": st.one_of(st.none(), st.floats(0, 5)),
        "angle": any_number,
        "family": st.sampled_from(["anton", "caveat", "none"]),
        "letter_spacing": st.floats(-0.5, 3),
        "plate": st.fixed_dictionaries({"padding": fractions}),
        "shadow": st.fixed_dictionaries({"blur": fractions}),
        "width": st.floats(0, 5),
        "sizes": st.lists(st.sampled_from(["main", "gone"]), max_size=2),
    },
)
used_subjects = st.fixed_dictionaries(
    {
        "id": st.just(1),
        "name": st.just("Subject"),
        "version": st.just(1),
        "cut_out": st.just({}),
        "box": st.fixed_dictionaries(
            {"left": st.just(0.1), "top": st.just(0.1), "width": fractions, "height": st.just(0.5)}
        ),
    }
)
used_marks = st.fixed_dictionaries(
    {
        "id": st.just(1),
        "name": st.just("Mark"),
        "version": st.just(1),
        "design": st.fixed_dictionaries({"words": st.text(max_size=5)}),
    }
)
marks = st.fixed_dictionaries(
    {},
    optional={
        "text": st.text(max_size=12),
        "mark": used_marks,
        "place": st.sampled_from(["spot", "across", "repeated"]),
        "size": fractions,
        "gap": fractions,
        "angle": any_number,
    },
)
plans = st.fixed_dictionaries({"name": st.text(max_size=5), "pixels": pixels, "shape": shapes})
steps = st.sampled_from(
    [
        "turn",
        "tone",
        "cut_out",
        "outlines",
        "treatments",
        "lifts",
        "border",
        "pieces",
        "watermark",
        "export",
    ]
)
focuses = st.fixed_dictionaries({"point": spots}, optional={"box": boxes})
exports = st.fixed_dictionaries(
    {},
    optional={
        "format": st.sampled_from(["jpeg", "png", "webp", "avif", "tga"]),
        "quality": st.integers(-5, 105),
        "max_kb": st.one_of(st.none(), any_number),
    },
)
unit_boxes = st.fixed_dictionaries(
    dict.fromkeys(("left", "top", "width", "height"), st.floats(0, 0.7))
)
outlines = st.fixed_dictionaries(
    {
        "width": fractions,
        "gap": fractions,
        "softness": fractions,
        "strength": st.floats(0, 5),
        "inside": st.booleans(),
        "blend": st.sampled_from(["normal", "screen"]),
    }
)
pasted = st.one_of(
    kind("text", id=piece_id, text=st.text(max_size=9)),
    kind("badge", id=piece_id, form=st.sampled_from(["star", "tag"]), width=fractions),
)
edit(
    "choose_ratio",
    ratio=st.one_of(
        st.none(),
        st.just("original"),
        st.fixed_dictionaries({"width": any_number, "height": any_number}),
    ),
)
edit("set_pixels", pixels=pixels)
edit(
    "drag_window",
    grip=st.sampled_from(["move", "n", "e", "s", "w", "ne", "se", "sw", "nw"]),
    dx=any_number,
    dy=any_number,
    snap=fractions,
)
edit("draw_window", x0=any_number, y0=any_number, x1=any_number, y1=any_number)
edit(
    "type_window",
    field=st.sampled_from(
        ["from_left", "from_top", "width", "height", "left", "top", "right", "bottom"]
    ),
    value=any_number,
)
edit("set_window", window=st.one_of(st.none(), boxes))
edit("scale_window", factor=any_number)
edit("set_contain", contain=st.booleans())
edit("set_shape", shape=shapes)
edit(
    "drag_shape",
    grip=st.sampled_from(["move", "scale", "radius"]),
    dx=any_number,
    dy=any_number,
)
edit("set_margin", margin=fractions)
edit("drag_margin", by=any_number)
edit("set_turn", changes=turns)
edit("set_tone", changes=tones)
edit("add_wash")
edit(
    "add_area",
    mask=mask_kinds,
    inverted=st.booleans(),
    settings=st.dictionaries(st.sampled_from(["exposure", "tint", "blur"]), any_number),
)
mask_places = st.sampled_from(["area", "treatment"])
edit("add_mask", place=mask_places, number=st.integers(-1, 3), mask=mask_kinds)
edit(
    "pick_for_mask",
    place=mask_places,
    number=few,
    mask=few,
    colour=st.sampled_from(["#3366CC", "#000000"]),
)
edit("drag_wash", number=few, grip=tone_grips, dx=any_number, dy=any_number)
edit(
    "drag_mask",
    place=mask_places,
    number=few,
    mask=few,
    grip=tone_grips,
    dx=any_number,
    dy=any_number,
)
edit("add_text", purpose=st.sampled_from(["headline", "price"]), text=st.text(max_size=9))
edit("add_badge", form=st.sampled_from(["arrow", "burst", "ring", "bubble"]))
edit(
    "add_picture",
    sha256=st.just(SHA),
    ratio=st.floats(-1, 9),
    subject=st.one_of(st.none(), used_subjects),
)
edit("set_piece_subject", id=piece_id, subject=st.one_of(st.none(), used_subjects))
edit("add_mark", mark=used_marks)
edit("set_piece", ids=piece_ids, changes=piece_changes, only_this_size=st.booleans())
edit("drag_pieces", ids=piece_ids, dx=any_number, dy=any_number, snap=fractions)
edit("scale_piece", id=piece_id, grip=piece_grips, dx=any_number, dy=any_number)
edit("turn_piece", id=piece_id, distance=fractions, dx=any_number, dy=any_number)
edit("align_pieces", ids=piece_ids, to=st.sampled_from(["left", "middle", "both"]))
edit("anchor_piece", id=piece_id, to=st.sampled_from(["margin", "photo"]))
edit("place_piece", id=piece_id, x=any_number, y=any_number)
edit("duplicate_pieces", ids=piece_ids)
edit("remove_pieces", ids=piece_ids)
edit("group_pieces", ids=piece_ids, together=st.booleans())
edit(
    "point_piece",
    id=piece_id,
    end=st.sampled_from(["tail", "tip"]),
    dx=any_number,
    dy=any_number,
)
edit("release_tip", id=piece_id)
edit("order_piece", id=piece_id, to=st.sampled_from(["front", "backward"]))
edit("set_watermark", changes=marks)
edit("drag_watermark", dx=any_number, dy=any_number, snap=fractions)
edit("turn_quarter", way=st.sampled_from(["left", "right"]))
edit("mirror", way=st.sampled_from(["across", "down"]))
edit("level_line", x0=any_number, y0=any_number, x1=any_number, y1=any_number)
edit("draw_focus", x0=any_number, y0=any_number, x1=any_number, y1=any_number)
edit(
    "set_ground",
    place=st.sampled_from(["backdrop", "outside"]),
    ground=grounds,
    only_this_size=st.booleans(),
)
edit("add_size", plan=plans)
edit("use_size", plan=plans)
edit("duplicate_size")
edit("remove_size")
edit("place_size", place=st.integers(-1, 99))
bands = st.one_of(
    st.fixed_dictionaries(
        {"kind": st.just("line")},
        optional={
            "thickness": sides,
            "opacity": fractions,
            "around": st.booleans(),
            "line": st.sampled_from(["solid", "double", "dashed", "dotted"]),
            "corners": st.sampled_from(["square", "round", "cut"]),
        },
    ),
    st.fixed_dictionaries(
        {"kind": st.just("mat")},
        optional={
            "thickness": sides,
            "around": st.booleans(),
            "profile": st.sampled_from(["board", "sloped", "round", "stepped"]),
            "texture": st.sampled_from(["smooth", "paper", "linen"]),
            "bevel": fractions.map(lambda share: share / 20),
            "depth": fractions.map(lambda share: share / 10),
        },
    ),
    st.fixed_dictionaries(
        {"kind": st.just("pattern"), "pattern": st.sampled_from(STOCK_PATTERNS)},
        optional={
            "thickness": sides,
            "around": st.booleans(),
            "ground": st.sampled_from([None, "#123456"]),
            "picture": st.just({"sha256": SHA, "ratio": 1.3}),
        },
    ),
    st.fixed_dictionaries(
        {"kind": st.just("brushed")},
        optional={
            "thickness": sides,
            "look": st.sampled_from(["paint", "dry", "chalk", "torn", "ink", "dots"]),
            "roughness": fractions,
            "blend": st.sampled_from(["normal", "multiply"]),
        },
    ),
)
edit("set_border", changes=st.fixed_dictionaries({"bands": st.lists(bands, max_size=4)}))
treatments = st.one_of(
    st.sampled_from([{"kind": name} for name in TREATMENT_KINDS]),
    st.fixed_dictionaries(
        {"kind": st.just("mosaic")},
        optional={"cell": fractions, "joint": fractions, "strength": any_number},
    ),
    st.fixed_dictionaries(
        {"kind": st.just("dots")},
        optional={"pitch": fractions, "angle": any_number, "ink": st.none()},
    ),
    st.fixed_dictionaries(
        {"kind": st.just("sharp_zone")},
        optional={"form": st.sampled_from(["band", "round"]), "sharp": fractions},
    ),
)
lifts = st.fixed_dictionaries(
    {},
    optional={
        "region": st.one_of(
            st.just({"kind": "subject"}),
            st.fixed_dictionaries({"kind": st.just("shape"), "box": unit_boxes}),
        ),
        "edge": fractions,
        "tilt": any_number,
        "size": any_number,
    },
)
edit("set_treatments", changes=st.fixed_dictionaries({"made": st.lists(treatments, max_size=3)}))
edit("drag_zone", number=few, grip=tone_grips, dx=any_number, dy=any_number)
edit("set_lifts", changes=st.fixed_dictionaries({"lifted": st.lists(lifts, max_size=3)}))
edit("add_lift", shape=st.one_of(st.none(), shapes))
edit("drag_corner", id=piece_id, corner=st.integers(0, 3), dx=any_number, dy=any_number)
edit("take_apart", id=piece_id)
edit("drag_lift", number=few, grip=tone_grips, dx=any_number, dy=any_number)
edit("set_band_picture", band=st.integers(0, 2), sha256=st.just(SHA))
edit("set_focus", focus=st.one_of(st.none(), focuses))
edit("set_export", changes=exports, only_this_size=st.booleans())
edit("set_file_details", author=st.text(max_size=9), name_pattern=st.text(max_size=9))
edit("follow", step=st.one_of(steps, st.sampled_from(["backdrop", "outside"])))
edit(
    "switch_step",
    step=st.sampled_from(["tone", "cut_out", "border", "watermark"]),
    on=st.booleans(),
)
edit("follow_piece", id=piece_id)
edit("paste_pieces", pieces=st.lists(pasted, max_size=3))
edit("set_cut_out", changes=st.fixed_dictionaries({"on": st.booleans()}))
edit("set_subject", boxes=st.lists(unit_boxes, max_size=2), keep_strokes=st.booleans())
edit("draw_subject", x0=any_number, y0=any_number, x1=any_number, y1=any_number)
edit("set_subject_mask", mask=st.sampled_from([SHA, "cd" * 32]))
edit(
    "draw_stroke",
    brush=st.sampled_from(["keep", "leave_out", "soft_edge", "erase", "bring_back"]),
    radius=any_number,
    points=drawn_points,
)
edit(
    "square_up",
    corners=st.one_of(
        st.none(), st.lists(st.tuples(any_number, any_number), min_size=4, max_size=4)
    ),
    ratio=st.one_of(st.none(), st.fixed_dictionaries({"width": fractions, "height": fractions})),
)
edit(
    "swap_photo",
    sha256=st.sampled_from([SHA, "cd" * 32]),
    focus=st.one_of(st.none(), focuses),
    subjects=st.lists(boxes, max_size=2),
)
style_parts = st.fixed_dictionaries(
    {},
    optional={
        "sizes": st.lists(
            st.fixed_dictionaries(
                {
                    "id": st.sampled_from(["main", "other"]),
                    "name": st.text(max_size=3),
                    "pixels": pixels,
                    "shape": shapes,
                }
            ),
            max_size=3,
        ),
        "ground": st.fixed_dictionaries({"backdrop": grounds}),
        "look": st.fixed_dictionaries({"washes": st.lists(washes, max_size=2)}),
        "cut_out": st.fixed_dictionaries({"on": st.booleans()}),
        "pieces": st.lists(kind("text", id=st.sampled_from(["style-1", "style-2"])), max_size=2),
        "watermark": marks,
        "export": exports,
    },
)
part_keys = st.sampled_from(["sizes", "light", "cut_out", "border", "pieces", "none"])
house_styles = st.fixed_dictionaries(
    {
        "id": st.sampled_from(["0" * 16, "1" * 16]),
        "name": st.text(max_size=4),
        "parts": style_parts,
        "suggest_light": st.booleans(),
    }
)
edit("adopt_style", style=house_styles)
edit(
    "use_style",
    style=house_styles,
    put=st.one_of(st.none(), st.lists(part_keys, max_size=3)),
    light=st.one_of(st.none(), st.fixed_dictionaries({"exposure": st.floats(-6, 6)})),
    subjects=st.lists(boxes, max_size=2),
)
edit("take_style_part", part=part_keys)
edit("remove_style")
zones = st.fixed_dictionaries(
    {"name": st.text(max_size=4), "box": unit_boxes, "round": st.booleans()}
)
edit("set_covered", covered=st.lists(zones, max_size=5))
edit(
    "drag_covered",
    number=st.integers(-1, 4),
    grip=st.sampled_from(["move", "corner"]),
    dx=any_number,
    dy=any_number,
)
edit("draw_spot", radius=any_number, points=drawn_points)
edit("remove_spot", number=st.one_of(st.none(), few))
edit("set_spots", changes=st.fixed_dictionaries({"on": st.booleans()}))
edit(
    "set_subject_shadow",
    changes=st.fixed_dictionaries(
        {},
        optional={
            "cast": st.none()
            | st.fixed_dictionaries(
                {"angle": any_number, "distance": fractions, "softness": fractions}
            ),
            "contact": st.none() | st.fixed_dictionaries({"height": fractions}),
            "own": fractions,
        },
    ),
)
edit("stand_subject", height=fractions, line=fractions)
edit("drag_subject", dx=any_number, dy=any_number, snap=fractions)
edit("delete_stroke", number=st.one_of(st.none(), few))
edit("set_subject_edge", shift=fractions, softness=fractions, specks=fractions, holes=fractions,
     soft_hair=st.booleans())  # fmt: skip
edit("set_outlines", changes=st.fixed_dictionaries({"lines": st.lists(outlines, max_size=6)}))
edit("rename", name=st.text(max_size=9))
edit("rename_size", name=st.text(max_size=9))
edit("set_seen_width", seen_width=any_side)
edit("reset_step", step=st.one_of(st.just("crop"), steps))
edits = st.one_of(*EDITS.values())


class AnyEditTest(unittest.TestCase):
    adapter = TypeAdapter(Edit)

    def test_every_kind_of_edit_is_tried(self):
        union, *_ = get_args(Edit)
        kinds = {one.model_fields["kind"].default for one in get_args(union)}
        self.assertEqual(set(EDITS), kinds)

    def test_edits_of_any_numbers(self):
        taken = Counter()

        @settings(max_examples=150)
        @given(
            photo=st.sampled_from([(300, 200), (1, 1), (7, 900)]),
            wanted=st.lists(edits, min_size=1, max_size=6),
        )
        def try_edits(photo, wanted):
            taken.update(self.carried_out(photo, wanted))

        try_edits()
        # Most of the nonsense is refused; but if hardly anything got through, nothing was tested.
        self.assertGreater(taken.total(), 60, taken)
        self.assertGreater(len(taken), len(EDITS) / 3, taken)

    def carried_out(self, photo, wanted):
        """The kinds of the edits that were taken, each of which gave a sound finish."""
        sources = sources_of(noise(*photo))
        finish, size_id = finish_of(), "main"
        for data in wanted:
            try:
                edited = apply_edit(
                    Scene.of(finish, size_id, sources), self.adapter.validate_python(data)
                )
            except (LuckyMarginError, ValidationError):
                continue
            finish, size_id = edited.finish, edited.size_id
            self.assertEqual(read_finish(finish.model_dump(mode="json")), finish)
            self.assertEqual(finish.photo.sha256, SHA)
            size = finish.size(size_id)
            found = layout(Scene(finish, size, sources))
            if found.width * found.height < 250_000:
                picture = render(Scene(finish, size, sources))
                self.assertEqual(picture.shape[:2], (found.height, found.width))
                check(Scene(finish, size, sources))
            yield data["kind"]
