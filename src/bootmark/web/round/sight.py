"""What the Round shows of a farm, whoever looks: made once for each state of the farm's rows."""

import datetime as dt
from collections.abc import Collection, Mapping
from dataclasses import dataclass
from typing import Any

from flask import g

from bootmark import say
from bootmark.core.field.walk import PlannedStop, Walk, Wish
from bootmark.core.messages import Message
from bootmark.drawing.plan import plan_svg
from bootmark.services.base import ground, memo, stamp
from bootmark.services.base.ground import Block
from bootmark.services.scouting import closed, picking, rounds
from bootmark.services.scouting.rounds import Opened
from bootmark.services.treatment import thresholds
from bootmark.web.guard import db, real_now, the_farm
from bootmark.web.plan import shapes, things

MUST = 50
"""Weight of a reason from which on a stop must be walked."""


@dataclass(frozen=True)
class Sight:
    walk: Walk
    by_id: Mapping[str, Block]
    plan: str
    first: PlannedStop | None
    place: int
    opened: Mapping[str, list[Opened]]
    no_picking: Mapping[str, Message]
    hand_work: Mapping[str, Message]
    closed: Collection[str]


_sights: memo.Kept[Sight] = memo.Kept(128)


def sight(now: dt.datetime, wish: Wish) -> Sight:
    """The walk of a day, drawn. Making it may make forecasts anew, which is a write: the key is asked for after it."""
    shut = [*closed.blocks(db(), g.catalogue, now).items(), *closed.hand_work(db(), g.catalogue, now).items()]
    key = (
        the_farm().id,
        wish,
        now.date(),
        g.catalogue.hash,
        tuple(sorted((str(block), say.tongue().say(why)) for block, why in shut)),
    )
    kept = _sights.get((stamp.of(db()), key))
    if kept is not None:
        return kept
    made, whole = _made(now, wish)
    return _sights.put((stamp.of(db()), key), made) if whole else made


def _around() -> dict[str, Any]:
    """The gate and what else stands on the plan."""
    return {"gate": ground.gate(db(), the_farm()), "things": things(the_farm(), ground.features(db()))}


def _made(now: dt.datetime, wish: Wish) -> tuple[Sight, bool]:
    today = now.date()
    own = thresholds.own(db(), g.catalogue)
    walk, blocks, whole = rounds.today(db(), the_farm(), g.catalogue, own, now, real_now(), wish)
    # The line leads into no closed block, and the others keep the numbers of the list.
    line = ["" if stop.closed else stop.block for stop in walk.stops]
    marks = {stop.block: "must" if stop.whys[0].weight >= MUST else "" for stop in walk.stops}
    first = walk.first
    return Sight(
        walk=walk,
        place=walk.stops.index(first) + 1 if first else 0,
        by_id={str(block.id): block for block in blocks},
        plan=plan_svg(shapes(the_farm(), blocks), line, marks, **_around()),
        closed=[str(block) for block in closed.blocks(db(), g.catalogue, now)],
        first=first,
        opened=rounds.opened_today(db(), today),
        hand_work={str(block): why for block, why in closed.hand_work(db(), g.catalogue, now).items()},
        no_picking={str(block): kept.why for block, kept in picking.blocks(db(), the_farm(), g.catalogue, today).items()},
    ), whole
