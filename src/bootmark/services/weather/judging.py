"""What a person says of a reading that looks wrong: it stands, it is left out, or it is read in the other unit."""

import datetime as dt
import uuid
from dataclasses import dataclass
from typing import Annotated

from sqlalchemy.orm import Session

from bootmark import say
from bootmark.core.season.faults import Flag
from bootmark.services.base.command import Command, Refused
from bootmark.services.base.fields import Choice, Day, RecordId
from bootmark.services.base.handling import DERIVED, Context, handles
from bootmark.services.base.roles import KEEPERS
from bootmark.services.base.states import WeatherVerdict
from bootmark.services.weather import derived, stations
from bootmark.store.models import Judgement, Station

VERDICTS = (WeatherVerdict.STANDS, WeatherVerdict.LEFT_OUT, WeatherVerdict.MENDED)


def record_id(station_id: uuid.UUID, day: dt.date) -> uuid.UUID:
    """A day is judged in one record, so that two people can't judge it apart."""
    return uuid.uuid5(DERIVED, f"judgement/{station_id}/{day.isoformat()}")


def _derive(context: Context, row: Judgement) -> None:
    derived.derive(context.session, context.get(Station, row.station_id, "station_id"))


class JudgeWeather(Command, kind="weather.judge", roles=KEEPERS):
    """Say of a flagged day whether it stands, is left out, or is mended; the raw reading stays as it came."""

    station_id: Annotated[uuid.UUID, RecordId("station")]
    local_date: Annotated[dt.date, Day()]
    verdict: Annotated[str, Choice(VERDICTS)]


@handles(JudgeWeather, Judgement, _derive)
def store_judgement(command: JudgeWeather, context: Context) -> Judgement:
    day, mended = command.local_date, command.verdict == WeatherVerdict.MENDED
    station: Station = context.get(Station, command.station_id, "station_id")
    if context.sent.record_id != record_id(station.id, day):
        raise Refused(record_id=say.line("A day is judged in one record: load the page again and choose there."))
    flag = next((flag for flag in derived.flags(context.session, station) if flag.date == day), None)
    if flag is None:
        raise Refused(local_date=say.line("Nothing is flagged on {day:full}: choose a day from the list.", day=day))
    if mended and (flag.tmin is None or flag.tmax is None):
        raise Refused(verdict=say.line("Bootmark can't tell what this day should read: let it stand or leave it out."))
    tmin, tmax = (flag.tmin, flag.tmax) if mended else (None, None)
    return Judgement(**command.model_dump(), flag=flag.kind, tmin=tmin, tmax=tmax)


@dataclass(frozen=True)
class Doubt:
    """A flagged day with what was said of it, None where nobody has looked yet."""

    flag: Flag
    judgement: Judgement | None


def doubts(session: Session, station: Station) -> list[Doubt]:
    """A station's flagged days, those nobody has looked at first, then the newest first."""
    judged = {judgement.local_date: judgement for judgement in stations.judgements(session, station.id)}
    doubtful = [Doubt(flag, judged.get(flag.date)) for flag in derived.flags(session, station)]
    return sorted(doubtful, key=lambda doubt: (doubt.judgement is not None, -doubt.flag.date.toordinal()))
