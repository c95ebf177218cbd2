"""Helpers and passers-by: who tells of the animal hears that it helps, on any plant that it lives on, and nothing is sprayed at it."""

import json
import unittest

from bootmark.case.__main__ import answered
from bootmark.core import judgement
from bootmark.core.catalogue import default
from bootmark.core.catalogue.model import Agent
from bootmark.core.field.identify import next_looks, suspects
from bootmark.core.field.priors import Plant, living_on, priors
from bootmark.core.types import Case

CATALOGUE = default()
HELPERS = CATALOGUE.members("any-helper")
PASSERS = [agent for agent in CATALOGUE.members("any-decomposer") if not agent.is_kind]
SPRAYS = ("soft", "conventional")


def told(agent: Agent, crop: str) -> dict[str, object]:
    """The answer to its own proof, told alone, in a month in which it is about."""
    proof = next(sign for sign, shows in agent.shows.items() if shows.confirms)
    month = next((month for month in (6, 9, 4, 1) if month in agent.months), 6)
    return answered(json.dumps({"crop": crop, "month": month, "signs": {proof: "seen"}}), CATALOGUE)


class Told(unittest.TestCase):
    def test_each_helper_is_named_by_its_own_sign_and_left_alone(self) -> None:
        self.assertGreaterEqual(len(HELPERS), 20)
        for agent in (helper for helper in HELPERS if not helper.is_kind):
            crop = next((plant for plant in agent.hosts if plant in CATALOGUE.crops), "tomato")
            answer = told(agent, crop)
            with self.subTest(agent=agent.id, crop=crop):
                verdict = answer["verdict"]
                assert isinstance(verdict, dict)
                self.assertEqual((verdict["kind"], verdict["agents"]), ("help has come", [agent.id]))
                self.assert_nothing_is_sprayed(answer)

    def test_each_passer_by_is_normal(self) -> None:
        self.assertGreaterEqual(len(PASSERS), 7)
        for agent in PASSERS:
            answer = told(agent, "lawn" if "lawn" in agent.hosts else "maple")
            verdict = answer["verdict"]
            assert isinstance(verdict, dict)
            self.assertEqual((verdict["kind"], verdict["agents"]), ("normal for the season", [agent.id]), agent.id)
            self.assert_nothing_is_sprayed(answer)

    def assert_nothing_is_sprayed(self, answer: dict[str, object]) -> None:
        calls = answer["call"]
        assert isinstance(calls, list)
        offered = [control for call in calls for control in call["controls"] if control["offered"]]
        self.assertEqual([control["id"] for control in offered if control["kind"] in SPRAYS], [])
        self.assertTrue(all(call["outcome"] == "leave" for call in calls))


class Usual(unittest.TestCase):
    def test_many_helpers_make_none_of_them_rarer(self) -> None:
        """Unlike members of a kind of pests they are not one thing under many names: each keeps its own odds."""
        case = Case("tomato", month=6)
        chances = {
            agent.id: prior.chance for agent, prior in zip(living_on(Plant.of(case), CATALOGUE), priors(case, CATALOGUE), strict=True)
        }
        for helper in ("harvestmen", "insect-killing-moulds", "aphid-midges"):
            self.assertAlmostEqual(chances[helper], judgement.HOW_USUAL[CATALOGUE.agent(helper).usual_on("tomato")], places=3)


class Asked(unittest.TestCase):
    def test_what_eats_a_suspect_is_asked_about_beside_it(self) -> None:
        """Nobody tells of a helper: the scout who looks for the pest that is suspected is mostly asked about some animal that eats it."""
        asked, missed = 0, []
        for kind in sorted({prey for helper in HELPERS for prey in helper.eats}):
            eaters = [helper for helper in HELPERS if kind in helper.eats]
            for prey in [agent for agent in CATALOGUE.members(kind) if not agent.is_kind][:4]:
                crops = [plant for plant in prey.hosts if plant in CATALOGUE.crops]
                crop = next((plant for plant in crops if plant in eaters[0].hosts), crops[0])
                damage = [sign for sign, shows in prey.shows.items() if not shows.confirms][:2]
                case = {"crop": crop, "month": min(prey.months & eaters[0].months, default=6), "signs": dict.fromkeys(damage, "seen")}
                ranking = suspects(case)
                if kind not in {suspect.agent for suspect in ranking.kinds[:2]}:
                    continue
                proofs = {sign for eater in eaters for sign, shows in eater.shows.items() if shows.confirms}
                asked += 1
                if not any(proofs & set(look.signs) for look in next_looks(case, ranking)[:4]):
                    missed.append((prey.id, crop))
        self.assertGreater(asked, 20)
        self.assertLessEqual(len(missed), asked // 3, missed)
