"""How values are said on screens, and what every page needs."""

import datetime as dt
import functools
import hashlib
import uuid
from collections.abc import Sequence
from pathlib import Path
from typing import Any

from flask import Flask, current_app, g, request, url_for
from markupsafe import Markup

from bootmark import say
from bootmark.core.catalogue import default
from bootmark.core.catalogue.model import MANY
from bootmark.core.field import soybean
from bootmark.core.meanings import AgentKind, ControlKind, HourState, Measure, Pictured, SignState, TrapWait
from bootmark.core.messages import Message
from bootmark.core.units import Quantity
from bootmark.say import hours
from bootmark.say.bench import chance as say_chance
from bootmark.services.base.roles import Role
from bootmark.services.base.states import EnquiryState, Stance, TreatmentState, WeatherVerdict
from bootmark.web import spoken
from bootmark.web.script import route as script

LUGS = (
    ("round", "Round", True),
    ("look", "Look", True),
    ("count", "Count", True),
    ("call", "Call", True),
    ("stages", "Stages", False),
    ("timing", "Timing", False),
    ("do", "Do", True),
    ("book", "Book", True),
    ("guide", "Guide", False),
    ("enquiry", "Enquiry", False),
    ("", "", False),
    ("farm", "Farm", False),
)


WITHIN = {
    **dict.fromkeys(("station", "people", "settings", "running", "outlines", "feature", "planting", "parts", "picture"), "farm"),
    **dict.fromkeys(("season", "trap"), "stages"),
    "threshold": "count",
}
"""Screens without a lug of their own, and the one they belong to."""


def day(value: dt.date | None, *, year: bool = False) -> str:
    if value is None:
        return say.line("not this year")
    formats = say.tongue().formats
    return formats.full_day(value) if year else formats.day(value)


def short_day(value: dt.date) -> str:
    return say.tongue().formats.weekday(value)


def clock(value: dt.datetime) -> str:
    """A moment by its weekday; with its year where that is not the farm's own."""
    from bootmark.web.guard import now

    formats = say.tongue().formats
    same_year = "farm" not in g or value.year == local(now()).year
    day = formats.weekday(value) if same_year else f"{formats.weekday(value)} {value.year}"
    return f"{day}, {formats.time(value)}"


def time(value: dt.datetime) -> str:
    return say.tongue().formats.time(value)


def moment(value: dt.datetime, *, year: bool = True) -> str:
    """A day with its time; year: whether its year matters."""
    return f"{day(value, year=year)}, {time(value)}"


def written(value: dt.date, how: str) -> str:
    """A day as one of the ways in which a language writes it: a name of `say.formats.Formats`."""
    return str(getattr(say.tongue().formats, how)(value))


def local(value: dt.datetime) -> dt.datetime:
    return value.astimezone(dt.UTC if "farm" not in g else _zone())


def _zone() -> dt.tzinfo:
    from bootmark.services.base.farm_time import zone

    return zone(g.farm)


def percent(value: float) -> str:
    return say.tongue().formats.percent(value)


def chance(value: float) -> str:
    return say_chance(say.tongue(), value)


def number(value: float) -> str:
    return say.tongue().formats.short(value)


def measure(value: float, quantity: str, places: int | None = None) -> str:
    """A measure with its unit, as whoever reads it measures. quantity: a `Quantity`; places: decimals in the unit that is stored."""
    return say.tongue().measure(value, Quantity(quantity), places)


def amount(value: float, quantity: str, places: int | None = None) -> str:
    """The same without its unit, for a table whose head names it."""
    return say.tongue().formats.amount(value, Quantity(quantity), places)


def typed(value: Any, quantity: str = "") -> str:
    """A number as it stands in a field to be changed; what was typed stays as it was typed."""
    is_number = isinstance(value, (int, float)) and not isinstance(value, bool)
    return say.tongue().formats.typed(value, Quantity(quantity) if quantity else None) if is_number else str(value)


def unit_of(quantity: str) -> str:
    return say.tongue().symbol(Quantity(quantity))


def formats_key() -> str:
    """How numbers are written on this page: its forms tell it back."""
    return say.tongue().formats.key


def agent_name(agent_id: str) -> str:
    return default().agent(agent_id).name


def agent_inside(agent_id: str) -> str:
    return default().agent(agent_id).in_sentence


def control_name(agent_id: str, control_id: str) -> str:
    return default().agent(agent_id).control(control_id).name


def crop_name(crop: str) -> str:
    crops = default().crops
    return crops[crop].name if crop in crops else crop


def crop_inside(crop: str) -> str:
    return say.line("any crop") if crop == "*" else crop_name(crop).lower()


def figures(value: float) -> str:
    return say.tongue().formats.figures(value)


