"""What forms share: errors that are shown once, times with the farm's zone, and drawings kept as they are."""

import re
import unittest
import uuid
from typing import ClassVar

from flask import Flask, g

from bootmark.drawing import svg
from bootmark.drawing.plan import plan_svg
from bootmark.services.base import ground
from bootmark.services.base.work import Farm
from bootmark.store.models import Block
from bootmark.web import forms
from bootmark.web.plan import shapes


class Errors(unittest.TestCase):
    def test_what_a_field_shows_is_not_left_over(self) -> None:
        errors = forms.Errors({"name": "This is empty.", "role": "A viewer can't do this.", "key": "Too short."})
        self.assertEqual(errors.take("name"), "This is empty.")
        self.assertIsNone(errors.take("place"))
        self.assertEqual(errors.left(), ["A viewer can't do this.", "Too short."])
        self.assertEqual(errors.left(but=("key",)), ["A viewer can't do this."])
        self.assertEqual(forms.Errors().left(), [])


class Posted(unittest.TestCase):
    def setUp(self) -> None:
        self.app = Flask("forms")

    def test_a_record_id_that_is_none(self) -> None:
        record = uuid.uuid4()
        for text, wanted in ((str(record), record), ("", None), ("x", None)):
            with self.app.test_request_context(method="POST", data={"record_id": text}):
                self.assertEqual(forms.record_id(), wanted)

    def test_a_local_time_gets_the_farms_zone_and_nonsense_is_kept(self) -> None:
        with self.app.test_request_context(method="POST", data={"at": "2026-06-18T07:40", "odd": "noon"}):
            g.farm = Farm(time_zone="Europe/Zurich")
            self.assertEqual(forms.moment("at"), "2026-06-18T07:40:00+02:00")
            self.assertEqual((forms.moment("odd"), forms.moment("none")), ("noon", ""))


class Plan(unittest.TestCase):
    farm = Farm(origin_latitude=46.2, origin_longitude=7.1)
    GOOD: ClassVar = [[7.1, 46.2], [7.102, 46.2], [7.102, 46.199], [7.1, 46.199]]

    def block(self, name: str, outline: object) -> Block:
        return Block(id=uuid.uuid4(), name=name, place="orchard", outline=outline)

    def test_blocks_that_cannot_be_drawn_are_left_out_and_the_walk_goes_on(self) -> None:
        good, bad = self.block("Good", self.GOOD), self.block("Bad", [["a", "b"], [1, 2], [3, 4]])
        drawn = shapes(self.farm, [good, bad])
        self.assertEqual([shape[1] for shape in drawn], ["Good"])
        walk = plan_svg(drawn, [str(bad.id), str(good.id)], {str(bad.id): "must"})
        self.assertIn(">2</text>", walk)
        self.assertNotIn(">1</text>", walk)

    def test_the_same_plan_is_drawn_once(self) -> None:
        drawn = shapes(self.farm, [self.block("Good", self.GOOD)])
        self.assertIs(plan_svg(drawn), plan_svg(drawn))

    def test_a_plan_of_hundreds_names_what_has_room_and_stays_as_wide(self) -> None:
        origin = ground.origin(self.farm)

        def square(number: int, side: float) -> Block:
            x, y = 100 * (number % 20), 100 * (number // 20)
            corners = origin.to_degrees([(x, y), (x + side, y), (x + side, y + side), (x, y + side)])
            return self.block(f"Piece {number}", [list(corner) for corner in corners])

        for count, named in ((3, 3), (24, 24), (300, 0)):
            drawn = plan_svg(shapes(self.farm, [square(number, 60) for number in range(count)]))
            self.assertEqual(len(re.findall(r">Piece \d+</text>", drawn)), named)
            box = re.search(r'viewBox="\S+ \S+ (\S+)', drawn)
            assert box
            self.assertLess(float(box.group(1)), 720)
            self.assertLess(len(drawn), 600_000)

    def test_names_and_titles_are_text(self) -> None:
        drawn = shapes(self.farm, [self.block("<b>&", self.GOOD)])
        self.assertIn("&lt;b&gt;&amp;", plan_svg(drawn))
        self.assertIn('aria-label="a&quot;&lt;"', svg.document("", 'a"<'))
