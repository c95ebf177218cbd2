"""Eggs, small, large and grown ones of a count told apart, and the pictures that told its units."""

from bootmark.services.base.command import Refused
from bootmark.services.book import log
from bootmark.standins.estate import FARM
from bootmark.store.models import SampleRow
from bootmark.store.session import farm_session
from tests.database import DatabaseTest, catalogue
from tests.sending import send
from tests.services.lines import line


class Ages(DatabaseTest):
    def setUp(self) -> None:
        super().setUp()
        payloads = line()
        send("stop.open", *payloads["stop.open"])
        payload, self.record = payloads["sample.record"]
        self.payload = payload | {"counts": [3, 2, 0], "enemies": [0, 0, 0]}

    def test_they_are_kept_and_the_book_tells_them(self) -> None:
        send("sample.record", self.payload | {"ages": {"eggs": 40, "small": 4, "adults": 1}}, self.record)
        with farm_session(FARM) as session:
            row = session.get_one(SampleRow, (FARM, self.record))
            self.assertEqual(row.ages, {"eggs": 40, "small": 4, "adults": 1})
            words = log._counts(session, [self.record], catalogue)[self.record]
        self.assertIn("40 eggs, 4 small ones, 1 adults", words)

    def test_more_than_were_counted_is_refused_but_not_eggs(self) -> None:
        for ages in ({"small": 6}, {"small": -1}, {"larva": 1}, {"small": 1.5}, [1]):
            with self.subTest(ages=ages), self.assertRaises(Refused) as refused:
                send("sample.record", self.payload | {"ages": ages}, self.record)
            self.assertEqual(list(refused.exception.errors), ["ages"])
        with self.assertRaises(Refused) as refused:
            send("sample.record", self.payload | {"pictures": ["", "", "", ""]}, self.record)
        self.assertEqual(list(refused.exception.errors), ["pictures"])
