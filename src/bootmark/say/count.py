"""What the tally shows of a count so far."""

import math

from bootmark.core.field.count import side
from bootmark.core.meanings import Measure, Side
from bootmark.core.types import Interval
from bootmark.say.terms import TERMS
from bootmark.say.text import By
from bootmark.say.tongue import Tongue

TITLES = {Side.BELOW: "Enough: too few to matter", Side.ABOVE: "Enough: it matters", Side.BETWEEN: "Keep counting"}
TEXTS = {
    Side.BELOW: "The whole band lies below the threshold.",
    Side.ABOVE: "The whole band lies above the threshold.",
    Side.BETWEEN: "The limits lie on both sides of the threshold.",
}
MEAN = By(
    "open",
    {"yes": "{estimate:tally} for each {unit} ({low:tally} to any number) on {units}"},
    "{estimate:tally} for each {unit} ({low:tally} to {high:tally}) on {units}",
)
SHARE = "{estimate:percent} ({low:percent} to {high:percent}) of {units}, by {unit}"


def reading(
    tongue: Tongue, estimate: Interval, ratio: float | None, unit: str, measure: Measure, threshold: float | None
) -> dict[str, str]:
    """Texts of a count so far. ratio: natural enemies for each pest, None where they were not counted; threshold: None for none."""
    lies = side(estimate, threshold) if threshold is not None else None
    facts = {"estimate": estimate.estimate, "low": estimate.low, "high": estimate.high, "units": estimate.units, "unit": unit}
    open_ended = {"open": "yes" if math.isinf(estimate.high) else "no"}
    return {
        "title": tongue.line(TITLES[lies] if lies else "Counted"),
        "text": tongue.line(TEXTS[lies]) if lies else "",
        "summary": tongue.fill(SHARE if measure == Measure.PROPORTION else MEAN, facts | open_ended),
        "ratio_text": _ratio(tongue, ratio),
        "method": tongue.line(TERMS[type(estimate.method)][estimate.method]),
    }


def _ratio(tongue: Tongue, ratio: float | None) -> str:
    if ratio is None:
        return tongue.line("Not counted yet.")
    return tongue.line("Only helpers were found.") if math.isinf(ratio) else tongue.line("{ratio:2}", ratio=ratio)
