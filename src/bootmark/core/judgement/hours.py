"""Hours to work in, and how long a block is closed after it. A label's own limits come first."""

from bootmark.core.limits import Around, Between, Limits

WIND = Limits(least=0.8, caution=4.0, most=5.5)
"""m/s. Air is still below the least, where drift hangs. Common practice, 2026-11-23."""
SPRAY_TEMPERATURE = Between(low=8.0, high=26.0)
"""degrees C. Between which is sprayed. Common practice, 2026-11-23."""
DRYING = Limits(least=2.0, caution=8.0, most=10.0)
"""degrees C of Delta T. Stays wet below the least. Common practice, 2026-11-23."""
RAIN_FREE_HOURS = 4
"""hours. Without rain after a spray. Common practice, 2026-11-23."""
RAIN_MM = 0.2
"""mm an hour. Above which it rains. Common practice, 2026-11-23."""
RELEASE_TEMPERATURE = Between(low=12.0, high=30.0)
"""degrees C. Between which natural enemies are released. Common practice, 2026-11-23."""
RELEASE_RAIN_FREE_HOURS = 1
"""hours. Without rain after a release. Common practice, 2026-11-23."""
EVENING_HOURS = Around(before=2, after=1)
"""hours. Before and after sunset that count as evening, when bees are home and light is left. Common practice, 2026-11-23."""
INVERSION_HOURS = Around(before=1, after=2)
"""hours. Before sunset and after sunrise between which cold air may lie near the ground. Common practice, 2026-11-26."""
INVERSION_WIND = 1.0
"""m/s. Wind that mixes it away. Common practice, 2026-11-26."""
OVERCAST = 0.7
"""share of the sky. Cloud from which the ground does not cool so far. Judgement, 2026-11-26."""
SURE_FORECAST = 72
"""hours. Ahead, beyond which an hour is told with its chance only. Judgement, 2026-11-26."""
WIND_ERROR, TEMPERATURE_ERROR = 0.5, 1.0
"""m/s and degrees C. By which forecasts of an hour err on the first day; with the root of the days after it. Judgement, 2026-11-26."""
LEAST_LEAD = 0.1
"""days. Ahead, at the least, for that error. Judgement, 2026-11-26."""
RAIN_UNFORETOLD = 0.04
"""chance a day ahead. Of rain in an hour foretold dry. Judgement, 2026-11-26."""
DAWN_MINUTES = 30
"""minutes. Before sunrise from which there is light enough. Common practice, 2026-11-23."""
UNKNOWN_REENTRY_HOURS = 48
"""hours after the end of a spray. Nobody is sent into a block while its interval is not known: longer than most labels close one, and the
sentence sends to the label. Judgement, 2026-11-26."""
DRYING_HOURS = 4
"""hours after the end of a spray. A block that is closed until the leaves are dry stays so at the least. Common practice, 2026-11-27."""
LONGEST_REENTRY_DAYS = 35
"""days. Looked back for sprays that may still close a block: labels close some work for thirty. Common practice, 2026-11-26."""
