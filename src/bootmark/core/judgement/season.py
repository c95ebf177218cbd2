"""Where a population and its plants stand in the year."""

DAYS_A_NODE = (3.0, 4.0, 5.0)
"""days. From one soybean node to the next: the fewest, the usual, the most. Common practice, 2026-11-25."""
MODEL_ERROR = 0.08
"""share. Of a model's sums by which they are off from year to year, one standard deviation, where its entry tells no other. Judgement,
2026-11-26."""
WITHIN_BLOCK = 15.0
"""degree-days C. Between the plants of a block that come to a stage, one standard deviation. Judgement, 2026-11-26."""
WIDE_ERROR, LEAST_ERROR = 0.12, 0.01
"""share. Of a model's sums, where sightings alone are to tell how far a year was off, and the least error of what they tell. Judgement,
2026-11-26."""
NO_PAST_YEAR = 1.5
"""times. A model's error where no past year of the place is known. Judgement, 2026-11-26."""
QUANTILES = {"first": 0.05, "tenth": 0.1, "half": 0.5, "peak": 0.5, "most": 0.9}
"""share. Of a population that has come to an event when a work tells it so: the first that a scout sees are not the first of all, and a
flight peaks when half of it has come. Judgement, 2026-11-26."""
COLD_MONTH, COLD_DAYS = 15.0, 30
"""degrees C. Mean of the coldest days running, of so many, above which there is no winter for what counts on one. Judgement, 2026-11-26."""
TENTH = 1.2816
"""standard deviations. From the middle of a normal to its tenth. Common practice, 2026-11-26."""
STIRS, STIRS_DAYS = 1.0, 15
"""degree-days C a day. Of the middle course, smoothed over so many days, from which anything moves that could be treated. Judgement,
2026-11-26."""
SECOND_GENERATION = 0.15
"""share. Of the population in a stage that a control kills and of another generation, from which heat tells no window. Judgement,
2026-11-26."""
WINTERING = 60.0
"""degree-days C. In which grown animals that winter leave for their winter places. Judgement, 2026-11-26."""
BIOFIX_SPREAD = 10.0
"""degree-days C. By which a biofix may be off, one standard deviation: a day or two in spring. Judgement, 2026-11-25."""
GOES_ON = 0.001
"""share a day. Of a population that comes to an event, below which the event has stopped. Judgement, 2026-11-26."""
WINDOW_NEAR_DAYS = 14
"""days. Before a window opens, from which it calls for somebody. Judgement, 2026-11-25."""
SEASON_DAYS = 300
"""days. Back from which a biofix, a sighting or a catch still belongs to this season. Judgement, 2026-11-25."""
CLUMPED = 0.05
"""correlation. Of stages within a sample: animals on one plant are often of one brood. Judgement, 2026-11-25."""
PACE_DAYS = 7
"""days. Before a sighting, from whose heat degree-days are told in days. Judgement, 2026-11-26."""
ODD_SIGHTING = 0.02
"""chance. Of a sample as odd as what was seen, below which the name or the biofix is asked about. Judgement, 2026-11-26."""
MISREAD = 0.01
"""chance. That an animal is put down under each stage whatever it is. Judgement, 2026-11-25."""
REFERENCE = 22.0
"""degrees C. At which the curve gives what the straight line gives: the middle of what life tables are fitted on. Judgement,
2026-11-25."""
TROPICS = 23.5
"""degrees. Latitude below which plants flower and fruit in any month. Common practice, 2026-11-26."""
TEMPERATE = 50.0
"""degrees. Latitude for which the catalogue's months of flower and fruit stand. Judgement, 2026-11-26."""
DAYS_A_DEGREE = 4.0
"""days. How much later spring comes with each degree of latitude, Hopkins (1920) from memory. Judgement, 2026-11-26."""
DAYS_A_MONTH = 30.4
"""days. In a month, to move months by days. Common practice, 2026-11-26."""
AUTUMN = 9
"""month. From which on what comes later in the south comes earlier in the north. Judgement, 2026-11-26."""
WINTER_MONTHS = frozenset({12, 1, 2})
"""months. Of winter in the north, in which wood is bare. Common practice, 2026-11-27."""
BEFORE_PLANTING_DAYS = 60
"""days. Before planting, in which the soil is looked at and baited. Common practice, 2026-11-27."""
