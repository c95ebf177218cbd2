"""A language at work: it picks a message's words, translates them, and writes the facts into them."""

import dataclasses
import datetime as dt
import functools
import gettext
import string
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

from bootmark.core.catalogue import Catalogue, default
from bootmark.core.catalogue.model import MANY
from bootmark.core.meanings import Measure
from bootmark.core.messages import Message
from bootmark.core.units import Quantity, Scale, System
from bootmark.say.formats import Days, Formats, Numbers
from bootmark.say.text import By, Many, Text
from bootmark.say.words import TEXTS


def _phrase(text: str) -> str:
    return text.rstrip(".").lower()


def _inside(text: str) -> str:
    return text[:1].lower() + text[1:]


def _first(text: str) -> str:
    return text[:1].upper() + text[1:]


CHANGES: dict[str, Callable[[str], str]] = {"lower": str.lower, "phrase": _phrase, "inside": _inside, "first": _first}
"""What a field may do to the words it writes: "{look:do|phrase}"."""


@dataclass(frozen=True)
class Tongue:
    """Puts messages into words.

    language: its tag (BCP 47); translations: from the English of the texts; formats: how values are written; rtl: whether it
    is written from right to left.
    """

    language: str = "en"
    translations: gettext.NullTranslations = field(default_factory=gettext.NullTranslations)
    formats: Formats = field(default_factory=Formats)
    rtl: bool = False

    @functools.cached_property
    def voice(self) -> str:
        """What tells this tongue from others: what is kept of words is kept by it."""
        return f"{self.language} {self.formats.key}"

    def in_formats(self, system: System, scale: Scale, days: Days, numbers: Numbers) -> "Tongue":
        """The same language, with measures, days and numbers as somebody likes them."""
        return _in_formats(self, system, scale, days, numbers)

    def symbol(self, quantity: Quantity) -> str:
        """The unit in which a quantity is read, as it is written after a number."""
        return self.translations.gettext(self.formats.unit(quantity).symbol)

    def measure(self, stored: float, quantity: Quantity, places: int | None = None) -> str:
        """A measure with its unit. stored, places: in the unit that is stored; as short as counts are where no places are given."""
        return f"{self.formats.amount(stored, quantity, places)} {self.symbol(quantity)}"

    def say(self, message: Message, catalogue: Catalogue | None = None) -> str:
        """A message in words. catalogue: whose names and texts it uses, the shipped one where none is given."""
        facts = {"sign": message.sign, "agent": message.agent, "direction": message.direction or "", **message.facts}
        return self.fill(TEXTS[message.kind], facts, catalogue)

    def all(self, messages: Iterable[Message], catalogue: Catalogue | None = None) -> list[str]:
        return [self.say(message, catalogue) for message in messages]

    def joined(self, messages: Iterable[Message], catalogue: Catalogue | None = None) -> str:
        """Messages one after the other, as sentences of one paragraph."""
        return " ".join(self.all(messages, catalogue))

    def fill(self, text: Text, facts: Mapping[str, Any], catalogue: Catalogue | None = None) -> str:
        """A text with its facts written in. Raises KeyError for a fact that it lacks."""
        if isinstance(text, By):
            return self.fill(text.each.get(str(facts[text.fact]), text.any), facts, catalogue)
        if isinstance(text, Many):
            template = self.translations.ngettext(text.singular, text.plural, int(facts[text.of]))
        else:
            template = self.translations.gettext(text) if text else ""
        return _Writer(self, facts, catalogue or default()).format(template)

    def line(self, text: str, /, **facts: Any) -> str:
        """A line of the interface, in words."""
        return self.fill(text, facts)

    def template(self, text: str) -> str:
        """A line whose fields somebody else fills, as a page's script."""
        return self.translations.gettext(text)

    def many(self, singular: str, plural: str, of: int, /, **facts: Any) -> str:
        """A line that counts: {of} is written into the singular or the plural."""
        return self.fill(Many("of", singular, plural), {"of": of, **facts})


@functools.lru_cache(maxsize=256)
def _in_formats(tongue: Tongue, system: System, scale: Scale, days: Days, numbers: Numbers) -> Tongue:
    formats = dataclasses.replace(tongue.formats, system=system, scale=scale, days=days, numbers=numbers)
    return dataclasses.replace(tongue, formats=formats)


