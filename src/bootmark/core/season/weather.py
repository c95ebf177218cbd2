"""Air: sun times, hours from daily extremes, wet bulb, drying power."""

import contextlib
import datetime as dt
import functools
from collections.abc import Callable, Iterator, Sequence

import numpy as np
from astral import Observer
from astral.sun import elevation, sunrise, sunset
from numpy.typing import ArrayLike, NDArray

Array = NDArray[np.float64]


@functools.lru_cache(maxsize=4096)
def sun_times(date: dt.date, latitude: float, longitude: float) -> tuple[dt.datetime, dt.datetime]:
    """Sunrise and sunset of a place's own solar day, UTC.

    Parameters
    ----------
    date : the day, as the sun tells it there: the one whose noon is at twelve by local solar time.
    latitude, longitude : degrees, north and east positive.

    Returns
    -------
    rise, set : datetime, UTC
        The last rise before that noon and the first set after it; where there is none, noon or midnight stands for it, so that the day
        has no length or all of it.
    """
    noon = dt.datetime.combine(date, dt.time(12), dt.UTC) - dt.timedelta(hours=longitude / 15)
    observer = Observer(latitude, longitude)
    rise = max((moment for moment in _events(sunrise, observer, date) if noon - HALF_A_DAY <= moment <= noon), default=None)
    fall = min((moment for moment in _events(sunset, observer, date) if noon <= moment <= noon + HALF_A_DAY), default=None)
    half = HALF_A_DAY if rise or fall or elevation(observer, noon, with_refraction=False) > HORIZON else dt.timedelta(0)
    return rise or noon - half, fall or noon + half


HALF_A_DAY = dt.timedelta(hours=12)
HORIZON = -0.833
"""degrees. Of the sun's middle when its upper edge is seen on the horizon, with the air's refraction. Astronomical Almanac."""


def _events(event: Callable[..., dt.datetime], observer: Observer, date: dt.date) -> Iterator[dt.datetime]:
    """Rises or sets of the days about a date: the library tells them by the date in UTC, which is another day far from Greenwich."""
    for days in (-1, 0, 1):
        with contextlib.suppress(ValueError):
            yield event(observer, date=date + dt.timedelta(days=days), tzinfo=dt.UTC)


SPRAY_HEIGHT = 2.0
"""m above the ground. At which limits of the wind hold."""


def wind_at(wind: ArrayLike, height: float) -> Array:
    """Wind at 2 m above short grass from that measured at another height.

    wind: m/s, any shape; height: m, above 0.5. Returns m/s, same shape. Raises ValueError for a lower height.
    Source: Allen et al. (1998), FAO Irrigation and Drainage Paper 56, equation 47.

    Their example 14: 3.2 m/s at 10 m are 2.4 m/s at 2 m.

    >>> round(float(wind_at(3.2, 10.0)), 1)
    2.4
    """
    if height < LOWEST_MAST:
        raise ValueError(f"wind is measured at {LOWEST_MAST:g} m above the ground or higher, not at {height:g} m")
    speed = np.asarray(wind, dtype=float)
    return speed if height == SPRAY_HEIGHT else np.asarray(speed * 4.87 / np.log(67.8 * height - 5.42))


LOWEST_MAST = 0.5


def day_length(day: ArrayLike, latitude: float) -> Array:
    """Hours from sunrise to sunset, the sun's upper edge on the horizon.

    day: of the year, 1 for 1 January, any shape; latitude: degrees, north positive. Returns hours, same shape: 24 in polar day, 0 in
    polar night. Source: Forsythe, Rykiel, Stahl, Wu and Schoolfield (1995), "A model comparison for daylength as a function of latitude and
    day of year", Ecological Modelling 80: 87-95, their CBM model.
    """
    turn = 0.2163108 + 2 * np.arctan(0.9671396 * np.tan(0.00860 * (np.asarray(day, dtype=float) - 186)))
    tilt = np.arcsin(0.39795 * np.cos(turn))
    place = np.radians(latitude)
    lit = (np.sin(np.radians(-HORIZON)) + np.sin(place) * np.sin(tilt)) / (np.cos(place) * np.cos(tilt))
    return np.asarray(24 - 24 / np.pi * np.arccos(np.clip(lit, -1.0, 1.0)))


