"""Sign-ins as the browser has them: their cookie, their end, and who is asked again before signing."""

import datetime as dt
import os
import re
from unittest import mock

from flask.testing import FlaskClient
from sqlalchemy import select, text

from bootmark.standins.estate import FARM, PASSWORD, made
from bootmark.store.models import Application, TreatmentRow
from bootmark.store.session import engine, farm_session
from bootmark.web import create_app, guard
from tests.web.test_pages import F, PagesTest, mail

REAL = guard.real_now
NEW = "four small wet gloves"


def later(**words: float) -> "mock._patch[object]":
    """The machine's clock, so much on, as the guard at the door reads it."""
    moved = lambda: REAL() + dt.timedelta(**words)  # noqa: E731
    return mock.patch.multiple("bootmark.web.guard", real_now=moved)


class Sessions(PagesTest):
    def test_the_cookie_behind_tls_and_without(self) -> None:
        plain = self.app.test_client().get("/sign-in")
        self.assertTrue(plain.headers["Set-Cookie"].startswith("bootmark="))
        self.assertNotIn("Strict-Transport-Security", plain.headers)
        with mock.patch.dict(os.environ, {"BOOTMARK_TLS": "1"}):
            behind = create_app(TESTING=False)
        answer = behind.test_client().get("/sign-in", headers={"X-Forwarded-Proto": "https", "X-Forwarded-Host": "farm.example"})
        cookie = answer.headers["Set-Cookie"]
        self.assertTrue(cookie.startswith("__Host-bootmark="))
        for part in ("Secure", "HttpOnly", "Path=/", "SameSite=Lax"):
            self.assertIn(part, cookie)
        self.assertNotIn("Domain", cookie)
        self.assertIn("max-age", answer.headers["Strict-Transport-Security"])

    def test_static_files_and_pages_set_none(self) -> None:
        self.client.get(f"{F}/farm")
        for path in ("/static/app.css", f"{F}/round", "/livez"):
            with self.client.get(path) as answer:
                self.assertEqual(answer.headers.getlist("Set-Cookie"), [], path)

    def test_signing_in_gives_a_new_cookie_and_a_new_token_for_forms(self) -> None:
        client = self.app.test_client()
        before = client.get("/sign-in")
        planted = before.headers["Set-Cookie"].split(";")[0]
        token = re.search(r'name="csrf_token" value="([^"]+)"', before.text)
        assert token
        answer = client.post("/sign-in", data={"email": mail("scout"), "password": PASSWORD, "csrf_token": token.group(1)})
        self.assertNotEqual(answer.headers["Set-Cookie"].split(";")[0], planted)
        stale = client.post("/sign-out", data={"csrf_token": token.group(1)})
        self.assertEqual(stale.status_code, 400)

    def test_a_cookie_that_was_signed_out_opens_nothing(self) -> None:
        client = self.enter("scout")
        stolen = client.get_cookie("bootmark")
        assert stolen
        self.post(client, "/sign-out", {}, f"{F}/farm")
        thief = self.app.test_client()
        thief.set_cookie("bootmark", stolen.value)
        self.assertEqual(thief.get(f"{F}/round").status_code, 302)
        self.assertEqual(thief.post(f"{F}/sync", json={"commands": []}).status_code, 400)

    def test_a_sign_in_ends_after_fourteen_hours_and_on_one_s_own_phone_after_thirty_days(self) -> None:
        shared, phone = self.enter("scout"), self.app.test_client()
        form = {"email": mail("scout"), "password": PASSWORD, "own_phone": "1", "device": "Maro's phone"}
        answer = self.post(phone, "/sign-in", form, "/sign-in")
        self.assertIn("Expires", answer.headers["Set-Cookie"])
        self.assertIn("Maro&#39;s phone", phone.get(f"{F}/devices").text)
        with later(hours=13):
            self.assertEqual(shared.get(f"{F}/round").status_code, 200)
        with later(hours=15):
            self.assertEqual((shared.get(f"{F}/round").status_code, phone.get(f"{F}/round").status_code), (302, 200))
        with later(days=31):
            self.assertEqual(phone.get(f"{F}/round").status_code, 302)

    def test_each_sees_the_own_devices_and_signs_one_out(self) -> None:
        first, second = self.enter("applicator"), self.enter("applicator")
        page = first.get(f"{F}/devices").text
        self.assertIn("this one", page)
        other = re.search(r'action="(/f/[^"]+/devices/[^"]+)"', page)
        assert other
        # Somebody else who knows the address ends nothing.
        self.post(self.client, other.group(1), {}, f"{F}/farm")
        self.assertEqual(second.get(f"{F}/round").status_code, 200)
        for address in re.findall(r'action="(/f/[^"]+/devices/[^"]+)"', page):
            self.post(first, address, {}, f"{F}/farm")
        self.assertEqual((first.get(f"{F}/round").status_code, second.get(f"{F}/round").status_code), (200, 302))

    def test_the_owner_signs_a_member_out_and_nobody_else_does(self) -> None:
        scout, adviser = self.enter("scout"), self.enter("adviser")
        address = f"{F}/people/{made(mail('scout'))}/sign-out"
        self.assertEqual(self.post(adviser, address, {}, f"{F}/farm").status_code, 403)
        self.assertEqual(scout.get(f"{F}/round").status_code, 200)
        self.post(self.client, address, {}, f"{F}/farm")
        self.assertEqual(scout.get(f"{F}/round").status_code, 302)


