"""One owner for each cluster: a second is refused, a copy is its own, and what was killed leaves nothing locked."""

import os
import shutil
import signal
import subprocess
import sys
import tempfile
import time
import unittest
from pathlib import Path

from bootmark.launch import cluster, owner
from bootmark.launch.say import ROOT, Stop

HOLD = """
import sys, time
from pathlib import Path
from bootmark.launch import owner
owner.claim(Path(sys.argv[1]))
print("mine", flush=True)
time.sleep(60)
"""


class Owner(unittest.TestCase):
    def setUp(self) -> None:
        self.outer = Path(tempfile.mkdtemp())
        self.addCleanup(shutil.rmtree, self.outer)

    def hold(self, folder: Path) -> "subprocess.Popen[str]":
        env = dict(os.environ, PYTHONPATH=str(ROOT / "src"))
        process = subprocess.Popen([sys.executable, "-c", HOLD, str(folder)], env=env, stdout=subprocess.PIPE, text=True)
        assert process.stdout
        self.assertEqual(process.stdout.readline(), "mine\n")
        self.addCleanup(process.stdout.close)
        self.addCleanup(process.wait)
        self.addCleanup(process.kill)
        return process

    def test_a_second_is_refused_in_words_with_who_holds_it(self) -> None:
        first = self.hold(self.outer / "postgres")
        with self.assertRaises(Stop) as caught:
            owner.claim(self.outer / "postgres", wait=0.2)
        self.assertIn(f"already runs here (process {first.pid})", str(caught.exception))

    def test_another_folder_is_another_s(self) -> None:
        self.hold(self.outer / "postgres")
        os.close(owner.claim(self.outer / "copy", wait=0))

    def test_what_was_killed_holds_nothing(self) -> None:
        self.hold(self.outer / "postgres").send_signal(signal.SIGKILL)
        os.close(owner.claim(self.outer / "postgres", wait=5))

    def test_a_folder_that_is_removed_and_made_anew_stays_ours(self) -> None:
        folder = self.outer / "postgres"
        folder.mkdir()
        self.hold(folder)
        cluster.remove(folder)
        folder.mkdir()
        with self.assertRaises(Stop):
            owner.claim(folder, wait=0)


class Copies(unittest.TestCase):
    def test_a_copy_of_a_cluster_runs_beside_it_and_touches_nothing_of_it(self) -> None:
        with cluster.throw_away() as original, tempfile.TemporaryDirectory() as folder:
            Path(folder).chmod(0o755)
            copy_of = Path(folder) / "postgres"
            shutil.copytree(original.folder, copy_of)
            if os.geteuid() == 0:
                subprocess.run(["chown", "-R", "postgres:postgres", str(copy_of)], check=True)
            copy = cluster.Cluster(copy_of, original.port, original.passwords, durable=False)
            lock = owner.claim(copy_of)
            try:
                with cluster.running(copy, lock):
                    self.assertNotEqual(copy.port, original.port)
                    self.assertTrue(original.answers())
                self.assertFalse(copy.answers())
                self.assertTrue(original.answers())
            finally:
                os.close(lock)

    def test_what_a_killed_command_left_is_swept_and_what_runs_is_not(self) -> None:
        left = Path(tempfile.mkdtemp(prefix=cluster.THROW_AWAY))
        (left / "postgres.owner").touch()
        with cluster.throw_away() as kept:
            cluster.sweep()
            self.assertFalse(left.exists())
            self.assertTrue(kept.answers())
            gone = kept.folder
        self.assertFalse(gone.exists())

    def test_a_database_ends_with_the_process_that_started_it(self) -> None:
        program = (
            "import time; from bootmark.launch import cluster\nwith cluster.throw_away() as c: print(c.port, flush=True); time.sleep(60)"
        )
        env = dict(os.environ, PYTHONPATH=str(ROOT / "src"))
        process = subprocess.Popen([sys.executable, "-c", program], env=env, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True)
        assert process.stdout
        port = int(process.stdout.readline())
        process.kill()
        process.wait()
        process.stdout.close()
        limit = time.monotonic() + 10
        while cluster.port_taken(port) and time.monotonic() < limit:
            time.sleep(0.05)
        self.assertFalse(cluster.port_taken(port), "the database outlived its owner")
