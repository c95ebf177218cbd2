"""What a person says of a reading that looks wrong: it stands, it is left out, or it is read in the other unit."""

import datetime as dt
import uuid
from dataclasses import dataclass

from sqlalchemy.orm import Session

from bootmark.core.season.faults import Flag
from bootmark.services import weather
from bootmark.services.commands import DERIVED, Context, Fields, Json, Refused, kind
from bootmark.services.places import KEEPERS
from bootmark.store.models import Station
from bootmark.store.season_models import Judgement

VERDICTS = ("stands", "left out", "mended")


def record_id(station_id: uuid.UUID, day: dt.date) -> uuid.UUID:
    """A day is judged in one record, so that two people can't judge it apart."""
    return uuid.uuid5(DERIVED, f"judgement/{station_id}/{day.isoformat()}")


def _derive(context: Context, row: Judgement) -> None:
    weather.derive(context.session, context.get(Station, row.station_id, "station_id"))


@kind("weather.judge", Judgement, KEEPERS, _derive)
def weather_judge(context: Context) -> Json:
    """Say of a flagged day whether it stands, is left out, or is mended; the raw reading stays as it came."""
    payload = context.sent.payload
    fields = Fields(payload)
    day = fields.day("local_date")
    verdict = fields.one_of("verdict", VERDICTS)
    fields.done()
    station: Station = context.get(Station, payload.get("station_id"), "station_id")
    flag = next((one for one in weather.flags(context.session, station) if one.date == day), None)
    if flag is None:
        raise Refused(local_date=f"Nothing is flagged on {day:%-d %B %Y}: choose a day from the list.")
    if context.sent.record_id != record_id(station.id, day):
        raise Refused(record_id="A day is judged in one record: load the page again and choose there.")
    mended = verdict == "mended"
    if mended and (flag.tmin is None or flag.tmax is None):
        raise Refused(verdict="Bootmark can't tell what this day should read: let it stand or leave it out.")
    return {
        "station_id": station.id,
        "local_date": day,
        "flag": flag.kind,
        "verdict": verdict,
        "tmin": flag.tmin if mended else None,
        "tmax": flag.tmax if mended else None,
    }


@dataclass(frozen=True)
class Doubt:
    """A flagged day with what was said of it, None where nobody has looked yet."""

    flag: Flag
    judgement: Judgement | None


def doubts(session: Session, station: Station) -> list[Doubt]:
    """A station's flagged days, those nobody has looked at first, then the newest first."""
    judged = {one.local_date: one for one in weather.judgements(session, station.farm_id, station.id)}
    found = [Doubt(flag, judged.get(flag.date)) for flag in weather.flags(session, station)]
    return sorted(found, key=lambda one: (one.judgement is not None, -one.flag.date.toordinal()))
