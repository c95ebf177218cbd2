"""The catalogue that ships is whole, and a bad file is refused by name and reason."""

import shutil
import tempfile
import unittest
from dataclasses import replace
from pathlib import Path

from bootmark.core.catalogue import CatalogueError, check, default, load
from bootmark.core.catalogue.loader import HERE
from bootmark.core.catalogue.reader import PROVENANCE
from bootmark.core.season.degree_days import CUTOFFS, METHODS
from bootmark.drawing import DRAWN, sign_svg

CATALOGUE = default()


class Content(unittest.TestCase):
    def test_every_sign_has_a_look_and_a_drawing(self) -> None:
        for sign in CATALOGUE.signs.values():
            self.assertIn(sign.id, CATALOGUE.looks[sign.look].signs)
            self.assertNotEqual(sign.id in DRAWN, bool(sign.pictures), sign.id)
            self.assertIn(sign.name, sign_svg(sign.id).replace("&#x27;", "'"))

    def test_every_drawing_belongs_to_a_sign(self) -> None:
        self.assertEqual(set(DRAWN) - set(CATALOGUE.signs), set())

    def test_the_content_check_finds_nothing(self) -> None:
        """Reachable signs, look-alikes told apart, hosts, months, stages, groups and cautions: check.faults says what it looks for."""
        self.assertEqual(check.faults(CATALOGUE), [])

    def test_it_is_as_large_as_was_set_out(self) -> None:
        self.assertGreaterEqual(len(CATALOGUE.signs), 480)
        self.assertGreaterEqual(len(CATALOGUE.agents), 400)
        self.assertGreaterEqual(len(CATALOGUE.crops), 260)
        self.assertGreaterEqual(sum(agent.is_kind for agent in CATALOGUE.agents.values()), 80)

    def test_every_pest_can_be_confirmed_and_counted(self) -> None:
        for agent in CATALOGUE.agents.values():
            if agent.is_pest:
                proofs = [CATALOGUE.signs[shows.sign] for shows in agent.shows.values() if shows.confirms]
                self.assertTrue(proofs, agent.id)
                # Mammals and birds are told by what they leave: no scout waits for the animal.
                lasting = agent.is_kind or agent.kind == "vertebrate"
                self.assertTrue(lasting or any(sign.live for sign in proofs), agent.id)
                # What can hurt people is kept off, not counted.
                self.assertTrue(agent.hurts or (agent.sampling and agent.thresholds), agent.id)

    def test_provenance_stands_on_every_value(self) -> None:
        counts = check.provenance(CATALOGUE)
        self.assertEqual(set(counts), set(PROVENANCE))
        least = sum(
            3 + len(agent.shows) + len(agent.controls) + len(agent.thresholds) + len(agent.enemies) for agent in CATALOGUE.agents.values()
        )
        self.assertGreaterEqual(counts.total(), least)

    def test_a_crop_is_found_by_two_letters(self) -> None:
        for letters, crop in (("ra", "raspberry"), ("sq", "squash"), ("zu", "courgette"), ("po", "potato"), ("as", "ash")):
            self.assertIn(crop, [crop.id for crop in CATALOGUE.crops_like(letters)], letters)
        self.assertEqual(CATALOGUE.crops_like("zzz"), [])

    def test_heat_models_can_be_computed(self) -> None:
        for agent in CATALOGUE.agents.values():
            if agent.heat:
                self.assertIn(agent.heat.method, METHODS)
                self.assertIn(agent.heat.cutoff, CUTOFFS)
                events = {event.id for event in agent.heat.events}
                for control in agent.controls:
                    self.assertLessEqual(set(control.phases) | set(control.at_events), events, f"{agent.id} {control.id}")

    def test_conventional_controls_carry_group_cautions_and_the_label(self) -> None:
        for agent in CATALOGUE.agents.values():
            for control in agent.controls:
                if control.kind == "conventional":
                    self.assertRegex(control.group, r"^(IRAC|FRAC) ")
                    self.assertTrue(any("label" in caution for caution in control.cautions), control.id)

    def test_a_catch_in_a_trap_carries_a_control_only_where_the_threshold_is_a_trap_threshold(self) -> None:
        for agent in CATALOGUE.agents.values():
            shows = agent.shows.get("males-in-its-lure-trap")
            if shows and shows.confirms:
                self.assertIn("trap", {threshold.measure for threshold in agent.thresholds}, agent.id)

    def test_months_and_stages(self) -> None:
        for agent in CATALOGUE.agents.values():
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
            (
                ('stippling = { often = "always"', 'stippling = { often = "mostly"'),
                "spider-mite.toml .signs stippling.: 'often' is 'mostly'; it must be",
            ),
            (("stippling = {", "stippling = 3 #"), "signs 'stippling' must be a table"),
            (("stippling =", "stipling ="), "unknown sign 'stipling'; did you mean stippling"),
            (('often = ["raspberry"', 'often = ["rasberry"'), "unknown crop 'rasberry'; did you mean raspberry"),
            (('kind = "soft"', 'kind = "conventional"'), "soap.: 'harvest_days' is missing: an unknown interval is not nought"),
            (('[controls.wash-off]\nkind = "physical"', "[controls.wash-of]"), "not in controls.toml.*did you mean wash-off"),
            (('kind = "mite"', 'kind = "spider"'), "'kind' is 'spider'"),
            (('source = "common-practice"', 'source = "xx"'), "'xx' is not in sources.toml"),
            (('unit = "mites per leaf", source', 'unite = "mites per leaf", source'), "thresholds 1.*'unit' is missing"),
            (('group = "IRAC 20B"', 'group = ""'), "resistance group"),
            (('id = "two-spotted-spider-mite"', 'id = "mite"'), "must be the file's name"),
            (("lower = 53", 'lower = "warm"'), "'lower' must be"),
            (("upper = 95", "upper = 40"), "must be above"),
            (('summary = "', 'sumary = "'), "'summary' is missing|unknown key sumary"),
            (("western-flower-thrips = {", "dragon = {"), "'dragon'"),
            (('body = "mite"', 'body = "lizard"'), "'body' is 'lizard'"),
            (("adult = { months = [4, 10]", "adult = { months = [4, 13]"), "life.*adult.*month"),
        ):
            with self.subTest(words=words):
                self.refused(change, words)

    def test_a_rotten_entry_is_found_by_the_content_check(self) -> None:
        """Each change leaves the files well formed but the content wrong."""
        mite = CATALOGUE.agents["two-spotted-spider-mite"]
        assert mite.sampling is not None
        for change, words in (
            ({"controls": mite.controls[:1]}, "controls, at least"),
            ({"sampling": None}, "no way to count it"),
            ({"sampling": replace(mite.sampling, unit="shoot")}, "counts by shoot, and its threshold is of mites per leaf"),
            ({"winters_as": ""}, "as what it winters"),
            ({"months": frozenset(range(1, 13))}, "in months in which no stage lives"),
            ({"summary": CATALOGUE.agents["western-flower-thrips"].summary}, "summary stands in 2 entries"),
            ({"shows": {"stippling": mite.shows["stippling"]}}, "no sign confirms it"),
        ):
            spoilt = replace(CATALOGUE, agents={**CATALOGUE.agents, mite.id: replace(mite, **change)})
            self.assertTrue(any(words in fault for fault in check.faults(spoilt)), (words, check.faults(spoilt)))
        marking = replace(mite.controls[0], marks=("dragon-tree",))
        spoilt = replace(CATALOGUE, agents={**CATALOGUE.agents, mite.id: replace(mite, controls=(marking, *mite.controls[1:]))})
        self.assertTrue(any("dragon-tree, which is no crop" in fault for fault in check.faults(spoilt)))
        blight = CATALOGUE.agents["fire-blight"]
        sprays = tuple(control for control in blight.controls if control.kind not in check.GENTLE)
        spoilt = replace(CATALOGUE, agents={**CATALOGUE.agents, blight.id: replace(blight, controls=sprays)})
        self.assertIn("fire-blight: nothing is known against it but to spray", check.faults(spoilt))
