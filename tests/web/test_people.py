"""People of a farm: links by which they join, what each may do, leaving, and that nobody reaches another farm through somebody."""

import datetime as dt
import re
import threading
import unittest
import uuid
from concurrent.futures import ThreadPoolExecutor
from typing import Any

from flask.testing import FlaskClient
from sqlalchemy import text

from bootmark.services import writing
from bootmark.services.base.people import Member
from bootmark.services.base.roles import Role
from bootmark.services.owning import founding, links, rules
from bootmark.services.owning.founding import Beginning
from bootmark.standins.estate import FARM, made
from bootmark.store.session import farm_session
from tests.database import catalogue
from tests.sending import REAL, envelope
from tests.services.lines import colleague
from tests.web.test_pages import F, PagesTest, mail

PASSWORD = "nine hens on a cold drum"
OTHER = "slow moths over grey barley"
PELL = made("pell@ferrin.example")


class PeopleTest(PagesTest):
    def invited(self, name: str = "Sorrel Dane", **form: Any) -> str:
        """The path of a new link."""
        page = self.post(self.client, f"{F}/people/invite", self.form() | {"name": name, "role": "scout", **form}).text
        hit = re.search(r'value="http://localhost(/join/[^"]+)"', page)
        assert hit, page
        return hit.group(1)

    def joins(self, path: str, address: str, name: str = "Sorrel Dane", password: str = PASSWORD) -> tuple[FlaskClient, Any]:
        """Somebody without an account opens a link and joins by it."""
        client = self.app.test_client()
        return client, self.post(client, path, {"name": name, "email": address, "password": password}, page=path)

    def joins_late(self, path: str) -> tuple[FlaskClient, Any]:
        """The same by a form that stood open since before."""
        client = self.app.test_client()
        form = {"name": "Late", "email": "late@ferrin.example", "password": PASSWORD}
        return client, self.post(client, path, form, page="/sign-in")

    def signed_in(self, address: str, password: str = PASSWORD) -> FlaskClient:
        client = self.app.test_client()
        self.post(client, "/sign-in", {"email": address, "password": password}, page="/sign-in")
        return client

    def second_farm(self, address: str) -> uuid.UUID:
        farm = uuid.uuid4()
        with farm_session(farm, role="owner") as session:
            founding.begin(session, farm, Beginning("Second Holding", (46.2, 7.1), "Europe/Vienna", "Arla Bent", address), lambda: PASSWORD)
        return farm


