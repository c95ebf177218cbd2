"""What the fields of commands may hold, and what is said where they hold something else.

A rule reads a value strictly as JSON brings it, and a text as somebody typed it into a form. Its sentences say what is wrong and
what would be right.
"""

import datetime as dt
import re
import uuid
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated, Any, get_args, get_origin

from pydantic import GetCoreSchemaHandler, ValidationInfo
from pydantic_core import CoreSchema, PydanticCustomError, core_schema

from bootmark import say
from bootmark.core.catalogue import Catalogue, plants
from bootmark.core.types import STATES
from bootmark.core.units import Quantity

EMPTY = "This is empty: write something here."
MOST_LETTERS = 2000
YEARS = range(1901, 2200)
"""Years in which a moment may lie: any zone can tell it then."""
MOST_UNITS = 2000
MOST_OF_ONE_UNIT = 100_000
MOST_TICKS = 100


@dataclass(frozen=True)
class Checks:
    """What a field may be held against. today: the farm's day of the act."""

    catalogue: Catalogue
    today: dt.date


def wrong(sentence: str) -> PydanticCustomError:
    return PydanticCustomError("wrong", "{sentence}", {"sentence": sentence})


def said(value: object) -> str:
    """What was sent, short, and without what can't be written down."""
    return str(value)[:60].encode("utf-8", "replace").decode() if value not in (None, "") else "Nothing"


def can_be_stored(text: str) -> bool:
    """Whether the database keeps a text's letters."""
    return "\0" not in text and not any("\ud800" <= letter <= "\udfff" for letter in text)


class Rule:
    """One kind of field. optional: None stands for nothing given."""

    optional = False

    def inner(self) -> CoreSchema:
        """The shape that JSON Schema tells of."""
        raise NotImplementedError

    def read(self, value: Any, checks: Checks) -> Any:
        """The value checked and converted. Raises PydanticCustomError."""
        raise NotImplementedError

    def of_text(self, text: str) -> Any:
        """A form's text as JSON would have brought it; left as it is where it can't be read, so that `read` says why."""
        return text

    def _check(self, value: Any, info: ValidationInfo) -> Any:
        if value is None and self.optional:
            return None
        checks: Any = info.context
        return self.read(value, checks)

    def __get_pydantic_core_schema__(self, _source: Any, _handler: GetCoreSchemaHandler) -> CoreSchema:
        inner = core_schema.nullable_schema(self.inner()) if self.optional else self.inner()
        return core_schema.with_info_before_validator_function(self._check, inner)


@dataclass(frozen=True)
class Text(Rule):
    """Letters as they are typed, without the blanks round them. needed: False where it may be empty."""

    most: int = MOST_LETTERS
    needed: bool = True

    def inner(self) -> CoreSchema:
        return core_schema.str_schema(max_length=self.most, min_length=1 if self.needed else 0)

    def read(self, value: Any, checks: Checks) -> str:
        if value is None and not self.needed:
            return ""
        if value is not None and not isinstance(value, str):
            raise wrong(say.line("This must be text."))
        text = (value or "").strip()
        if self.needed and not text:
            raise wrong(say.line(EMPTY))
        if len(text) > self.most:
            raise wrong(say.line("This has {count} characters; {most} is the most.", count=len(text), most=self.most))
        if not can_be_stored(text):
            raise wrong(say.line("This holds a character that can't be stored: write it again by hand."))
        return text


