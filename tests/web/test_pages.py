"""Pages as each role sees them: what answers, what is refused, and how many questions a page asks the database."""

import datetime as dt
import hashlib
import re
import uuid
from typing import Any

from flask.testing import FlaskClient
from sqlalchemy import event, select, text

from bootmark import VERSION
from bootmark.core.catalogue import default
from bootmark.drawing.stages import stages_of
from bootmark.standins.estate import FARM, NOW, PASSWORD, PEOPLE, made
from bootmark.store.models import Enquiry, Look, Station, TreatmentRow
from bootmark.store.session import engine, farm_session
from bootmark.store.setup import newest
from bootmark.web import create_app
from tests.database import DatabaseTest

F = f"/f/{FARM}"
MOST_QUERIES = {
    "round": 60,
    "look": 25,
    "count": 20,
    "call": 30,
    "stages": 50,
    "timing": 25,
    "do": 20,
    "book": 60,
    "farm": 14,
    "people": 6,
    "you": 6,
    "guide": 12,
    "agent": 60,
    "apart": 8,
    "drawings": 8,
    "finding": 20,
    "enquiries": 12,
    "enquiry": 16,
    "reply": 10,
    "station": 20,
    "season": 40,
    "ribbons": 30,
    "what if": 30,
    "traps": 14,
    "trap": 12,
}


def mail(role: str) -> str:
    return next(email for _, email, held, _ in PEOPLE if held == role)


class PagesTest(DatabaseTest):
    def setUp(self) -> None:
        self.app = create_app(TESTING=False)
        self.client = self.enter("owner")

    def enter(self, role: str) -> FlaskClient:
        client = self.app.test_client()
        self.post(client, "/sign-in", {"email": mail(role), "password": PASSWORD}, page="/sign-in")
        return client

    def token(self, client: FlaskClient, page: str) -> str:
        hit = re.search(r'name="csrf" content="([^"]+)"', client.get(page).get_data(as_text=True))
        assert hit, page
        return hit.group(1)

    def post(self, client: FlaskClient, path: str, form: dict[str, Any], page: str = f"{F}/farm") -> Any:
        return client.post(path, data={**form, "csrf_token": self.token(client, page)}, content_type="multipart/form-data")

    def form(self, base: uuid.UUID | str = "") -> dict[str, Any]:
        return {"command_id": str(uuid.uuid4()), "record_id": str(uuid.uuid4()), "base": str(base)}

    def one(self, model: Any, *where: Any) -> Any:
        with farm_session(FARM) as session:
            return session.scalars(select(model).where(*where).limit(1)).one()


