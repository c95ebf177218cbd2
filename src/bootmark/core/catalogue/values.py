"""Every value of an entry with what it rests on, so that a person can see the source of each."""

from collections.abc import Iterator
from dataclasses import dataclass
from enum import StrEnum

from bootmark.core.catalogue.model import Agent, Catalogue


class ValueGroup(StrEnum):
    """What a value is about, in the order in which the Guide lists them."""

    TEXT = "text and season"
    HOSTS = "hosts"
    LIFE = "life and year"
    HEAT = "heat model"
    EVENTS = "dates by heat"
    SIGNS = "signs"
    SAMPLING = "counting"
    THRESHOLDS = "thresholds"
    ENEMIES = "natural enemies"
    CONTROLS = "controls"


@dataclass(frozen=True)
class Value:
    """One value. name: what it is of, in the catalogue's own words; number: as it stands there, empty where it is no number."""

    group: ValueGroup
    name: str
    number: str
    source: str


def values_of(agent: Agent, catalogue: Catalogue) -> Iterator[Value]:
    """Each value of an agent that has a source of its own."""
    yield Value(ValueGroup.TEXT, agent.name, "", agent.source)
    yield Value(ValueGroup.HOSTS, agent.name, "", agent.hosts_source)
    yield Value(ValueGroup.LIFE, agent.name, "", agent.life_source)
    heat = agent.heat
    if heat:
        span = f"{heat.lower:.1f} °C" if heat.upper is None else f"{heat.lower:.1f} to {heat.upper:.1f} °C"
        yield Value(ValueGroup.HEAT, heat.biofix_name, span, heat.source)
        for event in (event for event in heat.events if event.foretold):
            yield Value(ValueGroup.EVENTS, event.name, f"{event.at:.0f} ± {event.spread:.0f} DD C", event.source)
    for sign, shows in agent.shows.items():
        yield Value(ValueGroup.SIGNS, catalogue.signs[sign].name, shows.often, shows.source)
    if agent.sampling:
        yield Value(ValueGroup.SAMPLING, agent.sampling.unit, str(agent.sampling.units), agent.sampling.source)
    for threshold in agent.thresholds:
        yield Value(ValueGroup.THRESHOLDS, threshold.unit, f"{threshold.value:g}", threshold.source)
    for enemy in agent.enemies:
        yield Value(ValueGroup.ENEMIES, enemy.name, f"{enemy.ratio:g}", enemy.source)
    for control in agent.controls:
        yield Value(ValueGroup.CONTROLS, control.name, control.group, control.source)
