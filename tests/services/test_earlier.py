"""What was proved and counted before, as it calls somebody to a block today."""

import datetime as dt
import uuid

from sqlalchemy import select, update

from bootmark.core.field.worth import Proved
from bootmark.core.meanings import Activity, VerdictKind
from bootmark.services.base import ground
from bootmark.services.scouting import earlier
from bootmark.services.treatment import thresholds
from bootmark.standins.estate import FARM, NOW, made
from bootmark.store.models import Block, Farm, FindingRow, Look, SampleRow, Stop
from bootmark.store.session import farm_session
from tests.database import DatabaseTest, catalogue
from tests.sending import send
from tests.services.lines import line

TODAY = NOW.date()
MITE, MOTH = "two-spotted-spider-mite", "codling-moth"
MIDNIGHT = dt.datetime(2026, 6, 17, 22, 30, tzinfo=dt.UTC)
"""Half past midnight of the 18th by the farm's clock."""


class Earlier(DatabaseTest):
    def setUp(self) -> None:
        super().setUp()
        with farm_session(FARM, role="owner") as session:
            session.execute(update(FindingRow).values(seen_at=NOW - dt.timedelta(days=200)))

    def told(self, block: str, agent: str, at: dt.datetime, *, confirmed: bool = True, activity: Activity = Activity.ACTIVE) -> None:
        """A finding on a block, as a look derives it."""
        with farm_session(FARM, role="owner") as session:
            look = session.scalars(select(Look).order_by(Look.id)).first()
            assert look
            session.add(
                FindingRow(
                    farm_id=FARM, id=uuid.uuid4(), look_id=look.id, look_version=look.version, block_id=made(block), agent=agent,
                    verdict=VerdictKind.NAMED, probability=0.9, confirmed=confirmed, activity=activity, seen_at=at,
                )
            )  # fmt: skip

    def proved(self) -> dict[uuid.UUID, list[Proved]]:
        with farm_session(FARM) as session:
            return earlier.proved(session, session.get_one(Farm, FARM), catalogue, TODAY)

    def test_the_newest_word_counts_and_its_day_is_the_farm_s(self) -> None:
        self.told("Orchard A", MOTH, MIDNIGHT)
        self.assertEqual(self.proved(), {made("Orchard A"): [Proved(MOTH, dt.date(2026, 6, 18))]})
        self.told("Orchard A", MOTH, MIDNIGHT + dt.timedelta(hours=2), activity=Activity.DEAD)
        self.assertEqual(self.proved(), {}, "what is dead by the newest look was proved before")

    def test_what_is_old_unproved_or_no_pest_calls_nobody(self) -> None:
        self.told("Orchard A", MOTH, NOW - dt.timedelta(days=30))
        self.told("Orchard A", MITE, NOW, confirmed=False)
        self.told("Orchard A", "ladybirds", NOW)
        self.assertEqual(self.proved(), {})

    def test_these_weeks_of_earlier_years_and_no_others(self) -> None:
        self.told("Orchard A", MOTH, NOW.replace(year=2025) + dt.timedelta(days=15))
        self.told("Orchard A", MITE, NOW.replace(year=2025) + dt.timedelta(days=17))
        with farm_session(FARM) as session:
            weeks = earlier.in_these_weeks(session, session.get_one(Farm, FARM), catalogue, TODAY)
        self.assertEqual(weeks, {made("Orchard A"): [MOTH]})

    def test_a_neighbour_is_told_of_what_lives_on_it(self) -> None:
        with farm_session(FARM) as session:
            farm, blocks = session.get_one(Farm, FARM), ground.blocks(session)
            pests = {made("Tunnel 1"): [Proved(MITE, TODAY)]}
            told = earlier.next_door(farm, blocks, pests, catalogue)
            self.assertNotIn(str(made("Tunnel 1")), told)
            names = {block.name for block in blocks if str(block.id) in told}
        self.assertIn("Tunnel 2", names)
        self.assertTrue(all(row.block == "Tunnel 1" for rows in told.values() for row in rows))

    def test_what_was_counted_grows_to_the_farm_s_own_threshold(self) -> None:
        payloads = line()
        send("stop.open", *payloads["stop.open"])
        record = payloads["sample.record"][1]
        few = payloads["sample.record"][0] | {"counts": [0, 1, 0, 0, 0, 0, 0, 0, 0, 0] * 4, "enemies": [0] * 40}
        send("sample.record", few, record)
        yesterday = TODAY - dt.timedelta(days=1)
        with farm_session(FARM, role="owner") as session:
            stop = session.get_one(Stop, (FARM, payloads["stop.open"][1]))
            stop.on, block_id = yesterday, stop.block_id
            session.get_one(SampleRow, (FARM, record)).seen_at = NOW - dt.timedelta(days=1)

        def days() -> float:
            with farm_session(FARM) as session:
                farm, blocks = session.get_one(Farm, FARM), [session.get_one(Block, (FARM, block_id))]
                rows = earlier.growing(session, farm, blocks, thresholds.own(session, catalogue), TODAY)
                return rows[block_id][0].days

        usual = days()
        own = {"agent": MITE, "crop": "raspberry", "measure": "mean", "value": 40.0, "why": "For what is pressed to juice."}
        send("threshold.set", own)
        self.assertGreater(days(), usual + 1)
