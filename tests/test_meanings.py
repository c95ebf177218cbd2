"""What may be said is an enumeration, and rules compare its members: never words, and never parts of a sentence."""

import ast
import tempfile
import unittest
from collections.abc import Iterator
from pathlib import Path

SRC = Path(__file__).resolve().parents[1] / "src" / "bootmark"
MEANINGS = {"activity", "biofix", "kind", "measure", "often", "role", "state", "status", "verdict", "what"}
"""Names of what holds a member of an enumeration."""
SENTENCES = {"advice", "headline", "reason", "said", "sentence", "text", "why"}
"""Names of what holds a sentence."""
NOT_OURS = {"launch", "standins", "drawing"}
APART = {
    ("services/base/command.py", "wrong"): "pydantic's own word for a fault",
    ("core/catalogue/check.py", "look-alikes"): "a heading of the report that ./bootmark catalogue prints",
    ("store/session.py", "web"): "a role of the database, not of a person",
    ("web/count/route.py", "measure"): "the name of a form's field",
    **{("services/base/fields.py", word): "what a form sends for a tick" for word in ("yes", "on", "true")},
    ("services/base/fields.py", "\x00"): "a letter that no database keeps",
}


def compared(path: Path) -> Iterator[tuple[str, str]]:
    """Name and word of each comparison of a name with a word, and of each search of a word in a name."""
    for node in ast.walk(ast.parse(path.read_text())):
        if not isinstance(node, ast.Compare):
            continue
        sides = [node.left, *node.comparators]
        words = [part.value for side in sides for part in ast.walk(side) if isinstance(part, ast.Constant) and isinstance(part.value, str)]
        for side in sides:
            name = side.attr if isinstance(side, ast.Attribute) else side.id if isinstance(side, ast.Name) else ""
            if isinstance(side, ast.Subscript) and isinstance(side.slice, ast.Constant):
                name = str(side.slice.value)
                words = [word for word in words if word != name]
            for word in words:
                if name and word:
                    yield name, word


def sentences(path: Path) -> Iterator[str]:
    """Texts of three words and more that are no docstring and are not raised."""
    tree = ast.parse(path.read_text())
    apart = {id(node.value) for node in ast.walk(tree) if isinstance(node, ast.Expr)}
    raised = {id(part) for node in ast.walk(tree) if isinstance(node, ast.Raise) for part in ast.walk(node)}
    for node in ast.walk(tree):
        words = node.value if isinstance(node, ast.Constant) and isinstance(node.value, str) else ""
        # A type in quotes is no sentence.
        if len(words.split()) > 2 and "|" not in words and id(node) not in apart | raised:
            yield words


class Meanings(unittest.TestCase):
    def found(self, names: set[str]) -> list[str]:
        return [
            f"{path.relative_to(SRC)}: {name} and {word!r}"
            for path in sorted(SRC.rglob("*.py"))
            if not NOT_OURS & set(path.relative_to(SRC).parts)
            for name, word in compared(path)
            if name in names and (str(path.relative_to(SRC)), word) not in APART
        ]

    def test_no_rule_compares_words(self) -> None:
        self.assertEqual(self.found(MEANINGS), [])

    def test_no_rule_searches_a_sentence(self) -> None:
        self.assertEqual(self.found(SENTENCES), [])

    def test_no_rule_makes_a_sentence(self) -> None:
        """What a rule has to say is a value: the words stand in `say`. What it raises is for whoever calls it wrongly."""
        made = [
            f"{path.relative_to(SRC)}: {words}"
            for folder in ("core/field", "core/season")
            for path in sorted((SRC / folder).rglob("*.py"))
            for words in sentences(path)
        ]
        self.assertEqual(made, [])

    def test_it_finds_what_it_looks_for(self) -> None:
        probe = SRC / "core" / "meanings.py"
        self.assertEqual(list(compared(probe)), [])
        tree = "if verdict.kind == 'named' or 'more' in reason.text or row['state'] in ('planned',): pass"
        path = Path(self.enterContext(tempfile.TemporaryDirectory())) / "x.py"
        path.write_text(tree)
        self.assertEqual(list(compared(path)), [("kind", "named"), ("text", "more"), ("state", "planned")])
