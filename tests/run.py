"""Runs test modules in several processes: each takes the next module as soon as it is done with one.

Run with ./bootmark test; python -m tests.run --fast is the core alone, without a database.
"""

import io
import multiprocessing
import os
import sys
import time
import unittest
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
PROCESSES = 2
FAST = ("tests.core.", "tests.say.")
ALONE = "tests.faults."
"""Kills and full disks are timed: nothing else runs beside them."""
LONG_FIRST = ("tests.browser.", "tests.web.", "tests.services.", "tests.outside.", "tests.core.test_season", "tests.core.", "tests.say.")


@dataclass(frozen=True)
class Outcome:
    """What came of one module. report: what failed, in unittest's own words."""

    module: str
    seconds: float
    ran: int
    failures: int
    errors: int
    skipped: int
    report: str


def modules() -> list[str]:
    """Every test module, those that take longest first, so that none is left alone at the end."""
    names = [".".join(path.relative_to(ROOT).with_suffix("").parts) for path in sorted((ROOT / "tests").rglob("test_*.py"))]
    place = {start: n for n, start in enumerate(LONG_FIRST)}
    return sorted(names, key=lambda name: min((n for start, n in place.items() if name.startswith(start)), default=len(place)))


def run(module: str) -> Outcome:
    started = time.monotonic()
    stream = io.StringIO()
    suite = unittest.defaultTestLoader.loadTestsFromName(module)
    result = unittest.TextTestRunner(stream=stream, verbosity=0).run(suite)
    failures = len(result.failures) + len(result.unexpectedSuccesses)
    report = "" if result.wasSuccessful() else stream.getvalue()
    return Outcome(module, time.monotonic() - started, result.testsRun, failures, len(result.errors), len(result.skipped), report)


def outcomes_of(names: list[str], processes: int) -> Iterator[Outcome]:
    """What came of each module, told as it comes."""
    with multiprocessing.get_context("spawn").Pool(processes) as pool:
        for outcome in pool.imap_unordered(run, names, chunksize=1):
            state = "ok" if not outcome.report else "FAILED"
            print(f"{outcome.module:44} {outcome.ran:4} tests {outcome.seconds:7.1f} s  {state}", flush=True)
            if outcome.report:
                print(outcome.report, flush=True)
            yield outcome


def main(words: list[str]) -> int:
    fast = "--fast" in words
    wanted = [name for name in modules() if name.startswith(FAST)] if fast else modules()
    started = time.monotonic()
    if not fast:
        from tests import database

        # One template for all processes: each clones it.
        os.environ[database.SHARED_TEMPLATE] = database.template()
    together, alone = ([name for name in wanted if name.startswith(ALONE) == apart] for apart in (False, True))
    outcomes = [*outcomes_of(together, PROCESSES), *outcomes_of(alone, 1)]
    failures, errors = sum(each.failures for each in outcomes), sum(each.errors for each in outcomes)
    print(f"\nRan {sum(each.ran for each in outcomes)} tests in {time.monotonic() - started:.1f}s in {PROCESSES} processes\n")
    if failures or errors:
        print(f"FAILED (failures={failures}, errors={errors})")
        return 1
    skipped = sum(each.skipped for each in outcomes)
    print(f"OK{f' (skipped={skipped})' if skipped else ''}")
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
