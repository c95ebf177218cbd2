"""The plant to point at: its own form, each part within reach of a glove, no label on another."""

import itertools
import re
import unittest
from xml.etree import ElementTree

from bootmark.core.catalogue import default
from bootmark.core.catalogue.model import HABITS, PARTS
from bootmark.core.catalogue.shapes import BY_HABIT, Bears, Stand
from bootmark.drawing.plant import HIGH, WIDE, Shape, parts, plant_svg, shape_of
from bootmark.drawing.stands import DRAWN

CATALOGUE = default()
SHAPES = {shape_of(crop) for crop in CATALOGUE.crops.values()} | {Shape(stand) for stand in Stand}
LEAST_REACH = 24
LETTER = 7.6


class Plants(unittest.TestCase):
    def test_every_way_of_standing_is_drawn(self) -> None:
        self.assertEqual(set(DRAWN), set(Stand))
        self.assertEqual(set(BY_HABIT), set(HABITS))
        for shape in SHAPES:
            drawn = parts(shape)
            ElementTree.fromstring("<svg>" + "".join(part.body + part.label for part in drawn) + "</svg>")
            names = [part.name for part in drawn]
            self.assertLessEqual(set(names), set(PARTS))
            self.assertEqual(len(names), len(set(names)))
            self.assertLessEqual(
                {"whole", "tip", "young leaf", "old leaf", "underside", "stem", "base", "root", "ground"}, set(names), shape
            )

    def test_a_finger_finds_each_part(self) -> None:
        for shape in SHAPES:
            for part in parts(shape):
                left, top, wide, high = map(float, re.findall(r'x="(\S+)" y="(\S+)" width="(\S+)" height="(\S+)"', part.body)[0])
                self.assertGreaterEqual(min(wide, high), LEAST_REACH, (shape, part.name))
                self.assertTrue(left + wide > 0 and left < WIDE and top < HIGH, (shape, part.name))

    def test_no_label_lies_on_another(self) -> None:
        for shape in SHAPES:
            boxes = []
            for part in parts(shape):
                x, y, words = re.findall(r'<text x="([\d.]+)" y="([\d.]+)"[^>]*>([^<]+)</text>', part.label)[0]
                wide = LETTER * len(words)
                left = float(x) if float(x) < WIDE / 2 else float(x) - wide
                boxes.append((part.name, left, left + wide, float(y)))
                self.assertTrue(0 < float(y) < HIGH, (shape, part.name))
            for (label, a, b, y), (other, c, d, z) in itertools.combinations(boxes, 2):
                self.assertFalse(a < d and c < b and abs(y - z) < 14, (shape, label, other))

    def test_a_crop_bears_its_own_fruit(self) -> None:
        for crop, bears in (("tomato", Bears.BERRY), ("apple", Bears.POME), ("pea", Bears.POD), ("maize", Bears.COB), ("pine", Bears.CONE)):
            self.assertEqual(shape_of(CATALOGUE.crops[crop]).bears, bears)
        drawn = {crop: "".join(part.body for part in parts(shape_of(CATALOGUE.crops[crop]))) for crop in CATALOGUE.crops}
        self.assertGreater(len(set(drawn.values())), 30)

    def test_a_plant_of_which_only_the_habit_is_known_stands_as_that(self) -> None:
        self.assertEqual(shape_of(None, "palm").stand, Stand.PALM)
        self.assertEqual(shape_of(None).stand, Stand.SHOOT)
        self.assertIn("turf", {part.name for part in parts(Shape(Stand.TURF))})

    def test_alone_it_says_what_it_is(self) -> None:
        self.assertIn("A plant with tip", ElementTree.fromstring(plant_svg()).get("aria-label") or "")
