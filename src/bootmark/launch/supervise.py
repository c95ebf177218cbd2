"""Run several programs as one: start in order, stop all when one ends or Ctrl-C comes."""

import contextlib
import signal
import subprocess
import time
from collections.abc import Iterator, Mapping
from pathlib import Path
from types import FrameType

from bootmark.launch.say import Stop

GRACE_SECONDS = 8


class Supervisor:
    def __init__(self, logs: Path) -> None:
        self.logs = logs
        self.children: dict[str, subprocess.Popen[bytes]] = {}
        self.stopping = False
        logs.mkdir(parents=True, exist_ok=True)

    def run(self, name: str, command: list[str], environment: Mapping[str, str], folder: Path) -> None:
        with (self.logs / f"{name}.log").open("ab") as log:
            # A session of its own, so that Ctrl-C reaches the children once, through us.
            self.children[name] = subprocess.Popen(
                command, env=dict(environment), cwd=folder, stdout=log, stderr=log, stdin=subprocess.DEVNULL, start_new_session=True
            )

    def ended(self) -> str | None:
        return next((name for name, child in self.children.items() if child.poll() is not None), None)

    def wait(self) -> None:
        """Until Ctrl-C or SIGTERM; raises Stop where a child ended by itself."""
        while not self.stopping:
            name = self.ended()
            if name and not self.stopping:
                raise Stop(f"The {name} stopped by itself: read {self.logs / (name + '.log')}.")
            time.sleep(0.2)

    def stop(self) -> None:
        for child in reversed(self.children.values()):
            with contextlib.suppress(ProcessLookupError):
                child.terminate()
        limit = time.monotonic() + GRACE_SECONDS
        for child in self.children.values():
            try:
                child.wait(max(0.1, limit - time.monotonic()))
            except subprocess.TimeoutExpired:
                child.kill()
                child.wait()

    @contextlib.contextmanager
    def until_told(self) -> Iterator[None]:
        def told(_number: int, _frame: FrameType | None) -> None:
            self.stopping = True

        before = {number: signal.signal(number, told) for number in (signal.SIGINT, signal.SIGTERM)}
        try:
            yield
        finally:
            self.stop()
            for number, handler in before.items():
                signal.signal(number, handler)
