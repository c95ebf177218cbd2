"""Second opinions on calls, and what waits for somebody's word: calls to be signed, opinions that were asked for."""

import uuid
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated

from sqlalchemy.orm import Session

from bootmark import say
from bootmark.services.base import ground, memo, stamp
from bootmark.services.base.command import Command
from bootmark.services.base.fields import Checks, Choice, Number, RecordId, Text
from bootmark.services.base.handling import Context, handles
from bootmark.services.base.people import Member
from bootmark.services.base.roles import KEEPERS, SCOUTS
from bootmark.services.base.stamp import Topic
from bootmark.services.base.states import CallState, Stance
from bootmark.store.models import DecisionRow, Look, Membership, Opinion
from bootmark.store.rows import of_farm, plain

LAST = 2**31 - 1


class GiveOpinion(Command, kind="opinion.give", roles=SCOUTS):
    """Ask somebody for a second opinion on a call, or give one."""

    decision_id: Annotated[uuid.UUID, RecordId("call")]
    decision_version: Annotated[int, Number(1, LAST, whole=True)]
    stance: Annotated[str, Choice(tuple(Stance))]
    asked_of: Annotated[uuid.UUID | None, RecordId("person", optional=True)] = None
    words: Annotated[str, Text(600)]

    def across(self, checks: Checks) -> Iterator[tuple[str, str]]:
        if self.asked_of and self.stance != Stance.ASKS:
            yield "asked_of", say.line("Only a question is put to somebody.")


@handles(GiveOpinion, Opinion)
def store_opinion(command: GiveOpinion, context: Context) -> Opinion:
    call: DecisionRow = context.get(DecisionRow, command.decision_id, "decision_id")
    if command.decision_version > call.version:
        context.errors["decision_version"] = say.line("That call has no such version: load the page again.")
    if command.asked_of == context.member.account_id:
        context.errors["asked_of"] = say.line("Ask somebody else than yourself.")
    elif command.asked_of:
        asked = context.session.get(Membership, (context.farm_id, command.asked_of))
        if asked is None or asked.ended_at is not None:
            context.errors["asked_of"] = say.line("This person is not on the farm: choose somebody from the list.")
    return Opinion(**command.model_dump())


def of_call(session: Session, decision_id: uuid.UUID) -> list[Opinion]:
    """What was asked and said of a call, in its order."""
    rows = of_farm(Opinion).where(Opinion.decision_id == decision_id).order_by(Opinion.seen_at, Opinion.id)
    return [plain(row) for row in session.scalars(rows)]


@dataclass(frozen=True)
class Waits:
    """A call that waits for somebody. stop: where it was made; asks: the question, where it is an opinion that is wanted and no signature;
    of: whose it is."""

    call: DecisionRow
    block: str
    stop: uuid.UUID
    asks: str
    of: uuid.UUID


@dataclass(frozen=True)
class Question:
    """An opinion that is wanted. asked_of: of whom, None for whoever signs."""

    waits: Waits
    asked_of: uuid.UUID | None


@dataclass(frozen=True)
class Open:
    """What waits on a farm for somebody's word: calls to be signed, and questions that nobody has answered."""

    proposed: list[Waits]
    questions: list[Question]


_open: memo.Kept[Open] = memo.Kept(64)


def waiting(session: Session, member: Member) -> list[Waits]:
    """Calls that a member is to sign, and questions put to them that they have not answered, the oldest first."""
    topics = (Topic.TREATMENT, Topic.SCOUTING, Topic.PLACES)
    waits, signs = stamp.while_standing(session, _open, topics, "open", lambda: _read(session)), member.role in KEEPERS
    mine = [
        question.waits
        for question in waits.questions
        if question.waits.of != member.account_id and (signs if question.asked_of is None else question.asked_of == member.account_id)
    ]
    return [*(waits.proposed if signs else ()), *mine]


def _read(session: Session) -> Open:
    blocks = {block.id: block.name for block in ground.all_blocks(session)}
    stops = (Look.farm_id == DecisionRow.farm_id) & (Look.id == DecisionRow.look_id)
    calls = of_farm(DecisionRow, DecisionRow, Look.stop_id).join(Look, stops)
    proposed = [
        Waits(plain(call), blocks[call.block_id], stop, "", call.account_id)
        for call, stop in session.execute(calls.where(DecisionRow.state == CallState.PROPOSED).order_by(DecisionRow.seen_at))
    ]
    rows = list(session.scalars(of_farm(Opinion).order_by(Opinion.seen_at)))
    about = {row.decision_id for row in rows}
    by_id = {call.id: (plain(call), stop) for call, stop in session.execute(calls.where(DecisionRow.id.in_(about)))} if about else {}
    questions = []
    for row in rows:
        if row.stance != Stance.ASKS:
            continue
        after = (
            said for said in rows if said.decision_id == row.decision_id and said.stance != Stance.ASKS and said.seen_at >= row.seen_at
        )
        answered = {said.account_id for said in after}
        if row.asked_of in answered or (row.asked_of is None and answered):
            continue
        call, stop = by_id[row.decision_id]
        questions.append(Question(Waits(call, blocks[call.block_id], stop, row.words, row.account_id), row.asked_of))
    return Open(proposed, questions)
