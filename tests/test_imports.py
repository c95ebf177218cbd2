"""Imports run one way, and nothing below the edge reads the clock of the machine."""

import ast
import os
import subprocess
import sys
import unittest
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
SRC = ROOT / "src" / "bootmark"


class Imports(unittest.TestCase):
    def test_contracts_hold(self) -> None:
        # A process of its own: the linter reconfigures logging.
        command = [str(Path(sys.executable).with_name("lint-imports")), "--config", str(ROOT / "pyproject.toml")]
        done = subprocess.run(command, capture_output=True, text=True, cwd=ROOT, env={**os.environ, "PYTHONPATH": str(ROOT / "src")})
        self.assertEqual(done.returncode, 0, done.stdout)

    def test_the_field_imports_the_standard_library_only(self) -> None:
        """Every import, wherever it stands in a file: the same Python is meant to run in the phone's browser."""
        ours = (
            "bootmark.core",
            "bootmark.core.meanings",
            "bootmark.core.messages",
            "bootmark.core.types",
            "bootmark.core.catalogue",
            "bootmark.core.field",
            "bootmark.core.units",
        )
        rooms = ("bootmark.core.field.", "bootmark.core.catalogue.")
        for folder, inner in (("core/field", rooms), ("core/catalogue", rooms), ("say", ("bootmark.say", *rooms))):
            for path in (SRC / folder).glob("*.py"):
                for name in imported(path):
                    inside = name in ours or name.startswith(inner)
                    self.assertTrue(inside or name.split(".")[0] in sys.stdlib_module_names, f"{path.name} imports {name}")


def imported(path: Path) -> set[str]:
    """The modules that a file imports, at its top or further down."""
    names: set[str] = set()
    for node in ast.walk(ast.parse(path.read_text())):
        if isinstance(node, ast.Import):
            names |= {alias.name for alias in node.names}
        elif isinstance(node, ast.ImportFrom):
            names.add(node.module or "")
    return names


class Clock(unittest.TestCase):
    def test_core_and_services_are_told_the_time(self) -> None:
        for folder in ("core", "services", "store", "formats"):
            for path in (SRC / folder).rglob("*.py"):
                for number, line in enumerate(path.read_text().splitlines(), 1):
                    self.assertNotRegex(line, r"datetime\.now\(|date\.today\(|utcnow\(|time\.time\(", f"{path.name}:{number}")
