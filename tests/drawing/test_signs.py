"""Every drawing: well formed, named in words, the same at every load, small enough for a phone, and as bad as it is asked to be."""

import datetime as dt
import random
import unittest
from xml.etree import ElementTree

from hypothesis import given, settings
from hypothesis import strategies as st

from bootmark.core.catalogue import default
from bootmark.core.catalogue.model import BODIES
from bootmark.drawing import damage, stages
from bootmark.drawing.leaf import FORMS, Leaf
from bootmark.drawing.signs import DRAWN, sign_svg, takes_form
from bootmark.web.guide.svg import runs, wheel_svg

CATALOGUE = default()
MOST_BYTES = 120_000
CUTS = (damage.chewed, damage.notches, damage.shot, damage.torn, damage.circles)


class Signs(unittest.TestCase):
    def drawn(self, text: str) -> ElementTree.Element:
        self.assertLess(len(text), MOST_BYTES)
        self.assertNotIn("<script", text)
        self.assertNotIn("nan", text.split("<title>", maxsplit=1)[0] + text.split("</title>")[1])
        return ElementTree.fromstring(text)

    def test_each_is_well_formed_and_says_what_it_shows(self) -> None:
        for sign in CATALOGUE.signs.values():
            with self.subTest(sign=sign.id):
                root = self.drawn(sign_svg(sign.id))
                self.assertEqual(root.get("role"), "img")
                self.assertEqual(root.get("aria-label"), f"{sign.name}: {sign.sentence}")
                self.assertGreater(len(list(root.iter())), 4)

    def test_what_is_on_a_leaf_is_drawn_on_every_form(self) -> None:
        for sign in filter(takes_form, DRAWN):
            looks = set()
            for form in FORMS:
                with self.subTest(sign=sign, form=form):
                    text = sign_svg(sign, form, 0.9)
                    self.drawn(text)
                    looks.add(text)
            self.assertTrue(len(looks) == len(FORMS) or len(looks) == 1, sign)

    def test_no_two_signs_look_the_same(self) -> None:
        bodies: dict[str, str] = {}
        for sign in CATALOGUE.signs:
            body = sign_svg(sign).split("</title>")[1]
            self.assertNotIn(body, bodies, f"{sign} is drawn as {bodies.get(body)}")
            bodies[body] = sign

    def test_the_same_at_every_load(self) -> None:
        for sign in ("stippling", "green-aphids", "tents"):
            once = sign_svg(sign)
            sign_svg.__globals__["_kept"].cache_clear()
            self.assertEqual(once, sign_svg(sign))

    def test_an_unknown_form_or_sign_is_an_error(self) -> None:
        with self.assertRaises(KeyError):
            sign_svg("stippling", "tentacle")
        with self.assertRaises(KeyError):
            sign_svg("dotting")


class Severity(unittest.TestCase):
    @settings(max_examples=40)
    @given(st.sampled_from(CUTS), st.sampled_from([form for form in FORMS if form != "needle"]), st.integers(0, 99))
    def test_more_is_lost_where_it_is_worse(self, cut: object, form: str, seed: int) -> None:
        lost = []
        for severity in (0.1, 1.0):
            leaf = Leaf(FORMS[form])
            cut(leaf, random.Random(seed), severity)  # type: ignore[operator]
            lost.append(leaf.lost)
        self.assertGreater(lost[1], lost[0])
        self.assertLess(lost[1], 1.0)

    def test_a_sound_leaf_has_lost_nothing(self) -> None:
        for form in FORMS.values():
            self.assertEqual(Leaf(form).lost, 0.0)


class Animals(unittest.TestCase):
    def test_every_stage_of_every_agent_is_drawn(self) -> None:
        for agent in CATALOGUE.agents.values():
            self.assertIn(agent.body, BODIES)
            for stage in agent.stages:
                with self.subTest(agent=agent.id, stage=stage):
                    root = ElementTree.fromstring(stages.of_agent(agent, stage))
                    self.assertEqual(root.get("aria-label"), f"{agent.name}: {stage}")
                    self.assertGreater(len(list(root.iter())), 2)


class Wheel(unittest.TestCase):
    @given(st.frozensets(st.integers(1, 12), min_size=1))
    def test_runs_hold_every_month_once(self, months: frozenset[int]) -> None:
        month_list = [(first + n - 1) % 12 + 1 for first, count in runs(months) for n in range(count)]
        self.assertEqual(sorted(month_list), sorted(months))

    def test_a_year_that_never_rests(self) -> None:
        whole = wheel_svg("A year", {"adult": frozenset(range(1, 13))}, None, dt.date(2026, 6, 18), [("Flight", dt.date(2026, 5, 1))])
        self.assertIn("A year", whole)
        ElementTree.fromstring(whole)
