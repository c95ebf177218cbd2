"""A farm's beginning: its row and its first owner; and what the keeper of the server does, as the owner role of the database."""

import datetime as dt
import json
import uuid
import zoneinfo
from collections.abc import Callable
from dataclasses import dataclass

from sqlalchemy import delete, func, select, text, update
from sqlalchemy.orm import Session

from bootmark import say
from bootmark.core.field.schools import School
from bootmark.services.base import passwords, people
from bootmark.services.base.command import Refused
from bootmark.services.base.fields import said
from bootmark.services.base.people import Person
from bootmark.services.base.roles import Role
from bootmark.services.owning.rules import JOINERS, NO_ADDRESS, NO_ZONE, unseen
from bootmark.services.owning.settings import policy_as_kept
from bootmark.store.base import Base
from bootmark.store.models import Account, AccountReset, Farm, FarmChange, Membership, SignInSession, Stop

MOST_NAME = 80
FIRST_POLICY = policy_as_kept(School.CONVENTIONAL)
"""What a farm uses until its owner has chosen a school: everything, the gentlest first."""
NOT_ROWS = frozenset({"account_reset"})
"""Tables that name a farm and are of none."""


@dataclass(frozen=True)
class Beginning:
    """A farm and its first owner, as they were typed. at: latitude and longitude, degrees."""

    name: str
    at: tuple[float, float]
    time_zone: str
    person: str
    email: str


@dataclass(frozen=True)
class Holding:
    """A farm as the keeper of the server sees it."""

    id: uuid.UUID
    name: str
    owners: tuple[str, ...]
    members: int


def _name_errors(**names: str) -> dict[str, str]:
    most = say.line("Give a name of 1 to {most} letters, all of them visible.", most=MOST_NAME)
    return {field: most for field, name in names.items() if not 0 < len(name.strip(f" {JOINERS}")) <= MOST_NAME or unseen(name)}


def person_errors(person: str, email: str) -> dict[str, str]:
    """What is wrong with somebody's name and address, field to sentence."""
    errors = _name_errors(person=person)
    if not people.is_address(email):
        errors["email"] = say.line(NO_ADDRESS)
    return errors


def errors_of(beginning: Beginning) -> dict[str, str]:
    """What is wrong with a beginning, field to sentence."""
    errors = person_errors(beginning.person, beginning.email) | _name_errors(name=beginning.name)
    latitude, longitude = beginning.at
    # Not a number is in no range.
    if not (-90 <= latitude <= 90 and -180 <= longitude <= 180):
        errors["at"] = say.line("Latitude lies from -90 to 90 and longitude from -180 to 180, as in 46.2,7.1.")
    if beginning.time_zone not in zoneinfo.available_timezones():
        errors["time_zone"] = say.line(NO_ZONE, zone=said(beginning.time_zone))
    return errors


def password_error(password: str, own_words: tuple[str, ...]) -> str:
    """What is wrong with a password, as a sentence; empty where nothing is."""
    fault = passwords.fault(password, own_words)
    return passwords.sentence(fault, len(password)) if fault else ""


def account_of(session: Session, email: str) -> Account | None:
    return session.scalars(select(Account).where(Account.email == people.folded(email))).one_or_none()


def is_empty(session: Session) -> bool:
    """Whether this installation has no account yet."""
    return bool(session.execute(text("SELECT bm_is_empty()")).scalar_one())


def begin_first(session: Session, farm: uuid.UUID, beginning: Beginning, password: str) -> Person | None:
    """Make the installation's first account and its farm, without the owner role; None where somebody was quicker.

    Raises Refused with what is wrong, field to sentence.
    """
    errors = errors_of(beginning)
    if error := password_error(password, (beginning.person, *beginning.email.split("@"), beginning.name)):
        errors["password"] = error
    if errors:
        raise Refused(**errors)
    person = Person(uuid.uuid4(), beginning.person.strip(), people.folded(beginning.email))
    is_made = session.execute(
        text("SELECT bm_begin(:farm, :name, :latitude, :longitude, :zone, CAST(:policy AS jsonb), :id, :email, :person, :password)"),
        {
            "farm": farm,
            "name": beginning.name.strip(),
            "latitude": beginning.at[0],
            "longitude": beginning.at[1],
            "zone": beginning.time_zone,
            "policy": json.dumps(FIRST_POLICY),
            "id": person.id,
            "email": person.email,
            "person": person.name,
            "password": people.hash_password(password),
        },
    ).scalar_one()
    return person if is_made else None


def begin(session: Session, farm: uuid.UUID, beginning: Beginning, ask_password: Callable[[], str]) -> bool:
    """Make a farm with its owner. Whether the owner's account was made too: one that is there keeps its password, and is not asked.

    The session is that farm's. Raises Refused with what is wrong, field to sentence; nothing is made then.
    """
    if errors := errors_of(beginning):
        raise Refused(**errors)
    account = account_of(session, beginning.email)
    is_new = account is None
    if account is None:
        password = ask_password()
        if error := password_error(password, (beginning.person, *beginning.email.split("@"), beginning.name)):
            raise Refused(password=error)
        account = Account(
            id=uuid.uuid4(),
            email=people.folded(beginning.email),
            name=beginning.person.strip(),
            password_hash=people.hash_password(password),
        )
        session.add(account)
    session.add(
        Farm(
            id=farm,
            name=beginning.name.strip(),
            latitude=beginning.at[0],
            longitude=beginning.at[1],
            time_zone=beginning.time_zone,
            policy=FIRST_POLICY,
        )
    )
    session.flush()
    session.add(Membership(farm_id=farm, account_id=account.id, role=Role.OWNER, qualified=False))
    return is_new


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
    account = account_of(session, email)
    if account is None:
        raise Refused(email=say.line("No account has the address {email}.", email=email[:MOST_NAME]))
    if error := password_error(password, (account.name, *account.email.split("@"))):
        raise Refused(password=error)
    account.password_hash = people.hash_password(password)


def own(session: Session, farm: uuid.UUID, email: str) -> None:
    """Make somebody who has an account an owner of the session's farm. Raises Refused where no account is there."""
    account = account_of(session, email)
    if account is None:
        raise Refused(email=say.line("No account has the address {email}.", email=email[:MOST_NAME]))
    session.merge(Membership(farm_id=farm, account_id=account.id, role=Role.OWNER, qualified=False))


def close(session: Session, farm: uuid.UUID) -> int:
    """Take a farm away with all that is in it; how many rows that were. Accounts stay, but for those to which nobody can sign in.

    The session is that farm's. Raises Refused where there is no such farm.
    """
    if session.get(Farm, farm) is None:
        raise Refused(farm=say.line("There is no such farm: './bootmark farm list' tells them."))
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
    account = account_of(session, email)
    if account is None:
        raise Refused(email=say.line("No account has the address {email}.", email=email[:MOST_NAME]))
    for holding in holdings(session):
        if holding.owners == (account.email,):
            raise Refused(email=say.line("{farm} has no other owner: make somebody else one first, or close it.", farm=holding.name))
    session.execute(text("SELECT bm_erase(:id, :now)"), {"id": account.id, "now": real_now})
    return account.id
