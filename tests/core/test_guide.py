"""The Guide's questions to the catalogue: any name finds its entry, any two or three are told apart."""

import itertools
import unittest

from bootmark.core.catalogue import default
from bootmark.core.catalogue.guide import apart, search

CATALOGUE = default()


class Search(unittest.TestCase):
    def test_every_name_finds_its_entry(self) -> None:
        for agent in CATALOGUE.agents.values():
            for name in (agent.name, agent.scientific, *agent.other_names):
                self.assertIn(agent.id, [hit.id for hit in search(CATALOGUE, name)], name)

    def test_what_begins_with_the_words_comes_first(self) -> None:
        self.assertEqual(search(CATALOGUE, "  COLORADO ")[0].id, "colorado-potato-beetle")
        self.assertEqual(search(CATALOGUE, "apple worm")[0].id, "codling-moth")

    def test_no_words_and_nonsense_find_nothing(self) -> None:
        self.assertEqual(search(CATALOGUE, "  "), [])
        self.assertEqual(search(CATALOGUE, "xyzzy"), [])


class Apart(unittest.TestCase):
    def test_every_look_alike_is_told_apart_by_the_look_it_names(self) -> None:
        for agent in CATALOGUE.agents.values():
            for alike in agent.look_alikes:
                pair = apart(CATALOGUE, (agent, CATALOGUE.agent(alike.agent)))
                self.assertIn(alike.look, [agent.look.id for agent in pair], f"{agent.id} {alike.agent}")
                self.assertTrue(pair[0].tells, f"{agent.id} {alike.agent}")

    def test_three_at_once_in_their_order(self) -> None:
        three = tuple(CATALOGUE.agents[value] for value in ("two-spotted-spider-mite", "western-flower-thrips", "water-shortage"))
        for pair in apart(CATALOGUE, three):
            for row in pair.rows:
                self.assertEqual(len(row.words), 3)
                for agent, word in zip(three, row.words, strict=True):
                    shows = agent.shows.get(row.sign.id)
                    self.assertEqual(word, shows.often if shows else "not seen")

    def test_order_of_agents_turns_only_the_columns(self) -> None:
        pair = (CATALOGUE.agents["codling-moth"], CATALOGUE.agents["oriental-fruit-moth"])
        there, back = apart(CATALOGUE, pair), apart(CATALOGUE, pair[::-1])
        self.assertEqual([row.look.id for row in there], [row.look.id for row in back])
        for row_there, two in itertools.chain.from_iterable(zip(a.rows, b.rows, strict=True) for a, b in zip(there, back, strict=True)):
            self.assertEqual(row_there.words, two.words[::-1])

    def test_one_or_four_are_refused(self) -> None:
        agents = tuple(CATALOGUE.agents.values())[:4]
        for wrong in (agents[:1], agents, (agents[0], agents[0])):
            with self.assertRaises(ValueError):
                apart(CATALOGUE, wrong)
