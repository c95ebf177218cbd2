"""Planned treatments with the hours that suit them."""

import datetime as dt
import uuid
from dataclasses import dataclass
from typing import Any

from sqlalchemy.orm import Session

from bootmark.core.catalogue import Control
from bootmark.core.meanings import COVERED, MATERIALS
from bootmark.core.messages import Message
from bootmark.core.season import windows
from bootmark.core.season.windows import HourTable
from bootmark.services.base import memo, stamp
from bootmark.services.base import planned as planned_rows
from bootmark.services.base.farm_time import zone
from bootmark.services.base.stamp import Topic
from bootmark.services.base.states import TreatmentState, VisitState
from bootmark.services.scouting import held
from bootmark.services.weather import blocks as block_weather
from bootmark.store.models import Block, Farm, ReturnVisit, Station, TreatmentRow
from bootmark.store.rows import of_farm, plain, row_of


@dataclass(frozen=True)
class Planned:
    """table: the hours ahead against every limit, None without a forecast; spans: good runs of hours; late: its window has closed;
    hold: of its block after a report, while which nothing is done."""

    treatment: TreatmentRow
    block: Block
    control: Control
    station: Station | None
    table: HourTable | None
    spans: list[tuple[dt.datetime, dt.datetime]]
    late: bool
    hold: Message | None

    @property
    def where(self) -> str:
        """The block, and the part of it where only that is treated."""
        return f"{self.block.name}, {self.treatment.spot}" if self.treatment.spot else self.block.name

    @property
    def area(self) -> float:
        """Hectares that are to be treated."""
        return self.block.area if self.treatment.spot_area is None else self.treatment.spot_area

    @property
    def covered(self) -> bool:
        """Whether a material is brought out under a roof, by the rules of a closed house."""
        return self.block.place in COVERED and self.control.kind in MATERIALS

    def state_at(self, when: dt.datetime) -> windows.Cell | None:
        """What the limits say of one hour."""
        if self.table is None:
            return None
        hour = when.replace(minute=0, second=0, microsecond=0)
        return next((cell for time, cell in zip(self.table.times, self.table.overall, strict=True) if time == hour), None)


RESTS_ON = (Topic.TREATMENT, Topic.WEATHER, Topic.PLACES)
_planned: memo.Kept[list[Planned]] = memo.Kept(64)
_tables: memo.Kept[HourTable] = memo.Kept(256)
_cards: memo.Kept[Planned] = memo.Kept(256)


def planned(session: Session, farm: Farm, catalogue: Any, now: dt.datetime) -> list[Planned]:
    """Treatments that are still to be done or signed for, the next first."""
    key = (catalogue.hash, now.replace(minute=0, second=0, microsecond=0))
    return stamp.while_standing(session, _planned, RESTS_ON, key, lambda: _read(session, farm, catalogue, now))


def _read(session: Session, farm: Farm, catalogue: Any, now: dt.datetime) -> list[Planned]:
    rows = session.execute(
        of_farm(TreatmentRow, TreatmentRow, Block)
        .join(Block, (Block.farm_id == TreatmentRow.farm_id) & (Block.id == TreatmentRow.block_id))
        .where(planned_rows.to_do())
        .order_by(TreatmentRow.on, TreatmentRow.ordinal)
    ).all()
    return [planned_of(session, farm, catalogue, plain(treatment), plain(block), now) for treatment, block in rows]


def planned_of(session: Session, farm: Farm, catalogue: Any, treatment: TreatmentRow, block: Block, now: dt.datetime) -> Planned:
    control = catalogue.agent(treatment.agent).control(treatment.control)
    station = block_weather.station_of(session, farm, block)
    table = _hours(session, farm, station, control, treatment, block.place, now) if station else None
    late = bool(treatment.not_after and treatment.not_after < now.date())
    hold = held.blocks(session).get(block.id)
    return Planned(treatment, block, control, station, table, table.spans(2) if table and not hold else [], late, hold)


def _hours(
    session: Session, farm: Farm, station: Station, control: Control, treatment: TreatmentRow, place: str, now: dt.datetime
) -> HourTable | None:
    """The hours ahead against every limit; None without a forecast."""
    hourly = block_weather.hourly(session, station, now)
    if not hourly.times:
        return None
    limits = {"not_before": treatment.on, "not_after": treatment.not_after}
    key = (station.id, control.work, place, *limits.values(), hourly.times[0])

    def table() -> HourTable:
        return windows.hours(hourly, windows.under_cover(windows.limits_for(control.work, **limits, zone=zone(farm)), place))

    return stamp.while_standing(session, _tables, (Topic.WEATHER, Topic.PLACES), key, table)


def of_treatment(session: Session, farm: Farm, catalogue: Any, treatment_id: uuid.UUID, now: dt.datetime) -> Planned:
    """One treatment with the hours that suit it. Raises NotHere."""

    def read() -> Planned:
        treatment = plain(row_of(session, TreatmentRow, treatment_id))
        return planned_of(session, farm, catalogue, treatment, plain(row_of(session, Block, treatment.block_id)), now)

    key = (catalogue.hash, treatment_id, now.replace(minute=0, second=0, microsecond=0))
    return stamp.while_standing(session, _cards, RESTS_ON, key, read)


def treated_since(session: Session, day: dt.date) -> dict[tuple[uuid.UUID, str], list[tuple[dt.date, bool]]]:
    """Days of treatments since one by block and agent, and whether they were done."""
    rows = of_farm(TreatmentRow, TreatmentRow.block_id, TreatmentRow.agent, TreatmentRow.on, TreatmentRow.state)
    treated: dict[tuple[uuid.UUID, str], list[tuple[dt.date, bool]]] = {}
    for block, agent, on, state in session.execute(rows.where(TreatmentRow.state != TreatmentState.WITHDRAWN, TreatmentRow.on >= day)):
        treated.setdefault((block, agent), []).append((on, state == TreatmentState.DONE))
    return treated


def programme(session: Session, decision_id: uuid.UUID) -> tuple[list[TreatmentRow], list[ReturnVisit]]:
    """All treatments and booked looks of one call, in order."""
    treatments = session.scalars(
        of_farm(TreatmentRow)
        .where(TreatmentRow.decision_id == decision_id, TreatmentRow.state != TreatmentState.WITHDRAWN)
        .order_by(TreatmentRow.ordinal)
    )
    looks = session.scalars(
        of_farm(ReturnVisit)
        .where(ReturnVisit.decision_id == decision_id, ReturnVisit.state != VisitState.WITHDRAWN)
        .order_by(ReturnVisit.due_on)
    )
    return [plain(row) for row in treatments], [plain(row) for row in looks]
