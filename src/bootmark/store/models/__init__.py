"""The tables, by the work they serve."""

from bootmark.store.models.base import (
    Account,
    CommandRow,
    Farm,
    FarmChange,
    KnownAgent,
    KnownSign,
    Membership,
    RateHit,
    SignInAttempt,
    SignInEvent,
    SignInSession,
)
from bootmark.store.models.people import AccountReset, Erased, FarmSettings, Invitation, MemberTerms
from bootmark.store.models.places import Block, PlanFeature
from bootmark.store.models.scouting import Enquiry, FindingRow, Look, Photo, SampleRow, Stop
from bootmark.store.models.seasons import Biofix, CropStage, ModelOffset, SeasonResult, SeasonRun, StageSighting, Trap, TrapCheck
from bootmark.store.models.treatment import Application, DecisionRow, Hold, OutsideAnswer, ReturnVisit, TreatmentRow
from bootmark.store.models.weather import ForecastHour, Judgement, Station, WeatherDay, WeatherDerived, WeatherHour, WeatherUpload

__all__ = [
    "Account",
    "AccountReset",
    "Application",
    "Biofix",
    "Block",
    "CommandRow",
    "CropStage",
    "DecisionRow",
    "Enquiry",
    "Erased",
    "Farm",
    "FarmChange",
    "FarmSettings",
    "FindingRow",
    "ForecastHour",
    "Hold",
    "Invitation",
    "Judgement",
    "KnownAgent",
    "KnownSign",
    "Look",
    "MemberTerms",
    "Membership",
    "ModelOffset",
    "OutsideAnswer",
    "Photo",
    "PlanFeature",
    "RateHit",
    "ReturnVisit",
    "SampleRow",
    "SeasonResult",
    "SeasonRun",
    "SignInAttempt",
    "SignInEvent",
    "SignInSession",
    "StageSighting",
    "Station",
    "Stop",
    "Trap",
    "TrapCheck",
    "TreatmentRow",
    "WeatherDay",
    "WeatherDerived",
    "WeatherHour",
    "WeatherUpload",
]
