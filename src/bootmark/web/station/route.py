"""One weather station: its readings, what heat they make, and files to fill it from."""

import datetime as dt
import uuid
from typing import Any

from flask import Blueprint, Response, abort, flash, redirect, render_template, request, url_for
from sqlalchemy import select
from werkzeug.wrappers import Response as AnyResponse

from bootmark.core import units
from bootmark.core.season import faults, gaps
from bootmark.formats import weather_csv
from bootmark.services import heat, judging, pushed, weather, weather_files
from bootmark.services.commands import Refused
from bootmark.services.places import KEEPERS
from bootmark.store.models import Station, WeatherDerived
from bootmark.web import forms
from bootmark.web.guard import db, member, now, on_farm, real_now, the_farm
from bootmark.web.station.svg import heat_svg, year_svg

blueprint = Blueprint("station", __name__, template_folder=".")
SHOWN_LINES = 30
GAP_DAYS = 730


def _station(station: uuid.UUID) -> Station:
    found = db().get(Station, (the_farm().id, station))
    if found is None:
        abort(404)
    return found


def question(form: Any) -> tuple[heat.Question, str]:
    """The heat question of a form, and the unit it speaks in. Raises Refused."""
    unit = "F" if form.get("unit") == "F" else "C"
    errors: dict[str, str] = {}

    def number(name: str, default: str, needed: bool = True) -> float | None:
        text = (form.get(name, default) or "").strip().replace(",", ".")
        if not text and not needed:
            return None
        try:
            value = float(text)
        except ValueError:
            errors[name] = f"{text or 'Nothing'} is not a number."
            return None
        return units.celsius(value) if unit == "F" else value

    lower, upper = number("lower", "10"), number("upper", "31.1", needed=False)
    start = (form.get("start") or "03-01").strip()
    try:
        day = dt.date.fromisoformat(f"2001-{start}")
    except ValueError:
        errors["start"] = f"{start} is not a day of the year: write 03-01 for 1 March."
        day = dt.date(2001, 3, 1)
    sums: list[float] = []
    for part in (form.get("sums") or "100, 250, 500").replace(";", ",").split(","):
        try:
            sums.append(units.difference_celsius(float(part)) if unit == "F" else float(part))
        except ValueError:
            errors["sums"] = f"{part.strip() or 'Nothing'} is not a number: write sums parted by commas, for example 250, 1000."
    if lower is not None and upper is not None and upper <= lower:
        errors["upper"] = "The upper threshold must be above the lower one."
    if errors or lower is None:
        raise Refused(**errors)
    return heat.Question(lower, upper, (day.month, day.day), tuple(sorted(sums))), unit


def _gaps(found: Station, record: weather.Record) -> list[tuple[dt.date, dt.date, str]]:
    """Gaps of this year and the last, the newest first, each with how it is filled."""
    filled = select(WeatherDerived.local_date, WeatherDerived.filled).where(
        WeatherDerived.farm_id == found.farm_id, WeatherDerived.station_id == found.id, WeatherDerived.filled != ""
    )
    how: dict[dt.date, str] = dict(db().execute(filled).all())
    since = now().date() - dt.timedelta(days=GAP_DAYS)
    told = [run for run in gaps.runs(record.days, now().date()) if run[1] >= since]
    return [(first, last, gaps.HOW.get(how.get(first, ""), "")) for first, last in reversed(told)]


@blueprint.get("/f/<uuid:farm>/station/<uuid:station>")
@on_farm
def page(station: uuid.UUID) -> str:
    return _page(_station(station))


def _page(found: Station, wrong: dict[str, str] | None = None, key: str = "") -> str:
    record = weather.record(db(), the_farm().id, found.id)
    years = sorted({day.year for day in record.days}, reverse=True)
    errors: dict[str, str] = {}
    told, unit = heat.Question(10, 31.1, (3, 1), (100.0, 250.0, 500.0)), "C"
    rows, totals = [], []
    try:
        told, unit = question(request.args)
        rows = heat.by_year(record, told)
        totals = [units.difference_fahrenheit(row.total) if unit == "F" else row.total for row in rows]
    except Refused as error:
        errors = error.errors
    shown = request.args.get("year", type=int) or (years[0] if years else 0)
    return render_template(
        "station.html",
        station=found,
        years=years,
        shown=shown,
        svg=year_svg(record, shown) if years else "",
        heat=heat_svg(rows, told.start, unit),
        count=len(record.days),
        first=min(record.days, default=None),
        last=max(record.days, default=None),
        rows=list(zip(rows, totals, strict=True)),
        sums=[units.difference_fahrenheit(one) if unit == "F" else one for one in told.sums],
        unit=unit,
        errors=errors,
        wrong=wrong or {},
        key=key,
        form=request.args,
        gaps=_gaps(found, record),
        doubts=judging.doubts(db(), found),
        flag_names=faults.KINDS,
        judgement_id=judging.record_id,
        push_url=url_for("push.receive", farm=the_farm().id, station=found.id, _external=True),
        keeper=member().role in KEEPERS,
    )


