"""A real installation on a database of its own: where it keeps things, what it tells whom, and the way out and in again."""

import contextlib
import os
import re
import shutil
import signal
import subprocess
import tempfile
import time
import unittest
import urllib.request
from collections.abc import Iterator
from pathlib import Path
from unittest import mock

from bootmark.launch import cluster, installation, packages
from bootmark.launch.cluster import Cluster
from bootmark.launch.say import ROOT, Stop

CLEAN = {name: value for name, value in os.environ.items() if not name.startswith("BOOTMARK_")}


class Said(unittest.TestCase):
    def test_half_the_settings_are_named(self) -> None:
        with mock.patch.dict(os.environ, CLEAN, clear=True):
            self.assertFalse(installation.is_set())
        with mock.patch.dict(os.environ, CLEAN | {"BOOTMARK_SECRET": "x"}, clear=True), self.assertRaises(Stop) as caught:
            installation.is_set()
        self.assertIn("BOOTMARK_WEB_URL, BOOTMARK_OWNER_URL, BOOTMARK_WORKER_URL is not set", str(caught.exception))
        with mock.patch.dict(os.environ, CLEAN | dict.fromkeys(installation.SETTINGS, "x"), clear=True):
            self.assertTrue(installation.is_set())

    def test_data_stand_outside_the_checkout(self) -> None:
        with mock.patch.dict(os.environ, CLEAN | {"BOOTMARK_DATA": "~/farms"}, clear=True):
            self.assertEqual(installation.folder(), Path.home() / "farms")
        for user in (0, 1000):
            with mock.patch.dict(os.environ, CLEAN, clear=True), mock.patch("os.geteuid", return_value=user):
                self.assertFalse(installation.folder().is_relative_to(ROOT))

    def test_codes_are_read_out_and_differ(self) -> None:
        codes = {installation.code() for _ in range(200)}
        self.assertEqual(len(codes), 200)
        self.assertTrue(all(re.fullmatch(r"[A-HJ-NP-Z2-9]{5}-[A-HJ-NP-Z2-9]{5}", code) for code in codes))

    def test_web_and_workers_are_not_told_what_gets_past_the_wall(self) -> None:
        env = {f"BOOTMARK_{role}_{what}": "x" for role in ("ADMIN", "OWNER", "BACKUP", "WEB", "WORKER") for what in ("URL", "PASSWORD")}
        env |= {"BOOTMARK_BACKUPS": "/x", "PATH": "/bin"}
        kept = installation.for_children(env)
        self.assertEqual({name.split("_")[1] for name in kept if name.startswith("BOOTMARK")}, {"WEB", "WORKER", "BACKUPS"})

    def test_a_database_of_a_version_that_is_not_here_is_left_alone(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            made = Cluster(Path(folder), 1, dict.fromkeys(cluster.ROLES, "x"))
            made.data.mkdir()
            (made.data / "PG_VERSION").write_text("9\n")
            made.save()
            with self.assertRaises(Stop) as caught:
                cluster.lasting(Path(folder), installation.REMEDY)
            self.assertIn("PostgreSQL 9, which is not installed; nothing was changed", str(caught.exception))
            self.assertIn("backup", str(caught.exception))
            here = packages.postgres_bin()
            assert here
            (made.data / "PG_VERSION").write_text(here.parent.name)
            self.assertEqual(cluster.lasting(Path(folder)).programs(), here)


class Lives(unittest.TestCase):
    """Started, spoken to, copied, and filled anew, by the commands that its keeper types."""

    def setUp(self) -> None:
        self.outer = Path(tempfile.mkdtemp(prefix=f"{cluster.THROW_AWAY}farms-"))
        self.outer.chmod(0o755)
        self.addCleanup(shutil.rmtree, self.outer, ignore_errors=True)

    def env(self, folder: str) -> dict[str, str]:
        return CLEAN | {"BOOTMARK_DATA": str(self.outer / folder)}

    def run_it(self, folder: str, *words: str, typed: str = "") -> tuple[int, str]:
        done = subprocess.run([str(ROOT / "bootmark"), *words], env=self.env(folder), input=typed, capture_output=True, text=True)
        return done.returncode, done.stdout + done.stderr

    @contextlib.contextmanager
    def served(self, folder: str) -> Iterator[tuple[str, str]]:
        """The installation while it runs: its address and what it said."""
        port, said = cluster.free_port(), self.outer / "said"
        with said.open("w") as out:
            process = subprocess.Popen(
                [str(ROOT / "bootmark"), "serve"],
                env=self.env(folder) | {"BOOTMARK_HOST": f"127.0.0.1:{port}", "BOOTMARK_WEB_PROCESSES": "1", "BOOTMARK_WORKERS": "1"},
                stdout=out,
                stderr=out,
            )
        try:
            limit = time.monotonic() + 90
            while "Ctrl-C stops it" not in said.read_text() and process.poll() is None and time.monotonic() < limit:
                time.sleep(0.1)
            yield f"http://127.0.0.1:{port}", said.read_text()
        finally:
            process.send_signal(signal.SIGTERM)
            process.wait(30)

    def test_from_nothing_to_a_farm_to_a_copy_and_back(self) -> None:
        new = (
            "farm",
            "new",
            "Upper Holding",
            "--at",
            "46.2,7.1",
            "--zone",
            "Europe/Vienna",
            "--owner",
            "Ada",
            "--mail",
            "ada@upper.example",
        )
        with self.served("one") as (address, said):
            self.assertRegex(said, r"\n    [A-Z2-9]{5}-[A-Z2-9]{5}\n")
            self.assertIn(f"{address}/begin", said)
            with urllib.request.urlopen(f"{address}/sign-in", timeout=60) as answer:
                self.assertTrue(answer.url.endswith("/begin"))
            code, told = self.run_it("one", "serve")
            self.assertEqual((code, "set BOOTMARK_DATA to another folder" in told), (1, True), told)
            self.assertEqual(self.run_it("one", *new, typed="nine hens on a cold drum\n")[0], 0)
            lower = (*new[:2], "Lower Holding", *new[3:-1], "bo@lower.example")
            self.assertEqual(self.run_it("one", *lower, typed="slow moths over grey barley\n")[0], 0)
            self.assertIn("Upper Holding", self.run_it("one", "farm", "list")[1])
        kept = str(self.outer / "one" / "backups" / "copy.dump")
        self.assertEqual(self.run_it("one", "backup", kept)[0], 0)
        code, told = self.run_it("one", "backup", kept)
        self.assertEqual((code, "left as it is" in told), (1, True), told)
        code, told = self.run_it("one", "restore", kept)
        self.assertEqual((code, "has accounts already" in told), (1, True), told)
        listed = re.search(r"(\S+)  Lower Holding", self.run_it("one", "farm", "list")[1])
        assert listed
        self.assertEqual(self.run_it("one", "farm", "close", listed.group(1), typed="Lower Holding\n")[0], 0)
        self.assertEqual(self.run_it("one", "farm", "erase", "bo@lower.example", typed="bo@lower.example\n")[0], 0)
        spoilt = self.outer / "spoilt.dump"
        spoilt.write_bytes(Path(kept).read_bytes()[:2000])
        code, told = self.run_it("two", "restore", str(spoilt))
        self.assertEqual((code, "can't be restored" in told), (1, True), told)
        self.assertIn("No farm yet", self.run_it("two", "farm", "list")[1])
        code, told = self.run_it("two", "restore", kept)
        self.assertEqual((code, "1 who were erased" in told), (0, True), told)
        farms = self.run_it("two", "farm", "list")[1]
        self.assertRegex(farms, "Lower Holding: 0 in all, owned by nobody")
        self.assertNotIn("bo@lower.example", farms)
        with self.served("two") as (_, said):
            self.assertNotIn("type this code", said)
            self.assertIn("ada@upper.example", said)
