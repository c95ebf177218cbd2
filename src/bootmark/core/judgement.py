"""Every number of the core that somebody judged: no work is known that gives it. A label, an adviser or a trial may say otherwise.

Beneath each: its unit, what it decides, whether it is judgement or common practice, and since when it stands so. A change of one changes
the rules' version, so that what rests on it is made again. Numbers of one pest stand in the catalogue, published ones beside their
source.
"""

from bootmark.core.limits import Around, Between, Limits

# What a plant shows, and what it may be

HOW_OFTEN = {"always": 0.97, "usual": 0.75, "sometimes": 0.35, "seldom": 0.08, "never": 0.0}
"""chance. That a sign is there when its agent is. The words are the catalogue's; the numbers only keep their order and rough distance.
Judgement, 2026-11-23."""
MISTAKEN = {"hardly": 0.0003, "seldom": 0.01, "sometimes": 0.04, "often": 0.1}
"""chance. That a sign is told as seen where it is not: a colony under the lens hardly ever, a curled leaf often. Judgement, 2026-11-26."""
OVERLOOKED = {"hardly": 0.01, "seldom": 0.04, "sometimes": 0.1, "often": 0.25}
"""chance. That a sign is told as absent where it is: a mound hardly ever, an egg by eye often. Judgement, 2026-11-26."""
HOW_USUAL = {"often": 0.12, "sometimes": 0.05, "seldom": 0.015, "rarely": 0.004}
"""chance. That an agent is at work, before looking, on a host plant that caught the eye. Judgement, 2026-11-23."""
LESS_USUAL = {"often": "sometimes", "sometimes": "seldom", "seldom": "rarely", "rarely": "rarely"}
"""step. How usual another of a kind is beside a member with an entry, or an agent on an unlisted plant of the same family. Judgement,
2026-11-24."""
ALIKE = {"often": "seldom", "sometimes": "seldom", "seldom": "rarely", "rarely": "rarely"}
"""step. How usual an animal is on a plant that is only like the one of which it is said. Judgement, 2026-11-26."""
ALIKE_ILL = "rarely"
"""step. How usual a disease is there: most keep to their own plants. Judgement, 2026-11-26."""
TELLS_APART = 0.25
"""chance. A sign tells agents apart where its chances differ by this much. Judgement, 2026-11-24."""
KIND_OF_MANY = 1.5
"""factor. All members of a kind together are on a plant at most so many times as often as its most usual one. Judgement, 2026-11-26."""
MEAN_CAUSES = 1.5
"""agents. That do harm, on average, on a plant that caught the eye; where a list adds up to more, the odds of them all are lowered alike.
Judgement, 2026-11-26."""
OUT_OF_SEASON = 0.15
"""factor. How much rarer an agent is outside its months. Judgement, 2026-11-23."""
OUT_OF_SEASON_UNDER_COVER = 0.5
"""factor. The same in a tunnel or a greenhouse, where seasons run on. Judgement, 2026-11-24."""
NOT_NOW_SHARE = 0.05
"""share. Of a population in a stage that does harm, below which this year's heat says that it is not its time. Judgement, 2026-11-24."""
NOW_SHARE = 0.5
"""share. Of the same, above which this year's heat speaks for it. Judgement, 2026-11-24."""
HINT_DAYS = 5
"""days. Of a spell, from which it speaks for what it favours. Judgement, 2026-11-23."""
HISTORY_CAP = 3
"""cases. Of earlier years on a block that count; more say no more. Judgement, 2026-11-23."""

# Naming

NAMED_AT = 0.75
"""chance. From which an agent with a confirming sign is named. Judgement, 2026-11-24."""
NAMED_MARGIN = 3.0
"""times. As likely as each rival for its confirming sign an agent must be to be named. Judgement, 2026-11-24."""
SETTLED_AT = 0.7
"""chance. From which a disease, a disorder or what is normal settles a case. Judgement, 2026-11-23."""
PESTS_LEFT = 1 - SETTLED_AT / 1.5
"""chance. That any pest is at work, up to which what else settles a case may say so. Judgement, 2026-11-24."""
RARE_PEST = 0.02
"""chance. Below which a pest does not stand in the way of that. Judgement, 2026-11-24."""
REPORTED_AT = 0.3
"""chance. From which a notifiable agent with a confirming sign must be reported. Judgement, 2026-11-24."""
ANSWERED = 0.99
"""chance. That a clinic's or an authority's answer is right. Judgement, 2026-11-26."""
LISTED_AT = 1e-3
"""chance. From which an explanation is listed by itself. Judgement, 2026-11-24."""

