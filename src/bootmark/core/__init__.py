"""Rules and computation. No interface and no database code in here."""

import hashlib
from pathlib import Path

_HERE = Path(__file__).parent


def digest(folder: Path = _HERE) -> str:
    """A hash of every module under a folder, in the order of their names."""
    content = hashlib.sha256()
    for name, path in sorted((path.relative_to(folder).as_posix(), path) for path in folder.rglob("*.py")):
        content.update(name.encode() + b"\0" + path.read_bytes() + b"\0")
    return content.hexdigest()[:12]


ENGINE = digest()
"""Version of the rules: pinned by every decision, so that its working can be shown for ever. A mended model makes what is stored stale."""
