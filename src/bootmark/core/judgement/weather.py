"""What a station's days say, and which of them are not to be believed."""

HOT_DAY = 25.0
"""degrees C. Maximum from which a day counts as hot. Common practice, 2026-11-23."""
WET_DAY = 1.0
"""mm. Rain from which a day counts as wet. Common practice, 2026-11-23."""
SOAKING = 2.0
"""mm. Rain that ends a drought. Common practice, 2026-11-23."""
WEEK_OF_RAIN_DAYS = 5
"""days. Wet among the last seven, from which it is a week of rain. Common practice, 2026-11-23."""
SHORT_GAP_DAYS = 3
"""days. That straight lines may fill. Judgement, 2026-11-23."""
OVERLAP_DAYS = 30
"""days. Both stations must have before one is filled from the other. Judgement, 2026-11-25."""
LEAST_DAYS_OF_A_YEAR = 300
"""days. From which a past year counts. Judgement, 2026-11-25."""
LEAST_DAYS_OF_NORMALS = 300
"""days. From which usual days can be told. Judgement, 2026-11-25."""
BLOCK_DAYS = 5
"""days. Of past years that are drawn in one piece, so that warm days stay together. Judgement, 2026-11-24."""
SMOOTH_DAYS = 15
"""days. To either side, over which heat is smoothed to tell a season's course from a warm day. Judgement, 2026-11-24."""
JITTER_DAYS = 9
"""days. By which a drawn piece may be shifted in the year, to either side. Judgement, 2026-11-23."""
MOST_WIDENED = 2.5
"""times. That few past years widen a forecast, at most. Judgement, 2026-11-24."""
DISTANCE_POWER = 2.0
"""power. Of the distance by which stations are weighed. Common practice, 2026-11-25."""
NEAREST_METRES = 50.0
"""m. Closer than which a station counts as standing on the spot. Judgement, 2026-11-25."""
SPIKE_SPREADS = 4.0
"""spreads. Off the usual from which a single reading looks wrong. Judgement, 2026-11-25."""
SPIKE_LEAST = 8.0
"""degrees C. Off the days beside it, at least, and beyond what these differ between themselves, for the same. Judgement, 2026-11-25."""
STUCK_DAYS = 3
"""days. With the same two extremes, from which a sensor looks stuck. Judgement, 2026-11-25."""
STUCK_HOURS = 8
"""hours. With the same reading, for the same. Judgement, 2026-11-25."""
UNIT_DAYS = 3
"""days. Running that fit better as Fahrenheit, from which the unit looks wrong. Judgement, 2026-11-25."""
UNIT_OFF = 12.0
"""degrees C. Off the usual that such days must be. Judgement, 2026-11-25."""
CLOCK_SWING = 4
"""degrees C. Between the coldest and the warmest hour, above which a day shows when it was warmest. Judgement, 2026-11-24."""
CLOCK_HOURS = 3.0
"""hours. Off the sun from which a station's clock looks wrong. Judgement, 2026-11-25."""
CLOCK_DAYS = 4
"""days. On which that must be so. Judgement, 2026-11-25."""
