"""Two versions of one record stand in the book until somebody keeps one of them, or makes one of both."""

import re

from bootmark.services.scouting import stops
from bootmark.standins.estate import FARM
from bootmark.store.models import Look, Stop
from bootmark.store.session import farm_session
from tests.sending import envelope
from tests.web.test_pages import F, PagesTest


class Versions(PagesTest):
    def test_conflicting_versions_stand_in_the_book(self) -> None:
        stop = self.one(Stop)
        head = {"X-CSRFToken": self.token(self.client, f"{F}/farm")}
        record = stops.child(stop.id, "look", "conflict")
        first, second = (envelope("look.record", {"stop_id": str(stop.id), "signs": {"honeydew": "seen"}}, record) for _ in range(2))
        for words in (first, second):
            self.client.post(f"{F}/sync", json={"commands": [words]}, headers=head)
        self.assertIn("side by side", self.client.get(f"{F}/book").get_data(as_text=True))
        page = self.client.get(f"{F}/book/record/{record}").get_data(as_text=True)
        self.assertIn("kept beside it", page)
        self.assertEqual(page.count("Keep this one"), 2)
        form = {**self.form(first["command_id"]), "record_id": str(record), "number": "2"}
        self.assertEqual(self.post(self.enter("viewer"), f"{F}/book/record/{record}/keep", form).status_code, 302)
        self.assertIn("side by side", self.client.get(f"{F}/book").get_data(as_text=True))
        for _ in range(2):
            self.post(self.client, f"{F}/book/record/{record}/keep", form)
        page = self.client.get(f"{F}/book/record/{record}").get_data(as_text=True)
        self.assertIn("3 versions", page)
        self.assertNotIn("Keep this one", page)
        self.assertNotIn("side by side", self.client.get(f"{F}/book").get_data(as_text=True))

    def test_two_versions_are_made_one_field_by_field(self) -> None:
        stop = self.one(Stop)
        head = {"X-CSRFToken": self.token(self.client, f"{F}/farm")}
        record = stops.child(stop.id, "look", "merged")
        each = (({"honeydew": "seen", "stippling": "absent"}, "by the gate"), ({"honeydew": "seen", "curl-up": "seen"}, "by the beck"))
        for signs, note in each:
            words = envelope("look.record", {"stop_id": str(stop.id), "signs": signs, "note": note}, record)
            self.client.post(f"{F}/sync", json={"commands": [words]}, headers=head)
        page = self.client.get(f"{F}/book/record/{record}").text
        section = page.partition('id="merge"')[2].partition("</section>")[0]
        # What both say alike is not asked.
        self.assertEqual(set(re.findall(r'name="(signs\.[a-z-]+|note)"', section)), {"signs.stippling", "signs.curl-up", "note"})
        base = re.search(r'name="base" value="([0-9a-f-]+)"', section)
        assert base
        form = self.form() | {"record_id": str(record), "base": base[1], "signs.stippling": "2", "signs.curl-up": "2", "note": "1"}
        self.assertEqual(self.post(self.client, f"{F}/book/record/{record}/merge", form).status_code, 302)
        with farm_session(FARM) as session:
            look = session.get_one(Look, (FARM, record))
            self.assertEqual((look.signs, look.note, look.conflict), ({"honeydew": "seen", "curl-up": "seen"}, "by the gate", False))
        self.assertNotIn('id="merge"', self.client.get(f"{F}/book/record/{record}").text)
