"""What stands near a block and binds what is done in it."""

import uuid

from sqlalchemy.orm import Session

from bootmark.core import judgement
from bootmark.core.ground import near
from bootmark.core.meanings import FeatureKind
from bootmark.services.base import ground, memo, stamp
from bootmark.services.base.stamp import Topic
from bootmark.store.models import Block, Farm

_lines: memo.Kept[frozenset[uuid.UUID]] = memo.Kept(64)


def lines_near(session: Session, farm: Farm, block: Block) -> bool:
    """Whether a power line hangs over a block, or so near to it that a raised pole may touch it."""
    kept = stamp.while_standing(session, _lines, (Topic.PLACES,), "lines", lambda: _under_lines(session, farm))
    return block.id in kept


def _under_lines(session: Session, farm: Farm) -> frozenset[uuid.UUID]:
    to_plan = ground.origin(farm).to_plan
    lines = [to_plan(feature.points) for feature in ground.features(session) if feature.kind == FeatureKind.POWER]
    outlines = {block.id: ground.on_plan(farm, block) for block in ground.blocks(session)} if lines else {}
    near_enough = judgement.LINE_NEAR_METRES
    return frozenset(
        block for block, corners in outlines.items() if corners and any(near.distance(corners, line) <= near_enough for line in lines)
    )
