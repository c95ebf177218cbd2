"""A block that was just sprayed: no card, no stop and no trap sends anybody into it."""

import datetime as dt
import re
import uuid

from sqlalchemy import select

from bootmark.core.catalogue import default
from bootmark.services.base.states import TreatmentState
from bootmark.standins.estate import FARM, NOW, made
from bootmark.store.models import Application, Block, TreatmentRow
from bootmark.store.rows import of_farm
from bootmark.store.session import farm_session
from tests.web.test_pages import F, PagesTest


class Closed(PagesTest):
    def spray(self, hours_ago: float, where: str = "Long Field") -> tuple[str, uuid.UUID]:
        """Say that something with an interval was signed for on a block that calls for a walk: its name and id."""
        with farm_session(FARM, role="owner") as session:
            application, treatment = session.execute(
                select(Application, TreatmentRow)
                .join(TreatmentRow, (TreatmentRow.farm_id == Application.farm_id) & (TreatmentRow.id == Application.treatment_id))
                .order_by(Application.id)
                .limit(1)
            ).one()
            agent, control = next(
                (agent, control) for agent in default().agents.values() for control in agent.controls if (control.reentry_hours or 0) >= 4
            )
            application.started_at = NOW - dt.timedelta(hours=hours_ago + 1)
            application.finished_at = NOW - dt.timedelta(hours=hours_ago)
            treatment.block_id, treatment.agent, treatment.control = made(where), agent.id, control.id
            return session.get_one(Block, (FARM, treatment.block_id)).name, treatment.block_id

    def test_no_job_card_is_put_first_that_leads_into_it(self) -> None:
        page = self.client.get(f"{F}/do").text
        card = page.partition('<section class="dark')[2].partition("</section>")[0]
        self.assertIn("Mill Piece", card)
        self.spray(1, "Mill Piece")
        page = self.client.get(f"{F}/do").text
        self.assertNotIn("Mill Piece", page.partition('<section class="dark')[2].partition("</section>")[0])
        self.assertIn("Closed", page)

    def test_no_card_no_stop_and_no_trap_leads_into_it_until_it_opens(self) -> None:
        before = self.client.get(f"{F}/round").text
        self.assertIn("Go to Long Field", before)
        name, block = self.spray(1)
        page = self.client.get(f"{F}/round").text
        self.assertNotIn(f"Go to {name}", page)
        self.assertIn("Closed", page)
        numbers = len(re.findall(r'text-anchor="middle"[^>]*>\d+</text>', page))
        self.assertEqual(numbers, len(re.findall(r'text-anchor="middle"[^>]*>\d+</text>', before)) - 1)
        answer = self.post(self.client, f"{F}/round/open", self.form() | {"block_id": str(block), "return_id": ""})
        self.assertEqual(answer.headers["Location"], f"{F}/round")
        self.assertIn("Closed", self.client.get(f"{F}/round").text)
        # Whoever stands at no stop yet is offered every block but this one.
        choice = self.enter("applicator").get(f"{F}/look").text
        self.assertIn("Closed", choice)
        self.assertNotIn(f'value="{block}"', choice)
        self.assertIn(f'value="{made("Orchard A")}"', choice)
        self.spray(24 * 30)
        self.assertIn(f"Go to {name}", self.client.get(f"{F}/round").text)
        answer = self.post(self.client, f"{F}/round/open", self.form() | {"block_id": str(block), "return_id": ""})
        self.assertIn("/look/", answer.headers["Location"])

    def test_a_block_is_closed_while_the_work_goes_on(self) -> None:
        with farm_session(FARM) as session:
            treatment = session.scalars(
                of_farm(TreatmentRow).where(TreatmentRow.block_id == made("Mill Piece"), TreatmentRow.state == TreatmentState.PLANNED)
            ).first()
            assert treatment
        card = f"{F}/do/{treatment.id}"
        self.assertIn("Begin now, and close the block", self.client.get(card).text)
        begun = self.form()
        self.assertEqual(self.post(self.client, f"{card}/begin", begun).status_code, 302)
        self.assertIn("is being done here since", self.client.get(f"{F}/round").text)
        self.assertIn("Being done", self.client.get(f"{F}/do").text)
        page = self.client.get(card).text
        self.assertIn("It was not begun", page)
        base = re.search(r'name="base" value="([^"]+)"', page)
        assert base
        self.post(self.client, f"{card}/begin", self.form() | {"record_id": begun["record_id"], "base": base[1], "stopped": "yes"})
        self.assertNotIn("is being done here since", self.client.get(f"{F}/round").text)
        self.assertIn("Begin now, and close the block", self.client.get(card).text)
