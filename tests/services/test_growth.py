"""What a call says of the days ahead where generations overlap."""

from sqlalchemy import select

from bootmark.services import growth
from bootmark.standins.estate import FARM, NOW
from bootmark.store.models import Block, Farm, SampleRow
from bootmark.store.session import farm_session
from tests.database import DatabaseTest, known


class Outlook(DatabaseTest):
    def told(self, agent: str, counts: list[int]) -> list[str]:
        with farm_session(FARM) as session:
            block = session.scalars(select(Block).where(Block.name == "Tunnel 2")).one()
            sample = SampleRow(measure="mean", counts=counts, enemies=[])
            return growth.outlook(session, session.get_one(Farm, FARM), block, known.agent(agent), sample, NOW.date())

    def test_mites_double_and_pass_the_threshold_on_a_day(self) -> None:
        doubling, passed = self.told("two-spotted-spider-mite", [1, 2, 1, 0, 2])
        self.assertRegex(doubling, r"doubles in about \d+ days")
        self.assertRegex(passed, r"From 1\.2 it passes 5 mites per leaf about \d+ (June|July)")

    def test_above_the_threshold_or_without_a_model_less_is_said(self) -> None:
        self.assertEqual(len(self.told("two-spotted-spider-mite", [9, 8])), 1)
        self.assertEqual(self.told("codling-moth", [1]), [])
