"""What a farm's rows are at, as one short key: while it stands, what was made of them before can be shown again."""

from typing import Any

from sqlalchemy import Select, Text, bindparam, cast, func, literal, literal_column, select, union_all
from sqlalchemy.orm import Session

from bootmark.services import memo
from bootmark.store.base import FarmRow
from bootmark.store.models import Biofix, Block, Farm, FindingRow, ForecastHour, Station, TreatmentRow, WeatherDay, WeatherHour
from bootmark.store.season_models import CropStage, Judgement, SeasonResult, StageSighting, Trap, TrapCheck

Stamp = tuple[tuple[Any, ...], ...]

WRITTEN: tuple[type[FarmRow], ...] = (
    Biofix,
    Block,
    CropStage,
    FindingRow,
    Judgement,
    SeasonResult,
    StageSighting,
    Station,
    Trap,
    TrapCheck,
    TreatmentRow,
)
"""Tables that are read row by row: a row that is written, by whichever way, lies elsewhere or has another transaction."""
GROWING: dict[type[FarmRow], str] = {WeatherDay: "received_at", WeatherHour: "received_at", ForecastHour: "issued_at"}
"""Tables too long for that, whose rows are only ever added; and the column that tells when."""


def _rows(place: int, table: Any, whose: Any) -> Select[int, int, str]:
    """Count and place of a table's rows, and the transactions that wrote them."""
    name = table.__tablename__
    written = func.hashtextextended(literal_column(f"{name}.ctid::text || {name}.xmin::text"), 0)
    return select(literal(place), func.count(), cast(func.bit_xor(written), Text)).where(whose == bindparam("farm"))


def _newest(place: int, table: Any, column: str) -> Select[int, int, str]:
    return select(literal(place), func.count(), cast(func.max(getattr(table, column)), Text)).where(table.farm_id == bindparam("farm"))


_STATEMENT = union_all(
    _rows(0, Farm, Farm.id),
    *(_rows(place, table, table.farm_id) for place, table in enumerate(WRITTEN, 1)),
    *(_newest(place, *grown) for place, grown in enumerate(GROWING.items(), 1 + len(WRITTEN))),
)


def of(session: Session, farm: Farm) -> Stamp:
    """Changes with every write to what forecasts, traps and treatments of a farm are shown from."""
    return memo.once(session, ("stamp", farm.id), lambda: _read(session, farm))


def _read(session: Session, farm: Farm) -> Stamp:
    return tuple(sorted(tuple(row) for row in session.execute(_STATEMENT, {"farm": farm.id})))