LEADS_CLEARLY = 0.06
"""chance. That any of a kind is at work, from which the look that would prove it comes first. Tried in bench, 2026-11-26."""
SAMPLED_AT = 0.5
"""chance. From which a sample is sent where no look in the field can prove what leads. Judgement, 2026-11-26."""
UNKNOWN_AT = 0.5
"""chance. That nothing listed is at work, from which live animals that nobody explains mean a cause not known. Judgement, 2026-11-26."""
NOTHING_AT = 0.85
"""chance. That nothing listed is at work, from which it is said where no look could prove what leads. Judgement, 2026-11-26."""
STILL_TELLS = 0.25
"""bits. That a look is still expected to tell, from which no case is given up before it is taken. Judgement, 2026-11-26."""
SPECIES_SHARE = 0.6
"""share. Of its kind's chance, from which one agent stands for the kind where it is told of. Judgement, 2026-11-26."""

BESIDE_AT = 0.5
"""chance. From which a second cause is told of beside one that is named. Judgement, 2026-11-26."""

# Which look is next

HANDLING_SECONDS = 60
"""seconds. That any look costs besides its own: to walk up, kneel, take the tool out, tell the answer. Judgement, 2026-11-24."""
WORTH_A_LOOK = 0.02
"""bits. Below which a look is not worth its walk. Judgement, 2026-11-24."""
LEADS = 10.0
"""bits. That a whole chance of leading with an agent that is at work is worth. Tried in bench, 2026-11-25."""
THE_CALL = 0.1
"""factor. What a bit about the call, or a chance to confirm the leader, counts for beside the chance of leading rightly. Tried in bench,
2026-11-25."""
REST_TELLS = 0.6
"""share. Of what each further sign of a look tells by itself, that those asked before have not told. Judgement, 2026-11-24."""
UNLIKELY = 3e-4
"""chance. Below which a set of causes is not asked about. Judgement, 2026-11-24."""
CHANGES_THE_CALL = 0.1
"""share. Of what the best look says about the call, from which a look may change it. Judgement, 2026-11-25."""
SPLITS = 0.1
"""chance. Between the first and the last of the suspects, from which a sign is said to tell them apart. Judgement, 2026-11-24."""
NIGHT = (21, 5)
"""hours. From and until which looks of the night are asked for. Common practice, 2026-11-24."""

# The call

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

TALL_METRES = 3.0
"""metres. From which plants are higher than what is at hand may reach: it is asked how high that is. Judgement, 2026-11-27."""
DISRUPTED_HECTARES = 2.0
"""hectares. On which dispensers keep the sexes apart at the least: on smaller ones pairs come in from beside. Common practice,
2026-11-27."""
HAND_METRES = 5.0
"""metres. Up to which plants are reached from the ground with a pole, a hose or a net. Judgement, 2026-11-27."""
LINE_NEAR_METRES = 10.0
"""metres. From a line overhead, within which nobody raises anything long. Common practice, 2026-11-27."""
STORM_MM, STORM_WIND, STORM_DAYS = 40.0, 17.0, 3
"""mm of rain a day, m/s of wind, days ahead. From which a storm is foretold: wind of force 8. Common practice, 2026-11-27."""
WEAK_STALKS = 0.1
"""share. Of stalks that give way when they are pushed, from which the field is harvested before others. Common practice, 2026-11-27."""
HOLED_FRUIT = 0.05
"""share. Of ripening fruit with holes, from which it is picked before more is lost. Judgement, 2026-11-27."""
CONDITION_DAYS = 10
"""days. In which a trial of stalks, or a look at fruit and leaves, says something of today. Judgement, 2026-11-27."""
LEAF_LOSS = {"soybean": (0.3, 0.2), "potato": (0.2, 0.1), "sugar-beet": (0.25, 0.25), "cabbage": (0.3, 0.1), "bean": (0.3, 0.15)}
"""shares. Of leaf lost before flowering or heading and from then on, above which a yield suffers. Common practice, 2026-11-27."""
INSTEAD_LOOK_DAYS = 7
"""days. To the next look after a call that was made against the rules. Common practice, 2026-11-27."""
LEAST_WHY = 10
"""letters. Of a reason for a call against the rules: less is none. Judgement, 2026-11-27."""

