"""The farm's blocks and stations, as every use case reads them."""

import datetime as dt
import functools
import uuid
from collections.abc import Sequence
from typing import Any, TypeVar

from sqlalchemy.orm import Session

from bootmark.core.field.points import walk_points
from bootmark.core.ground import outline, plane, strips
from bootmark.core.ground.outline import FaultKind
from bootmark.core.ground.plane import Corner, Origin
from bootmark.core.ground.strips import Span, Strip
from bootmark.core.meanings import FeatureKind, Pattern
from bootmark.services.base import memo, stamp
from bootmark.services.base.stamp import Topic
from bootmark.store.models import Block, Farm, PlanFeature, Planting, Station
from bootmark.store.rows import of_farm, plain, row_of

__all__ = [
    "Block",
    "PlanFeature",
    "Planting",
    "Station",
    "all_blocks",
    "all_features",
    "away",
    "block",
    "blocks",
    "drawable",
    "features",
    "gate",
    "heirs",
    "in_degrees",
    "kept_strips",
    "laid",
    "lies_at",
    "middle",
    "on_plan",
    "origin",
    "station",
    "stations",
    "strips_of",
]


FURTHEST = 50_000.0
"""Metres from the plan's nought at which something of the farm may lie."""
DRAWN_WITHIN = 1_000_000.0
"""Metres within which points of the plan are brought to degrees: what lies further than a farm does is then refused by its distance."""
DRAWN_ALL_THE_SAME = frozenset({FaultKind.CROSSES, FaultKind.SLIVER})
"""Faults of outlines that were kept before they were refused."""
_blocks: memo.Kept[list[Block]] = memo.Kept(64)
_heirs: memo.Kept["Heirs"] = memo.Kept(64)
_features: memo.Kept[list[PlanFeature]] = memo.Kept(64)
_stations: memo.Kept[list[Station]] = memo.Kept(64)
Named = TypeVar("Named", Block, Station)


def _by_name(session: Session, model: type[Named]) -> list[Named]:
    return [plain(row) for row in session.scalars(of_farm(model).order_by(model.name))]


def all_blocks(session: Session) -> list[Block]:
    """The farm's blocks by name, those that have ended too, as values: to be shown and reckoned with, not to be changed."""
    return stamp.while_standing(session, _blocks, (Topic.PLACES,), "all", lambda: _by_name(session, Block))


def blocks(session: Session) -> list[Block]:
    """The farm's blocks by name, as values: to be shown and reckoned with, not to be changed."""

    def read() -> list[Block]:
        return [row for row in all_blocks(session) if row.ended is None]

    return stamp.while_standing(session, _blocks, (Topic.PLACES,), "blocks", read)


def strips_of(block: Block) -> tuple[Strip, ...]:
    """What a block's ground was part of before."""
    kept = (tuple(Span(span["block"], _day(span["since"]), _day(span["until"])) for span in strip) for strip in block.strips)
    return strips.of_block(str(block.id), kept)


def _day(text: str | None) -> dt.date | None:
    return dt.date.fromisoformat(text) if text else None


def kept_strips(of: Sequence[Strip]) -> list[list[dict[str, str | None]]]:
    """Strips as a block keeps them."""
    return [
        [
            {
                "block": span.block,
                "since": span.since.isoformat() if span.since else None,
                "until": span.until.isoformat() if span.until else None,
            }
            for span in strip
        ]
        for strip in of
    ]


def heirs(session: Session) -> "Heirs":
    """Which of the farm's present blocks have the ground that was part of a block on a day."""
    return stamp.while_standing(session, _heirs, (Topic.PLACES,), "heirs", lambda: Heirs(blocks(session)))


class Heirs:
    """By block and day: the present blocks that have its ground."""

    def __init__(self, rows: Sequence[Block]) -> None:
        self._spans: dict[str, list[tuple[Span, Block]]] = {}
        for row in rows:
            for span in strips.spans(strips_of(row)):
                self._spans.setdefault(span.block, []).append((span, row))

    def of(self, block_id: uuid.UUID, day: dt.date) -> list[Block]:
        """The blocks, each once. One that has ended and was not joined to another has none."""
        rows = {row.id: row for span, row in self._spans.get(str(block_id), ()) if span.holds(day)}
        return list(rows.values())

    def since(self, block_id: uuid.UUID, day: dt.date) -> list[Block]:
        """The blocks that have any ground which was part of a block on a day or after it."""
        spans = self._spans.get(str(block_id), ())
        return list({row.id: row for span, row in spans if span.until is None or span.until >= day}.values())


def block(session: Session, block_id: uuid.UUID) -> Block:
    """A block of the farm. Raises NotHere."""
    return row_of(session, Block, block_id)


