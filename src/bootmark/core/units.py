"""Temperatures and differences of temperature, kept apart: one has an offset between scales, the other has none."""

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
