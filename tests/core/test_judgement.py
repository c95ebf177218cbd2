"""What somebody judged stands in one package, each number with its unit, its reason and its date, and nowhere between the rules."""

import ast
import re
import unittest
from pathlib import Path

from bootmark.core import judgement

JUDGED = Path(judgement.__file__).parent
HERE = JUDGED.parent
SAYS = re.compile(r"^[^.]+\. .+\.\s(Judgement|Common practice|Tried in bench),\s\d{4}-\d\d-\d\d\.$", re.DOTALL)
SUMS = {"count.py", "degree_days.py", "weather.py", "rates.py", "network.py", "soybean.py", "ahead.py", "stopping.py", "points.py"}
"""Files whose numbers are those of a published formula or of how a sum is done."""
NEUTRAL = {0.0, 0.5, 1.0, 2.0}


def numbers(path: Path) -> list[str]:
    """Fractions that are written inside functions, with their lines; next to nothing only keeps a sum from dividing by nought."""
    tree = ast.parse(path.read_text())
    functions = [node for node in ast.walk(tree) if isinstance(node, ast.FunctionDef)]
    inside = (part for function in functions for part in ast.walk(function) if isinstance(part, ast.Constant))
    return [
        f"{path.name}:{part.lineno} {part.value}"
        for part in inside
        if isinstance(part.value, float) and part.value not in NEUTRAL and part.value > 1e-3
    ]


class Judgements(unittest.TestCase):
    def test_each_number_says_its_unit_its_reason_and_since_when(self) -> None:
        names: list[str] = []
        for path in sorted(JUDGED.glob("*.py")):
            body = [node for node in ast.parse(path.read_text()).body[1:] if not isinstance(node, ast.ImportFrom)]
            for assignment, words in zip(body[::2], body[1::2], strict=True):
                assert isinstance(assignment, ast.Assign)
                names += [part.id for part in ast.walk(assignment.targets[0]) if isinstance(part, ast.Name)]
                text = words.value.value if isinstance(words, ast.Expr) and isinstance(words.value, ast.Constant) else ""
                with self.subTest(number=ast.unparse(assignment)):
                    self.assertRegex(str(text), SAYS)
        self.assertGreater(len(names), 150)
        self.assertEqual(sorted(names), sorted(set(names)), "two parts give a number the same name")
        self.assertLessEqual(set(names), set(vars(judgement)), "a part that the package does not show")

    def test_none_stands_between_the_rules(self) -> None:
        files = [path for folder in ("field", "season") for path in sorted((HERE / folder).glob("*.py")) if path.name not in SUMS]
        self.assertGreater(len(files), 20)
        self.assertEqual([number for path in files for number in numbers(path)], [])
