"""Places that are no blocks stand on the round in a rhythm of their own."""

import re

from bootmark.standins.estate import made
from tests.sending import send
from tests.web.test_pages import F, PagesTest

FRAME = made("plan/incoming")


class Places(PagesTest):
    def listed(self) -> str:
        return self.client.get(f"{F}/round").text.partition('id="places"')[2].partition("</section>")[0]

    def test_a_place_is_due_looked_at_and_comes_back(self) -> None:
        self.assertIn("Cold frame", self.listed())
        self.assertIn("not looked at yet", self.listed())
        where = {"feature_id": str(FRAME)}
        empty = self.post(self.client, f"{F}/round/place", self.form() | where | {"note": ""}, page=f"{F}/round")
        self.assertEqual(empty.status_code, 400)
        self.assertIn("Say what is wrong there", empty.text.partition('id="places"')[2].partition("</section>")[0])
        long = self.post(self.client, f"{F}/round/place", self.form() | where | {"note": "w" * 400}, page=f"{F}/round")
        self.assertIn("w" * 400, long.text, "what was typed stays")
        self.assertIn("Cold frame", self.listed())
        form = self.form() | where | {"note": "", "fine": "yes"}
        for _ in range(2):
            self.assertEqual(self.post(self.client, f"{F}/round/place", form, page=f"{F}/round").status_code, 302)
        self.assertNotIn("Cold frame", self.listed())
        self.assertIn("nothing wrong", self.client.get(f"{F}/farm/plan/{FRAME}").text)
        # A look of long ago brings it back; one that is withdrawn too.
        send("place.check", {"feature_id": str(made("plan/water")), "on": "2026-06-17", "fine": True})
        self.assertNotIn("Mill beck", self.listed())
        record = form["record_id"]
        page = self.client.get(f"{F}/book/record/{record}").text
        base = re.search(r'name="base" value="([0-9a-f-]+)"', page)
        assert base
        away = self.form() | {"record_id": record, "base": base[1], "withdrawn": "yes", "reason": "The wrong frame"}
        self.assertEqual(self.post(self.client, f"{F}/book/record/{record}/withdraw", away).status_code, 302)
        self.assertIn("Cold frame", self.listed())
