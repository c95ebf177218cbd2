"""Short rows, plants that are like others, and a catalogue kept as it was read."""

import shutil
import tempfile
import unittest
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path
from unittest import mock

from hypothesis import given
from hypothesis import strategies as st

from bootmark.core import judgement
from bootmark.core.catalogue import check, compiled, default, loader
from bootmark.core.catalogue.flowering import in_order, months_at
from bootmark.core.catalogue.model import REPORT
from bootmark.core.catalogue.reader import CatalogueError
from bootmark.core.field.priors import Plant, _standing, living_on

CATALOGUE = default()
RANK = list(judgement.HOW_USUAL)
ROW = """
[silver-midge]
name = "Silver midge"
scientific = "Nonnius argenteus"
summary = "Silver galls on willow shoots."
occurs = "Nowhere."
months = [4, 9]
listed = ["Ireland"]
hosts = { often = ["willow"] }
signs = { galls-rosette = "always!~", maggots-in-the-gall = "never" }
year = { larva = [5, 9], adult = [4, 5] }
winters_as = "larva"
"""


class Rows(unittest.TestCase):
    folder: Path

    def setUp(self) -> None:
        self.folder = Path(tempfile.mkdtemp(prefix="bootmark-test-"))
        self.addCleanup(shutil.rmtree, self.folder)
        shutil.copytree(loader.HERE, self.folder, dirs_exist_ok=True, ignore=shutil.ignore_patterns("*.py", "schemas"))

    def write(self, file: str, change: Callable[[str], str]) -> None:
        path = self.folder / file
        path.write_text(change(path.read_text()))

    def refused(self, file: str, change: Callable[[str], str], words: str) -> None:
        """A file that is changed so is refused in these words; the file is as before afterwards."""
        kept = (self.folder / file).read_text()
        self.write(file, change)
        with self.assertRaisesRegex(CatalogueError, words):
            loader.load(self.folder)
        self.write(file, lambda _: kept)

    def test_a_row_says_what_differs_and_has_the_rest_of_its_kind(self) -> None:
        self.write("rows/any-gall-midge.toml", lambda text: text + ROW)
        midge, kind = (loader.load(self.folder).agents[agent] for agent in ("silver-midge", "any-gall-midge"))
        self.assertEqual((midge.of, midge.body, midge.sampling, midge.leave_when), (kind.id, kind.body, kind.sampling, kind.leave_when))
        gall = midge.shows["galls-rosette"]
        self.assertEqual((gall.often, gall.confirms, gall.outlasts), ("always", True, True))
        self.assertEqual(midge.shows["maggots-in-the-gall"].often, "never")
        self.assertEqual(midge.shows["rolled-edge-swollen"], kind.shows["rolled-edge-swollen"])
        self.assertEqual(midge.year["larva"], frozenset({5, 6, 7, 8, 9}))
        # What is listed somewhere is reported before anything is done to it, without the row saying so.
        self.assertEqual([control.id for control in midge.controls], ["report-it", *(control.id for control in kind.controls)])

    def test_a_wrong_row_is_refused_by_file_row_and_what_would_be_right(self) -> None:
        for old, new, words in (
            ('"always!~"', '"mostly"', r"rows/any-gall-midge.toml \[silver-midge\]: 'galls-rosette' is 'mostly'; it must be one of always"),
            ("larva = [5, 9]", "grub = [5, 9]", "'grub' in 'year' is no stage"),
            ("galls-rosette", "galls-rosete", "unknown sign 'galls-rosete'; did you mean galls-rosette"),
            ('"willow"', '"wilow"', "unknown crop 'wilow'; did you mean"),
            ("summary", "sumary", "'summary' is missing"),
            ("occurs", "ocurs = 3\noccurs", "unknown key ocurs; did you mean occurs"),
            ("[silver-midge]", "[codling-moth]", "codling-moth.*stands in another file as well"),
        ):
            with self.subTest(words=words):
                self.refused("rows/any-gall-midge.toml", lambda text, change=(old, new): text + ROW.replace(*change), words)

    def test_a_file_of_rows_names_a_kind(self) -> None:
        (self.folder / "rows/any-dragon.toml").write_text(ROW)
        with self.assertRaisesRegex(CatalogueError, "rows/any-dragon.toml: no kind is called so"):
            loader.load(self.folder)

    def test_two_of_a_kind_with_the_same_signs_stand_on_different_plants(self) -> None:
        twin = ROW.replace("silver-midge", "golden-midge").replace("Silver midge", "Golden midge").replace("Silver galls", "Gold galls")
        self.write("rows/any-gall-midge.toml", lambda text: text + ROW + twin)
        faults = check.faults(loader.load(self.folder))
        self.assertEqual(faults, ["golden-midge: shows exactly the signs of silver-midge, on the same plants"])
        self.write("rows/any-gall-midge.toml", lambda text: text.replace(twin, twin.replace('"willow"', '"lilac"')))
        self.assertEqual(check.faults(loader.load(self.folder)), [])

    def test_a_plant_that_names_no_plant_or_agent_is_refused(self) -> None:
        for old, new, words in (
            ('as = "wheat"', 'as = "weat"', "'weat' is no crop that stands on its own; did you mean"),
            ('as = "wheat"', 'as = "pumpkin"', "'pumpkin' is no crop that stands on its own"),
            ('often = ["fire-blight"]', 'often = ["fire-blite"]', "'fire-blite' is not in the catalogue; did you mean fire-blight"),
        ):
            with self.subTest(words=words):
                self.refused("crops.toml", lambda text, change=(old, new): text.replace(*change, 1), words)

    def test_what_is_listed_is_reported_first_and_a_member_keeps_its_kinds_cares(self) -> None:
        for agent in CATALOGUE.agents.values():
            self.assertEqual(any(control.id == REPORT for control in agent.controls), bool(agent.notifiable), agent.id)
        worm, kind = (CATALOGUE.agents[agent].control("bt-kurstaki") for agent in ("imported-cabbageworm", "any-caterpillar"))
        self.assertEqual(worm.needs_absent, kind.needs_absent)
        self.assertIn("white-cocoons-on-its-back", worm.needs_absent)

    def test_a_sawfly_that_winters_as_a_larva_is_no_pupa_in_january(self) -> None:
        self.write("insects/rose-slug.toml", lambda text: text.replace("pupa = { months = [4, 5]", "pupa = { months = [7, 4]"))
        self.assertIn("rose-slug: winters as a larva, and its year has the pupa then", check.faults(loader.load(self.folder)))


