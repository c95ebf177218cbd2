"""What somebody asks of a station's heat: from which day, above what, and when which sums were reached."""

import datetime as dt
from typing import Any

from bootmark import say
from bootmark.core import units
from bootmark.core.units import Scale
from bootmark.services.base.command import Refused
from bootmark.services.weather import heat

MOST_ASKED, MOST_SUMS = 100_000, 12
USUAL = {
    Scale.CELSIUS: {"lower": "10", "upper": "31.1", "sums": "100, 250, 500"},
    Scale.FAHRENHEIT: {"lower": "50", "upper": "88", "sums": "200, 500, 1000"},
}
"""What stands in the question before anything is typed."""


def _number(text: str) -> float | None:
    """A number as somebody typed it; None where it is none, or beyond all heat."""
    try:
        value = float(text)
    except ValueError:
        return None
    return value if abs(value) <= MOST_ASKED else None


def question(form: Any) -> tuple[heat.Question, Scale]:
    """The heat question of a form, and the unit it speaks in. Raises Refused."""
    unit = Scale(form["unit"]) if form.get("unit") in tuple(Scale) else say.tongue().formats.scale
    errors: dict[str, str] = {}

    def number(name: str, default: str, needed: bool = True) -> float | None:
        text = (form.get(name, default) or "").strip()
        if not text and not needed:
            return None
        value = _number(text.replace(",", "."))
        if value is None:
            errors[name] = say.line(
                "{value} is not a number: write one up to {most_asked}.", value=text or say.line("Nothing"), most_asked=MOST_ASKED
            )
            return None
        return units.celsius(value) if unit == Scale.FAHRENHEIT else value

    usual = USUAL[unit]
    lower, upper = number("lower", usual["lower"]), number("upper", usual["upper"], needed=False)
    start = (form.get("start") or "03-01").strip()
    try:
        day = dt.date.fromisoformat(f"2001-{start}")
    except ValueError:
        errors["start"] = say.line("{start} is not a day of the year: write 03-01 for 1 March.", start=start)
        day = dt.date(2001, 3, 1)
    sums: list[float] = []
    for part in (form.get("sums") or usual["sums"]).replace(";", ",").split(","):
        value = _number(part)
        if value is None:
            errors["sums"] = say.line(
                "{value} is not a number: write sums parted by commas, for example 250, 1000.", value=part.strip() or say.line("Nothing")
            )
        else:
            sums.append(units.difference_celsius(value) if unit == Scale.FAHRENHEIT else value)
    if len(sums) > MOST_SUMS:
        errors["sums"] = say.line(
            "{count} sums are asked for and {most_sums} are the most: leave some out.", count=len(sums), most_sums=MOST_SUMS
        )
    if lower is not None and upper is not None and upper <= lower:
        errors["upper"] = say.line("The upper threshold must be above the lower one.")
    if errors or lower is None:
        raise Refused(**errors)
    return heat.Question(lower, upper, (day.month, day.day), tuple(sorted(sums))), unit


def total(celsius: float, unit: Scale) -> float:
    """A heat sum in the unit that was asked for."""
    return units.difference_fahrenheit(celsius) if unit == Scale.FAHRENHEIT else celsius


def sum_title(celsius: float, unit: Scale) -> str:
    """A heat sum as the head of its column, in the unit that was asked for."""
    return say.line("{sum:g} DD {unit}", sum=round(total(celsius, unit), 1), unit=unit)
