"""What a link opens: joining a farm, and setting a password anew. For whoever holds the link, signed in or not."""

import logging
import os
from collections.abc import Mapping
from dataclasses import dataclass

from flask import Blueprint, flash, redirect, render_template, request, session, url_for
from flask_login import current_user, login_user
from werkzeug.wrappers import Response

from bootmark import say
from bootmark.logs import SECURITY
from bootmark.services.base import passwords, sign_ins
from bootmark.services.base.command import Refused
from bootmark.services.base.people import Person
from bootmark.services.base.work import Session, nobody
from bootmark.services.owning import links, post
from bootmark.services.owning.links import Came, Opened
from bootmark.web import forms, guard
from bootmark.web.guard import User, asked_from, real_now, token

blueprint = Blueprint("join", __name__, template_folder=".")
log = logging.getLogger(SECURITY)


def _key() -> str:
    """Under which links that nobody made are counted."""
    return f"link:{asked_from().address}"


def _wait(db: Session) -> int:
    return sign_ins.waits(db, _key(), sign_ins.KEY, real_now())


def _here(db: Session) -> Person | None:
    """Who is signed in, if anybody is."""
    here = sign_ins.of_token(db, token(), real_now()) if current_user.is_authenticated else None
    return here.person if here else None


@dataclass(frozen=True)
class Dead:
    """Why a link opens nothing. too_soon: only for now, since too many were tried."""

    why: str
    too_soon: bool = False


def _dead(dead: Dead) -> tuple[str, int]:
    return render_template("dead_link.html", why=dead.why), 429 if dead.too_soon else 404


def _opened(db: Session, link: str) -> Opened | Dead:
    """What a link is for, or why it serves nobody."""
    if wait := _wait(db):
        return Dead(guard.too_soon(wait), too_soon=True)
    invitation = links.opened(db, link, real_now())
    if invitation is None:
        sign_ins.failed(db, _key(), real_now())
        return Dead(say.line(links.UNKNOWN))
    return Dead(invitation.why_not) if invitation.why_not else invitation


def _shown(link: str, invitation: Opened, person: Person | None, errors: Mapping[str, str] | None = None) -> str:
    form = request.form if errors else {}
    return render_template(
        "join.html", link=link, invitation=invitation, person=person, errors=forms.Errors(errors), form=form, hint=passwords.hint()
    )


@blueprint.get("/join/<link>")
def page(link: str) -> str | tuple[str, int]:
    with nobody() as db:
        invitation, person = _opened(db, link), _here(db)
    return _dead(invitation) if isinstance(invitation, Dead) else _shown(link, invitation, person)


@blueprint.post("/join/<link>")
def enter(link: str) -> str | Response | tuple[str, int]:
    with nobody() as db:
        invitation, holder = _opened(db, link), _here(db)
    if isinstance(invitation, Dead):
        return _dead(invitation)
    try:
        with nobody() as db:
            person, fresh = holder, ""
            if person is None:
                name, email = request.form.get("name", ""), request.form.get("email", "")
                person = links.new_account(db, link, invitation, name, email, request.form.get("password", ""), real_now())
                fresh = sign_ins.begin(db, person, asked_from(), real_now())
            came = links.join(db, link, invitation, person, real_now())
    except Refused as error:
        return _shown(link, invitation, holder, error.errors), 400
    log.info({"event": "joined a farm"})
    if fresh:
        session.clear()
        login_user(User(fresh))
    if came == Came.MEMBER:
        flash(say.line("You are on this farm already: the link is left for somebody else."), "warn")
    return redirect(url_for("round.page", farm=invitation.farm_id))


def _reset_shown(link: str, person: Person, errors: Mapping[str, str] | None = None) -> str:
    return render_template("reset.html", link=link, person=person, errors=forms.Errors(errors), hint=passwords.hint())


def _holder(db: Session, link: str) -> Person | Dead:
    """Whose password a link sets, or why it sets none."""
    if wait := _wait(db):
        return Dead(guard.too_soon(wait), too_soon=True)
    person = links.reset_of(db, link, real_now())
    if person is None:
        sign_ins.failed(db, _key(), real_now())
    return person or Dead(say.line("This link serves no more: such links last a day, serve once, and only while you are on that one farm."))


@blueprint.get("/reset/<link>")
def reset_page(link: str) -> str | tuple[str, int]:
    with nobody() as db:
        person = _holder(db, link)
    return _dead(person) if isinstance(person, Dead) else _reset_shown(link, person)


@blueprint.post("/reset/<link>")
def reset(link: str) -> Response | tuple[str, int]:
    with nobody() as db:
        person = _holder(db, link)
    if isinstance(person, Dead):
        return _dead(person)
    try:
        with nobody() as db:
            links.reset(db, link, person, request.form.get("password", ""), asked_from(), real_now())
    except Refused as error:
        return _reset_shown(link, person, error.errors), 400
    log.info({"event": "password set by a link"})
    session.clear()
    flash(say.line("Your password is set. Sign in with it."), "good")
    return redirect(url_for("sign_in.page"))


@blueprint.get("/forgotten")
def forgotten() -> str:
    return render_template("forgotten.html", by_mail=post.is_set_up(), asked=False)


@blueprint.post("/forgotten")
def ask_for_reset() -> str:
    """The answer is the same whether there is such an account or not."""
    if post.is_set_up():
        with nobody() as db:
            post.send_reset(db, request.form.get("email", ""), asked_from().address, real_now())
        log.info({"event": "link for a password asked for"})
    return render_template("forgotten.html", by_mail=post.is_set_up(), asked=True, letters=os.environ.get(post.LETTERS, ""))