class Links(PeopleTest):
    def test_a_stranger_joins_by_a_link_once_and_is_what_the_link_says(self) -> None:
        path = self.invited(role="applicator")
        self.assertIn("Ilva Torren", self.app.test_client().get(path).text)
        client, answer = self.joins(path, "first@ferrin.example")
        self.assertEqual(answer.headers["Location"], f"{F}/round")
        self.assertEqual(client.get(f"{F}/round").status_code, 200)
        self.assertIn("applicator", client.get(f"{F}/farm").text)
        self.assertEqual(client.get(f"{F}/settings").status_code, 403)
        _, answer = self.joins_late(path)
        self.assertEqual((answer.status_code, "it serves once" in answer.text), (404, True))
        self.assertNotIn("late@ferrin.example", self.client.get(f"{F}/people").text)

    def test_pressed_twice_it_is_one_link_and_it_is_shown_only_there(self) -> None:
        form = self.form() | {"name": "Sorrel Dane", "role": "viewer"}
        first, again = (self.post(self.client, f"{F}/people/invite", form).text for _ in range(2))
        self.assertEqual(re.findall(r"/join/[\w-]+", first), re.findall(r"/join/[\w-]+", again))
        page = self.client.get(f"{F}/people").text
        self.assertIn("Links that are out", page)
        self.assertNotIn("/join/", page)
        with farm_session(FARM) as session:
            told = str(session.execute(text("SELECT payload FROM invitation_version")).all())
        self.assertNotIn(re.findall(r"/join/([\w-]+)", first)[0], told)

    def test_withdrawn_ended_and_unknown_links_say_so(self) -> None:
        path = self.invited("Away Soon")
        with farm_session(FARM) as session:
            row = session.execute(text("SELECT id, command_id FROM invitation WHERE name = 'Away Soon'")).one()
        form = self.form(row.command_id) | {"record_id": str(row.id), "name": "Away Soon", "role": "scout", "withdrawn": "yes"}
        self.post(self.client, f"{F}/people/invitation/withdraw", form)
        self.assertIn("was withdrawn", self.app.test_client().get(path).text)
        self.assertNotIn("Away Soon", self.client.get(f"{F}/people").text)
        old = self.invited("Too Late")
        with farm_session(FARM) as session:
            session.execute(text("UPDATE invitation SET ends_at = now() - interval '1 minute' WHERE name = 'Too Late'"))
        answer = self.app.test_client().get(old)
        self.assertEqual((answer.status_code, "has ended" in answer.text), (404, True))
        self.assertIn("no such link", self.app.test_client().get("/join/nobody-made-this").text)

    def test_many_links_that_nobody_made_are_slowed_down(self) -> None:
        client, path = self.app.test_client(), self.invited()
        answers = [client.get(f"/join/guess-{number}", environ_base={"REMOTE_ADDR": "10.9.9.9"}).text for number in range(40)]
        self.assertIn("Too many tries", answers[-1])
        self.assertIn("Too many tries", client.get(path, environ_base={"REMOTE_ADDR": "10.9.9.9"}).text)
        self.assertEqual(client.get(path).status_code, 200)

    def test_a_link_for_one_address_serves_no_other(self) -> None:
        path = self.invited(email="Wanted@Ferrin.Example")
        _, answer = self.joins(path, "other@ferrin.example")
        self.assertEqual((answer.status_code, "is for wanted@ferrin.example" in answer.text), (400, True))
        _, answer = self.joins(path, "wanted@ferrin.example")
        self.assertEqual(answer.status_code, 302)

    def test_who_has_an_account_signs_in_and_comes_back_and_a_member_leaves_the_link_for_others(self) -> None:
        farm = self.second_farm("arla@second.example")
        path = self.invited()
        _, answer = self.joins(path, "arla@second.example")
        self.assertIn("has an account already", answer.text)
        client = self.app.test_client()
        form = {"email": "arla@second.example", "password": PASSWORD, "to": path}
        self.assertEqual(self.post(client, "/sign-in", form, page="/sign-in").headers["Location"], path)
        member = self.enter("scout")
        self.assertEqual(self.post(member, path, {}, page=path).status_code, 302)
        self.assertEqual(self.post(client, path, {}, page=path).headers["Location"], f"{F}/round")
        page = client.get("/").text
        self.assertTrue("Second Holding" in page and "Ferrin Vale" in page)
        self.assertEqual(self.client.get(f"/f/{farm}/round").status_code, 404)

    def test_passwords_of_the_new_are_held_to_the_rules_and_what_was_typed_stays(self) -> None:
        path = self.invited()
        _, answer = self.joins(path, "weak@ferrin.example", name="Rue Ashby", password="password1234567")
        self.assertEqual(answer.status_code, 400)
        self.assertTrue("guessed early" in answer.text and "Rue Ashby" in answer.text)
        self.assertEqual(self.app.test_client().get(path).status_code, 200)


