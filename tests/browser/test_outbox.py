"""Field entry without signal: reload, lost connection, ended session, killed server; nothing lost, nothing twice."""

import datetime as dt
import uuid
from typing import Any

from selenium.webdriver.common.by import By
from sqlalchemy import func, select, text

from bootmark.standins.estate import FARM, NOW, made
from bootmark.store.models import Look
from bootmark.store.session import farm_session
from bootmark.store.versions import VERSIONS
from tests.browser import driver
from tests.browser.live import LiveTest, pause_until
from tests.web.test_pages import mail

IN_SIGHT = "const at = document.querySelector('.next > .note').getBoundingClientRect(); return at.top >= 0 && at.bottom < innerHeight"


class Outbox(LiveTest):
    # The browser itself reports the connections that these tests cut.
    allowed_noise = (
        "ERR_INTERNET_DISCONNECTED",
        "ERR_CONNECTION_REFUSED",
        "ERR_CONNECTION_RESET",
        "401",
        "400 (BAD REQUEST)",
        "ERR_EMPTY_RESPONSE",
        "ERR_ABORTED",
        "favicon.ico",
    )

    def setUp(self) -> None:
        super().setUp()
        self.cut(False)
        self.sign_in("scout")
        self.open_stop("Long Field")
        self.stop = self.chrome.current_url.rsplit("/", 1)[1]

    def cut(self, offline: bool) -> None:
        self.chrome.execute_cdp_cmd("Network.enable", {})
        words = {"offline": offline, "latency": 0, "downloadThroughput": -1, "uploadThroughput": -1}
        self.chrome.execute_cdp_cmd("Network.emulateNetworkConditions", words)

    def versions(self) -> int:
        table = VERSIONS[Look]
        with farm_session(FARM) as session:
            looks = session.scalars(select(Look.id).where(Look.stop_id == self.stop)).all()
            return session.execute(select(func.count()).select_from(table).where(table.c.record_id.in_(looks))).scalar_one()

    def signs(self) -> dict[str, Any]:
        with farm_session(FARM) as session:
            look = session.scalars(select(Look).where(Look.stop_id == self.stop)).one_or_none()
            return dict(look.signs) if look else {}

    def test_taps_survive_a_reload(self) -> None:
        self.tap("chewed-holes")
        self.tap("curl-up", 2)
        self.sees("Not there: leaves curl up.")
        self.chrome.refresh()
        self.sees("Chewed holes. Not there: leaves curl up.")
        self.assertEqual(self.versions(), 0)

    def test_a_lost_connection(self) -> None:
        self.cut(True)
        self.tap("chewed-holes")
        self.sees("No signal: your taps are kept")
        self.press("Keep this look")
        self.sees("Kept on this device")
        self.sees("1 record waits to be sent")
        self.cut(False)
        self.assertTrue(pause_until(lambda: self.versions() == 1), "the record was not sent when the connection came back")
        self.assertEqual(self.signs(), {"chewed-holes": "seen"})
        self.sees("Back to the round")

    def test_a_record_kept_without_signal_survives_a_reload(self) -> None:
        self.cut(True)
        self.tap("curl-up")
        self.press("Keep this look")
        self.sees("1 record waits to be sent")
        self.cut(False)
        self.chrome.refresh()
        self.assertTrue(pause_until(lambda: self.versions() == 1))
        self.chrome.refresh()
        driver.find(self.chrome, ".bench")
        self.assertEqual((self.versions(), self.signs()), (1, {"curl-up": "seen"}))

    def test_an_answer_lost_on_the_way_back_is_not_stored_twice(self) -> None:
        # The first answer never arrives, as when the signal fails between sending and hearing.
        self.chrome.execute_script(
            "const real = window.fetch; let first = true;"
            "window.fetch = async (...a) => { const r = await real(...a); if (String(a[0]).endsWith('/sync') && first) { first = false; throw new Error('lost'); } return r; };"
        )
        self.tap("chewed-holes")
        self.press("Keep this look")
        self.sees("1 record waits to be sent")
        self.module("lib/outbox.js", "it.send()")
        self.sees("Back to the round")
        self.assertEqual(self.versions(), 1)

    def test_an_ended_session(self) -> None:
        self.tap("chewed-holes")
        self.sees("Chewed holes.")
        # An answer still on its way would bring the session back.
        driver.until(self.chrome, lambda c: c.find_element(By.ID, "suspects").get_attribute("aria-busy") != "true", "it is still ranking")
        self.chrome.delete_all_cookies()
        self.press("Keep this look")
        self.sees("Kept on this device: sign in again to send it")
        self.assertEqual(self.versions(), 0)
        # Somebody else on the same phone does not send it.
        self.sign_in("adviser")
        self.go("round")
        self.sees("Today's round")
        self.assertEqual(self.versions(), 0)
        self.sign_in("scout")
        self.go("round")
        self.assertTrue(pause_until(lambda: self.versions() == 1))

    def test_a_killed_server(self) -> None:
        self.tap("chewed-holes")
        self.sees("Chewed holes.")
        self.server.kill()
        self.press("Keep this look")
        self.sees("1 record waits to be sent")
        self.server.start()
        self.assertTrue(pause_until(lambda: self.versions() == 1, 12))
        self.assertEqual(self.signs(), {"chewed-holes": "seen"})

    def test_many_taps_in_a_row_lose_nothing(self) -> None:
        for _ in range(30):
            self.chrome.execute_script(
                "document.getElementById('sign-chewed-holes').click(); document.getElementById('sign-curl-up').click()"
            )
        self.tap("yellowing-from-below")
        # Thirty taps of three states are back where seven times four and two more end: not there.
        self.sees("Not there: chewed holes, leaves curl up.")
        self.press("Keep this look")
        self.assertTrue(pause_until(lambda: len(self.signs()) == 3))

    def test_two_saves_alone_without_signal_stand_one_on_the_other(self) -> None:
        self.cut(True)
        self.tap("curl-up")
        self.press("Keep this look")
        self.sees("1 record waits to be sent")
        self.press("Tell more")
        self.tap("chewed-holes")
        self.press("Keep this look")
        self.sees("2 records wait to be sent")
        self.cut(False)
        self.assertTrue(pause_until(lambda: self.versions() == 2))
        with farm_session(FARM) as session:
            look = session.scalars(select(Look).where(Look.stop_id == self.stop)).one()
            self.assertEqual((look.version, look.conflict), (2, False))
        self.assertEqual(self.signs(), {"curl-up": "seen", "chewed-holes": "seen"})

    def test_a_page_without_the_secure_functions_keeps_too(self) -> None:
        # As on a phone that comes by plain http.
        self.chrome.execute_script("Object.defineProperty(crypto, 'randomUUID', {value: undefined})")
        self.tap("curl-up")
        self.press("Keep this look")
        self.assertTrue(pause_until(lambda: self.versions() == 1))

    def test_kept_is_said_only_where_it_is(self) -> None:
        driver.size(self.chrome, driver.PHONE)
        self.addCleanup(driver.size, self.chrome, driver.DESK)
        for broken in ("put = () => { throw new Error('full'); }", "get = function () { return this.getAll(); }"):
            self.chrome.refresh()
            driver.find(self.chrome, ".bench")
            self.tap("curl-up")
            self.chrome.execute_script(f"const before = IDBObjectStore.prototype; before.{broken}")
            self.press("Keep this look")
            self.sees("Not kept: this browser keeps nothing.")
            driver.until(self.chrome, lambda c: c.execute_script(IN_SIGHT), "the note is out of sight")
            self.assertNotIn("Kept on this device", self.chrome.find_element(By.CSS_SELECTOR, ".next").text)
            self.chrome.refresh()

    def test_the_time_of_a_record_is_that_of_the_press(self) -> None:
        with farm_session(FARM) as session:
            session.execute(text("UPDATE farm SET clock_at = NULL"))
        self.addCleanup(self.back_to_the_demo)
        self.chrome.refresh()
        driver.find(self.chrome, ".bench")
        loaded = dt.datetime.now(dt.UTC)
        # The device's clock is three hours fast from the load on, as where somebody set it.
        self.chrome.execute_script("const real = Date.now; Date.now = () => real() + 3 * 3600 * 1000")
        self.tap("curl-up")
        self.press("Keep this look")
        self.assertTrue(pause_until(lambda: self.versions() == 1))
        with farm_session(FARM) as session:
            seen = session.scalars(select(Look.seen_at).where(Look.stop_id == self.stop)).one()
        self.assertLess(abs((seen - loaded).total_seconds()), 120)

    def back_to_the_demo(self) -> None:
        with farm_session(FARM) as session:
            session.execute(text("UPDATE farm SET clock_at = :now"), {"now": NOW})

    def test_more_than_one_part_is_sent_in_order_and_for_every_farm(self) -> None:
        self.cut(True)
        self.chrome.set_script_timeout(30)
        self.module(
            "lib/outbox.js",
            "const [stop] = given;"
            "for (let n = 0; n < 204; n++) await it.add({kind: 'look.record', v: 1, title: 'Look', record_id: stop, base: null,"
            "  payload: {stop_id: stop, signs: {'curl-up': 'seen'}, note: 'look ' + n}});",
            self.stop,
        )
        self.sees("204 records wait to be sent")
        self.cut(False)
        self.module("lib/outbox.js", "it.send()")
        self.assertTrue(pause_until(lambda: self.versions() == 204, 40))
        with farm_session(FARM) as session:
            look = session.scalars(select(Look).where(Look.stop_id == self.stop)).one()
            self.assertEqual((look.version, look.conflict, look.note), (204, False, "look 203"))

    def test_what_version_0_2_kept_is_taken_over_in_its_order(self) -> None:
        self.chrome.get(self.server.address + "/livez")
        kept = [
            {"command_id": str(uuid.uuid4()), "kind": "look.record", "v": 1, "title": "Look", "record_id": self.stop, "base": None}
            | {"seen_at": NOW.isoformat(), "payload": {"stop_id": self.stop, "signs": {"curl-up": "seen"}, "note": note}}
            | {"farm": str(FARM), "account": str(made(mail("scout"))), "order": order, "why": ""}
            for order, note in ((2, "second"), (1, "first"))
        ]
        kept[0]["base"] = kept[1]["command_id"]
        self.chrome.execute_async_script(
            "const [kept, done] = arguments;"
            "indexedDB.deleteDatabase('bootmark').onsuccess = () => {"
            "  const request = indexedDB.open('bootmark', 1);"
            "  request.onupgradeneeded = () => {"
            "    request.result.createObjectStore('commands', {keyPath: 'command_id'});"
            "    request.result.createObjectStore('drafts', {keyPath: 'key'});"
            "  };"
            "  request.onsuccess = () => {"
            "    const transaction = request.result.transaction('commands', 'readwrite');"
            "    for (const command of kept) transaction.objectStore('commands').put(command);"
            "    transaction.oncomplete = () => { request.result.close(); done(); };"
            "  };"
            "}",
            kept,
        )
        self.go("round")
        self.assertTrue(pause_until(lambda: self.versions() == 2))
        with farm_session(FARM) as session:
            look = session.scalars(select(Look).where(Look.stop_id == self.stop)).one()
            self.assertEqual((look.version, look.conflict, look.note), (2, False, "second"))

    def test_a_record_at_which_the_server_fails_is_set_aside_and_can_be_sent_again(self) -> None:
        self.chrome.execute_script(
            "window.real = window.fetch;"
            "window.fetch = async (...a) => {"
            "  if (!String(a[0]).endsWith('/sync')) return real(...a);"
            "  const results = JSON.parse(a[1].body).commands.map((c) => ({command_id: c.command_id, status: 'fault', errors: {}}));"
            "  return new Response(JSON.stringify({results}), {status: 200});"
            "}"
        )
        self.tap("curl-up")
        self.press("Keep this look")
        self.sees("1 record waits to be sent")
        for _ in range(5):
            self.module("lib/outbox.js", "await it.send()")
        self.sees("it is set aside, and the others go on")
        self.assertEqual(self.versions(), 0)
        self.chrome.execute_script("window.fetch = window.real")
        self.press("Send it again")
        self.assertTrue(pause_until(lambda: self.versions() == 1))

    def test_a_record_that_the_server_has_wait_stays_and_is_sent_again(self) -> None:
        self.chrome.execute_script(
            "window.real = window.fetch; window.waits = 0;"
            "window.fetch = async (...a) => {"
            "  if (!String(a[0]).endsWith('/sync') || window.waits++) return real(...a);"
            "  const results = JSON.parse(a[1].body).commands.map((c) => ({command_id: c.command_id, status: 'wait', errors: {}}));"
            "  return new Response(JSON.stringify({results}), {status: 200});"
            "}"
        )
        self.tap("curl-up")
        self.press("Keep this look")
        self.sees("1 record waits to be sent")
        # Sent again by itself, without a word from anybody.
        self.assertTrue(pause_until(lambda: self.versions() == 1, 12))

    def test_a_page_that_sleeps_while_it_sends_holds_up_no_other(self) -> None:
        self.chrome.execute_script("navigator.locks.request('bootmark-outbox', () => new Promise(() => {}))")
        self.tap("curl-up")
        self.press("Keep this look")
        self.sees("1 record waits to be sent")
        self.assertTrue(pause_until(lambda: self.versions() == 1, 20))

    def test_what_the_server_refuses_is_shown_and_can_be_thrown_away(self) -> None:
        self.module(
            "lib/outbox.js",
            "await it.add({kind: 'look.record', v: 1, title: 'Look at a field', record_id: crypto.randomUUID(), base: null,"
            " payload: {stop_id: given[0], signs: {nonsense: 'seen'}}})",
            self.stop,
        )
        self.sees("nonsense is not a sign that Bootmark knows.")
        self.press("Throw this one away")
        driver.until(self.chrome, lambda c: "nonsense" not in c.find_element(By.TAG_NAME, "body").text, "it is still shown")
