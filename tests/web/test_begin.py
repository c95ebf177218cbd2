"""The first account on an installation that has none: by the code of its start, once; and the farm as its owner keeps it."""

import os
import re
import tempfile
import unittest
from typing import Any
from unittest import mock

from flask.testing import FlaskClient
from sqlalchemy import select, text

from bootmark.core.meanings import ControlKind
from bootmark.services.owning import lands
from bootmark.services.treatment.weighing import policy_of
from bootmark.standins.estate import FARM, made
from bootmark.store.models import Farm
from bootmark.store.session import farm_session
from bootmark.web import create_app
from bootmark.web.begin.route import CODE
from tests import database
from tests.web.test_pages import F, PagesTest

FORM = {
    "code": "abcde fghjk",
    "person": "Ada Lorne",
    "email": "ada@upper.example",
    "password": "nine hens on a cold drum",
    "name": "Upper Holding",
    "latitude": "46,2",
    "longitude": "7.1",
}


class Begins(unittest.TestCase):
    def setUp(self) -> None:
        name = database.empty()
        self.addCleanup(database.drop, name)
        code = mock.patch.dict(os.environ, {CODE: "ABCDE-FGHJK"})
        code.start()
        self.addCleanup(code.stop)
        self.client = create_app(TESTING=False).test_client()

    def begin(self, client: FlaskClient | None = None, **change: str) -> Any:
        client = client or self.client
        hit = re.search(r'name="csrf" content="([^"]+)"', client.get("/begin").text)
        token = hit.group(1) if hit else ""
        return client.post("/begin", data={**FORM, **change, "csrf_token": token})

    def test_everything_leads_there_until_there_is_an_account(self) -> None:
        self.assertEqual(self.client.get("/sign-in").headers["Location"], "/begin")
        answer = self.begin()
        farm = answer.headers["Location"]
        self.assertEqual(answer.status_code, 302)
        page = self.client.get(farm).text
        self.assertTrue("Upper Holding" in page and "Still missing" in page and "Europe/" in page)
        self.assertEqual(self.client.get("/begin").status_code, 302)
        self.assertEqual(create_app(TESTING=False).test_client().get("/sign-in").status_code, 200)

    def test_each_wrong_entry_has_its_sentence_and_the_others_stay(self) -> None:
        for change, words in (
            ({"code": "AAAAA-AAAAA"}, "not the code"),
            ({"latitude": "north"}, "from -90 to 90"),
            ({"longitude": "nan"}, "from -90 to 90"),
            ({"email": "ada"}, "no mail address"),
            ({"password": "short"}, "has 5 letters"),
            ({"name": "\u200b"}, "all of them visible"),
            ({"person": "x" * 10_000}, "all of them visible"),
        ):
            answer = self.begin(**change)
            self.assertEqual((answer.status_code, words in answer.text), (400, True), change)
            self.assertTrue("Upper Holding" in answer.text or "name" in change)
        with farm_session(None, role="owner") as session:
            self.assertEqual(session.execute(text("SELECT count(*) FROM account")).scalar_one(), 0)

    def test_a_code_is_not_guessed(self) -> None:
        answers = [self.begin(code=f"AAAAA-AAAA{letter}").text for letter in "BCDEFGH"]
        self.assertIn("Too many tries", answers[-1])
        self.assertIn("Too many tries", self.begin().text)

    def test_only_the_first_of_two_gets_it(self) -> None:
        other = create_app(TESTING=False).test_client()
        other.get("/begin")
        self.assertEqual(self.begin().status_code, 302)
        self.assertEqual(self.begin(other, email="late@upper.example").status_code, 400)
        with farm_session(None, role="owner") as session:
            self.assertEqual(session.execute(text("SELECT email FROM account")).scalars().all(), ["ada@upper.example"])

    def test_without_a_code_nobody_begins_here(self) -> None:
        with mock.patch.dict(os.environ, {CODE: ""}):
            self.assertEqual(self.client.get("/sign-in").status_code, 200)
            self.assertEqual(self.client.get("/begin").status_code, 302)


