"""Blocks that are held after a report, and what the authority or a clinic answers: that alone frees a block and settles a sample."""

import datetime as dt
import uuid
from dataclasses import dataclass
from typing import Annotated

from sqlalchemy.orm import Session

from bootmark import say
from bootmark.core.catalogue import Catalogue
from bootmark.core.meanings import DecisionKind
from bootmark.core.types import Answered
from bootmark.services.base.command import Command, Refused
from bootmark.services.base.fields import Agent as AgentField
from bootmark.services.base.fields import Day, Flag, RecordId, Text
from bootmark.services.base.handling import Context, handles
from bootmark.services.base.roles import SCOUTS, Role
from bootmark.services.base.states import HoldState
from bootmark.services.scouting.stops import AtStop, child
from bootmark.store.models import DecisionRow, Hold, OutsideAnswer
from bootmark.store.rows import of_farm, plain

ANSWERED = (DecisionKind.REPORT, DecisionKind.SEND_A_SAMPLE)
"""Calls that wait for somebody outside the farm."""


def begin(context: Context, call: DecisionRow) -> None:
    """A report holds its block. A report that is made again changes nothing: its hold stands, or has been ended by the authority."""
    before = context.session.scalars(of_farm(Hold).where(Hold.decision_id == call.id)).one_or_none()
    if before is None:
        context.session.add(
            Hold(
                farm_id=context.farm_id,
                id=context.derived_id("hold", 0),
                block_id=call.block_id,
                decision_id=call.id,
                agent=call.agent,
                since=context.today,
                state=HoldState.HELD,
            )
        )


def answer_to(session: Session, decision_id: uuid.UUID) -> OutsideAnswer | None:
    return session.scalars(of_farm(OutsideAnswer).where(OutsideAnswer.decision_id == decision_id)).one_or_none()


def answers_to(session: Session, look_id: uuid.UUID) -> list[Answered]:
    """What came back to the calls of a look, in the order of its days."""
    rows = (
        of_farm(OutsideAnswer, DecisionRow.agent, OutsideAnswer.agent)
        .join(DecisionRow, (DecisionRow.farm_id == OutsideAnswer.farm_id) & (DecisionRow.id == OutsideAnswer.decision_id))
        .where(DecisionRow.look_id == look_id)
        .order_by(OutsideAnswer.on, OutsideAnswer.id)
    )
    return [Answered(*row) for row in session.execute(rows)]


@dataclass(frozen=True)
class Waiting:
    """A call at a stop that waits for somebody outside, with what came back, and what it may be said to be.

    record_id: of the answer, which is there or is to be; may_be: agents that it may be, likeliest first after what was asked.
    """

    call: DecisionRow
    answer: OutsideAnswer | None
    record_id: uuid.UUID
    may_be: tuple[str, ...]

    @property
    def reported(self) -> bool:
        return self.call.kind == DecisionKind.REPORT

    @property
    def settled(self) -> tuple[str, ...]:
        return (self.answer.agent,) if self.answer and self.answer.agent else ()


def waiting(session: Session, here: AtStop, agent: str, catalogue: Catalogue) -> Waiting | None:
    """The call of a stop that waits, or has waited, for an answer: that on an agent first."""
    rows = session.scalars(of_farm(OutsideAnswer).where(OutsideAnswer.decision_id.in_(call.id for call in here.calls.values())))
    by_call = {answer.decision_id: plain(answer) for answer in rows} if here.calls else {}
    calls = sorted(here.calls.values(), key=lambda call: call.agent != agent)
    call = next((call for call in calls if call.kind in ANSWERED or call.id in by_call), None)
    if call is None or here.look is None:
        return None
    chances = here.look.working["chances"]
    kin = (call.agent, *(member.id for member in catalogue.members(call.agent)))
    may_be = dict.fromkeys((*kin, *sorted(chances, key=lambda agent: -chances[agent])))
    answer = by_call.get(call.id)
    record_id = answer.id if answer else child(here.stop.id, "answer", call.agent)
    return Waiting(call, answer, record_id, tuple(agent for agent in may_be if agent in catalogue.agents))


class KeepAnswer(Command, kind="answer.keep", roles=SCOUTS):
    """Keep what an authority answered to a report, or a clinic to a sample. agent: what it is; none: nothing of what was asked."""

    decision_id: Annotated[uuid.UUID, RecordId("call")]
    agent: Annotated[str | None, AgentField(optional=True)]
    answered_by: Annotated[str, Text(120)]
    on: Annotated[dt.date, Day(past="write the day on which the answer came")]
    words: Annotated[str, Text()]
    frees: Annotated[bool, Flag()] = False


def _free(context: Context, row: OutsideAnswer) -> None:
    hold = context.session.scalars(of_farm(Hold).where(Hold.decision_id == row.decision_id)).one_or_none()
    if hold:
        hold.state = HoldState.ENDED if row.frees else HoldState.HELD


@handles(KeepAnswer, OutsideAnswer, _free)
def store_answer(command: KeepAnswer, context: Context) -> OutsideAnswer:
    call: DecisionRow = context.get(DecisionRow, command.decision_id, "decision_id")
    waits = call.kind in ANSWERED
    hold = context.session.scalars(of_farm(Hold).where(Hold.decision_id == call.id)).one_or_none()
    if not (waits or hold):
        raise Refused(decision_id=say.line("This call waits for no answer: only a report and a sample do."))
    before = answer_to(context.session, call.id)
    if before and before.id != context.sent.record_id:
        raise Refused(decision_id=say.line("An answer to this call is kept already: change that one."))
    if command.frees and not hold:
        context.errors["frees"] = say.line("No block is held by this call: leave it unticked.")
    if (command.frees or (before and before.frees)) and context.member.role != Role.OWNER:
        context.errors["frees"] = say.line("The owner frees a block, by what the authority wrote: ask for that.")
    context.refuse_what_is_wrong()
    return OutsideAnswer(**command.model_dump(), block_id=call.block_id)
