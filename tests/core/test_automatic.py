"""The suggested tone: clear photos stay, damaged ones come back, and small steps stay small."""

import tracemalloc
import unittest
from collections import defaultdict
from functools import cache

import numpy as np
from PIL import Image

from lucky_margin.core.document import Box, Tone
from lucky_margin.core.render import render
from lucky_margin.core.tone import PROPOSED, automatic, propose_tone, scaled
from lucky_margin.core.tone.cast import cast_of
from tests.core.test_tone import PNG
from tests.support import DEMO_PHOTOS, finish_of, noise, scene_of, sources_of
from tests.truth.damage import CASTS, DAMAGES, damaged, decoded, distance
from tests.truth.photos import FOLDER

SIDE = 240

SAMPLE = ("bird-figure", "bowl-top", "leafy-plant", "three-mugs")
"""The rest is in ``make bench``."""

WANTED = {"dark": 0.6, "bright": 0.8, "haze": 0.55, "noise": 0.6, "low contrast": 0.63}
"""Of the distance to the clear photo, what may be left on average."""


@cache
def clear(name):
    folder = FOLDER if (FOLDER / f"{name}.jpg").exists() else DEMO_PHOTOS
    photo = Image.open(folder / f"{name}.jpg").convert("RGB")
    photo.thumbnail((SIDE, SIDE), Image.Resampling.BOX)
    return np.asarray(photo)


def repaired(photo):
    tone = propose_tone(photo)
    return render(scene_of(finish_of(tone=tone, export=PNG), sources_of(photo)))


def missed(figures, controls):
    """What the fit makes least."""
    aim = automatic.FLAT
    parts = [*figures.after(controls).missed(figures, aim), *(aim.reluctance * controls)]
    return np.square(parts).sum()


