"""Faults that were seen in use, each as the page or the outbox met it."""

import datetime as dt
import json
import subprocess
import sys
import uuid
from typing import Any

from sqlalchemy import select, text

from bootmark.services.kinds import KINDS
from bootmark.services.weather import judging
from bootmark.standins.estate import FARM, NOW, made
from bootmark.store.models import Application, Block, Stop, TreatmentRow
from bootmark.store.session import farm_session
from tests.sending import envelope
from tests.web.test_pages import F, PagesTest

MARKUP = "<a href=x onclick=alert(1)>B&B</a>"


class EveryKind(PagesTest):
    def test_a_fresh_process_that_imports_the_application_knows_every_kind(self) -> None:
        code = "import bootmark.web.app; from bootmark.services.kinds import KINDS; print(len(KINDS), 'stage.sighting' in KINDS)"
        done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True)
        self.assertEqual(done.stdout.split(), [str(len(KINDS)), "True"])


class Leftovers(PagesTest):
    """A refusal without a field of its own is printed by the form."""

    def test_on_every_form(self) -> None:
        nowhere, block, ridge = str(uuid.uuid4()), made("Long Field"), made("Ridge mast")
        judged = {"local_date": "2026-05-20", "verdict": "stands", "record_id": str(judging.record_id(ridge, dt.date(2026, 5, 20)))}
        forms: tuple[tuple[str, dict[str, str], str], ...] = (
            (
                f"{F}/stages/biofix",
                {"block_id": "x", "agent": "codling-moth", "on": "2026-05-01", "basis": "seen"},
                "is not given as an id",
            ),
            (f"{F}/stages/{block}/colorado-potato-beetle/sighting", {"on": "2026-06-17"}, "Nothing was counted"),
            (f"{F}/farm/block/{block}/stage", {"on": "2026-06-17", "code": "60", "node": "3", "counted": "unifoliate"}, "soybeans"),
            (f"{F}/station/{ridge}/judge", judged, "Nothing is flagged"),
            (f"{F}/traps", {"name": "T", "block_id": nowhere, "agent": "codling-moth"}, "This is empty"),
            (f"{F}/farm/block", {"name": "", "outline": "[["}, "This is empty"),
        )
        for address, fields, words in forms:
            answer = self.post(self.client, address, self.form() | fields, page=f"{F}/farm")
            self.assertEqual(answer.status_code, 400, address)
            self.assertIn(words, answer.get_data(as_text=True), address)

    def test_an_old_page_is_told_so(self) -> None:
        for address in (f"{F}/stages/biofix", f"{F}/traps", f"{F}/farm/block"):
            answer = self.post(self.client, address, {"name": "x"}, page=f"{F}/farm")
            self.assertIn("grown old", answer.get_data(as_text=True), address)


class Names(PagesTest):
    def test_markup_in_a_name_comes_out_as_text_everywhere(self) -> None:
        with farm_session(FARM) as session:
            session.execute(text("UPDATE block SET name = name || :markup"), {"markup": MARKUP})
            session.execute(text("UPDATE trap SET name = name || :markup"), {"markup": MARKUP})
            session.execute(text("UPDATE station SET name = name || :markup"), {"markup": MARKUP})
        season = f"stages/{made('Long Field')}/colorado-potato-beetle"
        for path in ("round", "stages?show=all", season, "timing", "do", "book", "farm", "traps", f"station/{made('Valley mast')}"):
            page = self.client.get(f"{F}/{path}").get_data(as_text=True)
            self.assertNotIn("<a href=x", page, path)
            self.assertIn("B&amp;B", page, path)


