"""The version of the rules follows the core's sources: whatever is mended there, what was reckoned before is made anew."""

import shutil
import tempfile
import unittest
from pathlib import Path

from bootmark import core


class Engine(unittest.TestCase):
    def test_it_is_the_same_for_the_same_sources_and_another_once_one_of_them_changes(self) -> None:
        here = Path(core.__file__).parent
        with tempfile.TemporaryDirectory() as folder:
            copy = Path(folder) / "core"
            shutil.copytree(here, copy, ignore=shutil.ignore_patterns("__pycache__"))
            self.assertEqual(core.digest(copy), core.ENGINE)
            model = copy / "season" / "phenology.py"
            model.write_text(model.read_text() + "SLOWER = 2\n")
            mended = core.digest(copy)
            self.assertNotEqual(mended, core.ENGINE)
            (copy / "season" / "new.py").write_text("")
            self.assertNotEqual(core.digest(copy), mended)