class Answers(PagesTest):
    def paths(self) -> dict[str, str]:
        stop = self.one(Look).stop_id
        treatment = self.one(TreatmentRow, TreatmentRow.state == "planned").id
        station = self.one(Station).id
        return {
            "round": f"{F}/round",
            "look": f"{F}/look/{stop}",
            "count": f"{F}/count/{stop}",
            "call": f"{F}/call/{stop}",
            "stages": f"{F}/stages?show=all",
            "timing": f"{F}/timing",
            "do": f"{F}/do",
            "card": f"{F}/do/{treatment}",
            "book": f"{F}/book",
            "export": f"{F}/book.csv",
            "farm": f"{F}/farm",
            "guide": f"{F}/guide?q=mite",
            "guide by crop": f"{F}/guide?crop=pear",
            "guide by part": f"{F}/guide?crop=pear&part=fruit",
            "guide by sign": f"{F}/guide?crop=pear&sign=stippling",
            "agent": f"{F}/guide/agent/codling-moth",
            "kind": f"{F}/guide/agent/any-aphid",
            "apart": f"{F}/guide/apart?agent=codling-moth&agent=apple-maggot&agent=plum-curculio",
            "drawings": f"{F}/guide/drawings?leaf=palmate&severity=0.9",
            "finding": f"{F}/finding/{self.one(Look).id}",
            "enquiries": f"{F}/enquiry",
            "enquiry": f"{F}/enquiry/{self.one(Enquiry).id}",
            "reply": f"{F}/enquiry/{self.one(Enquiry).id}/reply",
            "station": f"{F}/station/{station}",
            "season": f"{F}/stages/{made('Long Field')}/colorado-potato-beetle",
            "season without a biofix": f"{F}/stages/{made('Orchard A')}/oriental-fruit-moth",
            "ribbons": f"{F}/stages/part?from=0&show=all",
            "what if": f"{F}/stages/{made('Long Field')}/colorado-potato-beetle/what-if?warmer=2&later=-3",
            "traps": f"{F}/traps",
            "trap": f"{F}/traps/{made('trap/Trap 1')}",
            "people": f"{F}/people",
            "you": f"{F}/devices",
            "block": f"{F}/farm/block/{made('Long Field')}",
            "new look": f"{F}/look",
        }

    def test_every_main_page_answers_every_role(self) -> None:
        for role in ("owner", "adviser", "scout", "applicator", "viewer"):
            client = self.enter(role)
            for name, path in self.paths().items():
                self.assertEqual(client.get(path, follow_redirects=True).status_code, 200, f"{name} as {role}")

    def test_what_is_the_owner_s_answers_owners_alone(self) -> None:
        for path in (f"{F}/settings", f"{F}/running", f"{F}/people/{made(mail('scout'))}"):
            self.assertEqual(self.client.get(path).status_code, 200, path)
            for role in ("adviser", "scout", "applicator", "viewer"):
                self.assertEqual(self.enter(role).get(path).status_code, 403, f"{path} as {role}")

    def test_an_owner_sees_how_the_installation_runs(self) -> None:
        page = self.client.get(f"{F}/running").text
        self.assertTrue(f"Bootmark {VERSION}" in page and str(newest()) in page and "Ridge mast" in page)
        self.assertIn("none is running", page)

    def test_how_one_likes_the_screens_is_known_on_every_device(self) -> None:
        self.assertNotIn('class="sun', self.client.get(f"{F}/round").text)
        self.post(self.client, f"{F}/devices/likes", {"likes": ["sun", "left", "unheard-of"]})
        self.assertIn('class="sun left"', self.enter("owner").get(f"{F}/round").text)
        self.assertNotIn('class="sun', self.enter("scout").get(f"{F}/round").text)
        self.post(self.client, f"{F}/devices/likes", {})
        self.assertNotIn('class="sun', self.client.get(f"{F}/round").text)

    def test_scripts_and_styles_have_an_address_of_their_content(self) -> None:
        page = self.client.get(f"{F}/farm").get_data(as_text=True)
        word = re.findall(r'(?:src|href|data-late)="(/static/(?:js/|app)[^"]*)"', page)
        self.assertGreater(len(word), 3)
        for address in word:
            answer = self.client.get(address)
            self.assertEqual(address.partition("?v=")[2], hashlib.sha256(answer.get_data()).hexdigest()[:12], address)
            self.assertGreater(answer.cache_control.max_age or 0, 86_400)
            answer.close()

    def test_modules_stand_beside_those_of_their_own_version_and_are_kept_for_as_long_as_it_lasts(self) -> None:
        page = self.client.get(f"{F}/farm").get_data(as_text=True)
        modules = re.findall(r'"(/scripts/([^/"]+)/([^"]+\.js))"', page)
        self.assertGreater(len(modules), 6)
        self.assertEqual(len({version for _, version, _ in modules}), 1)
        for address, version, name in modules:
            answer, other = self.client.get(address), self.client.get(f"/scripts/en-0123456789ab/{name}")
            self.assertEqual((answer.status_code, answer.cache_control.immutable, other.cache_control.no_store), (200, True, True), version)
            self.assertEqual(answer.get_data(), other.get_data())
            answer.close()
            other.close()
        texts = self.client.get(next(address for address, _, name in modules if name.endswith("texts.js"))).get_data(as_text=True)
        self.assertIn('"waits": {"one": "{count} record waits to be sent", "other": "{count} records wait to be sent"}', texts)
        self.assertEqual(self.client.get("/scripts/en-0/../app.py").status_code, 404)

    def test_headers(self) -> None:
        answer = self.client.get(f"{F}/round")
        policy = answer.headers["Content-Security-Policy"]
        self.assertNotIn("unsafe", policy)
        for part in ("default-src 'none'", "script-src 'self'", "style-src 'self'", "frame-ancestors 'none'"):
            self.assertIn(part, policy)
        self.assertEqual(answer.headers["X-Content-Type-Options"], "nosniff")
        self.assertEqual(answer.headers["Cache-Control"], "no-store")
        cookie = self.app.test_client().get("/sign-in").headers["Set-Cookie"]
        self.assertIn("HttpOnly", cookie)
        self.assertIn("SameSite=Lax", cookie)

    def test_no_page_carries_inline_script_or_style(self) -> None:
        for name, path in self.paths().items():
            page = self.client.get(path, follow_redirects=True).get_data(as_text=True)
            self.assertNotRegex(page, r"<script(?![^>]*(src=|application/json))", name)
            self.assertNotRegex(page, r'\sstyle="|<style|\son[a-z]+="', name)

    def test_query_counts_are_bounded(self) -> None:
        counted: list[str] = []
        event.listen(engine("web"), "before_cursor_execute", lambda *args: counted.append(args[2]))
        for name, path in self.paths().items():
            if name in MOST_QUERIES:
                self.client.get(path)
                counted.clear()
                self.client.get(path)
                self.assertLessEqual(len(counted), MOST_QUERIES[name], name)

    def test_pages_of_another_farm_are_not_there(self) -> None:
        other = uuid.uuid4()
        for path in ("round", "book", "farm", f"look/{uuid.uuid4()}"):
            self.assertEqual(self.client.get(f"/f/{other}/{path}").status_code, 404)
        for path in (f"look/{uuid.uuid4()}", f"do/{uuid.uuid4()}", f"book/record/{uuid.uuid4()}", f"station/{uuid.uuid4()}"):
            answer = self.client.get(f"{F}/{path}")
            self.assertEqual(answer.status_code, 404)
            self.assertIn("There is nothing here", answer.get_data(as_text=True))

    def test_drawings(self) -> None:
        answer = self.client.get("/drawing/sign/stippling.svg")
        self.assertEqual(answer.mimetype, "image/svg+xml")
        self.assertIn("Pale stippling", answer.get_data(as_text=True))
        for path in (
            "sign/nothing.svg",
            "sign/stippling.svg?leaf=tentacle",
            "sign/stippling.svg?severity=2",
            "stage/codling-moth/nymph.svg",
            "stage/nobody/egg.svg",
        ):
            self.assertEqual(self.client.get(f"/drawing/{path}").status_code, 404, path)
        mild, bad = (self.client.get(f"/drawing/sign/chewed-holes.svg?leaf=broad&severity={value}").get_data() for value in (0.1, 1))
        self.assertNotEqual(mild, bad)

    def test_every_sign_and_every_stage_has_its_drawing_at_its_address(self) -> None:
        signs = (f"sign/{sign}.svg" for sign in default().signs)
        drawn = (f"stage/{agent.id}/{stage}.svg" for agent in default().agents.values() for stage in stages_of(agent))
        missing = [path for path in (*signs, *drawn) if self.client.get(f"/drawing/{path}").status_code != 200]
        self.assertEqual(missing, [])
        self.assertIn("Codling moth: larva", self.client.get("/drawing/stage/codling-moth/larva.svg").get_data(as_text=True))

    def test_what_the_guide_does_not_hold(self) -> None:
        for path in ("agent/dragon", "drawings?leaf=tentacle", "drawings?severity=7"):
            self.assertEqual(self.client.get(f"{F}/guide/{path}").status_code, 404, path)
        self.assertIn("Nothing is named like that", self.client.get(f"{F}/guide?q=wyvern").get_data(as_text=True))
        self.assertIn("Choose two or three", self.client.get(f"{F}/guide/apart?agent=dragon").get_data(as_text=True))

    def test_health(self) -> None:
        client = self.app.test_client()
        self.assertEqual([client.get(path).text for path in ("/livez", "/readyz")], ["ok\n"] * 2)
        ill = client.get("/healthz")
        self.assertEqual((ill.status_code, ill.text), (503, "worker: none is running\n"))
        with engine("worker").begin() as connection:
            connection.execute(text("INSERT INTO procrastinate_workers DEFAULT VALUES"))
        self.assertEqual(client.get("/healthz").text, "ok\n")
        with engine("worker").begin() as connection:
            connection.execute(text("UPDATE procrastinate_workers SET last_heartbeat = now() - interval '5 minutes'"))
        self.assertRegex(client.get("/healthz").text, r"worker: not heard of for 30\d s\n")


