"""People: who works here and as what, links by which others join, ending a membership, and leaving."""

import logging
import uuid
from collections.abc import Mapping
from dataclasses import dataclass

from flask import Blueprint, current_app, flash, redirect, render_template, request, url_for
from werkzeug.wrappers import Response

from bootmark import say
from bootmark.logs import SECURITY
from bootmark.services.base import people, sign_ins
from bootmark.services.base.command import Answer, Refused
from bootmark.services.base.people import Colleague, Person
from bootmark.services.base.roles import Role
from bootmark.services.base.work import NotHere
from bootmark.services.owning import invitations, links, members, post
from bootmark.web import forms
from bootmark.web.guard import ask_who, asked_from, db, member, on_farm, only, real_now, the_farm

blueprint = Blueprint("people", __name__, template_folder=".")
log = logging.getLogger(SECURITY)
OWNER = frozenset({Role.OWNER})
MAY = {
    Role.OWNER: "everything, people and the farm itself too",
    Role.ADVISER: "looks, counts and calls; keeps blocks and stations; signs nothing",
    Role.SCOUT: "walks, looks, counts and answers enquiries",
    Role.APPLICATOR: "walks and looks; does treatments and signs for them",
    Role.VIEWER: "reads, and writes nothing",
}
"""What each role may do, in words."""


@blueprint.get("/f/<uuid:farm>/people")
@on_farm
def page() -> str:
    return _page()


@dataclass(frozen=True)
class Link:
    """A link that is shown once, with what it is and what to do with it."""

    address: str
    title: str
    why: str

    @classmethod
    def to_join(cls, token: str, name: str) -> "Link":
        why = say.line("Send it to {name} yourself. It serves once, for a week, and is shown only now.", name=name)
        return cls(url_for("join.page", link=token, _external=True), say.line("The link for {name}", name=name), why)

    @classmethod
    def to_reset(cls, token: str, name: str) -> "Link":
        why = say.line("Send it to {name} yourself. It serves once, for a day, and is shown only now.", name=name)
        return cls(url_for("join.reset_page", link=token, _external=True), say.line("A link that sets the password anew"), why)


def _page(errors: Mapping[str, str] | None = None, link: Link | None = None) -> str:
    everybody = people.everybody(db())
    is_owner = member().role == Role.OWNER
    return render_template(
        "people.html",
        colleagues=[colleague for colleague in everybody if colleague.ended_at is None],
        gone=[colleague for colleague in everybody if colleague.ended_at],
        pending=invitations.pending(db(), real_now()) if is_owner else [],
        owner=is_owner,
        base=members.base(db(), member().account_id),
        may=MAY,
        errors=forms.Errors(errors),
        form=request.form if errors else {},
        link=link,
    )


@blueprint.post("/f/<uuid:farm>/people/invite")
@on_farm
def invite() -> str | tuple[str, int]:
    only(OWNER)
    token = links.token_of("invitation", request.form.get("command_id", ""), current_app.config["SECRET_KEY"])
    try:
        ask_who()
        result = forms.send(invitations.SaveInvitation, token_hash=sign_ins.hashed(token))
        if request.form.get("email") and post.is_set_up():
            post.send_invitation(db(), the_farm().id, uuid.UUID(result["record_id"]))
            flash(say.line("The link goes to {email} by mail too.", email=request.form["email"].strip()), "good")
    except Refused as error:
        return _page(error.errors), 400
    log.info({"event": "invitation made"})
    return _page(link=Link.to_join(token, request.form.get("name", "").strip()))


@blueprint.post("/f/<uuid:farm>/people/invitation/withdraw")
@on_farm
def withdraw() -> Response:
    forms.send(invitations.SaveInvitation)
    flash(say.line("The link serves nobody any more."), "good")
    return redirect(url_for("people.page", farm=the_farm().id))


def _colleague(account: uuid.UUID) -> Colleague:
    """Somebody who is on the farm now. Raises NotHere."""
    colleague = next((colleague for colleague in people.members(db()) if colleague.account_id == account), None)
    if colleague is None:
        raise NotHere("member")
    return colleague


def _terms(account: uuid.UUID, errors: Mapping[str, str] | None = None, link: Link | None = None) -> str:
    only(OWNER)
    return render_template(
        "member.html",
        colleague=_colleague(account),
        base=members.base(db(), account),
        may=MAY,
        errors=forms.Errors(errors),
        form=request.form if errors else {},
        link=link,
    )


@blueprint.get("/f/<uuid:farm>/people/<uuid:account>")
@on_farm
def terms(account: uuid.UUID) -> str:
    return _terms(account)


@blueprint.post("/f/<uuid:farm>/people/<uuid:account>")
@on_farm
def save(account: uuid.UUID) -> Response | tuple[str, int]:
    only(OWNER)
    colleague = _colleague(account)
    try:
        ask_who()
        result = forms.send(members.SaveMember)
    except Refused as error:
        return _terms(account, error.errors), 400
    log.info({"event": "membership changed"})
    if result["status"] == Answer.CONFLICT:
        flash(say.line("Somebody else changed this meanwhile: look at what stands now."), "warn")
    elif request.form.get("ended"):
        flash(say.line("{name} is on this farm no more. What {name} signed stays.", name=colleague.name), "good")
    return redirect(url_for("people.page", farm=the_farm().id))


@blueprint.post("/f/<uuid:farm>/people/<uuid:account>/reset")
@on_farm
def reset(account: uuid.UUID) -> str | tuple[str, int]:
    only(OWNER)
    colleague = _colleague(account)
    try:
        ask_who()
        token = links.begin_reset(db(), Person(account, colleague.name, colleague.email), asked_from(), real_now())
    except Refused as error:
        return _terms(account, error.errors), 400
    log.info({"event": "link for a password made"})
    return _terms(account, link=Link.to_reset(token, colleague.name))


@blueprint.post("/f/<uuid:farm>/people/leave")
@on_farm
def leave() -> Response | tuple[str, int]:
    try:
        ask_who()
        forms.send(members.SaveMember)
    except Refused as error:
        return _page({"password" if "password" in error.errors else "leave": " ".join(error.errors.values())}), 400
    log.info({"event": "left a farm"})
    return redirect(url_for("sign_in.start"))
