"""Each process killed in the middle of a stream of records: ./bootmark bench kills [KILLS], a thousand unless told otherwise.

Prints how many records were acknowledged, lost and doubled, how many kills met a request in flight, and the longest recovery.
"""

import sys

from tests.faults import stream
from tests.faults.stand import stand


def main() -> None:
    kills = int(sys.argv[1]) if len(sys.argv) > 1 else 1000
    with stand() as here:
        run = stream.run(here, kills)
    print("kills  in flight  acknowledged  lost  doubled  longest recovery")
    print(f"{run.kills:5}  {run.in_flight:9}  {run.acknowledged:12}  {run.lost:4}  {run.doubled:7}  {run.longest:14.1f} s")
    print(", ".join(f"{status} {number}" for status, number in run.statuses.most_common()))


if __name__ == "__main__":
    main()
