"""A great many odd calls on a copy of the demo, half of them good: ./bootmark bench nonsense [CALLS]."""

import sys
import time

from tests import database
from tests.services import calls


def main() -> None:
    database.clone()
    count, started = int(sys.argv[1]) if len(sys.argv) > 1 else 50_000, time.monotonic()
    run = calls.run(count)
    print(f"{run.calls} calls in {time.monotonic() - started:.0f} s: {run.lost} good ones lost, {len(run.lines)} errors in the log")
    print(", ".join(f"{status} {number}" for status, number in run.statuses.most_common()))
    for line in run.lines[:5]:
        print(line)


if __name__ == "__main__":
    main()
