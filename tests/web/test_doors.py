"""Every route of the application from outside: a stranger, a member of another farm, a viewer. A new route without a row here fails."""

import uuid

from flask.testing import FlaskClient
from sqlalchemy import text
from werkzeug.routing import Rule

from bootmark.services.base.roles import DESK, KEEPERS, SCOUTS, SIGNERS, Role
from bootmark.standins.estate import FARM, made
from bootmark.store.models import Enquiry, Look, Trap, TreatmentRow
from bootmark.store.session import farm_session
from tests.web.test_pages import PagesTest

OPEN_POSTS = {"sign_in.enter", "begin.enter", "join.enter", "join.reset", "join.ask_for_reset"}
"""Posts of whoever is not signed in: a password, a code or a link says who it is."""
ANYBODY = OPEN_POSTS | {
    "begin.page", "join.page", "join.reset_page", "join.forgotten", "trust.page", "trust.authority",
    "static", "health.live", "health.ready", "health.healthz", "sign_in.page", "sign_in.start", "script.module", "drawing.plant_picture", "drawing.eaten_leaf", "drawing.sign", "drawing.stage",
}  # fmt: skip
ACCOUNTS = {"sign_in.out", "sign_in.again", "devices.end", "devices.password", "devices.preferences", "people.leave"}
"""Posts about one's own account and membership, for everybody who has one."""
KEY_HOLDERS = {"push.receive"}
READERS = {
    "again.page",     "book.compare", "book.export", "book.page", "book.record", "call.newest", "call.page", "condition.page", "count.newest", "count.page", "devices.page",
    "devices.mine", "do.card", "do.page", "droplets.page", "measure.page", "people.page", "people.terms", "running.page", "settings.page", "sign_in.farms",
    "enquiry.answer", "enquiry.bench", "feature.edit", "feature.new", "enquiry.page", "farm.block", "farm.new_block", "farm.page", "guide.agent", "guide.apart",
    "guide.drawings", "guide.page", "look.finding", "parts.page", "picture.page", "picture.show", "planting.edit", "planting.new", "outlines.export", "outlines.page", "look.newest", "look.page", "photo.picture", "photo.measured", "round.page", "season.page", "season.what_if",
    "stages.page", "stages.part", "stages.progress", "station.file", "station.file_progress", "station.edit", "station.new", "station.page", "station.refused", "threshold.page", "timing.page",
    "trap.new", "trap.edit", "trap.page",
}  # fmt: skip
RECKONERS = {"look.rank", "enquiry.rank", "count.read"}
"""Posts that store nothing, for every member."""
WRITERS: dict[str, frozenset[Role]] = {
    "book.correct": SCOUTS,
    "book.keep": SCOUTS,
    "book.merge": SCOUTS,
    "book.withdraw": SCOUTS,
    "call.answer": SCOUTS,
    "call.make": SCOUTS,
    "call.opinion": SCOUTS,
    "condition.keep": SCOUTS,
    "condition.picture": SCOUTS,
    "do.begin": SIGNERS,
    "look.place": SCOUTS,
    "round.place": SCOUTS,
    "round.task": SCOUTS,
    "clock.step": SCOUTS,
    "devices.sign_out_member": frozenset({Role.OWNER}),
    "do.sign": SIGNERS,
    "people.invite": frozenset({Role.OWNER}),
    "people.reset": frozenset({Role.OWNER}),
    "people.save": frozenset({Role.OWNER}),
    "people.withdraw": frozenset({Role.OWNER}),
    "settings.save": frozenset({Role.OWNER}),
    "outlines.keep": KEEPERS,
    "outlines.read": KEEPERS,
    "parts.divide": KEEPERS,
    "parts.join": KEEPERS,
    "photo.receive": SCOUTS,
    "picture.receive": KEEPERS,
    "picture.save": KEEPERS,
    "planting.save": KEEPERS,
    "enquiry.photo": DESK,
    "enquiry.save": DESK,
    "farm.crop_stage": SCOUTS,
    "feature.save": KEEPERS,
    "farm.save_block": KEEPERS,
    "look.photo": SCOUTS,
    "round.open_stop": SCOUTS,
    "season.accept": KEEPERS,
    "season.sighting": SCOUTS,
    "stages.set_biofix": SCOUTS,
    "station.give_key": KEEPERS,
    "station.import_file": KEEPERS,
    "station.judge": KEEPERS,
    "station.receive": KEEPERS,
    "station.save": KEEPERS,
    "sync.receive": SCOUTS,
    "threshold.save": KEEPERS,
    "trap.check": SCOUTS,
    "trap.save": SCOUTS,
}


