"""A digest of what the committed style is built from, so that a test can tell when it has to be built anew."""

import hashlib
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
STYLE = ROOT / "src" / "bootmark" / "web" / "static" / "app.css"
NOTE = ROOT / "assets" / "built.sha256"


def digest() -> str:
    """Of the style's source, every template that names its classes, and the style itself."""
    sources = [
        ROOT / "assets" / "app.css",
        *sorted((ROOT / "assets" / "style").glob("*.css")),
        *sorted((ROOT / "src" / "bootmark" / "web").rglob("*.html")),
        STYLE,
    ]
    return hashlib.sha256(b"\0".join(path.read_bytes() for path in sources)).hexdigest()


if __name__ == "__main__":
    NOTE.write_text(digest() + "\n")
