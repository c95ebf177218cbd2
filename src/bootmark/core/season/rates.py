"""How fast a pest develops at a temperature, with the slowing near too hot that a straight line does not know."""

import functools
from collections.abc import Callable

import numpy as np
from numpy.typing import ArrayLike, NDArray
from scipy.optimize import brentq

from bootmark.core import judgement
from bootmark.core.catalogue.lives import Life

Array = NDArray[np.float64]
HOURS = 24


def optimum(lower: float, lethal: float, m: float) -> float:
    """Temperature of fastest development on the second curve of Briere et al. (1999), their equation 4. Degrees C.

    Example by hand: (140 + 30 + the root of 14,900) / 10.

    >>> round(optimum(10.0, 35.0, 2.0), 2)
    29.21
    """
    inner = 4 * m**2 * lethal**2 + (m + 1) ** 2 * lower**2 - 4 * m**2 * lower * lethal
    return float((2 * m * lethal + (m + 1) * lower + np.sqrt(inner)) / (4 * m + 2))


def briere(temp: ArrayLike, lower: float, lethal: float, m: float = 2.0) -> Array:
    """T (T - lower) (lethal - T)^(1/m), nothing outside the two: the shape of the rate, without its scale.

    temp, lower, lethal: degrees C. Source: Briere, Pracros, Le Roux and Pierre (1999), "A novel rate model of
    temperature-dependent development for arthropods", Environmental Entomology 28: 22-29, equations 1 (m = 2) and 2.
    """
    air = np.asarray(temp, dtype=float)
    inside = np.clip(air, max(lower, 0.0), lethal)
    return np.asarray(np.where(air > lower, inside * (inside - lower) * (lethal - inside) ** (1 / m), 0.0))


@functools.cache
def _bend(life: Life) -> tuple[float, float]:
    """The m that puts the optimum where the life table has it, and the scale that makes degree-days of the curve."""
    m = float(brentq(lambda m: optimum(life.lower, life.lethal, m) - life.optimum, 0.02, 200.0))
    return m, (judgement.REFERENCE - life.lower) / float(briere(judgement.REFERENCE, life.lower, life.lethal, m))


def heat(life: Life, temp: ArrayLike) -> Array:
    """Degree-days C that an hour or day at these temperatures is worth for development, for a whole day; any shape.

    Equal to temperature less the lower threshold at 22 C, less near the threshold and beyond the optimum, none at the
    lethal temperature.
    """
    m, scale = _bend(life)
    return np.asarray(scale * briere(temp, life.lower, life.lethal, m))


def vigour(life: Life, temp: ArrayLike) -> Array:
    """Share of eggs laid and young kept at these temperatures of what there is in comfort: all up to `wanes`, none from `barren` on.

    Development still goes on in heat that no longer lets them multiply. A straight line between the two: judgement, set so that rates of
    increase at 30 C are those of the life tables.
    """
    wanes, barren = life.wanes or life.optimum, life.barren or life.lethal
    return np.clip((barren - np.asarray(temp, dtype=float)) / (barren - wanes), 0.0, 1.0)


def hours_of(extremes: ArrayLike) -> Array:
    """Twenty-four temperatures of days from their extremes, by one sine wave a day: (days, 2) to (days, 24), degrees C.

    >>> round(float(hours_of([[10.0, 20.0]]).mean()), 6)
    15.0
    """
    low, high = np.asarray(extremes, dtype=float).T
    turn = np.cos((np.arange(HOURS) + 0.5 - 15) * 2 * np.pi / HOURS)
    return np.asarray((low + high)[:, None] / 2 + (high - low)[:, None] / 2 * turn)


def daily(life: Life, temps: ArrayLike) -> Array:
    """Degree-days C of each day, (days,).

    temps: degrees C, daily means (days,), extremes (days, 2) or hours (days, 24). Raises ValueError for any other shape.
    """
    return _mean_of_day(temps, lambda air: heat(life, air))


def daily_vigour(life: Life, temps: ArrayLike) -> Array:
    """Vigour of each day, (days,), by the mean of its hours; temps as `daily` takes them."""
    return _mean_of_day(temps, lambda air: vigour(life, air))


def _mean_of_day(temps: ArrayLike, of: Callable[[Array], Array]) -> Array:
    air = np.asarray(temps, dtype=float)
    if air.ndim == 1:
        return of(air)
    if air.ndim != 2 or air.shape[1] not in (2, HOURS):
        raise ValueError(f"temperatures of shape {air.shape}: give means (days,), extremes (days, 2) or hours (days, 24)")
    return np.asarray(of(hours_of(air) if air.shape[1] == 2 else air).mean(axis=1))
