"""The work at one stop as commands, in its order, and how many rows came of it."""

import datetime as dt
import hashlib
import io
import itertools
import uuid
from typing import Any, NamedTuple

from PIL import Image
from sqlalchemy import func, select, text, update

from bootmark.services import pictures
from bootmark.services.base.states import TreatmentState
from bootmark.services.weather import judging
from bootmark.standins.estate import FARM, LATITUDE, LONGITUDE, NAME, NOW, TIME_ZONE, made
from bootmark.store.models import Account, BegunWork, Membership, TreatmentRow
from bootmark.store.rows import of_farm
from bootmark.store.session import farm_session
from tests.database import catalogue, member
from tests.sending import send, store_days

ONCE = frozenset({"block.divide", "block.join"})
"""Kinds that are done once and change other records: they have tests of their own (test_plantings)."""
PROOFS = ("crescent-scars", "snouted-beetles")
SIGNS = {"stippling": "seen", "webbing-fine": "seen", "mites-and-round-eggs": "seen", "slender-insects-on-paper": "absent"}


def count(model: Any, **where: Any) -> int:
    with farm_session(FARM) as session:
        query = select(func.count()).select_from(model)
        for name, value in where.items():
            query = query.where(getattr(model, name) == value)
        return session.execute(query).scalar_one()


def line() -> dict[str, tuple[dict[str, Any], uuid.UUID]]:
    """One payload of every kind, in the order of the work."""
    ids = {
        name: uuid.uuid4()
        for name in (
            "stop",
            "look",
            "sample",
            "decision",
            "application",
            "biofix",
            "station",
            "block",
            "enquiry",
            "trap",
            "check",
            "stage",
            "crop",
        )
    }
    outline = [[7.1, 46.2], [7.1002, 46.2], [7.1002, 46.1999]]
    return {
        "station.save": (
            {"name": f"Hill {ids['station']}", "latitude": 46, "longitude": 7, "elevation": 500, "offset_minutes": 60, "url": ""},
            ids["station"],
        ),
        "block.save": (
            {
                "name": f"B {ids['block']}",
                "crop": "raspberry",
                "place": "tunnel",
                "cultivar": "",
                "area": 0.2,
                "outline": outline,
                "station_id": str(made("Tunnel logger")),
            },
            ids["block"],
        ),
        "biofix.set": (
            {"block_id": str(made("Orchard A")), "agent": "codling-moth", "on": "2026-05-20", "basis": "two males"},
            ids["biofix"],
        ),
        "stop.open": ({"block_id": str(fresh_block()), "where": "row 1"}, ids["stop"]),
        "look.record": ({"stop_id": str(ids["stop"]), "signs": SIGNS, "note": ""}, ids["look"]),
        "sample.record": (
            {
                "stop_id": str(ids["stop"]),
                "agent": "two-spotted-spider-mite",
                "unit": "leaf",
                "measure": "mean",
                "counts": [9, 8, 12, 10] * 4,
                "enemies": [0] * 16,
            },
            ids["sample"],
        ),
        "condition.record": (
            {"stop_id": str(ids["stop"]), "agent": "two-spotted-spider-mite", "condition": "leaves", "units": [0, 5, 20, 20]},
            uuid.uuid4(),
        ),
        "decision.make": (
            {
                "look_id": str(ids["look"]),
                "agent": "two-spotted-spider-mite",
                "sample_id": str(ids["sample"]),
                "control": "insecticidal-soap",
            },
            ids["decision"],
        ),
        "opinion.give": (
            {"decision_id": str(ids["decision"]), "decision_version": 1, "stance": "asks", "words": "Is that too early?"},
            uuid.uuid4(),
        ),
        "application.begin": ({"treatment_id": str(to_be_done()), "began_at": NOW.isoformat()}, uuid.uuid4()),
        "enquiry.save": (
            {"sender": "A neighbour", "came_as": "leaf", "crop": "rose", "family": "", "place": "bed", "words": "Holes.", "signs": {}},
            ids["enquiry"],
        ),
        "trap.save": (
            {
                "name": f"T {ids['trap']}",
                "block_id": str(made("Orchard A")),
                "agent": "codling-moth",
                "kind": "delta",
                "longitude": 7.1,
                "latitude": 46.2,
                "set_on": "2026-06-01",
                "lure_on": "2026-06-01",
                "lure_days": 42,
                "check_days": 3,
            },
            ids["trap"],
        ),
        "trap.check": ({"trap_id": str(ids["trap"]), "on": "2026-06-17", "caught": 3, "new_lure": False, "note": ""}, ids["check"]),
        "stage.sighting": (
            {
                "block_id": str(made("Long Field")),
                "agent": "colorado-potato-beetle",
                "on": "2026-06-17",
                "counts": {"larva": 4},
                "note": "",
            },
            ids["stage"],
        ),
        "crop.stage": ({"block_id": str(made("Long Field")), "on": "2026-06-17", "code": 65, "note": ""}, ids["crop"]),
        "model.offset": ({"agent": "codling-moth", "times": 1.04, "error": 0.06, "years": 3}, uuid.uuid4()),
        "weather.judge": doubtful(),
        "planting.save": ({"block_id": str(ids["block"]), "crop": "leek", "part": "the last row"}, uuid.uuid4()),
        "picture.lay": (
            {"image_id": str(image()), "marks": [[10, 10], [900, 700]], "points": [[7.1, 46.2], [7.109, 46.193]]},
            uuid.uuid4(),
        ),
        "threshold.set": (
            {"agent": "two-spotted-spider-mite", "crop": "raspberry", "measure": "mean", "value": 2.5, "why": "For the dish."},
            uuid.uuid4(),
        ),
        "place.check": ({"feature_id": str(made("plan/water")), "on": "2026-06-17", "fine": True, "note": ""}, uuid.uuid4()),
        "task.do": ({"task": "nozzles", "place_id": None, "on": "2026-06-17", "fine": True, "note": ""}, uuid.uuid4()),
        "feature.save": ({"feature": "path", "points": [[7.1, 46.2], [7.1002, 46.2]]}, uuid.uuid4()),
        "farm.save": unkept(),
        "member.save": ({"role": "viewer", "qualified": False, "certificate": "", "certificate_until": None, "ended": False}, colleague()),
        "invitation.save": ({"name": "Sorrel Dane", "email": "", "role": "scout", "token_hash": token_hash()}, uuid.uuid4()),
        "answer.keep": (
            {
                "decision_id": str(reported().call),
                "agent": "plum-curculio",
                "answered_by": "Plant health, the desk",
                "on": "2026-06-17",
                "words": "It is.",
                "frees": False,
            },
            uuid.uuid4(),
        ),
    }


