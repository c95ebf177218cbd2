"""A pest's heat model, and how its table is read: events in the order in which half of the animals come to them."""

import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import cached_property
from statistics import NormalDist

from bootmark.core import judgement, units
from bootmark.core.catalogue.reader import Reader
from bootmark.core.catalogue.shapes import STAGES
from bootmark.core.meanings import BiofixKind

ORDINALS = ("first", "second", "third", "fourth", "fifth", "sixth", "seventh", "eighth")


@dataclass(frozen=True)
class Event:
    """A dated event of a heat model.

    at: degree-days C after the biofix at which a share of the animals, `quantile`, have come to it, as the model was published for;
    spread: one standard deviation between animals of a year, degree-days C; generation: 0 for those that came through the winter.
    """

    id: str
    name: str
    at: float
    spread: float
    stage: str
    source: str
    quantile: float = 0.5
    generation: int = 0

    @property
    def foretold(self) -> bool:
        """Whether heat brings it; if not, it is where those end up whom the winter kills."""
        return math.isfinite(self.at)

    @cached_property
    def middle(self) -> float:
        """Degree-days C at which half of them have come to it."""
        return self.at - self.spread * NormalDist().inv_cdf(self.quantile)


@dataclass(frozen=True)
class Heat:
    """A heat model. Thresholds in degrees C, sums in degree-days C.

    biofix: "date" (month, day), "catch", "seen", "crop" (a BBCH code) or "none"; catch: checks of a trap in a row with a catch, and
    the most days they span, none where 0; catch_least, catch_nights: how many animals within how many nights make a catch; winter_stage:
    the stage that stays as it is once it is reached after winter_below (hours of daylight, of the shortening day) where the latitude is
    known, else after winter_after (month, day in the north): those that come to it earlier go on to another generation; error: share by
    which its sums are off from year to year and place to place, one standard deviation, beside the spread between animals of one year;
    region: where it was made or checked.
    """

    lower: float
    upper: float | None
    method: str
    cutoff: str
    biofix: BiofixKind
    biofix_name: str
    month_day: tuple[int, int] | None
    events: tuple[Event, ...]
    egg: float | None
    adult_before_eggs: float | None
    source: str
    catch: tuple[int, int] = (2, 10)
    crop_code: int | None = None
    winter_stage: str = ""
    winter_after: tuple[int, int] | None = None
    winter_below: float | None = None
    catch_least: int = 1
    catch_nights: int = 0
    error: float = judgement.MODEL_ERROR
    region: str = ""


def _chained(reader: Reader, degree_days: Callable[[float], float]) -> list[Event]:
    """Events from durations: each stage begins when those before it have passed, generation after generation.

    Durations of one animal add up, and so do their variances.
    """
    rows = reader.rows("stages")
    generations = int(reader.number("generations"))
    if not 1 <= generations <= len(ORDINALS):
        raise reader.fail(f"'generations' must be from 1 to {len(ORDINALS)}")
    at, variance, events = degree_days(reader.number("first", 0.0)), degree_days(reader.number("first_spread")) ** 2, []
    for ordinal in ORDINALS[:generations]:
        for row in rows:
            stage = row.one_of("stage", STAGES)
            name = f"Half are {row.text('name')}, {ordinal} generation"
            events.append(Event(f"{ordinal}-{row.text('id')}", name, at, variance**0.5, stage, row.source()))
            at += degree_days(row.number("heat"))
            variance += degree_days(row.number("spread")) ** 2
            row.done()
    # Beyond these generations run into each other: no one can tell them apart.
    return [*events, Event("mixed", "Generations run together", at, variance**0.5, "over", reader.source())]


def _by_generation(events: list[Event]) -> list[Event]:
    """Events with their generation: it is the next where a younger stage follows an older one."""
    generation, numbered = 0, list[Event]()
    for before, event in zip([None, *events], events, strict=False):
        older = (*STAGES, "over").index(before.stage) if before else -1
        generation += (*STAGES, "over").index(event.stage) < older
        numbered.append(replace(event, generation=generation))
    return numbered


def read_heat(reader: Reader) -> Heat:
    unit = reader.one_of("unit", ("C", "F"))

    def degree_days(value: float) -> float:
        return value if unit == "C" else units.difference_celsius(value)

    def temperature(value: float | None) -> float | None:
        return value if value is None or unit == "C" else units.celsius(value)

    events = _chained(reader, degree_days) if "stages" in reader.table else []
    for row in reader.rows("events") if not events else ():
        at, spread = degree_days(row.number("at")), degree_days(row.number("spread"))
        share = judgement.QUANTILES[row.one_of("mark", tuple(judgement.QUANTILES))]
        stage = row.one_of("stage", (*STAGES, "over"))
        events.append(Event(row.text("id"), row.text("name"), at, spread, stage, row.source(), share))
        row.done()
    if [event.middle for event in events] != sorted(event.middle for event in events):
        raise reader.fail("events must stand in the order in which half have come to them")
    if events and events[-1].stage != "over":
        events.append(Event("gone", "Dead or gone", math.inf, 1.0, "over", reader.source()))
    events = _by_generation(events)
    lower, upper = temperature(reader.number("lower")), temperature(reader.number("upper", None))
    if lower is None or (upper is not None and upper <= lower):
        raise reader.fail("'upper' must be above 'lower'")
    month_day = reader.words("month_day", [])
    catch, winter = reader.words("catch", [2, 10]), reader.words("winter_after", [])
    code = reader.number("crop_code", None)
    egg, before = reader.number("egg", None), reader.number("adult_before_eggs", None)
    heat = Heat(
        lower=lower,
        upper=upper,
        method=reader.text("method", "single_sine"),
        cutoff=reader.text("cutoff", "horizontal"),
        biofix=reader.member("biofix", BiofixKind),
        biofix_name=reader.text("biofix_name"),
        month_day=(int(month_day[0]), int(month_day[1])) if month_day else None,
        events=tuple(events),
        egg=degree_days(egg) if egg else None,
        adult_before_eggs=degree_days(before) if before else None,
        source=reader.source(),
        catch=(int(catch[0]), int(catch[1])),
        crop_code=int(code) if code is not None else None,
        winter_stage=reader.one_of("winter_stage", (*STAGES, ""), ""),
        winter_after=(int(winter[0]), int(winter[1])) if winter else None,
        winter_below=reader.number("winter_below", None),
        catch_least=int(reader.number("catch_least", 1)),
        catch_nights=int(reader.number("catch_nights", 0)),
        error=reader.number("error") if events else judgement.MODEL_ERROR,
        region=reader.text("region") if events else "",
    )
    if heat.biofix == BiofixKind.CROP and heat.crop_code is None:
        raise reader.fail("a biofix by the crop needs its 'crop_code'")
    if bool(heat.winter_stage) != bool(heat.winter_after):
        raise reader.fail("'winter_stage' and 'winter_after' belong together")
    if events and all(event.stage not in (heat.winter_stage, "over") for event in events[-2:]):
        raise reader.fail(f"the year ends as {events[-2].stage}: end it as 'winter_stage' or with an event that is 'over'")
    if not 0 < heat.error < 0.5:
        raise reader.fail("'error' is a share between 0 and 0.5")
    reader.done()
    return heat
