"""Every agent through every sentence that names it: number, article, ends, doubled words."""

import json
import re
import unittest

from bootmark.case.__main__ import answered
from bootmark.core.catalogue import default
from bootmark.core.messages import Says, says
from bootmark.say import ENGLISH
from bootmark.say.text import By, Many, Text
from bootmark.say.words import TEXTS

CATALOGUE = default()
SLIPS = {
    "a doubled word": r"\b(\w+) \1\b(?! )",
    "two ends": r"\.\.|\. \.|;\.|,\.|\?\.|:\.|\.,",
    "an empty field": r"\{|\}|  | \.| ,|\(\)",
    "one and many": r"\b1 (larvae|pupae|days|signs|units|plants|leaves|animals)\b",
    "was and were": r"\b(they|these|those|eggs|larvae|aphids) was\b|\b(it|one) were\b",
    "an article": r"\ba [aeio]\w|\ban [bcdfgjklmnpqrstvwxyz]\w|\bthe the\b|\ba the\b",
}
RIGHT = re.compile(r"\ba (one|once|eu\w+|uni\w+)\b|\ban (hour\w*|honest)\b|\bthat that\b")


def texts(text: Text) -> list[str]:
    if isinstance(text, By):
        return [words for each in (*text.each.values(), text.any) for words in texts(each)]
    return [text.singular, text.plural] if isinstance(text, Many) else [text]


class EveryAgent(unittest.TestCase):
    def slips(self, words: str) -> list[str]:
        return [f"{slip}: {words}" for slip, pattern in SLIPS.items() if re.search(pattern, RIGHT.sub("so", words))]

    def test_each_agent_in_each_sentence_that_names_only_it(self) -> None:
        named = [
            kind
            for kind, text in TEXTS.items()
            if all(re.findall(r"\{(\w+)", words) in (["agent"], ["agent"] * 2) for words in texts(text))
        ]
        self.assertGreater(len(named), 8)
        slips = []
        for kind in named:
            for agent in CATALOGUE.agents.values():
                if (kind in (Says.SAMPLE, Says.CALL_SAMPLE) and not agent.sample) or (kind in DANGERS and not agent.hurts):
                    continue
                if kind == Says.SPECIES_MATTERS and not agent.matters:
                    continue
                slips += [f"{kind} {agent.id}: {slip}" for slip in self.slips(ENGLISH.say(says(kind, agent=agent.id), CATALOGUE))]
        self.assertEqual(slips, [])

    def test_each_agent_proved_gives_a_letter_and_calls_without_slips(self) -> None:
        slips = []
        for agent in CATALOGUE.agents.values():
            proofs = [sign for sign, shows in agent.shows.items() if shows.confirms][:2]
            crop = next((crop for crop in agent.hosts if crop in CATALOGUE.crops), "rose")
            month = sorted(agent.months)[len(agent.months) // 2]
            answer = answered(json.dumps({"crop": crop, "month": month, "signs": dict.fromkeys(proofs, "seen")}), CATALOGUE)
            said = [*answer["letter"].split("\n"), *answer["notes"], *answer["verdict"]["advice"], *answer["verdict"]["would_change"]]
            said += [line for call in answer["call"] for line in (call["headline"], *call["for"], *call["against"], *call["cautions"])]
            slips += [f"{agent.id}: {slip}" for line in said for slip in self.slips(line)]
        self.assertEqual(sorted(set(slips)), [])


DANGERS = (Says.DANGER, Says.DANGER_PERHAPS)
