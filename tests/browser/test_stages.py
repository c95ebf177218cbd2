"""Stages in the browser: a trap read at the trap, the biofix it proposes, any day by key and click, what if, a sighting, big farms."""

import datetime as dt
import json
import urllib.error
import urllib.request

from selenium.webdriver import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select

from bootmark.standins.estate import FARM, made
from tests import orchards
from tests.browser import driver
from tests.browser.live import LiveTest

LONG = f"stages/{made('Long Field')}/colorado-potato-beetle"


class Stages(LiveTest):
    def set(self, css: str, value: str) -> None:
        self.chrome.execute_script(
            "const f = document.querySelector(arguments[0]); f.value = arguments[1];"
            "f.dispatchEvent(new Event('input', {bubbles: true})); f.dispatchEvent(new Event('change', {bubbles: true}));",
            css,
            value,
        )

    def test_a_trap_read_in_the_field_proposes_a_biofix_and_the_ribbon_follows(self) -> None:
        self.sign_in("scout")
        driver.size(self.chrome, driver.PHONE)
        self.go("traps")
        self.sees("Count diamondback moth on Mill Piece from 13 June?")
        self.assert_accessible()
        trap = made("trap/Trap 1")
        field = driver.find(self.chrome, f"#c-{trap}")
        field.send_keys("12")
        field.find_element(By.XPATH, "./ancestor::form//button").click()
        self.sees("18 June: 12")
        driver.size(self.chrome, driver.DESK)
        self.press("Set the biofix")
        self.sees("Heat is counted from 13 June.")
        self.sees("Best day for a control")
        self.assert_accessible()
        self.go("stages?show=all")
        self.sees("Diamondback moth")

    def test_hanging_a_trap(self) -> None:
        self.sign_in("scout")
        self.go("traps/new")
        self.assert_accessible()
        driver.find(self.chrome, "[name=name]").send_keys("Trap 8")
        Select(driver.find(self.chrome, "[name=agent]")).select_by_visible_text("Onion maggot")
        driver.find(self.chrome, "[data-board-sheet] svg[viewBox]").click()
        self.sees("It stands there.")
        self.press("Keep the trap")
        self.sees("Trap 8")
        self.sees("Not read yet.")

    def test_any_day_by_keyboard_and_by_click(self) -> None:
        self.sign_in("owner")
        self.go("stages?show=all")
        ribbon = driver.find(self.chrome, "[data-ribbon]")
        start = int(ribbon.get_attribute("aria-valuenow") or 0)
        ribbon.send_keys(Keys.ARROW_RIGHT, Keys.ARROW_RIGHT, Keys.PAGE_UP)
        self.assertEqual(ribbon.get_attribute("aria-valuenow"), str(start + 9))
        self.assertIn("27 June", ribbon.get_attribute("aria-valuetext") or "")
        self.assertIn("degree-days C, this day drawn from past years", ribbon.get_attribute("aria-valuetext") or "")
        ribbon.send_keys(Keys.HOME)
        self.sees("Before the biofix.")
        svg = ribbon.find_element(By.TAG_NAME, "svg")
        ActionChains(self.chrome).move_to_element_with_offset(svg, 0, 0).click().perform()
        self.assertNotIn("Before the biofix", ribbon.get_attribute("aria-valuetext") or "")
        self.assert_accessible()

    def test_a_phone_shows_the_days_around_today_with_the_names_of_the_lanes(self) -> None:
        self.sign_in("owner")
        driver.size(self.chrome, driver.PHONE)
        self.addCleanup(driver.size, self.chrome, driver.DESK)
        self.go("stages?show=all")
        ribbon = driver.find(self.chrome, "[data-ribbon]")
        where = (
            "const r = arguments[0], box = r.getBoundingClientRect(), at = (css) => r.querySelector(css).getBoundingClientRect().left - box.left;"
            "return [r.scrollLeft, at('[data-names] text'), at('[data-cursor]') / box.width]"
        )
        driver.until(self.chrome, lambda c: c.execute_script(where, ribbon)[0] > 50, "today is not brought into view")
        driver.until(self.chrome, lambda c: 0 <= c.execute_script(where, ribbon)[1] < 60, "the names of the lanes are out of view")
        ribbon.send_keys(Keys.HOME)
        driver.until(self.chrome, lambda c: 0 <= c.execute_script(where, ribbon)[2] <= 1, "the day chosen is out of view")
        self.assert_accessible()

    def test_what_if_redraws_and_goes_back(self) -> None:
        self.sign_in("adviser")
        self.go(LONG)
        plain = driver.find(self.chrome, "[data-whatif-figure] svg").get_attribute("outerHTML")
        self.set("[name=warmer]", "4")
        self.sees("days earlier.")
        self.sees("4 °C warmer")
        self.assertNotEqual(driver.find(self.chrome, "[data-whatif-figure] svg").get_attribute("outerHTML"), plain)
        self.set("[name=later]", "5")
        self.sees("5 days later")
        self.press("Back to the forecast")
        driver.until(self.chrome, lambda c: not c.find_element(By.CSS_SELECTOR, "[data-whatif-answer]").text, "the answer stayed")
        self.assert_accessible()

    def test_a_sighting_shows_before_and_after(self) -> None:
        self.sign_in("scout")
        self.go(f"stages/{made('Orchard B')}/codling-moth")
        self.assertNotIn("Before the sighting", self.chrome.page_source)
        driver.find(self.chrome, "[name='counts.larva']").send_keys("30")
        driver.find(self.chrome, "[name='counts.pupa']").send_keys("20")
        self.press("Keep it")
        self.sees("Kept. The forecast below has been weighed by what you saw.")
        self.sees("Before the sighting")
        self.sees("of the doubt about it")
        rows = [
            [cell.text for cell in row.find_elements(By.TAG_NAME, "td")]
            for row in self.chrome.find_elements(By.CSS_SELECTOR, "#dates tbody tr")
        ]
        leaving = next(row for row in rows if "left the fruit" in row[0])
        before, after = (dt.datetime.strptime(f"{leaf} 2026", "%d %B %Y") for leaf in (leaving[1], leaving[3]))
        self.assertLess(after, before)

    def test_the_crop_stage_is_noted_on_its_block(self) -> None:
        self.sign_in("adviser")
        self.go(f"farm/block/{made('Hop yard')}")
        self.assert_accessible()
        Select(driver.find(self.chrome, "[name=code]")).select_by_visible_text("38 bines at the top of the wire")
        self.press("Keep it")
        self.sees("18 June 2026 38 bines at the top of the wire")

    def test_a_doubtful_reading_is_judged_and_a_station_sends_with_its_key(self) -> None:
        self.sign_in("owner")
        self.go(f"station/{made('Ridge mast')}")
        self.sees("A spike")
        self.assert_accessible()
        self.press("Leave it out")
        self.sees("Left out: the day is filled and marked.")
        self.press("Give it a key")
        key = driver.find(self.chrome, "#key").text
        reading = {"at": "2026-06-18T05:00:00+01:00", "temp": 12.5, "rh": 80, "wind": 1.0, "rain": 0}
        address = f"{self.server.address}/push/{FARM}/{made('Ridge mast')}"
        asked = urllib.request.Request(
            address, json.dumps({"readings": [reading]}).encode(), {"Content-Type": "application/json", "Authorization": f"Bearer {key}"}
        )
        with urllib.request.urlopen(asked) as answer:
            self.assertEqual(json.load(answer)["refused"], [])
        asked.add_header("Authorization", "Bearer something else entirely")
        with self.assertRaises(urllib.error.HTTPError) as caught:
            urllib.request.urlopen(asked)
        self.assertEqual(caught.exception.code, 401)


