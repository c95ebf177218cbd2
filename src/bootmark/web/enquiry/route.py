"""Enquiry: a case that comes to the desk, the look to ask for, and the reply."""

import uuid
from collections.abc import Mapping
from typing import Any

from flask import Blueprint, Response, flash, g, jsonify, redirect, render_template, request, url_for
from werkzeug.wrappers import Response as AnyResponse

from bootmark import say
from bootmark.core.catalogue.model import PLACES
from bootmark.core.field import called, identify
from bootmark.core.meanings import VerdictKind
from bootmark.core.types import Case, CropState
from bootmark.say import letter
from bootmark.services.base.command import Refused
from bootmark.services.base.roles import DESK
from bootmark.services.scouting import enquiries, photos
from bootmark.services.scouting.enquiries import Enquiry
from bootmark.services.scouting.looks import Answered
from bootmark.services.treatment import weighing
from bootmark.web import bench as bench_parts
from bootmark.web import forms
from bootmark.web.guard import at_most, db, member, now, on_farm, only, the_farm

blueprint = Blueprint("enquiry", __name__, template_folder=".")
PAGE = 30
FIELDS = ("sender", "came_as", "crop", "family", "place", "words")


def _case(enquiry: Enquiry, signs: dict[str, str]) -> Case:
    return enquiries.case_of(the_farm(), enquiry.seen_at, enquiry.crop, enquiry.family, enquiry.place, signs)


def _drawn(enquiry: Enquiry, signs: dict[str, str]) -> dict[str, Any]:
    """The ranked case, with the request to send and the cases like it."""
    case = _case(enquiry, signs)
    answered = Answered(case, *identify.answer(case, catalogue=g.catalogue))
    looks = answered.looks
    dangers = answered.verdict.dangers
    ask = letter.ask(say.tongue(), looks[0], _called(enquiry), g.catalogue, dangers) if looks else say.line("Nothing more need be asked.")
    return bench_parts.ranked(answered, onward="answer") | {"ask": ask}


def _called(enquiry: Enquiry) -> str:
    """The plant as its sender calls it. Enquiries of before version 0.6 kept no word of theirs."""
    return enquiry.working.get("called") or enquiry.crop


def _crop_name(crop: str) -> str:
    return g.catalogue.crops[crop].name if crop in g.catalogue.crops else crop


@blueprint.get("/f/<uuid:farm>/enquiry")
@on_farm
def page() -> str:
    return _list({}, {})


def _list(form: Any, errors: Mapping[str, str]) -> str:
    start = forms.from_place()
    rows = enquiries.page_of(db(), start, PAGE + 1)
    return render_template(
        "enquiries.html",
        rows=rows[:PAGE],
        start=start,
        more=start + PAGE if len(rows) > PAGE else None,
        less=max(0, start - PAGE),
        form=form,
        errors=forms.Errors(errors),
        crops=g.catalogue.crop_names,
        families=[("", say.line("choose if the crop is not in the list")), *((family, family) for family in g.catalogue.families)],
        places=[("", say.line("where it usually grows")), *((place, place) for place in PLACES)],
        came_as=[(way, way) for way in enquiries.CAME_AS],
        crop_name=_crop_name,
        may=member().role in DESK,
    )


@blueprint.post("/f/<uuid:farm>/enquiry")
@on_farm
def save() -> AnyResponse | tuple[str, int]:
    try:
        stored = forms.send(enquiries.SaveEnquiry, signs={})
    except Refused as error:
        return _list(request.form, error.errors), 400
    return redirect(url_for("enquiry.bench", farm=the_farm().id, enquiry=stored["record_id"]))


@blueprint.get("/f/<uuid:farm>/enquiry/<uuid:enquiry>")
@on_farm
def bench(enquiry: uuid.UUID) -> str:
    row = enquiries.enquiry(db(), enquiry)
    pick = bench_parts.pick_from(g.catalogue, row.crop, row.family)
    here = the_farm().id
    bench = {
        "kind": enquiries.SaveEnquiry.spec.kind,
        "v": enquiries.SaveEnquiry.spec.v,
        "title": say.line("Enquiry of {sender}", sender=row.sender or say.line("somebody")),
        "record": str(enquiry),
        "payload": {name: getattr(row, name) for name in FIELDS},
        "base": str(row.command_id),
        "signs": row.signs,
        "note": "",
        "draft": f"enquiry/{enquiry}",
        "tools": [],
        "ranked": _drawn(row, row.signs),
        "rank": url_for("enquiry.rank", farm=here, enquiry=enquiry),
        "onward": {"answer": url_for("enquiry.answer", farm=here, enquiry=enquiry)},
        "guide": url_for("guide.agent", farm=here, agent="-"),
        "may": member().role in DESK,
    } | pick.script
    return render_template(
        "enquiry.html",
        enquiry=row,
        bench=bench,
        pick=pick,
        crop=_crop_name(row.crop),
        photos=photos.of_enquiry(db(), enquiry),
        like=enquiries.like(db(), row.crop, row.signs, enquiry),
        catalogue=g.catalogue,
    )


@blueprint.post("/f/<uuid:farm>/enquiry/<uuid:enquiry>/rank")
@on_farm
@at_most(1200)
def rank(enquiry: uuid.UUID) -> Response | tuple[Response, int]:
    """The whole case comes with its sequence number and goes back ranked; nothing is stored."""
    row = enquiries.enquiry(db(), enquiry)
    posted = forms.posted()
    signs = bench_parts.signs_sent(g.catalogue, posted)
    if signs is None:
        return jsonify(error=say.line("Signs are told as sign: seen, absent or unsure.")), 422
    return jsonify(seq=posted.get("seq", 0), **_drawn(row, signs))


@blueprint.get("/f/<uuid:farm>/enquiry/<uuid:enquiry>/reply")
@on_farm
def answer(enquiry: uuid.UUID) -> str:
    """The reply on one page, to print or to send."""
    row = enquiries.enquiry(db(), enquiry)
    case = _case(row, row.signs)
    ranking, looks, verdict = identify.answer(case, catalogue=g.catalogue)
    crop = CropState(case.crop, month=case.month, hemisphere=case.hemisphere, region=case.region)
    decided = called.calls(case, ranking, looks, verdict, crop, weighing.policy_of(the_farm()), g.catalogue)
    return render_template(
        "reply.html",
        enquiry=row,
        letter=letter.answer(say.tongue(), _called(row), verdict, [decision for _, decision in decided], g.catalogue),
        verdict=verdict,
        ask=letter.ask(say.tongue(), looks[0], _called(row), g.catalogue, verdict.dangers)
        if looks and verdict.kind == VerdictKind.NEEDS_A_LOOK
        else "",
        crop=_crop_name(row.crop),
        leaf=bench_parts.leaf_of(g.catalogue, row.crop, row.family),
        catalogue=g.catalogue,
    )


@blueprint.post("/f/<uuid:farm>/enquiry/<uuid:enquiry>/photo")
@on_farm
@at_most(60)
def photo(enquiry: uuid.UUID) -> AnyResponse:
    enquiries.enquiry(db(), enquiry)
    only(DESK)
    sent = request.files.get("photo")
    try:
        if sent is None or not sent.filename:
            raise Refused(photo=say.line("No picture was chosen: take one or choose a file first."))
        photos.attach(db(), member(), sent.read(), now(), enquiry=enquiry)
    except Refused as error:
        flash(" ".join(error.errors.values()), "bad")
    return redirect(url_for("enquiry.bench", farm=the_farm().id, enquiry=enquiry))
