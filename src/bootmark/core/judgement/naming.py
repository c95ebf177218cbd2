"""What a plant shows, what that may be, and from when it has a name."""

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
MORE_DOUBT = 1.4
"""times the catalogue's chance of a wrong answer. It is reasoned with so much: who walks in rain errs more often than that,
and the chances that are stated hold for half, once and twice as many slips. Tried in bench, 2026-11-26."""
MOST_MISTAKEN, MOST_OVERLOOKED = 0.25, 0.4
"""chance of a wrong answer. Beyond which more doubt would make an answer worth nothing. Judgement, 2026-11-26."""
