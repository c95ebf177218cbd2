"""Headless Chromium as the tests and the screenshots use it."""

import contextlib
import shutil
import tempfile
from collections.abc import Callable, Iterator
from pathlib import Path

from selenium import webdriver
from selenium.common.exceptions import JavascriptException, StaleElementReferenceException
from selenium.webdriver.chrome.options import Options
from selenium.webdriver.chrome.service import Service
from selenium.webdriver.remote.webelement import WebElement
from selenium.webdriver.support.ui import WebDriverWait

FLAGS = (
    "--headless=new",
    "--no-sandbox",
    "--disable-gpu",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--hide-scrollbars",
    "--disable-dev-shm-usage",
)
DESK, PHONE = (1280, 800), (390, 844)


@contextlib.contextmanager
def browser() -> Iterator[webdriver.Chrome]:
    """One Chromium with a fresh profile, removed afterwards."""
    profile = tempfile.mkdtemp(prefix="bootmark-chromium-")
    options = Options()
    options.binary_location = shutil.which("chromium") or "/usr/bin/chromium"
    for flag in (*FLAGS, f"--user-data-dir={profile}"):
        options.add_argument(flag)
    options.set_capability("goog:loggingPrefs", {"browser": "ALL"})
    chrome = webdriver.Chrome(options=options, service=Service(shutil.which("chromedriver") or "/usr/bin/chromedriver"))
    try:
        size(chrome, DESK)
        yield chrome
    finally:
        chrome.quit()
        shutil.rmtree(profile, ignore_errors=True)


def size(chrome: webdriver.Chrome, wanted: tuple[int, int]) -> None:
    """The page's own size, whatever the window adds; below 500 wide only the emulation goes."""
    chrome.execute_cdp_cmd(
        "Emulation.setDeviceMetricsOverride", {"width": wanted[0], "height": wanted[1], "deviceScaleFactor": 1, "mobile": wanted[0] < 500}
    )


SHOWN = """const shown = (one) => {
  const box = one.closest("select") || one;
  return box.checkVisibility({visibilityProperty: true}) && box.getClientRects().length;
};"""
FIRST = f"{SHOWN} return [...document.querySelectorAll(arguments[0])].find(shown) || null"
NAMED = f"""{SHOWN}
for (const one of document.querySelectorAll("button, a, summary, label"))
  if (one.textContent.replace(/\\s+/g, " ").includes(arguments[0]) && shown(one)) return one;
return null"""
"""Asked in the page: one question instead of one for every element."""


def find(chrome: webdriver.Chrome, css: str, seconds: float = 15) -> WebElement:
    """The first visible element, waited for."""
    return until(chrome, lambda c: c.execute_script(FIRST, css), f"nothing visible at {css}", seconds)


def until(chrome: webdriver.Chrome, condition: Callable[[webdriver.Chrome], object], what: str, seconds: float = 15) -> WebElement:
    return WebDriverWait(chrome, seconds, 0.05, ignored_exceptions=[StaleElementReferenceException, JavascriptException]).until(
        condition, what
    )  # type: ignore[return-value]


def button(chrome: webdriver.Chrome, text: str, seconds: float = 15) -> WebElement:
    """A visible button or link by its words."""
    return until(chrome, lambda c: c.execute_script(NAMED, text), f"no button {text!r}", seconds)


def press(chrome: webdriver.Chrome, text: str) -> None:
    pressed = button(chrome, text)
    chrome.execute_script("arguments[0].scrollIntoView({block: 'center'})", pressed)
    pressed.click()


def sees(chrome: webdriver.Chrome, text: str, seconds: float = 15) -> None:
    """Wait until the page shows a text."""
    until(
        chrome,
        lambda c: c.execute_script("return document.body?.innerText.includes(arguments[0])", text),
        f"the page does not show {text!r}",
        seconds,
    )


def sign_in(chrome: webdriver.Chrome, address: str, email: str, password: str) -> None:
    chrome.get(f"{address}/sign-in")
    find(chrome, "input[name=email]").send_keys(email)
    find(chrome, "input[name=password]").send_keys(password)
    press(chrome, "Sign in")
    until(chrome, lambda _: "/sign-in" not in chrome.current_url, "sign-in did not go on")


def picture(chrome: webdriver.Chrome, to: Path) -> None:
    to.parent.mkdir(parents=True, exist_ok=True)
    chrome.save_screenshot(str(to))
