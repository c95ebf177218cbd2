"""Small wrongs put into the rules of calls and counts, one at a time: which of them no test notices.

Run with ./bootmark bench mutants [FILE ...], of core/field; call.py and count.py unless told otherwise. Prints those that lived, by line.
"""

import ast
import concurrent.futures
import os
import shutil
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
FIELD = Path("bootmark/core/field")
TESTS = (
    "tests.core.test_call",
    "tests.core.test_count",
    "tests.core.test_edges",
    "tests.core.test_helpers",
    "tests.core.test_levels",
    "tests.core.test_overruled",
    "tests.core.test_safety",
    "tests.core.test_spots",
    "tests.core.test_stand",
    "tests.core.test_stopping",
    "tests.outside.test_decisions",
)
SWAPPED: dict[type[ast.cmpop], type[ast.cmpop]] = {
    ast.Lt: ast.LtE, ast.LtE: ast.Lt, ast.Gt: ast.GtE, ast.GtE: ast.Gt, ast.Eq: ast.NotEq, ast.NotEq: ast.Eq,
    ast.Is: ast.IsNot, ast.IsNot: ast.Is, ast.In: ast.NotIn, ast.NotIn: ast.In,
}  # fmt: skip


def wrongs(source: str) -> Iterator[tuple[int, str, str]]:
    """Every wrong that is tried on a module: its line, what it was, and the module with it."""
    number = 0
    while True:
        tree = ast.parse(source)
        sites = [node for node in ast.walk(tree) if isinstance(node, ast.Compare | ast.BoolOp | ast.UnaryOp | ast.BinOp | ast.IfExp)]
        if number >= len(sites):
            return
        node, was = sites[number], ast.unparse(sites[number])
        number += 1
        if isinstance(node, ast.Compare):
            node.ops[0] = SWAPPED[type(node.ops[0])]()
        elif isinstance(node, ast.BoolOp):
            node.op = ast.Or() if isinstance(node.op, ast.And) else ast.And()
        elif isinstance(node, ast.UnaryOp) and isinstance(node.op, ast.Not):
            node.op = ast.UAdd()
        elif isinstance(node, ast.BinOp) and isinstance(node.op, ast.Add | ast.Sub):
            node.op = ast.Sub() if isinstance(node.op, ast.Add) else ast.Add()
        elif isinstance(node, ast.IfExp):
            node.body, node.orelse = node.orelse, node.body
        else:
            continue
        yield node.lineno, was, ast.unparse(tree)


def lives(name: str, wrong: str, tests: tuple[str, ...] = TESTS) -> bool:
    """Whether all tests pass with a wrong in a module."""
    with tempfile.TemporaryDirectory() as folder:
        copied = Path(folder) / "src"
        shutil.copytree(ROOT / "src", copied, ignore=shutil.ignore_patterns("static", "__pycache__"))
        (copied / FIELD / name).write_text(wrong)
        command = [sys.executable, "-m", "unittest", "-f", *tests]
        environment = os.environ | {"PYTHONPATH": str(copied), "PYTHONDONTWRITEBYTECODE": "1"}
        return subprocess.run(command, cwd=ROOT, env=environment, capture_output=True, timeout=600).returncode == 0


def main() -> None:
    names = sys.argv[1:] or ["call.py", "count.py"]
    tried = [(name, *wrong) for name in names for wrong in wrongs((ROOT / "src" / FIELD / name).read_text())]
    if not lives(names[0], (ROOT / "src" / FIELD / names[0]).read_text()):
        sys.exit("The tests fail without any wrong.")
    with concurrent.futures.ThreadPoolExecutor(os.cpu_count()) as workers:
        lived = list(workers.map(lambda row: lives(row[0], row[3]), tried))
    for (name, line, was, _), alive in zip(tried, lived, strict=True):
        if alive:
            print(f"{name}:{line}: {was}")
    print(f"{sum(lived)} of {len(tried)} lived")


if __name__ == "__main__":
    main()