class Terms(PeopleTest):
    def save(self, account: uuid.UUID, client: FlaskClient | None = None, base: Any = "", **form: Any) -> Any:
        return self.post(
            client or self.client, f"{F}/people/{account}", self.form(base) | {"record_id": str(account), "role": "viewer", **form}
        )

    def test_a_new_role_holds_at_once(self) -> None:
        account = colleague("viewer")
        self.assertEqual(self.save(account, role="adviser").status_code, 302)
        with farm_session(FARM) as session:
            row = session.execute(text("SELECT role FROM membership WHERE account_id = :id"), {"id": account}).one()
        self.assertEqual(row.role, "adviser")

    def test_a_certificate_has_an_end_that_is_to_come_and_what_was_typed_stays(self) -> None:
        account, yesterday = colleague(), dt.date(2026, 6, 17)
        answer = self.save(account, role="applicator", qualified="yes", certificate="K 17", certificate_until=yesterday.isoformat())
        self.assertEqual(answer.status_code, 400)
        self.assertTrue("ended on" in answer.text and "K 17" in answer.text and "2026-06-17" in answer.text)
        self.assertIn("Give the day", self.save(account, role="applicator", qualified="yes").text)
        self.assertEqual(self.save(account, role="applicator", qualified="yes", certificate_until="2027-06-17").status_code, 302)

    def test_whose_certificate_has_ended_is_qualified_no_more(self) -> None:
        client = self.enter("applicator")
        account = made(mail("applicator"))

        def is_qualified() -> bool:
            with farm_session(None) as session:
                row = session.execute(text("SELECT qualified FROM bm_enter(:token, :farm, now())"), {"farm": FARM, "token": token}).one()
                return bool(row.qualified)

        client.get(f"{F}/round")
        with farm_session(None, role="owner") as session:
            token = session.execute(
                text("SELECT token_hash FROM sign_in_session WHERE account_id = :id ORDER BY made_at DESC LIMIT 1"), {"id": account}
            ).scalar_one()
        self.assertTrue(is_qualified())
        for until, wanted in (("2026-01-01", False), ("2999-01-01", True)):
            with farm_session(FARM) as session:
                session.execute(
                    text("UPDATE membership SET certificate_until = :until WHERE account_id = :id"), {"until": until, "id": account}
                )
            self.assertEqual(is_qualified(), wanted, until)

    def test_who_has_left_comes_in_no_more_and_what_they_did_keeps_the_name(self) -> None:
        path = self.invited("Briar Holt")
        client, _ = self.joins(path, "briar@ferrin.example", "Briar Holt")
        with farm_session(FARM) as session:
            account = session.execute(text("SELECT id FROM bm_people() WHERE name = 'Briar Holt'")).scalar_one()
        self.assertEqual(self.save(account, ended="yes").status_code, 302)
        self.assertEqual(client.get(f"{F}/round").status_code, 404)
        page = self.client.get(f"{F}/people").text
        self.assertTrue("Were here" in page and "Briar Holt" in page)
        self.assertIn("belongs to no farm", client.get("/").text)
        again = self.invited("Briar Holt", role="viewer")
        self.assertEqual(self.post(client, again, {}, page=again).status_code, 302)
        self.assertEqual(client.get(f"{F}/round").status_code, 200)

    def test_whoever_is_no_owner_changes_nobody_and_may_leave(self) -> None:
        viewer = self.enter("viewer")
        for path, form in (
            (f"{F}/people/invite", {"name": "X", "role": "owner"}),
            (f"{F}/people/{PELL}", {"record_id": str(PELL), "role": "owner"}),
            (f"{F}/people/{PELL}/reset", {}),
            (f"{F}/settings", {"record_id": str(FARM), "name": "Mine"}),
        ):
            self.assertEqual(self.post(viewer, path, self.form() | form).status_code, 403, path)
        scout = made(mail("scout"))
        form = self.form() | {"record_id": str(scout), "role": "scout", "ended": "yes"}
        self.assertIn("takes owner", self.post(viewer, f"{F}/people/leave", form).text)
        form = self.form() | {"record_id": str(PELL), "role": "owner", "ended": "yes"}
        self.assertEqual(self.post(viewer, f"{F}/people/leave", form).status_code, 302)
        self.assertEqual(viewer.get(f"{F}/round").status_code, 404)

    def test_a_farm_keeps_an_owner(self) -> None:
        owner = made(mail("owner"))
        for change in ({"role": "viewer"}, {"role": "owner", "ended": "yes"}):
            answer = self.save(owner, **change)
            self.assertEqual((answer.status_code, "last owner" in answer.text), (400, True))

    def test_two_owners_who_end_each_other_at_the_same_moment_leave_one(self) -> None:
        for _ in range(4):
            owners = [colleague("owner"), colleague("owner")]
            start = threading.Barrier(2)

            def ends(writer: uuid.UUID, other: uuid.UUID, start: threading.Barrier = start) -> str:
                start.wait()
                member = Member(writer, FARM, "Ferrin Vale", Role.OWNER, False)
                command = envelope("member.save", {"role": "owner", "ended": True}, other)
                return str(writing.sync(FARM, member, catalogue, [command], REAL)[0]["status"])

            with ThreadPoolExecutor(2) as pool:
                answers = sorted(pool.map(ends, owners, reversed(owners)))
            self.assertEqual(answers, ["refused", "stored"])


