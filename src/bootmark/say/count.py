"""What the tally shows of a count so far."""

import math

from bootmark.core.field.stopping import Rule, Word
from bootmark.core.meanings import Chosen, Measure, Side
from bootmark.core.types import Interval, Sample
from bootmark.say.terms import TERMS
from bootmark.say.text import By
from bootmark.say.tongue import Tongue

TITLES = {Side.BELOW: "Enough: too few to matter", Side.ABOVE: "Enough: it matters", Side.BETWEEN: "Keep counting"}
ENDS = {Side.BELOW: "The plan ends: likelier too few", Side.ABOVE: "The plan ends: likelier it matters"}
TEXTS = {
    Side.BELOW: "The count lies below both lines.",
    Side.ABOVE: "The count lies above both lines.",
    Side.BETWEEN: "The count lies between the lines.",
}
UNTOLD = {
    Chosen.PICKED: "Picked because they looked bad: kept, and held against no threshold.",
    Chosen.ALL: "All that there are: this is the truth.",
}
MEAN = By(
    "open",
    {"yes": "{estimate:tally} for each {unit} ({low:tally} to any number) on {units}"},
    "{estimate:tally} for each {unit} ({low:tally} to {high:tally}) on {units}",
)
MEAN_OF_ALL, SHARE_OF_ALL = "{estimate:tally} for each {unit}, on all {units}", "{estimate:percent} of all {units}, by {unit}"
SHARE = "{estimate:percent} ({low:percent} to {high:percent}) of {units}, by {unit}"

SUMMARIES: dict[tuple[bool, bool], str | By] = {
    (False, False): MEAN,
    (True, False): SHARE,
    (False, True): MEAN_OF_ALL,
    (True, True): SHARE_OF_ALL,
}
"""Of a count, by whether it is a share, and whether all that there are were counted."""


def reading(
    tongue: Tongue,
    estimate: Interval,
    ratio: float | None,
    unit: str,
    sample: Sample,
    word: Word | None,
    rule: Rule | None,
) -> dict[str, str]:
    """Texts of a count so far. ratio: natural enemies for each pest, None where they were not counted; word: what the count says
    against its threshold, and rule by which, None where nothing does."""
    facts = {"estimate": estimate.estimate, "low": estimate.low, "high": estimate.high, "units": estimate.units, "unit": unit}
    open_ended = {"open": "yes" if math.isinf(estimate.high) else "no"}
    title, text = _word(tongue, sample, word, rule)
    return {
        "title": title,
        "text": text,
        "summary": tongue.fill(SUMMARIES[sample.measure == Measure.PROPORTION, sample.chosen == Chosen.ALL], facts | open_ended),
        "ratio_text": _ratio(tongue, ratio),
        "method": tongue.line(TERMS[type(estimate.method)][estimate.method]),
    }


def _word(tongue: Tongue, sample: Sample, word: Word | None, rule: Rule | None) -> tuple[str, str]:
    """The title and what stands under it."""
    if sample.chosen == Chosen.PICKED:
        return tongue.line("Counted"), tongue.line(UNTOLD[Chosen.PICKED])
    if word is None:
        return tongue.line("Counted"), ""
    if sample.chosen == Chosen.ALL:
        return tongue.line(TITLES[word.side]), tongue.line(UNTOLD[Chosen.ALL])
    if rule and len(sample.counts) < rule.least:
        return tongue.line("Keep counting"), tongue.line("Nothing is told below {least}.", least=rule.least)
    if word.ended:
        return tongue.line(ENDS[word.side]), tongue.line("It is too close to tell for sure: this costs less if it is wrong.")
    if rule is None:
        return tongue.line(TITLES[word.side]), ""
    return tongue.line(TITLES[word.side]), tongue.line(TEXTS[word.side])


def _ratio(tongue: Tongue, ratio: float | None) -> str:
    if ratio is None:
        return tongue.line("Not counted yet.")
    return tongue.line("Only helpers were found.") if math.isinf(ratio) else tongue.line("{ratio:2}", ratio=ratio)
