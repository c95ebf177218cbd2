"""The farm's blocks as shapes of its plan."""

import json
import uuid
from collections.abc import Iterable, Sequence
from typing import Any

from flask import url_for

from bootmark import say
from bootmark.core.meanings import Form
from bootmark.core.units import Quantity
from bootmark.drawing.plan import Rows, Shape, Thing, Under
from bootmark.services import pictures
from bootmark.services.base import ground
from bootmark.services.base.ground import Block, PlanFeature
from bootmark.services.base.work import Farm
from bootmark.web.guard import db

STEP = 0.001
"""Degrees over which the plan's metres are measured for a device that tells its place."""


def shapes(farm: Farm, blocks: Iterable[Block]) -> tuple[Shape, ...]:
    """What the plan draws of blocks, in metres. One whose outline can't be drawn is left out."""
    return tuple(
        (str(block.id), block.name, block.place, corners, _lie(block)) for block in blocks if (corners := ground.on_plan(farm, block))
    )


def _lie(block: Block) -> Rows | None:
    return None if block.row_direction is None else (block.row_direction, block.row_spacing)


def things(farm: Farm, features: Iterable[PlanFeature]) -> tuple[Thing, ...]:
    """What the plan draws of what is no block."""
    return tuple((feature.kind, feature.name, ground.origin(farm).to_plan(feature.points)) for feature in features)


def posted(farm: Farm, outline: str | None, drawn: list[list[float]]) -> list[list[float]]:
    """What a board shows: what was drawn just now and is wrong somewhere, else what stands."""
    points = _points(outline) if outline else drawn
    return points if ground.in_degrees(farm, points) is not None else drawn


def in_degrees(farm: Farm, outline: str | None) -> Any:
    """A form's points, metres on the plan, as a command wants them; what is none stays, to be refused."""
    points = _points(outline or "[]")
    degrees = ground.in_degrees(farm, points)
    return points if degrees is None else degrees


def _points(outline: str) -> Any:
    try:
        return json.loads(outline)
    except ValueError:
        return None


def under(farm: Farm) -> Under | None:
    """The picture that lies under the farm's plan."""
    lies = pictures.lies(db(), farm)
    return (url_for("picture.show", farm=farm.id, image=lies[0].id), lies[0].width, lies[0].height, lies[1]) if lies else None


def _under(farm: Farm) -> dict[str, Any] | None:
    picture = under(farm)
    return dict(zip(("href", "width", "height", "matrix"), picture, strict=True)) if picture else None


def board_of(
    farm: Farm,
    blocks: Iterable[Block],
    points: Sequence[Sequence[float]],
    own: uuid.UUID | None = None,
    *,
    form: Form = Form.RING,
    focus: Sequence[Sequence[float]] = (),
) -> dict[str, Any]:
    """What a drawing board is given: what is drawn, the other blocks to draw it to, and what a degree and a unit are there.

    points: metres on the plan; own: the block that is drawn; form: what is drawn; focus: what is shown first while
    nothing is.
    """
    origin, unit = ground.origin(farm), say.tongue().formats.unit(Quantity.AREA)
    [(east, _), (_, south)] = origin.to_plan([(origin.longitude + STEP, origin.latitude), (origin.longitude, origin.latitude - STEP)])
    return {
        "points": [list(point) for point in points],
        "others": [{"name": name, "points": corners} for id_, name, _, corners, _ in shapes(farm, blocks) if id_ != str(own)],
        "focus": [list(point) for point in focus],
        "form": form,
        "under": _under(farm),
        "origin": {"latitude": origin.latitude, "longitude": origin.longitude, "east": east / STEP, "north": south / STEP},
        "unit": {"symbol": say.tongue().symbol(Quantity.AREA), "times": unit.times},
    }
