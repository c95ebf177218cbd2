"""What the keeper of the server does at its terminal, as the owner role of the database."""

import datetime as dt
import os
import secrets
import uuid
from dataclasses import dataclass

from sqlalchemy import delete, func, select, text, update
from sqlalchemy.orm import Session

from bootmark import say
from bootmark.core.catalogue import default
from bootmark.services import writing
from bootmark.services.base import farm_time, people, sign_ins
from bootmark.services.base.command import Refused
from bootmark.services.base.handling import Sent
from bootmark.services.base.people import Member
from bootmark.services.base.roles import Role
from bootmark.services.owning import founding, links
from bootmark.services.owning.invitations import SaveInvitation
from bootmark.store.base import Base
from bootmark.store.models import Account, AccountReset, Farm, FarmChange, Membership, SignInSession, Stop

NO_FARM = "There is no such farm: './bootmark farm list' tells them."
NOT_ROWS = frozenset({"account_reset"})
"""Tables that name a farm and are of none."""


@dataclass(frozen=True)
class Holding:
    """A farm as the keeper of the server sees it."""

    id: uuid.UUID
    name: str
    owners: tuple[str, ...]
    members: int


def _account(session: Session, email: str) -> Account:
    """An account by its address. Raises Refused where there is none."""
    account = founding.account_of(session, email)
    if account is None:
        raise Refused(email=say.line("No account has the address {email}.", email=email[: founding.MOST_NAME]))
    return account


def invite(session: Session, farm_id: uuid.UUID, name: str, email: str, role: str, real_now: dt.datetime) -> str:
    """The token of a link by which somebody joins the session's farm, made in the name of its first owner.

    Raises Refused where there is no such farm, where it has no owner, or with what is wrong, field to sentence.
    """
    farm = session.get(Farm, farm_id)
    if farm is None:
        raise Refused(farm=say.line(NO_FARM))
    owners = select(Membership.account_id).where(
        Membership.farm_id == farm_id, Membership.role == Role.OWNER, Membership.ended_at.is_(None)
    )
    owner = session.scalars(owners.order_by(Membership.account_id).limit(1)).one_or_none()
    if owner is None:
        raise Refused(farm=say.line("It has no owner in whose name somebody could be asked."))
    command_id = str(uuid.uuid4())
    token = links.token_of("invitation", command_id, os.environ.get("BOOTMARK_SECRET") or secrets.token_urlsafe(32))
    payload = {"name": name, "email": email, "role": role, "token_hash": sign_ins.hashed(token)}
    raw = {"kind": SaveInvitation.spec.kind, "v": SaveInvitation.spec.v, "command_id": command_id, "record_id": str(uuid.uuid4())}
    sent = Sent.of(raw | {"base": None, "payload": payload}, farm_time.now(farm, real_now))
    writing.handle(session, farm, Member(owner, farm_id, farm.name, Role.OWNER, False, True), default(), sent, real_now)
    return token


def holdings(session: Session) -> list[Holding]:
    """Every farm of this installation, by name."""
    members = session.execute(
        select(Membership.farm_id, Membership.role, Account.email)
        .join(Account, Account.id == Membership.account_id)
        .where(Membership.ended_at.is_(None))
    ).all()
    return [
        Holding(
            farm.id,
            farm.name,
            tuple(sorted(row.email for row in members if row.farm_id == farm.id and row.role == Role.OWNER)),
            sum(row.farm_id == farm.id for row in members),
        )
        for farm in session.scalars(select(Farm).order_by(func.lower(Farm.name), Farm.id))
    ]


def set_password(session: Session, email: str, password: str) -> None:
    """A new password for an account; the database ends every sign-in of it. Raises Refused where no account is there, or by the rules."""
    account = _account(session, email)
    if error := founding.password_error(password, (account.name, *account.email.split("@"))):
        raise Refused(password=error)
    account.password_hash = people.hash_password(password)


def own(session: Session, farm: uuid.UUID, email: str) -> None:
    """Make somebody who has an account an owner of the session's farm. Raises Refused where no account is there."""
    account = _account(session, email)
    session.merge(Membership(farm_id=farm, account_id=account.id, role=Role.OWNER, qualified=False))


def close(session: Session, farm: uuid.UUID) -> int:
    """Take a farm away with all that is in it; how many rows that were. Accounts stay, but for those to which nobody can sign in.

    The session is that farm's. Raises Refused where there is no such farm.
    """
    if session.get(Farm, farm) is None:
        raise Refused(farm=say.line(NO_FARM))
    members = session.scalars(select(Membership.account_id).where(Membership.farm_id == farm)).all()
    gone = 0
    # A stop answers a return, and a return was booked at a stop.
    session.execute(update(Stop).where(Stop.farm_id == farm).values(return_id=None))
    # What notes that rows were written is written by taking them away: it goes last.
    tables = [table for table in Base.metadata.sorted_tables if table.name != FarmChange.__tablename__]
    for table in (*reversed(tables), FarmChange.__table__):
        if "farm_id" in table.c and table.name not in NOT_ROWS:
            gone += session.execute(delete(table).where(table.c.farm_id == farm)).rowcount  # type: ignore[attr-defined]
    session.execute(delete(Farm).where(Farm.id == farm))
    unused = session.scalars(select(Account.id).where(Account.id.in_(members), Account.password_hash == people.NOBODY)).all()
    for model in (SignInSession, AccountReset):
        session.execute(delete(model).where(model.account_id.in_(unused)))
    session.execute(delete(Account).where(Account.id.in_(unused)))
    return gone


def erase(session: Session, email: str, real_now: dt.datetime) -> uuid.UUID:
    """Blank what is told of a person; the id that is left. What the person wrote and signed stays, under no name.

    Raises Refused where no account is there, or where a farm would be left without an owner.
    """
    account = _account(session, email)
    for holding in holdings(session):
        if holding.owners == (account.email,):
            raise Refused(email=say.line("{farm} has no other owner: make somebody else one first, or close it.", farm=holding.name))
    session.execute(text("SELECT bm_erase(:id, :now)"), {"id": account.id, "now": real_now})
    return account.id
