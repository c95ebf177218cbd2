"""The catalogue that ships is whole, and a bad file is refused by name and reason."""

import shutil
import tempfile
import unittest
from pathlib import Path

from bootmark.core.catalogue import CatalogueError, default, load
from bootmark.core.catalogue.loader import HERE
from bootmark.core.season.degree_days import CUTOFFS, METHODS
from bootmark.web.drawing import DRAWN, sign_svg

KNOWN = default()


class Content(unittest.TestCase):
    def test_every_sign_has_a_look_and_a_drawing(self) -> None:
        for sign in KNOWN.signs.values():
            self.assertIn(sign.id, KNOWN.looks[sign.look].signs)
            self.assertIn(sign.id, DRAWN)
            self.assertIn(sign.name, sign_svg(sign.id).replace("&#x27;", "'"))

    def test_every_look_answers_something_an_agent_shows(self) -> None:
        shown = {sign for agent in KNOWN.agents.values() for sign in agent.shows}
        for look in KNOWN.looks.values():
            self.assertTrue(set(look.signs) & (shown | {"soil-sodden"}), look.id)

    def test_every_pest_can_be_confirmed(self) -> None:
        for agent in KNOWN.agents.values():
            if agent.is_pest:
                self.assertTrue(any(shows.confirms and KNOWN.signs[shows.sign].live for shows in agent.shows.values()), agent.id)
                self.assertIsNotNone(agent.sampling, agent.id)
                self.assertTrue(agent.thresholds, agent.id)

    def test_look_alikes_are_told_apart_by_the_look_they_name(self) -> None:
        for agent in KNOWN.agents.values():
            for alike in agent.look_alikes:
                other = KNOWN.agent(alike.agent)
                signs = KNOWN.looks[alike.look].signs
                here, there = ([one.shows[sign].chance if sign in one.shows else 0 for sign in signs] for one in (agent, other))
                self.assertTrue(any(abs(a - b) >= 0.25 for a, b in zip(here, there, strict=True)), f"{agent.id} against {alike.agent}")

    def test_heat_models_can_be_computed(self) -> None:
        for agent in KNOWN.agents.values():
            if agent.heat:
                self.assertIn(agent.heat.method, METHODS)
                self.assertIn(agent.heat.cutoff, CUTOFFS)
                events = {event.id for event in agent.heat.events}
                for control in agent.controls:
                    self.assertLessEqual(set(control.phases) | set(control.at_events), events, f"{agent.id} {control.id}")

    def test_conventional_controls_carry_group_cautions_and_the_label(self) -> None:
        for agent in KNOWN.agents.values():
            for control in agent.controls:
                if control.kind == "conventional":
                    self.assertRegex(control.group, r"^(IRAC|FRAC) ")
                    self.assertTrue(any("label" in caution for caution in control.cautions), control.id)

    def test_a_catch_in_a_trap_carries_a_control_only_where_the_threshold_is_a_trap_threshold(self) -> None:
        for agent in KNOWN.agents.values():
            shows = agent.shows.get("males-in-its-lure-trap")
            if shows and shows.confirms:
                self.assertIn("trap", {one.measure for one in agent.thresholds}, agent.id)

    def test_months_and_stages(self) -> None:
        for agent in KNOWN.agents.values():
            self.assertTrue(agent.months <= set(range(1, 13)))
            self.assertEqual(set(agent.where), set(agent.stages), agent.id)


class Refusals(unittest.TestCase):
    def refused(self, change: tuple[str, str], words: str, file: str = "mites/two-spotted-spider-mite.toml") -> None:
        with tempfile.TemporaryDirectory() as folder:
            copy = Path(folder) / "catalogue"
            shutil.copytree(HERE, copy, ignore=shutil.ignore_patterns("*.py", "__pycache__"))
            path = copy / file
            text = path.read_text()
            self.assertIn(change[0], text)
            path.write_text(text.replace(*change, 1))
            with self.assertRaisesRegex(CatalogueError, words):
                load(copy)

    def test_each_fault_is_named(self) -> None:
        for change, words in (
            (('often = "always"', 'often = "mostly"'), "two-spotted-spider-mite.toml.*'often' is 'mostly'"),
            (('sign = "stippling"', 'sign = "dotting"'), "'sign' is 'dotting'"),
            (('kind = "mite"', 'kind = "spider"'), "'kind' is 'spider'"),
            (('source = "cp"', 'source = "xx"'), "'xx' is not among"),
            (('group = "IRAC 20B"\n', ""), "resistance group"),
            (('id = "two-spotted-spider-mite"', 'id = "mite"'), "must be the file's name"),
            (("lower = 53", 'lower = "warm"'), "'lower' must be"),
            (("upper = 95", "upper = 40"), "must be above"),
            (('summary = "', 'sumary = "'), "'summary' is missing"),
            (('cp = "common practice"', 'cp = "my neighbour"'), "must begin with"),
            (('agent = "western-flower-thrips"', 'agent = "dragon"'), "'dragon' is not in the catalogue"),
        ):
            with self.subTest(words=words):
                self.refused(change, words)
