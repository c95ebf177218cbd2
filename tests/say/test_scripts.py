"""What scripts say by themselves: every text that one asks for is there, and none stands unused."""

import re
import unittest
from pathlib import Path

from bootmark.say import ENGLISH, scripts
from bootmark.say.text import Many

JS = Path(__file__).resolve().parents[2] / "src" / "bootmark" / "web" / "static" / "js"
OURS = [path for path in JS.rglob("*.js") if path.name not in ("alpine-csp.min.js", "idb.js")]
CODE = "\n".join(path.read_text() for path in OURS)
NAME = r'"([a-z]\w+)"'


def asked() -> set[str]:
    """Names that stand in a call of say, and those that begin with what is put together there."""
    names: set[str] = set()
    for call in re.findall(r"\bsay\(([^;]*?)\)[\],;\s)`]", CODE):
        words = set(re.findall(NAME, call.split("{")[0]))
        names |= {name for name in scripts.TEXTS for word in words if name == word or (word.endswith("_") and name.startswith(word))}
        names |= words - {word for word in words if word.endswith("_")}
    return names


class Scripts(unittest.TestCase):
    def test_every_text_that_is_asked_for_is_there(self) -> None:
        self.assertGreater(len(asked()), 20)
        self.assertEqual(asked() - set(scripts.TEXTS), set())

    def test_none_stands_unused(self) -> None:
        states = {"seen", "absent", "unsure"}
        self.assertEqual(set(scripts.TEXTS) - asked() - states, set())

    def test_a_script_makes_no_sentence_of_its_own(self) -> None:
        for path in OURS:
            code = re.sub(r"//[^\n]*|/\*.*?\*/|new Error\([^)]*\)|Error\(`[^`]*`\)", "", path.read_text(), flags=re.DOTALL)
            words = re.findall(r'"([A-Z][a-z]+ [a-z]+[^"]*)"', code)
            self.assertEqual(words, [], path.name)

    def test_what_counts_has_its_forms(self) -> None:
        texts = scripts.texts(ENGLISH)
        for name, text in scripts.TEXTS.items():
            self.assertEqual(isinstance(texts[name], dict), isinstance(text, Many), name)
        self.assertEqual(texts["later_more"], {"one": "{count} day later", "other": "{count} days later"})

    def test_no_script_leaves_anything_on_the_window(self) -> None:
        self.assertNotRegex(CODE, r"\bwindow\.\w+ *=[^=]")
        for path in OURS:
            # What is not a module would share its names with all others; filters.js is imported as one, and names nothing.
            if path.name not in ("first.js", "late.js", "filters.js"):
                self.assertRegex(path.read_text(), r"(?m)^(?:import|export) ", path.name)