class RepairTest(unittest.TestCase):
    def test_damaged_photos_come_back_and_clear_ones_stay(self):
        before, after = defaultdict(list), defaultdict(list)
        for name in SAMPLE:
            for damage in DAMAGES:
                spoilt = damaged(clear(name), damage, 7)
                before[damage.kind].append(distance(spoilt, clear(name)))
                after[damage.kind].append(distance(repaired(spoilt), clear(name)))
        for kind, most in WANTED.items():
            with self.subTest(kind):
                self.assertLessEqual(np.mean(after[kind]), most * np.mean(before[kind]))
        self.assertLess(np.mean(after["cast"]), np.mean(before["cast"]))
        self.assertLess(np.mean(after["none"]), 0.02)

    def test_photos_that_hardly_differ_get_proposals_that_hardly_differ(self):
        photos = {name: clear(name) for name in SAMPLE}
        photos |= {f"flat {name}": 70 + photo // 2 for name, photo in photos.items()}
        for name, photo in photos.items():
            light = decoded(photo / 255)
            one, other = (
                propose_tone(
                    np.rint(65_535 * np.clip(light * 2**stops, 0, 1) ** (1 / 2.2)).astype(np.uint16)
                )
                for stops in (0.30, 0.31)
            )
            for control in PROPOSED:
                with self.subTest(name=name, control=control):
                    unit = {"exposure": 0.01, "warmth": 20}.get(control, 1)
                    apart = abs(getattr(one, control) - getattr(other, control)) / unit
                    self.assertLessEqual(apart, 3)

    def test_light_and_contrast_of_a_flat_photo_fit_best(self):
        """Also where one of them stands at its limit: no step of any lowers what is missed."""
        for middle in (0.42, 0.53, 0.58):
            figures = automatic._Figures(0.37, 0.41, middle, 0.6, 0.63)
            found = automatic._fitted(figures, automatic.FLAT)
            self.assertEqual(found[1], -automatic.MOST[1])
            least = missed(figures, found)
            for step in np.vstack([np.eye(4), -np.eye(4)]) / 100:
                moved = np.clip(found + step, -automatic.MOST, automatic.MOST)
                self.assertGreaterEqual(missed(figures, moved), least)

    def test_it_is_sound_for_any_photo(self):
        for photo in (
            np.zeros((1, 1, 3), np.uint8),
            np.full((40, 3, 3), 255, np.uint8),
            noise(50, 40, 4),
            noise(300, 2, dtype=np.uint16),
        ):
            tone = propose_tone(photo)
            self.assertEqual(Tone.model_validate(tone.model_dump()), tone)

    def test_what_has_to_stay_in_view_counts_more(self):
        photo = noise(300, 200) // 3
        photo[60:140, 100:200] = 60 + noise(100, 80) // 2  # a lighter thing
        there = Box(left=1 / 3, top=0.3, width=1 / 3, height=0.4)
        alone, all_alike = propose_tone(photo, there), propose_tone(photo)
        self.assertLess(alone.exposure + alone.shadows, all_alike.exposure + all_alike.shadows)

    def test_a_large_photo_takes_no_copy_of_itself(self):
        photo = np.tile(clear("bird-figure"), (16, 16, 1))
        propose_tone(photo)
        tracemalloc.start()
        self.addCleanup(tracemalloc.stop)
        propose_tone(photo)
        _, peak = tracemalloc.get_traced_memory()
        self.assertLess(peak, photo.nbytes)

    def test_what_transparency_hides_does_not_count(self):
        photo = clear("bird-figure")
        hidden = np.dstack([photo, np.full(photo.shape[:2], 255, np.uint8)])
        shown = hidden.copy()
        hidden[:40] = (255, 0, 0, 0)
        shown[:40] = (0, 0, 255, 0)
        self.assertEqual(propose_tone(hidden), propose_tone(shown))

    def test_by_half_and_more(self):
        tone = Tone(exposure=0.5, haze=40, warmth=5500, contrast=80, noise_reduction=20)
        less, more = scaled(tone, 0.5), scaled(tone, 1.5)
        self.assertEqual((less.exposure, less.haze, less.contrast), (0.25, 20, 40))
        self.assertEqual((more.exposure, more.haze, more.contrast), (0.75, 60, 100))
        self.assertTrue(more.warmth < tone.warmth < less.warmth < 6500)
        self.assertEqual(scaled(tone, 1), tone)


class HazeOrFlatTest(unittest.TestCase):
    """Both raise the darkest; only a veil, being light, leaves the lightest light."""

    def test_a_flat_photo_has_no_veil_taken_off_and_a_veiled_one_has(self):
        for name in ("bowl-top", "leafy-plant"):
            for damage in DAMAGES:
                haze = propose_tone(damaged(clear(name), damage, 7)).haze
                with self.subTest(name, damage=damage.name):
                    if damage.kind == "low contrast":
                        self.assertLessEqual(haze, 20)
                    elif damage.kind == "haze":
                        self.assertGreaterEqual(haze, 60)


class CastTest(unittest.TestCase):
    def test_about_half_of_a_cast_is_found(self):
        grey = np.random.default_rng(3).uniform(0.05, 0.6, (60, 80, 1)).repeat(3, axis=2)
        for name, gains in CASTS.items():
            with self.subTest(name):
                red, green, blue = cast_of((grey * gains).astype(np.float32))
                self.assertEqual(green, 1)
                wanted = np.log([gains[0] / gains[1], gains[2] / gains[1]])
                found = np.log([red, blue])
                share = found @ wanted / (wanted @ wanted)
                self.assertTrue(0.3 < share < 0.7, share)

    def test_a_glow_in_the_dark_is_none(self):
        photo = np.full((60, 80, 3), (0.02, 0.03, 0.04), np.float32)
        photo += np.random.default_rng(5).uniform(0, 0.01, photo.shape).astype(np.float32)
        photo[20:40, 30:50] = (0.9, 0.45, 0.1)
        red, _, blue = cast_of(photo)
        self.assertLess(np.hypot(np.log(red), np.log(blue)), 0.1)

    def test_greys_and_black_have_none(self):
        for level in (0.0, 0.4):
            np.testing.assert_allclose(cast_of(np.full((20, 20, 3), level, np.float32)), 1)
