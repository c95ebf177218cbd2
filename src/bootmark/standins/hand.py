"""What people did on the demo farm, sent as the commands that their devices would have sent."""

import datetime as dt
import uuid
from typing import Any

from sqlalchemy.orm import Session

from bootmark.core.catalogue import default
from bootmark.services import writing
from bootmark.services.base.handling import Sent
from bootmark.services.base.people import Member
from bootmark.services.base.roles import Role
from bootmark.services.kinds import KINDS
from bootmark.services.treatment import applications
from bootmark.standins.estate import FARM, NAME, ORIGIN, PEOPLE, made
from bootmark.store.models import Block, Farm, ReturnVisit, TreatmentRow


def day(year: int, month: int, date: int, hour: int = 7) -> dt.datetime:
    return dt.datetime(year, month, date, hour, 30, tzinfo=dt.UTC)


class Hand:
    """Sends commands as one of the estate's people did at the time."""

    def __init__(self, session: Session) -> None:
        self.session = session
        self.farm = session.get_one(Farm, FARM)
        self.catalogue = default()
        self.who = {role: Member(made(email), FARM, NAME, Role(role), qualified) for _, email, role, qualified in PEOPLE}
        self.count = 0

    def send(
        self,
        who: str,
        kind: str,
        at: dt.datetime,
        payload: dict[str, Any],
        record: uuid.UUID | None = None,
        base: uuid.UUID | None = None,
    ) -> uuid.UUID:
        self.count += 1
        record = record or made(f"{kind}/{self.count}")
        raw = {"command_id": str(made(f"command/{self.count}")), "kind": kind, "v": KINDS[kind].command.spec.v, "record_id": str(record)}
        raw |= {"base": str(base) if base else None, "payload": payload}
        writing.handle(self.session, self.farm, self.who[who], self.catalogue, Sent.of(raw, at), at)
        return record

    def stop(self, block: str, at: dt.datetime, where: str = "", return_id: str | None = None) -> uuid.UUID:
        return self.send("scout", "stop.open", at, {"block_id": str(made(block)), "where": where, "return_id": return_id})

    def look(self, stop: uuid.UUID, at: dt.datetime, seen: str, absent: str = "", note: str = "") -> uuid.UUID:
        signs = dict.fromkeys(seen.split(), "seen") | dict.fromkeys(absent.split(), "absent")
        return self.send("scout", "look.record", at, {"stop_id": str(stop), "signs": signs, "note": note})

    def sample(self, stop: uuid.UUID, at: dt.datetime, agent: str, counts: str, enemies: str = "", measure: str = "mean") -> uuid.UUID:
        plan = self.catalogue.agent(agent).sampling
        unit = "trap" if measure == "trap" else plan.unit if plan else "leaf"
        payload = {"counts": [int(number) for number in counts.split()], "enemies": [int(number) for number in enemies.split()]}
        return self.send("scout", "sample.record", at, {"stop_id": str(stop), "agent": agent, "unit": unit, "measure": measure, **payload})

    def call(self, who: str, at: dt.datetime, look: uuid.UUID, agent: str, sample: uuid.UUID | None = None, control: str = "") -> uuid.UUID:
        return self.send(
            who,
            "decision.make",
            at,
            {"look_id": str(look), "agent": agent, "sample_id": str(sample) if sample else None, "control": control},
        )

    def enquiry(self, at: dt.datetime, sender: str, came_as: str, crop: str, place: str, words: str, seen: str, absent: str = "") -> None:
        signs = dict.fromkeys(seen.split(), "seen") | dict.fromkeys(absent.split(), "absent")
        payload = {"sender": sender, "came_as": came_as, "crop": crop, "family": "", "place": place, "words": words, "signs": signs}
        self.send("adviser", "enquiry.save", at, payload)

    def trap(
        self, name: str, block: str, at: dt.datetime, agent: str, x: float, y: float, kind: str = "delta", check_days: int = 3
    ) -> uuid.UUID:
        [(longitude, latitude)] = ORIGIN.to_degrees([(x, y)])
        where = {"block_id": str(made(block)), "longitude": longitude, "latitude": latitude}
        payload = {"name": name, "agent": agent, "kind": kind, "check_days": check_days, **where}
        dates = {"set_on": at.date().isoformat(), "lure_on": at.date().isoformat(), "lure_days": 42}
        return self.send("scout", "trap.save", at, payload | dates, made(f"trap/{name}"))

    def caught(self, trap: uuid.UUID, year: int, rows: str, lure: str = "") -> None:
        """Checks as "month/day=number"; lure: the day on which a new lure went in."""
        for row in rows.split():
            when, number = row.split("=")
            month, date = (int(part) for part in when.split("/"))
            payload = {
                "trap_id": str(trap),
                "on": f"{year}-{month:02}-{date:02}",
                "caught": int(number),
                "new_lure": when == lure,
                "note": "",
            }
            self.send("scout", "trap.check", day(year, month, date), payload)

    def crop_stage(self, block: str, at: dt.datetime, code: int, note: str = "") -> None:
        self.send("scout", "crop.stage", at, {"block_id": str(made(block)), "on": at.date().isoformat(), "code": code, "note": note})

    def stages_seen(self, block: str, at: dt.datetime, agent: str, note: str, **counts: int) -> None:
        payload = {"block_id": str(made(block)), "agent": agent, "on": at.date().isoformat(), "counts": counts, "note": note}
        self.send("scout", "stage.sighting", at, payload)

    def biofix(self, block: str, at: dt.datetime, agent: str, on: dt.date, basis: str) -> None:
        self.send("scout", "biofix.set", at, {"block_id": str(made(block)), "agent": agent, "on": on.isoformat(), "basis": basis})

    def done(self, decision: uuid.UUID, at: dt.datetime, amount: float, unit: str, area: float) -> None:
        """The next treatment of a call, as the applicator signed for it."""
        rows = (
            self.session.query(TreatmentRow).filter_by(farm_id=FARM, decision_id=decision, state="planned").order_by(TreatmentRow.ordinal)
        )
        treatment = rows.first()
        if treatment is None:
            raise LookupError(f"the call {decision} planned nothing")
        control = self.catalogue.agent(treatment.agent).control(treatment.control)
        payload = {
            "treatment_id": str(treatment.id),
            "started_at": (at - dt.timedelta(hours=1)).isoformat(),
            "finished_at": at.isoformat(),
            "amount": amount,
            "amount_unit": unit,
            "area": area,
            "note": "",
            "checks": list(applications.checks(control)),
        }
        self.send("applicator", "application.record", at, payload)

    def answer_all(self) -> None:
        """Walk to every look that is booked, on its day."""
        for visit in self.session.query(ReturnVisit).filter_by(farm_id=FARM, state="booked").order_by(ReturnVisit.due_on).all():
            block = self.session.get_one(Block, (FARM, visit.block_id))
            at = dt.datetime.combine(visit.due_on, dt.time(7), dt.UTC)
            self.stop(block.name, at, "", str(visit.id))
