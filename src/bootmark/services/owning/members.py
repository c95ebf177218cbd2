"""What each person is on the farm: role, certificate, and leaving. What somebody signed stays theirs."""

import datetime as dt
import uuid
from collections.abc import Iterator
from typing import Annotated

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from bootmark import say
from bootmark.services.base.command import Command, Forbidden, Refused
from bootmark.services.base.fields import Checks, Choice, Day, Flag
from bootmark.services.base.handling import Context, handles
from bootmark.services.base.roles import Role
from bootmark.services.owning.rules import Called
from bootmark.store.models import Membership, MemberTerms
from bootmark.store.rows import of_farm

TERMS = ("role", "qualified", "certificate", "certificate_until")


def certificate_faults(qualified: bool, until: dt.date | None, today: dt.date) -> Iterator[tuple[str, str]]:
    """Whoever is qualified is so by a certificate that has an end, and it is still to come."""
    if qualified and until is None:
        yield "certificate_until", say.line("Give the day on which the certificate ends: until then this person signs as qualified.")
    elif qualified and until and until < today:
        yield "certificate_until", say.line("That certificate ended on {day:full}: give one that lasts, or take the tick away.", day=until)


class SaveMember(Command, kind="member.save", roles=tuple(Role)):
    """Keep somebody's role and certificate, or end that they work on this farm. Whoever is no owner ends the own membership alone."""

    role: Annotated[str, Choice(tuple(Role))]
    qualified: Annotated[bool, Flag()] = False
    certificate: Annotated[str, Called(80, needed=False)] = ""
    certificate_until: Annotated[dt.date | None, Day(optional=True)] = None
    ended: Annotated[bool, Flag()] = False

    def across(self, checks: Checks) -> Iterator[tuple[str, str]]:
        if not self.ended:
            yield from certificate_faults(self.qualified, self.certificate_until, checks.today)


def _membership(context: Context) -> Membership:
    """The membership that is written about. Two who write about each other take turns."""
    context.take_turns("owners")
    writer = context.session.get(Membership, (context.farm_id, context.member.account_id), populate_existing=True)
    if writer is None or writer.ended_at is not None:
        raise Forbidden(role=say.line("You are on this farm no more."))
    row = context.session.get(Membership, (context.farm_id, context.sent.record_id), populate_existing=True)
    if row is None or row.ended_at is not None:
        raise Refused(record_id=say.line("This person is not on the farm, or is so no more: load the page again."))
    return row


def _refuse_without_owner(context: Context, row: Membership, terms: MemberTerms) -> None:
    """A farm keeps at least one owner."""
    if row.role != Role.OWNER or (terms.role == Role.OWNER and not terms.ended):
        return
    others = select(func.count()).where(
        Membership.farm_id == context.farm_id,
        Membership.role == Role.OWNER,
        Membership.ended_at.is_(None),
        Membership.account_id != row.account_id,
    )
    if not context.session.scalar(others):
        context.errors["role"] = say.line("This is the farm's last owner: make somebody else an owner first.")


def _take_over(context: Context, head: MemberTerms) -> None:
    row = context.session.get_one(Membership, (context.farm_id, head.id))
    for name in TERMS:
        setattr(row, name, getattr(head, name))
    row.ended_at = context.real_now if head.ended else None


@handles(SaveMember, MemberTerms, _take_over)
def store_member(command: SaveMember, context: Context) -> MemberTerms:
    row, is_owner = _membership(context), context.member.role == Role.OWNER
    if not is_owner and not (command.ended and row.account_id == context.member.account_id):
        Forbidden.unless(context.member.role, (Role.OWNER,))
    # Whoever ends a membership changes nothing else of it.
    terms = MemberTerms(**command.model_dump() | ({name: getattr(row, name) for name in TERMS} if command.ended else {}))
    _refuse_without_owner(context, row, terms)
    return terms


def base(session: Session, account: uuid.UUID) -> uuid.UUID | None:
    """The command that made somebody's terms what they are; None where they are as they were given first."""
    command: uuid.UUID | None = session.scalar(of_farm(MemberTerms, MemberTerms.command_id).where(MemberTerms.id == account))
    return command
