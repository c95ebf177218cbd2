"""The ways in which measures, days and numbers can be written, as a form offers them."""

from bootmark import say
from bootmark.services.base.preferences import WAYS

TITLES = {"measures": "Measures", "scale": "Temperature", "days": "Days", "numbers": "Numbers"}


def choices(none: str = "") -> list[tuple[str, str, list[tuple[str, str]]]]:
    """Each way's field, title and choices. none: what an empty choice says, where there is one."""
    unset = [("", none)] if none else []
    return [(name, TITLES[name], [*unset, *((str(word), say.term(word)) for word in words)]) for name, words in WAYS.items()]