# The walk

CALM_RHYTHM_DAYS = 7
"""days. Between looks at a block. Common practice, 2026-11-23."""
FAST_RHYTHM_DAYS = 3
"""days. Between looks in a hot dry spell, in which mites double in days. Common practice, 2026-11-23."""
FAST_SPELL_DAYS = 5
"""days. Of a hot dry spell from which that holds. Judgement, 2026-11-23."""
WINDOW_SOON_DAYS = 6
"""days. Before a control's window opens, from which its block is on the walk. Judgement, 2026-11-23."""
WINDOW_CLOSES_DAYS = 3
"""days. Before a window closes, from which a day late costs most. Judgement, 2026-11-27."""
GROWS_SOON_DAYS = 3
"""days. Before what was counted passes its threshold, from which its block is on the walk. Judgement, 2026-11-27."""
CHANCE_RETURN, CHANCE_CASE, CHANCE_OPEN, CHANCE_SOON, CHANCE_NEVER = 0.6, 0.5, 0.35, 0.2, 0.25
"""chances that a decision is due. By a booked look, a case without a name, a window that is open, one that comes, a block that nobody has
looked at. Judgement, 2026-11-27."""
CHANCE_TRAP, CHANCE_UNSEEN, CHANCE_GROWS = (0.12, 0.22), (0.1, 0.4), (0.8, 0.4)
"""chances, least and most, or near and far. By a trap that is due, a rhythm that is over, what grows towards its threshold. Judgement,
2026-11-27."""
CHANCE_HISTORY, CHANCE_NEXT_DOOR, CHANCE_ASKED = 0.12, 0.25, 0.01
"""chances. By what was proved here in these weeks of earlier years, or beside it lately, and by the scout's wish alone. Judgement,
2026-11-27."""
CHANCE_A_DAY, CHANCE_MOST = 0.02, 0.95
"""chance. That each day late adds, and the most. Judgement, 2026-11-27."""
COST_LATER = 0.85
"""share of the worst. What a day late costs where there are days left. Judgement, 2026-11-27."""
HISTORY_DAYS, BESIDE_METRES = 15, 120.0
"""days and metres. To either side in earlier years; from middle to middle of blocks. Judgement, 2026-11-27."""
LURE_DAYS = 42
"""days. That a lure lasts where its label says nothing else. Common practice, 2026-11-25."""
CHECK_DAYS = 3
"""days. Between readings of a trap where nobody said. Common practice, 2026-11-25."""
DAYS_A_NODE = (3.0, 4.0, 5.0)
"""days. From one soybean node to the next: the fewest, the usual, the most. Common practice, 2026-11-25."""

# The season

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
WINDOW_SHARE = 0.25
"""share. Of a population in a stage that a control kills, from which its window is open. Judgement, 2026-11-23."""
EVENT_SPAN = (0.04, 0.8)
"""share. Of a population past an event, between which a control bound to the event has its days. Judgement, 2026-11-23."""
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
STARVES = 0.012
"""share a degree-day C. Of hungry predators that die or leave without prey. Judgement, 2026-11-25."""
PATCHY = 0.8
"""exponent. Of the negative binomial by which enemies meet prey in patches; the smaller, the patchier. Judgement, 2026-11-26."""
CURE_RATIO, HOLD_RATIO = 10.0, 20.0
"""pests a predator. At the most, where a release is to cure and where it is to hold. Common practice, 2026-11-26."""
MOST_RELEASED = 20.0
"""predators a unit. Beyond which a release is no answer. Judgement, 2026-11-25."""
REFERENCE = 22.0
"""degrees C. At which the curve gives what the straight line gives: the middle of what life tables are fitted on. Judgement,
2026-11-25."""

# Weather

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

# Hours to work in. A label's own limits come first

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

