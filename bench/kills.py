"""Each process killed in the middle of a stream of records: ./bootmark bench kills [KILLS], a thousand unless told otherwise.

Prints how many records were acknowledged, lost and doubled, how many kills met a request in flight, and the longest recovery.
"""

import sys

from tests.faults import stream
from tests.faults.stand import stand


def main() -> None:
    kills = int(sys.argv[1]) if len(sys.argv) > 1 else 1000
    with stand() as here:
        told = stream.run(here, kills)
    print("kills  in flight  acknowledged  lost  doubled  longest recovery")
    print(f"{told.kills:5}  {told.in_flight:9}  {told.acknowledged:12}  {told.lost:4}  {told.doubled:7}  {told.longest:14.1f} s")
    print(", ".join(f"{status} {number}" for status, number in told.statuses.most_common()))


if __name__ == "__main__":
    main()
