"""When a control has its days, and how it is repeated."""

WINDOW_SHARE = 0.25
"""share. Of a population in a stage that a control kills, from which its window is open. Judgement, 2026-11-23."""
EVENT_SPAN = (0.04, 0.8)
"""share. Of a population past an event, between which a control bound to the event has its days. Judgement, 2026-11-23."""
EFFICACY = 0.9
"""share. Of those reached that a control kills, where nothing else is known. Judgement, 2026-11-25."""
GENERATION_PASSED = 0.9
"""share. Of a generation past its feeding, from which the next is the one to treat. Judgement, 2026-11-24."""
AHEAD_DAYS = 120
"""days. Ahead in which the best day of a control is looked for. Judgement, 2026-11-25."""
LEAST_GAP_DAYS = 3
"""days. Between two treatments of a programme, at least. Judgement, 2026-11-23."""
UNKNOWN_GAP_DAYS = 7
"""days. Between two uses of what is sprayed, where its label's days are not known. Common practice, 2026-11-26."""
LONGEST_STANDING = 90
"""days. Back from which a treatment may still be at work. Judgement, 2026-11-26."""
WASHED_OFF_MM = 25.0
"""mm. Of rain or water from overhead that wash off what lies on a leaf. Common practice, 2026-11-26."""
MOST_GAP_DAYS = 21
"""days. Between two treatments of a programme, at most. Judgement, 2026-11-23."""
