"""What is sent back to someone who asked: the one look, or a letter that a layman understands and that holds no spray."""

import unittest
from typing import Any

from bootmark.core.catalogue import default
from bootmark.core.field import call, called, identify
from bootmark.core.types import Case, CropState, Decision, Finding, Policy, StageNow, Verdict
from bootmark.say import ENGLISH, letter

CATALOGUE = default()


def told(crop: str, seen: str, **more: Any) -> tuple[list[Any], Verdict, list[Decision]]:
    case = Case.of({"crop": crop, "month": 7, "signs": dict.fromkeys(seen.split(), "seen"), **more})
    ranking, looks, verdict = identify.answer(case)
    ground = CropState(crop, month=7, region=case.region)
    decided = called.calls(case, ranking, looks, verdict, ground, Policy(), CATALOGUE)
    return looks, verdict, [decision for _, decision in decided]


class Ask(unittest.TestCase):
    def test_one_look_is_asked_for_in_words_ready_to_send(self) -> None:
        looks, _, _ = told("raspberry", "stippling")
        text = letter.ask(ENGLISH, looks[0], "raspberry")
        self.assertIn("your raspberry", text)
        self.assertIn(CATALOGUE.looks[looks[0].look].do.rstrip("."), text)
        self.assertIn("Please treat nothing", text)

    def test_what_has_no_lens_at_home_gets_a_way_round(self) -> None:
        looks, _, _ = told("raspberry", "stippling")
        lens = next(look for look in looks if "hand lens" in CATALOGUE.looks[look.look].tools)
        self.assertIn("phone", letter.ask(ENGLISH, lens, "raspberry"))


class Names(unittest.TestCase):
    def test_a_plant_is_called_by_the_sender_s_own_word(self) -> None:
        for words, name in (
            ("raspberry", "raspberry"), ("oilseed-rape", "oilseed rape"), ("my old apple tree", "old apple tree"), ("The zucchini", "zucchini"),
            ("Lemon", "Lemon"), ("a", "a"),
        ):  # fmt: skip
            self.assertEqual(letter.plant_name(words, CATALOGUE), name)


class Letter(unittest.TestCase):
    def letter(self, crop: str, seen: str, **more: Any) -> letter.Reply:
        _, verdict, decisions = told(crop, seen, **more)
        return letter.answer(ENGLISH, crop, verdict, decisions)

    def test_no_letter_holds_a_spray(self) -> None:
        groups = {control.group for agent in CATALOGUE.agents.values() for control in agent.controls if control.group}
        for agent in CATALOGUE.agents.values():
            for activity in ("active", "finished", "dead", "parasitised", "not known"):
                verdict = Verdict("named", (agent.id,), 0.9, activity, (), (), (), ())
                finding = Finding(agent.id, verdict.kind, 0.9, True, activity)
                decision = call.decide(finding, StageNow(), None, None, None, CropState("rose"), Policy())
                reply = letter.answer(ENGLISH, "rose", verdict, [decision])
                text = " ".join((reply.title, reply.answer, *reply.do, *reply.watch))
                self.assertFalse([group for group in groups if group in text], agent.id)
                safe = {control.do for control in agent.controls if control.kind in ("cultural", "physical", "living")}
                sprays = {control.do for control in agent.controls if control.kind in ("soft", "conventional")} - safe
                self.assertFalse([do for do in sprays if do.rstrip(".") in text], agent.id)

    def test_what_proves_it_comes_first_in_plain_words(self) -> None:
        reply = self.letter("raspberry", "stippling webbing-fine mites-and-round-eggs")
        self.assertIn("That is proof.", reply.why[0])
        self.assertIn("wo-spotted spider mite", reply.title)
        self.assertTrue(reply.do)

    def test_uncertain_listed_finished_and_beneficial(self) -> None:
        self.assertIn("not certain yet", self.letter("raspberry", "stippling").title)
        listed = self.letter("ash", "d-shaped-exit-holes galleries-under-bark dead-branches-at-the-top", region="European Union")
        self.assertEqual(listed.do, letter.REPORT)
        bee = self.letter("rose", "circles-cut-from-the-edge leaf-still-green-and-working bee-carrying-leaf")
        self.assertIn("nothing to treat", bee.title)
        worm = self.letter("tomato", "stubs straight-stripes horn-red white-cocoons-on-its-back")
        self.assertTrue({"Treat nothing now."} & set(worm.do) or "nothing to treat" in worm.title)
