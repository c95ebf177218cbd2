"""What a call says of the days ahead where generations overlap."""

from sqlalchemy import select

from bootmark.services.scouting import growth
from bootmark.standins.estate import FARM, NOW
from bootmark.store.models import Block, Farm, SampleRow
from bootmark.store.session import farm_session
from tests.database import DatabaseTest, catalogue


class Outlook(DatabaseTest):
    def told(self, agent: str, counts: list[int], enemies: list[int] | None = None) -> list[str]:
        with farm_session(FARM) as session:
            block = session.scalars(select(Block).where(Block.name == "Tunnel 2")).one()
            sample = SampleRow(measure="mean", counts=counts, enemies=enemies or [])
            return growth.outlook(session, session.get_one(Farm, FARM), block, catalogue.agent(agent), sample, NOW.date())

    def test_mites_double_and_pass_the_threshold_on_a_day(self) -> None:
        doubling, passed, released = self.told("two-spotted-spider-mite", [1, 2, 1, 0, 2])
        self.assertRegex(doubling, r"doubles in about \d+ days")
        self.assertRegex(passed, r"From 1\.2 it passes 5 mites per leaf about \d+ (June|July)")
        self.assertRegex(released, r"About [\d.]+ predatory mites for each leaf, let go today, keep it below 5\.")

    def test_enemies_counted_beside_change_the_outlook(self) -> None:
        words = self.told("two-spotted-spider-mite", [1, 2, 1, 0, 2], [2, 1, 3, 2, 2])
        self.assertIn("it falls to", words[2])
        self.assertIn("none need be let go", words[3])

    def test_without_a_count_only_the_pace_is_said(self) -> None:
        with farm_session(FARM) as session:
            block = session.scalars(select(Block).where(Block.name == "Tunnel 2")).one()
            farm = session.get_one(Farm, FARM)
            self.assertEqual(len(growth.outlook(session, farm, block, catalogue.agent("two-spotted-spider-mite"), None, NOW.date())), 1)
            self.assertEqual(growth.outlook(session, farm, block, catalogue.agent("predatory-mites"), None, NOW.date()), [])
        self.assertEqual(self.told("codling-moth", [1]), [])
