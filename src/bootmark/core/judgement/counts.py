"""Counts that may stop, and what they say."""

WRONG_MATTERS = 0.05
"""chance. How often a count may say that it matters at half the threshold. Judgement, 2026-11-27."""
WRONG_FEW = 0.02
"""chance. How often a count may say that there are too few at twice the threshold: a missed pest costs more than a look too many.
Judgement, 2026-11-27."""
LINE_WRONG_MATTERS = 0.05
"""chance. The first of these errors as the lines are drawn; by simulation (bench/count.py). Judgement, 2026-11-27."""
LINE_WRONG_FEW = 0.013
"""chance. The second: the end of the plan takes its part of it; by simulation (bench/count.py). Judgement, 2026-11-27."""
PLAN_ENDS = 1.3
"""times the fixed plan of equal errors. After that a count ends without certainty. Judgement, 2026-11-27."""
SEQUENTIAL_SHARE = 0.6
"""share of the fixed plan. What a sequential count takes on average; by simulation (bench/count.py). Judgement, 2026-11-27."""
END_OF_PLAN = -1.1
"""logarithm of likelihoods. From which on the end of a plan says that it matters: a missed pest costs about three times a look
too many. Judgement, 2026-11-27."""
COMMON_TAYLOR = (3.0, 1.5)
"""a and b of Taylor's law. For pests without their own: in the middle of those known of mites and insects. Judgement, 2026-11-27."""
SHARE_ALIKE = 0.05
"""correlation. Between units of one plant in whether they have it: damaged fruit of one tree. Judgement, 2026-11-27."""
AGES_LEAST, LARGE_SHARE = 10, 0.5
"""animals and share. Told apart by their age, from which their ages say anything; of them large, above which what works on small ones comes
too late. Common practice, 2026-11-27."""
TAYLOR_SAMPLES = 12
"""samples. Of a farm's own from which a law of clumping is fitted. Judgement, 2026-11-27."""
TAYLOR_WIDE = 0.5
"""standard deviation of logarithms. By how much the means of those samples must differ. Judgement, 2026-11-27."""
HEAPED_CHANCE = 0.025
"""chance. Of a pattern as heaped from animals that are strewn at random, below which a hot spot is told. Judgement, 2026-11-27."""
SPOT_SHARE, SPOT_MARGIN = 0.34, 1.2
"""share and times. Of points that are hot at the most, for a spot to be treated alone; of the distance between points that its margin is
wide. Judgement, 2026-11-27."""
TERM_UNSURE = 0.25
"""share. By which each term of an injury level may be wrong, to show what it hangs on. Judgement, 2026-11-27."""
DAY_PARTS = {"morning": (5, 11), "evening": (17, 22), "night": (21, 5)}
"""local hours, from the first up to the last. In which a count of a part of the day holds. Common practice, 2026-11-27."""
