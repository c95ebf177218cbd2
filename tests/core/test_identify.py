"""Naming the cause: laws that hold for every case, and the stories that matter. A general library checks the sums in tests/outside."""

import math
import unittest
import unittest.mock
from typing import Any

from hypothesis import example, given, settings
from hypothesis import strategies as st

from bootmark.core.catalogue import default
from bootmark.core.field import identify, network
from bootmark.core.meanings import Direction
from bootmark.core.messages import Says, says

CATALOGUE = default()
CROPS = ("raspberry", "pear", "potato", "cabbage", "rose")


def told(**case: Any) -> tuple[Any, Any]:
    ranking = identify.suspects(case)
    return ranking, identify.verdict(case, ranking)


def story(crop: str, seen: str, absent: str = "", **more: Any) -> tuple[Any, Any, Any]:
    """A case as a scout tells it at a stop: ranking, looks and verdict."""
    signs = dict.fromkeys(seen.split(), "seen") | dict.fromkeys(absent.split(), "absent")
    for sign in signs:
        assert sign in CATALOGUE.signs, sign
    return identify.answer({"crop": crop, "month": 7, "signs": signs, **more})


class Laws(unittest.TestCase):
    @settings(max_examples=60)
    @given(
        st.sampled_from(CROPS),
        st.dictionaries(st.sampled_from(sorted(CATALOGUE.signs)), st.sampled_from(["seen", "absent", "unsure"]), max_size=7),
    )
    def test_chances_add_to_one_and_unsure_says_nothing(self, crop: str, signs: dict[str, str]) -> None:
        ranking = identify.suspects({"crop": crop, "signs": signs})
        self.assertAlmostEqual(math.fsum(cause.probability for cause in ranking.causes) + ranking.rest, 1.0, places=9)
        self.assertAlmostEqual(math.fsum(cause.probability for cause in ranking.explanations), 1.0, places=9)
        sure = {sign: state for sign, state in signs.items() if state != "unsure"}
        without = {suspect.agent: suspect.probability for suspect in identify.suspects({"crop": crop, "signs": sure}).suspects}
        for suspect_row in ranking.suspects:
            self.assertAlmostEqual(suspect_row.probability, without[suspect_row.agent], places=12)

    @settings(max_examples=60)
    @given(
        st.sampled_from(CROPS), st.dictionaries(st.sampled_from(sorted(CATALOGUE.signs)), st.sampled_from(["seen", "absent"]), max_size=9)
    )
    def test_what_is_pruned_moves_no_chance_by_more_than_its_bound(self, crop: str, signs: dict[str, str]) -> None:
        pruned = identify.suspects({"crop": crop, "signs": signs})
        with unittest.mock.patch.object(network, "TOLERANCE", 0.0):
            whole = {suspect.agent: suspect.probability for suspect in identify.suspects({"crop": crop, "signs": signs}).suspects}
        self.assertLess(pruned.left_out, 1e-6)
        for suspect_row in pruned.suspects:
            self.assertAlmostEqual(suspect_row.probability, whole[suspect_row.agent], delta=pruned.left_out + 1e-9)

    @settings(max_examples=60)
    @given(
        st.sampled_from(CROPS), st.dictionaries(st.sampled_from(sorted(CATALOGUE.signs)), st.sampled_from(["seen", "absent"]), max_size=7)
    )
    def test_no_pest_is_named_without_a_confirming_sign(self, crop: str, signs: dict[str, str]) -> None:
        _, verdict = told(crop=crop, signs=signs)
        for agent in verdict.agents if verdict.kind == "named" else ():
            kin = (CATALOGUE.agents[agent], *CATALOGUE.members(agent))
            confirming = {shown.sign for member in kin for shown in member.shows.values() if shown.confirms}
            self.assertTrue(any(signs.get(sign) == "seen" for sign in confirming))

    @settings(max_examples=40)
    @given(
        st.sampled_from(CROPS),
        st.dictionaries(st.sampled_from(sorted(CATALOGUE.signs)), st.sampled_from(["seen", "absent"]), min_size=1, max_size=4),
    )
    @example("cabbage", dict.fromkeys(("all-needles-colour", "angular-spots", "ant-mound", "side-stripe"), "seen"))
    def test_looks_tell_something_and_nothing_twice(self, crop: str, signs: dict[str, str]) -> None:
        case = {"crop": crop, "signs": signs}
        for look in identify.next_looks(case, identify.suspects(case)):
            self.assertTrue(look.bits > 0 or look.proves or look.awaited)
            self.assertGreaterEqual(look.bits, 0)
            self.assertFalse(set(look.signs) & set(signs))


