"""What the rules have to say, as values. `bootmark.say` puts them into words; no rule makes or reads a sentence."""

import datetime as dt
from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import StrEnum

from bootmark.core.meanings import Direction


class Says(StrEnum):
    """Kinds of messages. They are stored with what was decided: a kind is never renamed, and never changes its meaning."""

    # Before any sign, and of a case as it was told.
    CROP_OF_FAMILY = "crop.of-family"
    CROP_UNKNOWN = "crop.unknown"
    CROP_BY_HABIT = "crop.by-habit"
    HEAT_NOW = "heat.now"
    HEAT_NOT_NOW = "heat.not-now"
    SEASON_OUT = "season.out"
    PLACE_USUAL = "place.usual"
    SPELL = "spell"
    HISTORY = "history"
    SIGN_UNKNOWN = "sign.unknown"
    SIGNS_CONTRADICT = "signs.contradict"
    # A sign's word on a suspect.
    SIGN_PROVES = "sign.proves"
    SIGN_FITS = "sign.fits"
    SIGN_MISSING = "sign.missing"
    # What would change a verdict.
    LOOK_POINTS = "look.points"
    LOOK_SETTLES = "look.settles"
    LOOK_TELLS_ACTIVITY = "look.tells-activity"
    # What follows from a verdict.
    TELL_SIGNS = "advice.tell-signs"
    REPORT_IT = "advice.report"
    REPORT_IF_LISTED = "advice.report-if-listed"
    COUNT_NEXT = "advice.count"
    LEAVE_WHEN = "advice.leave-when"
    DO_INSTEAD = "advice.instead"
    TAKE_LOOK = "advice.look"
    SEND_SAMPLE = "advice.sample"
    SAMPLE = "advice.sample-of"
    KIND_HAS_LISTED = "advice.kind-has-listed"
    SPECIES_MATTERS = "advice.species-matters"
    PERHAPS_TOO = "advice.perhaps-too"
    # Why a control is on offer, or not.
    CONTROL_TIMING = "control.timing"
    CONTROL_REFUSED = "control.refused"
    CONTROL_LATE = "control.late"
    CONTROL_OTHER_STAGE = "control.other-stage"
    CONTROL_HARVEST = "control.harvest"
    CONTROL_BEES = "control.bees"
    CONTROL_BLOCKED = "control.blocked"
    CONTROL_SEASON = "control.season"
    CONTROL_BESIDE = "control.beside"
    CONTROL_NOT_ON = "control.not-on"
    CALL_NORMAL = "call.normal"
    COSMETIC_BELOW = "call.cosmetic-below"
    CONTROL_ASK = "control.ask"
    CONTROL_LACKS = "control.lacks"
    CONTROL_DANGER = "control.danger"
    CONTROL_FINAL = "control.final"
    CALL_ASK = "call.ask"
    KEEP_APART = "call.keep-apart"
    CONTROL_INSIDE = "control.inside"
    CONTROL_NOT_LISTED = "control.not-listed"
    CONTROL_HELD = "control.held"
    CONTROL_INTERVAL = "control.interval"
    CONTROL_CLOSED = "control.closed"
    CONTROL_MARKS = "control.marks"
    CONTROL_COUNT_FIRST = "control.count-first"
    DANGER = "danger"
    DANGER_PERHAPS = "danger.perhaps"
    CALL_SAMPLE = "call.sample"
    CALL_ENDED = "call.ended"
    FEW_ENDED = "call.few-ended"
    FOR_CLINIC = "for.clinic"
    KEPT_UNMOVED = "call.kept-unmoved"
    CALL_HELD = "call.held"
    CALL_NOW_ADVISED = "call.now-advised"
    # Reasons of a call, and what would change it.
    LISTED = "call.listed"
    AGENT_SUMMARY = "call.summary"
    AGENT_SAID_WRONGLY = "call.said-wrongly"
    FEEDS_BESIDE = "call.feeds-beside"
    OTHER_CAUSE = "call.other-cause"
    NO_PROOF = "call.no-proof"
    LIVE_PROOF = "call.live-proof"
    OVER = "call.over"
    FRESH_SIGNS = "call.fresh-signs"
    COSMETIC = "call.cosmetic"
    CONFIRMED = "call.confirmed"
    CONFIRMED_ACTIVE = "call.confirmed-active"
    NEEDS_COUNT = "call.needs-count"
    NEEDS_THRESHOLD = "call.needs-threshold"
    COUNTED = "call.counted"
    THRESHOLD = "call.threshold"
    THRESHOLD_WITHIN = "call.threshold-within"
    MORE_NEXT_TIME = "call.more-next-time"
    MORE_UNITS = "call.more-units"
    HELP_UNCOUNTED = "help.uncounted"
    HELP_TOO_FEW = "help.too-few"
    HELP_ENOUGH = "help.enough"
    HELP_LACKS = "help.lacks"
    HELP_FEWER = "help.fewer"
    STAGE_OVER = "call.stage-over"
    YOUNG_AGAIN = "call.young-again"
    LESS_PRESSING = "call.less-pressing"
    # What a call comes to.
    CALL_REPORT = "decision.report"
    CALL_HARMLESS = "decision.harmless"
    CALL_CULTURAL = "decision.cultural"
    CALL_UNPROVED = "decision.unproved"
    CALL_OVER = "decision.over"
    CALL_COSMETIC = "decision.cosmetic"
    CALL_COUNT = "decision.count"
    CALL_NO_THRESHOLD = "decision.no-threshold"
    CALL_FEW = "decision.few"
    CALL_CLOSE = "decision.close"
    CALL_HELP = "decision.help"
    CALL_LATE = "decision.late"
    CALL_HARVEST = "decision.harvest"
    CALL_NONE_FITS = "decision.none-fits"
    CALL_WINDOW = "decision.window"
    CALL_NOW = "decision.now"
    CALL_CHOSEN = "decision.chosen"
    CALL_LEFT = "decision.left"
    # What a call's next look is for.
    FOR_ANSWER = "for.answer"
    FOR_DAMAGE = "for.damage"
    FOR_SUCCESS = "for.success"
    FOR_LOOK = "for.look"
    FOR_LIVE = "for.live"
    FOR_FRESH = "for.fresh"
    FOR_MORE_DAMAGE = "for.more-damage"
    FOR_COUNT = "for.count"
    FOR_COUNT_AGAIN = "for.count-again"
    FOR_LARGER_COUNT = "for.larger-count"
    FOR_BOTH = "for.both"
    FOR_GENERATION = "for.generation"
    FOR_LEFT = "for.left"
    FOR_ADVISER = "for.adviser"
    FOR_WINDOW = "for.window"
    # Cautions.
    LABEL_FIRST = "caution.label"
    CATALOGUE_CAUTION = "caution.catalogue"
    # An hour against a limit.
    WIND = "hour.wind"
    WIND_OVER = "hour.wind-over"
    WIND_NEAR = "hour.wind-near"
    WIND_STILL = "hour.wind-still"
    HOUR_UNKNOWN = "hour.unknown"
    TEMPERATURE = "hour.temperature"
    COLD = "hour.cold"
    HOT = "hour.hot"
    DRYING = "hour.drying"
    DRIES_AWAY = "hour.dries-away"
    DRYING_FAST = "hour.drying-fast"
    STAYS_WET = "hour.stays-wet"
    RAIN = "hour.rain"
    RAIN_LATER = "hour.rain-later"
    FORECAST_ENDS = "hour.forecast-ends"
    DRY = "hour.dry"
    EVENING = "hour.evening"
    NOT_EVENING = "hour.not-evening"
    DAYLIGHT = "hour.daylight"
    DARK = "hour.dark"
    BEFORE_WINDOW = "hour.before-window"
    AFTER_WINDOW = "hour.after-window"
    IN_WINDOW = "hour.in-window"
    # Why a plan's step is on its day.
    REPEAT_SIMULATED = "step.simulated"
    REPEAT_SIMULATED_UNTIMED = "step.simulated-untimed"
    REPEAT_HATCH = "step.hatch"
    REPEAT_INTERVAL = "step.interval"
    # What proposes a biofix.
    CATCHES = "biofix.catches"
    CROP_STOOD = "biofix.crop"
    # What is wrong with a reading.
    CROSSED = "fault.crossed"
    STUCK_DAYS = "fault.stuck-days"
    STUCK_HOURS = "fault.stuck-hours"
    SPIKE = "fault.spike"
    FAHRENHEIT = "fault.fahrenheit"
    CLOCK_SHIFTED = "fault.clock"
    # Why a block is walked to, or can wait.
    SEE_WHETHER_IT_WORKED = "stop.worked"
    LOOK_DUE = "stop.look"
    TELL_WHAT_IT_IS = "stop.case"
    READ_TRAP = "stop.trap"
    CHANGE_LURE = "stop.lure"
    WINDOW_OPEN = "stop.window-open"
    WINDOW_COMES = "stop.window-comes"
    NEVER_LOOKED = "stop.never"
    LONG_UNSEEN = "stop.unseen"
    LONG_UNSEEN_HOT = "stop.unseen-hot"
    LONG_UNSEEN_RAIN = "stop.unseen-rain"
    LOOKED_AT = "rest.looked"
    LOOK_COMES = "rest.next"
    BLOCK_HELD = "stop.held"


@dataclass(frozen=True)
class Message:
    """One thing to be said.

    direction: what it speaks for, where it is a reason; sign, agent: ids of what it is about, empty where it is about none; facts:
    the numbers, days and further ids that its words hold, by name; another message where they hold one.
    """

    kind: Says
    direction: Direction | None = None
    sign: str = ""
    agent: str = ""
    facts: Mapping[str, "Fact"] = field(default_factory=dict, hash=False)


Fact = str | int | float | dt.date | dt.time | tuple[str, ...] | Message


def says(kind: Says, direction: Direction | None = None, /, **facts: Fact) -> Message:
    """A message by its facts; those called sign and agent are what it is about."""
    sign, agent = str(facts.pop("sign", "")), str(facts.pop("agent", ""))
    return Message(kind, direction, sign, agent, facts)