SHORTEST_AND_LONGEST = (1.0, 22.0)
"""hours. Of the day, between which the curve from daily extremes is drawn. Judgement, 2026-11-26."""


def hourly_from_daily(
    dates: Sequence[dt.date], tmin: ArrayLike, tmax: ArrayLike, latitude: float, longitude: float, tz: dt.tzinfo
) -> Array:
    """Hourly temperatures from daily extremes: a sine by day, logarithmic decay by night.

    The hours before the first sunrise decay from the first day's own maximum, and the last
    night towards the last day's own minimum.

    Parameters
    ----------
    dates : n days in order.
    tmin, tmax : degrees C, shape (n,).
    latitude, longitude : degrees, north and east positive.
    tz : the station's own (fixed) offset, on which its days run.

    Returns
    -------
    ndarray
        Degrees C, shape (24 * n,), hour 0 first.

    Raises
    ------
    ValueError
        Where the lengths differ.

    Source
    ------
    Linvill (1990), "Calculating chilling hours and chill units from daily maximum and minimum temperature
    observations", HortScience 25.
    """
    low, high = np.asarray(tmin, dtype=float), np.asarray(tmax, dtype=float)
    if not len(dates) == len(low) == len(high):
        raise ValueError("dates, tmin and tmax must be of one length")
    rises, lengths = np.empty(len(dates)), np.empty(len(dates))
    for index, date in enumerate(dates):
        rise, fall = sun_times(date, latitude, longitude)
        midnight = dt.datetime.combine(date, dt.time(0), tz)
        rises[index] = (rise - midnight).total_seconds() / 3600
        lengths[index] = (fall - rise).total_seconds() / 3600
    # A night of some length is needed to cool in, and a day to warm in: in polar summer and winter the nearest that the curve allows.
    lengths = np.clip(lengths, *SHORTEST_AND_LONGEST)
    next_low = np.append(low[1:], low[-1:])
    clock = np.arange(24.0)[None, :]
    sets = (rises + lengths)[:, None]

    def by_day(hour: Array) -> Array:
        return np.asarray((high - low)[:, None] * np.sin(np.pi * hour / (lengths[:, None] + 4)) + low[:, None])

    at_sunset = by_day(lengths[:, None])
    day = by_day(clock - rises[:, None])
    after = np.maximum(clock - sets, 1.0)
    evening = at_sunset - (at_sunset - next_low[:, None]) / np.log(24 - lengths)[:, None] * np.log(after)
    before_set = np.vstack([at_sunset[:1], at_sunset[:-1]])
    since = np.maximum(clock + 24 - np.concatenate([sets[:1], sets[:-1]]), 1.0)
    before_length = np.concatenate([lengths[:1], lengths[:-1]])[:, None]
    morning = before_set - (before_set - low[:, None]) / np.log(24 - before_length) * np.log(since)
    hours = np.where(clock < rises[:, None], morning, np.where(clock <= sets, day, evening))
    return np.asarray(hours.reshape(-1))


def saturation_pressure(temp: ArrayLike) -> Array:
    """Saturation vapour pressure, Pa, over ice below 0 and over water above.

    temp: degrees C, any shape. Source: Hyland and Wexler (1983), as printed in the ASHRAE
    Handbook of Fundamentals (2017), chapter 1, equations 5 and 6.
    """
    kelvin = np.asarray(temp, dtype=float) + 273.15
    ice = (
        -5.6745359e3 / kelvin
        + 6.3925247
        - 9.677843e-3 * kelvin
        + 6.2215701e-7 * kelvin**2
        + 2.0747825e-9 * kelvin**3
        - 9.484024e-13 * kelvin**4
        + 4.1635019 * np.log(kelvin)
    )
    water = (
        -5.8002206e3 / kelvin
        + 1.3914993
        - 4.8640239e-2 * kelvin
        + 4.1764768e-5 * kelvin**2
        - 1.4452093e-8 * kelvin**3
        + 6.5459673 * np.log(kelvin)
    )
    return np.asarray(np.exp(np.where(kelvin <= 273.16, ice, water)))


