"""The words for the members of enumerations, where their stored value is not the word that is shown."""

from enum import StrEnum

from bootmark.core.meanings import (
    Age,
    Chosen,
    CountTool,
    DayPart,
    FaultKind,
    FeatureKind,
    Fill,
    LimitMethod,
    Pattern,
    SoldAs,
    TrapKind,
    TrapState,
)
from bootmark.core.units import Scale, System
from bootmark.say.formats import Days, Numbers

TERMS: dict[type[StrEnum], dict[str, str]] = {
    FaultKind: {
        FaultKind.SPIKE: "A spike",
        FaultKind.STUCK: "A stuck sensor",
        FaultKind.UNIT: "Perhaps Fahrenheit",
        FaultKind.CLOCK: "The clock has shifted",
        FaultKind.CROSSED: "Extremes crossed",
    },
    TrapKind: {
        TrapKind.DELTA: "Delta trap with a lure",
        TrapKind.BUCKET: "Bucket trap with a lure",
        TrapKind.CARD: "Sticky card",
        TrapKind.BAND: "Cardboard band",
        TrapKind.PITFALL: "Pitfall",
        TrapKind.LIGHT: "Light trap",
    },
    LimitMethod: {
        LimitMethod.WILSON: "Wilson (1927)",
        LimitMethod.STUDENT: "Student's t",
        LimitMethod.POISSON_NONE: "exact Poisson, none found",
        LimitMethod.CLUMPED_NONE: "negative binomial with the pest's own clumping, none found",
        LimitMethod.POISSON_EQUAL: "Poisson spread, all counts equal",
        LimitMethod.ONE_UNIT: "one unit tells no spread",
    },
    CountTool: {
        CountTool.EYE: "By eye",
        CountTool.LENS: "With the lens",
        CountTool.TRAY: "Tapped over white paper",
        CountTool.NET: "With the sweep net",
        CountTool.SPADE: "With the spade",
        CountTool.SIEVE: "Sieved",
        CountTool.BAIT: "With baits",
        CountTool.ROLL: "In cardboard rolls",
    },
    Age: {
        Age.EGGS: "Eggs",
        Age.SMALL: "Small ones",
        Age.LARGE: "Large ones",
        Age.ADULTS: "Adults",
    },
    DayPart: {
        DayPart.ANY: "At any hour",
        DayPart.MORNING: "In the morning, before eleven",
        DayPart.EVENING: "In the evening, from five on",
        DayPart.NIGHT: "By torch, in the dark",
    },
    SoldAs: {
        SoldAs.FRESH: "Sold fresh: a blemish is refused",
        SoldAs.LOOKS: "Sold for its looks",
        SoldAs.PROCESSED: "For juice, sauce, the press",
        SoldAs.OWN: "Eaten or kept at home",
    },
    System: {
        System.METRIC: "Metric: m/s, mm, hectares, metres",
        System.US: "US: miles an hour, inches, acres, feet",
        System.UK: "UK: miles an hour, mm, hectares, metres",
    },
    Chosen: {Chosen.PLAN: "As the plan says", Chosen.PICKED: "Picked: they looked bad", Chosen.ALL: "All that there are"},
    TrapState: {
        TrapState.READ: "It could be read",
        TrapState.DOWN: "It was down",
        TrapState.FULL: "It was full",
        TrapState.SOAKED: "It was soaked",
        TrapState.SPENT: "Its lure was spent",
        TrapState.DISRUPTED: "It hung among dispensers",
    },
    Pattern: {
        Pattern.ZIGZAG: "In a zigzag",
        Pattern.W: "As a W",
        Pattern.ROWS: "Along rows",
        Pattern.EDGE: "Edge and middle",
        Pattern.RANDOM: "At random",
    },
    FeatureKind: {
        FeatureKind.GATE: "The gate, where walks begin",
        FeatureKind.PATH: "A path",
        FeatureKind.WATER: "Water",
        FeatureKind.HIVES: "Hives",
        FeatureKind.HOUSE: "A house",
        FeatureKind.POWER: "A power line",
        FeatureKind.NEIGHBOUR: "A neighbour's crop",
        FeatureKind.IRRIGATION: "An irrigation line",
        FeatureKind.PLANT: "A single plant",
        FeatureKind.INCOMING: "Incoming plants, held apart",
        FeatureKind.FENCE: "A fence",
        FeatureKind.STORE: "A store",
        FeatureKind.COMPOST: "Compost, bins",
    },
    Scale: {Scale.CELSIUS: "Celsius", Scale.FAHRENHEIT: "Fahrenheit"},
    Days: {Days.DAY_FIRST: "18 June 2026", Days.MONTH_FIRST: "June 18, 2026", Days.FIGURES: "2026-06-18"},
    Numbers: {Numbers.POINT: "1,234.5", Numbers.COMMA: "1.234,5"},
    Fill: {
        Fill.LINE: "by straight lines",
        Fill.NEIGHBOUR: "from the nearest station",
        Fill.NORMALS: "from past years",
    },
}