class Doors(PagesTest):
    def rules(self) -> list[Rule]:
        return sorted(self.app.url_map.iter_rules(), key=lambda rule: rule.endpoint)

    def address(self, rule: Rule, farm: uuid.UUID = FARM) -> str:
        values = {
            "farm": farm,
            "block": made("Orchard A"),
            "station": made("Ridge mast"),
            "agent": "codling-moth",
            "stop": self.one(Look).stop_id,
            "look": self.one(Look).id,
            "treatment": self.one(TreatmentRow).id,
            "trap": self.one(Trap).id,
            "enquiry": self.one(Enquiry).id,
            "record": self.one(Look).id,
            "sign": "stippling",
            "percent": 35,
            "stage": "egg",
            "filename": "app.css",
        }
        given = {name: values.get(name, uuid.uuid4()) for name in rule.arguments}
        with self.app.test_request_context():
            return self.app.url_map.bind("localhost").build(rule.endpoint, given)

    def method(self, rule: Rule) -> str:
        return "POST" if "POST" in (rule.methods or ()) else "GET"

    def ask(self, client: FlaskClient, rule: Rule, farm: uuid.UUID = FARM, token: str = "") -> int:
        form = {name: str(uuid.uuid4()) for name in ("command_id", "record_id")} | {"csrf_token": token}
        words = {"data": form} if self.method(rule) == "POST" else {}
        with client.open(self.address(rule, farm), method=self.method(rule), headers={"X-CSRFToken": token}, **words) as answer:
            return answer.status_code

    def writes(self) -> int:
        with farm_session(FARM) as session:
            # Forecasts are made anew by whoever comes first: they are nobody's record.
            counted = text("SELECT coalesce(sum(writes), 0) FROM farm_change WHERE topic <> 'results'")
            return int(session.execute(counted).scalar_one())

    def test_every_route_has_its_row(self) -> None:
        rows = [*ANYBODY, *ACCOUNTS, *KEY_HOLDERS, *READERS, *RECKONERS, *WRITERS]
        self.assertEqual(sorted(rows), sorted({rule.endpoint for rule in self.rules()}))
        posts = {rule.endpoint for rule in self.rules() if self.method(rule) == "POST"}
        self.assertEqual(posts - set(WRITERS) - RECKONERS - ACCOUNTS - KEY_HOLDERS, OPEN_POSTS)

    def test_a_stranger_comes_into_none_of_a_farm(self) -> None:
        stranger = self.app.test_client()
        page = stranger.get("/sign-in").get_data(as_text=True)
        token = page.split('name="csrf_token" value="')[1].split('"')[0]
        before = self.writes()
        for rule in self.rules():
            status = self.ask(stranger, rule, token=token)
            if rule.endpoint not in ANYBODY:
                self.assertIn(status, (302, 401), rule.endpoint)
            else:
                # No worker runs beside these tests, and the health of all says so.
                self.assertTrue(status < 500 or rule.endpoint == "health.healthz", rule.endpoint)
        self.assertEqual(self.writes(), before)

    def test_a_member_of_one_farm_finds_nothing_of_another(self) -> None:
        token = self.token(self.client, f"/f/{FARM}/farm")
        for rule in self.rules():
            if "farm" in rule.arguments and rule.endpoint not in KEY_HOLDERS:
                self.assertEqual(self.ask(self.client, rule, uuid.uuid4(), token), 404, rule.endpoint)

    def test_a_viewer_reads_everything_and_writes_nothing(self) -> None:
        viewer = self.enter("viewer")
        token = self.token(viewer, f"/f/{FARM}/farm")
        before = self.writes()
        for rule in self.rules():
            if rule.endpoint in READERS:
                self.assertLess(self.ask(viewer, rule), 500, rule.endpoint)
            elif rule.endpoint in WRITERS:
                self.assertNotIn(Role.VIEWER, WRITERS[rule.endpoint])
                self.assertIn(self.ask(viewer, rule, token=token), (302, 400, 403, 404, 422), rule.endpoint)
        self.assertEqual(self.writes(), before)

    def test_a_viewer_s_pages_offer_no_form_but_those_of_leaving(self) -> None:
        viewer = self.enter("viewer")
        offered: dict[str, list[str]] = {}
        for rule in self.rules():
            if rule.endpoint in READERS:
                page = viewer.get(self.address(rule)).get_data(as_text=True)
                targets = {part.split('action="')[1].split('"')[0] for part in page.split('<form method="post"')[1:]} - {"/sign-out"}
                own = (f"/f/{FARM}/devices/", f"/f/{FARM}/people/leave")
                targets = {target for target in targets if not target.startswith(own)}
                if targets:
                    offered[rule.endpoint] = sorted(targets)
        self.assertEqual(offered, {})
