"""Pictures of sheets of known truth: specks after a tap, drops on cards, sticky cards; and what is refused. More in bench/photos.py."""

import random
import unittest
from collections.abc import Callable
from dataclasses import replace

import numpy as np
from PIL import Image
from skimage import data
from skimage.color import gray2rgb

from bootmark.core.meanings import Gate, Refusal
from bootmark.core.photo import cards, droplets, leaf, specks
from bootmark.core.photo.light import Unreadable
from tests.outside.photographed import Picture, taken
from tests.outside.sheets import (
    A6,
    DISH,
    DROP_CARD,
    GROUNDS,
    HIGH,
    STICKY,
    WIDE,
    Stain,
    insects,
    on_grass,
    phone,
    poured,
    printed,
    smeared,
    stuck,
    tapped,
    wetted,
)

MITES = specks.GATES[Gate.MITES]


def refused(measure: Callable[[], object]) -> Refusal | None:
    try:
        measure()
    except Unreadable as error:
        return error.why
    return None


class Paper(unittest.TestCase):
    def test_what_moved_is_told_from_dirt(self) -> None:
        for moving, still in ((5, 12), (90, 60)):
            rng = random.Random(f"specks of 2026-11-27, {moving}")
            pair = tapped(rng, moving, still)
            first, second = (specks.specks(picture, A6, MITES) for picture in (pair.first, pair.second))
            with self.subTest(moving=moving, still=still):
                self.assertAlmostEqual(first.count, moving + still, delta=0.1 * (moving + still))
                told = specks.moved(first, second)
                self.assertAlmostEqual(told.moving, moving, delta=max(1, 0.1 * moving))
                self.assertEqual(sum(told.moved), first.count - told.still)

    def test_the_gate_leaves_out_what_is_larger(self) -> None:
        pair = tapped(random.Random("a gate"), 10, 20)
        self.assertEqual(specks.specks(pair.first, A6, (0.9, 3.0)).count, 0)

    def test_a_sheet_is_found_on_grass(self) -> None:
        rng = random.Random("grass")
        shot = replace(phone(rng), ground=GROUNDS[0], uneven=0.0, exposure=1.0, kelvin=5500.0, tilt=12.0)
        pair = tapped(rng, 10, 20, shot)
        self.assertAlmostEqual(specks.specks(on_grass(pair.first, shot.ground, rng), A6, MITES).count, 30, delta=3)

    def test_a_second_picture_upside_down_is_the_same_sheet(self) -> None:
        pair = tapped(random.Random("upside down"), 6, 20)
        first, second = (specks.specks(picture, A6, MITES) for picture in (pair.first, np.rot90(pair.second, 2)))
        self.assertAlmostEqual(specks.moved(first, second).moving, 6, delta=1)

    def test_each_bad_picture_has_its_answer(self) -> None:
        rng = random.Random("bad papers")
        shot = phone(rng)
        empty = taken(Image.new("RGB", (WIDE // 2, HIGH // 2), (90, 70, 50)), shot, rng)
        noise = np.random.default_rng(1).integers(0, 255, (600, 800, 3)).astype(np.uint8)
        for wanted, picture in (
            ({Refusal.DARK}, tapped(rng, 5, 5, replace(shot, exposure=0.03)).first),
            ({Refusal.BLURRED}, tapped(rng, 5, 5, replace(shot, blur=6.0)).first),
            ({Refusal.TILTED}, tapped(rng, 5, 5, replace(shot, tilt=50.0)).first),
            ({Refusal.MARKED}, printed(rng, shot)),
            ({Refusal.NO_SHEET, Refusal.CUT}, empty),
            ({Refusal.NO_SHEET}, noise),
            ({Refusal.FAR}, np.ascontiguousarray(tapped(rng, 5, 5, shot).first[::5, ::5])),
        ):
            self.assertIn(refused(lambda picture=picture: specks.specks(picture, A6, MITES)), wanted)
        one, other = (specks.specks(tapped(rng, 0, 20, shot).first, A6, MITES) for _ in range(2))
        self.assertEqual(refused(lambda: specks.moved(one, other)), Refusal.NO_MATCH)


class Drops(unittest.TestCase):
    def test_cover_and_number_are_told_within_their_limits(self) -> None:
        for cover in (0.06, 0.18, 0.5):
            rng = random.Random(f"drops of 2026-11-27, {cover}")
            card = wetted(rng, cover)
            told = droplets.card(card.picture, DROP_CARD)
            with self.subTest(cover=cover):
                self.assertAlmostEqual(told.cover, card.cover, delta=0.03)
                if cover > 0.25:
                    self.assertIsNone(told.per_cm2)
                else:
                    assert told.per_cm2
                    self.assertAlmostEqual(told.per_cm2, card.per_cm2, delta=0.1 * card.per_cm2)

    def test_a_dry_card_has_none(self) -> None:
        told = droplets.card(wetted(random.Random("dry"), 0.0).picture, DROP_CARD)
        self.assertEqual((told.cover, told.count), (0.0, 0))

    def test_blued_touched_and_blurred_cards_are_refused(self) -> None:
        rng = random.Random("bad cards")
        shot = phone(rng)
        for wanted, picture in (
            (Refusal.BLUED, wetted(rng, 0.1, shot, card=(80, 90, 140)).picture),
            (Refusal.FINGERS, smeared(rng, shot)),
            (Refusal.BLURRED, wetted(rng, 0.1, replace(shot, blur=7.0)).picture),
        ):
            self.assertEqual(refused(lambda picture=picture: droplets.card(picture, DROP_CARD)), wanted)

    def test_evenness_is_nought_for_like_cards(self) -> None:
        self.assertEqual(droplets.evenness([0.25, 0.25, 0.25]), 0.0)
        self.assertIsNone(droplets.evenness([0.2]))
        # Mean 0.2, standard deviation 0.1.
        self.assertAlmostEqual(droplets.evenness([0.1, 0.2, 0.3]) or 0.0, 0.5)


class Cards(unittest.TestCase):
    def sat(self, rng: random.Random, before: list[Stain]) -> tuple[Picture, int]:
        spots = [*before, *insects(rng, 14, (1.2, 2.2), before)]
        return stuck(rng, spots), len(spots)

    def test_things_are_counted_by_size_and_the_printed_grid_is_not(self) -> None:
        rng = random.Random("cards of 2026-11-27")
        small = insects(rng, 30, (1.2, 2.2), [])
        large = insects(rng, 8, (5.0, 7.0), small)
        told = cards.measure(stuck(rng, small + large), STICKY)
        self.assertAlmostEqual(len(told.places), 38, delta=4)
        example = int(np.argmin(np.abs(told.lengths - 6.0)))
        self.assertAlmostEqual(len(cards.alike(list(told.lengths), list(told.widths))[example]), 8, delta=1)

    def test_a_week_later_what_came_is_told(self) -> None:
        rng = random.Random("a week")
        before = insects(rng, 20, (1.2, 2.2), [])
        first = cards.measure(stuck(rng, before), STICKY)
        picture, number = self.sat(rng, before)
        second = cards.measure(picture, STICKY)
        self.assertAlmostEqual(len(second.places), number, delta=3)
        self.assertAlmostEqual(int(cards.came(first, second).sum()), 14, delta=2)
        turned = cards.measure(np.ascontiguousarray(np.rot90(picture, 2)), STICKY)
        self.assertAlmostEqual(int(cards.came(first, turned).sum()), 14, delta=2)

    def test_a_card_that_goes_over_the_edge_is_cut(self) -> None:
        """Found on photographs: closing gaps drew the card's edge away from the picture's."""
        rng = random.Random("over the edge")
        whole = stuck(rng, insects(rng, 20, (1.2, 2.2), []), replace(phone(rng), tilt=0.0, lens=0.0))
        wet = wetted(rng, 0.1, replace(phone(rng), tilt=0.0, lens=0.0)).picture
        for margin in (300, 500):
            self.assertEqual(refused(lambda margin=margin: cards.measure(whole[:, margin:], STICKY)), Refusal.CUT)
            self.assertEqual(refused(lambda margin=margin: droplets.card(wet[:, margin:], DROP_CARD)), Refusal.CUT)

    def test_a_card_from_far_off_hides_its_insects(self) -> None:
        rng = random.Random("far off")
        far = np.ascontiguousarray(stuck(rng, insects(rng, 20, (1.2, 2.2), []))[::8, ::8])
        self.assertIn(refused(lambda: cards.measure(far, STICKY)), (Refusal.FAR, Refusal.BLURRED))


class Photographs(unittest.TestCase):
    """Real photographs of other things, as scikit-image ships them: none of them measures anything."""

    def test_none_of_them_is_a_leaf_paper_or_card(self) -> None:
        for name in ("astronaut", "page", "coins", "grass", "rocket"):
            photograph = getattr(data, name)()
            picture = np.ascontiguousarray(photograph[..., :3] if photograph.ndim == 3 else gray2rgb(photograph))
            for measure in (
                leaf.measure,
                lambda picture: specks.specks(picture, A6, MITES),
                lambda picture: cards.measure(picture, STICKY),
                lambda picture: cards.measure(picture, DISH, dish=True),
                lambda picture: droplets.card(picture, DROP_CARD),
            ):
                with self.subTest(name):
                    self.assertIsNotNone(refused(lambda measure=measure, picture=picture: measure(picture)))


class Dishes(unittest.TestCase):
    def test_things_in_a_round_dish_are_counted_and_measured(self) -> None:
        for tilt in (0.0, 25.0):
            rng = random.Random(f"dishes of 2026-11-27, {tilt}")
            told = cards.measure(poured(rng, 25, (3.0, 4.0), replace(phone(rng), tilt=tilt)), DISH, dish=True)
            with self.subTest(tilt=tilt):
                self.assertAlmostEqual(len(told.places), 25, delta=2)
                self.assertAlmostEqual(float(np.median(told.lengths)), 3.5, delta=0.35)
                self.assertLess(float(np.hypot(*(told.places - 45).T).max()), 45 - 4)

    def test_what_is_no_round_dish_is_refused(self) -> None:
        rng = random.Random("no dish")
        for wanted, picture in (
            (Refusal.NO_DISH, tapped(rng, 5, 5, phone(rng)).first),
            (Refusal.TILTED, poured(rng, 10, (3.0, 4.0), replace(phone(rng), tilt=50.0))),
            (Refusal.BLURRED, poured(rng, 10, (3.0, 4.0), replace(phone(rng), blur=16.0))),
        ):
            self.assertEqual(refused(lambda picture=picture: cards.measure(picture, DISH, dish=True)), wanted)
        dish = poured(rng, 10, (3.0, 4.0))
        self.assertIn(refused(lambda: cards.measure(dish, STICKY)), (Refusal.NO_SHEET, Refusal.TILTED))
