"""The shapes of a message's words: one sentence, one for each number, or one for each value of a fact."""

from collections.abc import Mapping
from dataclasses import dataclass


@dataclass(frozen=True)
class Many:
    """A sentence in the singular and in the plural. of: the fact that is counted."""

    of: str
    singular: str
    plural: str


@dataclass(frozen=True)
class By:
    """A sentence for each value of a fact; any: where the value is none of them."""

    fact: str
    each: Mapping[str, "Text"]
    any: "Text" = ""


Text = str | Many | By
"""A `str` holds fields such as {days}, {on:day} or {agent:in_sentence}: a fact's name, and how it is written (see tongue.py)."""
