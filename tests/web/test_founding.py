"""A farm made at the server's terminal, and its owner's first minutes on it."""

import contextlib
import io
import math
import os
import tempfile
import unittest
import uuid
from pathlib import Path
from unittest import mock

from flask.testing import FlaskClient
from hypothesis import given
from hypothesis import strategies as st
from sqlalchemy import func, select, update

from bootmark.farms import __main__ as terminal
from bootmark.services.base.people import NOBODY
from bootmark.services.owning import founding
from bootmark.services.owning.founding import Beginning
from bootmark.standins import demo
from bootmark.standins.estate import FARM, PEOPLE, made
from bootmark.standins.estate import PASSWORD as DEMO_PASSWORD
from bootmark.store import copies
from bootmark.store.base import Base
from bootmark.store.models import Account, Look, Membership
from bootmark.store.session import farm_session
from tests.web.test_pages import F, PagesTest, mail

GOOD = Beginning("Upper Holding", (46.2, 7.1), "Europe/Vienna", "Arla Bent", "arla@upper.example")
PASSWORD = "nine hens on a cold drum"
FRESH = "slow moths over grey barley"
PAGES = (
    *("round", "look", "count", "call", "stages", "timing", "do", "book", "guide", "enquiry"),
    *("farm", "farm/block/new", "station/new", "traps", "devices"),
)


class Errors(unittest.TestCase):
    @given(st.floats(), st.floats())
    def test_a_place_is_on_earth(self, latitude: float, longitude: float) -> None:
        is_on_earth = math.isfinite(latitude) and math.isfinite(longitude) and abs(latitude) <= 90 and abs(longitude) <= 180
        beginning = Beginning(GOOD.name, (latitude, longitude), GOOD.time_zone, GOOD.person, GOOD.email)
        self.assertEqual("at" not in founding.errors_of(beginning), is_on_earth)

    def test_each_wrong_word_has_its_own_sentence(self) -> None:
        self.assertEqual(founding.errors_of(GOOD), {})
        wrong = Beginning("x" * 10_000, (math.nan, 0), "Europe/Nowhere", "\u200b", "arla at upper")
        self.assertEqual(set(founding.errors_of(wrong)), {"name", "at", "time_zone", "person", "email"})

    def test_a_place_is_read_as_typed(self) -> None:
        self.assertEqual(terminal.place("-33.9, 18.4"), (-33.9, 18.4))
        for words in ("here", "46.2", "46,2,7,1"):
            self.assertTrue(all(math.isnan(degrees) for degrees in terminal.place(words)), words)


class TerminalTest(PagesTest):
    def run_with(self, typed: str, *words: str) -> tuple[int, str, str]:
        out, err = io.StringIO(), io.StringIO()
        with mock.patch("sys.stdin", io.StringIO(typed)), contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
            code = terminal.main(list(words))
        return code, out.getvalue(), err.getvalue()

    def new(self, name: str, address: str, typed: str = f"{PASSWORD}\n", at: str = "46.2,7.1") -> tuple[int, str, str]:
        return self.run_with(typed, "new", name, f"--at={at}", "--zone", "Europe/Vienna", "--owner", "Arla Bent", "--mail", address)

    def sign_in(self, address: str, password: str) -> FlaskClient:
        client = self.app.test_client()
        self.post(client, "/sign-in", {"email": address, "password": password}, "/sign-in")
        return client


