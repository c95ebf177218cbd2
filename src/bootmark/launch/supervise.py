"""Run several programs as one: start in order, start again what ends by itself, stop all when Ctrl-C or a signal comes."""

import contextlib
import datetime as dt
import os
import shutil
import signal
import subprocess
import time
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from pathlib import Path
from types import FrameType

from bootmark.launch import child
from bootmark.launch.child import Program
from bootmark.launch.say import step

GRACE_SECONDS = 8.0
FIRST_PAUSE, LONGEST_PAUSE = 0.25, 10.0
STEADY_SECONDS = 3.0
"""A program that has run so long is taken for well: its next end is its first."""
LOOK_SECONDS = 0.1
MOST_LOG_BYTES, OLD_LOGS = 5_000_000, 4
LOG_LOOK_SECONDS = 5.0


@dataclass
class Child:
    """A program as it runs now. hold: why it must not be started yet, empty where it may."""

    program: Program
    hold: Callable[[], str]
    process: subprocess.Popen[bytes]
    started: float
    ends: int = 0
    start_at: float = 0.0
    held: str = ""


def pause(ends: int) -> float:
    """Seconds before a program that ended so often in a row is started again: doubled each time, ten seconds at the most."""
    return float(min(FIRST_PAUSE * 2 ** (min(ends, 12) - 1), LONGEST_PAUSE))


def nothing_holds() -> str:
    return ""


class Supervisor:
    """Programs that end are started again, a word about it is logged, and none outlives us."""

    def __init__(self, logs: Path) -> None:
        self.logs = logs
        self.children: dict[str, Child] = {}
        self.stopping = False
        self.next_log_look = 0.0
        with contextlib.suppress(OSError):
            logs.mkdir(parents=True, exist_ok=True)

    def log(self, name: str) -> Path:
        return self.logs / f"{name}.log"

    def run(self, program: Program, hold: Callable[[], str] = nothing_holds) -> subprocess.Popen[bytes]:
        process = child.start(program)
        self.children[program.name] = Child(program, hold, process, time.monotonic())
        return process

    def ended(self) -> str | None:
        return next((name for name, each in self.children.items() if each.process.poll() is not None), None)

    def say(self, words: str) -> None:
        """A word in the log and on the terminal; a full disk keeps nobody from being started."""
        with contextlib.suppress(OSError):
            step(words)
        with contextlib.suppress(OSError):
            log = child.open_log(self.log("supervisor"))
            try:
                os.write(log, f"{dt.datetime.now(dt.UTC).isoformat(timespec='seconds')} {words}\n".encode())
            finally:
                os.close(log)

    def look(self) -> None:
        """Start again what has ended, when its pause is over."""
        for name, each in self.children.items():
            now = time.monotonic()
            if each.process.poll() is None:
                continue
            if not each.start_at:
                each.ends = 1 if now - each.started > STEADY_SECONDS else each.ends + 1
                each.start_at = now + pause(each.ends)
                self.say(f"{name} ended ({_how(each.process)}): it is started again in {pause(each.ends):g} s")
            elif now >= each.start_at:
                self._start_again(name, each)
        if time.monotonic() >= self.next_log_look:
            self.next_log_look = time.monotonic() + LOG_LOOK_SECONDS
            for log in [*self.logs.glob("*.log"), *{each.program.log for each in self.children.values()}]:
                with contextlib.suppress(OSError):
                    turn_over(log)

    def _start_again(self, name: str, each: Child) -> None:
        held = each.hold()
        if held:
            if not each.held:
                self.say(f"{name} waits: {held}")
            each.held, each.start_at = held, time.monotonic() + 1
            return
        if each.held:
            self.say(f"{name} goes on")
        try:
            each.process = child.start(each.program)
        except OSError as error:
            self.say(f"{name} could not be started ({error})")
            each.ends += 1
            each.start_at = time.monotonic() + pause(each.ends)
            return
        each.started, each.start_at, each.held = time.monotonic(), 0.0, ""

    def wait(self) -> None:
        """Until Ctrl-C or a signal."""
        while not self.stopping:
            self.look()
            time.sleep(LOOK_SECONDS)

    def stop(self) -> None:
        """In the opposite order, each with the signal that ends it in good order; all but the first started end together."""
        children = list(self.children.values())
        for each in children[1:]:
            child.ask_to_end(each.program, each.process)
        limit = time.monotonic() + GRACE_SECONDS
        for each in children[1:]:
            child.wait_or_kill(each.process, limit - time.monotonic())
        for each in children[:1]:
            child.ask_to_end(each.program, each.process)
            child.wait_or_kill(each.process, GRACE_SECONDS)

    @contextlib.contextmanager
    def until_told(self) -> Iterator[None]:
        def end(_number: int, _frame: FrameType | None) -> None:
            self.stopping = True

        before = {number: signal.signal(number, end) for number in (signal.SIGINT, signal.SIGTERM, signal.SIGHUP)}
        try:
            yield
        finally:
            self.stop()
            for number, handler in before.items():
                signal.signal(number, handler)


def _how(process: subprocess.Popen[bytes]) -> str:
    code = process.returncode
    return f"signal {-code}" if code < 0 else f"code {code}"


def turn_over(log: Path) -> None:
    """Begin a log anew where it has grown long; a few old ones are kept. Who writes into it appends, and goes on writing."""
    if not log.exists() or log.stat().st_size <= MOST_LOG_BYTES:
        return
    for number in range(OLD_LOGS - 1, 0, -1):
        older = log.with_suffix(f".log.{number}")
        if older.exists():
            older.replace(log.with_suffix(f".log.{number + 1}"))
    shutil.copyfile(log, log.with_suffix(".log.1"))
    log.with_suffix(".log.1").chmod(0o600)
    os.truncate(log, 0)