def grows(block: Any) -> str:
    """What grows on a block, inside a sentence."""
    crops = [crop_name(row["crop"]).lower() for row in block.standing]
    return ", ".join(dict.fromkeys(crops)) or say.line("bare, last {crop}", crop=crop_name(block.crop).lower())


def many(stage: str) -> str:
    """A stage as its animals are spoken of."""
    return say.line(MANY.get(stage, stage))


def said(value: Message | Sequence[Message] | Any) -> str:
    """A message, or several one after the other, in words; what was stored, as it was shown then."""
    if isinstance(value, Message):
        return say.tongue().say(value)
    if isinstance(value, tuple):
        return say.tongue().joined(value)
    return say.shown(value)


def hour_reason(reasons: Sequence[Message]) -> str:
    return hours.reason(say.tongue(), reasons)


def word(value: object) -> str:
    """A word of ours that comes as a value: a state, a role, a part of the plant."""
    return say.line(str(value)) if value else ""


MEANINGS = (
    AgentKind, ControlKind, EnquiryState, HourState, Measure, Pictured, Role, SignState, Stance, TrapWait, TreatmentState,
    WeatherVerdict,
)  # fmt: skip
"""Enumerations whose members templates compare with: never with words."""


def fresh_id() -> str:
    return str(uuid.uuid4())


def lugs() -> list[dict[str, Any]]:
    """The rail: where each lug leads, which is lit, which are worn for the stop that is open."""
    if "farm" not in g:
        return []
    stop, screen = g.get("stop"), request.blueprint or ""
    return _lugs(
        request.script_root,
        g.farm.id,
        stop.id if stop else None,
        tuple(g.get("worn", ())),
        WITHIN.get(screen, screen),
        say.tongue().language,
    )


@functools.lru_cache(maxsize=4096)
def _lugs(_root: str, farm: uuid.UUID, stop: uuid.UUID | None, worn: tuple[str, ...], screen: str, _language: str) -> list[dict[str, Any]]:
    """The same for the same place: every page asks twice, and building addresses takes its time."""
    rail: list[dict[str, Any]] = []
    for name, title, phone in LUGS:
        if not name:
            rail.append({"gap": True})
            continue
        at_stop = name in ("look", "count", "call")
        view = "newest" if at_stop and not stop else "page"
        place: dict[str, Any] = {"stop": stop} if stop and at_stop else {}
        lug: dict[str, Any] = {"name": name, "title": say.line(title), "phone": phone, "lit": screen == name, "worn": name in worn}
        rail.append(lug | {"href": url_for(f"{name}.{view}", farm=farm, **place)})
    return rail


@functools.cache
def _digest(path: Path) -> str:
    return hashlib.sha256(path.read_bytes()).hexdigest()[:12]


@functools.lru_cache(maxsize=256)
def _asset(_root: str, folder: str, name: str) -> str:
    # The style names the fonts by their plain addresses, and they do not change.
    if name.startswith("fonts/"):
        return url_for("static", filename=name)
    return url_for("static", filename=name, v=_digest(Path(folder) / name))


def asset(name: str) -> str:
    """The address of a script or style; it changes with what is in it, so that no page meets a script of another version."""
    return _asset(request.script_root, str(current_app.static_folder), name)


def svg(text: str) -> Markup:
    """Our own drawing, put into the page as it is."""
    return Markup(text)  # noqa: S704 - drawings hold no text of a user's unescaped


def init(app: Flask) -> None:
    app.jinja_env.filters.update(
        day=day,
        short_day=short_day,
        clock=clock,
        local=local,
        percent=percent,
        number=number,
        measure=measure,
        amount=amount,
        grows=grows,
        figures=figures,
        crop_inside=crop_inside,
        typed=typed,
        chance=chance,
        agent=agent_name,
        agent_inside=agent_inside,
        svg=svg,
        said=said,
        hour_reason=hour_reason,
        term=say.term,
        time=time,
        moment=moment,
        written=written,
        word=word,
    )
    app.jinja_env.globals.update(
        said_words=spoken.said_words,
        counted=say.many,
        FROM_SCARS=soybean.FROM_SCARS,
        **{meaning.__name__: meaning for meaning in MEANINGS},
        lugs=lugs,
        fresh_id=fresh_id,
        control_name=control_name,
        asset=asset,
        script=script.address,
        crop_name=crop_name,
        unit_of=unit_of,
        formats_key=formats_key,
        many=many,
    )
    app.jinja_env.trim_blocks = app.jinja_env.lstrip_blocks = True

    @app.context_processor
    def everywhere() -> dict[str, Any]:
        if "farm" not in g:
            return {"farm": None, "tongue": say.tongue()}
        from bootmark.web.guard import now

        return {
            "tongue": say.tongue(),
            "farm": g.farm,
            "member": g.member,
            "person": g.person,
            "likes": g.preferences,
            "now": now(),
            "demo": g.farm.clock_at is not None,
        }
