"""What is said of hours against limits, of a plan's days, of what a biofix rests on, and of readings that look wrong."""

from bootmark.core.messages import Says
from bootmark.say.text import By, Many, Text

NOTHING_AGAINST = "Nothing speaks against it"
TEXTS: dict[Says, Text] = {
    Says.WIND: "Wind {wind:wind1}",
    Says.WIND_OVER: "Wind {wind:wind1}: drifts",
    Says.WIND_NEAR: "Wind {wind:wind1}: near the limit",
    Says.HOUR_UNKNOWN: "{what:word}: not known",
    Says.WIND_STILL: "Wind {wind:wind1}: too still, spray hangs and drifts far",
    Says.INVERSION: "Little wind and perhaps a clear sky: cold air may lie near the ground, spray hangs in it and travels",
    Says.INVERSION_MEASURED: "{warmer:warmth1} warmer above: cold air lies near the ground, spray hangs in it and travels",
    Says.NO_INVERSION: "No cold air to hang in",
    Says.WILL_DO: "{chance:percent} chance that it will do: so far ahead nobody knows",
    Says.TEMPERATURE: "{temp:temperature0}",
    Says.COLD: "{temp:temperature0}: too cold to work",
    Says.HOT: "{temp:temperature0}: too hot, leaves burn",
    Says.DRYING: "Delta T {delta_t:warmth1}",
    Says.DRIES_AWAY: "Delta T {delta_t:warmth1}: drops dry in the air",
    Says.DRYING_FAST: "Delta T {delta_t:warmth1}: drying fast",
    Says.STAYS_WET: "Delta T {delta_t:warmth1}: leaves stay wet",
    Says.RAIN: "Rain {rain:rain1}",
    Says.RAIN_LATER: "Rain {hours} h later: washes off",
    Says.FORECAST_ENDS: "The forecast ends before it is dry",
    Says.DRY: "Dry for {hours} h",
    Says.EVENING: "Evening",
    Says.NOT_EVENING: "Not evening: the sun breaks it down",
    Says.DAYLIGHT: "Daylight",
    Says.DARK: "Dark",
    Says.BEFORE_WINDOW: "Before the stage window, from {on:day}",
    Says.AFTER_WINDOW: "After the stage window, to {on:day}",
    Says.IN_WINDOW: "In the stage window",
    Says.REPEAT_SIMULATED: Many(
        "hatch",
        "Eggs it spared hatch in {hatch} day at these temperatures; "
        "repeated after {days} days, it leaves the fewest two generations on, as simulated.",
        "Eggs it spared hatch in {hatch} days at these temperatures; "
        "repeated after {days} days, it leaves the fewest two generations on, as simulated.",
    ),
    Says.REPEAT_SIMULATED_UNTIMED: ("It spares eggs; repeated after {days} days, it leaves the fewest two generations on, as simulated."),
    Says.REPEAT_HATCH: Many(
        "hatch",
        "Eggs it spared hatch in {hatch} day at these temperatures; young ones are killed before they lay.",
        "Eggs it spared hatch in {hatch} days at these temperatures; young ones are killed before they lay.",
    ),
    Says.REPEAT_INTERVAL: "The catalogue's interval; young ones are killed before they lay.",
    Says.REPEAT_LEAST: Many(
        "days",
        "After {days} day: no sooner, by its label as recalled and by what it still does.",
        "After {days} days: no sooner, by its label as recalled and by what it still does.",
    ),
    Says.REPEAT_PAST_WINDOW: "Look then whether it worked: a repeat would fall after the stage window, which ends {on:day}.",
    Says.REPEAT_NO_MORE: Many(
        "most",
        "Look then whether it worked: it may be used {most} time a season, as recalled. Another group or kind of control takes over.",
        "Look then whether it worked: it may be used {most} times a season, as recalled. Another group or kind of control takes over.",
    ),
    Says.REPEAT_PAST_HARVEST: (
        "Look then whether it worked: a repeat would fall within {days} days of the harvest on {on:day}. "
        "Pick first, or take what has no wait."
    ),
    Says.REPEAT_TOO_LATE: (
        "Look then: those it spared as eggs lay after {latest} days, and it may be repeated after {days} at the earliest. "
        "This material alone can't do it: another group or kind of control takes the date between."
    ),
    Says.CATCHES: By(
        "gap",
        {
            "no": Many("checks", "{caught:both} caught", "{caught:both} caught on {checks} checks running, to {last:day}"),
            "yes": Many(
                "checks",
                "{caught:both} caught, some day from {since:day} to {on:day}",
                "{caught:both} caught on {checks} checks running, to {last:day}; it began some day from {since:day} to {on:day}",
            ),
        },
    ),
    Says.CATCH_INTENSE: Many(
        "nights",
        "{caught} caught in {nights} night, to {on:day}",
        "{caught} caught in {nights} nights, some day from {since:day} to {on:day}",
    ),
    Says.CROP_STOOD: "The crop stood at BBCH {code}",
    Says.CROSSED: "The minimum {low:temperature1} is above the maximum {high:temperature1}.",
    Says.STUCK_DAYS: "{low:temperature1} and {high:temperature1} for {days} days running.",
    Says.STUCK_HOURS: "{temp:temperature1} for {hours} hours from {since}.",
    Says.SPIKE: By(
        "extreme",
        {
            extreme: By(
                "side",
                {
                    side: f"The {extreme} {{temp:temperature1}} stands {{off:warmth0}} {side} the days beside it."
                    for side in ("above", "below")
                },
            )
            for extreme in ("minimum", "maximum")
        },
    ),
    Says.FAHRENHEIT: (
        "{low:0} to {high:0} fits this season in degrees Fahrenheit ({low_mended:temperature1} to {high_mended:temperature1})."
    ),
    Says.CLOCK_SHIFTED: By(
        "way",
        {
            way: f"The warmest time came about {{hours:0}} hours too {way} on {{days}} days running: "
            "check the station's clock and its zone."
            for way in ("late", "early")
        },
    ),
}
