"""How many natural enemies a release takes."""

STARVES = 0.012
"""share a degree-day C. Of hungry predators that die or leave without prey. Judgement, 2026-11-25."""
PATCHY = 0.8
"""exponent. Of the negative binomial by which enemies meet prey in patches; the smaller, the patchier. Judgement, 2026-11-26."""
CURE_RATIO, HOLD_RATIO = 10.0, 20.0
"""pests a predator. At the most, where a release is to cure and where it is to hold. Common practice, 2026-11-26."""
MOST_RELEASED = 20.0
"""predators a unit. Beyond which a release is no answer. Judgement, 2026-11-25."""