class SignInPage(PagesTest):
    def test_signed_out_goes_to_sign_in_and_back(self) -> None:
        client = self.app.test_client()
        answer = client.get(f"{F}/book")
        self.assertIn("/sign-in?next=", answer.headers["Location"])
        form = {"email": mail("scout"), "password": PASSWORD, "to": f"{F}/book"}
        self.assertEqual(self.post(client, "/sign-in", form, "/sign-in").headers["Location"], f"{F}/book")

    def test_it_never_leads_off_the_site(self) -> None:
        for target in ("https://elsewhere.example/", "//elsewhere.example", "/\\elsewhere.example"):
            form = {"email": mail("scout"), "password": PASSWORD, "to": target}
            self.assertEqual(self.post(self.app.test_client(), "/sign-in", form, "/sign-in").headers["Location"], "/")

    def test_a_wrong_password_keeps_the_entry(self) -> None:
        client = self.app.test_client()
        answer = self.post(client, "/sign-in", {"email": mail("viewer"), "password": "no"}, "/sign-in")
        self.assertEqual(answer.status_code, 400)
        page = answer.get_data(as_text=True)
        self.assertIn(mail("viewer"), page)
        self.assertIn("do not fit", page)

    def test_a_form_without_its_token_is_refused(self) -> None:
        self.assertEqual(self.client.post(f"{F}/round/open", data={}).status_code, 400)
        self.assertEqual(self.client.post(f"{F}/sync", json={"commands": []}).status_code, 400)


