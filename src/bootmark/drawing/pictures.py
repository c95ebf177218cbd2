"""Pictures that never change: SVG files, whose groups are parts that can be shown apart. Colours of the interface are its variables."""

import functools
import re
from pathlib import Path

FOLDER = Path(__file__).parent / "pictures"
GROUP = re.compile(r'^  <g id="([\w-]+)">$(.*?)^  </g>$', re.MULTILINE | re.DOTALL)


@functools.cache
def parts(name: str) -> dict[str, str]:
    """The groups at the top of a picture by their ids, back to front. Raises FileNotFoundError."""
    return {id: " ".join(body.split()) for id, body in GROUP.findall((FOLDER / f"{name}.svg").read_text())}
