"""What a farm has not been told yet, and what each gap keeps from working: in the order in which it is best told."""

import datetime as dt
import uuid
from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum

from sqlalchemy.orm import Session

from bootmark.core.catalogue import Catalogue
from bootmark.core.meanings import ControlKind
from bootmark.services.base import ground, grown
from bootmark.services.base.people import Colleague
from bootmark.services.base.roles import SIGNERS
from bootmark.services.treatment.weighing import policy_of
from bootmark.store.models import Farm, WeatherDay
from bootmark.store.rows import of_farm


class Gap(StrEnum):
    """What is missing."""

    REGION = "region"
    SCHOOL = "school"
    BLOCK = "block"
    STATION = "station"
    READINGS = "readings"
    HARVEST = "harvest"
    SIGNER = "signer"


@dataclass(frozen=True)
class Missing:
    """A gap. blocks: how many blocks it concerns, 0 where it is the farm's; record: the block or station where it is mended first."""

    gap: Gap
    blocks: int = 0
    record: uuid.UUID | None = None


def gaps(session: Session, farm: Farm, catalogue: Catalogue, colleagues: Sequence[Colleague], today: dt.date) -> list[Missing]:
    """What is missing of a farm; empty where nothing is."""
    blocks, stations = ground.blocks(session), ground.stations(session)
    unpicked = [block for block in blocks if block.harvest_from is None and block.standing and grown.eaten_and_fed(catalogue, block)[0]]
    signers = [colleague for colleague in colleagues if colleague.role in SIGNERS and colleague.is_qualified(today)]
    wanted = {
        Gap.REGION: not farm.region,
        Gap.SCHOOL: not farm.school,
        Gap.BLOCK: not blocks,
        Gap.STATION: not stations,
        Gap.READINGS: bool(stations) and not session.scalar(of_farm(WeatherDay, WeatherDay.station_id).limit(1)),
        Gap.HARVEST: bool(unpicked),
        Gap.SIGNER: policy_of(farm).uses(ControlKind.CONVENTIONAL) and not signers,
    }
    about = {
        Gap.READINGS: Missing(Gap.READINGS, record=stations[0].id) if stations else None,
        Gap.HARVEST: Missing(Gap.HARVEST, len(unpicked), unpicked[0].id) if unpicked else None,
    }
    return [about.get(gap) or Missing(gap) for gap, is_missing in wanted.items() if is_missing]
