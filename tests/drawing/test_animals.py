"""Animals are told apart by what is drawn, and what is ringed is what differs. From descriptions in the catalogue: common practice, no source."""

import dataclasses
import itertools
import math
import re
import unittest
from dataclasses import replace
from enum import StrEnum
from typing import Any
from xml.etree import ElementTree

from bootmark.core.catalogue import default
from bootmark.core.catalogue.drawn import TOLD, Drawn, Pattern, differing, read
from bootmark.core.catalogue.reader import CatalogueError
from bootmark.core.catalogue.shapes import STAGES
from bootmark.drawing import callouts, stages, svg
from bootmark.say import tongue
from bootmark.say.drawn import colour_name, described

CATALOGUE = default()


def body_of(agent: str, stage: str, marks: tuple[str, ...] = ()) -> str:
    return re.split("</title>", stages.of_agent(CATALOGUE.agents[agent], stage, marks))[1]


def others(value: Any) -> list[Any]:
    """Values of the same kind that a mark could have instead."""
    if isinstance(value, StrEnum):
        return [member for member in type(value) if member != value]
    if isinstance(value, bool):
        return [not value]
    return ["#00ff77"] if isinstance(value, str) else [value - 1] if isinstance(value, int) else [value * 1.5 + 0.1]


class Apart(unittest.TestCase):
    def test_look_alikes_of_one_body_do_not_look_the_same_in_a_stage_that_does_harm(self) -> None:
        same = []
        for agent in CATALOGUE.agents.values():
            for alike in agent.look_alikes:
                other = CATALOGUE.agent(alike.agent)
                if other.body != agent.body or agent.id > other.id or agent.is_kind or other.is_kind:
                    continue
                both = [stage for stage in stages.stages_of(agent) if stage in stages.stages_of(other) and stage not in ("egg", "pupa")]
                if both and all(body_of(agent.id, stage) == body_of(other.id, stage) for stage in both):
                    same.append((agent.id, other.id))
        self.assertEqual(same, [])

    def test_hornworms_differ_by_marks_and_horn(self) -> None:
        pair = [CATALOGUE.agents[agent].drawn["larva"] for agent in ("tomato-hornworm", "tobacco-hornworm")]
        self.assertEqual(differing(pair), ("pattern", "horn"))
        words = [[described(tongue(), drawn, name, "moth") for name in differing(pair)] for drawn in pair]
        self.assertEqual(words[0], ["white V marks along the side", "dark blue horn"])
        self.assertEqual(words[1], ["white slanting stripes along the side", "red horn"])

    def test_three_caterpillars_of_cabbage_do_not_look_alike(self) -> None:
        three = ("cabbage-looper", "imported-cabbageworm", "diamondback-moth")
        for stage in ("larva", "adult"):
            self.assertEqual(len({body_of(agent, stage) for agent in three}), 3)

    def test_a_beetle_with_ten_stripes_has_ten(self) -> None:
        drawn = CATALOGUE.agents["colorado-potato-beetle"].drawn["adult"]
        self.assertEqual(described(tongue(), drawn, "stripes", "leaf beetle"), "10 black stripes")

    def test_a_larva_of_thrips_is_a_small_thrips(self) -> None:
        self.assertIn("scale(0.62)", body_of("western-flower-thrips", "larva"))
        self.assertNotIn("scale(0.62)", body_of("codling-moth", "larva"))

    def test_every_mark_that_is_told_of_an_animal_is_drawn(self) -> None:
        """What differs is read out beside the drawings: a mark that isn't drawn would be a false word."""
        for agent in CATALOGUE.agents.values():
            for stage, drawn in agent.drawn.items():
                whole = stages.of_agent(agent, stage)
                for field in dataclasses.fields(Drawn):
                    value = getattr(drawn, field.name)
                    if value == field.default:
                        continue
                    changed = [replace(drawn, **{field.name: other}) for other in others(value)]
                    drawings = {stages.of_agent(replace(agent, drawn={**agent.drawn, stage: other}), stage) for other in changed}
                    self.assertNotEqual(drawings, {whole}, (agent.id, stage, field.name))

    def test_a_track_and_an_aphid_are_told_in_their_own_words(self) -> None:
        gopher, striped, aphid = (CATALOGUE.agents[agent].drawn["adult"] for agent in ("pocket-gopher", "potato-aphid", "melon-aphid"))
        self.assertEqual(
            [described(tongue(), gopher, name, "mammal") for name in ("toes", "claws")], ["5 toes", "dark brown marks of claws"]
        )
        self.assertEqual(described(tongue(), aphid, "tubes", "aphid"), "black tubes on its back")
        self.assertEqual(differing([striped, aphid]), ("stripes", "tubes"))

    def test_a_face_is_the_stage_that_does_the_harm(self) -> None:
        for agent, stage in (
            ("codling-moth", "larva"),
            ("japanese-beetle", "adult"),
            ("any-caterpillar", "larva"),
            ("potato-leafhopper", "nymph"),
        ):
            self.assertIn(stages.stages_of(CATALOGUE.agents[agent])[0], (stage, *CATALOGUE.agents[agent].feeds))
        self.assertEqual(stages.stages_of(CATALOGUE.agents["apple-scab"]), ())