class _Writer(string.Formatter):
    """Fills the fields of one template. A field is a fact's name and, after a colon, how it is written."""

    def __init__(self, tongue: Tongue, facts: Mapping[str, Any], catalogue: Catalogue) -> None:
        self.tongue, self.facts, self.catalogue = tongue, facts, catalogue

    def get_field(self, field_name: str, _args: Sequence[Any], _kwargs: Mapping[str, Any]) -> tuple[Any, str]:
        return (field_name, self.facts[field_name]), field_name

    def format_field(self, value: tuple[str, Any], format_spec: str) -> str:
        name, fact = value
        how, _, change = format_spec.partition("|")
        text = self._written(name, fact, how)
        return CHANGES[change](text) if change else text

    def _written(self, name: str, fact: Any, how: str) -> str:
        formats = self.tongue.formats
        if isinstance(fact, Message):
            return self.tongue.say(fact, self.catalogue)
        if isinstance(fact, dt.time) or how == "time":
            return formats.time(fact)
        if isinstance(fact, dt.date):
            return formats.full_day(fact) if how == "full" else formats.day(fact)
        if how in WAYS:
            return WAYS[how](self, fact)
        return str(getattr(self._entry(name, str(fact)), how)) if how else str(fact)

    def decimal(self, fact: float, places: int) -> str:
        return self.tongue.formats.decimal(float(fact), places)

    def percent(self, fact: float) -> str:
        return self.tongue.formats.percent(float(fact))

    def short(self, fact: float) -> str:
        return self.tongue.formats.short(float(fact))

    def tally(self, fact: float) -> str:
        """A mean as the tally shows it: two places below one, so that it does not jump while one counts."""
        return self.decimal(fact, 2) if 0 < fact < 1 else self.tongue.formats.short(round(float(fact), 1))

    def measured(self, fact: float) -> str:
        """A count as it was made: a share of units, or so many for each."""
        return self.percent(fact) if self.facts["measure"] == Measure.PROPORTION else self.short(fact)

    def word(self, fact: str) -> str:
        return self.tongue.line(str(fact))

    def both(self, fact: Sequence[str]) -> str:
        return self.tongue.formats.both(list(fact))

    def stages(self, fact: Sequence[str]) -> str:
        return self.both([self.word(MANY[stage]) for stage in fact])

    def agents(self, fact: Sequence[str]) -> str:
        return self.both([self.catalogue.agent(agent).in_sentence for agent in fact])

    def crops(self, fact: Sequence[str]) -> str:
        return ", ".join(self.catalogue.crops[crop].name.lower() for crop in fact)

    def _entry(self, name: str, id: str) -> Any:
        """The catalogue's entry that a fact names."""
        catalogue = self.catalogue
        if name == "control":
            return catalogue.agent(str(self.facts["agent"])).control(id)
        if name == "look":
            return catalogue.looks[id]
        return catalogue.signs[id] if name in ("sign", "other") else catalogue.agent(id)


def _measuring(quantity: Quantity, places: str) -> Callable[[_Writer, Any], str]:
    """Writes a measure with its unit, as whoever reads it measures; places: decimals in the unit that is stored."""
    return lambda writer, fact: writer.tongue.measure(float(fact), quantity, int(places) if places else None)


WAYS: dict[str, Callable[[_Writer, Any], str]] = {
    "0": lambda writer, fact: writer.decimal(fact, 0),
    "1": lambda writer, fact: writer.decimal(fact, 1),
    "g": lambda writer, fact: writer.tongue.formats.figures(fact),
    "2g": lambda writer, fact: writer.tongue.formats.signed(f"{fact:.2g}"),
    "grouped": lambda writer, fact: writer.tongue.formats.grouped(fact),
    "5": lambda writer, fact: writer.decimal(fact, 5),
    "2": lambda writer, fact: writer.decimal(fact, 2),
    "percent": _Writer.percent,
    "tally": _Writer.tally,
    "short": _Writer.short,
    "measured": _Writer.measured,
    "word": _Writer.word,
    "both": _Writer.both,
    "stages": _Writer.stages,
    "agents": _Writer.agents,
    "crops": _Writer.crops,
    "list": lambda _, fact: "; ".join(fact),
    **{f"{quantity}{places}": _measuring(quantity, places) for quantity in Quantity for places in ("", "0", "1")},
}
"""How a fact may be written; any other word is what is asked of the catalogue's entry that the fact names."""

ENGLISH = Tongue()
