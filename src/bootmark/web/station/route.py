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
from bootmark.core import units
from bootmark.core.meanings import Fill
from bootmark.core.season import gaps
from bootmark.formats import weather_csv
from bootmark.formats.csv_cells import as_text
from bootmark.services import places
from bootmark.services.base import ground
from bootmark.services.base.command import Refused
from bootmark.services.base.fields import Number
from bootmark.services.base.roles import KEEPERS
from bootmark.services.weather import derived, files, heat, judging, pushed, stations
from bootmark.web import forms
from bootmark.web.guard import ask_who, at_most, db, member, now, on_farm, only, real_now, the_farm
from bootmark.web.station.svg import heat_svg, year_svg

STORED = "{stored} days are in. {refused} lines were refused and stay with the file."
blueprint = Blueprint("station", __name__, template_folder=".")
SHOWN_LINES = 30
GAP_DAYS = 730
MOST_ASKED, MOST_SUMS = 100_000, 12


def _number(text: str) -> float | None:
    """A number as somebody typed it; None where it is none, or beyond all heat."""
    try:
        value = float(text)
    except ValueError:
        return None
    return value if abs(value) <= MOST_ASKED else None


def question(form: Any) -> tuple[heat.Question, str]:
    """The heat question of a form, and the unit it speaks in. Raises Refused."""
    unit = "F" if form.get("unit") == "F" else "C"
    errors: dict[str, str] = {}

    def number(name: str, default: str, needed: bool = True) -> float | None:
        text = (form.get(name, default) or "").strip().replace(",", ".")
        if not text and not needed:
            return None
        value = _number(text)
        if value is None:
            errors[name] = say.line(
                "{value} is not a number: write one up to {most_asked}.", value=text or say.line("Nothing"), most_asked=MOST_ASKED
            )
            return None
        return units.celsius(value) if unit == "F" else value

    lower, upper = number("lower", "10"), number("upper", "31.1", needed=False)
    start = (form.get("start") or "03-01").strip()
    try:
        day = dt.date.fromisoformat(f"2001-{start}")
    except ValueError:
        errors["start"] = say.line("{start} is not a day of the year: write 03-01 for 1 March.", start=start)
        day = dt.date(2001, 3, 1)
    sums: list[float] = []
    for part in (form.get("sums") or "100, 250, 500").replace(";", ",").split(","):
        value = _number(part)
        if value is None:
            errors["sums"] = say.line(
                "{value} is not a number: write sums parted by commas, for example 250, 1000.", value=part.strip() or say.line("Nothing")
            )
        else:
            sums.append(units.difference_celsius(value) if unit == "F" else value)
    if len(sums) > MOST_SUMS:
        errors["sums"] = say.line(
            "{count} sums are asked for and {most_sums} are the most: leave some out.", count=len(sums), most_sums=MOST_SUMS
        )
    if lower is not None and upper is not None and upper <= lower:
        errors["upper"] = say.line("The upper threshold must be above the lower one.")
    if errors or lower is None:
        raise Refused(**errors)
    return heat.Question(lower, upper, (day.month, day.day), tuple(sorted(sums))), unit


def _gaps(station: ground.Station, record: stations.Record) -> list[tuple[dt.date, dt.date, str]]:
    """Gaps of this year and the last, the newest first, each with how it is filled."""
    how = derived.how_filled(db(), station)
    since = now().date() - dt.timedelta(days=GAP_DAYS)
    runs = [run for run in gaps.runs(record.days, now().date()) if run[1] >= since]
    return [(first, last, say.term(Fill(how[first])) if first in how else "") for first, last in reversed(runs)]


def _sum_title(celsius: float, unit: str) -> str:
    """A heat sum as the head of its column, in the unit that was asked for."""
    shown = units.difference_fahrenheit(celsius) if unit == "F" else celsius
    return say.line("{sum:g} DD {unit}", sum=round(float(shown), 1), unit=unit)


@blueprint.get("/f/<uuid:farm>/station/<uuid:station>")
@on_farm
@at_most(60)
def page(station: uuid.UUID) -> str:
    return _page(ground.station(db(), station))


def _page(station: ground.Station, wrong: Mapping[str, str] | None = None, key: str = "") -> str:
    record = stations.record(db(), station)
    years = sorted({day.year for day in record.days}, reverse=True)
    errors: dict[str, str] = {}
    asked, unit = heat.Question(10, 31.1, (3, 1), (100.0, 250.0, 500.0)), "C"
    rows, totals = [], []
    try:
        asked, unit = question(request.args)
        rows = heat.by_year(record, asked)
        totals = [units.difference_fahrenheit(row.total) if unit == "F" else row.total for row in rows]
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
        sum_titles=[_sum_title(heat_sum, unit) for heat_sum in asked.sums],
        unit=unit,
        errors=forms.Errors(errors),
        wrong=forms.Errors(wrong),
        key=key,
        form=request.args,
        gaps=_gaps(station, record),
        doubts=judging.doubts(db(), station),
        judgement_id=judging.record_id,
        push_url=url_for("push.receive", farm=the_farm().id, station=station.id, _external=True),
        keeper=member().role in KEEPERS,
    )


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
    return render_template("new_station.html", form={}, errors=forms.Errors())


@blueprint.post("/f/<uuid:farm>/station")
@on_farm
def save() -> AnyResponse | tuple[str, int]:
    hours = Number(-12, 14, "hours").of_text(request.form.get("offset_hours", "0"))
    try:
        result = forms.send(places.SaveStation, offset_minutes=60 * hours if isinstance(hours, float) else hours)
    except Refused as error:
        names = {"offset_minutes": "offset_hours"}
        errors = forms.Errors({names.get(name, name): text for name, text in error.errors.items()})
        return render_template("new_station.html", form=request.form, errors=errors), 400
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