class Rings(unittest.TestCase):
    def test_each_difference_is_ringed_and_numbered(self) -> None:
        text = stages.of_agent(CATALOGUE.agents["tomato-hornworm"], "larva", ("pattern", "horn"))
        root = ElementTree.fromstring(text)
        numbers = [node.text for node in root.iter() if node.tag.endswith("text")]
        self.assertEqual(numbers, ["1", "2"])

    def test_rings_of_a_nymph_lie_nearer_to_the_middle_and_none_hides_another(self) -> None:
        apart = differing([CATALOGUE.agents[agent].drawn["adult"] for agent in ("potato-aphid", "melon-aphid")])
        at = {}
        for stage in ("nymph", "adult"):
            root = ElementTree.fromstring(stages.of_agent(CATALOGUE.agents["potato-aphid"], stage, apart))
            tags = [
                node
                for node in root.iter()
                if node.tag.endswith("circle") and node.get("r") in ("10.00", "6.50") and node.get("fill") in ("none", svg.BOOT)
            ]
            at[stage] = [(float(tag.get("cx") or 0), float(tag.get("cy") or 0)) for tag in tags]
            numbers = at[stage][1::2]
            self.assertGreaterEqual(math.dist(*numbers), 13, stage)
        middle = callouts.CENTRE
        for young, grown in zip(at["nymph"][::2], at["adult"][::2], strict=True):
            self.assertLess(math.dist(young, middle), math.dist(grown, middle))

    def test_a_gopher_has_young_and_no_nymphs(self) -> None:
        self.assertEqual(CATALOGUE.agents["pocket-gopher"].stage_name("nymph"), "young")
        self.assertEqual(CATALOGUE.agents["potato-aphid"].stage_name("nymph"), "nymph")

    def test_every_mark_has_a_place_within_the_drawing(self) -> None:
        for stage, name in itertools.product(("larva", "adult"), TOLD):
            root = ElementTree.fromstring(stages.of_agent(CATALOGUE.agents["codling-moth"], stage, (name,)))
            ring = [node for node in root.iter() if node.tag.endswith("circle") and node.get("fill") == "none"][-1]
            self.assertTrue(6 <= float(ring.get("cx") or 0) <= 114 and 20 <= float(ring.get("cy") or 0) <= 124, (stage, name))


class Words(unittest.TestCase):
    def test_every_mark_of_every_agent_is_said(self) -> None:
        for agent in CATALOGUE.agents.values():
            for drawn, name in itertools.product(agent.drawn.values(), TOLD):
                said = described(tongue(), drawn, name, agent.body)
                self.assertTrue(said)
                self.assertNotIn("{", said)

    def test_colours_are_named_by_the_nearest(self) -> None:
        named = {"#000000": "black", "#ffffff": "white", "#c0392b": "red", "#e0c040": "yellow", "#26324a": "dark blue"}
        named |= {"#3d352b": "dark brown", "#3a3a3a": "dark grey", "#c9b48a": "tan", "#3f4a2a": "dark green", "#f0e27a": "pale yellow"}
        self.assertEqual({colour: colour_name(colour) for colour in named}, named)


class Read(unittest.TestCase):
    def refused(self, table: dict[str, object], words: str) -> None:
        with self.assertRaises(CatalogueError) as caught:
            read({"codling-moth": table}, {"codling-moth": "any-fruit-moth"}, STAGES)
        self.assertIn(words, str(caught.exception))

    def test_a_wrong_word_is_named_with_what_would_be_right(self) -> None:
        self.refused({"larvae": {"stripes": 1}}, "did you mean larva")
        self.refused({"larva": {"pattern": "vee"}}, "it must be one of")
        self.refused({"larva": {"stripes": 2}}, "need the colour of the mark")
        self.refused({"larva": {"strips": 2, "mark": "#000000"}}, "did you mean stripes")
        with self.assertRaises(CatalogueError) as caught:
            read({"coddling-moth": {}}, {"codling-moth": ""}, STAGES)
        self.assertIn("did you mean codling-moth", str(caught.exception))

    def test_a_member_takes_what_its_kind_says_and_its_own_comes_first(self) -> None:
        raw = {"any-x": {"larva": {"hairs": True}, "adult": {"slim": 0.4}}, "x": {"larva": {"pattern": "saddle"}}}
        drawn = read(raw, {"any-x": "", "x": "any-x", "y": "any-x"}, STAGES)
        self.assertEqual(drawn["x"], {"larva": Drawn(pattern=Pattern.SADDLE), "adult": Drawn(slim=0.4)})
        self.assertEqual(drawn["y"], drawn["any-x"])