class Stories(unittest.TestCase):
    def test_circles_on_a_rose_are_a_bee_at_work(self) -> None:
        for seen in ("circles-cut-from-the-edge", "circles-cut-from-the-edge leaf-still-green-and-working bee-carrying-leaf"):
            _, _, verdict = story("rose", seen)
            self.assertEqual((verdict.kind, verdict.agents), ("help has come", ("leafcutter-bee",)))

    def test_stippling_alone_names_nothing_and_asks_for_the_lens(self) -> None:
        ranking, looks, verdict = story("raspberry", "stippling", weather={"hot-and-dry": 12}, history={"two-spotted-spider-mite": 3})
        self.assertEqual(verdict.kind, "needs a look")
        self.assertEqual(ranking.suspects[0].agent, "two-spotted-spider-mite")
        self.assertIn(looks[0].look, ("lens-on-underside", "turn-the-leaf"))
        self.assertTrue(looks[0].decides)

    def test_live_mites_name_it(self) -> None:
        _, _, verdict = story("raspberry", "stippling mites-and-round-eggs")
        self.assertEqual((verdict.kind, verdict.agents, verdict.activity), ("named", ("two-spotted-spider-mite",), "active"))

    def test_two_causes_at_once(self) -> None:
        ranking, _, verdict = story(
            "raspberry", "stippling webbing-fine mites-and-round-eggs silvering black-specks-in-silver slender-insects-on-paper"
        )
        self.assertEqual(set(verdict.agents), {"two-spotted-spider-mite", "western-flower-thrips"})
        self.assertEqual(set(ranking.explanations[0].agents), {"two-spotted-spider-mite", "western-flower-thrips"})

    def test_old_tunnels_are_finished(self) -> None:
        _, _, verdict = story(
            "pear", "fruit-exit-hole-at-the-end fruit-entry-hole-with-frass empty-tunnel-to-the-core", "larva-at-the-core"
        )
        self.assertEqual((verdict.kind, verdict.agents, verdict.activity), ("named", ("codling-moth",), "finished"))

    def test_a_parasitised_caterpillar_is_said_so(self) -> None:
        _, _, verdict = story("tomato", "stubs straight-stripes horn-red white-cocoons-on-its-back")
        self.assertEqual((verdict.agents[-1], verdict.activity), ("tobacco-hornworm", "parasitised"))

    def test_a_thirsty_plant_is_not_a_pest(self) -> None:
        _, _, verdict = story("birch", "drooping soil-dry-a-finger-deep perks-up-hours-after-water")
        self.assertEqual((verdict.kind, verdict.agents), ("not a pest", ("water-shortage",)))
        self.assertEqual([(line.kind, line.agent) for line in verdict.advice], [(Says.DO_INSTEAD, "water-shortage")])

    def test_maggots_against_thirst(self) -> None:
        _, _, verdict = story("cabbage", "drooping roots-chewed legless-white-maggots", "soil-dry-a-finger-deep")
        self.assertEqual(verdict.agents, ("cabbage-maggot",))

    def test_what_is_listed_where_the_farm_lies_is_reported_not_treated(self) -> None:
        seen = "d-shaped-exit-holes galleries-under-bark dead-branches-at-the-top"
        _, _, there = story("ash", seen, region="European Union")
        self.assertEqual((there.kind, there.agents), ("must be reported", ("emerald-ash-borer",)))
        self.assertEqual([line.kind for line in there.advice], [Says.REPORT_IT])
        _, _, elsewhere = story("ash", seen, region="Nowhere")
        self.assertNotEqual(elsewhere.kind, "must be reported")

    def test_one_chance_mark_names_nothing(self) -> None:
        ranking, _, verdict = story("pear", "leaves-torn")
        self.assertIn(verdict.kind, ("needs a look", "cannot tell"))
        self.assertLess(ranking.suspects[0].probability, 0.75)

    def test_a_verdict_says_what_would_change_it(self) -> None:
        _, _, verdict = story("raspberry", "stippling")
        self.assertTrue(verdict.would_change)
        self.assertTrue(verdict.speaks_for)

    def test_weather_season_and_history_are_told_as_reasons(self) -> None:
        base = {"crop": "raspberry", "signs": {"stippling": "seen"}, "month": 7}
        plain = identify.suspects(base).of("two-spotted-spider-mite")
        moved = identify.suspects({**base, "weather": {"hot-and-dry": 9}, "history": {"two-spotted-spider-mite": 1}}).of(
            "two-spotted-spider-mite"
        )
        walking = {**base, "signs": {"moving-specks-on-white-paper": "seen"}}
        summer, winter = (identify.suspects({**walking, "month": month}).of("two-spotted-spider-mite") for month in (7, 1))
        assert plain and moved and summer and winter
        self.assertGreater(moved.probability, plain.probability)
        self.assertLess(winter.probability, summer.probability)
        self.assertIn(says(Says.SPELL, Direction.FOR, spell="hot-and-dry", days=9), moved.reasons_for)
        self.assertIn(says(Says.HISTORY, Direction.FOR, times=1), moved.reasons_for)
        self.assertIn(says(Says.SEASON_OUT, Direction.AGAINST), winter.reasons_against)

    def test_seasons_turn_round_in_the_south(self) -> None:
        north = identify.suspects({"crop": "raspberry", "month": 7, "signs": {"stippling": "seen"}})
        south = identify.suspects({"crop": "raspberry", "month": 1, "hemisphere": "south", "signs": {"stippling": "seen"}})
        self.assertEqual([cause.probability for cause in north.causes], [cause.probability for cause in south.causes])

    def test_tools_and_hours_are_honoured(self) -> None:
        case = {"crop": "raspberry", "signs": {"stippling": "seen"}, "tools": {"white paper"}}
        looks = {look.look for look in identify.next_looks(case, identify.suspects(case))}
        self.assertNotIn("lens-on-underside", looks)
        self.assertIn("tap-over-paper", looks)


class BadInput(unittest.TestCase):
    def test_contradictions_and_unknowns_are_said(self) -> None:
        ranking = identify.suspects(
            {"crop": "moonfruit", "signs": {"soil-dry-a-finger-deep": "seen", "soil-sodden": "seen", "purple-rain": "seen"}}
        )
        self.assertEqual([note.kind for note in ranking.notes][:2], [Says.CROP_UNKNOWN, Says.SIGN_UNKNOWN])
        self.assertEqual((ranking.notes[0].facts["plant"], ranking.notes[1].sign), ("moonfruit", "purple-rain"))
        told_wrongly = {(note.sign, note.facts["other"]) for note in ranking.notes[2:] if note.kind == Says.SIGNS_CONTRADICT}
        self.assertIn({"soil-dry-a-finger-deep", "soil-sodden"}, [set(pair) for pair in told_wrongly])

    def test_refusals(self) -> None:
        for case in (
            {},
            {"crop": "pear", "signs": {"stippling": "maybe"}},
            {"crop": "pear", "month": 13},
            {"crop": "pear", "hemisphere": "up"},
        ):
            with self.assertRaises(ValueError):
                identify.suspects(case)
