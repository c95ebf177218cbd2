"""Degree-days from daily extremes or hourly temperatures.

All temperatures are degrees C and all results degree-days C. Source of the methods and
cut-offs: Zalom, Goodell, Wilson, Barnett and Bentley (1983), "Degree-days: the calculation
and use of heat units in pest management".
"""

from collections.abc import Callable

import numpy as np
from numpy.typing import ArrayLike, NDArray

Array = NDArray[np.float64]
CUTOFFS = ("horizontal", "intermediate", "vertical")
DEFAULT_METHOD = "single_sine"
DEFAULT_CUTOFF = "horizontal"
PIECE = 16_384
"""Days that are worked on at once."""
STILL = 1e-9
"""Ranges below this many degrees are a level: they would overflow as a divisor."""


def _sine_above(tmin: Array, tmax: Array, threshold: float) -> tuple[Array, Array]:
    """Heat above the threshold and share of the day above it, for one full sine wave a day."""
    above_mean = np.asarray((tmax + tmin) * -0.5 + threshold)
    half_range = (tmax - tmin) * 0.5
    # A level day divides by next to nothing and is clipped to wholly above or wholly below.
    part = np.asarray(np.clip(above_mean / np.maximum(half_range, STILL), -1.0, 1.0))
    above = np.arccos(part)
    if not half_range.min(initial=np.inf) >= STILL:
        # A level day that stands at the threshold is not above it.
        above = np.where(half_range < STILL, np.pi * (tmax > threshold), above)
    # The cosine of the angle whose sine is part.
    part *= part
    np.subtract(1.0, part, out=part)
    np.sqrt(part, out=part)
    part *= half_range
    above_mean *= above
    part -= above_mean
    part /= np.pi
    above /= np.pi
    return part, above


def _triangle_above(tmin: Array, tmax: Array, threshold: float) -> tuple[Array, Array]:
    """Heat above the threshold and share of the day above it, for straight lines between extremes."""
    span = tmax - tmin
    flat = span < STILL
    share = np.clip((tmax - threshold) / np.where(flat, 1.0, span), 0.0, 1.0)
    share = np.where(flat, (tmax > threshold).astype(float), share)
    top = tmax - threshold
    heat = np.where(share >= 1, (tmax + tmin) * 0.5 - threshold, 0.5 * top * share)
    # Asked this way round a missing day stays missing.
    return np.where(share <= 0, 0.0, heat), share


def _mean_above(tmin: Array, tmax: Array, threshold: float) -> tuple[Array, Array]:
    """Heat above the threshold where the day is taken to stand at its mean."""
    excess = (tmax + tmin) * 0.5 - threshold
    return np.maximum(excess, 0.0), (excess > 0).astype(float)


def _clipped_above(tmin: Array, tmax: Array, threshold: float) -> tuple[Array, Array]:
    """Heat above the threshold where each extreme below it is taken to stand at it: with a horizontal cut-off the "86/50" of maize."""
    heat = (np.maximum(tmax, threshold) + np.maximum(tmin, threshold)) * 0.5 - threshold
    return heat, ((tmax > threshold).astype(float) + (tmin > threshold)) * 0.5


Above = Callable[[Array, Array, float], tuple[Array, Array]]
_CURVES: dict[str, tuple[Above, bool]] = {
    "average": (_mean_above, False),
    "modified_average": (_clipped_above, False),
    "single_sine": (_sine_above, False),
    "double_sine": (_sine_above, True),
    "single_triangle": (_triangle_above, False),
    "double_triangle": (_triangle_above, True),
}
METHODS = tuple(_CURVES)


def _cut(above: Above, tmin: Array, tmax: Array, lower: float, upper: float | None, cutoff: str) -> Array:
    heat, _ = above(tmin, tmax, lower)
    if upper is None:
        return heat
    over, share_over = above(tmin, tmax, upper)
    if cutoff == "horizontal":
        return heat - over
    if cutoff == "intermediate":
        return np.maximum(heat - 2 * over, 0.0)
    return heat - over - (upper - lower) * share_over


def _by_piece(above: Above, tmin: Array, tmax: Array, lower: float, upper: float | None, cutoff: str) -> Array:
    """As _cut, in pieces that stay in the processor's cache: a region's days are more memory-bound than they are sums."""
    if tmin.size <= PIECE:
        return _cut(above, tmin, tmax, lower, upper, cutoff)
    lows, highs = tmin.reshape(-1), tmax.reshape(-1)
    heat = np.empty(tmin.size)
    for start in range(0, tmin.size, PIECE):
        piece = slice(start, start + PIECE)
        heat[piece] = _cut(above, lows[piece], highs[piece], lower, upper, cutoff)
    return heat.reshape(tmin.shape)