class AskedAgain(PagesTest):
    def planned(self) -> str:
        with farm_session(FARM) as session:
            return str(session.scalars(select(TreatmentRow.id).where(TreatmentRow.state == "planned")).first())

    def age(self, role: str) -> None:
        """Let the sign-ins of somebody be two hours old."""
        with engine("owner").begin() as connection:
            change = text("UPDATE sign_in_session SET asked_at = asked_at - interval '2 hours' WHERE account_id = :id")
            connection.execute(change, {"id": made(mail(role))})

    def signed(self) -> int:
        with farm_session(FARM) as session:
            return len(session.scalars(select(Application.id)).all())

    def sign(self, client: FlaskClient, **more: str) -> tuple[int, str]:
        path = f"{F}/do/{self.planned()}"
        page = client.get(path).text
        hidden = dict(re.findall(r'name="(command_id|record_id|base|started_at|finished_at|area)"[^>]* value="([^"]*)"', page))
        hidden |= dict(re.findall(r'id="f-(started_at|finished_at|area)"[^>]*? value="([^"]*)"', page))
        checks = re.findall(r'name="checks" value="([^"]*)"', page)
        form = hidden | {"checks": [check.replace("&#39;", "'") for check in checks], "amount": "2", "amount_unit": "kg"} | more
        answer = self.post(client, path, form, path)
        return answer.status_code, answer.text

    def test_signing_asks_for_the_password_where_the_sign_in_is_old(self) -> None:
        client = self.enter("applicator")
        self.age("applicator")
        before = self.signed()
        status, page = self.sign(client)
        self.assertEqual((status, self.signed()), (400, before))
        self.assertIn("more than an hour old", page)
        status, page = self.sign(client, password="not mine")
        self.assertEqual((status, self.signed()), (400, before))
        self.assertIn("That is not your password", page)
        self.assertNotIn("not mine", page)
        status, page = self.sign(client, password=PASSWORD)
        self.assertEqual((status, self.signed()), (302, before + 1))
        # And not again within the hour.
        self.assertNotIn('name="password"', client.get(f"{F}/do/{self.planned()}").text)

    def test_a_signature_from_the_phone_waits_until_it_was_asked(self) -> None:
        client = self.enter("applicator")
        token = self.token(client, f"{F}/farm")
        self.age("applicator")
        path = f"{F}/do/{self.planned()}"
        record = re.search(r'name="record_id" value="([^"]+)"', client.get(path).text)
        assert record
        command: dict[str, object] = {
            "command_id": "6a1f6c6e-7c0f-4e1c-9a51-0d5d7d1d9d01",
            "record_id": record.group(1),
            "kind": "application.record",
            "v": 1,
            "base": None,
            "payload": {},
        }
        headers = {"X-CSRFToken": token}
        answer = client.post(f"{F}/sync", json={"commands": [command]}, headers=headers).json
        self.assertEqual(answer["results"][0]["status"], "ask")
        self.assertEqual(client.post("/again", json={"password": "wrong"}, headers=headers).status_code, 400)
        self.assertEqual(client.post("/again", json={"password": PASSWORD}, headers=headers).status_code, 200)
        answer = client.post(f"{F}/sync", json={"commands": [command]}, headers=headers).json
        # It is asked no more; what is wrong with it now is the record itself.
        self.assertEqual(answer["results"][0]["status"], "refused")

    def test_a_key_for_a_station_asks_too(self) -> None:
        address = f"{F}/station/{made('Ridge mast')}/key"
        self.age("owner")
        self.assertIn("more than an hour old", self.post(self.client, address, {}, f"{F}/farm").text)
        answer = self.post(self.client, address, {"password": PASSWORD}, f"{F}/farm")
        self.assertEqual(answer.status_code, 200)