@dataclass(frozen=True)
class Number(Rule):
    """A finite number within limits. unit: as it is said; whole: counts and codes; not_whole: how the number is meant where it is not.

    measures: what is typed in a form in the unit of whoever types it; the value and the limits are in the unit that is stored.
    """

    low: float
    high: float
    unit: str = ""
    whole: bool = False
    optional: bool = False
    not_whole: str = "write it without a fraction"
    measures: Quantity | None = None

    def inner(self) -> CoreSchema:
        if self.whole:
            return core_schema.int_schema(ge=int(self.low), le=int(self.high))
        return core_schema.float_schema(ge=self.low, le=self.high, allow_inf_nan=False)

    def _range(self) -> str:
        formats = say.tongue().formats
        low, high = (formats.typed(limit, self.measures) for limit in (self.low, self.high))
        unit = say.tongue().symbol(self.measures) if self.measures else self.unit
        return f"{low} to {high}{f' {unit}' if unit else ''}"

    def _read(self, text: str) -> list[float]:
        """What a text may mean, in the unit that is stored: where it can be read twice, what lies within the limits."""
        formats = say.tongue().formats
        readings = [formats.unit(self.measures).stored(number) if self.measures else number for number in formats.readings(text)]
        fitting = [number for number in readings if self.low <= number <= self.high and (not self.whole or number.is_integer())]
        return fitting or readings[:1]

    def read(self, value: Any, checks: Checks) -> float | int:
        formats = say.tongue().formats
        if isinstance(value, str) and len(formats.readings(value)) > 1:
            one_way, other_way = (formats.signed(f"{reading:.15g}") for reading in formats.readings(value))
            raise wrong(say.line("{said} can be read in two ways: write {first} or {second}.", said=value, first=one_way, second=other_way))
        if isinstance(value, bool) or not isinstance(value, (int, float)):
            raise wrong(say.line("{said} is not a number: write one from {range}.", said=said(value), range=self._range()))
        # Compared before anything else: a whole number of JSON may be too long for a float.
        if not self.low <= value <= self.high:
            is_short = abs(value) < 1e300
            said_value = formats.typed(value, self.measures) if is_short else ""
            problem = say.line("{said} is out of range", said=said_value) if is_short else say.line("That is out of range")
            raise wrong(say.line("{problem}: write a number from {range}.", problem=problem, range=self._range()))
        if not self.whole:
            return float(value)
        if value != int(value):
            raise wrong(say.line("{value:g} is not a whole number: {how:word}.", value=value, how=self.not_whole))
        return int(value)

    def of_text(self, text: str) -> Any:
        if not text.strip() and self.optional:
            return None
        numbers = self._read(text)
        if len(numbers) != 1:
            return text.strip()
        return int(numbers[0]) if self.whole and numbers[0].is_integer() else numbers[0]


@dataclass(frozen=True)
class Flag(Rule):
    """Yes or no."""

    def inner(self) -> CoreSchema:
        return core_schema.bool_schema()

    def read(self, value: Any, checks: Checks) -> bool:
        if not isinstance(value, bool):
            raise wrong(say.line("This is either true or false."))
        return value

    def of_text(self, text: str) -> bool:
        return text in ("yes", "on", "true")


@dataclass(frozen=True)
class Day(Rule):
    """A day. past: what is to be done instead where it is still ahead; None where it may be."""

    past: str | None = None
    optional: bool = False

    def inner(self) -> CoreSchema:
        return core_schema.date_schema()

    def read(self, value: Any, checks: Checks) -> dt.date:
        try:
            day = dt.date.fromisoformat(value)
        except (ValueError, TypeError):
            raise wrong(say.line("{said} is not a day: write it as 2026-06-18.", said=said(value))) from None
        if self.past and day > checks.today:
            raise wrong(say.line("{day:full} is still ahead: {past:word}.", day=day, past=self.past))
        return day

    def of_text(self, text: str) -> Any:
        return None if self.optional and not text.strip() else text.strip()


@dataclass(frozen=True)
class Moment(Rule):
    """A time with its zone."""

    def inner(self) -> CoreSchema:
        return core_schema.datetime_schema(tz_constraint="aware")

    def read(self, value: Any, checks: Checks) -> dt.datetime:
        try:
            moment = dt.datetime.fromisoformat(value)
        except (ValueError, TypeError):
            moment = dt.datetime.min
        if moment.tzinfo is None or moment.year not in YEARS:
            raise wrong(say.line("This is not a day and time: write it as 2026-06-18T07:40."))
        return moment


