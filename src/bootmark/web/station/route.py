"""One weather station: its readings, what heat they make, and files to fill it from."""

import csv
import datetime as dt
import io
import uuid
from collections.abc import Mapping
from typing import Any

from flask import Blueprint, Response, flash, jsonify, redirect, render_template, request, url_for
from werkzeug.wrappers import Response as AnyResponse

from bootmark import say
from bootmark.core.meanings import Fill
from bootmark.core.season import gaps
from bootmark.formats import weather_csv
from bootmark.formats.csv_cells import as_text
from bootmark.services import places
from bootmark.services.base import farm_time, ground
from bootmark.services.base.command import Refused
from bootmark.services.base.fields import Number
from bootmark.services.base.roles import KEEPERS
from bootmark.services.weather import blocks as block_weather
from bootmark.services.weather import derived, files, heat, judging, pushed, stations
from bootmark.web import forms
from bootmark.web.guard import ask_who, at_most, db, member, now, on_farm, only, real_now, the_farm
from bootmark.web.station.question import USUAL, question, sum_title, total
from bootmark.web.station.svg import heat_svg, year_svg

STORED = "{stored} days are in. {refused} lines were refused and stay with the file."
blueprint = Blueprint("station", __name__, template_folder=".")
SHOWN_LINES = 30
GAP_DAYS = 730


def _gaps(station: ground.Station, record: stations.Record) -> list[tuple[dt.date, dt.date, str]]:
    """Gaps of this year and the last, the newest first, each with how it is filled."""
    how = derived.how_filled(db(), station)
    since = now().date() - dt.timedelta(days=GAP_DAYS)
    runs = [run for run in gaps.runs(record.days, now().date()) if run[1] >= since]
    return [(first, last, say.term(Fill(how[first])) if first in how else "") for first, last in reversed(runs)]


@blueprint.get("/f/<uuid:farm>/station/<uuid:station>")
@on_farm
@at_most(60)
def page(station: uuid.UUID) -> str:
    return _page(ground.station(db(), station))


def _page(station: ground.Station, wrong: Mapping[str, str] | None = None, key: str = "") -> str:
    record = stations.record(db(), station)
    years = sorted({day.year for day in record.days}, reverse=True)
    errors: dict[str, str] = {}
    asked, unit = question({})
    rows, totals = [], []
    try:
        asked, unit = question(request.args)
        rows = heat.by_year(record, asked)
        totals = [total(row.total, unit) for row in rows]
    except Refused as error:
        errors = error.errors
    shown = request.args.get("year", type=int) or (years[0] if years else 0)
    return render_template(
        "station.html",
        station=station,
        years=years,
        shown=shown,
        svg=year_svg(record, shown) if years else "",
        heat=heat_svg(rows, asked.start, unit),
        count=len(record.days),
        first=min(record.days, default=None),
        last=max(record.days, default=None),
        rows=list(zip(rows, totals, strict=True)),
        sum_titles=[sum_title(heat_sum, unit) for heat_sum in asked.sums],
        unit=unit,
        usual=USUAL[unit],
        errors=forms.Errors(errors),
        wrong=forms.Errors(wrong),
        key=key,
        form=request.args,
        gaps=_gaps(station, record),
        doubts=judging.doubts(db(), station),
        judgement_id=judging.record_id,
        push_url=url_for("push.receive", farm=the_farm().id, station=station.id, _external=True),
        keeper=member().role in KEEPERS,
        used=_used(station),
    )


def _used(station: ground.Station) -> list[tuple[str, str]]:
    """Blocks whose weather comes from a station, and why."""
    used = []
    for block in ground.blocks(db()):
        sources = block_weather.sources(db(), the_farm(), block)
        if station.id in {source.id for source in sources}:
            by_distance = say.line("by distance and height, with others") if len(sources) > 1 else ""
            own = say.line("its one station") if block.station_id == station.id else say.line("no other stands for it")
            used.append((block.name, by_distance or own))
    return used


@blueprint.post("/f/<uuid:farm>/station/<uuid:station>/judge")
@on_farm
def judge(station: uuid.UUID) -> AnyResponse | tuple[str, int]:
    stored = ground.station(db(), station)
    try:
        forms.send(judging.JudgeWeather, station_id=str(station))
    except Refused as error:
        return _page(stored, error.errors), 400
    return redirect(url_for("station.page", farm=the_farm().id, station=station, _anchor="doubts"))


@blueprint.post("/f/<uuid:farm>/station/<uuid:station>/key")
@on_farm
def give_key(station: uuid.UUID) -> str | tuple[str, int]:
    """A key for a station that sends its readings; shown this once."""
    stored = ground.station(db(), station)
    try:
        ask_who()
        return _page(stored, key=pushed.give_key(db(), member(), stored, request.form.get("key", "")))
    except Refused as error:
        return _page(stored, error.errors), 400


@blueprint.get("/f/<uuid:farm>/station/new")
@on_farm
def new() -> str:
    only(KEEPERS)
    return _form(None)


