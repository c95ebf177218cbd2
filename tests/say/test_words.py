"""Wording: every kind of message has words, they hold what is told of it, and say one and many aright."""

import datetime as dt
import random
import unittest
from collections.abc import Iterator
from dataclasses import fields, is_dataclass
from typing import Any

from bootmark.core.catalogue import default
from bootmark.core.field import call, identify
from bootmark.core.meanings import Activity, Direction, VerdictKind
from bootmark.core.messages import Message, Says, says
from bootmark.core.types import Case, CropState, Finding, Policy, Sample, StageNow
from bootmark.say import ENGLISH, kept, shown, speaking, tongue
from bootmark.say.bench import chance
from bootmark.say.text import By, Many, Text
from bootmark.say.tongue import Tongue
from bootmark.say.words import TEXTS

DAY = dt.date(2026, 6, 18)


def leaves(text: Text) -> Iterator[str]:
    if isinstance(text, By):
        for part in (*text.each.values(), text.any):
            yield from leaves(part)
    elif isinstance(text, Many):
        yield from (text.singular, text.plural)
    else:
        yield text


def messages(value: Any) -> Iterator[Message]:
    if isinstance(value, Message):
        yield value
    elif isinstance(value, (tuple, list)):
        for part in value:
            yield from messages(part)
    elif is_dataclass(value):
        for field in fields(value):
            yield from messages(getattr(value, field.name))


class Completeness(unittest.TestCase):
    def test_every_kind_has_words_and_nothing_else_has(self) -> None:
        self.assertEqual(set(TEXTS), set(Says))

    def test_whatever_the_core_says_can_be_put_into_words(self) -> None:
        rng, said = random.Random(5), 0
        agents = list(default().agents.values())
        for agent in agents:
            crop = next((crop for crop in agent.hosts if crop != "*"), "rose")
            signs = dict.fromkeys(rng.sample(sorted(agent.shows), min(3, len(agent.shows))), "seen")
            ranking, _, verdict = identify.answer(Case(crop, month=rng.randint(1, 12), signs=signs, weather={"hot-and-dry": 7}))
            finding = Finding(agent.id, VerdictKind.NAMED, 0.9, True, rng.choice(tuple(Activity)))
            sample = Sample("leaf", tuple(rng.choice((0, 3, 30)) for _ in range(12)), tuple([1] * 12))
            stage = StageNow({"adult": 0.5}, DAY)
            decision = call.decide(finding, stage, sample, None, None, CropState(crop, 5), Policy())
            for message in messages((ranking.suspects[:3], ranking.notes, verdict, decision)):
                text = ENGLISH.say(message)
                self.assertTrue(text.strip(), message)
                self.assertNotRegex(text, r"[{}]|\bnan\b|\binf\b", message)
                said += 1
        self.assertGreater(said, 1000)


class Wording(unittest.TestCase):
    def test_one_and_many(self) -> None:
        for message, words in (
            (says(Says.HISTORY, Direction.FOR, times=1), "Found on this block before."),
            (says(Says.HISTORY, Direction.FOR, times=3), "Found on this block 3 times before."),
            (says(Says.CONTROL_HARVEST, days=1, wanted=7), "1 whole day is left before the next picking, and it takes 7."),
            (says(Says.WINDOW_COMES, agent="codling-moth", days=1), "Codling moth: the stage that can be reached comes tomorrow."),
            (says(Says.READ_TRAP, agent="codling-moth", trap="Trap 4", late=0), "Read Trap 4 for codling moth, due today."),
            (says(Says.READ_TRAP, agent="codling-moth", trap="Trap 4", late=3), "Read Trap 4 for codling moth, due for 3 days."),
        ):
            self.assertEqual(ENGLISH.say(message), words)

    def test_numbers_days_and_shares_are_written_by_what_they_are(self) -> None:
        share = says(Says.COUNTED, measure="proportion", estimate=0.25, low=0.1, high=0.5, unit="of the leaves", units=20)
        self.assertEqual(ENGLISH.say(share), "Counted 25 % of the leaves (10 % to 50 %), 20 looked at.")
        mean = says(Says.COUNTED, measure="mean", estimate=2.0, low=0.123, high=4.56, unit="for each leaf", units=20)
        self.assertEqual(ENGLISH.say(mean), "Counted 2 for each leaf (0.12 to 4.6), 20 looked at.")
        self.assertEqual(ENGLISH.say(says(Says.CONTROL_LATE, on=DAY)), "Too late: its window closed on 18 June.")
        reason = says(Says.CONTROL_OTHER_STAGE, stages=("egg", "nymph"))
        self.assertEqual(ENGLISH.say(reason), "It kills eggs and nymphs; few are in that stage today.")

    def test_only_helpers_found_is_no_ratio(self) -> None:
        text = ENGLISH.say(says(Says.HELP_ENOUGH, enemies="Predatory mites", ratio=float("inf"), wanted=0.1, only="yes"))
        self.assertEqual(text, "Predatory mites: only they were found, no pest; 0.1 for each pest is enough to wait.")

    def test_a_sentence_ends_and_begins_as_one(self) -> None:
        lower = ("for.", "hour.", "biofix.")
        for kind, text in TEXTS.items():
            for words in leaves(text):
                if words and not kind.startswith(lower) and not words.startswith("{"):
                    self.assertTrue(words[0].isupper() or words[0].isdigit(), (kind, words))


class Stored(unittest.TestCase):
    def test_what_is_stored_is_shown_as_it_was_then(self) -> None:
        message = says(Says.HISTORY, Direction.FOR, agent="codling-moth", times=2)
        with speaking(Tongue("xx")):
            stored = kept(message)
        self.assertEqual((stored["language"], stored["kind"], stored["facts"]), ("xx", "history", {"times": 2}))
        self.assertEqual(shown({**stored, "text": "As it was said then."}), "As it was said then.")
        self.assertEqual(tongue().language, "en")

    def test_before_release_0_4_the_text_stood_alone(self) -> None:
        self.assertEqual(shown("Leave it."), "Leave it.")
        self.assertEqual(shown({"text": "Out of its season.", "sign": ""}), "Out of its season.")
        self.assertEqual(shown([{"text": "Count next."}, {"text": "Report it."}]), "Count next. Report it.")


class Chances(unittest.TestCase):
    def test_none_is_told_as_certain_or_as_none(self) -> None:
        for probability, text in ((0.9999, "Over 99 in 100."), (0.994, "99 in 100."), (0.5, "50 in 100."), (0.004, "Under 1 in 100.")):
            self.assertEqual(chance(ENGLISH, probability), text)
