"""When a crop comes to its stages by heat: bloom, petal fall, harvest, each with its limits."""

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass

from bootmark.core import judgement
from bootmark.core.catalogue.crop_heat import CropHeat
from bootmark.core.catalogue.heat import Event, Heat
from bootmark.core.meanings import BiofixKind
from bootmark.core.season import phenology
from bootmark.core.season.ahead import Weather


@dataclass(frozen=True)
class StageDates:
    """A stage, by its BBCH code, with the days by which it has come with 10, 50 and 90 per cent chance; None where not in this season."""

    code: int
    p10: dt.date | None
    p50: dt.date | None
    p90: dt.date | None


def starts(model: CropHeat, noted: Sequence[tuple[dt.date, int]], as_of: dt.date, southern: bool) -> tuple[dt.date, float] | None:
    """The day that heat is counted from and the degree-days C that stand on it already: the newest stage noted this season, else the
    model's own day. None where the crop is counted from its sowing, and nobody noted that or a later stage.

    noted: days and BBCH codes, in any order.
    """
    since = as_of - dt.timedelta(days=judgement.SEASON_DAYS)
    own = None
    if model.month_day is not None:
        month = (model.month_day[0] + 5) % 12 + 1 if southern else model.month_day[0]
        day = dt.date(as_of.year, month, model.month_day[1])
        own = day if day <= as_of else dt.date(as_of.year - 1, month, model.month_day[1])
        since = max(since, own)
    this_season = [(on, code) for on, code in noted if since <= on <= as_of]
    if this_season:
        on, code = max(this_season)
        return on, model.at(code)
    return (own, 0.0) if own else None


def foretell(
    model: CropHeat,
    weather: Weather,
    noted: Sequence[tuple[dt.date, int]],
    *,
    past_years: Sequence[Weather],
    as_of: dt.date,
    latitude: float,
) -> list[StageDates]:
    """The stages of a crop that are still to come, in order; empty where nothing tells where it stands.

    Parameters
    ----------
    model : sums of the crop's stages.
    weather : this season's daily extremes, degrees C, at least from the day that `starts` gives.
    noted : days and BBCH codes as noted on the block. The newest takes the place of everything before it: what is seen outranks the model.
    past_years, as_of : as phenology.forecast takes them.
    latitude : degrees, north positive.

    Raises
    ------
    ValueError
        Where there is no weather from that day on.

    Source
    ------
    As the model's source; dates as phenology.forecast.
    """
    begun = starts(model, noted, as_of, latitude < 0)
    if begun is None:
        return []
    on, stands_at = begun
    ahead = [(code, sums - stands_at) for code, sums in model.stages.items() if sums > stands_at]
    if not ahead:
        return []
    events = tuple(Event(str(code), str(code), sums, judgement.WITHIN_BLOCK, "adult", model.source) for code, sums in ahead)
    heat = Heat(
        model.lower, model.upper, model.method, "horizontal", BiofixKind.DATE, "", None, events, None, None, model.source, error=model.error
    )
    season = phenology.forecast(heat, weather, on, past_years=past_years, as_of=as_of, latitude=latitude)
    return [StageDates(int(event.id), event.p10, event.p50, event.p90) for event in season.events]
