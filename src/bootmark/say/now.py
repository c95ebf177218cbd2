"""The tongue of whoever is spoken to: set by the edge that speaks (web, worker, command line), English where none is."""

import contextlib
from collections.abc import Iterator
from contextvars import ContextVar
from enum import StrEnum
from typing import Any

from bootmark.core.messages import Message
from bootmark.say.terms import TERMS
from bootmark.say.tongue import ENGLISH, Tongue

_tongue: ContextVar[Tongue] = ContextVar("tongue", default=ENGLISH)


def tongue() -> Tongue:
    return _tongue.get()


def speak(tongue: Tongue) -> None:
    """Speak so from here on, in this thread."""
    _tongue.set(tongue)


@contextlib.contextmanager
def speaking(tongue: Tongue) -> Iterator[None]:
    before = _tongue.set(tongue)
    try:
        yield
    finally:
        _tongue.reset(before)


def line(text: str, /, **facts: Any) -> str:
    """A line of the interface, in the tongue of whoever is spoken to."""
    return tongue().line(text, **facts)


def term(member: StrEnum) -> str:
    """The word for a member of an enumeration: that of `terms`, else its value."""
    return line(TERMS.get(type(member), {}).get(member, str(member)))


def many(singular: str, plural: str, of: int, /, **facts: Any) -> str:
    """A line that counts, likewise."""
    return tongue().many(singular, plural, of, **facts)


def kept(message: Message) -> dict[str, Any]:
    """A message to be stored: its text as it is shown now, in which language, and its value."""
    value = {"kind": message.kind, "direction": message.direction, "sign": message.sign, "agent": message.agent}
    return {"text": tongue().say(message), "language": tongue().language, **value, "facts": dict(message.facts)}


def shown(kept: Any) -> str:
    """The text of what was stored, as it was shown then. Before release 0.4 the text stood alone."""
    return str(kept["text"]) if isinstance(kept, dict) else " ".join(map(shown, kept)) if isinstance(kept, list) else str(kept)