@dataclass(frozen=True)
class Choice(Rule):
    """One of a few words. fallback: what an empty form field stands for."""

    allowed: tuple[str, ...]
    fallback: str | None = None

    def inner(self) -> CoreSchema:
        return core_schema.literal_schema(list(self.allowed))

    def read(self, value: Any, checks: Checks) -> str:
        if not value and self.fallback is not None:
            return self.fallback
        if value not in self.allowed:
            raise wrong(
                say.line(
                    "{said} can't be chosen here: take {join}.", said=said(value), join=", ".join(word for word in self.allowed if word)
                )
            )
        return str(value)


@dataclass(frozen=True)
class RecordId(Rule):
    """The id of another record of the farm. what: how that record is called."""

    what: str
    optional: bool = False

    def inner(self) -> CoreSchema:
        return core_schema.uuid_schema()

    def read(self, value: Any, checks: Checks) -> uuid.UUID:
        if isinstance(value, uuid.UUID):
            return value
        try:
            return uuid.UUID(value)
        except (ValueError, TypeError, AttributeError):
            raise wrong(say.line("The {what} is not given as an id.", what=self.what)) from None

    def of_text(self, text: str) -> Any:
        return None if self.optional and not text.strip() else text.strip()


NO_AGENT = "none"
"""What a form says where it is none of what was asked: an empty choice is no answer."""


@dataclass(frozen=True)
class Agent(Rule):
    """An agent of the catalogue. heat: only one whose season is told from heat; optional: a form says NO_AGENT where it is none of them."""

    heat: bool = False
    optional: bool = False

    def inner(self) -> CoreSchema:
        return core_schema.str_schema()

    def read(self, value: Any, checks: Checks) -> str:
        if value == "":
            raise wrong(say.line("Choose it from the list."))
        agent = checks.catalogue.agents.get(value) if isinstance(value, str) else None
        if agent is None:
            raise wrong(say.line("{said} is not in the catalogue: choose it from the list.", said=said(value)))
        if self.heat and not (agent.heat and agent.heat.events):
            raise wrong(say.line("{name} has no heat model: nothing would be counted from a day.", name=agent.name))
        return agent.id

    def of_text(self, text: str) -> Any:
        return None if self.optional and text.strip() == NO_AGENT else text.strip()


@dataclass(frozen=True)
class Crop(Rule):
    """A crop that the catalogue has. any_plant: or any name, which somebody else checks."""

    any_plant: bool = False
    optional: bool = False

    def inner(self) -> CoreSchema:
        return core_schema.str_schema(max_length=80)

    def read(self, value: Any, checks: Checks) -> str:
        crop = Text(80).read(value, checks)
        if self.any_plant:
            return plants.crop_meant(crop, checks.catalogue)
        if crop not in checks.catalogue.crops:
            raise wrong(say.line("{crop} is not a crop that Bootmark knows: type two letters and choose one from the list.", crop=crop))
        return crop

    def of_text(self, text: str) -> Any:
        return None if self.optional and not text.strip() else text


@dataclass(frozen=True)
class Signs(Rule):
    """What was told of signs: sign to seen, absent or unsure."""

    def inner(self) -> CoreSchema:
        return core_schema.dict_schema(core_schema.str_schema(), core_schema.literal_schema(list(STATES)))

    def read(self, value: Any, checks: Checks) -> dict[str, str]:
        if not isinstance(value, Mapping):
            raise wrong(say.line("Signs are told as sign: seen, absent or unsure."))
        for sign, state in value.items():
            if sign not in checks.catalogue.signs:
                raise wrong(say.line("{said} is not a sign that Bootmark knows.", said=said(sign)))
            if state not in STATES:
                raise wrong(say.line("{sign} must be seen, absent or unsure, not {said}.", sign=sign, said=repr(said(state))))
        return dict(value)


