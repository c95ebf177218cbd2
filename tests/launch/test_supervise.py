"""Programs that end are started again, and none outlives whoever supervises."""

import os
import signal
import subprocess
import sys
import tempfile
import time
import unittest
from collections.abc import Callable
from pathlib import Path

from bootmark.launch import supervise
from bootmark.launch.child import Program
from bootmark.launch.say import ROOT
from bootmark.launch.supervise import Supervisor

SLEEP = (sys.executable, "-c", "import time; time.sleep(60)")
TEAM = """
import sys
from pathlib import Path
from bootmark.launch.child import Program
from bootmark.launch.supervise import Supervisor
supervisor = Supervisor(Path(sys.argv[1]))
with supervisor.until_told():
    for name in ("one", "two"):
        process = supervisor.run(Program(name, (sys.executable, "-c", "import time; time.sleep(60)"), {}, Path("/"), supervisor.log(name)))
        print(process.pid, flush=True)
    supervisor.wait()
"""


def until(holds: Callable[[], bool], seconds: float = 10) -> bool:
    limit = time.monotonic() + seconds
    while not holds() and time.monotonic() < limit:
        time.sleep(0.02)
    return holds()


def lives(pid: int) -> bool:
    try:
        return Path(f"/proc/{pid}/stat").read_text().rpartition(")")[2].split()[0] != "Z"
    except OSError:
        return False


class Supervision(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.logs = Path(folder.name)
        self.supervisor = Supervisor(self.logs)
        self.addCleanup(self.supervisor.stop)

    def program(self, name: str, command: tuple[str, ...] = SLEEP) -> Program:
        return Program(name, command, os.environ, ROOT, self.supervisor.log(name))

    def look_until(self, holds: Callable[[], bool], seconds: float = 10) -> bool:
        def looked() -> bool:
            self.supervisor.look()
            return holds()

        return until(looked, seconds)

    def words(self) -> str:
        return (self.logs / "supervisor.log").read_text()

    def test_what_is_killed_is_started_again_with_a_word_in_the_log(self) -> None:
        first = self.supervisor.run(self.program("sleeper"))
        first.kill()
        self.assertTrue(self.look_until(lambda: self.supervisor.children["sleeper"].process is not first))
        self.assertIsNone(self.supervisor.children["sleeper"].process.poll())
        self.assertIn("sleeper ended (signal 9): it is started again in 0.25 s", self.words())

    def test_what_ends_again_and_again_is_started_more_and_more_slowly(self) -> None:
        self.supervisor.run(self.program("quitter", (sys.executable, "-c", "raise SystemExit(3)")))
        self.assertTrue(self.look_until(lambda: self.words_of(3)))
        self.assertIn("(code 3): it is started again in 0.25 s", self.words())
        self.assertIn("in 0.5 s", self.words())
        self.assertIn("in 1 s", self.words())
        pauses = [supervise.pause(ends) for ends in range(1, 30)]
        self.assertEqual(pauses, sorted(pauses))
        self.assertEqual(pauses[-1], supervise.LONGEST_PAUSE)

    def words_of(self, ends: int) -> bool:
        log = self.logs / "supervisor.log"
        return log.exists() and log.read_text().count("quitter ended") >= ends

    def test_what_has_no_room_waits_is_said_once_and_goes_on(self) -> None:
        why = ["only 1 MB is free: make room"]
        first = self.supervisor.run(self.program("database"), lambda: why[0])
        first.kill()
        child = self.supervisor.children["database"]
        self.assertTrue(self.look_until(lambda: bool(child.held)))
        self.assertFalse(self.look_until(lambda: child.process is not first, seconds=2.5))
        self.assertEqual(self.words().count("waits: only 1 MB"), 1)
        why[0] = ""
        self.assertTrue(self.look_until(lambda: child.process is not first))
        self.assertIn("database goes on", self.words())

    def test_a_log_that_grows_long_begins_anew_and_only_its_user_reads_it(self) -> None:
        # It speaks again as soon as its log has begun anew.
        wait = "\nwhile os.fstat(1).st_size: time.sleep(0.01)\n"
        talk = f"import os, time; print('x' * {supervise.MOST_LOG_BYTES}, flush=True){wait}print('after', flush=True); time.sleep(60)"
        self.supervisor.run(self.program("talker", (sys.executable, "-c", talk)))
        log = self.logs / "talker.log"
        self.assertTrue(until(lambda: log.exists() and log.stat().st_size > supervise.MOST_LOG_BYTES))
        self.supervisor.next_log_look = 0
        self.supervisor.look()
        self.assertTrue(until(lambda: log.read_text() == "after\n"))
        older = self.logs / "talker.log.1"
        self.assertGreater(older.stat().st_size, supervise.MOST_LOG_BYTES)
        self.assertEqual((log.stat().st_mode & 0o777, older.stat().st_mode & 0o777), (0o600, 0o600))

    def test_a_folder_for_logs_that_can_t_be_made_keeps_nobody_from_running(self) -> None:
        blocked = Supervisor(Path("/proc/no/logs"))
        self.addCleanup(blocked.stop)
        process = blocked.run(Program("sleeper", SLEEP, os.environ, ROOT, blocked.log("sleeper")))
        blocked.say("a word that is lost")
        blocked.look()
        self.assertIsNone(process.poll())

    def test_none_outlives_whoever_supervises(self) -> None:
        for number in (signal.SIGTERM, signal.SIGHUP, signal.SIGINT, signal.SIGKILL):
            env = dict(os.environ, PYTHONPATH=str(ROOT / "src"))
            team = subprocess.Popen([sys.executable, "-c", TEAM, str(self.logs)], env=env, stdout=subprocess.PIPE, text=True)
            assert team.stdout
            pids = [int(team.stdout.readline()) for _ in range(2)]
            self.assertTrue(all(lives(pid) for pid in pids))
            team.send_signal(number)
            team.wait(timeout=20)
            team.stdout.close()
            self.assertTrue(until(lambda pids=pids: not any(lives(pid) for pid in pids), 5), f"orphans after {number.name}")
