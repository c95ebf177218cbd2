"""One line of a case: read strictly, with a message that names what is wrong and what would be right."""

import datetime as dt
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field, fields
from typing import Any

from bootmark.core.catalogue import Catalogue
from bootmark.core.catalogue.plants import Understood, understand
from bootmark.core.catalogue.reader import nearest
from bootmark.core.meanings import ControlKind, Measure, Place, Spell
from bootmark.core.types import STATES, Case, CropState, Policy, Sample

MONTH_UNTOLD = 6


class Wrong(ValueError):
    """What is wrong with a line, in a sentence."""


@dataclass(frozen=True)
class CaseLine:
    """A case as it was told. The fields are those of docs/case.md."""

    crop: str
    id: Any = None
    place: str = ""
    month: int = 0
    date: str = ""
    country: str = ""
    latitude: float | None = None
    weather: Mapping[str, int] = field(default_factory=dict)
    history: Mapping[str, int] = field(default_factory=dict)
    signs: Mapping[str, str] = field(default_factory=dict)
    tools: tuple[str, ...] | None = None
    counts: Mapping[str, Mapping[str, Any]] = field(default_factory=dict)
    policy: Mapping[str, Any] = field(default_factory=dict)
    days_to_harvest: int | None = None
    in_flower: bool = False


@dataclass(frozen=True)
class AskedCase:
    """A line understood: the case, what the call needs besides, and how the crop's words were taken."""

    id: Any
    case: Case
    plant: Understood
    crop: CropState
    policy: Policy
    samples: Mapping[str, Sample]
    month_given: bool


def _choose(word: Any, allowed: Iterable[str], what: str) -> str:
    words = list(allowed)
    if word not in words:
        raise Wrong(f"{word!r} is not {what}{nearest(str(word), words)}")
    return str(word)


def _whole(value: Any, least: int, most: int, what: str) -> int:
    if isinstance(value, bool) or not isinstance(value, int) or not least <= value <= most:
        raise Wrong(f"{what} must be a whole number from {least} to {most}, not {value!r}")
    return value


def _line(raw: Any) -> CaseLine:
    if not isinstance(raw, dict):
        raise Wrong('a line must be an object, as {"crop": "rose", "signs": {}}')
    names = [entry.name for entry in fields(CaseLine)]
    for key in raw:
        _choose(key, names, "a key of a case")
    if not isinstance(raw.get("crop"), str) or not raw["crop"].strip():
        raise Wrong("'crop' must be the plant in words")
    for key in ("weather", "history", "signs", "counts", "policy"):
        if not isinstance(raw.get(key, {}), dict):
            raise Wrong(f"{key!r} must be an object")
    return CaseLine(**{key: value for key, value in raw.items() if value is not None})


def _month(line: CaseLine) -> int:
    if line.date:
        try:
            return dt.date.fromisoformat(str(line.date)).month
        except ValueError as error:
            raise Wrong(f"'date' must be a day as 2026-06-18, not {line.date!r}") from error
    return _whole(line.month, 1, 12, "'month'") if line.month else 0


def _signs(line: CaseLine, catalogue: Catalogue) -> dict[str, str]:
    return {
        _choose(sign, catalogue.signs, "a sign"): _choose(state, STATES, "what can be told of a sign") for sign, state in line.signs.items()
    }


def _samples(line: CaseLine, catalogue: Catalogue) -> dict[str, Sample]:
    samples = {}
    for agent, counted in line.counts.items():
        _choose(agent, [*catalogue.agents, *catalogue.aliases], "an agent")
        if not isinstance(counted, dict) or not isinstance(counted.get("counts"), list):
            raise Wrong(f"the counts of {agent} must be an object with a list 'counts'")
        _choose(counted.get("measure", Measure.MEAN), tuple(Measure), "a measure")
        try:
            samples[catalogue.agent(agent).id] = Sample.of(counted)
        except (TypeError, ValueError) as error:
            raise Wrong(f"the counts of {agent}: {error}") from error
    return samples


def _policy(line: CaseLine) -> Policy:
    kinds = tuple(ControlKind)
    order, refuses = (
        [ControlKind(_choose(kind, kinds, "a kind of control")) for kind in line.policy.get(name, ())] for name in ("order", "refuses")
    )
    return Policy(tuple(order) if "order" in line.policy else None, frozenset(refuses))


def read(raw: Any, catalogue: Catalogue) -> AskedCase:
    """A line as a case. Raises Wrong with what is wrong and what may have been meant."""
    line = _line(raw)
    plant = understand(line.crop, catalogue)
    entry = catalogue.crops.get(plant.plant.crop) if plant.plant and plant.plant.crop else None
    place = _choose(line.place, tuple(Place), "a place") if line.place else (entry.place if entry else Place.BED)
    month = _month(line)
    south = line.latitude is not None and line.latitude < 0
    harvest = None if line.days_to_harvest is None else _whole(line.days_to_harvest, 0, 1000, "'days_to_harvest'")
    case = Case(
        crop=entry.id if entry else line.crop.strip(),
        place=place,
        month=month or MONTH_UNTOLD,
        hemisphere="south" if south else "north",
        weather={_choose(spell, tuple(Spell), "a spell"): _whole(days, 0, 1000, spell) for spell, days in line.weather.items()},
        signs=_signs(line, catalogue),
        history={_choose(agent, catalogue.agents, "an agent"): _whole(times, 0, 1000, agent) for agent, times in line.history.items()},
        tools=None if line.tools is None else frozenset(map(str, line.tools)),
        family="" if entry or not plant.plant else plant.plant.family,
        habit="" if entry or not plant.plant else plant.plant.habit,
        region=line.country,
    )
    crop = CropState(
        case.crop, harvest, bool(line.in_flower), month, case.hemisphere, line.country, case.habit or (entry.habit if entry else "")
    )
    return AskedCase(line.id, case, plant, crop, _policy(line), _samples(line, catalogue), bool(month))
