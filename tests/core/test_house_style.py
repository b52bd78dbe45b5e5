"""House styles: kept from one finish, given to others, renewed, and taken away again."""

import unittest

from hypothesis import given
from hypothesis import strategies as st

from lucky_margin.core.document import (
    PART_KEYS,
    Area,
    BandMask,
    Box,
    CutOut,
    Export,
    FixedPixels,
    PhotoAnchor,
    PhotoPoint,
    Size,
    StockLook,
    TextPiece,
    Tone,
    Window,
    changed_since,
    chosen_colours,
    families_of,
    kept_style,
    with_style,
    without_style,
)
from lucky_margin.core.document.history import describe_change
from lucky_margin.core.edits import apply_edit
from lucky_margin.core.edits.steps import SetTone
from lucky_margin.core.edits.styling import AdoptStyle, RemoveStyle, TakeStylePart, UseStyle
from lucky_margin.core.edits.swapping import SwapPhoto
from lucky_margin.core.errors import BadInput
from lucky_margin.core.proposals import started, style_changes, style_proposal
from lucky_margin.core.tone import propose_tone
from tests.support import (
    SHA,
    demo_sources,
    finish_of,
    gradient,
    noise,
    scene_of,
    sources_of,
    with_size,
)

OTHER = "cd" * 32
SOURCES = sources_of(noise(300, 200), others={OTHER: gradient(400, 600)})
ID = "0123456789abcdef"
FULL = tuple(key for key in PART_KEYS if key != "light")

SQUARE = Size(id="square", name="Square", pixels=FixedPixels(width=200, height=200))
WIDE = Size(
    id="wide",
    name="Wide",
    pixels=FixedPixels(width=300, height=100),
    crop={"window": Window(centre_x=90, centre_y=80, width=60, height=20)},
    overrides={"pieces": {"words": {"dx": 0.1}}},
)


def shop_finish():
    """A finish in which every part of a style is set, and something hangs on its photo."""
    words = TextPiece(id="words", text="Fresh from the kiln", group=1)
    point = PhotoAnchor(point=PhotoPoint(x=0.3, y=0.6))
    return finish_of(
        tone=Tone(
            exposure=0.4,
            look=StockLook(key="golden", strength=60),
            areas=(Area(masks=(BandMask(),), exposure=1),),
        ),
        cut_out={"on": True, "boxes": [{"left": 0.2, "top": 0.2, "width": 0.4, "height": 0.4}]},
        outlines={"lines": [{"width": 0.03}]},
        backdrop={"kind": "colour", "colour": "#AABBCC"},
        treatments={"made": [{"kind": "grain"}, {"kind": "glow", "masks": [BandMask()]}]},
        border={"bands": [{"kind": "line", "colour": "#0A6B52"}]},
        pieces=(
            words,
            words.model_copy(update={"id": "price", "text": "12", "sizes": ("wide",)}),
            words.model_copy(update={"id": "there", "anchor": point}),
        ),
        watermark={"text": "Pebblewick"},
        export=Export(format="webp", author="Ada", alt_text="A bowl"),
        sizes=(SQUARE, WIDE),
    )


def kept(keys=FULL, *, suggest_light=False, finish=None, version=1):
    style = kept_style(finish or shop_finish(), ID, "Shop", keys, suggest_light=suggest_light)
    return style.model_copy(update={"version": version})


def with_border(finish, colour):
    border = {"bands": [{"kind": "line", "colour": colour}]}
    return type(finish).model_validate(finish.model_dump() | {"border": border})


class KeepingTest(unittest.TestCase):
    def test_what_hangs_on_the_photo_is_left_out(self):
        parts = kept().parts
        self.assertEqual([piece.id for piece in parts.pieces], ["style-1", "style-2"])
        self.assertEqual([one.kind for one in parts.treatments.made], ["grain"])
        self.assertIsNone(parts.sizes[1].crop.window)
        self.assertEqual(set(parts.sizes[1].overrides.pieces), {"style-1"})
        self.assertEqual(parts.export.alt_text, "")
        self.assertEqual(parts.look.look.key, "golden")

    def test_only_what_is_chosen_is_kept(self):
        style = kept(("border", "pieces"))
        self.assertEqual(style.parts.given, ("border", "pieces"))
        self.assertTrue(all(piece.sizes is None for piece in style.parts.pieces))
        self.assertEqual(kept(("sizes",)).parts.sizes[1].overrides.pieces, {})


