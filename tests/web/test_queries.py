"""Odd words in the address, and too many requests of one person: answered in words."""

import itertools
import uuid
from urllib.parse import quote

from bootmark.drawing import signs
from bootmark.services.base.roles import Role
from bootmark.standins.estate import FARM, PASSWORD, made
from bootmark.store.models import Look
from bootmark.web import create_app
from tests.web.test_pages import F, PagesTest, mail

ODD = (
    "", "0", "-1", "1e400", "nan", "-inf", "99999999999999999999", "9" * 400, "\x00", "\ud800", "%00", "'; DROP TABLE look; --",
    "<script>alert(1)</script>", "../../etc/passwd", "//elsewhere.example", "x" * 6000, "NaN", "\u202e", "1.5", "null", "[]", "{}",
)  # fmt: skip


class Queries(PagesTest):
    def pages(self) -> dict[str, tuple[str, ...]]:
        """Pages with the words that their addresses take."""
        stop = self.one(Look).stop_id
        return {
            f"{F}/book": ("block", "kind", "from"),
            f"{F}/stages": ("show", "block", "agent", "crop"),
            f"{F}/stages/part": ("from", "show", "block"),
            f"{F}/count/{stop}": ("agent", "trap"),
            f"{F}/call/{stop}": ("agent",),
            f"{F}/guide": ("q", "crop"),
            f"{F}/guide/apart": ("agent",),
            f"{F}/guide/drawings": ("leaf", "severity"),
            f"{F}/enquiry": ("from",),
            f"{F}/station/{made('Ridge mast')}": ("lower", "upper", "start", "sums", "unit", "year"),
            f"{F}/stages/{made('Long Field')}/colorado-potato-beetle": ("lasts", "warmer", "later"),
            f"{F}/stages/{made('Long Field')}/colorado-potato-beetle/what-if": ("warmer", "later"),
            "/drawing/sign/stippling.svg": ("leaf", "severity"),
            "/sign-in": ("next",),
        }

    def test_nonsense_in_the_address_is_answered(self) -> None:
        tried = 0
        for path, names in self.pages().items():
            for name, odd in itertools.product(names, ODD):
                word = quote(odd.encode("utf-8", "surrogatepass"))
                # Each as somebody new, so that nobody is told to wait.
                with self.app.test_request_context():
                    self.app.extensions["limits"].reset()
                answer = self.client.get(f"{path}?{name}={word}")
                tried += 1
                with self.subTest(f"{path}?{name}={word[:40]}"):
                    self.assertLess(answer.status_code, 500)
                    self.assertNotIn("<script>alert", answer.text)
        self.assertGreater(tried, 500)

    def test_whoever_asks_too_often_for_what_is_expensive_waits_and_nobody_else_does(self) -> None:
        # As two processes on two ports count it: together.
        here, there = self.client, create_app(TESTING=False).test_client()
        self.post(there, "/sign-in", {"email": mail("owner"), "password": PASSWORD}, page="/sign-in")
        statuses = [client.get(f"{F}/book.csv").status_code for _ in range(7) for client in (here, there)]
        self.assertEqual(statuses, [200] * 12 + [429] * 2)
        self.assertIn("Wait a minute", self.client.get(f"{F}/book.csv").text)
        self.assertEqual(self.enter(Role.ADVISER).get(f"{F}/book.csv").status_code, 200)
        self.assertEqual(self.client.get(f"{F}/book").status_code, 200)

    def test_nobody_has_one_picture_drawn_without_end(self) -> None:
        stranger = self.app.test_client()
        before = signs._kept.cache_info().misses
        for n in range(300):
            self.assertEqual(stranger.get(f"/drawing/sign/stippling.svg?severity={n / 300:.6f}").status_code, 200)
        self.assertLessEqual(signs._kept.cache_info().misses - before, 11)

    def test_addresses_that_hold_no_id(self) -> None:
        for odd in ("x", "0", str(uuid.uuid4())[:-1], "%00", "..%2f..", "a" * 300):
            for path in (f"/f/{odd}/round", f"/f/{FARM}/look/{odd}", f"/f/{FARM}/do/{odd}", f"/f/{FARM}/photo/{odd}.jpg"):
                self.assertEqual(self.client.get(path).status_code, 404, path)
