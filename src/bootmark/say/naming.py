"""What is said of a case: for and against a suspect, what would change a verdict, what follows from it."""

from bootmark.core.meanings import Direction, Spell
from bootmark.core.messages import Says
from bootmark.say.text import By, Many, Text

FOR, AGAINST = Direction

SPELLS: dict[str, Text] = {
    Spell.HOT_AND_DRY: Many("days", "Hot and dry for a day.", "Hot and dry for {days} days."),
    Spell.WEEK_OF_RAIN: Many("days", "Rain for {days} days.", "Rain for {days} days."),
    Spell.DROUGHT: Many("days", "Drought for {days} days.", "Drought for {days} days."),
}
"""The weather of a case, as the bench shows it."""

TEXTS: dict[Says, Text] = {
    Says.CROP_OF_FAMILY: "{plant} is not a crop that Bootmark knows: causes of its family, {family} ({crops:crops}), are weighed.",
    Says.CROP_UNKNOWN: "{plant} is not a plant that Bootmark knows: kinds on any plant are weighed. Say how it grows to do better.",
    Says.CROP_BY_HABIT: "{plant} has no entry of its own: kinds of causes on a {habit:word} are weighed.",
    Says.HEAT_NOW: "By this year's heat it is about now.",
    Says.HEAT_NOT_NOW: "By this year's heat it is not about now.",
    Says.SEASON_OUT: "Out of its season.",
    Says.PLACE_USUAL: By("direction", {FOR: "More usual in a {place:word}.", AGAINST: "Less usual in a {place:word}."}),
    Says.SPELL: By(
        "spell",
        {
            Spell.HOT_AND_DRY: By(
                "direction",
                {
                    FOR: "Hot and dry for {days} days, so it counts for more.",
                    AGAINST: "Hot and dry for {days} days, so it counts for less.",
                },
            ),
            Spell.WEEK_OF_RAIN: By(
                "direction", {FOR: "{days} days of rain, so it counts for more.", AGAINST: "{days} days of rain, so it counts for less."}
            ),
            Spell.DROUGHT: By(
                "direction",
                {
                    FOR: "Drought for {days} days, so it counts for more.",
                    AGAINST: "Drought for {days} days, so it counts for less.",
                },
            ),
        },
    ),
    Says.HISTORY: Many("times", "Found on this block before.", "Found on this block {times} times before."),
    Says.SIGN_UNKNOWN: "{sign} is not a sign that Bootmark knows: it was left out.",
    Says.SIGNS_CONTRADICT: "{sign:name} and {other:name|lower} can't both be: {look:do|phrase}, again.",
    Says.SIGN_PROVES: "{sign:name}: only it leaves this.",
    Says.SIGN_FITS: "{sign:name}: {often:word} with it.",
    Says.SIGN_MISSING: "{sign:name} is not there: {often:word} with it.",
    Says.LOOK_POINTS: "{look:name}: could point to {agent:in_sentence} instead.",
    Says.LOOK_SETTLES: "{look:name}: would settle it.",
    Says.LOOK_TELLS_ACTIVITY: "{look:name}: would tell whether it is still at work.",
    Says.TELL_SIGNS: "Tap what you see, or say that the plant is sound.",
    Says.REPORT_IT: (
        "It is listed here ({listing}). Photograph it, leave it where it is, do not move, post or treat it, "
        "and tell the plant health authority today."
    ),
    Says.REPORT_IF_LISTED: "Where it is listed ({listings:list}) report it to the plant health authority first and do not move it.",
    Says.COUNT_NEXT: By("unit", {"": "Count next."}, "Count next, {unit} by {unit}."),
    Says.LEAVE_WHEN: "{agent:leave_when}",
    Says.DO_INSTEAD: "{control:do} Then look whether this holds: {control:success|inside}",
    Says.TAKE_LOOK: "{look:do}",
    Says.SAMPLE: "{agent:sample}",
    Says.KIND_HAS_LISTED: "Which one matters here, since {members:agents} may live here and must be reported: photograph it, keep some, "
    "ask before anything is moved or posted.",
    Says.SPECIES_MATTERS: "{agent:matters} What would tell: {agent:tells}",
    Says.PERHAPS_TOO: "Perhaps this too: {agent:in_sentence}. {look:do}",
    Says.SEND_SAMPLE: "Bag a sample in paper, note the place and the day, and ask a licensed adviser.",
}
