"""The whole application for a browser: a server on a clone of the demo, one Chromium for each module."""

import contextlib
import logging
import os
import subprocess
import sys
import threading
import time
import unittest
from pathlib import Path
from typing import Any, ClassVar

from selenium import webdriver
from selenium.webdriver.common.by import By
from sqlalchemy import text
from werkzeug.serving import BaseWSGIServer, make_server

from bootmark.launch.cluster import free_port
from bootmark.standins.__main__ import serve as serve_station
from bootmark.standins.estate import FARM, PASSWORD, PEOPLE
from bootmark.store.session import farm_session
from bootmark.web import create_app
from tests import database
from tests.browser import driver

ROOT = Path(__file__).resolve().parents[2]
FAILURES = ROOT / "var" / "failures"
AXE = (Path(__file__).parent / "vendor" / "axe.min.js").read_text()


MODULE = """
const [name, given, done] = arguments;
const beside = document.querySelector('link[rel="modulepreload"]').href.replace(/lib\\/[^/]*$/, "");
import(beside + name)
  .then(async (it) => { BODY })
  .then((told) => done({told: told === undefined ? null : told}), (error) => done({failed: String(error)}));
"""


class Server:
    """The application in a thread; can be killed and started again on the same port."""

    def __init__(self) -> None:
        self.port = free_port()
        self.address = f"http://127.0.0.1:{self.port}"
        self.running: BaseWSGIServer | None = None
        self.app = create_app()

    def start(self) -> None:
        logging.getLogger("werkzeug").setLevel(logging.ERROR)
        self.running = make_server("127.0.0.1", self.port, self.app, threaded=True)
        threading.Thread(target=self.running.serve_forever, daemon=True).start()

    def kill(self) -> None:
        if self.running:
            self.running.shutdown()
            self.running.server_close()
            self.running = None


class LiveTest(unittest.TestCase):
    """A browser, a server, a station and a worker, shared by one module's tests."""

    chrome: ClassVar[webdriver.Chrome]
    server: ClassVar[Server]
    allowed_noise: ClassVar[tuple[str, ...]] = ()

    @classmethod
    def data(cls) -> str:
        """The database of the module's tests: a copy of the demo."""
        return database.clone()

    @classmethod
    def setUpClass(cls) -> None:
        name = cls.data()
        cls.addClassCleanup(database.drop, name)
        station = serve_station(0)
        threading.Thread(target=station.serve_forever, daemon=True).start()
        cls.addClassCleanup(station.server_close)
        cls.addClassCleanup(station.shutdown)
        with farm_session(FARM) as session:
            session.execute(text("UPDATE station SET url = :url"), {"url": f"http://127.0.0.1:{station.server_port}"})
        worker = subprocess.Popen(
            [sys.executable, "-m", "bootmark.worker"],
            env=dict(os.environ, PYTHONPATH=str(ROOT / "src")),
            stderr=subprocess.DEVNULL,
        )
        cls.addClassCleanup(worker.wait)
        cls.addClassCleanup(worker.terminate)
        cls.server = Server()
        cls.server.start()
        cls.addClassCleanup(cls.server.kill)
        chrome = driver.browser()
        cls.chrome = chrome.__enter__()
        cls.addClassCleanup(chrome.__exit__, None, None, None)

    def setUp(self) -> None:
        self.chrome.get_log("browser")

    def tearDown(self) -> None:
        noise = [line["message"] for line in self.chrome.get_log("browser") if line["level"] in ("SEVERE", "WARNING")]
        said = [allowed for allowed in noise if not any(noise in allowed for noise in self.allowed_noise)]
        self.assertEqual(said, [], "the browser's console is not quiet")

    def run(self, result: unittest.TestResult | None = None) -> unittest.TestResult | None:
        before = len(result.failures) + len(result.errors) if result else 0
        answer = super().run(result)
        if result and len(result.failures) + len(result.errors) > before:
            with contextlib.suppress(Exception):
                driver.picture(self.chrome, FAILURES / f"{self.id()}.png")
        return answer

    @property
    def farm(self) -> str:
        return f"{self.server.address}/f/{FARM}"

    @classmethod
    def sign_in(cls, role: str) -> None:
        cls.chrome.delete_all_cookies()
        email = next(mail for _, mail, held, _ in PEOPLE if held == role)
        driver.sign_in(cls.chrome, cls.server.address, email, PASSWORD)

    def go(self, path: str) -> None:
        self.chrome.get(f"{self.farm}/{path}")

    def module(self, name: str, body: str, *given: Any) -> Any:
        """What a body of script returns that has one of the page's modules as `it`, and what is given as `given`."""
        outcome = self.chrome.execute_async_script(MODULE.replace("BODY", body), name, given)
        self.assertNotIn("failed", outcome, outcome.get("failed"))
        return outcome["told"]

    def press(self, words: str) -> None:
        driver.press(self.chrome, words)

    def sees(self, words: str) -> None:
        driver.sees(self.chrome, words)

    def tap(self, sign: str, times: int = 1) -> None:
        box = driver.find(self.chrome, f"#sign-{sign}")
        self.chrome.execute_script("arguments[0].scrollIntoView({block: 'center'})", box)
        for _ in range(times):
            box.click()

    def assert_accessible(self) -> None:
        """axe-core finds nothing on the page as it stands."""
        self.chrome.execute_cdp_cmd("Runtime.evaluate", {"expression": AXE})
        outcome = self.chrome.execute_async_script(
            "const done = arguments[arguments.length - 1];"
            "axe.run(document, {resultTypes: ['violations']}).then(r => done(r.violations.map(v => v.id + ': ' + v.nodes.map(n => n.target.join(' ') + ' ' + n.failureSummary).join(' | '))))"
        )
        self.assertEqual(outcome, [], self.chrome.current_url)

    def open_stop(self, block: str) -> None:
        self.go("round")
        item = next(element for element in self.chrome.find_elements(By.CSS_SELECTOR, "ol li, ul.rules li") if block in element.text)
        self.chrome.execute_script("arguments[0].scrollIntoView({block: 'center'})", item)
        item.find_element(By.XPATH, ".//button[contains(., 'Stop here')]").click()
        driver.find(self.chrome, ".bench")

    def step_clock(self, by: str) -> None:
        self.press(driver.find(self.chrome, ".datechip summary").text.split(" ▾")[0])
        before = self.chrome.find_element("css selector", ".datechip summary").text
        self.press(f"+1 {by}")
        driver.until(self.chrome, lambda c: c.find_element("css selector", ".datechip summary").text != before, "the clock did not step")


def pause_until(condition: object, seconds: float = 15) -> bool:
    """Wait for something outside the browser."""
    limit = time.monotonic() + seconds
    while time.monotonic() < limit:
        if condition():  # type: ignore[operator]
            return True
        time.sleep(0.05)
    return False
