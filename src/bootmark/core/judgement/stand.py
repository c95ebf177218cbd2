"""What the stand says to a call, and how high plants are reached."""

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