class Likeness(unittest.TestCase):
    def test_what_shares_all_has_every_agent_of_the_other_and_its_thresholds(self) -> None:
        for crop in CATALOGUE.crops.values():
            for agent in CATALOGUE.agents.values() if crop.shares else ():
                if crop.shares in agent.hosts:
                    own = crop.lives.get(agent.id, agent.hosts[crop.shares])
                    self.assertLessEqual(RANK.index(agent.hosts.get(crop.id, "rarely")), RANK.index(own), (crop.id, agent.id))
                nominal = {threshold.crop for threshold in agent.thresholds}
                self.assertTrue(crop.shares not in nominal or crop.id in nominal, (crop.id, agent.id))

    def test_what_is_only_alike_has_them_less_often_and_diseases_hardly_ever(self) -> None:
        """Rowan is like apple, hawthorn and pear: what is often on apple is seldom on rowan, where nothing else is said."""
        rowan = CATALOGUE.crops["rowan"]
        moth = CATALOGUE.agents["codling-moth"]
        self.assertEqual((moth.hosts["apple"], moth.hosts["rowan"]), ("often", "seldom"))
        for agent in CATALOGUE.agents.values():
            alike = [agent.hosts[other] for other in rowan.like if other in agent.hosts]
            if alike and agent.id not in rowan.lives:
                self.assertIn("rowan", agent.hosts, agent.id)
        scab = CATALOGUE.agents["apple-scab"]
        self.assertEqual((scab.hosts["apple"], scab.hosts["rowan"]), ("often", "rarely"))

    def test_a_sign_of_one_crop_can_show_on_those_that_share_all_with_it(self) -> None:
        for sign in CATALOGUE.signs.values():
            for crop in CATALOGUE.crops.values():
                if sign.crops and crop.shares in sign.crops:
                    self.assertTrue(CATALOGUE.can_show(sign.id, crop.id), (sign.id, crop.id))

    @given(st.sampled_from(sorted(CATALOGUE.crops)))
    def test_more_entries_do_not_make_a_kind_more_usual_than_its_most_usual_member(self, crop: str) -> None:
        entry = CATALOGUE.crops[crop]
        plant = Plant(crop, entry.family, entry.habit)
        agents, odds = living_on(plant, CATALOGUE), _standing(plant, entry.place, CATALOGUE)
        together: dict[str, float] = {}
        for agent, odd in zip(agents, odds, strict=True):
            # Helpers and what is normal are many things, not one under many names.
            if agent.kind not in ("beneficial", "normal"):
                chance = odd / agent.places.get(entry.place, 1.0)
                together[CATALOGUE.key_of(agent.id)] = together.get(CATALOGUE.key_of(agent.id), 0.0) + chance / (1 + chance)
        most = max(judgement.HOW_USUAL.values())
        self.assertLessEqual(max(together.values()), judgement.KIND_OF_MANY * most + 1e-9)