class TimeOfTheAct(PagesTest):
    """A page's time is that of the press, not that of its load."""

    def test_a_card_opened_before_the_work_is_signed_after_it(self) -> None:
        with farm_session(FARM) as session:
            row = session.scalars(select(TreatmentRow).where(TreatmentRow.state == "planned", TreatmentRow.on <= NOW.date())).first()
            assert row
        card = f"{F}/do/{row.id}"
        signer = self.enter("applicator")
        page = signer.get(card).get_data(as_text=True)
        self.assertNotIn('name="seen_at"', page)
        form = self.form() | {"record_id": page.split('name="record_id" value="')[1].split('"')[0]}
        with farm_session(FARM) as session:
            session.execute(text("UPDATE farm SET clock_at = clock_at + interval '3 hours'"))
        ticks = [part.split('"')[0] for part in page.split('name="checks" value="')[1:]]
        fields: dict[str, Any] = {"started_at": "2026-06-18T08:40", "finished_at": "2026-06-18T09:40", "amount": "2", "amount_unit": "L"}
        answer = self.post(signer, card, form | fields | {"area": "0.1", "checks": [_plain(tick) for tick in ticks]}, page=card)
        self.assertEqual(answer.status_code, 302, answer.get_data(as_text=True)[:3000])
        with farm_session(FARM) as session:
            self.assertEqual(session.scalars(select(Application).where(Application.treatment_id == row.id)).one().seen_at.hour, 8)

    def test_a_round_left_open_overnight_books_its_stop_today(self) -> None:
        self.client.get(f"{F}/round")
        form = self.form() | {"block_id": str(made("Tunnel 1")), "seen_at": "2026-06-17T20:00:00+02:00"}
        with farm_session(FARM) as session:
            session.execute(text("UPDATE farm SET clock_at = '2026-06-20T05:00:00+00:00'"))
        self.assertEqual(self.post(self.client, f"{F}/round/open", form, page=f"{F}/round").status_code, 302)
        with farm_session(FARM) as session:
            stop = session.get_one(Stop, (FARM, uuid.UUID(form["record_id"])))
            self.assertEqual((stop.on.isoformat(), stop.seen_at.day), ("2026-06-20", 20))


def _plain(value: str) -> str:
    return value.replace("&#39;", "'").replace("&amp;", "&")


class Corners(PagesTest):
    """What can't be drawn is refused where it comes in; what was stored before takes no page of others down."""

    def test_odd_outlines_are_refused_in_words(self) -> None:
        head = {"X-CSRFToken": self.token(self.client, f"{F}/farm")}
        block = {"name": "Odd", "crop": "pear", "place": "orchard", "area": 1}
        for outline, words in (
            ([["a", "b"], [1, 2], [3, 4]], "Corner 1"),
            ([[7.1, 46.2], [7.1, 46.2], [7.1, 46.2]], "enclose no ground"),
            ([[7.1, 46.2], [7.102, 46.202], [7.102, 46.2], [7.1, 46.201]], "crosses itself at 46.20"),
            ([[7.1, 46.2], [7.102, 46.2], [7.1, 46.2000001]], "nowhere half a metre wide"),
            ([[7.1, 46.2], [1e12, 0], [0, 9]], "metres of some projection"),
            ([[7.1, 46.2]] * 501, "501 corners"),
            ([[7.1, 46.2], [1, 2], [True, 4]], "Corner 3"),
            ([[7.1, 86], [120, 86], [240, 86]], "beside a pole"),
            ([[179.9, 1], [-179.9, 1], [-179.9, 1.1]], "over the date line"),
            ([[-5, 42], [8, 43], [8, 51], [-5, 48]], "a whole country"),
            ([[46.2, 7.1], [46.2, 7.102], [46.201, 7.102]], "longitude comes first"),
            ([[17.1, 46.2], [17.102, 46.2], [17.102, 46.201]], "another farm"),
            ("here", "three corners"),
            (None, "three corners"),
        ):
            sent = envelope("block.save", block | {"outline": outline})
            answer = self.client.post(f"{F}/sync", json={"commands": [sent]}, headers=head).get_json()["results"][0]
            self.assertEqual(answer["status"], "refused", outline)
            self.assertIn(words, answer["errors"]["outline"])

    def test_numbers_that_are_none_and_texts_that_cannot_be_stored(self) -> None:
        head = {"X-CSRFToken": self.token(self.client, f"{F}/farm"), "Content-Type": "application/json"}
        station = {"name": "Far", "latitude": 1, "longitude": 2, "elevation": 3, "offset_minutes": 60}
        for change in (
            {"latitude": float("nan")},
            {"elevation": float("inf")},
            {"name": "a\0b"},
            {"name": "\ud800"},
            {"latitude": True},
            {"x": 1},
        ):
            body = json.dumps({"commands": [envelope("station.save", station | change)]})
            answer = self.client.post(f"{F}/sync", data=body, headers=head).get_json()["results"][0]
            self.assertEqual(answer["status"], "refused", change)

    def test_a_stored_outline_that_cannot_be_drawn_is_left_out_of_pages_that_list_others(self) -> None:
        with farm_session(FARM) as session:
            block = session.get_one(Block, (FARM, made("Hop yard")))
            block.outline = [["a", "b"], [1, 2], [3, 4]]
        for path in ("round", "farm", "traps", "stages", "timing"):
            answer = self.client.get(f"{F}/{path}")
            self.assertEqual(answer.status_code, 200, path)
        self.assertIn("Hop yard", self.client.get(f"{F}/farm").get_data(as_text=True))
        self.assertEqual(self.client.get(f"{F}/farm/block/{made('Hop yard')}").status_code, 200)