def stations(session: Session) -> list[Station]:
    """The farm's stations by name, as values."""
    return stamp.while_standing(session, _stations, (Topic.PLACES,), "stations", lambda: _by_name(session, Station))


def station(session: Session, station_id: uuid.UUID) -> Station:
    """A station of the farm. Raises NotHere."""
    return row_of(session, Station, station_id)


def all_features(session: Session) -> list[PlanFeature]:
    """What stands on the plan and is no block, and what stood there, by kind and name, as values."""

    def read() -> list[PlanFeature]:
        rows = of_farm(PlanFeature).order_by(PlanFeature.kind, PlanFeature.name, PlanFeature.id)
        return [plain(row) for row in session.scalars(rows)]

    return stamp.while_standing(session, _features, (Topic.PLACES,), "features", read)


def features(session: Session) -> list[PlanFeature]:
    """What stands on the plan and is no block, by kind and name, as values."""
    return [feature for feature in all_features(session) if not feature.ended]


def gate(session: Session, farm: Farm) -> Corner:
    """Where walks begin and end, on the plan: the farm's gate; while none is drawn, west of everything."""
    drawn = next((feature for feature in features(session) if feature.kind == FeatureKind.GATE), None)
    if drawn:
        return origin(farm).to_plan(drawn.points)[0]
    corners = [corner for row in blocks(session) for corner in on_plan(farm, row)] or [(0.0, 0.0)]
    xs, ys = [x for x, _ in corners], [y for _, y in corners]
    return (min(xs) - (max(xs) - min(xs)) / 20, (min(ys) + max(ys)) / 2)


def origin(farm: Farm) -> Origin:
    """Where the farm's plan has its nought."""
    return Origin(farm.origin_latitude, farm.origin_longitude)


def _is_drawn(point: Any) -> bool:
    is_pair = isinstance(point, list) and len(point) == 2
    return is_pair and all(type(metres) in (int, float) and abs(metres) <= DRAWN_WITHIN for metres in point)


def in_degrees(farm: Farm, points: Any) -> list[list[float]] | None:
    """Points of the plan, metres east and south, as longitude and latitude; None where they are no such points."""
    are_points = isinstance(points, list) and all(_is_drawn(point) for point in points)
    return [list(corner) for corner in origin(farm).to_degrees(points)] if are_points else None


def away(farm: Farm, place: Sequence[float]) -> float:
    """How far a place, longitude and latitude, lies from the plan's nought, metres."""
    return plane.distance((farm.origin_longitude, farm.origin_latitude), (place[0], place[1]))


def drawable(block: Block) -> bool:
    """Whether a block's stored outline can be drawn; one that can't takes no page of others down."""
    try:
        corners = tuple((float(east), float(north)) for east, north in block.outline)
    except (TypeError, ValueError):
        return False
    return _drawable(corners)


@functools.lru_cache(maxsize=4096)
def _drawable(corners: tuple[Corner, ...]) -> bool:
    fault = outline.fault(corners)
    return fault is None or fault.kind in DRAWN_ALL_THE_SAME


def on_plan(farm: Farm, block: Block) -> tuple[Corner, ...]:
    """A block's corners in metres east and south; none where they can't be drawn."""
    return origin(farm).to_plan(block.outline) if drawable(block) else ()


def laid(farm: Farm, block: Block, points: int, pattern: Pattern) -> tuple[Corner, ...]:
    """So many points of a block in walking order, metres east and south, the same each time; none where its corners can't be drawn."""
    corners = on_plan(farm, block)
    # A plan turns from north to east, and a plan's south is down: a row to the north runs against its second axis.
    turn = None if block.row_direction is None else block.row_direction - 90
    return _laid(corners, points, pattern, turn) if corners else ()


@functools.lru_cache(maxsize=256)
def _laid(corners: tuple[Corner, ...], points: int, pattern: Pattern, turn: float | None) -> tuple[Corner, ...]:
    return tuple(walk_points(corners, points, pattern, direction=turn))


def edge(block: Block) -> float | None:
    """How long a block's edge is, metres; None where its corners can't be read."""
    return plane.edge(block.outline) if drawable(block) else None


def middle(farm: Farm, block: Block) -> Corner:
    """The middle of a block's corners on the plan; the plan's own nought where they can't be read."""
    return _mean(on_plan(farm, block)) or (0.0, 0.0)


def lies_at(farm: Farm, block: Block) -> Corner:
    """Longitude and latitude of a block's middle; the farm's own where its corners can't be read."""
    return (_mean(block.outline) if drawable(block) else None) or (farm.longitude, farm.latitude)


def _mean(corners: Sequence[Sequence[float]]) -> Corner | None:
    count = len(corners)
    return (sum(corner[0] for corner in corners) / count, sum(corner[1] for corner in corners) / count) if count else None
