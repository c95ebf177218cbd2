"""The round outside the season: winter, before planting, the store."""

import datetime as dt
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from bootmark.core import judgement
from bootmark.core.catalogue.model import Crop, turned
from bootmark.core.meanings import YearTask

WOODY = ("tree", "shrub", "climber", "conifer", "palm")
BAGGED = ("tree", "conifer", "shrub")
OF_FARM = (YearTask.CULL_HEAPS, YearTask.TRAPS, YearTask.NOZZLES, YearTask.REGISTRATIONS)
OF_STORE = {
    YearTask.STORE_TEMPERATURE: judgement.STORE_WEEK,
    YearTask.STORE_TRAPS: judgement.STORE_WEEK,
    YearTask.STORE_SIEVE: judgement.STORE_MONTH,
}
CARRIED: Mapping[YearTask, tuple[str, ...]] = {
    YearTask.SPURS: ("hand lens", "secateurs"),
    YearTask.OLD_BAGS: ("secateurs", "bag"),
    YearTask.MUMMIES: ("bag", "rake"),
    YearTask.SOIL_BAITS: ("spade", "baits"),
    YearTask.STORE_TEMPERATURE: ("own thermometer",),
    YearTask.STORE_SIEVE: ("sieve", "scales"),
}
"""What a task takes beside what is always carried."""


@dataclass(frozen=True)
class Ground:
    """A block outside its season. crops: what stands there; plants_on: the day from which something is planned, None where nothing is."""

    id: str
    crops: Sequence[Crop]
    plants_on: dt.date | None = None


@dataclass(frozen=True)
class Task:
    """What is to be looked at. place: id of a block or a store, empty for the farm; since: the day from which it counts as due."""

    kind: YearTask
    place: str
    since: dt.date


def season_since(months: frozenset[int], day: dt.date) -> dt.date:
    """The first day of the run of months that a day lies in."""
    first = day.replace(day=1)
    while (before := (first - dt.timedelta(days=1)).replace(day=1)).month in months:
        first = before
    return first


def tasks(
    day: dt.date, latitude: float, grounds: Sequence[Ground], stores: Sequence[str], done: Mapping[tuple[YearTask, str], dt.date]
) -> list[Task]:
    """What is due on a day, in the order of the enumeration. latitude: degrees; done: when each was done last, by its kind and place.

    In winter, of which the tropics have none, woody plants, heaps, traps, nozzles and registrations, each once; before planting the soil,
    and what the last crop left; in a store its rhythm all year. Common practice, no source.
    """
    has_winter = abs(latitude) >= judgement.TROPICS
    winter = turned(judgement.WINTER_MONTHS, "north" if latitude >= 0 else "south") if has_winter else frozenset()
    wanted: list[Task] = []
    if day.month in winter:
        since = season_since(winter, day)
        wanted += [Task(kind, "", since) for kind in OF_FARM]
        for ground in grounds:
            wanted += [Task(kind, ground.id, since) for kind in _in_winter(ground)]
    for ground in grounds:
        if ground.plants_on and dt.timedelta(0) < ground.plants_on - day <= dt.timedelta(days=judgement.BEFORE_PLANTING_DAYS):
            since = ground.plants_on - dt.timedelta(days=judgement.BEFORE_PLANTING_DAYS)
            wanted += [Task(kind, ground.id, since) for kind in (YearTask.LAST_CROP, YearTask.SOIL_BAITS)]
    for store in stores:
        for kind, rhythm in OF_STORE.items():
            last = done.get((kind, store))
            due = last + dt.timedelta(days=rhythm) if last else day
            wanted += [Task(kind, store, due)] if due <= day else []
    order = list(YearTask)
    open_ones = (task for task in wanted if task.kind in OF_STORE or done.get((task.kind, task.place), dt.date.min) < task.since)
    return sorted(open_ones, key=lambda task: order.index(task.kind))


def _in_winter(ground: Ground) -> list[YearTask]:
    kinds = []
    if any(crop.habit in WOODY for crop in ground.crops):
        kinds.append(YearTask.SPURS)
    if any(crop.habit in BAGGED and not crop.eaten for crop in ground.crops):
        kinds.append(YearTask.OLD_BAGS)
    if any(crop.habit in WOODY and crop.eaten for crop in ground.crops):
        kinds.append(YearTask.MUMMIES)
    return kinds
