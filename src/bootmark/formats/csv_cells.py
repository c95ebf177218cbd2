"""Cells of a CSV file that a spreadsheet opens: each is text, and none is run."""

from collections.abc import Iterable

RUN = ("=", "+", "-", "@", "\t", "\r", "\n", "\uff1d", "\uff0b", "\uff0d", "\uff20")
"""What makes a spreadsheet take a cell for a formula, also in the wide forms that some read alike."""


def as_text(cells: Iterable[object]) -> list[str]:
    """The cells as texts; one that begins like a formula gets an apostrophe before it. A number stays a number."""
    texts = ("" if cell is None else str(cell) for cell in cells)
    return [f"'{text}" if text.lstrip(" ").startswith(RUN) and not _number(text) else text for text in texts]


def _number(text: str) -> bool:
    try:
        float(text.replace(",", "."))
    except ValueError:
        return False
    return True
