"""What may be said of signs, agents, causes, controls and places: enumerations whose values are the words that are stored and sent.

Rules compare members, never words. A value that is stored is never renamed.
"""

from enum import StrEnum


class SignState(StrEnum):
    """What a scout tells of a sign."""

    SEEN = "seen"
    ABSENT = "absent"
    UNSURE = "unsure"


class AgentKind(StrEnum):
    INSECT = "insect"
    MITE = "mite"
    BENEFICIAL = "beneficial"
    DISEASE = "disease"
    DISORDER = "disorder"
    VERTEBRATE = "vertebrate"
    MOLLUSC = "mollusc"
    NORMAL = "normal"


class ControlKind(StrEnum):
    """Schools of control, the gentlest first."""

    CULTURAL = "cultural"
    PHYSICAL = "physical"
    LIVING = "living"
    SOFT = "soft"
    CONVENTIONAL = "conventional"


UNSPRAYED = (ControlKind.CULTURAL, ControlKind.PHYSICAL, ControlKind.LIVING)
MATERIALS = (ControlKind.SOFT, ControlKind.CONVENTIONAL)
"""Kinds of control that bring nothing out of a bottle, and those that do."""


class Spared(StrEnum):
    """What lives in a crop and is to be spared: what a material harms, and what a release brings."""

    BEES = "bees"
    BUTTERFLIES = "butterflies"
    PREDATORY_MITES = "predatory mites"
    PARASITOIDS = "parasitoid wasps"
    LADYBIRDS = "ladybirds"
    HOVERFLIES = "hoverfly larvae"
    LACEWINGS = "lacewing larvae"
    PIRATE_BUGS = "pirate bugs"
    EARWIGS = "earwigs"


class Place(StrEnum):
    """What a block is."""

    FIELD = "field"
    ORCHARD = "orchard"
    TUNNEL = "tunnel"
    GREENHOUSE = "greenhouse"
    BED = "bed"
    CONTAINER = "container"


class SoldAs(StrEnum):
    """What becomes of a crop, where it changes what a blemish costs."""

    FRESH = "fresh"
    LOOKS = "looks"
    PROCESSED = "processed"
    OWN = "own"


class Worth(StrEnum):
    """Whether plants are easily had again."""

    REPLACED = "easily replaced"
    VALUED = "hard to replace"


class Condition(StrEnum):
    """What is counted of a crop and not of a pest."""

    STALKS = "stalks"
    FRUIT = "fruit"
    LEAVES = "leaves"


COVERED = (Place.TUNNEL, Place.GREENHOUSE)
"""Places under a roof."""


class VerdictKind(StrEnum):
    """What may be said of a case."""

    NAMED = "named"
    NEEDS_A_LOOK = "needs a look"
    NOT_A_PEST = "not a pest"
    NORMAL = "normal for the season"
    HELP_HAS_COME = "help has come"
    MUST_BE_REPORTED = "must be reported"
    CANNOT_TELL = "cannot tell"
    SEND_A_SAMPLE = "send a sample"
    NO_CAUSE_KNOWN = "no cause known"


OPEN_VERDICTS = frozenset({VerdictKind.NEEDS_A_LOOK, VerdictKind.CANNOT_TELL, VerdictKind.NO_CAUSE_KNOWN})
"""Verdicts that name no cause: the case stays open."""


class DecisionKind(StrEnum):
    """What a call comes to."""

    LEAVE = "leave"
    LOOK_AGAIN = "look again"
    ACT_NOW = "act now"
    ACT_IN_WINDOW = "act in window"
    SPOT_TREAT = "spot-treat"
    RELEASE = "release"
    CULTURAL_ACT = "cultural act"
    HARVEST_FIRST = "harvest first"
    SALVAGE = "salvage"
    REFER = "refer"
    REPORT = "report"
    SEND_A_SAMPLE = "send a sample"


class Activity(StrEnum):
    """Whether an attack goes on."""

    ACTIVE = "active"
    FINISHED = "finished"
    PARASITISED = "parasitised"
    DEAD = "dead"
    NOT_KNOWN = "not known"


OVER = frozenset({Activity.FINISHED, Activity.PARASITISED, Activity.DEAD})
"""An attack that no longer goes on, by what was seen."""


class Direction(StrEnum):
    """What a reason speaks for."""

    FOR = "for"
    AGAINST = "against"


