"""Book: what was seen and done, and did it work."""

import csv
import datetime as dt
import io
import uuid
from collections.abc import Mapping, Sequence
from typing import Any

from flask import Blueprint, Response, abort, flash, g, redirect, render_template, request, url_for
from werkzeug.wrappers import Response as AnyResponse

from bootmark import say
from bootmark.formats.csv_cells import as_text
from bootmark.services.base import ground, people
from bootmark.services.base.command import Refused
from bootmark.services.base.farm_time import zone
from bootmark.services.base.handling import MOST_REASON
from bootmark.services.book import log, records
from bootmark.services.kinds import KINDS, SAVES
from bootmark.services.scouting import findings
from bootmark.services.treatment import opinions, timing
from bootmark.web import forms
from bootmark.web.book import corrections, merging
from bootmark.web.book.sight import sight
from bootmark.web.book.svg import before_after_svg
from bootmark.web.guard import at_most, db, member, now, on_farm, the_farm

blueprint = Blueprint("book", __name__, template_folder=".")


@blueprint.get("/f/<uuid:farm>/book")
@on_farm
def page() -> str:
    block, kind = request.args.get("block", ""), request.args.get("kind", "")
    start = forms.from_place()
    seen = sight(block, kind, start, now().replace(month=1, day=1, hour=0, minute=0, second=0, microsecond=0))
    return render_template(
        "book.html",
        seen=seen,
        block=block,
        kind=kind,
        kinds=list(log.KINDS),
        names=people.names(db()),
        zone=zone(the_farm()),
        waiting=opinions.waiting(db(), member()),
    )


@blueprint.get("/f/<uuid:farm>/book/compare/<uuid:block>/<agent>")
@on_farm
def compare(block: uuid.UUID, agent: str) -> str:
    where = ground.block(db(), block)
    if agent not in g.catalogue.agents:
        abort(404)
    since = now().replace(month=1, day=1, hour=0)
    counts = records.counts(db(), block, agent, since)
    done = records.done_on(db(), block, agent, since)
    what = g.catalogue.agent(agent)
    measure = counts[-1].sample.measure if counts else ""
    same = [each for each in counts if each.sample.measure == measure]
    threshold = what.threshold(where.crop, measure)
    drawing = (
        before_after_svg(
            same,
            [a.finished_at for a, _ in done],
            zone(the_farm()),
            threshold.value if threshold else None,
            say.line("Counts of {name}", name=what.name),
        )
        if same
        else ""
    )
    change = None
    if len(same) >= 2 and same[0].interval.estimate > 0:
        change = 1 - same[-1].interval.estimate / same[0].interval.estimate
    return render_template(
        "compare.html",
        block=where,
        agent=what,
        counts=same,
        done=done,
        svg=drawing,
        change=change,
        threshold=threshold,
        zone=zone(the_farm()),
    )


TITLES = {
    "station.save": "A station",
    "block.save": "A block",
    "feature.save": "On the plan",
    "trap.save": "A trap",
    "trap.check": "A catch",
    "stop.open": "A stop",
    "look.record": "A look",
    "sample.record": "A count",
    "stage.sighting": "Animals by stage",
    "crop.stage": "The crop's stage",
    "biofix.set": "A biofix",
    "enquiry.save": "An enquiry",
    "application.record": "A treatment, as it was done",
    "answer.keep": "An answer from outside",
    "decision.make": "A call",
    "opinion.give": "An opinion on a call",
    "farm.save": "The farm itself",
}
"""What each kind of record is called above its versions."""


@blueprint.get("/f/<uuid:farm>/book/record/<uuid:record>")
@on_farm
def record(record: uuid.UUID) -> str:
    return _record(record)


def _record(record: uuid.UUID, errors: Mapping[str, str] | None = None, wrong: Mapping[str, str] | None = None) -> str:
    versions = _versions(record)
    if not versions:
        abort(404)
    head = records.head(db(), record)
    call = records.call(db(), record)
    treatments, looks = timing.programme(db(), record) if call else ([], [])
    newest = _newest(versions)
    spec = KINDS[str(newest["kind"])].command.spec
    beside = merging.side_by_side(versions)
    may = member().role in spec.roles
    return render_template(
        "record.html",
        versions=versions,
        title=say.line(TITLES.get(newest["kind"], "A record")),
        head=head,
        beside=beside,
        choices=merging.choices(beside),
        titles=[_told_by(version) for version in beside],
        call=call,
        shaken=corrections.shaken(db(), call),
        stop=records.stop_of(db(), call) if call else None,
        treatments=treatments,
        looks=looks,
        findings=findings.of_version(db(), record, versions[0]["number"]),
        names=people.names(db()),
        zone=zone(the_farm()),
        signs=g.catalogue.signs,
        withdrawn=getattr(head, "withdrawn", False),
        may_withdraw=may and records.can_be_withdrawn(head),
        entries=corrections.entries(newest["kind"], newest["payload"]) if may and newest["kind"] in corrections.CORRECTED else [],
        errors=forms.Errors(errors),
        wrong=forms.Errors(wrong),
        form=request.form if errors or wrong else {},
    )


