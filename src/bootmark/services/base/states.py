"""What state records are in, and what kind some of them are; the values stand in the database."""

from enum import StrEnum


class TreatmentState(StrEnum):
    PLANNED = "planned"
    DONE = "done"
    WITHDRAWN = "withdrawn"


class VisitState(StrEnum):
    """Of a look that is booked."""

    BOOKED = "booked"
    ANSWERED = "answered"
    WITHDRAWN = "withdrawn"


class HoldState(StrEnum):
    """Of a block that was held after a report."""

    HELD = "held"
    ENDED = "ended"


class CallState(StrEnum):
    """Of a call: made, or proposed until somebody signs it."""

    CALLED = "called"
    PROPOSED = "proposed"


class Stance(StrEnum):
    """What somebody says to a call."""

    ASKS = "asks"
    AGREES = "agrees"
    DISAGREES = "disagrees"


class EnquiryState(StrEnum):
    """In the order in which enquiries wait."""

    OPEN = "open"
    ASKED = "asked"
    ANSWERED = "answered"


class StationKind(StrEnum):
    OUTDOOR = "outdoor"
    COVER = "cover"


class WeatherVerdict(StrEnum):
    """What a person says of a day that looked wrong."""

    STANDS = "stands"
    LEFT_OUT = "left out"
    MENDED = "mended"
