"""What the season page shows of a forecast beside its ribbon: other years, and the best day for each control."""

import datetime as dt
from dataclasses import dataclass

from sqlalchemy import select

from bootmark.core.catalogue import Control
from bootmark.core.season import killing, phenology
from bootmark.core.season.killing import Best
from bootmark.core.season.phenology import Season
from bootmark.services import block_weather, memo
from bootmark.services.season import Ask
from bootmark.store.models import Biofix
from bootmark.web.guard import db, the_farm
from bootmark.web.season.svg import YearRow, years_svg
from bootmark.web.stages.svg import Axis

MOST_YEARS = 6
SHOWN_CONTROLS = ("physical", "living", "soft", "conventional")
Span = tuple[dt.date, dt.date]


@dataclass(frozen=True)
class Year:
    """A past year: the day its heat is counted from, whether that was set then, and the day of each event."""

    year: int
    biofix: dt.date
    own: bool
    events: dict[str, dt.date | None]
    row: YearRow


@dataclass(frozen=True)
class Chance:
    """When a control does most: the best day, the best two, and its window where that is open or ahead."""

    control: Control
    best: Best | None
    twice: Best | None
    window: Span | None


@dataclass(frozen=True)
class Sight:
    years: list[Year]
    side_by_side: str
    controls: list[Chance]


_sights: memo.Kept[Sight] = memo.Kept(120)


def sight(one: Ask, found: Season, today: dt.date, lasts: int | None) -> Sight:
    """Made once for each state of a forecast and of its past biofixes. lasts: days on which a control kills, the catalogue's where None."""
    where = (Biofix.farm_id == the_farm().id, Biofix.block_id == one.block.id, Biofix.agent == one.agent.id)
    rows = db().execute(select(Biofix.on).where(*where).order_by(Biofix.on, Biofix.seen_at))
    then = {on.year: on for (on,) in rows}
    key = (the_farm().id, one.block.id, one.agent.id, one.key, lasts, tuple(sorted(then.items())))
    if kept := _sights.get(key):
        return kept
    years = _years(one, then)
    return _sights.put(key, Sight(years, _side_by_side(one, found, years, today), _controls(one, found, today, lasts)))


def axis_of(one: Ask, found: Season, today: dt.date) -> Axis:
    """From the biofix, or two months back, to the last event that is likely this year and some weeks more."""
    last = max((event.p90 or event.p50 for event in found.events if event.p50), default=today) or today
    first = max(one.biofix - dt.timedelta(days=7), today - dt.timedelta(days=150))
    return Axis(first, min(max(last, today) + dt.timedelta(days=21), found.dates[-1]))


def _years(one: Ask, set_then: dict[int, dt.date]) -> list[Year]:
    """Past years on their own weather, from their own biofix where one was set, else from this year's day."""
    assert one.agent.heat
    kept = block_weather.record_of(db(), the_farm(), one.block)
    if kept is None:
        return []
    past = kept.years(one.biofix)
    found = []
    for weather in past[:MOST_YEARS]:
        year = weather.dates[len(weather.dates) // 2].year
        on = set_then.get(year) or _same_day(one.biofix, year)
        if on not in weather.dates or year == one.biofix.year:
            continue
        told = phenology.forecast(
            one.agent.heat, weather, on, past_years=past, as_of=weather.dates[-1], draws=40, southern=the_farm().latitude < 0
        )
        row = YearRow(str(year), _same_day(on, one.biofix.year), told.shares)
        found.append(Year(year, on, year in set_then, {event.id: event.p50 for event in told.events}, row))
    return found


def _same_day(day: dt.date, year: int) -> dt.date:
    return day.replace(year=year, day=28) if (day.month, day.day) == (2, 29) else day.replace(year=year)


def _side_by_side(one: Ask, found: Season, years: list[Year], today: dt.date) -> str:
    """This year above its past ones and the usual one; nothing where there is no other year."""
    if not years:
        return ""
    this, usual = (YearRow(name, found.dates[0], shares) for name, shares in ((str(today.year), found.shares), ("usual", found.usual)))
    return years_svg([this, *(year.row for year in years), usual], axis_of(one, found, today), today)


def _controls(one: Ask, found: Season, today: dt.date, lasts: int | None) -> list[Chance]:
    """The best day for each control that is timed by a stage."""
    told = []
    for control in one.agent.controls:
        if control.kind not in SHOWN_CONTROLS or not control.stages:
            continue
        best = killing.best_days(found, one.agent, control, after=today, lasts_days=lasts)
        span = phenology.window(found, control, one.agent.heat, after=today) if one.agent.heat else None
        if best or span:
            twice = killing.best_days(found, one.agent, control, after=today, lasts_days=lasts, treatments=2) if best else None
            told.append(Chance(control, best, twice, span if span and span[1] >= today else None))
    return told
