"""Remakes docs/screenshots on a freshly loaded demo: python -m tests.browser.shots ADDRESS [NAME ...]."""

import sys
from pathlib import Path

from selenium import webdriver
from selenium.webdriver.common.by import By

from bootmark.standins.estate import FARM, PASSWORD, PEOPLE, made
from tests.browser import driver

FOLDER = Path(__file__).resolve().parents[2] / "docs" / "screenshots"
DESK = (
    "round",
    "look",
    "count",
    "call",
    "stages",
    "season",
    "traps",
    "timing",
    "job-card",
    "book",
    "compare",
    "farm",
    "station",
    "agent",
    "people",
    "enquiry",
)
PHONE = ("round-phone", "look-phone", "count-phone")


def open_block(chrome: webdriver.Chrome, farm: str, block: str) -> None:
    """Open a stop in a block from the round."""
    chrome.get(f"{farm}/round")
    item = next(element for element in chrome.find_elements(By.CSS_SELECTOR, "ol li, ul.rules li") if block in element.text)
    chrome.execute_script("arguments[0].scrollIntoView({block: 'center'})", item)
    item.find_element(By.XPATH, ".//button[contains(., 'Stop here')]").click()
    driver.find(chrome, ".bench")


def look(chrome: webdriver.Chrome, farm: str) -> None:
    open_block(chrome, farm, "Tunnel 1")
    for sign, times in (("stippling", 1), ("yellow-specks", 1), ("top-wilted", 2)):
        box = driver.find(chrome, f"#sign-{sign}")
        chrome.execute_script("arguments[0].scrollIntoView({block: 'center'})", box)
        for _ in range(times):
            box.click()
    driver.find(chrome, "#suspects:not([aria-busy])")
    chrome.execute_script("scrollTo(0, 0)")


counted: list[str] = []
"""The page of the count, once made: the look that it answers is booked once."""


def count(chrome: webdriver.Chrome, farm: str) -> None:
    if counted:
        chrome.get(counted[0])
        driver.sees(chrome, "on 8")
        return
    open_block(chrome, farm, "Tunnel 2")
    chrome.get(chrome.current_url.replace("/look/", "/count/"))
    counted.append(chrome.current_url)
    for pests, helpers in ((4, 1), (2, 0), (5, 1), (3, 2), (1, 0), (4, 1), (2, 1), (3, 0)):
        for css, times in ((".key", pests), (".key.moss", helpers)):
            for _ in range(times):
                chrome.execute_script("arguments[0].click()", driver.find(chrome, css))
        driver.press(chrome, "done, next")
    driver.sees(chrome, "on 8")
    chrome.execute_script("scrollTo(0, 0)")


def call(chrome: webdriver.Chrome, farm: str) -> None:
    chrome.get(f"{farm}/call/{stop_of_call()}")


def stop_of_call() -> str:
    """The stop of the demo's codling moth call."""
    from sqlalchemy import select

    from bootmark.store.models import Look
    from bootmark.store.session import farm_session

    with farm_session(FARM) as session:
        rows = session.scalars(select(Look).order_by(Look.seen_at.desc()))
        return str(next(row.stop_id for row in rows if row.working["verdict"]["agents"] == ["codling-moth"]))


def show(chrome: webdriver.Chrome, address: str, name: str) -> None:
    """Bring one view onto the screen."""
    farm = f"{address}/f/{FARM}"
    plain = name.removesuffix("-phone")
    views = {"look": look, "count": count, "call": call}
    if plain in views:
        views[plain](chrome, farm)
    elif plain == "job-card":
        chrome.get(f"{farm}/do")
        driver.press(chrome, "Open the job card")
    elif plain == "compare":
        chrome.get(f"{farm}/book/compare/{made('Tunnel 2')}/two-spotted-spider-mite")
    elif plain == "agent":
        chrome.get(f"{farm}/guide/agent/codling-moth")
    elif plain == "enquiry":
        chrome.get(f"{farm}/enquiry")
        driver.press(chrome, "Tomato, ")
    elif plain == "season":
        chrome.get(f"{farm}/stages/{made('Long Field')}/colorado-potato-beetle")
    elif plain == "station":
        chrome.get(f"{farm}/station/{made('Ridge mast')}")
    else:
        chrome.get(f"{farm}/{plain}")
    driver.find(chrome, "main")


def main() -> int:
    address, wanted = sys.argv[1], sys.argv[2:]
    owner = next(email for _, email, role, _ in PEOPLE if role == "owner")
    with driver.browser() as chrome:
        for name in (*DESK, *PHONE):
            if wanted and name not in wanted:
                continue
            driver.size(chrome, driver.PHONE if name in PHONE else driver.DESK)
            driver.sign_in(chrome, address, owner, PASSWORD)
            show(chrome, address, name)
            driver.until(
                chrome,
                lambda c: c.execute_script(
                    "return document.fonts.status === 'loaded' && [...document.images].every(i => i.complete || !i.offsetParent || i.getBoundingClientRect().top > innerHeight)"
                ),
                "the page did not settle",
            )
            driver.picture(chrome, FOLDER / f"{name}.png")
            print(f"  {name}", file=sys.stderr)
    return 0


if __name__ == "__main__":
    sys.exit(main())