class Settings(PagesTest):
    def kept(self) -> Farm:
        with farm_session(FARM) as session:
            return session.scalars(select(Farm)).one()

    def versions(self) -> int:
        with farm_session(FARM) as session:
            return int(session.execute(text("SELECT count(*) FROM farm_settings_version")).scalar_one())

    def save(self, **form: str) -> Any:
        with farm_session(FARM) as session:
            base = session.execute(text("SELECT command_id FROM farm_settings")).scalar_one_or_none()
        own = {"record_id": str(FARM), "name": "Ferrin Vale", "latitude": "46.2", "longitude": "7.1", "time_zone": "Europe/Vienna"}
        return self.post(self.client, f"{F}/settings", self.form(base or "") | own | form)

    def test_a_school_is_the_farm_s_policy_and_a_country_with_parts_asks_for_one(self) -> None:
        before = self.versions()
        answer = self.save(country="AT", school="soft", currency="EUR")
        self.assertEqual(answer.headers["Location"], f"{F}/settings")
        self.assertIn("Tirol", self.client.get(f"{F}/settings").text)
        self.save(country="AT", part="AT-7", school="soft", currency="EUR")
        farm = self.kept()
        self.assertEqual((farm.region, farm.currency, farm.school), ("AT-7", "EUR", "soft"))
        self.assertFalse(policy_of(farm).uses(ControlKind.CONVENTIONAL))
        page = self.client.get(f"{F}/farm").text
        self.assertIn("Tirol, Austria", page)
        self.assertEqual(self.versions(), before + 2)

    def test_what_does_not_exist_is_said_beside_its_field_and_nothing_is_kept(self) -> None:
        before = self.kept()
        for change, words in (
            ({"time_zone": "Europe/Nowhere"}, "no time zone Europe/Nowhere"),
            ({"country": "QQ"}, "no country"),
            ({"country": "at"}, "no country"),
            ({"currency": "XXQ"}, "no money"),
            ({"latitude": "91"}, "-90 to 90"),
            ({"name": "\u202eelaV"}, "seen"),
        ):
            answer = self.save(**change)
            self.assertEqual((answer.status_code, words in answer.text), (400, True), change)
        self.assertEqual(self.kept().region, before.region)

    def test_a_part_of_another_country_is_not_kept(self) -> None:
        self.save(country="AT", part="US-FL")
        self.assertEqual(self.kept().region, "AT")

    def test_places_tell_their_zone(self) -> None:
        # The tz database's own cities, from memory.
        for at, zone in (((48.2, 16.4), "Europe/Vienna"), ((-33.9, 18.4), "Africa/Johannesburg"), ((40.7, -74.0), "America/New_York")):
            self.assertEqual(lands.zone_at(*at), zone)


class Missing(PagesTest):
    def links(self, client: FlaskClient) -> dict[str, str]:
        page = client.get(f"{F}/farm").text.partition("Still missing")[2].partition("</section>")[0]
        return {title: where for where, title in re.findall(r'<a\s+href="([^"]+)"><strong>([^<]+)', page)}

    def test_each_line_leads_to_what_mends_it_and_none_where_one_may_not(self) -> None:
        with farm_session(FARM) as session:
            session.execute(text("UPDATE farm SET school = '', region = ''"))
            session.execute(text("UPDATE block SET harvest_from = NULL WHERE name = 'Orchard B'"))
        links = self.links(self.client)
        self.assertEqual(links["The next picking"], f"{F}/farm/block/{made('Orchard B')}")
        self.assertEqual(links["The country"], f"{F}/settings")
        self.assertEqual({self.client.get(where).status_code for where in links.values()}, {200})
        adviser = self.enter("adviser")
        self.assertNotIn("The country", self.links(adviser))
        self.assertIn("an owner", adviser.get(f"{F}/farm").text)
        self.assertEqual({adviser.get(where).status_code for where in self.links(adviser).values()}, {200})


class Trust(PagesTest):
    def test_a_farm_s_own_authority_is_offered_where_there_is_one(self) -> None:
        stranger = self.app.test_client()
        self.assertEqual(stranger.get("/authority.crt").status_code, 404)
        self.assertIn("whoever is in between can read along", stranger.get("/trust").text)
        self.assertIn("everything works here", stranger.get("/trust", base_url="https://localhost").text)
        with tempfile.NamedTemporaryFile() as file, mock.patch.dict(os.environ, {"BOOTMARK_AUTHORITY": file.name}):
            file.write(b"certificate")
            file.flush()
            answer = stranger.get("/authority.crt")
            self.assertEqual((answer.data, answer.mimetype), (b"certificate", "application/x-x509-ca-cert"))
            self.assertIn("Get this farm", stranger.get("/trust").text)
