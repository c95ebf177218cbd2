"""Cases that come to the desk as a bagged leaf, a photograph or a message."""

import datetime as dt
import uuid
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated

from pydantic import Field
from sqlalchemy import case as by_case
from sqlalchemy.orm import Session

from bootmark import say
from bootmark.core.catalogue.model import PLACES
from bootmark.core.catalogue.plants import understand
from bootmark.core.meanings import OPEN_VERDICTS, VerdictKind
from bootmark.core.types import SEEN, Case
from bootmark.services.base.command import Command
from bootmark.services.base.farm_time import zone
from bootmark.services.base.fields import Checks, Choice, Crop, Signs, Text
from bootmark.services.base.handling import Context, handles
from bootmark.services.base.roles import DESK
from bootmark.services.base.states import EnquiryState
from bootmark.services.scouting.looks import read
from bootmark.store.models import Block, Enquiry, Farm, Look, Stop
from bootmark.store.rows import of_farm, row_of

__all__ = [
    "CAME_AS",
    "Enquiry",
    "SaveEnquiry",
    "case_of",
    "enquiry",
    "like",
    "page_of",
    "store_enquiry",
]
CAME_AS = ("leaf", "photograph", "message")
MOST_COMPARED = 400
"""Of the newest settled cases on a crop."""
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
    )


class SaveEnquiry(Command, kind="enquiry.save", roles=DESK):
    """Keep an enquiry with what was told of it; the verdict is the core's."""

    sender: Annotated[str, Text(120)]
    came_as: Annotated[str, Choice(CAME_AS)]
    crop: Annotated[str, Crop(any_plant=True)]
    family: Annotated[str, Text(60, needed=False)] = ""
    place: Annotated[str, Choice(("", *PLACES), fallback="")] = ""
    words: Annotated[str, Text(4000, needed=False)] = ""
    signs: Annotated[dict[str, str], Signs()] = Field(default_factory=dict)
    # Sent by benches of before version 0.2 with every case; an enquiry keeps none.
    note: Annotated[str, Text(needed=False)] = ""

    def across(self, checks: Checks) -> Iterator[tuple[str, str]]:
        plant = understand(self.crop, checks.catalogue).plant
        if self.family not in checks.catalogue.families and not (plant and (plant.crop or plant.family or plant.habit)):
            unknown = say.line(
                "{crop} is not a crop that Bootmark knows: choose its family, so that its causes can be weighed.", crop=self.crop
            )
            yield "family", unknown


@handles(SaveEnquiry, Enquiry)
def store_enquiry(command: SaveEnquiry, context: Context) -> Enquiry:
    usual = context.catalogue.crops.get(command.crop)
    place = command.place or (usual.place if usual else "field")
    case = case_of(context.farm, context.sent.seen_at, command.crop, command.family, place, command.signs)
    working = read(case, context) | {"called": _called(command.crop, context)}
    verdict = working["verdict"]["kind"]
    seen = any(state == SEEN for state in command.signs.values())
    state = EnquiryState.OPEN if not seen else EnquiryState.ASKED if verdict == VerdictKind.NEEDS_A_LOOK else EnquiryState.ANSWERED
    return Enquiry(**command.model_dump(exclude={"place", "note"}), place=place, verdict=verdict, state=state, working=working)


def _called(crop: str, context: Context) -> str:
    """The sender's own word for the plant. The bench sends the crop's id once it is known: the word of the version before then stands."""
    word = str(context.sent.payload["crop"]).strip()
    before = context.session.get(Enquiry, (context.farm_id, context.sent.record_id))
    kept = before.working.get("called", "") if before and before.crop == crop else ""
    return kept if kept and word == crop else word


def enquiry(session: Session, enquiry_id: uuid.UUID) -> Enquiry:
    """One enquiry. Raises NotHere."""
    return row_of(session, Enquiry, enquiry_id)


def page_of(session: Session, start: int, most: int) -> list[Enquiry]:
    """So many from a place on: those that wait first, newest first."""
    turn = by_case({EnquiryState.OPEN: 0, EnquiryState.ASKED: 1}, value=Enquiry.state, else_=2)
    return list(session.scalars(of_farm(Enquiry).order_by(turn, Enquiry.seen_at.desc(), Enquiry.id).offset(start).limit(most)))


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


def like(session: Session, crop: str, signs: dict[str, str], but: uuid.UUID, most: int = 3) -> list[Like]:
    """Settled cases on the same crop that share most of the signs seen."""
    seen = {sign for sign, state in signs.items() if state == SEEN}
    if not seen:
        return []
    looks = session.execute(
        of_farm(Look, Look, Block.name)
        .join(Stop, (Stop.farm_id == Look.farm_id) & (Stop.id == Look.stop_id))
        .join(Block, (Block.farm_id == Stop.farm_id) & (Block.id == Stop.block_id))
        .where(Block.crop == crop, Look.verdict.not_in(OPEN_VERDICTS))
        .order_by(Look.seen_at.desc())
        .limit(MOST_COMPARED)
    )
    enquiries = session.scalars(
        of_farm(Enquiry)
        .where(Enquiry.crop == crop, Enquiry.state == EnquiryState.ANSWERED, Enquiry.verdict.not_in(OPEN_VERDICTS), Enquiry.id != but)
        .order_by(Enquiry.seen_at.desc())
        .limit(MOST_COMPARED)
    )
    kept: list[tuple[Look | Enquiry, str]] = [(look, block) for look, block in looks]
    kept += [(entry, entry.sender or say.line("somebody")) for entry in enquiries]
    alike = []
    for case, where in kept:
        other = {sign for sign, state in case.signs.items() if state == SEEN}
        share = len(seen & other) / len(seen | other)
        if share >= LIKE_AT:
            alike.append((share, case.seen_at, _like(case, where, tuple(sorted(seen & other)))))
    return [case for _, _, case in sorted(alike, key=lambda entry: entry[:2], reverse=True)[:most]]


def _like(case: Look | Enquiry, where: str, shared: tuple[str, ...]) -> Like:
    agents = tuple(case.working["verdict"]["agents"])
    look_id, enquiry_id = (case.id, None) if isinstance(case, Look) else (None, case.id)
    return Like(case.seen_at, where, case.verdict, agents, shared, look_id, enquiry_id)
