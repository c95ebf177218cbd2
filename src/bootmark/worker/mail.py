"""Mail that carries a link: its token is made here, and stands nowhere but in the letter."""

import datetime as dt
import os
import secrets
import smtplib
import ssl
import uuid
from email.message import EmailMessage
from urllib.parse import unquote, urlsplit

from sqlalchemy import text
from sqlalchemy.orm import Session

from bootmark import say
from bootmark.services.base import sign_ins
from bootmark.services.owning import links, post
from bootmark.store.models import Farm, Invitation

TIMEOUT_SECONDS = 20.0
PORTS = {"smtp": 587, "smtps": 465}


def send(to: str, subject: str, body: str) -> None:
    """Hand a letter to the mail server. Raises OSError or SMTPException where it is not taken: the job is tried again."""
    letter = EmailMessage()
    letter["From"], letter["To"], letter["Subject"] = os.environ[post.FROM], to, subject
    letter.set_content(body)
    server = urlsplit(os.environ[post.SERVER])
    host, port = server.hostname or "localhost", server.port or PORTS.get(server.scheme, 587)
    context = ssl.create_default_context()
    if server.scheme == "smtps":
        connection: smtplib.SMTP = smtplib.SMTP_SSL(host, port, timeout=TIMEOUT_SECONDS, context=context)
    else:
        connection = smtplib.SMTP(host, port, timeout=TIMEOUT_SECONDS)
    with connection:
        if server.scheme == "smtp" and connection.has_extn("starttls"):
            connection.starttls(context=context)
        if server.username:
            connection.login(unquote(server.username), unquote(server.password or ""))
        connection.send_message(letter)


def _link(path: str, token: str) -> str:
    return f"{os.environ[post.ADDRESS].rstrip('/')}/{path}/{token}"


def invitation(session: Session, invitation_id: uuid.UUID, real_now: dt.datetime) -> None:
    """Send somebody the link by which they join the session's farm, unless it serves no more."""
    farm_id = session.info["farm"]
    row = session.get(Invitation, (farm_id, invitation_id))
    if row is None or row.withdrawn or row.used_at or row.ends_at <= real_now or not row.email:
        return
    token = links.token_of("invitation", str(row.command_id), os.environ["BOOTMARK_SECRET"])
    farm = session.get_one(Farm, farm_id)
    body = say.line(
        "{name},\n\nyou are asked to join {farm} as {role:word}. Open this link within a week; it serves once:\n\n{link}\n\n"
        "If you know nothing of this, throw it away.\n",
        name=row.name,
        farm=farm.name,
        role=row.role,
        link=_link("join", token),
    )
    send(row.email, say.line("Join {farm} on Bootmark", farm=farm.name), body)


def reset(session: Session, account_id: uuid.UUID, real_now: dt.datetime) -> None:
    """Send the holder of an account a link that sets its password, where there is such an account."""
    token = secrets.token_urlsafe(32)
    row = session.execute(
        text("SELECT * FROM bm_reset_mailed(:hashed, :account, :now, :until)"),
        {"hashed": sign_ins.hashed(token), "account": account_id, "now": real_now, "until": real_now + links.RESET_LASTS},
    ).one_or_none()
    if row is None:
        return
    body = say.line(
        "{name},\n\nopen this link within a day to set a new password; it serves once:\n\n{link}\n\n"
        "If you did not ask for it, throw it away: your password stays as it is.\n",
        name=row.name,
        link=_link("reset", token),
    )
    send(row.email, say.line("A new password for Bootmark"), body)