class Terminal(TerminalTest):
    def test_an_owner_starts_on_an_empty_farm_and_every_main_page_answers(self) -> None:
        code, out, _ = self.new("Bare Holding", "bare@upper.example")
        self.assertEqual(code, 0)
        farm = uuid.UUID(out.split("(")[1].split(")")[0])
        client = self.sign_in("bare@upper.example", PASSWORD)
        self.assertIn(f"/f/{farm}/", client.get("/").headers["Location"])
        for page in PAGES:
            with self.subTest(page=page):
                self.assertEqual(client.get(f"/f/{farm}/{page}", follow_redirects=True).status_code, 200)
        self.assertIn("Add the first block", client.get(f"/f/{farm}/round").text)
        self.assertEqual(client.get(f"{F}/round").status_code, 404)
        self.assertEqual(self.client.get(f"/f/{farm}/round").status_code, 404)

    def test_somebody_who_has_an_account_owns_a_second_farm_with_the_same_password(self) -> None:
        code, out, _ = self.new("Second Holding", mail("owner"), typed="")
        self.assertEqual(code, 0)
        self.assertIn("its password stays", out)
        page = self.client.get("/").text
        self.assertIn("Second Holding", page)

    def test_what_is_wrong_is_said_and_nothing_is_made(self) -> None:
        for typed, at, told in (
            ("passwordpassword\n", "46.2,7.1", "the password: It is guessed early"),
            ("short\n", "46.2,7.1", "the password: It has 5 letters"),
            (f"{PASSWORD}\n", "146.2,7.1", "--at: Latitude lies"),
        ):
            with self.subTest(told=told):
                code, _, err = self.new("Wrong Holding", "wrong@upper.example", typed, at)
                self.assertEqual(code, 1)
                self.assertIn(told, err)
        self.assertNotIn("Wrong Holding", self.run_with("", "list")[1])

    def test_a_forgotten_password_is_set_and_every_device_is_out(self) -> None:
        self.new("Third Holding", "third@upper.example")
        client = self.sign_in("third@upper.example", PASSWORD)
        self.assertEqual(self.run_with(f"{FRESH}\n", "password", " Third@upper.example ")[0], 0)
        self.assertEqual(client.get("/").headers["Location"].split("?")[0], "/sign-in")
        self.assertIn("/f/", self.sign_in("third@upper.example", FRESH).get("/").headers["Location"])
        code, _, err = self.run_with(f"{FRESH}\n", "password", "nobody@upper.example")
        self.assertEqual((code, err), (1, "the address: No account has the address nobody@upper.example.\n"))

    def test_a_link_to_join_is_made_at_the_terminal(self) -> None:
        farm = self.new("Inviting Holding", "inviting@upper.example")[1].split("(")[1].split(")")[0]
        code, out, _ = self.run_with("", "invite", farm, "Sorrel Dane", "--role", "applicator", "--mail", "sorrel@ferrin.example")
        self.assertEqual(code, 0)
        path = "/join/" + out.split("/join/")[1].split()[0]
        self.assertIn("Sorrel Dane", self.sign_in("inviting@upper.example", PASSWORD).get(f"/f/{farm}/people").text)
        stranger = self.app.test_client()
        self.post(stranger, path, {"name": "Sorrel", "email": "sorrel@ferrin.example", "password": FRESH}, page=path)
        self.assertEqual(stranger.get(f"/f/{farm}/round").status_code, 200)
        for words, told in (
            ((str(uuid.uuid4()), "Sorrel"), "the farm: There is no such farm"),
            (("nowhere", "Sorrel"), "the farm: that is no farm's id"),
            ((str(FARM), "\u200b"), "the name: "),
            ((str(FARM), "Sorrel", "--mail", "sorrel"), "the address: That is no mail address"),
        ):
            code, _, err = self.run_with("", "invite", *words)
            self.assertEqual((code, err[: len(told)]), (1, told))

    def test_the_list_tells_each_farm_s_owners(self) -> None:
        self.assertIn("Ferrin Vale: 5 in all, owned by ilva@ferrin.example", self.run_with("", "list")[1])