class GivingTest(unittest.TestCase):
    def test_its_colours_are_those_somebody_set_the_most_used_first(self):
        pieces = tuple(
            TextPiece(id=f"text-{n}", text="Cup", colour=colour, family=family)
            for n, (colour, family) in enumerate(
                [("#1F6B4B", "figtree"), ("#AA2200", "zilla-slab"), ("#AA2200", "figtree")]
            )
        )
        parts = kept(("pieces", "border"), finish=finish_of(pieces=pieces)).parts
        self.assertEqual(chosen_colours(parts), ["#AA2200", "#1F6B4B"])
        self.assertEqual(families_of(parts), ["figtree", "zilla-slab"])

    def test_a_plain_finish_becomes_like_the_one_it_was_kept_from(self):
        shop = shop_finish()
        given = with_style(finish_of(), kept())
        self.assertEqual(given.border, shop.border)
        self.assertEqual(given.outlines, shop.outlines)
        self.assertEqual(given.backdrop, shop.backdrop)
        self.assertEqual(given.tone.look, shop.tone.look)
        self.assertEqual(given.tone.exposure, 0)
        self.assertTrue(given.cut_out.on)
        self.assertEqual(given.cut_out.boxes, ())
        self.assertEqual([size.name for size in given.sizes], ["Square", "Wide"])
        self.assertEqual([piece.text for piece in given.pieces], ["Fresh from the kiln", "12"])
        self.assertEqual(given.export.author, "Ada")

    @given(
        st.sets(st.sampled_from(FULL)),
        st.sets(st.sampled_from(FULL)),
        st.sampled_from([finish_of(), shop_finish(), finish_of(300, 100)]),
    )
    def test_it_is_idempotent_and_undone_exactly(self, keys, put, finish):
        style = kept(keys)
        for taken in (None, put):
            once = with_style(finish, style, put=taken)
            self.assertEqual(with_style(once, style), once)
            self.assertEqual(without_style(once), finish)

    def test_own_pieces_stay_behind_those_of_the_style(self):
        own = TextPiece(id="text-1", text="Mine")
        given = with_style(finish_of(pieces=(own,)), kept(("pieces",)))
        self.assertEqual([piece.id for piece in given.pieces], ["text-1", "style-1", "style-2"])
        self.assertEqual(without_style(given).pieces, (own,))

    def test_the_alternative_text_of_a_photo_stays(self):
        given = with_style(finish_of(export=Export(alt_text="A mug")), kept(("export",)))
        self.assertEqual(given.export.alt_text, "A mug")
        self.assertEqual(given.export.format, "webp")
        self.assertEqual(changed_since(given), ())

    def test_a_crop_does_not_count_as_a_change_of_the_sizes(self):
        given = with_style(finish_of(), kept(("sizes",)))
        window = Window(centre_x=50, centre_y=50, width=40, height=40)
        framed = with_size(given, crop={"window": window})
        self.assertEqual(changed_since(framed), ())
        again = with_style(framed, kept(("sizes",), version=2))
        self.assertEqual(again.sizes[0].crop.window, window)

    def test_another_style_takes_the_first_ones_place(self):
        first = kept(("border", "pieces"))
        second = kept(("watermark",)).model_copy(update={"id": "f" * 16, "name": "Winter"})
        both = with_style(with_style(finish_of(), first), second)
        self.assertEqual(both.border, finish_of().border)
        self.assertEqual(both.pieces, ())
        self.assertEqual(without_style(both), finish_of())


