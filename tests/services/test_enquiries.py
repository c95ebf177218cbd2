"""Enquiries and findings as they are kept: state, fallback to family, like cases, versions."""

import uuid
from typing import Any

from sqlalchemy import select

from bootmark.core.catalogue import plants
from bootmark.services.base.command import Refused
from bootmark.services.scouting import enquiries, findings, looks
from bootmark.standins.estate import FARM
from bootmark.store.models import Block, Enquiry, Farm, Look, Stop
from bootmark.store.rows import NotHere
from bootmark.store.session import farm_session
from tests.database import DatabaseTest, catalogue
from tests.sending import send

CIRCLES = {"circles-cut-from-the-edge": "seen", "leaf-still-green-and-working": "seen", "bee-carrying-leaf": "seen"}


def payload(**more: Any) -> dict[str, Any]:
    return {"sender": "A neighbour", "came_as": "leaf", "crop": "Rose", "family": "", "place": "bed", "words": "", "signs": {}} | more


class Enquiries(DatabaseTest):
    def save(self, record: uuid.UUID | None = None, base: uuid.UUID | None = None, **more: Any) -> Enquiry:
        stored = send("enquiry.save", payload(**more), record, role="adviser", base=base)
        with farm_session(FARM) as session:
            return session.get_one(Enquiry, (FARM, uuid.UUID(stored["record_id"])))

    def test_open_then_asked_then_answered(self) -> None:
        first = self.save()
        self.assertEqual((first.state, first.crop), ("open", "rose"))
        asked = self.save(first.id, first.command_id, signs={"chewed-holes": "seen"})
        self.assertEqual(asked.state, "asked")
        answered = self.save(first.id, asked.command_id, signs=CIRCLES)
        self.assertEqual((answered.state, answered.verdict, answered.version), ("answered", "help has come", 3))

    def test_a_crop_is_meant_by_any_of_its_names(self) -> None:
        for words, crop in (("zucchini", "courgette"), ("SQUASH", "squash"), ("raspb", "raspberry"), ("moonfruit", "moonfruit")):
            self.assertEqual(plants.crop_meant(words, catalogue), crop)

    def test_the_sender_s_own_word_for_the_plant_is_kept_while_its_crop_stays(self) -> None:
        first = self.save(crop="zucchini")
        self.assertEqual((first.crop, first.working["called"]), ("courgette", "zucchini"))
        told = self.save(first.id, first.command_id, crop="courgette", signs={"chewed-holes": "seen"})
        self.assertEqual(told.working["called"], "zucchini")
        moved = self.save(first.id, told.command_id, crop="my old apple tree")
        self.assertEqual((moved.crop, moved.working["called"]), ("apple", "my old apple tree"))

    def test_refusals_name_the_field(self) -> None:
        for more, name in (
            ({"sender": ""}, "sender"),
            ({"crop": ""}, "crop"),
            ({"crop": "moonfruit"}, "family"),
            ({"came_as": "rumour"}, "came_as"),
            ({"place": "moon"}, "place"),
            ({"signs": {"nonsense": "seen"}}, "signs"),
        ):
            with self.assertRaises(Refused) as caught:
                self.save(**more)
            self.assertEqual(list(caught.exception.errors), [name])

    def test_an_unknown_crop_is_weighed_by_its_family(self) -> None:
        kept = self.save(crop="moonfruit", family="Rosaceae", signs={"stippling": "seen", "mites-and-round-eggs": "seen"})
        self.assertEqual(kept.working["verdict"]["agents"], ["two-spotted-spider-mite"])

    def test_past_answers_for_like_cases_are_offered(self) -> None:
        with farm_session(FARM) as session:
            like = enquiries.like(session, "rose", CIRCLES, uuid.uuid4())
            self.assertEqual({row.agents for row in like}, {("leafcutter-bee",)})
            self.assertIn("circles-cut-from-the-edge", like[0].shared)
            birch = enquiries.like(session, "birch", CIRCLES, uuid.uuid4())
            self.assertIsNotNone(birch[0].look_id)
            self.assertEqual(enquiries.like(session, "rose", {"drooping": "seen"}, uuid.uuid4()), [])
            self.assertEqual(enquiries.like(session, "rose", {}, uuid.uuid4()), [])


class Findings(DatabaseTest):
    def test_a_revision_keeps_both_versions_and_the_history_of_the_block(self) -> None:
        with farm_session(FARM) as session:
            look = session.execute(
                select(Look)
                .join(Stop, (Stop.id == Look.stop_id) & (Stop.farm_id == Look.farm_id))
                .join(Block, (Block.id == Stop.block_id) & (Block.farm_id == Stop.farm_id))
                .where(Block.name == "Mill Piece")
                .order_by(Look.seen_at.desc())
                .limit(1)
            ).scalar_one()
        send(
            "look.record", {"stop_id": str(look.stop_id), "signs": {"drooping": "seen"}, "note": "Was wrong"}, look.id, base=look.command_id
        )
        with farm_session(FARM) as session:
            finding = findings.of_look(session, look.id)
        self.assertEqual([version.number for version in finding.versions], [2, 1])
        self.assertEqual(finding.versions[0].note, "Was wrong")
        self.assertIn("legless-white-maggots", finding.versions[1].signs)
        self.assertGreaterEqual(len([entry for entry in finding.history if entry.agent == "cabbage-maggot"]), 2)
        with farm_session(FARM) as session, self.assertRaises(NotHere):
            findings.of_look(session, uuid.uuid4())

    def test_the_bench_knows_the_season_by_heat(self) -> None:
        with farm_session(FARM) as session:
            farm = session.get_one(Farm, FARM)
            orchard = session.scalars(select(Block).where(Block.name == "Orchard A")).one()
            case = looks.case_of(session, farm, orchard, farm.clock_at, {})
        self.assertIn("codling-moth", case.heat)
        self.assertEqual(case.region, "AT")