class Apart(PeopleTest):
    """The owner of one farm can't reach another through somebody who is on both."""

    def reset_link(self, account: uuid.UUID) -> str:
        page = self.post(self.client, f"{F}/people/{account}/reset", {}).text
        hit = re.search(r'value="http://localhost(/reset/[^"]+)"', page)
        return hit.group(1) if hit else ""

    def test_a_link_for_a_password_serves_once_and_signs_out_everywhere(self) -> None:
        client, _ = self.joins(self.invited("Rowan Lisle"), "rowan@ferrin.example", "Rowan Lisle")
        with farm_session(FARM) as session:
            account = session.execute(text("SELECT id FROM bm_people() WHERE name = 'Rowan Lisle'")).scalar_one()
        first, path = self.reset_link(account), self.reset_link(account)
        stranger = self.app.test_client()
        self.assertEqual(self.post(stranger, path, {"password": "short"}, page=path).status_code, 400)
        self.assertEqual(self.post(stranger, path, {"password": OTHER}, page=path).status_code, 302)
        self.assertEqual(client.get(f"{F}/round").status_code, 302)
        for used in (first, path):
            self.assertIn("serves no more", self.app.test_client().get(used).text)
        self.assertEqual(self.signed_in("rowan@ferrin.example", OTHER).get(f"{F}/round").status_code, 200)

    def test_none_is_made_for_an_account_on_two_farms_and_one_made_before_dies(self) -> None:
        farm = self.second_farm("both@second.example")
        with farm_session(None) as session:
            account = session.execute(text("SELECT id FROM bm_sign_in('both@second.example')")).scalar_one()
        path = self.invited()
        client = self.signed_in("both@second.example")
        self.post(client, path, {}, page=path)
        self.assertEqual(self.reset_link(account), "")
        self.assertIn("on another farm too", self.post(self.client, f"{F}/people/{account}/reset", {}).text)
        self.assertEqual(self.client.get(f"/f/{farm}/farm").status_code, 404)
        lone, _ = self.joins(self.invited("Later Both"), "later@ferrin.example", "Later Both")
        with farm_session(FARM) as session:
            later = session.execute(text("SELECT id FROM bm_people() WHERE name = 'Later Both'")).scalar_one()
        early = self.reset_link(later)
        self.assertTrue(early)
        with farm_session(farm, role="owner") as session:
            session.execute(
                text("INSERT INTO membership (farm_id, account_id, role, qualified) VALUES (:farm, :id, 'adviser', false)"),
                {"farm": farm, "id": later},
            )
        self.assertIn("serves no more", self.app.test_client().get(early).text)
        self.assertEqual(lone.get(f"/f/{farm}/round").status_code, 200)

    def test_ending_a_membership_touches_no_other_farm(self) -> None:
        farm = self.second_farm("wide@second.example")
        path = self.invited()
        client = self.signed_in("wide@second.example")
        self.post(client, path, {}, page=path)
        with farm_session(None) as session:
            account = session.execute(text("SELECT id FROM bm_sign_in('wide@second.example')")).scalar_one()
        form = self.form() | {"record_id": str(account), "role": "scout", "ended": "yes"}
        self.post(self.client, f"{F}/people/{account}", form)
        self.assertEqual(client.get(f"{F}/round").status_code, 404)
        self.assertEqual(client.get(f"/f/{farm}/round").status_code, 200)

    def test_a_stranger_to_the_farm_can_t_be_written_about(self) -> None:
        self.second_farm("far@second.example")
        with farm_session(None) as session:
            account = session.execute(text("SELECT id FROM bm_sign_in('far@second.example')")).scalar_one()
        form = self.form() | {"record_id": str(account), "role": "viewer"}
        self.assertEqual(self.post(self.client, f"{F}/people/{account}", form).status_code, 404)
        answer = writing.sync(
            FARM,
            Member(made(mail("owner")), FARM, "", Role.OWNER, True),
            catalogue,
            [envelope("member.save", {"role": "viewer"}, account)],
            REAL,
        )
        self.assertEqual(answer[0]["status"], "refused")


class Names(unittest.TestCase):
    def test_what_can_t_be_seen_is_refused_and_every_script_is_taken(self) -> None:
        for name in ("Ada\u200b", "\u202eadA", "A\u2066b", "\ufeffAda", "A\u0007"):
            self.assertTrue(rules.unseen(name), ascii(name))
            self.assertIn("person", founding.person_errors(name, "a@b.example"))
        for name in ("Ada Lorne", "\u05d0\u05d3\u05d4", "\u0645\u06cc\u200c\u062e\u0648", "\u5c71\u7530", "O\u2019Hara-Lind"):
            self.assertEqual(founding.person_errors(name, "a@b.example"), {}, name)
        for name in ("", "  ", "\u200d", "x" * 10_000):
            self.assertIn("person", founding.person_errors(name, "a@b.example"))

    def test_a_token_is_another_for_each_command_purpose_and_secret(self) -> None:
        tokens = {links.token_of(purpose, command, secret) for purpose in "ab" for command in "cd" for secret in "ef"}
        self.assertEqual(len(tokens), 8)
        self.assertTrue(all(len(token) == 43 for token in tokens))
