"""A farm's beginning: its row and its first owner."""

import json
import uuid
import zoneinfo
from collections.abc import Callable
from dataclasses import dataclass

from sqlalchemy import select, text
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
from bootmark.store.models import Account, Farm, Membership

MOST_NAME = 80
FIRST_POLICY = policy_as_kept(School.CONVENTIONAL)
"""What a farm uses until its owner has chosen a school: everything, the gentlest first."""


@dataclass(frozen=True)
class Beginning:
    """A farm and its first owner, as they were typed. at: latitude and longitude, degrees."""

    name: str
    at: tuple[float, float]
    time_zone: str
    person: str
    email: str


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
            origin_latitude=beginning.at[0],
            origin_longitude=beginning.at[1],
        )
    )
    session.flush()
    session.add(Membership(farm_id=farm, account_id=account.id, role=Role.OWNER, qualified=False))
    return is_new