class Passwords(PagesTest):
    def change(self, client: FlaskClient, password: str, fresh: str) -> tuple[int, str]:
        answer = self.post(client, f"{F}/devices/password", {"password": password, "fresh": fresh}, f"{F}/devices")
        return answer.status_code, answer.text

    def test_whoever_changes_the_password_stays_and_every_other_device_is_out(self) -> None:
        desk, other, colleague = self.enter("viewer"), self.enter("viewer"), self.enter("scout")
        before = desk.get_cookie("bootmark")
        self.assertEqual(self.change(desk, PASSWORD, NEW)[0], 302)
        self.assertNotEqual(desk.get_cookie("bootmark"), before)
        statuses = [client.get(f"{F}/round").status_code for client in (desk, other, colleague)]
        self.assertEqual(statuses, [200, 302, 200])
        self.assertIn("changed the password", desk.get(f"{F}/devices").text)
        entered = [
            self.post(self.app.test_client(), "/sign-in", {"email": mail("viewer"), "password": word}, "/sign-in").status_code
            for word in (PASSWORD, NEW)
        ]
        self.assertEqual(entered, [400, 302])

    def test_what_is_wrong_with_a_new_password_stands_beside_it_and_nothing_changes(self) -> None:
        client, other = self.enter("applicator"), self.enter("applicator")
        for password, fresh, told in (
            (PASSWORD, "", "It has 0 letters and needs 15"),
            (PASSWORD, "wet gloves", "It has 10 letters and needs 15"),
            (PASSWORD, "p" * 10_000, "It has 10000 letters; 256 are the most"),
            (PASSWORD, "passwordpassword1", "It is guessed early"),
            (PASSWORD, "senna vost ferrin vale", "It is guessed early"),
            ("not mine", NEW, "That is not your password"),
        ):
            with self.subTest(fresh=fresh[:20]):
                status, page = self.change(client, password, fresh)
                self.assertEqual(status, 400)
                self.assertIn(told, page)
                self.assertEqual(re.findall(r'type="password" value="([^"]*)"', page), ["", ""])
        self.assertEqual(other.get(f"{F}/round").status_code, 200)

    def test_ones_own_phone_stays_so_after_the_change(self) -> None:
        phone = self.app.test_client()
        self.post(phone, "/sign-in", {"email": mail("adviser"), "password": PASSWORD, "own_phone": "1", "device": "Old phone"}, "/sign-in")
        self.change(phone, PASSWORD, NEW)
        page = phone.get(f"{F}/devices").text
        self.assertIn("Old phone", page)
        with later(days=20):
            self.assertEqual(phone.get(f"{F}/round").status_code, 200)
