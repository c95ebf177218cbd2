"""Naming the cause: against brute force that shares no code, and through the stories that matter."""

import itertools
import math
import random
import unittest
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from bootmark.core.catalogue import default
from bootmark.core.field import identify

KNOWN = default()
CHANCE = {"always": 0.97, "usual": 0.75, "sometimes": 0.35, "seldom": 0.08}
USUAL = {"often": 0.12, "sometimes": 0.05, "seldom": 0.015, "rarely": 0.004}
CROPS = ("raspberry", "pear", "potato", "cabbage", "rose")


def told(**case: Any) -> tuple[Any, Any]:
    ranking = identify.suspects(case)
    return ranking, identify.verdict(case, ranking)


def by_hand(crop: str, month: int, signs: dict[str, str]) -> dict[frozenset[str], float]:
    """Every set of up to three causes, weighed one by one from the catalogue's raw words."""
    hosts = {a.id: a.hosts.get(crop, a.hosts.get("*")) for a in KNOWN.agents.values() if crop in a.hosts or "*" in a.hosts}
    odds = {}
    for agent, usual in hosts.items():
        p = USUAL[usual]
        odds[agent] = p / (1 - p) * (1.0 if month in KNOWN.agents[agent].months else 0.15)
    weights = {}
    for size in range(4):
        for causes in itertools.combinations(sorted(hosts), size):
            weight = math.prod(odds[agent] for agent in causes)
            for sign, state in signs.items():
                if state == "unsure":
                    continue
                absent = 1 - KNOWN.signs[sign].leak
                for agent in causes:
                    shown = KNOWN.agents[agent].shows.get(sign)
                    absent *= 1 - (CHANCE[shown.often] if shown else 0.0)
                weight *= absent if state == "absent" else 1 - absent
            weights[frozenset(causes)] = weight
    total = math.fsum(weights.values())
    return {causes: weight / total for causes, weight in weights.items()}


class BruteForce(unittest.TestCase):
    def test_fifty_random_cases_agree(self) -> None:
        rng = random.Random(7)
        for _ in range(50):
            crop, month = rng.choice(CROPS), rng.randint(1, 12)
            signs = {sign: rng.choice(("seen", "absent", "unsure")) for sign in rng.sample(sorted(KNOWN.signs), rng.randint(1, 8))}
            expected = by_hand(crop, month, signs)
            found = identify.suspects({"crop": crop, "month": month, "signs": signs})
            for cause in found.causes:
                self.assertAlmostEqual(cause.probability, expected[frozenset(cause.agents)], delta=1e-9)
            self.assertEqual(len(found.causes), len(expected))
            for suspect in found.suspects:
                alone = math.fsum(p for causes, p in expected.items() if suspect.agent in causes)
                self.assertAlmostEqual(suspect.probability, alone, delta=1e-9)


class Laws(unittest.TestCase):
    @settings(max_examples=60, deadline=None)
    @given(
        st.sampled_from(CROPS),
        st.dictionaries(st.sampled_from(sorted(KNOWN.signs)), st.sampled_from(["seen", "absent", "unsure"]), max_size=7),
    )
    def test_chances_add_to_one_and_unsure_says_nothing(self, crop: str, signs: dict[str, str]) -> None:
        found = identify.suspects({"crop": crop, "signs": signs})
        self.assertAlmostEqual(math.fsum(cause.probability for cause in found.causes), 1.0, places=9)
        sure = {sign: state for sign, state in signs.items() if state != "unsure"}
        without = identify.suspects({"crop": crop, "signs": sure})
        for one, two in zip(found.causes, without.causes, strict=True):
            self.assertAlmostEqual(one.probability, two.probability, places=12)

    @settings(max_examples=60, deadline=None)
    @given(st.sampled_from(CROPS), st.dictionaries(st.sampled_from(sorted(KNOWN.signs)), st.sampled_from(["seen", "absent"]), max_size=7))
    def test_no_pest_is_named_without_a_confirming_sign(self, crop: str, signs: dict[str, str]) -> None:
        _, verdict = told(crop=crop, signs=signs)
        for agent in verdict.agents if verdict.kind == "named" else ():
            confirming = {one.sign for one in KNOWN.agents[agent].shows.values() if one.confirms}
            self.assertTrue(any(signs.get(sign) == "seen" for sign in confirming))

    @settings(max_examples=40, deadline=None)
    @given(
        st.sampled_from(CROPS),
        st.dictionaries(st.sampled_from(sorted(KNOWN.signs)), st.sampled_from(["seen", "absent"]), min_size=1, max_size=4),
    )
    def test_looks_tell_something_and_nothing_twice(self, crop: str, signs: dict[str, str]) -> None:
        case = {"crop": crop, "signs": signs}
        for look in identify.next_looks(case, identify.suspects(case)):
            self.assertGreater(look.bits, 0)
            self.assertFalse(set(look.signs) & set(signs))


