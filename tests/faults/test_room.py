"""A disk without room: it is said, nothing that was acknowledged is lost, and all goes on when there is room again."""

import os
import subprocess
import tempfile
import unittest
import urllib.error
from pathlib import Path

from bootmark.launch import cluster
from tests.faults import stream
from tests.faults.stand import Scout, stand, stop_command

MEGABYTES = 420


@unittest.skipUnless(os.geteuid() == 0, "a small disk of its own takes root")
class Full(unittest.TestCase):
    def setUp(self) -> None:
        self.disk = Path(tempfile.mkdtemp(prefix=cluster.THROW_AWAY))
        mounted = subprocess.run(
            ["mount", "-t", "tmpfs", "-o", f"size={MEGABYTES}m,mode=755", "tmpfs", str(self.disk)], capture_output=True
        )
        if mounted.returncode:
            self.skipTest("this machine mounts no small disk")
        self.addCleanup(subprocess.run, ["umount", "-l", str(self.disk)], capture_output=True)

    def fill(self) -> Path:
        """Take what room there is; the file that holds it."""
        ballast = self.disk / "ballast"
        with ballast.open("wb", buffering=0) as file:
            try:
                while file.write(b"x" * 65_536):
                    pass
            except OSError:
                pass
        return ballast

    def test_a_full_disk_is_told_and_all_goes_on_when_there_is_room(self) -> None:
        with stand(self.disk) as here:
            scout, acknowledged = Scout(here.address), []
            refused = set[str]()
            ballast = self.fill()
            for n in range(120):
                command = stop_command(stream.BLOCK, f"full {n} " + "x" * 40)
                try:
                    status = scout.sync([command])[0]["status"]
                except urllib.error.HTTPError as error:
                    status = str(error.code)
                    self.assertIn(error.code, (503, 401), error.read().decode()[:300])
                except OSError:
                    status = "no answer"
                if status == "stored":
                    acknowledged.append(command["record_id"])
                refused.add(status)
            # A full disk was met, and told as something that passes.
            self.assertTrue(refused - {"stored"})
            self.assertLessEqual(refused - {"stored"}, {"again", "503", "no answer"})
            # The postmaster itself, without room to start again: it waits, says why, and does not try in vain.
            here.kill("database")
            here.until(lambda: "database waits: only" in here.log())
            self.assertIn("database", here.health())
            panics = here.cluster.log.read_text(errors="replace").count("PANIC")
            ballast.unlink()
            here.until(lambda: here.health() == "ok\n")
            self.assertLessEqual(here.cluster.log.read_text(errors="replace").count("PANIC"), panics + 1)
            self.assertIn("database goes on", here.log())
            self.assertEqual(scout.sync([stop_command(stream.BLOCK, "room again")])[0]["status"], "stored")
            with here.admin() as connection:
                there = connection.execute("SELECT count(*) FROM stop WHERE id = ANY(%s::uuid[])", (acknowledged,)).fetchone()
            self.assertEqual(there, (len(acknowledged),))
            self.assertNotIn("a request failed", here.log())