class AdoptingTest(unittest.TestCase):
    """The finish that a style is kept from has it too, and looks as before."""

    def test_nothing_looks_different_and_it_is_undone_exactly(self):
        shop = shop_finish()
        adopted = apply_edit(scene_of(shop, SOURCES), AdoptStyle(style=kept())).finish
        self.assertEqual([p.id for p in adopted.pieces], ["there", "style-1", "style-2"])
        self.assertEqual(adopted.treatments, shop.treatments)
        self.assertEqual(adopted.sizes[1].crop, shop.sizes[1].crop)
        self.assertEqual(adopted.sizes[1].overrides.pieces["style-1"].dx, 0.1)
        self.assertEqual(changed_since(adopted), ("treatments",))
        self.assertEqual(without_style(adopted), shop)

    def test_overrides_of_pieces_stay_where_the_sizes_are_ones_own(self):
        shop = shop_finish()
        adopted = apply_edit(scene_of(shop, SOURCES), AdoptStyle(style=kept(("pieces",)))).finish
        self.assertEqual(set(adopted.sizes[1].overrides.pieces), {"style-1"})
        self.assertEqual(without_style(adopted), shop)

    def test_an_own_piece_that_was_removed_meanwhile_stays_away(self):
        own = TextPiece(id="text-1", text="Mine")
        given = with_style(finish_of(pieces=(own,)), kept(("pieces",)))
        pieces = tuple(piece for piece in given.pieces if piece.id != "text-1")
        self.assertEqual(without_style(given.model_copy(update={"pieces": pieces})).pieces, ())


class ChangedSinceTest(unittest.TestCase):
    def test_what_somebody_changed_stays_and_is_listed(self):
        given = with_style(finish_of(), kept(("border", "watermark")))
        mine = with_border(given, "#112233")
        self.assertEqual(changed_since(mine), ("border",))
        newer = kept(
            ("border", "watermark"), finish=with_border(shop_finish(), "#445566"), version=2
        )
        renewed = with_style(mine, newer)
        self.assertEqual(renewed.border, mine.border)
        self.assertEqual(renewed.style.version, 2)
        self.assertEqual(changed_since(renewed), ("border",))
        self.assertEqual(without_style(renewed).border, mine.border)

    def test_changed_words_stay_when_another_style_comes_with_its_own(self):
        given = with_style(finish_of(), kept(("sizes", "pieces")))
        words = given.pieces[0].model_copy(update={"text": "Mine now"})
        mine = given.model_copy(update={"pieces": (words, *given.pieces[1:])})
        second = kept(("pieces",)).model_copy(update={"id": "f" * 16})
        for after in (
            with_style(mine, second),
            with_style(mine, kept(("border",), version=2)),
            without_style(mine),
        ):
            own = [piece for piece in after.pieces if not piece.id.startswith("style-")]
            self.assertEqual(own[0].text, "Mine now")
            self.assertEqual(len([piece for piece in after.pieces if piece.text == "12"]), 1)
            self.assertEqual(len({piece.id for piece in after.pieces}), len(after.pieces))

    def test_it_is_replaced_on_request_and_what_was_before_is_still_known(self):
        plain = with_border(finish_of(), "#00FF00")
        given = with_border(with_style(plain, kept(("border",))), "#112233")
        again = apply_edit(scene_of(given, SOURCES), TakeStylePart(part="border")).finish
        self.assertEqual(again.border, shop_finish().border)
        self.assertEqual(without_style(again), plain)
        taken = with_style(given, kept(("border",), version=2), put=("border",))
        self.assertEqual(taken.border, shop_finish().border)
        self.assertEqual(without_style(taken), plain)

    def test_a_part_that_is_left_out_counts_as_ones_own(self):
        given = with_style(finish_of(), kept(("border", "watermark")), put=("watermark",))
        self.assertEqual(given.border, finish_of().border)
        self.assertEqual(changed_since(given), ("border",))
        told = {one.key: one for one in style_changes(given, kept(("border", "watermark")))}
        self.assertTrue(told["border"].is_mine)
        self.assertEqual(told["border"].now, "none")
        self.assertIn("#0A6B52", told["border"].then)
        self.assertFalse(told["watermark"].is_mine)

    def test_only_a_part_of_the_style_can_be_taken_again(self):
        for finish in (finish_of(), with_style(finish_of(), kept(("border",)))):
            with self.assertRaises(BadInput):
                apply_edit(scene_of(finish, SOURCES), TakeStylePart(part="watermark"))