def kept() -> dict[str, tuple[dict[str, Any], uuid.UUID]]:
    """The same, sent: one good payload of every kind, the signature included, about records that are there."""
    payloads = line()
    for kind, (payload, record) in payloads.items():
        # A call is answered and signed for once.
        if kind != "answer.keep":
            send(kind, payload, record)
    return payloads | {"application.record": (application(payloads["decision.make"][1]), uuid.uuid4())}


class Reported(NamedTuple):
    """What was made: the block, the stop and the call of a report."""

    block: uuid.UUID
    stop: uuid.UUID
    call: uuid.UUID


def reported() -> Reported:
    """Plum curculio proved and reported on a block of its own."""
    here = Reported(uuid.uuid4(), uuid.uuid4(), uuid.uuid4())
    look = uuid.uuid4()
    ground = {"crop": "pear", "place": "field", "cultivar": "", "area": 0.2, "outline": [[7.1, 46.2], [7.1002, 46.2], [7.1002, 46.1999]]}
    send("block.save", ground | {"name": f"Held {in_letters(here.block)}", "station_id": str(made("Tunnel logger"))}, here.block)
    send("stop.open", {"block_id": str(here.block), "where": ""}, here.stop)
    send("look.record", {"stop_id": str(here.stop), "signs": dict.fromkeys(PROOFS, "seen"), "note": ""}, look)
    send("decision.make", {"look_id": str(look), "agent": "plum-curculio"}, here.call)
    return here


