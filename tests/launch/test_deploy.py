"""The unit files for servers name what is there, and restart what ends."""

import configparser
import re
import shutil
import subprocess
import tempfile
import unittest
from pathlib import Path

from bootmark.launch.__main__ import parser
from bootmark.launch.say import ROOT

UNITS = sorted((ROOT / "deploy").glob("*.service"))


def unit(path: Path) -> configparser.ConfigParser:
    read = configparser.ConfigParser(strict=True, interpolation=None)
    read.optionxform = str  # type: ignore[assignment, method-assign]
    read.read(path)
    return read


class Units(unittest.TestCase):
    def test_each_runs_a_command_that_is_there_as_its_own_user_and_is_restarted(self) -> None:
        self.assertEqual([path.name for path in UNITS], ["bootmark-worker.service", "bootmark.service"])
        for path in UNITS:
            service = unit(path)["Service"]
            program, command = service["ExecStart"].split()
            self.assertEqual(program, "/opt/bootmark/bootmark")
            self.assertTrue(parser().parse_args([command]).action, command)
            self.assertEqual((service["Restart"], service["User"], service["UMask"]), ("always", "bootmark", "0077"))
            self.assertEqual(unit(path)["Unit"]["StartLimitIntervalSec"], "0")

    def test_its_settings_are_those_that_the_page_about_running_names(self) -> None:
        manual = (ROOT / "docs" / "running.md").read_text()
        settings = re.findall(r"^(BOOTMARK_\w+)=", (ROOT / "deploy" / "bootmark.env.example").read_text(), re.M)
        self.assertTrue(settings)
        for setting in settings:
            self.assertIn(f"`{setting}`", manual)

    def test_systemd_itself_finds_nothing_wrong(self) -> None:
        tool = shutil.which("systemd-analyze")
        if tool is None:
            self.skipTest("systemd is not on this machine")
        with tempfile.TemporaryDirectory() as folder:
            for path in UNITS:
                copy = Path(folder) / path.name
                copy.write_text(path.read_text().replace("/opt/bootmark", str(ROOT)))
                done = subprocess.run([tool, "verify", "--man=no", str(copy)], capture_output=True, text=True)
                self.assertNotRegex(done.stderr, r"Unknown (key|section|lvalue)|Failed to parse", done.stderr)