class EditTest(unittest.TestCase):
    def test_the_size_in_hand_is_one_that_is_there(self):
        given = apply_edit(scene_of(finish_of(), SOURCES), UseStyle(style=kept()))
        self.assertEqual(given.size_id, "square")
        back = apply_edit(scene_of(given.finish, SOURCES), RemoveStyle())
        self.assertEqual(back.size_id, "main")
        self.assertEqual(back.finish, finish_of())

    def test_sizes_that_follow_a_photo_are_refused_where_there_is_none(self):
        blank = type(finish_of())(name="Sale", photo=None, sizes=(SQUARE,))
        style = kept(("sizes", "border"), finish=with_border(finish_of(), "#112233"))
        with self.assertRaisesRegex(BadInput, "untick the sizes"):
            apply_edit(scene_of(blank, SOURCES), UseStyle(style=style))
        given = apply_edit(scene_of(blank, SOURCES), UseStyle(style=style, put=("border",))).finish
        self.assertEqual(given.sizes, blank.sizes)
        self.assertEqual(given.border.bands[0].colour, "#112233")

    def test_revisions_say_what_became_of_the_style(self):
        plain, given = finish_of(), with_style(finish_of(), kept())
        newer = with_style(given, kept(version=2))
        self.assertEqual(describe_change(plain, given), "House style: Shop")
        self.assertEqual(describe_change(given, newer), "House style renewed: Shop")
        self.assertEqual(describe_change(newer, plain), "House style removed")
        bordered = with_border(given, "#112233")
        self.assertTrue(describe_change(given, bordered).startswith("Border: #112233"))

    def test_a_swap_takes_windows_out_of_what_was_before(self):
        finish = shop_finish()
        given = with_style(finish, kept(("sizes",), finish=finish_of(100, 100)))
        swapped = apply_edit(scene_of(given, SOURCES), SwapPhoto(sha256=OTHER)).finish
        self.assertTrue(all(size.crop.window is None for size in without_style(swapped).sizes))


class ForThePhotoTest(unittest.TestCase):
    """What a style asks to be found for each photo."""

    def test_the_subject_is_found_and_goes_with_the_style(self):
        sources = demo_sources("bird-figure.jpg")
        given = started(finish_of(), sources, kept(("cut_out",)))
        self.assertEqual(len(given.cut_out.boxes), 1)
        self.assertEqual(given.style.found, given.cut_out.boxes)
        self.assertEqual(without_style(given), finish_of())
        renewed = with_style(given, kept(("cut_out",), version=2))
        self.assertEqual(renewed.cut_out.boxes, given.cut_out.boxes)

    def test_a_subject_that_somebody_drew_is_kept(self):
        box = Box(left=0.1, top=0.1, width=0.5, height=0.5)
        finish = finish_of(cut_out=CutOut(boxes=(box,)))
        edit = style_proposal(scene_of(finish, SOURCES), kept(("cut_out",))).edit
        self.assertEqual(edit.subjects, ())
        given = apply_edit(scene_of(finish, SOURCES), edit).finish
        self.assertEqual(given.cut_out.boxes, (box,))

    def test_light_is_suggested_for_each_photo_and_taken_back_exactly(self):
        sources = demo_sources("kiln-night.jpg")
        style = kept(("look",), suggest_light=True)
        given = started(finish_of(), sources, style)
        suggested = propose_tone(sources.level(SHA, 0), given.focus and given.focus.box)
        self.assertNotEqual(suggested, Tone())
        self.assertEqual(given.tone.exposure, suggested.exposure)
        self.assertEqual(given.tone.look.key, "golden")
        self.assertEqual(without_style(given), finish_of(focus=given.focus))
        self.assertEqual(
            with_style(given, style.model_copy(update={"version": 2})).tone, given.tone
        )
        moved = apply_edit(scene_of(given, sources), SetTone(changes={"exposure": 2})).finish
        self.assertEqual(changed_since(moved), ("light",))
        self.assertEqual(without_style(moved).tone.exposure, 2)

    def test_without_a_photo_nothing_is_looked_for(self):
        blank = type(finish_of())(name="Sale", photo=None, sizes=(SQUARE,))
        given = apply_edit(
            scene_of(blank, SOURCES),
            style_proposal(scene_of(blank, SOURCES), kept(suggest_light=True)).edit,
        ).finish
        self.assertEqual(given.cut_out.boxes, ())
        self.assertIsNone(given.style.gave.light)
        self.assertEqual(without_style(given), blank)
