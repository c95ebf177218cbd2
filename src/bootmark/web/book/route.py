"""Book: what was seen and done, and did it work."""

import csv
import datetime as dt
import io
import uuid

from flask import Blueprint, Response, abort, flash, g, redirect, render_template, request, url_for
from werkzeug.wrappers import Response as AnyResponse

from bootmark.services import calls, people, records, timing
from bootmark.services.commands import Refused
from bootmark.services.farm_time import zone
from bootmark.store.models import Block, DecisionRow
from bootmark.web import forms
from bootmark.web.book.svg import before_after_svg
from bootmark.web.guard import db, now, on_farm, the_farm

blueprint = Blueprint("book", __name__, template_folder=".")
PAGE = 40
KINDS = ("look", "count", "call", "done", "biofix", "trap", "stage", "crop")


def _log() -> list[records.Entry]:
    return records.log(db(), the_farm(), g.known, {agent.id: agent.name for agent in g.known.agents.values()})


@blueprint.get("/f/<uuid:farm>/book")
@on_farm
def page() -> str:
    entries = _log()
    block, kind = request.args.get("block", ""), request.args.get("kind", "")
    shown = [one for one in entries if (not block or one.block == block) and (not kind or one.kind == kind)]
    start = max(0, request.args.get("from", 0, type=int))
    return render_template(
        "book.html",
        entries=shown[start : start + PAGE],
        more=start + PAGE if len(shown) > start + PAGE else None,
        total=len(shown),
        blocks=sorted({one.block for one in entries}),
        block=block,
        kind=kind,
        kinds=KINDS,
        names=people.names(db()),
        conflicts=[one for one in entries if one.conflict],
        pairs=_pairs(),
        zone=zone(the_farm()),
    )


def _pairs() -> list[tuple[Block, str]]:
    """Blocks and agents that were treated or called this year, for before and after."""
    start = now().replace(month=1, day=1, hour=0)
    rows = (
        db()
        .query(DecisionRow)
        .filter(DecisionRow.farm_id == the_farm().id, DecisionRow.seen_at >= start, DecisionRow.sample_id.is_not(None))
    )
    return [
        (db().get_one(Block, (the_farm().id, block)), agent)
        for block, agent in sorted({(row.block_id, row.agent) for row in rows}, key=lambda pair: pair[1])
    ]


@blueprint.get("/f/<uuid:farm>/book/compare/<uuid:block>/<agent>")
@on_farm
def compare(block: uuid.UUID, agent: str) -> str:
    found = db().get(Block, (the_farm().id, block))
    if found is None or agent not in g.known.agents:
        abort(404)
    since = now().replace(month=1, day=1, hour=0)
    counts = records.counts(db(), the_farm(), block, agent, since)
    done = records.done_on(db(), the_farm(), block, agent, since)
    one = g.known.agent(agent)
    measure = counts[-1].sample.measure if counts else ""
    same = [each for each in counts if each.sample.measure == measure]
    threshold = next((each for each in one.thresholds if each.measure == measure and each.crop in (found.crop, "*")), None)
    drawing = (
        before_after_svg(
            same, [a.finished_at for a, _ in done], zone(the_farm()), threshold.value if threshold else None, f"Counts of {one.name}"
        )
        if same
        else ""
    )
    change = None
    if len(same) >= 2 and same[0].interval.estimate > 0:
        change = 1 - same[-1].interval.estimate / same[0].interval.estimate
    return render_template(
        "compare.html",
        block=found,
        agent=one,
        counts=same,
        done=done,
        svg=drawing,
        change=change,
        threshold=threshold,
        zone=zone(the_farm()),
    )


@blueprint.get("/f/<uuid:farm>/book/record/<uuid:record>")
@on_farm
def record(record: uuid.UUID) -> str:
    versions = records.versions(db(), the_farm(), record)
    if not versions:
        abort(404)
    call = db().get(DecisionRow, (the_farm().id, record))
    treatments, looks = timing.programme(db(), the_farm(), record) if call else ([], [])
    findings = calls.latest_findings(db(), the_farm().id, record, versions[0]["number"])
    return render_template(
        "record.html",
        versions=versions,
        head=records.head(db(), the_farm(), record),
        call=call,
        treatments=treatments,
        looks=looks,
        findings=findings,
        names=people.names(db()),
        zone=zone(the_farm()),
        signs=g.known.signs,
    )


@blueprint.post("/f/<uuid:farm>/book/record/<uuid:record>/keep")
@on_farm
def keep(record: uuid.UUID) -> AnyResponse:
    """Settle two versions that stand side by side: the one kept becomes the newest."""
    number = request.form.get("number", type=int)
    chosen = next((one for one in records.versions(db(), the_farm(), record) if one["number"] == number), None)
    if chosen is None:
        abort(404)
    try:
        forms.send(chosen["kind"], chosen["payload"])
        flash(f"Version {number} is kept. The others stay in the history.", "good")
    except Refused as error:
        flash(" ".join(error.errors.values()), "bad")
    return redirect(url_for("book.record", farm=the_farm().id, record=record))


@blueprint.get("/f/<uuid:farm>/book.csv")
@on_farm
def export() -> Response:
    names = people.names(db())
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(["when", "kind", "block", "what", "who", "record"])
    for one in _log():
        # A cell that begins like a formula is told to be text.
        text = f"'{one.text}" if one.text[:1] in "=+-@" else one.text
        writer.writerow([one.at.astimezone(dt.UTC).isoformat(), one.kind, one.block, text, names.get(one.account_id, ""), one.record_id])
    return Response(out.getvalue(), mimetype="text/csv", headers={"Content-Disposition": "attachment; filename=book.csv"})
