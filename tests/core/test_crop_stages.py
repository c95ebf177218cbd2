"""Crop stages: BBCH codes, bloom, and soybean by the counting rules."""

import datetime as dt
import unittest

from hypothesis import given
from hypothesis import strategies as st

from bootmark.core.catalogue import bbch, default
from bootmark.core.field import soybean
from bootmark.core.field.soybean import FROM_SCARS, PUBLISHED, TopNode

MAY = dt.date(2026, 5, 1)


class Codes(unittest.TestCase):
    def test_codes_of_the_monograph(self) -> None:
        # Meier (2001), BBCH Monograph, from memory: 65 is full flowering in every scale that flowers, 69 its end.
        for crop in ("pear", "potato", "raspberry", "grape", "soybean"):
            self.assertIn("full flowering", bbch.scale_of(crop).name(65))
        self.assertEqual(bbch.principal(65), "flowering")
        self.assertEqual(bbch.scale_of("pear").name(68), "petals fall")
        self.assertEqual(bbch.scale_of("cabbage").name(49), "heads firm, ready to cut")
        with self.assertRaises(ValueError):
            bbch.principal(120)

    def test_every_crop_has_a_scale_and_every_scale_a_known_crop(self) -> None:
        for crop in default().crops:
            self.assertTrue(bbch.scale_of(crop).steps)
        self.assertFalse(bbch.scale_of("lawn").own)

    def test_bloom(self) -> None:
        noted = [(MAY, 57), (MAY + dt.timedelta(days=6), 61), (MAY + dt.timedelta(days=10), 65), (MAY + dt.timedelta(days=20), 71)]
        self.assertEqual(bbch.bloom(noted), (dt.date(2026, 5, 7), dt.date(2026, 5, 21)))
        self.assertEqual([bbch.in_flower(noted, MAY + dt.timedelta(days=n)) for n in (0, 5, 8, 19, 25)], [False, False, True, True, False])
        self.assertIsNone(bbch.bloom(noted[:1]))
        self.assertEqual(bbch.bloom(noted[:2]), (dt.date(2026, 5, 7), None))
        self.assertFalse(bbch.in_flower([], MAY))


class Soybean(unittest.TestCase):
    def test_two_ways_of_counting_differ_by_one(self) -> None:
        # Fehr and Caviness (1977) begin at the unifoliate node; from the cotyledon scars the same node is one more (common practice).
        self.assertEqual([soybean.vegetative(n) for n in (0, 1, 3)], ["VC", "V1", "V3"])
        self.assertEqual([soybean.vegetative(n, FROM_SCARS) for n in (0, 1, 3)], ["V1", "V2", "V4"])
        self.assertEqual(soybean.convert(6, PUBLISHED, FROM_SCARS), 7)
        with self.assertRaises(ValueError):
            soybean.vegetative(3, "root")

    @given(st.integers(0, 30), st.sampled_from(soybean.COUNTS), st.sampled_from(soybean.COUNTS))
    def test_converting_there_and_back_changes_nothing(self, node: int, cutoff_name: str, other: str) -> None:
        self.assertEqual(soybean.convert(soybean.convert(node, cutoff_name, other), other, cutoff_name), node)

    def test_the_top_four_nodes_decide(self) -> None:
        # Fehr and Caviness (1977): a pod of 5 mm is R3, of 2 cm R4, at one of the four uppermost nodes.
        bare = TopNode()
        self.assertEqual(soybean.reproductive([bare] * 4, False), "")
        self.assertEqual(soybean.reproductive([bare] * 4, True), "R1")
        self.assertEqual(soybean.reproductive([bare, TopNode(flower=True), bare, bare], True), "R2")
        self.assertEqual(soybean.reproductive([bare, bare, TopNode(flower=True), bare], True), "R1")
        self.assertEqual(soybean.reproductive([bare, bare, bare, TopNode(pod_mm=5)], True), "R3")
        self.assertEqual(soybean.reproductive([bare, bare, TopNode(pod_mm=19), bare], True), "R3")
        self.assertEqual(soybean.reproductive([bare, bare, TopNode(pod_mm=20), bare], True), "R4")
        self.assertEqual(soybean.reproductive([TopNode(pod_mm=40, seed_mm=3)], True), "R5")
        self.assertEqual(soybean.reproductive([TopNode(full=True)], True), "R6")
        self.assertEqual([soybean.reproductive([], True, ripe_pods=share) for share in (0.1, 0.96)], ["R7", "R8"])

    def test_a_new_node_can_move_a_plant_back(self) -> None:
        before = [TopNode(), TopNode(), TopNode(), TopNode(pod_mm=6)]
        self.assertEqual(soybean.reproductive(before, True), "R3")
        self.assertEqual(soybean.reproductive([TopNode(), *before], True), "R1")

    def test_the_day_of_a_node(self) -> None:
        # A new node every three to five days (common practice).
        once = soybean.node_date([(MAY, 4)], 7)
        self.assertEqual([(day - MAY).days for day in (once.earliest, once.likely, once.latest)], [9, 12, 15])
        paced = soybean.node_date([(MAY, 4), (MAY + dt.timedelta(days=14), 8)], 10)
        self.assertEqual(paced.pace, 3.5)
        self.assertEqual(paced.likely, MAY + dt.timedelta(days=21))
        self.assertEqual(soybean.node_date([(MAY, 4), (MAY + dt.timedelta(days=40), 6)], 7).pace, 5.0)
        with self.assertRaisesRegex(ValueError, "there already"):
            soybean.node_date([(MAY, 4)], 4)
        with self.assertRaises(ValueError):
            soybean.node_date([], 4)
