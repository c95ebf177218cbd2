"""Two thousand calls, half of them odd: each is answered, every good one is stored, and every page can be read afterwards."""

from tests.services import calls
from tests.store.test_releases import walk
from tests.web.test_pages import PagesTest

CALLS = 2_000


class ManyCalls(PagesTest):
    def test_two_thousand_calls_and_every_page_afterwards(self) -> None:
        run = calls.run(CALLS)
        self.assertEqual((run.lost, run.lines), (0, []))
        self.assertLessEqual(set(run.statuses), {"stored", "refused", "wait", "conflict", "other content"})
        # It was no idle question: nonsense was refused, and some of it was good after all.
        self.assertGreater(run.statuses["refused"], CALLS / 5)
        self.assertGreater(run.statuses["stored"], 20)
        self.assertLessEqual(set(walk(self.client)), {200, 302})