class Stories(unittest.TestCase):
    def test_circles_on_a_rose_are_a_bee_at_work(self) -> None:
        _, verdict = told(crop="rose", signs={"circles-cut-from-the-edge": "seen"})
        self.assertEqual((verdict.kind, verdict.agents), ("help has come", ("leafcutter-bee",)))

    def test_stippling_alone_names_nothing_and_asks_for_the_lens(self) -> None:
        case = {
            "crop": "raspberry",
            "month": 7,
            "weather": {"hot-and-dry": 12},
            "signs": {"stippling": "seen"},
            "history": {"two-spotted-spider-mite": 3},
        }
        ranking = identify.suspects(case)
        verdict = identify.verdict(case, ranking)
        self.assertEqual(verdict.kind, "needs a look")
        self.assertEqual(ranking.suspects[0].agent, "two-spotted-spider-mite")
        self.assertIn(identify.next_looks(case, ranking)[0].look, ("lens-on-underside", "turn-the-leaf"))

    def test_live_mites_name_it(self) -> None:
        _, verdict = told(crop="raspberry", signs={"stippling": "seen", "mites-and-round-eggs": "seen"})
        self.assertEqual((verdict.kind, verdict.agents, verdict.activity), ("named", ("two-spotted-spider-mite",), "active"))

    def test_two_causes_at_once(self) -> None:
        signs = {"stippling": "seen", "mites-and-round-eggs": "seen", "silvering": "seen", "slender-insects-on-paper": "seen"}
        ranking, verdict = told(crop="raspberry", signs=signs)
        self.assertEqual(set(verdict.agents), {"two-spotted-spider-mite", "western-flower-thrips"})
        self.assertEqual(set(ranking.causes[0].agents), {"two-spotted-spider-mite", "western-flower-thrips"})

    def test_old_tunnels_are_finished(self) -> None:
        signs = {"fruit-exit-hole-at-the-end": "seen", "larva-at-the-core": "absent", "males-in-its-lure-trap": "absent"}
        self.assertEqual(identify.activity("codling-moth", {"crop": "pear", "signs": signs}), "finished")

    def test_a_thirsty_plant_is_not_a_pest(self) -> None:
        _, verdict = told(crop="birch", signs={"drooping": "seen", "soil-dry-a-finger-deep": "seen", "perks-up-hours-after-water": "seen"})
        self.assertEqual((verdict.kind, verdict.agents), ("not a pest", ("water-shortage",)))

    def test_maggots_against_thirst(self) -> None:
        signs = {"drooping": "seen", "soil-dry-a-finger-deep": "absent", "roots-chewed": "seen", "legless-white-maggots": "seen"}
        _, verdict = told(crop="cabbage", signs=signs)
        self.assertEqual(verdict.agents, ("cabbage-maggot",))

    def test_weather_season_and_history_are_told_as_reasons(self) -> None:
        base = {"crop": "raspberry", "signs": {"stippling": "seen"}, "month": 7}
        plain = identify.suspects(base).of("two-spotted-spider-mite")
        moved = identify.suspects({**base, "weather": {"hot-and-dry": 9}, "history": {"two-spotted-spider-mite": 1}}).of(
            "two-spotted-spider-mite"
        )
        winter = identify.suspects({**base, "month": 1}).of("two-spotted-spider-mite")
        assert plain and moved and winter
        self.assertGreater(moved.probability, plain.probability)
        self.assertLess(winter.probability, plain.probability)
        self.assertIn("Hot and dry for 9 days, so it counts for more.", [reason.text for reason in moved.reasons_for])
        self.assertIn("Out of its season.", [reason.text for reason in winter.reasons_against])

    def test_seasons_turn_round_in_the_south(self) -> None:
        north = identify.suspects({"crop": "raspberry", "month": 7, "signs": {"stippling": "seen"}})
        south = identify.suspects({"crop": "raspberry", "month": 1, "hemisphere": "south", "signs": {"stippling": "seen"}})
        self.assertEqual([one.probability for one in north.causes], [one.probability for one in south.causes])

    def test_tools_and_hours_are_honoured(self) -> None:
        case = {"crop": "raspberry", "signs": {"stippling": "seen"}, "tools": {"white paper"}}
        looks = {one.look for one in identify.next_looks(case, identify.suspects(case))}
        self.assertNotIn("lens-on-underside", looks)
        self.assertIn("tap-over-paper", looks)


class BadInput(unittest.TestCase):
    def test_contradictions_and_unknowns_are_said(self) -> None:
        ranking = identify.suspects(
            {"crop": "quince", "signs": {"soil-dry-a-finger-deep": "seen", "soil-sodden": "seen", "purple-rain": "seen"}}
        )
        notes = " ".join(ranking.notes)
        for words in ("quince is not a crop", "purple-rain is not a sign", "can't both be"):
            self.assertIn(words, notes)

    def test_refusals(self) -> None:
        for case in (
            {},
            {"crop": "pear", "signs": {"stippling": "maybe"}},
            {"crop": "pear", "month": 13},
            {"crop": "pear", "hemisphere": "up"},
        ):
            with self.assertRaises(ValueError):
                identify.suspects(case)
