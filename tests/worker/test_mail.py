"""Letters that carry a link, handed to a mail server: what they say, and that no token stands anywhere else."""

import os
import re
from typing import Any, ClassVar
from unittest import mock

from aiosmtpd.controller import Controller
from sqlalchemy import text

from bootmark.launch.cluster import free_port
from bootmark.services.base import queue
from bootmark.services.owning import post
from bootmark.standins.estate import FARM, PASSWORD
from bootmark.store.session import farm_session
from bootmark.worker import tasks
from tests.web.test_pages import F, mail
from tests.web.test_people import PeopleTest

FRESH = "slow moths over grey barley"


class Box:
    """What the mail server took."""

    letters: ClassVar[list[tuple[str, str]]] = []

    async def handle_DATA(self, _server: Any, _session: Any, envelope: Any) -> str:
        words = envelope.content.decode("utf-8", "replace").replace("=\r\n", "").replace("=3D", "=")
        self.letters.append((envelope.rcpt_tos[0], words))
        return "250 taken"


class Letters(PeopleTest):
    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        server = Controller(Box(), hostname="127.0.0.1", port=free_port())
        server.start()
        cls.addClassCleanup(server.stop)
        settings = {
            post.SERVER: f"smtp://127.0.0.1:{server.port}",
            post.FROM: "bootmark@upper.example",
            post.ADDRESS: "http://localhost/",
            "BOOTMARK_SECRET": os.environ["BOOTMARK_SECRET"],
        }
        patch = mock.patch.dict(os.environ, settings)
        patch.start()
        cls.addClassCleanup(patch.stop)

    def setUp(self) -> None:
        super().setUp()
        Box.letters.clear()

    def work(self, task: str) -> list[dict[str, Any]]:
        """Do what waits of a task, as the worker does; the arguments that stood in the queue."""
        with farm_session(None, role="owner") as session:
            rows = session.execute(text("DELETE FROM procrastinate_jobs WHERE task_name = :task RETURNING args"), {"task": task}).scalars()
            waiting = list(rows)
        do: dict[str, Any] = {queue.MAIL_INVITATION: tasks.mail_invitation, queue.MAIL_RESET: tasks.mail_reset}
        for args in waiting:
            do[task](**args)
        return waiting

    def link(self, what: str) -> str:
        hit = re.search(rf"http://localhost(/{what}/[\w-]+)", Box.letters[-1][1])
        assert hit, Box.letters
        return hit.group(1)

    def test_an_invitation_goes_by_mail_and_its_link_joins(self) -> None:
        path = self.invited("Juniper Rook", email="juniper@upper.example")
        queued = self.work(queue.MAIL_INVITATION)
        self.assertEqual([set(args) for args in queued], [{"farm_id", "invitation_id"}])
        self.assertEqual(Box.letters[0][0], "juniper@upper.example")
        self.assertIn("you are asked to join Ferrin Vale as scout", Box.letters[0][1])
        self.assertEqual(self.link("join"), path)
        _, answer = self.joins(self.link("join"), "juniper@upper.example", "Juniper Rook")
        self.assertEqual(answer.status_code, 302)

    def test_without_an_address_and_of_a_link_that_is_withdrawn_nothing_goes(self) -> None:
        self.invited("No Address")
        self.assertEqual(self.work(queue.MAIL_INVITATION), [])
        self.invited("Gone Again", email="gone@upper.example")
        with farm_session(FARM) as session:
            session.execute(text("UPDATE invitation SET withdrawn = true WHERE name = 'Gone Again'"))
        self.work(queue.MAIL_INVITATION)
        self.assertEqual(Box.letters, [])

    def test_a_forgotten_password_is_set_by_the_link_that_came_by_mail_on_however_many_farms(self) -> None:
        self.second_farm(mail("scout"))
        client = self.app.test_client()
        answer = self.post(client, "/forgotten", {"email": mail("scout").upper()}, page="/forgotten")
        self.assertIn("If there is an account", answer.text)
        queued = self.work(queue.MAIL_RESET)
        self.assertEqual([set(args) for args in queued], [{"account_id", "asked_at"}])
        self.assertEqual(Box.letters[0][0], mail("scout"))
        path = self.link("reset")
        self.assertEqual(self.post(client, path, {"password": FRESH}, page=path).status_code, 302)
        self.assertEqual(self.signed_in(mail("scout"), FRESH).get(f"{F}/round").status_code, 200)
        self.assertEqual(self.signed_in(mail("scout"), PASSWORD).get(f"{F}/round").status_code, 302)

    def test_nobody_learns_who_has_an_account_and_nobody_is_flooded(self) -> None:
        client = self.app.test_client()
        answers = {
            re.sub(r'content="[^"]*"', "", self.post(client, "/forgotten", {"email": email}, page="/forgotten").text)
            for email in ("nobody@upper.example", mail("viewer"), "", "x" * 10_000)
        }
        self.assertEqual(len(answers), 1)
        for _ in range(6):
            self.post(client, "/forgotten", {"email": mail("viewer")}, page="/forgotten")
        self.assertEqual(len(self.work(queue.MAIL_RESET)), post.MOST_TO_ONE)

    def test_where_mail_is_not_set_up_it_says_whom_to_ask(self) -> None:
        with mock.patch.dict(os.environ, {post.SERVER: ""}):
            client = self.app.test_client()
            self.assertIn("Ask an owner", client.get("/forgotten").text)
            self.post(client, "/forgotten", {"email": mail("viewer")}, page="/sign-in")
        self.assertEqual(self.work(queue.MAIL_RESET), [])
