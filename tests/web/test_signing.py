"""Calls as pages: overruled with a reason, proposed, signed; opinions; what waits; the stand itself; several farms on a day."""

import io
import random
import re
import uuid

from PIL import Image

from bootmark.services.owning import founding
from bootmark.services.owning.founding import Beginning
from bootmark.standins.estate import FARM
from bootmark.store.models import DecisionRow, Farm
from bootmark.store.session import farm_session
from tests.outside.photographed import Shot, eaten_leaf, leaf_picture
from tests.sending import send
from tests.services.lines import line
from tests.web.test_pages import F, PagesTest, mail

FEW = {"counts": [0, 1] * 20, "enemies": [0] * 40}
WHY = "The customer takes none of it with webs."


class Calls(PagesTest):
    def counted(self, **sample: object) -> tuple[str, dict[str, str]]:
        """A stop with a look and a count, kept: its page, and the form of a call on it."""
        payloads = line()
        for kind in ("stop.open", "look.record"):
            send(kind, *payloads[kind])
        count, record = payloads["sample.record"]
        send("sample.record", count | sample, record)
        form = {"look_id": payloads["decision.make"][0]["look_id"], "agent": "two-spotted-spider-mite"}
        return f"{F}/call/{payloads['stop.open'][1]}", form

    def made(self, page: str) -> DecisionRow:
        hit = re.search(r'name="record_id" value="([^"]+)"', self.client.get(page).text)
        assert hit
        return self.one(DecisionRow, DecisionRow.id == uuid.UUID(hit[1]))

    def filled(self, page: str, **more: str) -> dict[str, str]:
        """The call's own form as the page has it."""
        html = self.client.get(page).text
        names = ("command_id", "record_id", "base")
        hits = {name: re.search(rf'name="{name}" value="([^"]*)"', html) for name in names}
        return {name: hit[1] for name, hit in hits.items() if hit} | more

    def test_why_is_asked_for_and_what_was_chosen_stays(self) -> None:
        page, form = self.counted(**FEW)
        self.assertIn("Call it", self.client.get(page).text)
        chosen = self.filled(page, **form, control="insecticidal-soap")
        answer = self.post(self.client, page, chosen)
        self.assertEqual(answer.status_code, 400)
        self.assertIn("Say in a few words why", answer.text)
        self.assertRegex(answer.text, r'value="insecticidal-soap"[^>]*checked')
        self.assertEqual(self.post(self.client, page, chosen | {"why": WHY}).status_code, 302)
        self.assertIn(WHY, self.client.get(page).text)
        self.assertEqual(self.made(page).control, "insecticidal-soap")

    def test_a_scout_proposes_the_owner_reads_it_in_the_book_and_signs(self) -> None:
        with farm_session(FARM) as session:
            session.get_one(Farm, FARM).calls_signed = True
        page, form = self.counted()
        scout, owner = self.enter("scout"), self.client
        self.assertIn("Propose this call", scout.get(page).text)
        self.post(scout, page, self.filled(page, **form, control="insecticidal-soap"))
        self.assertIn("waits for an adviser or the owner", scout.get(page).text)
        self.assertIn("To be signed", owner.get(f"{F}/book").text)
        self.assertRegex(owner.get(f"{F}/round").text, "calls? waits? for your word")
        self.assertNotIn("To be signed", scout.get(f"{F}/book").text)
        self.assertIn("Sign this call", owner.get(page).text)
        self.post(owner, page, self.filled(page, **form, control="insecticidal-soap"))
        self.assertEqual(self.made(page).state, "called")
        self.assertNotIn("To be signed", owner.get(f"{F}/book").text)
        with farm_session(FARM) as session:
            session.get_one(Farm, FARM).calls_signed = False

    def test_an_opinion_is_asked_on_the_page_and_answered_there(self) -> None:
        page, form = self.counted()
        self.post(self.client, page, self.filled(page, **form, control="insecticidal-soap"))
        call = self.made(page)
        about = {"agent": form["agent"], "decision_id": str(call.id), "decision_version": str(call.version)}
        empty = self.post(self.client, f"{page}/opinion", self.form() | about | {"stance": "asks", "words": ""})
        self.assertEqual(empty.status_code, 400)
        self.assertIn("This is empty", empty.text)
        self.post(self.client, f"{page}/opinion", self.form() | about | {"stance": "asks", "asked_of": "", "words": "Too early?"})
        adviser = self.enter("adviser")
        self.assertIn("Too early?", adviser.get(f"{F}/book").text)
        self.post(adviser, f"{page}/opinion", self.form() | about | {"stance": "disagrees", "words": "Wait for the hatch."})
        self.assertIn("Wait for the hatch.", self.client.get(page).text)
        self.assertNotIn("Too early?", adviser.get(f"{F}/book?kind=look").text)

    def test_stalks_fruit_and_leaves_are_kept_and_odd_numbers_told(self) -> None:
        page, form = self.counted()
        where = page.replace("/call/", "/condition/")
        agent = {"agent": form["agent"]}
        for bad, said in (
            ({"condition": "stalks", "stalks_of": "20", "stalks_bad": "21"}, "more than the 20"),
            ({"condition": "stalks", "stalks_of": "", "stalks_bad": ""}, "How many were there"),
            ({"condition": "fruit", "fruit_of": "ten"}, "whole number"),
            ({"condition": "leaves"}, "Nothing was counted yet"),
        ):
            answer = self.post(self.client, where, self.form() | agent | bad)
            self.assertEqual((answer.status_code, said in answer.text), (400, True), bad)
        self.post(self.client, where, self.form() | agent | {"condition": "leaves", "leaf_20": "3", "leaf_50": "1"})
        self.assertIn("Leaf lost: 28 %", self.client.get(where).text)
        self.assertEqual(self.client.get("/drawing/eaten/35.svg?leaf=lobed").status_code, 200)
        self.assertEqual(self.client.get("/drawing/eaten/36.svg").status_code, 404)

    def test_a_picture_of_a_leaf_is_measured_put_right_and_kept(self) -> None:
        page, form = self.counted()
        where = page.replace("/call/", "/condition/")
        rng = random.Random("a leaf on paper")
        drawn = eaten_leaf(rng, 0.3)
        sent = io.BytesIO()
        Image.fromarray(leaf_picture(rng, drawn, Shot())).save(sent, "JPEG")
        self.assertEqual(self.post(self.client, f"{where}/picture", {}).status_code, 400)
        answer = self.post(self.client, f"{where}/picture", {"photo": (io.BytesIO(sent.getvalue()), "leaf.jpg")})
        measured = self.client.get(answer.headers["Location"]).text
        told = re.search(r'name="measured_1" type="text" value="(\d+)"', measured)
        assert told
        self.assertAlmostEqual(int(told[1]), 100 * drawn.truth.lost, delta=3)
        photo = re.search(r'name="photo_id"\s+value="([^"]+)"', measured)
        assert photo
        self.assertEqual(self.client.get(f"{F}/photo/{photo[1]}/measured.jpg").mimetype, "image/jpeg")
        kept = {"agent": form["agent"], "condition": "leaves", "photo_id": photo[1]}
        self.assertEqual(self.post(self.client, where, self.form() | kept | {"measured_1": "130"}).status_code, 400)
        self.post(self.client, where, self.form() | kept | {"measured_1": "27"})
        self.assertIn("Leaf lost: 27 %", self.client.get(where).text)
        dark = io.BytesIO()
        Image.new("RGB", (800, 600), (9, 9, 9)).save(dark, "JPEG")
        answer = self.post(self.client, f"{where}/picture", {"photo": (io.BytesIO(dark.getvalue()), "dark.jpg")})
        self.assertIn("Too dark to measure", self.client.get(answer.headers["Location"]).text)


class Farms(PagesTest):
    def test_several_farms_stand_in_one_list_with_what_presses_there(self) -> None:
        other = uuid.uuid4()
        with farm_session(other, role="owner") as session:
            founding.begin(session, other, Beginning("Lower Holt", (46.3, 7.2), "Europe/Zurich", "Ilva", mail("owner")), lambda: "")
        page = self.enter("owner").get("/farms").text
        self.assertIn("Today on your farms", page)
        self.assertLess(page.index("Lower Holt"), page.index("Ferrin Vale"), "a clean farm comes before one with mites")
        self.assertIn("clean boots, hands and tools from farm to farm", page)
        self.assertIn("Nothing calls you out", page)
