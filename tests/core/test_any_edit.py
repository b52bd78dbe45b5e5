"""Whatever is asked, an edit gives a sound finish or a sentence."""

import unittest

from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import TypeAdapter, ValidationError

from lucky_margin.core.document import read_finish
from lucky_margin.core.edits import Edit, apply_edit
from lucky_margin.core.errors import LuckyMarginError
from lucky_margin.core.photos import PhotoFacts
from lucky_margin.core.render import check, layout, render
from tests.support import SHA, finish_of, noise, sources_of

any_number = st.one_of(
    st.floats(allow_nan=False, allow_infinity=False),
    st.floats(-4000, 4000),
    st.sampled_from([0, 1, -1, 0.5, 1e-9, 1e9, 1e300, -1e300]),
)
any_side = st.one_of(st.integers(-2, 20_000), st.integers(1, 400))
fractions = st.one_of(st.floats(-0.1, 1.1), st.sampled_from([0, 0.45, 0.5]))


def kind(name, **fields):
    return st.fixed_dictionaries({"kind": st.just(name), **fields})


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
tones = st.fixed_dictionaries(
    {},
    optional={
        **dict.fromkeys(
            ("exposure", "contrast", "shadows", "blacks", "tint", "grey", "white_point"),
            st.one_of(st.floats(-120, 120), fractions, any_number),
        ),
        "fade": st.fixed_dictionaries({"amount": fractions, "colour": st.none()}),
        "look": st.fixed_dictionaries({"key": st.sampled_from(["ink", "clay", "none"])}),
    },
)
grounds = st.one_of(
    kind("transparent"),
    kind("colour", colour=st.just("#123456")),
    kind("gradient", angle=any_number),
    kind("blurred", blur=fractions),
)
plans = st.fixed_dictionaries({"name": st.text(max_size=5), "pixels": pixels, "shape": shapes})
edits = st.one_of(
    kind(
        "choose_ratio",
        ratio=st.one_of(
            st.none(),
            st.just("original"),
            st.fixed_dictionaries({"width": any_number, "height": any_number}),
        ),
    ),
    kind("set_pixels", pixels=pixels),
    kind(
        "drag_window",
        grip=st.sampled_from(["move", "n", "e", "s", "w", "ne", "se", "sw", "nw"]),
        dx=any_number,
        dy=any_number,
        snap=fractions,
    ),
    kind("draw_window", x0=any_number, y0=any_number, x1=any_number, y1=any_number),
    kind(
        "type_window",
        field=st.sampled_from(
            ["from_left", "from_top", "width", "height", "left", "top", "right", "bottom"]
        ),
        value=any_number,
    ),
    kind("set_window", window=st.one_of(st.none(), boxes)),
    kind("scale_window", factor=any_number),
    kind("set_contain", contain=st.booleans()),
    kind("set_shape", shape=shapes),
    kind(
        "drag_shape",
        grip=st.sampled_from(["move", "scale", "radius"]),
        dx=any_number,
        dy=any_number,
    ),
    kind("set_margin", margin=fractions),
    kind("drag_margin", by=any_number),
    kind("set_turn", changes=turns),
    kind("set_tone", changes=tones),
    kind("turn_quarter", way=st.sampled_from(["left", "right"])),
    kind("mirror", way=st.sampled_from(["across", "down"])),
    kind("level_line", x0=any_number, y0=any_number, x1=any_number, y1=any_number),
    kind("draw_focus", x0=any_number, y0=any_number, x1=any_number, y1=any_number),
    kind("set_ground", place=st.sampled_from(["backdrop", "outside"]), ground=grounds),
    kind("add_size", plan=plans),
    kind("use_size", plan=plans),
    kind("duplicate_size"),
    kind("remove_size"),
    kind("place_size", place=st.integers(-1, 99)),
    kind(
        "set_border",
        changes=st.fixed_dictionaries(
            {
                "thickness": sides,
                "opacity": fractions,
                "outside": st.booleans(),
                "line": st.sampled_from(["solid", "double", "dashed", "dotted"]),
            }
        ),
    ),
    kind("reset_step", step=st.sampled_from(["crop", "tone", "border", "export"])),
)


class AnyEditTest(unittest.TestCase):
    adapter = TypeAdapter(Edit)

    @settings(max_examples=400, deadline=None)
    @given(
        photo=st.sampled_from([(300, 200), (1, 1), (7, 900)]),
        wanted=st.lists(edits, min_size=1, max_size=6),
    )
    def test_edits_of_any_numbers(self, photo, wanted):
        facts = PhotoFacts(*photo, file_format="PNG", bits=8, has_alpha=False)
        sources = sources_of(noise(*photo))
        finish, size_id = finish_of(), "main"
        for data in wanted:
            try:
                edit = self.adapter.validate_python(data)
                edited = apply_edit(finish, size_id, edit, facts)
            except (LuckyMarginError, ValidationError):
                continue
            finish, size_id = edited.finish, edited.size_id
            self.assertEqual(read_finish(finish.model_dump(mode="json")), finish)
            size = finish.size(size_id)
            found = layout(finish, size, sources)
            self.assertEqual(finish.photo.sha256, SHA)
            if found.width * found.height < 250_000:
                picture = render(finish, size, sources)
                self.assertEqual(picture.shape[:2], (found.height, found.width))
                check(finish, size, sources)
