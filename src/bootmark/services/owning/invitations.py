"""Links by which people join the farm, as owners make and withdraw them."""

import datetime as dt
import uuid
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated

from sqlalchemy.orm import Session

from bootmark import say
from bootmark.services.base.command import Command
from bootmark.services.base.fields import Checks, Choice, Day, Flag, Text
from bootmark.services.base.handling import Context, handles
from bootmark.services.base.roles import Role
from bootmark.services.owning.members import certificate_faults
from bootmark.services.owning.rules import Called, Mail
from bootmark.store.models import Invitation
from bootmark.store.rows import of_farm

LASTS = dt.timedelta(days=7)
"""A link ends by itself."""
HASH_LETTERS = 64


class SaveInvitation(Command, kind="invitation.save", roles=(Role.OWNER,)):
    """Make a link by which somebody joins the farm, for a week and once; or withdraw it, so that it serves nobody."""

    name: Annotated[str, Called()]
    email: Annotated[str, Mail(needed=False)] = ""
    role: Annotated[str, Choice(tuple(Role))]
    qualified: Annotated[bool, Flag()] = False
    certificate: Annotated[str, Called(80, needed=False)] = ""
    certificate_until: Annotated[dt.date | None, Day(optional=True)] = None
    token_hash: Annotated[str, Text(HASH_LETTERS, needed=False)] = ""
    withdrawn: Annotated[bool, Flag()] = False

    def across(self, checks: Checks) -> Iterator[tuple[str, str]]:
        if self.withdrawn:
            return
        yield from certificate_faults(self.qualified, self.certificate_until, checks.today)
        if len(self.token_hash) != HASH_LETTERS:
            yield "token_hash", say.line("A link has a token, and this is not its hash: load the page again.")


@handles(SaveInvitation, Invitation)
def store_invitation(command: SaveInvitation, context: Context) -> Invitation:
    if not command.withdrawn:
        others = of_farm(Invitation, Invitation.id).where(
            Invitation.token_hash == command.token_hash, Invitation.id != context.sent.record_id
        )
        if context.session.scalar(others.limit(1)):
            context.errors["token_hash"] = say.line("Another link has this token: load the page again.")
        return Invitation(**command.model_dump(), ends_at=context.real_now + LASTS)
    row = context.get(Invitation, context.sent.record_id, "invitation_id")
    if row.used_at is not None:
        context.errors["record_id"] = say.line("{name} has joined by this link: end the membership instead.", name=row.name)
    return Invitation(withdrawn=True)


@dataclass(frozen=True)
class Pending:
    """A link that nobody has used yet. email: empty where it serves whoever opens it first."""

    id: uuid.UUID
    name: str
    email: str
    role: Role
    ends_at: dt.datetime
    command_id: uuid.UUID


def pending(session: Session, real_now: dt.datetime) -> list[Pending]:
    """Links that are out, the one that ends first before the others."""
    rows = session.scalars(
        of_farm(Invitation)
        .where(Invitation.used_at.is_(None), Invitation.withdrawn.is_(False), Invitation.ends_at > real_now)
        .order_by(Invitation.ends_at)
    )
    return [Pending(row.id, row.name, row.email, Role(row.role), row.ends_at, row.command_id) for row in rows]