MORE_DOUBT = 1.4
"""times the catalogue's chance of a wrong answer. It is reasoned with so much: who walks in rain errs more often than that,
and the chances that are stated hold for half, once and twice as many slips. Tried in bench, 2026-11-26."""
MOST_MISTAKEN, MOST_OVERLOOKED = 0.25, 0.4
"""chance of a wrong answer. Beyond which more doubt would make an answer worth nothing. Judgement, 2026-11-26."""

UNKNOWN_REENTRY_HOURS = 48
"""hours after the end of a spray. Nobody is sent into a block while its interval is not known: longer than most labels close one, and the
sentence sends to the label. Judgement, 2026-11-26."""
DRYING_HOURS = 4
"""hours after the end of a spray. A block that is closed until the leaves are dry stays so at the least. Common practice, 2026-11-27."""
LONGEST_REENTRY_DAYS = 35
"""days. Looked back for sprays that may still close a block: labels close some work for thirty. Common practice, 2026-11-26."""

# Counts that may stop

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

PHOTO_DARK = 0.05
"""share of full light. Of the ground, linear, below which a picture is too dark. Tried in bench, 2026-11-27."""
PHOTO_HUE, PHOTO_SHADE = 0.16, 0.3
"""shares. By which a point's colour may differ from the ground's, and how much of its light a shadow leaves. Tried in bench, 2026-11-27."""
PHOTO_PLAIN, PHOTO_ROUGH = 0.9, 9.0
"""share and units of colour. Of a picture's frame that must be plain ground, and its own colours at the most. Tried in bench,
2026-11-27."""
PHOTO_BLUR = 0.12
"""share of a step. How steep the steepest edges must be from one point to the next. Tried in bench, 2026-11-27."""
PHOTO_CHROMA, PHOTO_BLACK = 11.0, 38.0
"""units of colour and lightness. From which something lies on the ground: a shadow has no colour of its own. Tried in bench, 2026-11-27."""
PHOTO_HALF = 0.5
"""share. Of a leaf's own colour at which its edge lies. Tried in bench, 2026-11-27."""
PHOTO_LEAF_LEAST, PHOTO_GLARE = 0.01, 0.02
"""shares. Of a picture that a leaf has at the least; of a leaf that may shine. Judgement, 2026-11-27."""
PHOTO_SOLID, PHOTO_SHINES = 0.9, 5.0
"""share and lightness. Of its hull that a whole leaf fills; above the ground's, from which a spot shines. Tried in bench, 2026-11-27."""
PHOTO_LEAP, PHOTO_BITTEN, PHOTO_DIP = 0.022, 0.6, 0.07
"""shares. Of a leaf's length: by which one side falls back where it is eaten; of its slices that may be bitten; and again of its length, by
which it may narrow and widen. Tried in bench, 2026-11-27."""
PHOTO_HUE_LEAST, PHOTO_TURNED, PHOTO_PALER, PHOTO_FADED = 0.05, 3.0, 18.0, 0.45
"""radians, times, lightness and share. Of a leaf's own green, beyond which it is discoloured. Tried in bench, 2026-11-27."""
WINTER_MONTHS = frozenset({12, 1, 2})
"""months. Of winter in the north, in which wood is bare. Common practice, 2026-11-27."""
BEFORE_PLANTING_DAYS = 60
"""days. Before planting, in which the soil is looked at and baited. Common practice, 2026-11-27."""
STORE_WEEK, STORE_MONTH = 7, 30
"""days. Between looks at a store's thermometer and traps, and between sieved samples. Common practice, 2026-11-27."""
DAY_PARTS = {"morning": (5, 11), "evening": (17, 22), "night": (21, 5)}
"""local hours, from the first up to the last. In which a count of a part of the day holds. Common practice, 2026-11-27."""

# Walks

LOOK_MINUTES = {"return": 8, "case": 6, "trap": 4, "window": 8, "rhythm": 8, "asked": 8}
"""minutes. That a stop takes, by what calls for it; the longest of its reasons counts. Judgement, 2026-11-27."""
METRES_A_MINUTE = 60
"""metres a minute. Between rows with a bag: a stroll. Judgement, 2026-11-27."""
CATCH_DAYS = 10
"""days. Since a trap was read last, after which its catch says nothing of today. Judgement, 2026-11-27."""
FOUND_DAYS = 14
"""days. Since a pest was proved in a block, within which clean blocks are walked before it. Judgement, 2026-11-27."""
