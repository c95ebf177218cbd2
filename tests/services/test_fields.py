"""Every kind of command against nonsense: what is wrong is said in sentences, and nothing else ever happens."""

import datetime as dt
import unittest
import uuid
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from bootmark.services.base import fields
from bootmark.services.base.command import Command, Refused
from bootmark.services.base.fields import Checks
from bootmark.services.kinds import HANDLERS, KINDS
from bootmark.store.versions import HEADS
from tests.database import catalogue
from tests.services.shapes import GOOD

CHECKS = Checks(catalogue, dt.date(2026, 6, 18))
COMMANDS: list[type[Command]] = [handler.command for handler in HANDLERS]
scalars = st.none() | st.booleans() | st.integers() | st.floats() | st.text() | st.sampled_from(["2026-02-30", "\x00", "\ud800", "1e999"])
nonsense = st.recursive(
    scalars, lambda inner: st.lists(inner, max_size=4) | st.dictionaries(st.text(max_size=8), inner, max_size=4), max_leaves=8
)


class EveryKind(unittest.TestCase):
    def test_each_head_is_written_by_some_kind_and_each_kind_says_what_it_does(self) -> None:
        self.assertEqual({handler.head for handler in HANDLERS}, set(HEADS))
        self.assertEqual(len(KINDS), len(HANDLERS))
        self.assertEqual(set(GOOD), set(KINDS))
        for command in COMMANDS:
            self.assertTrue(command.about().endswith("."), command)
            self.assertTrue(command.spec.roles and command.spec.v >= 1, command)

    def test_a_good_one_is_read(self) -> None:
        for kind, payload in GOOD.items():
            KINDS[kind].command.read(payload, CHECKS)

    @settings(max_examples=120)
    @given(st.sampled_from(COMMANDS), nonsense)
    def test_a_payload_of_anything_is_read_or_refused_in_sentences(self, command: type[Command], payload: Any) -> None:
        self.assert_read_or_refused(command, payload)

    @settings(max_examples=300)
    @given(st.data())
    def test_a_field_of_anything_is_read_or_refused_in_sentences(self, data: st.DataObject) -> None:
        kind = data.draw(st.sampled_from(sorted(GOOD)))
        field = data.draw(st.sampled_from(sorted(GOOD[kind])))
        self.assert_read_or_refused(KINDS[kind].command, GOOD[kind] | {field: data.draw(nonsense)})

    def assert_read_or_refused(self, command: type[Command], payload: Any) -> None:
        try:
            command.read(payload, CHECKS)
        except Refused as error:
            for name, sentence in error.errors.items():
                self.assertRegex(sentence, r"(?s)[.]$", (command, name))
                self.assertNotIn("Input should", sentence)

    def test_everything_that_is_wrong_is_told_at_once(self) -> None:
        with self.assertRaises(Refused) as caught:
            KINDS["station.save"].command.read({"name": "", "latitude": 99, "longitude": "x", "offset_minutes": 1.5, "way": 1}, CHECKS)
        self.assertEqual(set(caught.exception.errors), {"name", "latitude", "longitude", "elevation", "offset_minutes", "payload"})


class Forms(unittest.TestCase):
    def test_texts_are_read_by_the_rules_of_their_fields(self) -> None:
        form = {
            "name": " Hill ",
            "latitude": "46,2",
            "longitude": "7.1",
            "elevation": "900",
            "offset_minutes": "60",
            "kind": "",
            "other": "x",
        }
        payload = KINDS["station.save"].command.of_form(form)
        self.assertEqual((payload["latitude"], payload["offset_minutes"], "other" in payload), (46.2, 60, False))
        station = KINDS["station.save"].command.read(payload, CHECKS)
        self.assertEqual((station.name, station.kind), ("Hill", "outdoor"))  # type: ignore[attr-defined]

    def test_what_cannot_be_read_is_kept_so_that_it_can_be_told(self) -> None:
        payload = KINDS["trap.check"].command.of_form({"trap_id": "x", "on": "yesterday", "caught": "many", "new_lure": "yes"})
        self.assertEqual((payload["caught"], payload["new_lure"]), ("many", True))
        with self.assertRaises(Refused) as caught:
            KINDS["trap.check"].command.read(payload, CHECKS)
        self.assertEqual(set(caught.exception.errors), {"trap_id", "on", "caught"})

    def test_empty_optional_fields_are_nothing_and_empty_entries_are_left_out(self) -> None:
        payload = KINDS["block.save"].command.of_form({"station_id": "", "elevation": " ", "harvest_from": ""})
        self.assertEqual(payload, {"station_id": None, "elevation": None, "harvest_from": None})
        sighting = KINDS["stage.sighting"].command.of_form({"counts.egg": "3", "counts.larva": "", "counts.pupa": "x"})
        self.assertEqual(sighting["counts"], {"egg": 3, "pupa": "x"})

    def test_a_box_that_is_not_ticked_is_no(self) -> None:
        self.assertFalse(KINDS["trap.save"].command.of_form({})["ended"])


class Ids(unittest.TestCase):
    def test_one_is_an_id_however_it_comes(self) -> None:
        record = uuid.uuid4()
        rule = fields.RecordId("block")
        self.assertEqual({rule.read(identity, CHECKS) for identity in (record, str(record), record.hex)}, {record})
