"""What is sent from pages: stored once, refused beside its field with the entry kept, and never by a role that may not."""

import io

from sqlalchemy import extract

from bootmark.standins.estate import FARM
from bootmark.store.models import Block, Look, TreatmentRow
from bootmark.store.session import farm_session
from tests.sending import envelope, send
from tests.web.test_pages import F, PagesTest


class Writing(PagesTest):
    def test_pressed_twice_it_opens_one_stop(self) -> None:
        form = self.form() | {"block_id": str(self.one(Block).id)}
        first, second = (self.post(self.client, f"{F}/round/open", form) for _ in range(2))
        self.assertEqual(first.headers["Location"], second.headers["Location"])
        self.assertEqual(first.status_code, 302)

    def test_who_comes_second_to_a_block_is_told_who_was_first(self) -> None:
        block = str(self.one(Block, Block.name == "Hop yard").id)
        scout = self.enter("scout")
        first, second = (self.post(scout, f"{F}/round/open", self.form() | {"block_id": block}).headers["Location"] for _ in range(2))
        self.assertNotIn("Kept on this block today already", scout.get(second).text)
        payload = {"stop_id": first.split("/")[-1], "signs": {}, "plants": 10}
        send("look.record", payload, role="scout")
        page = self.client.get(second).text
        self.assertIn("Kept on this block today already", page)
        self.assertIn(f'href="{first}"', page)
        self.assertNotIn("Kept on this block today already", self.client.get(first).text)
        counted = {"agent": "two-spotted-spider-mite", "unit": "leaf", "measure": "mean", "counts": [0] * 10, "enemies": []}
        send("sample.record", {"stop_id": first.split("/")[-1]} | counted, role="scout")
        self.assertIn("(two-spotted spider mite counted)", scout.get(second).text)
        self.assertIn(">You, ", scout.get(second.replace("/look/", "/count/")).text)

    def test_a_viewer_writes_nothing(self) -> None:
        client = self.enter("viewer")
        for path, form in ((f"{F}/round/open", {"block_id": str(self.one(Block).id)}), (f"{F}/stages/biofix", {}), (f"{F}/farm/block", {})):
            answer = self.post(client, path, self.form() | form)
            self.assertIn(answer.status_code, (400, 403), path)
        payload = {"commands": [{**self.form(), "kind": "stop.open", "payload": {"block_id": str(self.one(Block).id)}}]}
        answer = client.post(f"{F}/sync", json=payload, headers={"X-CSRFToken": self.token(client, f"{F}/farm")})
        self.assertEqual(answer.json["results"][0]["status"], "refused")

    def test_a_scout_cannot_sign(self) -> None:
        client = self.enter("scout")
        treatment = self.one(TreatmentRow, TreatmentRow.state == "planned").id
        self.assertNotIn("Sign as", client.get(f"{F}/do/{treatment}").get_data(as_text=True))
        answer = self.post(client, f"{F}/do/{treatment}", self.form())
        self.assertEqual(answer.status_code, 400)
        with farm_session(FARM) as session:
            self.assertEqual(session.get_one(TreatmentRow, (FARM, treatment)).state, "planned")

    def test_a_biofix_ahead_is_refused_beside_its_field_with_the_entry_kept(self) -> None:
        form = self.form() | {
            "block_id": str(self.one(Block, Block.name == "Orchard A").id),
            "agent": "codling-moth",
            "on": "2026-09-01",
            "basis": "my moths",
        }
        answer = self.post(self.client, f"{F}/stages/biofix", form)
        page = answer.get_data(as_text=True)
        self.assertEqual(answer.status_code, 400)
        self.assertIn("still ahead", page)
        self.assertIn("my moths", page)
        self.assertIn('aria-describedby="e-on"', page)

    def test_blocks_are_kept_and_named_once(self) -> None:
        block = {
            "name": "Far Bank",
            "crop": "apple",
            "place": "orchard",
            "cultivar": "",
            "area": "1.5",
            "outline": "[[0,0],[9,0],[9,9]]",
            "station_id": "",
        }
        self.assertEqual(self.post(self.client, f"{F}/farm/block", self.form() | block).status_code, 302)
        answer = self.post(self.client, f"{F}/farm/block", self.form() | block)
        self.assertEqual(answer.status_code, 400)
        self.assertIn("already", answer.get_data(as_text=True))
        self.assertEqual(self.client.get(f"{F}/stages").status_code, 200)

    def test_a_finding_of_another_year_says_its_year_and_one_of_this_year_does_not(self) -> None:
        for year, named in ((2024, True), (2026, False)):
            look = self.one(Look, extract("year", Look.seen_at) == year)
            page = self.client.get(f"{F}/finding/{look.id}").text
            moment = f"{look.seen_at:%-d %B} {year}," if named else f"{look.seen_at:%-d %B},"
            self.assertIn(moment, page)

    def test_ranking_answers_with_its_number_and_stores_nothing(self) -> None:
        stop = self.one(Look).stop_id
        before = len(self.client.get(f"{F}/book.csv").get_data())
        head = {"X-CSRFToken": self.token(self.client, f"{F}/farm")}
        answer = self.client.post(f"{F}/look/{stop}/rank", json={"seq": 7, "signs": {"stippling": "seen"}}, headers=head).json
        self.assertEqual(answer["seq"], 7)
        self.assertEqual(set(answer), {"seq", "causes", "verdict", "looks", "notes", "weather"})
        self.assertEqual(self.client.post(f"{F}/look/{stop}/rank", json={"signs": {"x": "seen"}}, headers=head).status_code, 422)
        whole = self.client.post(f"{F}/look/{stop}/rank", json={"signs": {"stippling": "seen"}, "as": "case"}, headers=head).get_json()
        self.assertLessEqual({"v", "catalogue", "engine", "crop", "causes", "verdict", "next_look", "call", "letter", "notes"}, set(whole))
        self.assertEqual(whole["verdict"]["kind"], answer["verdict"]["kind"])
        self.assertEqual(len(self.client.get(f"{F}/book.csv").get_data()), before)

    def test_the_same_command_with_other_content_is_a_409(self) -> None:
        head = {"X-CSRFToken": self.token(self.client, f"{F}/farm")}
        enveloped = envelope("stop.open", {"block_id": str(self.one(Block).id), "where": "a"})
        self.assertEqual(self.client.post(f"{F}/sync", json={"commands": [enveloped]}, headers=head).json["results"][0]["status"], "stored")
        changed = {**enveloped, "payload": {**enveloped["payload"], "where": "b"}}
        self.assertEqual(self.client.post(f"{F}/sync", json={"commands": [changed]}, headers=head).status_code, 409)
        self.assertEqual(self.client.post(f"{F}/sync", json={"commands": "x"}, headers=head).status_code, 422)

    def test_a_photograph_that_is_none_is_refused_with_the_reason(self) -> None:
        stop = self.one(Look).stop_id
        form = {"photo": (io.BytesIO(b"no"), "x.jpg")}
        answer = self.post(self.client, f"{F}/look/{stop}/photo", form)
        self.assertIn("not a picture", self.client.get(answer.headers["Location"]).get_data(as_text=True))

    def test_a_photograph_of_fifty_megabytes_is_refused_with_the_reason(self) -> None:
        stop = self.one(Look).stop_id
        form = {"photo": (io.BytesIO(b"0" * 50_000_000), "x.jpg")}
        answer = self.post(self.client, f"{F}/look/{stop}/photo", form)
        self.assertEqual(answer.status_code, 413)
        self.assertRegex(answer.get_data(as_text=True), r"\d+ MB")
        self.assertIn("too large", answer.get_data(as_text=True).lower())

    def test_an_enquiry_from_the_form_to_the_bench(self) -> None:
        fields = {
            **self.form(),
            "sender": "Somebody",
            "came_as": "message",
            "crop": "",
            "family": "",
            "place": "bed",
            "words": "Kept words",
        }
        refused = self.post(self.client, f"{F}/enquiry", fields)
        self.assertEqual(refused.status_code, 400)
        self.assertIn("Kept words", refused.get_data(as_text=True))
        kept = self.post(self.client, f"{F}/enquiry", {**fields, "crop": "Rose"})
        self.assertEqual(kept.status_code, 302)
        bench = kept.headers["Location"]
        head = {"X-CSRFToken": self.token(self.client, f"{F}/farm")}
        ranked = self.client.post(f"{bench}/rank", json={"seq": 3, "signs": {"stippling": "seen"}}, headers=head).get_json()
        self.assertEqual(ranked["seq"], 3)
        self.assertIn("Thank you", ranked["ask"])
        self.assertEqual(self.client.post(f"{bench}/rank", json={"signs": {"nonsense": "seen"}}, headers=head).status_code, 422)
        viewer = self.enter("viewer")
        self.assertNotIn("To the bench", viewer.get(f"{F}/enquiry").get_data(as_text=True))
