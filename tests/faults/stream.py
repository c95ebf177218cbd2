"""A stream of records while things are killed: what was acknowledged is written down here, outside the server, and compared at the end."""

import random
import threading
import time
from collections import Counter
from dataclasses import dataclass, field

from bootmark.standins.estate import FARM, made
from tests.faults.stand import Scout, Stand, stop_command

BLOCK = made("Tunnel 1")
VICTIMS = ("web-1", "web-2", "worker", "database", "backend")
SENDERS = 3


@dataclass
class Stream:
    """Senders that send one record after the other, each again and again until it is acknowledged, as a phone's outbox does."""

    stand: Stand
    acknowledged: set[str] = field(default_factory=set)
    failures: int = 0
    in_flight: int = 0
    statuses: Counter[str] = field(default_factory=Counter)

    def __post_init__(self) -> None:
        self.lock = threading.Lock()
        self.ended = threading.Event()
        scouts = [Scout(self.stand.address) for _ in range(SENDERS)]
        self.threads = [threading.Thread(target=self._send, args=(scout,), daemon=True) for scout in scouts]

    def start(self) -> None:
        for thread in self.threads:
            thread.start()

    def end(self) -> None:
        """Let each sender have its last record acknowledged."""
        self.ended.set()
        for thread in self.threads:
            thread.join(60)
            assert not thread.is_alive(), "a sender got no answer for a minute"

    def _send(self, scout: Scout) -> None:
        sent = 0
        while not self.ended.is_set():
            sent += 1
            command = stop_command(BLOCK, f"row {sent}")
            while True:
                with self.lock:
                    self.in_flight += 1
                try:
                    status = scout.sync([command])[0]["status"]
                except OSError:
                    status = "no answer"
                finally:
                    with self.lock:
                        self.in_flight -= 1
                with self.lock:
                    self.statuses[status] += 1
                    if status == "stored":
                        self.acknowledged.add(command["record_id"])
                if status == "stored":
                    break
                time.sleep(0.05)


@dataclass(frozen=True)
class Told:
    """What came of it. lost: acknowledged and not there; doubled: there more than once; in_flight: kills that met a request;
    longest: seconds until all was well again."""

    kills: int
    in_flight: int
    acknowledged: int
    lost: int
    doubled: int
    longest: float
    statuses: Counter[str]


def run(stand: Stand, kills: int, seed: int = 11) -> Told:
    """Kill one program after the other in the middle of a stream, each time as soon as all is well."""
    rng, stream, met, longest = random.Random(seed), Stream(stand), 0, 0.0
    stream.start()
    for number in range(kills):
        time.sleep(rng.uniform(0.02, 0.3))
        met += stream.in_flight > 0
        before = len(stream.acknowledged)
        stand.kill(VICTIMS[number % len(VICTIMS)])
        longest = max(longest, stand.until(lambda b=before: len(stream.acknowledged) > b and stand.health() == "ok\n", 60))  # type: ignore[misc]
    stream.end()
    with stand.admin() as connection:
        rows = connection.execute("SELECT record_id::text, count(*) FROM stop_version WHERE farm_id = %s GROUP BY 1", (FARM,)).fetchall()
    there: dict[str, int] = dict(rows)
    lost = sum(record not in there for record in stream.acknowledged)
    doubled = sum(there.get(record, 0) > 1 for record in stream.acknowledged)
    return Told(kills, met, len(stream.acknowledged), lost, doubled, longest, stream.statuses)
