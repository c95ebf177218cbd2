"""What a link opens for whoever holds it: joining a farm, with or without an account, and setting one's password anew."""

import datetime as dt
import hashlib
import hmac
import secrets
import uuid
from base64 import urlsafe_b64encode
from dataclasses import dataclass
from enum import StrEnum

from sqlalchemy import text
from sqlalchemy.orm import Session

from bootmark import say
from bootmark.services.base import people, sign_ins
from bootmark.services.base.command import Refused
from bootmark.services.base.people import Person
from bootmark.services.base.roles import Role
from bootmark.services.base.sign_ins import From, Outcome
from bootmark.services.owning import founding

RESET_LASTS = dt.timedelta(hours=24)


class LinkState(StrEnum):
    """Of an invitation; the database's functions tell them."""

    OPEN = "open"
    USED = "used"
    WITHDRAWN = "withdrawn"
    ENDED = "ended"


class Came(StrEnum):
    """What came of joining, beside the states of a link that does not serve."""

    JOINED = "joined"
    MEMBER = "member"


WHY_NOT = {
    LinkState.USED: "Somebody has joined by this link already, and it serves once. Ask for another.",
    LinkState.WITHDRAWN: "This link was withdrawn. Ask whoever sent it for another.",
    LinkState.ENDED: "This link has ended: links last a week. Ask whoever sent it for another.",
}
UNKNOWN = "There is no such link: copy it whole, to its last letter, or ask for another."
FOR_ANOTHER = "This link is for {email}, and you are signed in as {own}. Sign out, and open it again."


@dataclass(frozen=True)
class Opened:
    """An invitation as whoever holds its link sees it. email: the one address that it serves for, empty where any does."""

    farm_id: uuid.UUID
    farm: str
    name: str
    email: str
    role: Role
    inviter: str
    state: LinkState

    @property
    def why_not(self) -> str:
        """Why it does not serve; empty where it does."""
        return say.line(WHY_NOT[self.state]) if self.state in WHY_NOT else ""


def token_of(purpose: str, command_id: str, secret: str) -> str:
    """The token of a link, made from the command that makes it: a form that is sent twice tells the same link."""
    keyed = hmac.new(secret.encode(), f"{purpose} {command_id}".encode(), hashlib.sha256)
    return urlsafe_b64encode(keyed.digest()).decode().rstrip("=")


def opened(session: Session, token: str, real_now: dt.datetime) -> Opened | None:
    """What a link is for; None where there is no such link."""
    row = session.execute(
        text("SELECT * FROM bm_invitation(:hashed, :now)"), {"hashed": sign_ins.hashed(token), "now": real_now}
    ).one_or_none()
    return Opened(row.farm_id, row.farm, row.name, row.email, Role(row.role), row.inviter, LinkState(row.state)) if row else None


def new_account(session: Session, token: str, invitation: Opened, name: str, email: str, password: str, real_now: dt.datetime) -> Person:
    """Make the account of somebody who holds an open link. Raises Refused with what is wrong, field to sentence."""
    address = people.folded(email)
    errors = founding.person_errors(name, email)
    if error := founding.password_error(password, (name, *email.split("@"), invitation.farm)):
        errors["password"] = error
    if errors:
        raise Refused(**errors)
    if invitation.email not in ("", address):
        raise Refused(email=say.line("This link is for {email}: give that address.", email=invitation.email))
    person = Person(uuid.uuid4(), name.strip(), address)
    is_made = session.execute(
        text("SELECT bm_account_invited(:hashed, :now, :id, :email, :name, :password)"),
        {
            "hashed": sign_ins.hashed(token),
            "now": real_now,
            "id": person.id,
            "email": address,
            "name": person.name,
            "password": people.hash_password(password),
        },
    ).scalar_one()
    if not is_made:
        raise Refused(email=say.line("{email} has an account already: sign in with it, then open the link again.", email=address))
    return person


def join(session: Session, token: str, invitation: Opened, person: Person, real_now: dt.datetime) -> Came:
    """Join the farm of a link, once. Raises Refused where it does not serve, or not for this person."""
    if invitation.email not in ("", person.email):
        raise Refused(email=say.line(FOR_ANOTHER, email=invitation.email, own=person.email))
    row = session.execute(
        text("SELECT * FROM bm_join(:hashed, :account, :now)"),
        {"hashed": sign_ins.hashed(token), "account": person.id, "now": real_now},
    ).one_or_none()
    if row is None or row.came not in tuple(Came):
        raise Refused(link=say.line(WHY_NOT[LinkState(row.came)] if row else UNKNOWN))
    return Came(row.came)


def begin_reset(session: Session, holder: Person, where: From, real_now: dt.datetime) -> str:
    """A link's token by which a member of the session's farm sets the password anew, told this once; its holder reads that it was made.

    Raises Refused where the account is on another farm too: what opens it would open that farm.
    """
    token = secrets.token_urlsafe(32)
    is_made = session.execute(
        text("SELECT bm_reset_open(:hashed, :account, :now, :until)"),
        {"hashed": sign_ins.hashed(token), "account": holder.id, "now": real_now, "until": real_now + RESET_LASTS},
    ).scalar_one()
    if not is_made:
        raise Refused(
            account=say.line("This account is on another farm too: its password is set by its holder, or at the server's terminal.")
        )
    sign_ins.note(session, holder, where, Outcome.LINKED, real_now)
    return token


def reset_of(session: Session, token: str, real_now: dt.datetime) -> Person | None:
    """Whose password a link sets; None where it does not serve."""
    row = session.execute(text("SELECT * FROM bm_reset(:hashed, :now)"), {"hashed": sign_ins.hashed(token), "now": real_now}).one_or_none()
    return Person(row.account_id, row.name, row.email) if row else None


def reset(session: Session, token: str, person: Person, password: str, where: From, real_now: dt.datetime) -> None:
    """Set the password by a link, once. Raises Refused by the rules of passwords, and where the link serves no more."""
    if error := founding.password_error(password, (person.name, *person.email.split("@"))):
        raise Refused(password=error)
    is_set = session.execute(
        text("SELECT bm_reset_used(:hashed, :password, :now)"),
        {"hashed": sign_ins.hashed(token), "password": people.hash_password(password), "now": real_now},
    ).scalar_one()
    if not is_set:
        raise Refused(password=say.line("This link serves no more: ask for another."))
    sign_ins.note(session, person, where, Outcome.RESET, real_now)
