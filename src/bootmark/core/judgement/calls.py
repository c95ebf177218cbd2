"""The call on what has a name."""

PARASITISED_SHARE = 0.5
"""share. Of the animals counted, from which parasites end an attack; single ones do not. Common practice, 2026-11-26."""
DEAD_SHARE = 0.8
"""share. Of the animals counted, from which an attack counts as dead. Judgement, 2026-11-26."""
FINAL_SIGNS = 2
"""signs. Usual with a cause, that must have been seen before plants are pulled for it: one answer may be wrong. Judgement, 2026-11-26."""
UNPROVED_AT = 0.8
"""chance. From which a disorder that nothing can prove settles a case while looks are left. Judgement, 2026-11-26."""
DANGER_AT = 0.0005
"""chance. From which what can hurt people or stock is told once a sign of it fits. Judgement, 2026-11-26."""
UNKNOWN_DAYS = 7
"""days. To a clinic's answer to a sample. Common practice, 2026-11-26."""
PRESENT_SHARE = 0.1
"""share. Of a population from which a stage counts as present for a control. Judgement, 2026-11-23."""
LEAST_UNITS = 10
"""units. Below which natural enemies decide nothing. Common practice, 2026-11-25."""
MOST_HELD = 3.0
"""times the threshold. Above which no number of enemies is waited for: the plants are lost before them. Judgement, 2026-11-27."""
LEAST_ANIMALS = 10
"""animals. Pests and enemies together, below which their ratio is chance. Judgement, 2026-11-25."""
LEAVE_LOOK_DAYS = 7
"""days. To the next count where there are few. Common practice, 2026-11-23."""
CLOSE_LOOK_DAYS = 3
"""days. To a larger count where the limits lie on both sides of the threshold. Judgement, 2026-11-24."""
THRESHOLD_SOON_DAYS = 7
"""days. Within which a threshold that is coming shortens the wait. Judgement, 2026-11-23."""
HELPED_LOOK_DAYS = 5
"""days. To the next count of both where natural enemies hold a pest. Judgement, 2026-11-24."""
OVER_LOOK_DAYS = 14
"""days. To a look for fresh damage, or for the next generation, where this one is over. Common practice, 2026-11-24."""
HARMLESS_LOOK_DAYS = 28
"""days. To the next look at what does no harm. Common practice, 2026-11-23."""
RELEASE_MOST = 3.0
"""times the threshold. Above which a release comes too late and the numbers are brought down first. Judgement, 2026-11-26."""
PICKING_LASTS_DAYS = 120
"""days. After the day of a picking, beyond which it was last season's and tells nothing of the next. Judgement, 2026-11-26."""
HARVEST_NEAR_DAYS = 14
"""days. To the harvest, within which picking first is the way out where no control fits. Judgement, 2026-11-23."""
UNKNOWN_HARVEST_DAYS = 3
"""days. So near to harvest nothing is offered of which the interval is not known. Judgement, 2026-11-26."""
ADVISER_DAYS = 2
"""days. To an adviser's answer where no control fits. Common practice, 2026-11-24."""
INSTEAD_LOOK_DAYS = 7
"""days. To the next look after a call that was made against the rules. Common practice, 2026-11-27."""
LEAST_WHY = 10
"""letters. Of a reason for a call against the rules: less is none. Judgement, 2026-11-27."""