@blueprint.post("/f/<uuid:farm>/station/<uuid:station>/judge")
@on_farm
def judge(station: uuid.UUID) -> AnyResponse | tuple[str, int]:
    found = _station(station)
    payload = {"station_id": str(station), "local_date": request.form.get("local_date", ""), "verdict": request.form.get("verdict", "")}
    try:
        forms.send("weather.judge", payload)
    except Refused as error:
        return _page(found, error.errors), 400
    return redirect(url_for("station.page", farm=the_farm().id, station=station, _anchor="doubts"))


@blueprint.post("/f/<uuid:farm>/station/<uuid:station>/key")
@on_farm
def give_key(station: uuid.UUID) -> str | tuple[str, int]:
    """A key for a station that sends its readings; shown this once."""
    found = _station(station)
    try:
        return _page(found, key=pushed.give_key(db(), member(), found, request.form.get("key", "")))
    except Refused as error:
        return _page(found, error.errors), 400


@blueprint.get("/f/<uuid:farm>/station/new")
@on_farm
def new() -> str:
    return render_template("new_station.html", form={}, errors={})


@blueprint.post("/f/<uuid:farm>/station")
@on_farm
def save() -> AnyResponse | tuple[str, int]:
    payload = {name: request.form.get(name, "") for name in ("name", "latitude", "longitude", "elevation", "url", "kind")}
    payload["offset_minutes"] = (
        str(60 * float(request.form.get("offset_hours") or 0))
        if request.form.get("offset_hours", "0").replace("-", "").replace(".", "").isdigit()
        else "no"
    )
    try:
        result = forms.send("station.save", payload)
    except Refused as error:
        errors = {("offset_hours" if name == "offset_minutes" else name): text for name, text in error.errors.items()}
        return render_template("new_station.html", form=request.form, errors=errors), 400
    return redirect(url_for("station.page", farm=the_farm().id, station=result["record_id"]))


@blueprint.post("/f/<uuid:farm>/station/<uuid:station>/file")
@on_farm
def receive(station: uuid.UUID) -> AnyResponse:
    found = _station(station)
    sent = request.files.get("file")
    try:
        if sent is None or not sent.filename:
            raise Refused(file="No file was chosen: choose a CSV with a header line.")
        upload = weather_files.receive(db(), member(), found.id, sent.filename, sent.read(), real_now())
    except Refused as error:
        flash(" ".join(error.errors.values()), "bad")
        return redirect(url_for("station.page", farm=the_farm().id, station=station, _anchor="file"))
    return redirect(url_for("station.file", farm=the_farm().id, upload=upload.id))


@blueprint.get("/f/<uuid:farm>/station/file/<uuid:upload>")
@on_farm
def file(upload: uuid.UUID) -> str:
    found = weather_files.get(db(), member(), upload)
    return _preview(found, request.args.to_dict())


def _preview(upload: Any, form: dict[str, Any], errors: dict[str, str] | None = None) -> str:
    told = weather_files.preview(upload, form)
    return render_template(
        "weather_file.html",
        station=_station(upload.station_id),
        told=told,
        upload=upload,
        errors=errors or {},
        columns=[("date", "Date"), ("tmin", "Minimum"), ("tmax", "Maximum"), ("rain", "Rain, if there is any")],
        header=[("", "not in the file"), *((name, name) for name in told.header)],
        orders=[("", "say which"), *weather_csv.ORDERS.items()],
        most=SHOWN_LINES,
        ahead=[one for one in told.reading.days if one.date >= now().date()] if told.reading else [],
    )


@blueprint.post("/f/<uuid:farm>/station/file/<uuid:upload>")
@on_farm
def import_file(upload: uuid.UUID) -> AnyResponse | tuple[str, int]:
    found = weather_files.get(db(), member(), upload)
    try:
        done = weather_files.store(db(), member(), found, request.form.to_dict(), now(), real_now())
    except Refused as error:
        return _preview(found, request.form.to_dict(), error.errors), 400
    flash(f"{done['stored']} days are in. {done['refused']} lines were refused and stay with the file.", "good")
    return redirect(url_for("station.page", farm=the_farm().id, station=found.station_id))


@blueprint.get("/f/<uuid:farm>/station/file/<uuid:upload>/refused.csv")
@on_farm
def refused(upload: uuid.UUID) -> Response:
    """The refused lines as they came, each with its reason, to be mended and sent again."""
    found = weather_files.get(db(), member(), upload)
    told = weather_files.preview(found, request.args.to_dict())
    lines = [",".join([*told.header, "line", "reason"])]
    for one in told.reading.refused if told.reading else ():
        lines.append(f'{one.raw},{one.line},"{one.reason}"')
    return Response("\n".join(lines) + "\n", mimetype="text/csv", headers={"Content-Disposition": "attachment; filename=refused.csv"})
