"""Cases written by hand, half of them on plants or causes without an entry, played through `./bootmark case`. From experience, no source."""

import json
import random
import subprocess
import sys
import unittest
from collections.abc import Iterable

from bootmark.case.__main__ import answered
from bootmark.core.catalogue import default
from bootmark.core.catalogue.plants import understand
from bootmark.core.field.network import Network
from bootmark.core.types import Case
from tests.outside.played import Played, Written, always, play, written

CATALOGUE = default()
DRAWN = 1500


def flipped(case: Written) -> list[Played]:
    """A case with each of its answers told wrongly in turn."""
    return [play(case, CATALOGUE, sign) for sign in sorted(play(case, CATALOGUE).asked)]


def share(rows: Iterable[bool]) -> float:
    told = list(rows)
    return sum(told) / len(told)


class Table(unittest.TestCase):
    def test_the_cause_leads_is_concluded_and_called_rightly_and_nothing_harmful_is_said(self) -> None:
        games = [play(case, CATALOGUE) for case in written()]
        self.assertGreaterEqual(len(games), 150)
        scores = {name: share(getattr(game, name) for game in games) for name in ("leads", "concludes", "right")}
        print(f"  {len(games)} cases: " + ", ".join(f"{name} {score:.3f}" for name, score in scores.items()))
        self.assertEqual([(game.written.crop, game.written.cause, game.harm) for game in games if game.harm], [])
        self.assertGreaterEqual(scores["leads"], 0.90)
        self.assertGreaterEqual(scores["concludes"], 0.85)
        self.assertGreaterEqual(scores["right"], 0.80)

    def test_half_of_them_have_no_entry_of_their_own(self) -> None:
        def listed(crop: str, cause: str) -> bool:
            plant = understand(crop, CATALOGUE).plant
            return bool(plant and plant.crop) and not CATALOGUE.agent(cause).id.startswith("any-")

        self.assertGreaterEqual(share(not listed(case.crop, case.cause) for case in written()), 0.5)

    def test_one_wrong_answer_does_no_harm_and_seldom_leads_astray(self) -> None:
        games = [game for case in written() for game in flipped(case)]
        leads = share(game.leads for game in games)
        print(f"  {len(games)} cases with one answer wrong: leads {leads:.3f}, concludes {share(game.concludes for game in games):.3f}")
        self.assertEqual([(game.written.crop, game.written.cause, game.harm) for game in games if game.harm], [])
        self.assertGreaterEqual(leads, 0.80)


class Drawn(unittest.TestCase):
    def test_nothing_harmful_is_said_of_cases_drawn_from_the_catalogue(self) -> None:
        rng, crops, harmful = random.Random(20261126), sorted(CATALOGUE.crops), []
        for _ in range(DRAWN):
            crop, month = rng.choice(crops), rng.randint(1, 12)
            network = Network(Case(crop, month=month), CATALOGUE)
            agent = rng.choice(network.agents)
            there = {sign: rng.random() < shows.chance for sign, shows in agent.shows.items()}
            others = rng.sample(sorted(network.showing), 4)
            told = {sign: "seen" if state else "absent" for sign, state in there.items() if rng.random() < 0.7}
            told |= {sign: rng.choice(("seen", "absent", "unsure")) for sign in others}
            country = rng.choice(("", "DE", "US"))
            bounds = {"in_flower": rng.random() < 0.3, "days_to_harvest": rng.choice((None, 0, 2, 7, 20))}
            answer = answered(json.dumps({"crop": crop, "month": month, "country": country, "signs": told} | bounds), CATALOGUE)
            harmful += [(crop, agent.id, harm) for harm in always(answer, told, CATALOGUE, **bounds)]
        self.assertEqual(harmful, [])