class Sample(TerminalTest):
    def test_a_sample_farm_comes_and_goes_and_leaves_nothing_of_it(self) -> None:
        self.new("Own Holding", "sample@upper.example")
        code, _, err = self.run_with("", "sample", "nobody@upper.example")
        self.assertEqual((code, "No account" in err), (1, True))
        # The demo farm is there already: it stands for the sample, to whose people nobody signs in.
        with farm_session(FARM, role="owner") as session:
            session.execute(update(Account).where(Account.email.like("%@ferrin.example")).values(password_hash=NOBODY))
        code, out, _ = self.run_with("", "sample", "sample@upper.example")
        self.assertEqual((code, str(FARM) in out), (0, True))
        client = self.sign_in("sample@upper.example", PASSWORD)
        self.assertEqual(client.get(f"{F}/round").status_code, 200)
        code, _, err = self.run_with("Own Holding\n", "close", str(FARM))
        self.assertEqual((code, "not its name" in err), (1, True))
        self.assertEqual(client.get(f"{F}/round").status_code, 200)
        code, out, err = self.run_with("Ferrin Vale\n", "close", str(FARM))
        self.assertEqual(code, 0, err)
        self.assertEqual(client.get(f"{F}/round").status_code, 404)
        with farm_session(FARM, role="owner") as session:
            left = {
                table.name: session.execute(select(func.count()).select_from(table).where(table.c.farm_id == FARM)).scalar_one()
                for table in Base.metadata.sorted_tables
                if "farm_id" in table.c and table.name != "account_reset"
            }
        self.assertEqual({name: rows for name, rows in left.items() if rows}, {})
        self.assertIn("Own Holding", client.get("/farms").text)
        self.assertTrue(demo.load(password=None))
        for _, address, *_ in PEOPLE:
            self.assertIn("sign-in", self.sign_in(address, DEMO_PASSWORD).get("/").headers["Location"])

    def test_what_is_no_farm_is_not_closed(self) -> None:
        for words, said in (("x", "no farm's id"), (str(uuid.uuid4()), "no such farm")):
            code, _, err = self.run_with("\n", "close", words)
            self.assertEqual((code, said in err), (1, True))


class Erasing(TerminalTest):
    def everywhere(self, *words: str) -> list[str]:
        """Tables in which one of these words stands."""
        tables: set[str] = set()
        for table in Base.metadata.sorted_tables:
            with farm_session(FARM, role="owner") as session:
                for row in session.execute(select(table)):
                    tables |= {table.name for word in words if word in str(row._asdict())}
        return sorted(tables)

    def test_nothing_is_told_of_whoever_was_erased_and_what_they_wrote_stays(self) -> None:
        maro = made("maro@ferrin.example")
        with farm_session(FARM, role="owner") as session:
            session.execute(update(Membership).where(Membership.account_id == maro).values(certificate="K 17 of Maro"))
            before = session.scalar(select(func.count()).select_from(Look).where(Look.account_id == maro))
        client = self.sign_in("maro@ferrin.example", DEMO_PASSWORD)
        kept = client.get(f"{F}/devices/mine.json").json
        self.assertEqual((kept["name"], kept["email"], kept["farms"][0]["role"]), ("Maro Quill", "maro@ferrin.example", "scout"))
        self.assertEqual(kept["terms"][0]["certificate"], "K 17 of Maro")
        self.assertNotIn("Ilva", str(kept))
        self.assertIn("account", self.everywhere("Maro Quill"))
        code, _, err = self.run_with("other\n", "erase", "maro@ferrin.example")
        self.assertEqual((code, "not the address" in err), (1, True))
        with tempfile.TemporaryDirectory() as folder, mock.patch.dict(os.environ, {"BOOTMARK_BACKUPS": folder}):
            code, _, err = self.run_with("maro@ferrin.example\n", "erase", "maro@ferrin.example")
            self.assertEqual(code, 0, err)
            self.assertEqual(set(copies.erased(Path(folder) / "copy.dump")), {maro})
        self.assertEqual(self.everywhere("Maro Quill", "maro@ferrin", "K 17 of Maro"), [])
        self.assertEqual(client.get(f"{F}/round").status_code, 302)
        with farm_session(FARM) as session:
            self.assertEqual(session.scalar(select(func.count()).select_from(Look).where(Look.account_id == maro)), before)
        self.assertIn("Erased", self.client.get(f"{F}/people").text)

    def test_a_farm_is_not_left_without_an_owner(self) -> None:
        code, _, err = self.run_with("ilva@ferrin.example\n", "erase", "ilva@ferrin.example")
        self.assertEqual((code, "has no other owner" in err), (1, True))
        code, _, err = self.run_with("nobody@x.example\n", "erase", "nobody@x.example")
        self.assertEqual((code, "No account" in err), (1, True))