@blueprint.get("/f/<uuid:farm>/station/<uuid:station>/edit")
@on_farm
def edit(station: uuid.UUID) -> str:
    only(KEEPERS)
    return _form(ground.station(db(), station))


def _form(station: ground.Station | None, errors: forms.Errors | None = None) -> str:
    ahead = farm_time.standard_offset(the_farm(), now().year) / dt.timedelta(hours=1)
    return render_template(
        "station_form.html",
        station=station,
        form=request.form if errors else {},
        errors=errors or forms.Errors(),
        ahead=station.offset_minutes / 60 if station else ahead,
    )


@blueprint.post("/f/<uuid:farm>/station")
@on_farm
def save() -> AnyResponse | tuple[str, int]:
    hours = Number(-12, 14, "hours").of_text(request.form.get("offset_hours", "0"))
    try:
        result = forms.send(places.SaveStation, offset_minutes=60 * hours if isinstance(hours, float) else hours)
    except Refused as error:
        names = {"offset_minutes": "offset_hours"}
        errors = forms.Errors({names.get(name, name): text for name, text in error.errors.items()})
        record = forms.record_id()
        return _form(next((row for row in ground.stations(db()) if row.id == record), None), errors), 400
    return redirect(url_for("station.page", farm=the_farm().id, station=result["record_id"]))


@blueprint.post("/f/<uuid:farm>/station/<uuid:station>/file")
@on_farm
@at_most(20)
def receive(station: uuid.UUID) -> AnyResponse:
    stored = ground.station(db(), station)
    sent = request.files.get("file")
    try:
        if sent is None or not sent.filename:
            raise Refused(file=say.line("No file was chosen: choose a CSV with a header line."))
        upload = files.receive(db(), member(), stored.id, sent.filename, sent.read(), real_now())
    except Refused as error:
        flash(" ".join(error.errors.values()), "bad")
        return redirect(url_for("station.page", farm=the_farm().id, station=station, _anchor="file"))
    return redirect(url_for("station.file", farm=the_farm().id, upload=upload.id))


@blueprint.get("/f/<uuid:farm>/station/file/<uuid:upload>")
@on_farm
@at_most(60)
def file(upload: uuid.UUID) -> str:
    weather_file = files.get(db(), member(), upload)
    return _preview(weather_file, request.args.to_dict())


def _preview(upload: Any, form: dict[str, Any], errors: Mapping[str, str] | None = None) -> str:
    preview = files.preview(db(), upload, form, now())
    return render_template(
        "weather_file.html",
        station=ground.station(db(), upload.station_id),
        preview=preview,
        upload=upload,
        working=upload.job in files.AT_WORK,
        jobs=files.Job,
        errors=forms.Errors(errors),
        columns=[("date", "Date"), ("tmin", "Minimum"), ("tmax", "Maximum"), ("rain", say.line("Rain, if there is any"))],
        header=[("", say.line("not in the file")), *((name, name) for name in preview.header)],
        orders=[("", say.line("say which")), *((order, say.line(words)) for order, words in weather_csv.ORDERS.items())],
        most=SHOWN_LINES,
    )


@blueprint.post("/f/<uuid:farm>/station/file/<uuid:upload>")
@on_farm
def import_file(upload: uuid.UUID) -> AnyResponse | tuple[str, int]:
    weather_file = files.get(db(), member(), upload)
    try:
        done = files.store(db(), member(), weather_file, request.form.to_dict(), now(), real_now())
    except Refused as error:
        return _preview(weather_file, request.form.to_dict(), error.errors), 400
    if not done:
        return redirect(url_for("station.file", farm=the_farm().id, upload=upload))
    flash(
        say.line(STORED, stored=done["stored"], refused=done["refused"]),
        "good",
    )
    return redirect(url_for("station.page", farm=the_farm().id, station=weather_file.station_id))


@blueprint.get("/f/<uuid:farm>/station/file/<uuid:upload>/progress")
@on_farm
def file_progress(upload: uuid.UUID) -> Response:
    """How far the worker is with a file."""
    weather_file = files.get(db(), member(), upload)
    return jsonify(working=weather_file.job in files.AT_WORK, progress=weather_file.progress)


@blueprint.get("/f/<uuid:farm>/station/file/<uuid:upload>/refused.csv")
@on_farm
@at_most(12)
def refused(upload: uuid.UUID) -> Response:
    """The refused lines as they came, each with its reason, to be mended and sent again."""
    weather_file = files.get(db(), member(), upload)
    preview = files.preview(db(), weather_file, request.args.to_dict(), now())
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(as_text([*preview.header, "line", "reason"]))
    for row in preview.understood.refused if preview.understood else ():
        writer.writerow(as_text([*row.cells, row.line, row.reason]))
    return Response(out.getvalue(), mimetype="text/csv", headers={"Content-Disposition": "attachment; filename=refused.csv"})