class BigFarm(LiveTest):
    """Forty orchards more: the first ribbons come from what is stored, the rest as one scrolls, the reckoning in the background."""

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        orchards.plant(40)

    def test_progress_then_a_dozen_then_more(self) -> None:
        self.sign_in("owner")
        self.go("stages?show=all")
        self.sees("Reckoning anew:")
        driver.until(self.chrome, lambda c: len(c.find_elements(By.CSS_SELECTOR, "[data-ribbon]")) >= 12, "no ribbons came", 60)
        self.assert_accessible()
        first = len(self.chrome.find_elements(By.CSS_SELECTOR, "[data-ribbon]"))
        for _ in range(6):
            self.chrome.execute_script("scrollTo(0, document.body.scrollHeight)")
            driver.until(
                self.chrome,
                lambda c: (
                    not c.find_elements(By.CSS_SELECTOR, "[data-more]")
                    or c.execute_script("return scrollY + innerHeight + 700 < document.body.scrollHeight")
                ),
                "nothing more came",
            )
        driver.until(self.chrome, lambda c: len(c.find_elements(By.CSS_SELECTOR, "[data-ribbon]")) >= 44, "not all ribbons came", 30)
        self.assertGreaterEqual(first, 12)
        self.go("stages")
        Select(driver.find(self.chrome, "#f-crop")).select_by_visible_text("Potato")
        driver.until(self.chrome, lambda c: "crop=potato" in c.current_url, "the filter did nothing")
        self.sees("Colorado potato beetle")