class CommandLine(unittest.TestCase):
    def lines(self, *lines: object) -> list[dict[str, object]]:
        sent = "\n".join(line if isinstance(line, str) else json.dumps(line) for line in lines)
        run = subprocess.run([sys.executable, "-m", "bootmark.case"], input=sent, capture_output=True, text=True, check=True)
        return [json.loads(line) for line in run.stdout.splitlines()]

    def test_a_bad_line_is_told_and_the_rest_goes_on(self) -> None:
        rose = {"id": 7, "crop": "rose", "month": 6, "signs": {"soft-aphids": "seen"}}
        answers = self.lines(
            "nonsense", {"crop": "rose", "signs": {"stipling": "seen"}}, {"crop": "rose", "sings": {}}, {"crop": 3}, [1],
            {"crop": "rose", "month": 13}, {"crop": "rose", "counts": {"rose-aphid": {"counts": ["x"]}}}, rose,
        )  # fmt: skip
        self.assertEqual([bool(answer.get("error")) for answer in answers], [True] * 7 + [False])
        self.assertIn("did you mean stippling", str(answers[1]["error"]))
        self.assertIn("did you mean signs", str(answers[2]["error"]))
        self.assertEqual(answers[-1]["id"], 7)
        for answer in answers:
            self.assertLessEqual({"v", "catalogue", "engine"}, set(answer))

    def test_shuffled_lines_give_the_same_answers(self) -> None:
        cases = [
            {"id": n, "crop": case.crop, "month": case.month, "signs": dict.fromkeys(case.told, "seen")} for n, case in enumerate(written())
        ][:40]
        shuffled = random.Random(3).sample(cases, len(cases))
        first, second = ({answer["id"]: answer for answer in self.lines(*rows)} for rows in (cases, shuffled))
        self.assertEqual(first, second)

    def test_what_can_be_tapped_is_listed_by_part_and_never_empty(self) -> None:
        for crop in ("maize", "a shrub that nobody named", "nasturtium", "flour"):
            parts = {row["part"]: row["signs"] for row in answered(json.dumps({"list": "signs", "crop": crop}), CATALOGUE)["parts"]}
            for part in ("tip", "old leaf", "stem", "root", "ground", "trunk", "bulb", *(["grain"] if crop in ("maize", "flour") else [])):
                self.assertTrue(parts.get(part), (crop, part))

    def test_a_count_and_a_country_reach_the_call(self) -> None:
        many = {"rose-aphid": {"unit": "shoot", "measure": "proportion", "counts": [1] * 19 + [0]}}
        few = {"rose-aphid": {"unit": "shoot", "measure": "proportion", "counts": [0] * 20}}
        case = {"crop": "roses", "month": 6, "signs": {"soft-aphids": "seen", "green-aphids": "seen"}}
        outcomes = [answered(json.dumps(case | {"counts": counts}), CATALOGUE)["call"][0]["outcome"] for counts in (many, few)]
        self.assertEqual(outcomes, ["act now", "leave"])
        ash = {"crop": "ash", "month": 6, "signs": {"d-shaped-exit-holes": "seen", "galleries-under-bark": "seen"}}
        kinds = {place: answered(json.dumps(ash | {"country": place}), CATALOGUE)["verdict"]["kind"] for place in ("DE", "US", "GB-SCT")}
        self.assertEqual(kinds, {"DE": "must be reported", "US": "named", "GB-SCT": "must be reported"})


class Words(unittest.TestCase):
    def test_crops_as_people_call_them(self) -> None:
        for words, crop in (
            ("Courgettes", "courgette"), ("zuccini", "courgette"), ("my old apple tree", "apple"), ("potted lemon", "citrus"), ("swede", "swede"),
            ("brussel sprouts", "brussels-sprouts"), ("Quercus robur", "oak"), ("box hedge", "boxwood"), ("tomatoe", "tomato"), ("runner beans", "bean"),
            ("grapevines", "grape"), ("raspberries", "raspberry"), ("sweet-corn", "maize"), ("eggplants", "aubergine"), ("geranium", "pelargonium"),
        ):  # fmt: skip
            plant = understand(words, CATALOGUE).plant
            self.assertEqual(plant.crop if plant else "", crop, words)

    def test_plants_without_an_entry_have_family_and_habit(self) -> None:
        for words, family, habit in (
            ("cornflowers", "Asteraceae", "herb"), ("durian tree", "Malvaceae", "tree"), ("japanese cedar hedge", "Cupressaceae", "conifer"),
            ("Centaurea cyanus", "Asteraceae", "herb"), ("canna lilies", "Cannaceae", "herb"), ("some unknown shrub", "", "shrub"),
        ):  # fmt: skip
            plant = understand(words, CATALOGUE).plant
            assert plant is not None, words
            self.assertEqual((plant.crop, plant.family, plant.habit), ("", family, habit), words)

    def test_what_is_only_like_a_name_is_asked_about(self) -> None:
        meant = understand("lemmon", CATALOGUE)
        self.assertFalse(meant.sure)
        self.assertIn("citrus", meant.suggestions)
        self.assertIsNone(understand("xyzzy", CATALOGUE).plant)