def _versions(record: uuid.UUID) -> list[dict[str, Any]]:
    """All versions of a record, the newest first, each with the kind of command that its record is kept as."""
    head = records.head(db(), record)
    return [version | {"kind": SAVES[type(head)]} for version in records.versions(db(), record)] if head else []


def _told_by(version: Mapping[str, Any]) -> str:
    """A version above its column: its number, whose it is, when it was written."""
    at = version["seen_at"].astimezone(zone(the_farm()))
    who = people.names(db()).get(version["account_id"], "")
    return say.line("{number}, {who}, {on:day} {at:time}", number=version["number"], who=who, on=at.date(), at=at)


def _newest(versions: Sequence[Mapping[str, Any]]) -> Mapping[str, Any]:
    """The version that says what the record is now."""
    return next((version for version in versions if not version["conflict"]), versions[-1])


@blueprint.post("/f/<uuid:farm>/book/record/<uuid:record>/correct")
@on_farm
def correct(record: uuid.UUID) -> AnyResponse | tuple[str, int]:
    """Put a record right: the old version stays, with why."""
    versions = _versions(record)
    if not versions or (newest := _newest(versions))["kind"] not in corrections.CORRECTED:
        abort(404)
    try:
        payload = corrections.corrected(newest["kind"], newest["payload"])
        forms.send_as_kept(newest["kind"], payload, reason=_reason())
    except Refused as error:
        return _record(record, errors=error.errors), 400
    flash(say.line("Put right. What stood before stays below."), "good")
    return redirect(url_for("book.record", farm=the_farm().id, record=record))


@blueprint.post("/f/<uuid:farm>/book/record/<uuid:record>/withdraw")
@on_farm
def withdraw(record: uuid.UUID) -> AnyResponse | tuple[str, int]:
    """Withdraw a record, or take that back."""
    versions = _versions(record)
    if not versions or not records.can_be_withdrawn(records.head(db(), record)):
        abort(404)
    is_withdrawn, newest = request.form.get("withdrawn") == "yes", _newest(versions)
    try:
        forms.send_as_kept(newest["kind"], newest["payload"], reason=_reason(), withdrawn=is_withdrawn)
    except Refused as error:
        return _record(record, wrong=error.errors), 400
    flash(say.line("Withdrawn: nothing counts it any more.") if is_withdrawn else say.line("It counts again."), "good")
    return redirect(url_for("book.record", farm=the_farm().id, record=record))


def _reason() -> str:
    """Why, as the form says. Raises Refused where it does not."""
    reason = request.form.get("reason", "").strip()
    if not 0 < len(reason) <= MOST_REASON:
        raise Refused(reason=say.line("Say why, in 1 to {most} letters, for whoever reads it later.", most=MOST_REASON))
    return reason


@blueprint.post("/f/<uuid:farm>/book/record/<uuid:record>/keep")
@on_farm
def keep(record: uuid.UUID) -> AnyResponse:
    """Settle two versions that stand side by side: the one kept becomes the newest."""
    number = request.form.get("number", type=int)
    versions = _versions(record)
    chosen = next((version for version in versions if version["number"] == number), None)
    if chosen is None:
        abort(404)
    try:
        beside = tuple(version["command_id"] for version in versions if version["conflict"])
        forms.send_as_kept(chosen["kind"], chosen["payload"], beside)
        flash(say.line("Version {number} is kept. The others stay in the history.", number=number), "good")
    except Refused as error:
        flash(" ".join(error.errors.values()), "bad")
    return redirect(url_for("book.record", farm=the_farm().id, record=record))


@blueprint.post("/f/<uuid:farm>/book/record/<uuid:record>/merge")
@on_farm
def merge(record: uuid.UUID) -> AnyResponse:
    """Make one of versions that stand side by side, field by field."""
    beside = merging.side_by_side(_versions(record))
    if not beside:
        abort(404)
    try:
        taken_up = tuple(version["command_id"] for version in beside[1:])
        forms.send_as_kept(beside[0]["kind"], merging.merged(beside, request.form), taken_up)
        flash(say.line("One version now, made of both. The others stay in the history."), "good")
    except Refused as error:
        flash(" ".join(error.errors.values()), "bad")
    return redirect(url_for("book.record", farm=the_farm().id, record=record))


@blueprint.get("/f/<uuid:farm>/book.csv")
@on_farm
@at_most(12)
def export() -> Response:
    names = people.names(db())
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(["when", "kind", "block", "what", "who", "record"])
    for entry in log.entries(db(), g.catalogue):
        at = entry.at.astimezone(dt.UTC).isoformat()
        writer.writerow(as_text([at, entry.kind, entry.block, entry.text, names.get(entry.account_id, ""), entry.record_id]))
    return Response(out.getvalue(), mimetype="text/csv", headers={"Content-Disposition": "attachment; filename=book.csv"})
