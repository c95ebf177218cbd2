"""A block's weather from several stations: by inverse distance, each first brought to the block's height."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike, NDArray

from bootmark.core import judgement

Array = NDArray[np.float64]
LAPSE = 0.0065
"""Degrees C lost for each metre of height: the International Standard Atmosphere (ISO 2533:1975)."""
EARTH_METRES = 6_371_000.0


@dataclass(frozen=True)
class Place:
    """latitude, longitude: degrees, north and east positive; elevation: metres above the sea."""

    latitude: float
    longitude: float
    elevation: float


def distance(place: Place, other: Place) -> float:
    """Metres along the ground, by the haversine on a round earth (Sinnott 1984)."""
    lat, other_lat = np.radians(place.latitude), np.radians(other.latitude)
    half = (
        np.sin((other_lat - lat) / 2) ** 2
        + np.cos(lat) * np.cos(other_lat) * np.sin(np.radians(other.longitude - place.longitude) / 2) ** 2
    )
    return float(2 * EARTH_METRES * np.arcsin(np.sqrt(min(1.0, half))))


def weights(stations: Sequence[Place], at: Place, power: float = judgement.DISTANCE_POWER) -> Array:
    """What each station counts for at a place; they add to one. Source: Shepard (1968), inverse distance to a power."""
    metres = np.maximum([distance(station, at) for station in stations], judgement.NEAREST_METRES)
    nearness = metres**-power
    return np.asarray(nearness / nearness.sum())


def blend(stations: Sequence[Place], values: ArrayLike, at: Place, power: float = judgement.DISTANCE_POWER) -> Array:
    """Temperatures at a place from those of stations.

    values: degrees C, (stations, ...), NaN where a station is silent: the others then share its weight. Returns (...), NaN where
    all are. Raises ValueError without a station.
    """
    if not stations:
        raise ValueError("there is no station to take the weather from")
    rows = np.asarray(values, dtype=float)
    lift = np.array([LAPSE * (station.elevation - at.elevation) for station in stations])
    shape = (-1, *([1] * (rows.ndim - 1)))
    there = ~np.isnan(rows)
    share = np.where(there, weights(stations, at, power).reshape(shape), 0.0)
    total = share.sum(axis=0)
    mixed = np.where(there, (rows + lift.reshape(shape)) * share, 0.0).sum(axis=0)
    return np.asarray(np.where(total > 0, mixed / np.where(total > 0, total, 1.0), np.nan))
