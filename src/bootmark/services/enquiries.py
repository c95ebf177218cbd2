"""Cases that come to the desk as a bagged leaf, a photograph or a message."""

import datetime as dt
import uuid
from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from bootmark.core.catalogue.model import PLACES
from bootmark.core.types import SEEN, STATES, Case
from bootmark.services.commands import Context, Fields, Json, kind
from bootmark.services.farm_time import zone
from bootmark.services.field import SLIP, read
from bootmark.store.models import Block, Enquiry, Farm, Look, Photo, Stop

DESK = ("owner", "adviser", "scout")
CAME_AS = ("leaf", "photograph", "message")
LIKE_AT = 0.25
"""Cases that share this share of the signs seen in either are alike. Judgement, no source."""


def case_of(farm: Farm, at: dt.datetime, crop: str, family: str, place: str, signs: dict[str, str]) -> Case:
    """What is known of a plant that nobody here has seen: no weather, no past."""
    local = at.astimezone(zone(farm))
    return Case(
        crop=crop,
        family=family,
        place=place,
        month=local.month,
        hemisphere="north" if farm.latitude >= 0 else "south",
        signs=signs,
        region=farm.region,
        slip=SLIP,
    )


@kind("enquiry.save", Enquiry, DESK)
def enquiry_save(context: Context) -> Json:
    """Keep an enquiry with what was told of it; the verdict is the core's."""
    payload = context.sent.payload
    fields = Fields(payload)
    sender, words = fields.text("sender", most=120), fields.text("words", most=4000, needed=False)
    came_as = fields.one_of("came_as", CAME_AS)
    crop, family = context.catalogue.crop_meant(fields.text("crop", most=80)), fields.text("family", most=60, needed=False)
    usual = context.catalogue.crops.get(crop)
    place = fields.one_of("place", PLACES) if payload.get("place") else usual.place if usual else "field"
    if crop and crop not in context.catalogue.crops and "crop" not in fields.errors and family not in context.catalogue.families:
        fields.errors["family"] = f"{crop} is not a crop that Bootmark knows: choose its family, so that its causes can be weighed."
    signs = payload.get("signs") or {}
    if not isinstance(signs, dict) or any(one not in context.catalogue.signs or state not in STATES for one, state in signs.items()):
        fields.errors["signs"] = "Signs are told as sign: seen, absent or unsure."
    fields.done()
    told = read(case_of(context.farm, context.sent.seen_at, crop, family, place, signs), context)
    verdict = told["verdict"]["kind"]
    seen = any(state == SEEN for state in signs.values())
    return {
        "sender": sender,
        "came_as": came_as,
        "crop": crop,
        "family": family,
        "place": place,
        "words": words,
        "signs": signs,
        "verdict": verdict,
        "state": "open" if not seen else "asked" if verdict == "needs a look" else "answered",
        "working": told,
    }


def all_of(session: Session, farm: Farm) -> list[Enquiry]:
    """Those that wait first, newest first."""
    rows = session.scalars(select(Enquiry).where(Enquiry.farm_id == farm.id).order_by(Enquiry.seen_at.desc()))
    return sorted(rows, key=lambda one: ("open", "asked", "answered").index(one.state))


def photos(session: Session, farm: Farm, enquiry: uuid.UUID) -> list[uuid.UUID]:
    return list(session.scalars(select(Photo.id).where(Photo.farm_id == farm.id, Photo.enquiry_id == enquiry).order_by(Photo.seen_at)))


@dataclass(frozen=True)
class Like:
    """An earlier case that looked the same, and what was said of it. look_id or enquiry_id tells which it was."""

    on: dt.datetime
    where: str
    verdict: str
    agents: tuple[str, ...]
    shared: tuple[str, ...]
    look_id: uuid.UUID | None = None
    enquiry_id: uuid.UUID | None = None


def like(session: Session, farm: Farm, crop: str, signs: dict[str, str], but: uuid.UUID, most: int = 3) -> list[Like]:
    """Settled cases on the same crop that share most of the signs seen."""
    seen = {sign for sign, state in signs.items() if state == SEEN}
    if not seen:
        return []
    looks = session.execute(
        select(Look, Block.name)
        .join(Stop, (Stop.farm_id == Look.farm_id) & (Stop.id == Look.stop_id))
        .join(Block, (Block.farm_id == Stop.farm_id) & (Block.id == Stop.block_id))
        .where(Look.farm_id == farm.id, Block.crop == crop, Look.verdict.not_in(("needs a look", "cannot tell")))
    )
    enquiries = session.scalars(
        select(Enquiry).where(Enquiry.farm_id == farm.id, Enquiry.crop == crop, Enquiry.state == "answered", Enquiry.id != but)
    )
    kept: list[tuple[Look | Enquiry, str]] = [(look, block) for look, block in looks]
    kept += [(one, one.sender) for one in enquiries]
    found = []
    for case, where in kept:
        other = {sign for sign, state in case.signs.items() if state == SEEN}
        share = len(seen & other) / len(seen | other)
        if share >= LIKE_AT:
            found.append((share, case.seen_at, _like(case, where, tuple(sorted(seen & other)))))
    return [case for _, _, case in sorted(found, key=lambda one: one[:2], reverse=True)[:most]]


def _like(case: Look | Enquiry, where: str, shared: tuple[str, ...]) -> Like:
    agents = tuple(case.working["verdict"]["agents"])
    look_id, enquiry_id = (case.id, None) if isinstance(case, Look) else (None, case.id)
    return Like(case.seen_at, where, case.verdict, agents, shared, look_id, enquiry_id)
