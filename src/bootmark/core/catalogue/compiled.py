"""A catalogue that was read once, kept as it came out, so that a process starts without reading 300 files anew.

It is kept under the hash of all that it was made from, in a folder of the user's own that nobody else may write to: what is unpickled is
only what this user wrote.
"""

import contextlib
import hashlib
import os
import pickle
import stat
import sys
import tempfile
from collections.abc import Callable, Iterable
from pathlib import Path

from bootmark.core.catalogue.model import Catalogue

SOURCES = Path(__file__).parent
CORE = SOURCES.parent
MADE_WITH = ("judgement/*.py", "meanings.py", "units.py")
"""Modules beside the catalogue's own whose values are in what is kept."""


def _folder() -> Path:
    home = os.environ.get("XDG_CACHE_HOME") or str(Path.home() / ".cache")
    return Path(home) / "bootmark"


def _key(files: Iterable[Path]) -> str:
    digest = hashlib.sha256(sys.version.encode())
    for path in (*files, *sorted(SOURCES.glob("*.py")), *(path for name in MADE_WITH for path in sorted(CORE.glob(name)))):
        digest.update(path.name.encode() + b"\0" + path.read_bytes())
    return digest.hexdigest()[:24]


def _own(path: Path) -> bool:
    """Whether nobody but this user can have written it."""
    status = path.lstat()
    return status.st_uid == os.getuid() and not status.st_mode & (stat.S_IWGRP | stat.S_IWOTH) and not stat.S_ISLNK(status.st_mode)


def kept(files: list[Path], read: Callable[[], Catalogue]) -> Catalogue:
    """The catalogue made from these files: as it was kept, or read now and kept where there is room and leave to write."""
    place = _folder() / f"catalogue-{_key(files)}.pickle"
    with contextlib.suppress(OSError, pickle.UnpicklingError, EOFError, AttributeError, ImportError, IndexError):
        if _own(place.parent) and _own(place):
            catalogue = pickle.loads(place.read_bytes())  # noqa: S301
            if isinstance(catalogue, Catalogue):
                return catalogue
    catalogue = read()
    with contextlib.suppress(OSError):
        place.parent.mkdir(mode=0o700, parents=True, exist_ok=True)
        if _own(place.parent):
            _put(place, pickle.dumps(catalogue, pickle.HIGHEST_PROTOCOL))
    return catalogue


def _put(place: Path, content: bytes) -> None:
    """Write a file whole or not at all, and let go of what was kept for other versions."""
    handle, name = tempfile.mkstemp(dir=place.parent)
    try:
        with os.fdopen(handle, "wb") as file:
            file.write(content)
        Path(name).replace(place)
    except OSError:
        Path(name).unlink(missing_ok=True)
        raise
    for old in place.parent.glob("catalogue-*.pickle"):
        if old != place:
            old.unlink(missing_ok=True)
