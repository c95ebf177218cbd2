"""Each process killed in the middle of a stream: nothing that was acknowledged is lost or doubled, and all is well again by itself."""

import re
import socket
import unittest
import urllib.request
from typing import ClassVar

from tests.faults import stream
from tests.faults.stand import Scout, Stand, stand, stop_command

KILLS = 50
SLOW = 90


class Kills(unittest.TestCase):
    stand: ClassVar[Stand]

    @classmethod
    def setUpClass(cls) -> None:
        cls.stand = cls.enterClassContext(stand())

    def test_fifty_kills_in_the_middle_of_a_stream(self) -> None:
        with self.stand.admin() as connection:
            for setting in ("fsync", "synchronous_commit", "full_page_writes"):
                self.assertEqual(connection.execute(f"SHOW {setting}").fetchone(), ("on",))
        run = stream.run(self.stand, KILLS)
        print(f"\n{run}")
        self.assertEqual((run.lost, run.doubled), (0, 0))
        self.assertGreater(run.acknowledged, KILLS)
        self.assertGreater(run.in_flight, KILLS / 2)
        self.assertLess(run.longest, 15)
        # What fails for a while fails as such: no unforeseen fault was met.
        self.assertNotIn("fault", run.statuses)
        self.assertNotIn("a request failed", self.stand.log())

    def test_ninety_slow_senders_hold_up_nobody(self) -> None:
        host, port = self.stand.address.removeprefix("http://").split(":")
        senders = []
        for number in range(2 * SLOW):
            sender = socket.create_connection((host, int(port)), 10)
            self.addCleanup(sender.close)
            # Half of them stop in the head, half in the middle of a body.
            body = "Content-Length: 5000\r\n\r\ncsrf_" if number % 2 else ""
            sender.sendall(f"POST /sign-in HTTP/1.1\r\nHost: here\r\nContent-Type: application/x-www-form-urlencoded\r\n{body}".encode())
            senders.append(sender)
        for _ in range(8):
            with urllib.request.urlopen(f"{self.stand.address}/healthz", timeout=1) as answer:
                self.assertEqual(answer.read(), b"ok\n")
        scout = Scout(self.stand.address)
        self.assertEqual(scout.sync([stop_command(stream.BLOCK, "beside slow senders")])[0]["status"], "stored")
        with self.stand.admin() as connection:
            idle = connection.execute("SELECT count(*) FROM pg_stat_activity WHERE state LIKE 'idle in transaction%'").fetchone()
        self.assertEqual(idle, (0,))

    def test_a_batch_that_is_cut_off_stores_nothing_and_whole_it_is_stored_once(self) -> None:
        """The connection is cut after each byte, the last times with the whole batch sent and no answer heard."""
        scout = Scout(self.stand.address)
        commands = [stop_command(stream.BLOCK, f"cut {n}") for n in range(3)]
        request = scout.as_sent(commands)
        host, port = self.stand.address.removeprefix("http://").split(":")
        for end in [*range(len(request) + 1), len(request)]:
            with socket.create_connection((host, int(port)), 10) as sender:
                sender.sendall(request[:end])
        answers = scout.sync(commands)
        self.assertEqual({answer["status"] for answer in answers}, {"stored"})
        with self.stand.admin() as connection:
            ids = [command["record_id"] for command in commands]
            rows = connection.execute(
                "SELECT count(*), count(DISTINCT record_id) FROM stop_version WHERE record_id = ANY(%s::uuid[])", (ids,)
            )
            self.assertEqual(rows.fetchone(), (3, 3))

    def test_no_token_no_password_and_no_address_stands_in_any_log(self) -> None:
        scout = Scout(self.stand.address)
        scout.get("/sign-in?next=/f/somebody@ferrin.example")
        cookies = [cookie.value for cookie in scout.jar if cookie.value]
        secrets = [*cookies, scout.token, *self.stand.cluster.passwords.values(), "walk-look-name", "@ferrin.example"]
        log = self.stand.log()
        self.assertTrue(cookies)
        self.assertEqual([secret[:6] for secret in secrets if secret in log], [])
        requests = re.findall(r'"from": "bootmark.request".*"route": "/sign-in"', log)
        self.assertTrue(requests, "requests reach the log")
        security = (self.stand.supervisor.logs / "security.log").read_text()
        self.assertIn('"event": "sign-in", "outcome": "signed in"', security)
        self.assertNotIn("bootmark.security", log.replace(security, ""))
