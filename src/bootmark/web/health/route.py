"""For whoever supervises: /livez (this process answers), /readyz (it can take requests), /healthz (which part is ill, if any)."""

from flask import Blueprint

from bootmark.services.base import health
from bootmark.web.guard import real_now

blueprint = Blueprint("health", __name__)


@blueprint.get("/livez")
def live() -> tuple[str, int]:
    return "ok\n", 200


@blueprint.get("/readyz")
def ready() -> tuple[str, int]:
    return _told({name: ill for name, ill in health.parts(real_now()).items() if name in health.NEEDED})


@blueprint.get("/healthz")
def healthz() -> tuple[str, int]:
    return _told(health.parts(real_now()))


def _told(parts: dict[health.Part, str]) -> tuple[str, int]:
    """One line for each part that is ill; "ok" where none is."""
    ill = [f"{name}: {why}\n" for name, why in parts.items() if why]
    return ("".join(ill), 503) if ill else ("ok\n", 200)