class Measure(StrEnum):
    """What a count counts: animals for each unit, the share of units with any, a trap's catch, or that of a trap among dispensers."""

    MEAN = "mean"
    PROPORTION = "proportion"
    TRAP = "trap"
    DISRUPTED = "disrupted"


CATCHES = frozenset({Measure.TRAP, Measure.DISRUPTED})
"""What traps tell: no sample of the plants."""


class Work(StrEnum):
    """What a control asks of the hours that it is done in."""

    SPRAY = "spray"
    EVENING_SPRAY = "evening spray"
    RELEASE = "release"
    ANY = "any"


class StepKind(StrEnum):
    """What a plan does on a day."""

    TREATMENT = "treatment"
    RETURN = "return"


class TrapWait(StrEnum):
    """What a trap waits for."""

    CHECK = "check"
    LURE = "lure"


class TrapKind(StrEnum):
    """What a trap is."""

    DELTA = "delta"
    BUCKET = "bucket"
    CARD = "card"
    BAND = "band"
    PITFALL = "pitfall"
    LIGHT = "light"


class TrapState(StrEnum):
    """In what state a trap was when it was visited: read, or why it could not be; spent: empty under a lure that was over;
    disrupted: empty among dispensers, where an empty trap proves nothing."""

    READ = "read"
    DOWN = "down"
    FULL = "full"
    SOAKED = "soaked"
    SPENT = "spent"
    DISRUPTED = "disrupted"


class StopKind(StrEnum):
    """What a count comes to: enough for one word, not yet enough, or the end of its plan."""

    ABOVE = "above"
    BELOW = "below"
    KEEP = "keep counting"
    END = "planned end"


class Pattern(StrEnum):
    """How the points of a count lie on a block."""

    ZIGZAG = "zigzag"
    W = "w"
    ROWS = "rows"
    EDGE = "edge and middle"
    RANDOM = "random"


class Chosen(StrEnum):
    """How the units of a count came: as the plan says, picked because they looked bad, or all that there are."""

    PLAN = "plan"
    PICKED = "picked"
    ALL = "all"


class Pictured(StrEnum):
    """What a picture measures: leaf that is lost; specks on white paper; things on a sticky card or in a dish; drops on paper that water
    turns blue."""

    LEAVES = "leaves"
    PAPER = "paper"
    CARD = "card"
    DROPS = "drops"


class SheetSize(StrEnum):
    """Sheets, cards and round dishes that pictures are measured on, by their sides."""

    A6 = "A6"
    A5 = "A5"
    A4 = "A4"
    HALF_LETTER = "half letter"
    LETTER = "letter"
    DROPS_NARROW = "26 by 76 mm"
    DROPS_WIDE = "52 by 76 mm"
    CARD_SMALL = "75 by 125 mm"
    CARD_MIDDLE = "100 by 200 mm"
    CARD_LONG = "100 by 250 mm"
    CARD_WIDE = "200 by 250 mm"
    DISH_SMALL = "dish of 60 mm"
    DISH_MIDDLE = "dish of 90 mm"
    DISH_LARGE = "dish of 150 mm"


class Gate(StrEnum):
    """Of which length the animals on a white paper are."""

    MITES = "as mites"
    THRIPS = "as thrips and aphids"


class CardPlace(StrEnum):
    """Where in a crop a card for drops was."""

    TOP = "top"
    UNDERSIDE = "underside"
    BOTTOM = "bottom"


class Refusal(StrEnum):
    """Why a picture measures nothing: too dark; blurred; too bright in places; its ground is not plain; nothing lies on it; what lies there
    goes over its edge; an outline that can't be told; an edge across the leaf; nothing green; no sheet with four corners; no round dish;
    taken too much from the side, or from too far; not empty paper; of another sheet than the one before; blued all over; touched by
    fingers."""

    DARK = "dark"
    BLURRED = "blurred"
    GLARE = "glare"
    GROUND = "ground"
    NOTHING = "nothing"
    CUT = "cut"
    OUTLINE = "outline"
    ACROSS = "across"
    NOT_GREEN = "not green"
    NO_SHEET = "no sheet"
    NO_DISH = "no dish"
    TILTED = "tilted"
    FAR = "far"
    MARKED = "marked"
    NO_MATCH = "no match"
    BLUED = "blued"
    FINGERS = "fingers"


