"""An invented valley's weather, the same at every run: each hour follows from its date alone."""

import datetime as dt
import functools
import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

FIRST = dt.date(2023, 12, 1)
DAYS = 365 * 5
SEED = 462
AHEAD_DAYS = 7
# The demo's June: hot and dry for nine days before the eighteenth, a shower two days after it.
HOT_SPELL = (dt.date(2026, 6, 9), dt.date(2026, 6, 19))
SHOWERS = {dt.date(2026, 6, 20): 6.0, dt.date(2026, 6, 21): 3.0, dt.date(2026, 6, 8): 4.0, dt.date(2026, 6, 25): 9.0}


@dataclass(frozen=True)
class Hour:
    at: dt.datetime
    temp: float
    rh: float
    wind: float
    rain: float

    def as_json(self) -> dict[str, str | float]:
        return {
            "at": self.at.isoformat(),
            "temp": round(self.temp, 1),
            "rh": round(self.rh),
            "wind": round(self.wind, 1),
            "rain": round(self.rain, 1),
        }


@functools.cache
def _days() -> tuple[NDArray[np.float64], ...]:
    """Daily mean, half range, rain and wind of every simulated day."""
    rng = np.random.default_rng(SEED)
    anomaly = np.zeros(DAYS)
    for day in range(1, DAYS):
        anomaly[day] = 0.72 * anomaly[day - 1] + rng.normal(0, 2.1)
    date = [FIRST + dt.timedelta(days=n) for n in range(DAYS)]
    turn = np.array([(each_day.timetuple().tm_yday - 19) * 2 * np.pi / 365.25 for each_day in date])
    year = np.array([{2024: -0.5, 2025: -0.1, 2026: 0.7}.get(each_day.year, 0.0) for each_day in date])
    mean = 10.4 - 9.8 * np.cos(turn) + anomaly + year
    half = 5.2 + 1.6 * np.sin(turn - np.pi / 2) + rng.normal(0, 0.7, DAYS)
    wet = rng.random(DAYS) < 0.32
    rain = np.where(wet, rng.gamma(0.9, 6.0, DAYS), 0.0)
    wind = np.clip(rng.gamma(4.0, 0.55, DAYS), 0.6, 7.0)
    for place, each_day in enumerate(date):
        if HOT_SPELL[0] <= each_day < HOT_SPELL[1]:
            mean[place] = 20.5 + 0.25 * (each_day - HOT_SPELL[0]).days
            half[place], rain[place], wind[place] = 7.2, 0.0, 1.9
        if each_day in SHOWERS:
            rain[place] = SHOWERS[each_day]
    return mean, np.where(rain > 2, half * 0.7, half), rain, wind


def _noise(moment: dt.datetime, salt: int) -> float:
    """A number from -1 to 1 that depends on the moment only."""
    seed = int(moment.timestamp() // 3600) * 2654435761 + salt * 40503
    return math.sin(seed % 100_000_007) * 0.999


def hour(moment: dt.datetime, *, warmer: float = 0.0, sheltered: float = 1.0, cooler: float = 0.0) -> Hour:
    """The hour that begins at a moment. warmer: added to the temperature by day, as under a film; sheltered: share of the wind;
    cooler: taken off at every hour, as higher up."""
    at = moment.astimezone(dt.UTC).replace(minute=0, second=0, microsecond=0)
    local = at + dt.timedelta(hours=1)
    mean, half, rain, wind = _days()
    place = min(max((local.date() - FIRST).days, 1), DAYS - 2)
    part = local.hour + 0.5
    # The mean glides from day to day; the warmest hour is the fifteenth.
    weight = part / 24
    level = (1 - weight) * (mean[place - 1] + mean[place]) / 2 + weight * (mean[place] + mean[place + 1]) / 2
    temp = level + half[place] * math.cos((part - 15) * math.pi / 12) + 0.4 * _noise(at, 1)
    temp -= cooler
    temp += warmer * max(0.0, math.cos((part - 14) * math.pi / 14))
    dew = mean[place] - (2.0 if rain[place] > 1 else 5.5) + 0.8 * _noise(at, 2)
    rh = 100 * math.exp(17.62 * dew / (243.12 + dew) - 17.62 * temp / (243.12 + temp))
    breeze = wind[place] * (0.55 + 0.75 * max(0.0, math.cos((part - 15) * math.pi / 13))) * (1 + 0.2 * _noise(at, 3))
    start = 3 + int(8 + 8 * _noise(at.replace(hour=12), 4))
    falls = rain[place] / 4 if start <= local.hour < start + 4 else 0.0
    return Hour(at, float(temp), float(min(99.0, max(18.0, rh))), float(max(0.2, breeze * sheltered)), float(falls))


def hours(since: dt.datetime, until: dt.datetime, **site: float) -> list[Hour]:
    """Whole hours that began at or after since and ended by until."""
    first = since.astimezone(dt.UTC)
    if first.minute or first.second:
        first = first.replace(minute=0, second=0, microsecond=0) + dt.timedelta(hours=1)
    count = max(0, int((until - first).total_seconds() // 3600))
    return [hour(first + dt.timedelta(hours=n), **site) for n in range(count)]


def forecast(at: dt.datetime, **site: float) -> list[Hour]:
    """What a forecast issued at a moment says: the truth with an error that grows by the day."""
    issued = at.astimezone(dt.UTC).replace(minute=0, second=0, microsecond=0)
    hours = []
    for n in range(24 * AHEAD_DAYS):
        true = hour(issued + dt.timedelta(hours=n), **site)
        days = n / 24
        error = 0.45 * days * _noise(issued.replace(hour=0) + dt.timedelta(days=int(days)), 7)
        wind = true.wind * (1 + 0.05 * days * _noise(true.at, 8))
        hours.append(Hour(true.at, true.temp + error, min(99.0, max(18.0, true.rh - 2 * error)), max(0.2, wind), true.rain))
    return hours
