"""What the Stages page shows of a farm, whoever looks: made once for each state of the farm's rows."""

import datetime as dt
from dataclasses import dataclass
from typing import NamedTuple

from flask import g, render_template
from markupsafe import Markup

from bootmark.services.base import ground, memo, stamp
from bootmark.services.seasons import results, traps, unready
from bootmark.services.seasons.results import Listed, SeasonRun
from bootmark.services.seasons.traps import Proposed
from bootmark.services.seasons.unready import Waiting
from bootmark.web.guard import db, real_now, the_farm
from bootmark.web.stages import ribbon

A_SCREEN = 12
Choice = tuple[str, str]


class Filters(NamedTuple):
    """Which ribbons are wanted: by default those that need somebody, or all where none does."""

    show: str = ""
    crop: str = ""
    agent: str = ""

    @property
    def narrowed(self) -> bool:
        return bool(self.crop or self.agent)

    def of(self, listed: list[Listed]) -> list[Listed]:
        if self.crop:
            listed = [row for row in listed if row.ask.block.crop == self.crop]
        if self.agent:
            listed = [row for row in listed if row.ask.agent.id == self.agent]
        if self.show == "all" or self.narrowed:
            return listed
        return [row for row in listed if row.needs] or listed


@dataclass(frozen=True)
class Sight:
    """The page as its template wants it, in values that outlive the request."""

    ribbons: Markup
    shown: int
    every: int
    stale: int
    waiting: list[Waiting]
    weatherless: str
    young: str
    proposals: list[Proposed]
    blocks: list[Choice]
    agents: list[Choice]
    crops: list[Choice]
    pests: list[Choice]


_sights: memo.Kept[Sight] = memo.Kept(64)
"""Pages as they were seen, about 200 kilobytes each."""


def sight(today: dt.date, filters: Filters) -> tuple[Sight, SeasonRun | None]:
    """The page of a day, and the run that makes its forecasts anew where that is under way."""
    farm = the_farm()
    key = (farm.id, today, filters, stamp.of(db()))
    if kept := _sights.get(key):
        return kept, None
    blocks = ground.blocks(db())
    listed, run = results.refresh(db(), farm, blocks, g.catalogue, today, real_now())
    hanging = traps.register(db(), today)
    shown = filters.of(listed)
    ribbons = screen(shown, filters, today, 0, hanging)
    modelled = {(agent.id, agent.name) for crop in {block.crop for block in blocks} for agent in unready.with_events(g.catalogue, crop)}
    shown_now = Sight(
        ribbons=ribbons,
        shown=len(shown),
        every=len(listed),
        stale=sum(not row.fresh and row.stored for row in listed),
        waiting=unready.waiting(db(), farm, blocks, g.catalogue, today),
        weatherless="" if ribbons else unready.weatherless(db(), farm, blocks),
        young=unready.young(db(), farm, blocks, today),
        proposals=traps.proposals(db(), farm, g.catalogue, today, hanging),
        blocks=[(str(block.id), block.name) for block in blocks],
        agents=_by_name(modelled),
        crops=_by_name({(row.ask.block.crop, g.catalogue.crops[row.ask.block.crop].name) for row in listed}),
        pests=_by_name({(row.ask.agent.id, row.ask.agent.name) for row in listed}),
    )
    if all(row.fresh for row in listed):
        _sights.put(key, shown_now)
    return shown_now, run


def screen(shown: list[Listed], filters: Filters, today: dt.date, start: int, hanging: list[traps.Hanging]) -> Markup:
    """A dozen ribbons from a place on, and the way to the next dozen."""
    part = [row for row in shown[start : start + A_SCREEN] if row.stored]
    views = ribbon.views(part, lambda wanted: results.load(db(), wanted), ribbon.around(today, hanging), today)
    if not views:
        return Markup()
    words = {"start": start, "shown": len(shown), "screen": A_SCREEN, "filters": filters, "today": today}
    return Markup(render_template("ribbons.html", ribbons=views, **words))  # noqa: S704 - a template of ours


def _by_name(choices: set[Choice]) -> list[Choice]:
    return sorted(choices, key=lambda pair: pair[1])