class YearTask(StrEnum):
    """What is looked at once in a season, or in a rhythm of its own, and is no look at a growing crop."""

    SPURS = "spurs"
    OLD_BAGS = "old bags"
    MUMMIES = "mummies"
    CULL_HEAPS = "cull heaps"
    TRAPS = "traps"
    NOZZLES = "nozzles"
    REGISTRATIONS = "registrations"
    LAST_CROP = "last crop"
    SOIL_BAITS = "soil baits"
    STORE_TEMPERATURE = "store temperature"
    STORE_SIEVE = "store sieve"
    STORE_TRAPS = "store traps"


class CountTool(StrEnum):
    """What a count is made with."""

    EYE = "eye"
    LENS = "lens"
    TRAY = "tray"
    NET = "net"
    SPADE = "spade"
    SIEVE = "sieve"
    BAIT = "bait"
    ROLL = "roll"


class Age(StrEnum):
    """How old the animals of a count are: eggs, that stand beside those alive; small, large and grown ones, that are among them."""

    EGGS = "eggs"
    SMALL = "small"
    LARGE = "large"
    ADULTS = "adults"


class DayPart(StrEnum):
    """The part of a day in which a count holds: what it counts is there, and can be seen."""

    ANY = "any"
    MORNING = "morning"
    EVENING = "evening"
    NIGHT = "night"


class OffPlan(StrEnum):
    """Why a count does not hold as its plan has it."""

    TOOL = "tool"
    HOUR = "hour"
    WET = "wet"
    COLD = "cold"


class Side(StrEnum):
    """On which side of a threshold a count lies: all its limits below, all above, or on both sides."""

    BELOW = "below"
    ABOVE = "above"
    BETWEEN = "between"


class LimitMethod(StrEnum):
    """What the limits of an estimate rest on."""

    WILSON = "wilson"
    STUDENT = "student"
    POISSON_NONE = "poisson-none"
    CLUMPED_NONE = "clumped-none"
    POISSON_EQUAL = "poisson-equal"
    ONE_UNIT = "one-unit"
    ALL_COUNTED = "all-counted"


class Fill(StrEnum):
    """How a missing day was filled."""

    LINE = "line"
    NEIGHBOUR = "neighbour"
    NORMALS = "past years"


class DayKind(StrEnum):
    """Where a day's temperatures come from."""

    MEASURED = "measured"
    FILLED = "filled"
    FORECAST = "forecast"
    PAST_YEARS = "past years"


class FaultKind(StrEnum):
    """What may be wrong with a reading."""

    SPIKE = "spike"
    STUCK = "stuck"
    UNIT = "unit"
    CLOCK = "clock"
    CROSSED = "crossed"


class Spell(StrEnum):
    """Weather that has lasted, which lets some agents thrive."""

    HOT_AND_DRY = "hot-and-dry"
    WEEK_OF_RAIN = "week-of-rain"
    DROUGHT = "drought"


class WindowClosed(StrEnum):
    """Why a control has no days ahead on which it could do its work."""

    PAST = "past"
    NOT_HERE = "too little heat here"
    NO_CHILL = "no winter here"
    OVERLAP = "generations overlap"


class BiofixKind(StrEnum):
    """What sets the day from which heat is counted."""

    DATE = "date"
    CATCH = "catch"
    SEEN = "seen"
    CROP = "crop"
    NONE = "none"


class Often(StrEnum):
    """How often a sign is there when its agent is."""

    ALWAYS = "always"
    USUAL = "usual"
    SOMETIMES = "sometimes"
    SELDOM = "seldom"
    NEVER = "never"


class Light(StrEnum):
    """The part of the day that a piece of work is done in."""

    DAY = "day"
    EVENING = "evening"
    ANY = "any"


class HourState(StrEnum):
    """What an hour is for a control."""

    OK = "ok"
    CAUTION = "caution"
    NO = "no"


class Form(StrEnum):
    """How a thing is drawn on the plan."""

    SPOT = "spot"
    SPOTS = "spots"
    LINE = "line"
    RING = "ring"


class FeatureKind(StrEnum):
    """What stands on the plan and is no block."""

    GATE = "gate"
    PATH = "path"
    WATER = "water"
    HIVES = "hives"
    HOUSE = "house"
    POWER = "power"
    NEIGHBOUR = "neighbour"
    IRRIGATION = "irrigation"
    PLANT = "plant"
    INCOMING = "incoming"
    FENCE = "fence"
    STORE = "store"
    COMPOST = "compost"
