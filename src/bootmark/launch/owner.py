"""Who owns a cluster's folder: a lock of the kernel's, which goes with the last process that holds it."""

import fcntl
import os
import time
from pathlib import Path

from bootmark.launch.say import Stop

WAIT_SECONDS = 5.0
"""A database that is shutting down holds its lock for a moment longer."""


def lock_beside(folder: Path) -> Path:
    """The lock stands beside the folder, so that it outlasts a folder that is removed and made anew."""
    return folder.parent / f"{folder.name}.owner"


def claim(folder: Path, wait: float = WAIT_SECONDS, second: str = "copy this folder to another place") -> int:
    """Make this process the owner of a folder; the descriptor of the lock. second: how another is run beside it.

    Raises Stop where another process is it.
    """
    folder.parent.mkdir(parents=True, exist_ok=True)
    lock = os.open(lock_beside(folder), os.O_RDWR | os.O_CREAT, 0o600)
    limit = time.monotonic() + wait
    while True:
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
            break
        except BlockingIOError:
            if time.monotonic() > limit:
                owner = os.pread(lock, 20, 0).decode(errors="replace").strip()
                os.close(lock)
                raise Stop(
                    f"Bootmark already runs here (process {owner or 'unknown'}): use it, or stop it with Ctrl-C first. "
                    f"For a second one, {second}."
                ) from None
            time.sleep(0.1)
    os.ftruncate(lock, 0)
    os.pwrite(lock, str(os.getpid()).encode(), 0)
    return lock
