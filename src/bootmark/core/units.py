"""Units that people read and type in, by those that are stored.

Temperatures and their differences are kept apart: one has an offset between scales, the other has none.
"""

from dataclasses import dataclass
from enum import StrEnum
from typing import NewType

Celsius = NewType("Celsius", float)
"""A temperature, degrees C."""

CelsiusDifference = NewType("CelsiusDifference", float)
"""A difference of temperatures or a sum of degree-days, in C units."""

F_PER_C = 1.8


def celsius(fahrenheit: float) -> Celsius:
    """A temperature in degrees F as degrees C.

    >>> celsius(50.0)
    10.0
    """
    return Celsius((fahrenheit - 32) / F_PER_C)


def difference_celsius(fahrenheit: float) -> CelsiusDifference:
    """A temperature difference, or a sum of degree-days, in F units as C units; no offset.

    >>> difference_celsius(90.0)
    50.0
    """
    return CelsiusDifference(fahrenheit / F_PER_C)


def difference_fahrenheit(celsius_units: float) -> float:
    """A temperature difference, or a sum of degree-days, in C units as F units; no offset."""
    return celsius_units * F_PER_C


class System(StrEnum):
    """The measures that somebody reads in; of temperature there is a scale apart."""

    METRIC = "metric"
    US = "US"
    UK = "UK"


class Scale(StrEnum):
    CELSIUS = "C"
    FAHRENHEIT = "F"


class Quantity(StrEnum):
    """What a number measures. WARMTH: a difference of temperatures; HEAT: a sum of degree-days."""

    TEMPERATURE = "temperature"
    WARMTH = "warmth"
    HEAT = "heat"
    WIND = "wind"
    RAIN = "rain"
    AREA = "area"
    LENGTH = "length"


@dataclass(frozen=True)
class Unit:
    """A unit by what is stored. times, zero: shown = stored * times + zero; more_places: decimals it needs beyond the stored unit's."""

    symbol: str
    times: float = 1.0
    zero: float = 0.0
    more_places: int = 0

    def shown(self, stored: float) -> float:
        return stored * self.times + self.zero

    def stored(self, shown: float) -> float:
        return (shown - self.zero) / self.times


_ACRE, _MILE_AN_HOUR, _INCH, _FOOT = 0.40468564224, 0.44704, 25.4, 0.3048
_MPH = Unit("mph", 1 / _MILE_AN_HOUR, more_places=-1)
_METRIC = {
    Quantity.WIND: Unit("m/s"),
    Quantity.RAIN: Unit("mm"),
    Quantity.AREA: Unit("ha"),
    Quantity.LENGTH: Unit("m"),
}
SYSTEMS: dict[System, dict[Quantity, Unit]] = {
    System.METRIC: _METRIC,
    System.US: {
        Quantity.WIND: _MPH,
        Quantity.RAIN: Unit("in", 1 / _INCH, more_places=1),
        Quantity.AREA: Unit("ac", 1 / _ACRE),
        Quantity.LENGTH: Unit("ft", 1 / _FOOT),
    },
    System.UK: _METRIC | {Quantity.WIND: _MPH},
}
"""By what is stored: m/s, mm, ha, m. Source: the international yard and pound of 1959 (yard = 0.9144 m); an acre is 4,840 square yards."""
SCALES: dict[Scale, dict[Quantity, Unit]] = {
    Scale.CELSIUS: {
        Quantity.TEMPERATURE: Unit("°C"),
        Quantity.WARMTH: Unit("°C"),
        Quantity.HEAT: Unit("degree-days C"),
    },
    Scale.FAHRENHEIT: {
        Quantity.TEMPERATURE: Unit("°F", F_PER_C, 32.0),
        Quantity.WARMTH: Unit("°F", F_PER_C),
        Quantity.HEAT: Unit("degree-days F", F_PER_C),
    },
}


def unit(quantity: Quantity, system: System = System.METRIC, scale: Scale = Scale.CELSIUS) -> Unit:
    """The unit in which whoever reads in a system and a scale reads a quantity."""
    return (SYSTEMS[system] | SCALES[scale])[quantity]
