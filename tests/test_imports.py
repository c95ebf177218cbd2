"""Imports run one way, and nothing below the edge reads the clock of the machine."""

import os
import re
import subprocess
import sys
import unittest
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
SRC = ROOT / "src" / "bootmark"
# The worker is an edge as the interface is: it reads the clock and hands it in.
EDGES = {SRC / "services" / "worker.py"}


class Imports(unittest.TestCase):
    def test_contracts_hold(self) -> None:
        # A process of its own: the linter reconfigures logging.
        command = [str(Path(sys.executable).with_name("lint-imports")), "--config", str(ROOT / "pyproject.toml")]
        done = subprocess.run(command, capture_output=True, text=True, cwd=ROOT, env={**os.environ, "PYTHONPATH": str(ROOT / "src")})
        self.assertEqual(done.returncode, 0, done.stdout)

    def test_the_field_imports_the_standard_library_only(self) -> None:
        allowed = re.compile(r"^(from|import) (bootmark\.core\.(types|catalogue|field|__init__)|bootmark\.core import|[a-z_]+( |\.|$))")
        banned = re.compile(r"^(from|import) (numpy|scipy|shapely|astral|PIL|flask|sqlalchemy)")
        for path in (SRC / "core" / "field").glob("*.py"):
            for line in path.read_text().splitlines():
                if line.startswith(("from ", "import ")):
                    self.assertRegex(line, allowed, path.name)
                    self.assertNotRegex(line, banned, path.name)


class Clock(unittest.TestCase):
    def test_core_and_services_are_told_the_time(self) -> None:
        for folder in ("core", "services", "store", "formats"):
            for path in (SRC / folder).rglob("*.py"):
                if path not in EDGES:
                    for number, line in enumerate(path.read_text().splitlines(), 1):
                        self.assertNotRegex(line, r"datetime\.now\(|date\.today\(|utcnow\(|time\.time\(", f"{path.name}:{number}")