def token_hash() -> str:
    """The hash of a link's token that nobody has."""
    return hashlib.sha256(uuid.uuid4().bytes).hexdigest()


def colleague(role: str = "scout", farm: uuid.UUID = FARM) -> uuid.UUID:
    """Somebody new on a farm."""
    account = uuid.uuid4()
    with farm_session(farm, role="owner") as session:
        session.add(Account(id=account, email=f"{account.hex}@ferrin.example", name="Sorrel Dane", password_hash="none"))
        session.flush()
        session.add(Membership(farm_id=farm, account_id=account, role=role, qualified=False))
    return account


def unkept() -> tuple[dict[str, Any], uuid.UUID]:
    """The farm as it is, of which nobody has kept anything."""
    with farm_session(FARM, role="owner") as session:
        session.execute(text("DELETE FROM farm_settings_version"))
        session.execute(text("DELETE FROM farm_settings"))
    return {"name": NAME, "latitude": LATITUDE, "longitude": LONGITUDE, "time_zone": TIME_ZONE, "region": "AT"}, FARM


def fresh_block() -> uuid.UUID:
    """A tunnel in which nothing was done yet: what was done against a pest on another would have to be judged first."""
    block = uuid.uuid4()
    ground = {"crop": "raspberry", "place": "tunnel", "area": 0.2, "outline": [[7.1, 46.2], [7.1002, 46.2], [7.1002, 46.1999]]}
    send("block.save", ground | {"name": f"Fresh {in_letters(block)}", "station_id": str(made("Tunnel logger"))}, block)
    return block


def in_letters(record: uuid.UUID) -> str:
    """An id in letters only: a test of markup looks for a number that must not be reckoned."""
    return "".join(chr(ord("a") + int(digit, 16)) for digit in record.hex)


def image() -> uuid.UUID:
    """A picture of the farm that was taken in."""
    content = io.BytesIO()
    Image.new("RGB", (1000, 800), "#7a8a5a").save(content, "JPEG")
    with farm_session(FARM) as session:
        return pictures.take_in(session, member("owner"), content.getvalue(), NOW)


flagged = itertools.count(0, 4)


def doubtful() -> tuple[dict[str, Any], uuid.UUID]:
    """The judgement of a day that nobody has judged yet: each call makes a spike of its own."""
    ridge, day = made("Ridge mast"), dt.date(2025, 3, 1) + dt.timedelta(days=next(flagged))
    with farm_session(FARM) as session:
        row = {"local_date": day, "received_at": NOW, "tmin": 2.0, "tmax": 48.0, "rain": 0.0, "source": "test"}
        store_days(session, ridge, [row])
    return {"station_id": str(ridge), "local_date": day.isoformat(), "verdict": "stands"}, judging.record_id(ridge, day)


def to_be_done() -> uuid.UUID:
    """A treatment that the demo has planned and nobody does: what another line began is told not begun."""
    with farm_session(FARM, role="owner") as session:
        session.execute(update(BegunWork).values(withdrawn=True))
        rows = of_farm(TreatmentRow, TreatmentRow.id).where(TreatmentRow.state == TreatmentState.PLANNED)
        return session.scalars(rows.order_by(TreatmentRow.on, TreatmentRow.id)).first() or uuid.uuid4()


def application(decision: uuid.UUID) -> dict[str, Any]:
    with farm_session(FARM) as session:
        row = session.scalars(select(TreatmentRow).where(TreatmentRow.decision_id == decision, TreatmentRow.ordinal == 0)).one()
        control = catalogue.agent(row.agent).control(row.control)
    from bootmark.services.treatment.applications import checks

    return {
        "treatment_id": str(row.id),
        "started_at": (NOW - dt.timedelta(hours=1)).isoformat(),
        "finished_at": NOW.isoformat(),
        "amount": 2,
        "amount_unit": "L",
        "area": 0.1,
        "note": "",
        "checks": list(checks(control)),
    }
