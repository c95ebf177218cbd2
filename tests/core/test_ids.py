"""The list of ids only grows, and what was given once is never given to another."""

import unittest
from dataclasses import replace

from bootmark import VERSION
from bootmark.core.catalogue import default, ids


class Ids(unittest.TestCase):
    def test_the_list_holds_every_id_and_each_release_seals_it(self) -> None:
        lines = ids.FILE.read_text().splitlines()
        self.assertEqual(ids.faults(lines, default()), [], "./bootmark catalogue --write")
        self.assertTrue(any(line.startswith(f"{ids.SEAL}{VERSION} ") for line in lines), f"./bootmark release {VERSION}")

    def test_new_ids_come_last_and_a_version_is_sealed_once(self) -> None:
        catalogue = default()
        whole = ids.grown([], catalogue, "1.0.0")
        self.assertEqual(ids.grown(whole, catalogue, "1.0.0"), whole)
        older = ids.grown([], replace(catalogue, crops={}), "1.0.0")
        newer = ids.grown(older, catalogue, "1.1.0")
        self.assertEqual(newer[: len(older)], older)
        self.assertEqual(newer[len(older) : -1], [f"crop {crop}" for crop in catalogue.crops])
        self.assertEqual(ids.faults(newer, catalogue), [])

    def test_what_is_changed_removed_or_forgotten_is_found(self) -> None:
        catalogue = default()
        lines = [*ids.of(catalogue)]
        lines.append(ids.seal("1.0.0", lines))
        self.assertEqual(ids.faults(lines, catalogue), [])
        self.assertIn(
            "agent codling-moth is not in ids.txt", ids.faults([line for line in lines if line != "agent codling-moth"], catalogue)[0]
        )
        swapped = [lines[1], lines[0], *lines[2:]]
        self.assertEqual(ids.faults(swapped, catalogue), [f"{lines[-1]}: a line above it was changed"])
        fewer = replace(catalogue, agents={name: agent for name, agent in catalogue.agents.items() if name != "codling-moth"})
        self.assertTrue(any("agent codling-moth has gone" in fault for fault in ids.faults(lines, fewer)))
        retired = replace(fewer, aliases={**catalogue.aliases, "codling-moth": "apple-maggot"})
        self.assertFalse(any("agent codling-moth" in fault for fault in ids.faults(lines, retired)))
        self.assertEqual(ids.faults([*lines, "agent codling-moth"], catalogue), ["agent codling-moth stands twice"])
