"""Pickers see on Round, Do and the job card what may not be picked; a season says how good its model was."""

import re
import uuid

from bootmark.standins.estate import FARM, made
from tests.sending import send
from tests.services.lines import application
from tests.services.test_picking import block, called
from tests.web.test_pages import F, PagesTest


class Picking(PagesTest):
    def test_what_was_sprayed_stands_on_round_and_do(self) -> None:
        where = block(harvest_from="2026-08-20")
        card = application(called(where))
        page = self.client.get(f"{F}/do/{card['treatment_id']}").get_data(as_text=True)
        self.assertIn("No picking before", page)
        self.assertIn("next picking", page)
        send("application.record", card, uuid.uuid4())
        for address in ("round", "do"):
            page = self.client.get(f"{F}/{address}").get_data(as_text=True)
            self.assertIn('id="no-picking"', page)
            self.assertIn("No picking before 3 July", page)
        self.assertIn("not before 3 July", self.client.get(f"{F}/farm").get_data(as_text=True))

    def test_the_next_picking_is_told_on_the_block_and_asked_for_of_what_grows_there(self) -> None:
        page = self.client.get(f"{F}/farm/block/{made('Orchard A')}").get_data(as_text=True)
        self.assertIn("next picking", page)
        planting = re.search(r"/farm/planting/[0-9a-f-]+", page)
        assert planting
        self.assertIn("Next picking", self.client.get(f"/f/{FARM}{planting[0]}").get_data(as_text=True))
        self.assertRegex(page, r"Ripe for picking</strong> about \d+ (August|September)")


class Judged(PagesTest):
    season = f"{F}/stages/{made('Orchard A')}/codling-moth"

    def test_past_years_stand_beside_what_was_seen_and_a_person_accepts(self) -> None:
        page = self.client.get(self.season).get_data(as_text=True)
        self.assertIn("How good was it", page)
        self.assertRegex(page, r"\d+ days\s+(early|late)")
        form = {**self.form(), "times": "0.95", "error": "0.04", "years": "2"}
        self.assertEqual(self.post(self.client, f"{self.season}/model", form).status_code, 302)
        page = self.client.get(self.season).get_data(as_text=True)
        self.assertIn("This farm counts 95 %", page)
        form = {**self.form(), "times": "9", "error": "0.04", "years": "2"}
        answer = self.post(self.client, f"{self.season}/model", form)
        self.assertEqual(answer.status_code, 400)
        back = {**self.form(), "times": "1", "error": "0.05", "years": "0"}
        self.assertEqual(self.post(self.client, f"{self.season}/model", back).status_code, 302)

    def test_an_odd_count_is_said_and_an_empty_stage_is_not_nought(self) -> None:
        form = {**self.form(), "counts.pupa": "40", "counts.adult": "", "on": "2026-06-10", "note": ""}
        self.assertEqual(self.post(self.client, f"{self.season}/sighting", form).status_code, 302)
        page = self.client.get(self.season).get_data(as_text=True)
        self.assertIn('id="odd"', page)
        self.assertRegex(page, r"one chance in\s+\d+")
