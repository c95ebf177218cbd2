"""Markup in every text that anybody can type: on no page does an element of it come alive in the browser."""

import io
import random
import uuid
from string import ascii_lowercase

from sqlalchemy import text

from bootmark.services.base.command import Refused
from bootmark.services.base.fields import Text, rule_of
from bootmark.services.kinds import KINDS
from bootmark.services.weather import files
from bootmark.standins.estate import FARM, NOW, PASSWORD, made
from bootmark.store.session import engine, farm_session
from bootmark.web import create_app
from tests.browser.live import LiveTest
from tests.database import member
from tests.sending import send
from tests.services.lines import application, line
from tests.store.test_releases import walked
from tests.web.test_pages import mail

MARKS = (
    """'"><img src=x class=planted onerror=a()>""",
    "</script></svg><b class=planted>${7*7}{{7*7}}",
)
BESIDE: dict[str, dict[str, object]] = {"decision.make": {"spot_area": 0.01}, "application.record": {"early_minutes": 30}}
"""Numbers without which a text is refused."""
ALIVE = """
return [...document.querySelectorAll(".planted, img[src='x'], [onerror], [onload], [onclick], base, iframe, object, embed")]
  .map((one) => one.outerHTML.slice(0, 120))
"""


class Markup(LiveTest):
    def plant(self) -> int:
        """Every text of a record of every kind, and what stands beside records: names, files, what stations answered."""
        planted = 0
        for mark in MARKS:
            payloads = line()
            for kind, (payload, record) in payloads.items():
                planted += self.plant_in(kind, payload, record, mark)
            done = application(payloads["decision.make"][1])
            planted += self.plant_in("application.record", done, uuid.uuid4(), mark)
            with farm_session(FARM) as session:
                content = f"date,tmin,tmax,{mark}\n2026-05-01,1,9,0\n{mark},1,9,0\n".encode()
                files.receive(session, member("owner"), made("Ridge mast"), f"{mark}.csv", content, NOW)
        with engine("admin").begin() as connection:
            for statement in (
                "UPDATE account SET name = :mark WHERE email <> 'ilva@ferrin.example'",
                "UPDATE farm SET name = :mark",
                "UPDATE station SET last_error = :mark, failures = 3",
                "UPDATE block SET cultivar = :mark",
                "UPDATE sign_in_session SET device = :mark, address = :mark",
            ):
                connection.execute(text(statement), {"mark": MARKS[0]})
        return planted

    def plant_in(self, kind: str, payload: dict[str, object], record: uuid.UUID, mark: str) -> int:
        texts, payload = {}, payload | BESIDE.get(kind, {})
        for name, field in KINDS[kind].command.model_fields.items():
            rule = rule_of(field.annotation, field.metadata)
            if isinstance(rule, Text) and name not in ("url", "token_hash"):
                texts[name] = mark + (f" {''.join(random.choices(ascii_lowercase, k=6))}" if name == "name" else "")
        while True:
            try:
                send(kind, payload | texts, record)
            except Refused as error:
                # What is the name of something that must be there takes no markup.
                refused = texts.keys() & error.errors.keys()
                if not refused:
                    raise
                texts = {name: words for name, words in texts.items() if name not in refused}
            else:
                return len(texts)

    def test_no_element_comes_alive_on_any_page(self) -> None:
        self.assertGreater(self.plant(), 20)
        client = create_app(TESTING=False).test_client()
        page = client.get("/sign-in").get_data(as_text=True)
        token = page.split('name="csrf_token" value="')[1].split('"')[0]
        client.post("/sign-in", data={"email": mail("owner"), "password": PASSWORD, "csrf_token": token})
        walk = list(walked(client))
        self.assertEqual([path for path, answer in walk if answer.status_code >= 500], [], "a page fails at what people wrote")
        paths = [path for path, answer in walk if answer.status_code == 200 and "html" in answer.content_type]
        self.assertGreater(len(paths), 40)
        self.sign_in("owner")
        seen, alive = io.StringIO(), {}
        for path in paths:
            self.chrome.get(self.server.address + path)
            seen.write(str(self.chrome.execute_script("return document.body.innerText")))
            outcome = self.chrome.execute_script(ALIVE)
            if outcome:
                alive[path] = outcome
        self.assertEqual(alive, {})
        # The marks were met, as text.
        for mark in MARKS:
            self.assertIn(mark.split("class=")[0], seen.getvalue())
        self.assertNotIn("49", "".join(part for part in seen.getvalue().split("\n") if "planted" in part))
