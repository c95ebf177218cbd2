"""A form that was sent after the session's end is held, and goes on under the next sign-in; nobody else puts words into it."""

import re
import uuid
from typing import Any

from flask.testing import FlaskClient
from sqlalchemy import func, select, text

from bootmark.standins.estate import FARM, PASSWORD
from bootmark.store.models import Block
from bootmark.store.session import farm_session
from tests.web.test_pages import F, PagesTest, mail


def inputs(page: str) -> dict[str, str]:
    return dict(re.findall(r'<input type="hidden" name="([^"]+)"\s+value="([^"]*)"', page))


class Held(PagesTest):
    def block(self, name: str) -> dict[str, Any]:
        outline = "[[0, 0], [10, 0], [10, 10]]"
        return self.form() | {"name": name, "crop": "Pear", "place": "field", "area": "0.2", "outline": outline, "weather": "station"}

    def end_all(self) -> None:
        with farm_session(None, role="owner") as session:
            session.execute(text("UPDATE sign_in_session SET ended_at = now(), ended_by = 'person' WHERE ended_at IS NULL"))

    def signs_in_over(self, client: FlaskClient, page: str, password: str = PASSWORD) -> Any:
        sealed = inputs(page)["held"]
        form = {"email": mail("owner"), "password": password, "held": sealed}
        return self.post(client, "/sign-in", form, page="/sign-in")

    def count(self, name: str) -> int:
        with farm_session(FARM) as session:
            return int(session.execute(select(func.count()).select_from(Block).where(Block.name == name)).scalar_one())

    def test_what_was_typed_goes_on_under_the_next_sign_in_and_is_stored_once(self) -> None:
        client = self.enter("owner")
        form = self.block("Held Row") | {"csrf_token": self.token(client, f"{F}/farm")}
        self.end_all()
        page = client.post(f"{F}/farm/block", data=form)
        self.assertEqual((page.status_code, "Your session has ended" in page.text), (401, True))
        self.assertEqual(self.count("Held Row"), 0)
        wrong = self.signs_in_over(client, page.text, "not the password")
        self.assertTrue("do not fit" in wrong.text and "held" in inputs(wrong.text))
        going_on = self.signs_in_over(client, page.text)
        self.assertIn("Send it on", going_on.text)
        for _ in range(2):
            self.assertEqual(client.post(f"{F}/farm/block", data=inputs(going_on.text)).status_code, 302)
        self.assertEqual(self.count("Held Row"), 1)

    def test_a_browser_that_was_closed_holds_it_too_but_only_a_page_of_ours_sends_it(self) -> None:
        for origin, wanted in (("http://localhost", 401), ("http://elsewhere.example", 400), ("", 400)):
            client = self.app.test_client()
            headers = {"Origin": origin} if origin else {}
            self.assertEqual(client.post(f"{F}/farm/block", data=self.block("Far Row"), headers=headers).status_code, wanted, origin)

    def test_passwords_are_never_held_and_nothing_forged_is_opened(self) -> None:
        client = self.enter("owner")
        form = {"csrf_token": self.token(client, f"{F}/farm"), "password": "secret words here", "fresh": "other secret words", "kept": "x"}
        self.end_all()
        page = client.post(f"{F}/devices/password", data=form).text
        going_on = self.signs_in_over(client, page)
        self.assertEqual(set(inputs(going_on.text)), {"csrf_token", "kept"})
        forged = inputs(page)["held"][:-4] + "AAAA"
        answer = self.post(client, "/sign-in", {"email": mail("owner"), "password": PASSWORD, "held": forged}, page="/sign-in")
        self.assertEqual(answer.status_code, 302)

    def test_a_tap_after_the_end_says_so_as_json(self) -> None:
        client = self.enter("scout")
        headers = {"X-CSRFToken": self.token(client, f"{F}/farm")}
        self.end_all()
        answer = client.post(f"{F}/look/{uuid.uuid4()}/rank", json={}, headers=headers)
        self.assertEqual((answer.status_code, answer.json), (401, {"error": "signed out"}))