class Kept(unittest.TestCase):
    def setUp(self) -> None:
        self.folder = Path(tempfile.mkdtemp(prefix="bootmark-test-"))
        self.addCleanup(shutil.rmtree, self.folder)
        self.read = mock.Mock(return_value=replace(CATALOGUE, hash="read"))
        self.files = [loader.HERE / "signs.toml"]
        patched = mock.patch.dict("os.environ", {"XDG_CACHE_HOME": str(self.folder)})
        patched.start()
        self.addCleanup(patched.stop)

    def kept(self) -> Path:
        return next((self.folder / "bootmark").glob("catalogue-*.pickle"))

    def test_it_is_read_once_and_comes_back_whole(self) -> None:
        first, again = (compiled.kept(self.files, self.read) for _ in range(2))
        self.assertEqual(self.read.call_count, 1)
        self.assertEqual((first.agents, first.signs, first.crops), (again.agents, again.signs, again.crops))

    def test_other_files_are_read_anew_and_only_the_newest_is_kept(self) -> None:
        compiled.kept(self.files, self.read)
        compiled.kept([*self.files, loader.HERE / "looks.toml"], self.read)
        self.assertEqual((self.read.call_count, len(list((self.folder / "bootmark").iterdir()))), (2, 1))

    def test_what_another_user_could_have_written_or_what_is_broken_is_not_believed(self) -> None:
        compiled.kept(self.files, self.read)
        self.kept().chmod(0o666)
        compiled.kept(self.files, self.read)
        self.assertEqual(self.read.call_count, 2)
        self.kept().write_bytes(b"no pickle")
        compiled.kept(self.files, self.read)
        self.assertEqual(self.read.call_count, 3)

    def test_where_nothing_can_be_written_it_is_read_each_time(self) -> None:
        with mock.patch.object(compiled, "_put", side_effect=OSError):
            for _ in range(2):
                self.assertEqual(compiled.kept(self.files, self.read).hash, "read")
        self.assertEqual(self.read.call_count, 2)


class Flowering(unittest.TestCase):
    """Hopkins (1920), from memory: four days later for each degree towards the pole; common practice: half a year between hemispheres."""

    def test_spring_comes_earlier_towards_the_equator_and_autumn_later(self) -> None:
        apple = CATALOGUE.crops["apple"]
        self.assertEqual(in_order(months_at(apple.flowers, 50)), [4, 5])
        self.assertEqual(in_order(months_at(apple.flowers, 43)), [3, 4])
        self.assertEqual(in_order(months_at(frozenset({10}), 35)), [12])

    def test_every_plant_has_its_months_of_leaf_and_all_but_two_of_flower(self) -> None:
        self.assertEqual([crop.id for crop in CATALOGUE.crops.values() if not crop.in_leaf], [])
        self.assertEqual([crop.id for crop in CATALOGUE.crops.values() if not crop.flowers], ["fern", "mushroom"])
        months = {crop: CATALOGUE.crops[crop].in_leaf for crop in ("pear", "citrus", "spruce", "larch", "tulip")}
        self.assertEqual([len(months[crop]) for crop in ("citrus", "spruce")], [12, 12])
        self.assertTrue(all(1 not in months[crop] for crop in ("pear", "larch", "tulip")))

    def test_the_south_is_half_a_year_away_and_the_tropics_have_no_season(self) -> None:
        self.assertEqual(in_order(months_at(frozenset({4, 5}), -43)), [9, 10])
        self.assertEqual(months_at(frozenset({5}), 10), frozenset(range(1, 13)))
        self.assertEqual(months_at(frozenset(), 10), frozenset())
        with self.assertRaisesRegex(ValueError, "between -90 and 90"):
            months_at(frozenset({5}), 91)

    @given(st.frozensets(st.integers(1, 12), min_size=1, max_size=5), st.floats(24, 89))
    def test_none_is_lost_and_the_other_hemisphere_is_half_a_year_off(self, months: frozenset[int], latitude: float) -> None:
        north, south = months_at(months, latitude), months_at(months, -latitude)
        self.assertEqual({(month + 5) % 12 + 1 for month in north}, south)
        self.assertLessEqual(len(north), len(months))
        self.assertEqual(sorted(in_order(north)), sorted(north))