@dataclass(frozen=True)
class Counts(Rule):
    """One number for each unit looked at. needed: False where none may be given."""

    needed: bool = True

    def inner(self) -> CoreSchema:
        return core_schema.list_schema(core_schema.int_schema(ge=0, le=MOST_OF_ONE_UNIT), max_length=MOST_UNITS)

    def read(self, value: Any, checks: Checks) -> list[int]:
        if value is None and not self.needed:
            return []
        whole = isinstance(value, list) and all(type(count) is int and 0 <= count <= MOST_OF_ONE_UNIT for count in value)
        if not whole:
            raise wrong(say.line("Counts are whole numbers from 0 up, one for each unit looked at."))
        if self.needed and not value:
            raise wrong(say.line("Nothing was counted yet: count at least one unit."))
        if len(value) > MOST_UNITS:
            raise wrong(
                say.line("{count} units were sent and {most_units} are the most of one count.", count=len(value), most_units=MOST_UNITS)
            )
        return list(value)

    def of_text(self, text: str) -> Any:
        """Numbers one after the other, as "7 9 8"; left as it is where one is none."""
        parts = re.split(r"[\s,;]+", text.strip()) if text.strip() else []
        return [int(part) for part in parts] if all(part.isascii() and part.isdigit() for part in parts) else text


@dataclass(frozen=True)
class Pictures(Rule):
    """For each unit of a count the photograph that told it, empty where none did."""

    def inner(self) -> CoreSchema:
        return core_schema.list_schema(core_schema.str_schema(max_length=36), max_length=MOST_UNITS)

    def read(self, value: Any, checks: Checks) -> list[str]:
        try:
            return [str(uuid.UUID(picture)) if picture else "" for picture in value or ()][:MOST_UNITS]
        except (ValueError, TypeError, AttributeError):
            raise wrong(say.line("Pictures are given by their ids, one for each unit.")) from None

    def of_text(self, text: str) -> Any:
        return text.split(",") if text.strip() else []


@dataclass(frozen=True)
class Tally(Rule):
    """How many of each of some kinds; those that nobody counted are left out."""

    kinds: tuple[str, ...]

    def inner(self) -> CoreSchema:
        return core_schema.dict_schema(core_schema.str_schema(), core_schema.int_schema(ge=0, le=1_000_000))

    def read(self, value: Any, checks: Checks) -> dict[str, int]:
        tally = {} if value is None else value
        whole = isinstance(tally, dict) and all(
            kind in self.kinds and type(number) is int and 0 <= number <= 1_000_000 for kind, number in tally.items()
        )
        if not whole:
            raise wrong(say.line("Each of {kinds} is counted by a whole number from 0 up.", kinds=", ".join(self.kinds)))
        return dict(tally)

    def of_text(self, text: str) -> Any:
        return {} if not text.strip() else text


@dataclass(frozen=True)
class Ticks(Rule):
    """The sentences that somebody ticked."""

    def inner(self) -> CoreSchema:
        return core_schema.list_schema(core_schema.str_schema(max_length=MOST_LETTERS), max_length=MOST_TICKS)

    def read(self, value: Any, checks: Checks) -> list[str]:
        if not isinstance(value, list) or len(value) > MOST_TICKS or not all(isinstance(text, str) for text in value):
            raise wrong(say.line("Checks are a list of what was ticked."))
        return [Text(needed=False).read(text, checks) for text in value]


Name = Annotated[str, Text(60)]
Note = Annotated[str, Text(300, needed=False)]
PastDay = Annotated[dt.date, Day(past="give a day that has been")]
Count = Annotated[int, Number(0, MOST_UNITS, whole=True, not_whole="count the animals")]


def rule_of(annotation: Any, metadata: list[Any]) -> Rule | None:
    """The rule of a field, where it has one of its own."""
    parts = [*metadata, *(get_args(annotation)[1:] if get_origin(annotation) is Annotated else ())]
    return next((part for part in parts if isinstance(part, Rule)), None)