def _check(lower: float, upper: float | None, cutoff: str) -> None:
    if cutoff not in CUTOFFS:
        raise ValueError(f"cutoff must be one of {', '.join(CUTOFFS)}, not {cutoff!r}")
    if upper is not None and not upper > lower:
        raise ValueError(f"the upper threshold ({upper}) must be above the lower one ({lower})")


def daily(
    tmin: ArrayLike,
    tmax: ArrayLike,
    lower: float,
    upper: float | None = None,
    *,
    method: str = DEFAULT_METHOD,
    cutoff: str = DEFAULT_CUTOFF,
    tmin_next: ArrayLike | None = None,
) -> Array:
    """Degree-days of each day from its extremes.

    Parameters
    ----------
    tmin, tmax : degrees C, any one shape, days along the last axis.
    lower, upper : thresholds, degrees C; no upper one where None.
    method : "average", "modified_average", "single_sine", "double_sine", "single_triangle" or "double_triangle".
    cutoff : "horizontal", "intermediate" (never takes a whole day below zero) or "vertical".
    tmin_next : degrees C, the following day's minimum, used by the double methods; where None it is
        the next element of tmin, and the last day repeats its own.

    Returns
    -------
    ndarray
        Degree-days C in the shape of tmin; a day with a missing extreme (NaN) gives NaN.

    Raises
    ------
    ValueError
        Where tmin is above tmax, or for an unknown method or cut-off.

    Source
    ------
    Single sine Baskerville and Emin (1969); double sine Allen (1976); triangles and cut-offs Zalom et al. (1983); modified average
    Gilmore and Rogers (1958), the second method of McMaster and Wilhelm (1997).

    Examples
    --------
    A sine between 0 and 20 C spends half the day above 10, and its mean height over the day is 10 / pi.

    >>> [round(float(heat), 3) for heat in daily([0.0, 12.0], [20.0, 28.0], 10.0)]
    [3.183, 10.0]
    """
    _check(lower, upper, cutoff)
    if method not in _CURVES:
        raise ValueError(f"method must be one of {', '.join(METHODS)}, not {method!r}")
    low = np.asarray(tmin, dtype=float)
    high = np.asarray(tmax, dtype=float)
    if low.shape != high.shape:
        raise ValueError(f"tmin has shape {low.shape} and tmax {high.shape}: they must be the same")
    if np.any(low > high):
        raise ValueError("tmin is above tmax on at least one day")
    above, halves = _CURVES[method]
    if not halves:
        return _by_piece(above, low, high, lower, upper, cutoff)
    if tmin_next is None:
        following = np.concatenate([low[..., 1:], low[..., -1:]], axis=-1) if low.ndim else low
    else:
        following = np.asarray(tmin_next, dtype=float)
        if following.shape != low.shape:
            raise ValueError(f"tmin has shape {low.shape} and tmin_next {following.shape}: they must be the same")
    # A night may end warmer than the day's own maximum: that half then simply rises.
    second_low, second_high = np.minimum(following, high), np.maximum(following, high)
    first = _by_piece(above, low, high, lower, upper, cutoff)
    return 0.5 * (first + _by_piece(above, second_low, second_high, lower, upper, cutoff))


def hourly(temps: ArrayLike, lower: float, upper: float | None = None, *, cutoff: str = DEFAULT_CUTOFF) -> Array:
    """Degree-days of each day from hourly temperatures.

    Parameters
    ----------
    temps : degrees C, shape (..., 24 * n), the first hour of a day first.
    lower, upper : thresholds, degrees C; no upper one where None.
    cutoff : as in daily.

    Returns
    -------
    ndarray
        Degree-days C, shape (..., n).

    Raises
    ------
    ValueError
        Where the hours don't make whole days.

    Source
    ------
    Zalom et al. (1983), the sum of hourly heat divided by 24.

    Examples
    --------
    Half a day at 20 C and half at 5, above 10 C.

    >>> hourly([20.0] * 12 + [5.0] * 12, 10.0).tolist()
    [5.0]
    """
    _check(lower, upper, cutoff)
    hours = np.asarray(temps, dtype=float)
    if hours.shape[-1] % 24:
        raise ValueError(f"{hours.shape[-1]} hours do not make whole days of 24")
    days = hours.reshape(*hours.shape[:-1], -1, 24)
    return np.asarray(_cut(_mean_above, days, days, lower, upper, cutoff).mean(axis=-1))
