"""What waits on a phone besides looks and counts: photographs, jobs done and not signed; and what signing out leaves there."""

import json
import tempfile
from pathlib import Path

from PIL import Image
from selenium.webdriver.common.by import By
from sqlalchemy import select, text

from bootmark.standins.estate import FARM, PASSWORD, made
from bootmark.store.models import Application, Photo, TreatmentRow
from bootmark.store.session import engine, farm_session
from tests.browser import driver
from tests.browser.live import LiveTest, pause_until
from tests.web.test_pages import mail

NAMES = "const done = arguments[0]; indexedDB.databases().then((all) => done(all.map((one) => one.name)))"


class Waiting(LiveTest):
    # The browser itself reports the connections that these tests cut, and the password that is wrong on purpose.
    allowed_noise = ("ERR_INTERNET_DISCONNECTED", "ERR_CONNECTION_RESET", "400 (BAD REQUEST)")

    def tearDown(self) -> None:
        self.cut(False)
        super().tearDown()

    def cut(self, offline: bool) -> None:
        self.chrome.execute_cdp_cmd("Network.enable", {})
        words = {"offline": offline, "latency": 0, "downloadThroughput": -1, "uploadThroughput": -1}
        self.chrome.execute_cdp_cmd("Network.emulateNetworkConditions", words)

    def photos(self) -> list[Photo]:
        stop = self.chrome.current_url.rsplit("/", 1)[1]
        with farm_session(FARM) as session:
            return list(session.scalars(select(Photo).where(Photo.stop_id == stop)))

    def test_a_photograph_without_signal_waits_and_is_stored_once(self) -> None:
        self.sign_in("scout")
        self.open_stop("Hop yard")
        with tempfile.TemporaryDirectory() as folder:
            file = Path(folder) / "leaf.png"
            Image.effect_noise((3000, 1500), 60).save(file)
            self.cut(True)
            for waiting in ("1 record waits to be sent", "2 records wait to be sent"):
                self.chrome.find_element(By.ID, "photo").send_keys(str(file))
                self.press("Add it")
                self.sees("Kept on this device. It is sent as soon as there is signal.")
                self.sees(waiting)
        self.assertEqual(self.photos(), [])
        self.cut(False)
        self.chrome.refresh()
        self.assertTrue(pause_until(lambda: len(self.photos()) == 1))
        driver.until(self.chrome, lambda c: "to be sent" not in c.find_element(By.TAG_NAME, "body").text, "it still waits")
        # The same bytes twice are one photograph, and it came smaller than it was.
        kept = self.photos()
        self.assertEqual([(photo.width, photo.height) for photo in kept], [(1600, 800)])
        driver.find(self.chrome, f"img[src*='{kept[0].id}']")

    def test_a_photograph_that_comes_too_fast_or_while_the_database_is_away_goes_later_and_is_not_set_aside(self) -> None:
        self.sign_in("scout")
        self.open_stop("Hop yard")
        self.module(
            "lib/outbox.js",
            "window.real = window.fetch; window.tries = 0;"
            "window.fetch = async (...a) => String(a[0]).endsWith('/photo') && window.tries++ < 6"
            "  ? new Response('', {status: window.tries % 2 ? 429 : 503}) : real(...a);"
            "const canvas = document.createElement('canvas'); canvas.width = canvas.height = 40;"
            "const blob = await new Promise((told) => canvas.toBlob(told));"
            "await it.addPhoto({to: 'stop', of: given[0], blob});",
            self.chrome.current_url.rsplit("/", 1)[1],
        )
        self.sees("1 record waits to be sent")
        for _ in range(6):
            self.module("lib/outbox.js", "await it.send()")
        self.assertTrue(pause_until(lambda: len(self.photos()) == 1))
        self.assertNotIn("set aside", self.chrome.find_element(By.TAG_NAME, "body").text)

    def test_a_job_done_without_signal_is_done_not_signed_and_signed_on_return(self) -> None:
        self.sign_in("applicator")
        with farm_session(FARM) as session:
            treatment = session.scalars(select(TreatmentRow.id).where(TreatmentRow.state == "planned")).first()
        self.go(f"do/{treatment}")
        for tick in self.chrome.find_elements(By.NAME, "checks"):
            tick.click()
        self.chrome.find_element(By.NAME, "amount").send_keys("2,5")
        self.cut(True)
        self.press("Sign as Senna Vost")
        self.sees("Done, not signed: kept on this device with its details.")
        with engine("owner").begin() as connection:
            change = text("UPDATE sign_in_session SET asked_at = asked_at - interval '2 hours' WHERE account_id = :id")
            connection.execute(change, {"id": made(mail("applicator"))})
        self.cut(False)
        self.go("round")
        self.sees("done and not signed.")
        self.assertEqual(self.signed(treatment), [])
        for password, answer in (("not mine", "That is not your password"), (PASSWORD, "")):
            self.chrome.find_element(By.ID, "sign-again").send_keys(password)
            driver.find(self.chrome, "form.note.warn button").click()
            if answer:
                self.sees(answer)
        self.assertTrue(pause_until(lambda: self.signed(treatment) == [2.5]))
        driver.until(self.chrome, lambda c: "not signed" not in c.find_element(By.TAG_NAME, "body").text, "it is still shown")

    def signed(self, treatment: object) -> list[float]:
        with farm_session(FARM) as session:
            return list(session.scalars(select(Application.amount).where(Application.treatment_id == treatment)))

    def sign_out(self) -> None:
        driver.find(self.chrome, ".datechip summary").click()
        self.press("Sign out")

    def test_signing_out_asks_where_something_waits_and_leaves_nothing_where_nothing_does(self) -> None:
        self.sign_in("scout")
        self.open_stop("Birch bed")
        self.tap("skeletons")
        self.sees("Only the veins left.")
        self.cut(True)
        self.press("Keep this look")
        self.sees("1 record waits to be sent")
        self.sign_out()
        self.sees("1 record waits here and would stay until you sign in again.")
        self.cut(False)
        self.module("lib/outbox.js", "it.send()")
        driver.until(self.chrome, lambda c: "to be sent" not in c.find_element(By.TAG_NAME, "body").text, "it still waits")
        self.go("round")
        self.sign_out()
        driver.find(self.chrome, "input[name=password]")
        self.assertEqual(self.chrome.execute_async_script(NAMES), [])

    def test_a_refused_record_can_be_saved_as_a_file(self) -> None:
        self.sign_in("scout")
        self.go("round")
        self.module(
            "lib/outbox.js",
            "await it.add({kind: 'look.record', v: 1, title: 'Look at a field', record_id: crypto.randomUUID(), base: null, payload: {odd: 1}});"
            "window.saved = ''; const make = URL.createObjectURL; URL.createObjectURL = (blob) => { blob.text().then((t) => window.saved = t); return make(blob); }",
        )
        self.press("Save it as a file")
        kept = driver.until(self.chrome, lambda c: c.execute_script("return window.saved"), "nothing was saved")
        self.assertEqual(json.loads(str(kept))["payload"], {"odd": 1})
        self.press("Throw this one away")
