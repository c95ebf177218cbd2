"""A fresh process makes its first pages ready, and writes nothing by it."""

from unittest import mock

from sqlalchemy import text

from bootmark.services.base import stamp, work
from bootmark.standins.estate import FARM
from bootmark.store.session import farm_session
from bootmark.web import create_app
from bootmark.web.warm import warm
from tests.database import DatabaseTest


class Warm(DatabaseTest):
    def test_every_main_page_is_shown_to_nobody_and_nothing_is_written(self) -> None:
        with farm_session(FARM) as session:
            session.execute(text("UPDATE season_result SET key = 'old'"))
        with farm_session(FARM) as session:
            before = stamp.of(session)
        app = create_app()
        shown: list[str] = []
        real = app.view_functions.__getitem__

        class Noting(dict):  # type: ignore[type-arg]
            def __getitem__(self, endpoint: str) -> object:
                shown.append(endpoint)
                return real(endpoint)

        app.view_functions, kept = Noting(app.view_functions), app.view_functions
        with self.assertNoLogs("bootmark.warm", "WARNING"):
            warm(app)
        app.view_functions = kept
        self.assertLessEqual({"round.page", "look.page", "count.page", "call.page", "stages.page", "do.card", "book.page"}, set(shown))
        with farm_session(FARM) as session:
            self.assertEqual(stamp.of(session), before)

    def test_a_page_that_fails_stops_nothing(self) -> None:
        with mock.patch.object(work, "first_farms", side_effect=RuntimeError("no database")), self.assertLogs("bootmark.warm", "WARNING"):
            warm(create_app())