def _checked(temp: ArrayLike, rh: ArrayLike) -> tuple[Array, Array]:
    air, damp = np.asarray(temp, dtype=float), np.asarray(rh, dtype=float)
    if np.any((damp < 0) | (damp > 100)):
        raise ValueError("relative humidity must lie between 0 and 100 per cent")
    return air, damp


def wet_bulb(temp: ArrayLike, rh: ArrayLike, pressure: float = 101325.0) -> Array:
    """Thermodynamic wet-bulb temperature, by bisection of the psychrometric equation.

    Parameters
    ----------
    temp : degrees C, any shape.
    rh : percent, same shape.
    pressure : Pa.

    Returns
    -------
    ndarray
        Degrees C, same shape; NaN where a value is missing.

    Raises
    ------
    ValueError
        Where rh is outside 0-100.

    Source
    ------
    ASHRAE Handbook of Fundamentals (2017), chapter 1, equations 33 and 35.

    Examples
    --------
    Saturated air has no other wet bulb than itself.

    >>> round(float(wet_bulb(25.0, 100.0)), 3)
    25.0
    """
    air, damp = _checked(temp, rh)
    vapour = damp / 100 * saturation_pressure(air)
    ratio = 0.621945 * vapour / (pressure - vapour)
    low, high = np.full(np.broadcast(air, damp).shape, -100.0), air + np.zeros_like(damp)
    for _ in range(48):
        middle = 0.5 * (low + high)
        full = saturation_pressure(middle)
        saturated = 0.621945 * full / (pressure - full)
        warm = ((2501 - 2.326 * middle) * saturated - 1.006 * (air - middle)) / (2501 + 1.86 * air - 4.186 * middle)
        cold = ((2830 - 0.24 * middle) * saturated - 1.006 * (air - middle)) / (2830 + 1.86 * air - 2.1 * middle)
        too_wet = np.where(middle >= 0, warm, cold) > ratio
        low, high = np.where(too_wet, low, middle), np.where(too_wet, middle, high)
    # What was not measured has no wet bulb: the halving would end at the air's own temperature.
    return np.where(np.isnan(air + damp), np.nan, 0.5 * (low + high))


def delta_t(temp: ArrayLike, rh: ArrayLike) -> Array:
    """Dry-bulb minus wet-bulb temperature, the drying power of the air.

    Parameters
    ----------
    temp : degrees C, any shape.
    rh : percent, same shape.

    Returns
    -------
    ndarray
        Degrees C, same shape.

    Raises
    ------
    ValueError
        Where rh is outside 0-100.

    Source
    ------
    As wet_bulb.

    Examples
    --------
    Saturated air dries nothing.

    >>> abs(round(float(delta_t(25.0, 100.0)), 3))
    0.0
    """
    return np.asarray(np.asarray(temp, dtype=float) - wet_bulb(temp, rh))


def vpd(temp: ArrayLike, rh: ArrayLike) -> Array:
    """Vapour pressure deficit: saturation pressure times the missing share of humidity.

    Parameters
    ----------
    temp : degrees C, any shape.
    rh : percent, same shape.

    Returns
    -------
    ndarray
        kPa, same shape.

    Raises
    ------
    ValueError
        Where rh is outside 0-100.

    Source
    ------
    Saturation pressure as wet_bulb.

    Examples
    --------
    Half of the 2.338 kPa that Allen et al. (1998), FAO Irrigation and Drainage Paper 56, table 2.3, gives at 20 C.

    >>> round(float(vpd(20.0, 50.0)), 2)
    1.17
    """
    air, damp = _checked(temp, rh)
    return saturation_pressure(air) * (1 - damp / 100) / 1000