class Units(PagesTest):
    def test_heat_questions_in_fahrenheit_and_nonsense(self) -> None:
        station = self.one(Station, Station.name == "Valley mast").id
        page = self.client.get(f"{F}/station/{station}?unit=F&lower=50&upper=88&sums=250,1000").get_data(as_text=True)
        self.assertIn("250 DD F", page)
        for query, words in (
            ("lower=warm", "is not a number"),
            ("start=02-30", "not a day of the year"),
            ("lower=30&upper=10", "above the lower"),
            ("sums=a", "parted by commas"),
        ):
            self.assertIn(words, self.client.get(f"{F}/station/{station}?{query}").get_data(as_text=True))

    def test_a_new_station(self) -> None:
        form = {"name": "Ridge", "latitude": "46", "longitude": "7", "elevation": "900", "offset_hours": "1", "url": ""}
        answer = self.post(self.client, f"{F}/station", self.form() | form)
        self.assertIn("No readings yet", self.client.get(answer.headers["Location"]).get_data(as_text=True))
        bad = self.post(self.client, f"{F}/station", self.form() | form | {"elevation": "high"})
        self.assertIn("not a number", bad.get_data(as_text=True))

    def test_the_farms_own_hours(self) -> None:
        self.assertEqual(NOW.astimezone(dt.timezone(dt.timedelta(hours=2))).hour, 7)
        self.assertIn("07:40", self.client.get(f"{F}/round").get_data(as_text=True))
