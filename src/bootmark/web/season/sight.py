"""What the season page shows of a forecast beside its ribbon, made once for each state of it."""

import datetime as dt
from dataclasses import dataclass

from bootmark import say
from bootmark.core.season.phenology import Season
from bootmark.drawing.axes import Axis
from bootmark.services.base import memo
from bootmark.services.seasons import outlook
from bootmark.services.seasons.forecasts import Ask
from bootmark.services.seasons.outlook import Chance, Year
from bootmark.web.guard import db, the_farm
from bootmark.web.season.svg import YearRow, years_svg
from bootmark.web.stages.svg import season_axis


@dataclass(frozen=True)
class Sight:
    years: list[Year]
    side_by_side: str
    controls: list[Chance]


_sights: memo.Kept[Sight] = memo.Kept(120)


def sight(question: Ask, season: Season, today: dt.date, lasts: int | None) -> Sight:
    """Made once for each state of a forecast and of its past biofixes. lasts: days on which a control kills, the catalogue's where None."""
    set_then = outlook.biofixes_by_year(db(), question.block.id, question.agent.id)
    key = (the_farm().id, question.block.id, question.agent.id, question.key, lasts, tuple(sorted(set_then.items())))
    if kept := _sights.get(key):
        return kept
    years = outlook.years(db(), the_farm(), question, set_then)
    return _sights.put(key, Sight(years, _side_by_side(question, season, years, today), outlook.chances(question, season, today, lasts)))


def axis_of(question: Ask, season: Season, today: dt.date) -> Axis:
    """From the biofix, or two months back, to the last event that is likely this year and some weeks more."""
    last = max((event.p90 or event.p50 for event in season.events if event.p50), default=today) or today
    first = max(question.biofix - dt.timedelta(days=7), today - dt.timedelta(days=150))
    return season_axis(first, min(max(last, today) + dt.timedelta(days=21), season.dates[-1]))


def _side_by_side(question: Ask, season: Season, years: list[Year], today: dt.date) -> str:
    """This year above its past ones and the usual one; nothing where there is no other year."""
    if not years:
        return ""
    rows = [
        YearRow(str(today.year), season.dates[0], season.shares),
        *(YearRow(str(year.year), year.first, year.shares) for year in years),
        YearRow(say.line("usual"), season.dates[0], season.usual),
    ]
    return years_svg(rows, axis_of(question, season, today), today)
