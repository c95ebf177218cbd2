"""The desk: a weather file uploaded in the browser, a biofix set, every screen looked at by axe-core."""

import datetime as dt
import tempfile

from selenium.webdriver.common.by import By
from selenium.webdriver.support.ui import Select
from sqlalchemy import func, select

from bootmark.standins.estate import FARM, made
from bootmark.store.models import DecisionRow, Stop, TreatmentRow, WeatherDay
from bootmark.store.session import farm_session
from tests.browser import driver
from tests.browser.live import LiveTest
from tests.outside.test_seattle import SERIES


class Desk(LiveTest):
    def set(self, name: str, value: str) -> None:
        field = driver.find(self.chrome, f"[name={name}]")
        field.clear()
        field.send_keys(value)

    def test_the_open_series_uploaded_gives_the_known_dates(self) -> None:
        self.sign_in("owner")
        self.go("farm")
        self.press("Add a station")
        self.assert_accessible()
        self.set("name", "Open series")
        self.set("elevation", "50")
        self.press("Keep the station")
        self.sees("No readings yet")
        self.assert_accessible()
        driver.find(self.chrome, "input[type=file]").send_keys(str(SERIES))
        self.press("Show what is in it")
        self.sees("Say the unit of temperature: Bootmark does not guess it.")
        self.assert_accessible()
        Select(driver.find(self.chrome, "select[name=unit]")).select_by_value("C")
        self.press("Show what is understood")
        self.sees("1461 days understood")
        self.assert_accessible()
        self.press("Import these days")
        self.sees("1461 days are in.")
        self.set("lower", "50")
        self.set("upper", "87.98")
        self.set("sums", "250, 1000")
        Select(driver.find(self.chrome, "select[name=unit]")).select_by_value("F")
        self.press("Work it out")
        self.sees("250 DD F")
        rows = [
            [cell.text for cell in row.find_elements(By.TAG_NAME, "td")][:3]
            for row in self.chrome.find_elements(By.CSS_SELECTOR, "#heat tbody tr")
        ]
        self.assertEqual(
            rows,
            [["2015", "8 May", "29 June"], ["2014", "13 May", "10 July"], ["2013", "9 May", "7 July"], ["2012", "24 May", "31 July"]],
        )
        self.assert_accessible()

    def test_a_file_with_faults_is_refused_by_line_and_the_rest_goes_in(self) -> None:
        with farm_session(FARM) as session:
            count = select(func.count()).select_from(WeatherDay).where(WeatherDay.station_id == made("Tunnel logger"))
            before = session.execute(count).scalar_one()
        path = tempfile.mkdtemp() + "/faulty.csv"
        with open(path, "w") as file:
            file.write("day,low,high\n2023-05-01,50,68\n2023-05-02,70,60\n2023-05-03,x,60\n2023-05-07,52,66\n")
        self.sign_in("adviser")
        self.go(f"station/{made('Tunnel logger')}")
        driver.find(self.chrome, "input[type=file]").send_keys(path)
        self.press("Show what is in it")
        # The page before has a choice of units too.
        self.sees("Temperatures are in")
        Select(driver.find(self.chrome, "select[name=unit]")).select_by_value("F")
        self.press("Show what is understood")
        self.sees("2 lines refused, 1 gap.")
        self.sees("The minimum 70 is above the maximum 60")
        self.assert_accessible()
        self.press("Import these days")
        self.sees("2 days are in. 2 lines were refused")
        with farm_session(FARM) as session:
            self.assertEqual(session.execute(count).scalar_one(), before + 2)
            low = session.scalars(
                select(WeatherDay.tmin).where(WeatherDay.station_id == made("Tunnel logger"), WeatherDay.local_date == dt.date(2023, 5, 1))
            ).one()
        self.assertAlmostEqual(low, 10.0)

    def test_a_biofix_gives_dated_stages_and_a_window(self) -> None:
        self.sign_in("adviser")
        self.go("farm/block/new")
        self.assert_accessible()
        self.set("name", "Far Orchard")
        self.set("crop", "Apple")
        self.set("area", "0.7")
        Select(driver.find(self.chrome, "select[name=station_id]")).select_by_visible_text("Valley mast")
        self.press("Keep the block")
        self.sees("Far Orchard")
        self.go("stages")
        self.sees("Set the biofix: first sustained catch in lure traps.")
        self.assertNotIn("Codling moth on Far Orchard", self.chrome.page_source)
        Select(driver.find(self.chrome, "#biofix select[name=block_id]")).select_by_visible_text("Far Orchard")
        Select(driver.find(self.chrome, "#biofix select[name=agent]")).select_by_visible_text("Codling moth")
        self.chrome.execute_script("document.querySelector('#biofix [name=on]').value = '2026-05-28'")
        self.set("basis", "two males on two checks")
        self.press("Set it")
        self.sees("Heat counted from 28 May (two males on two checks)")
        self.assertIn("past years", driver.find(self.chrome, "#dates").text)
        self.go("stages?show=all")
        driver.until(self.chrome, lambda c: "Codling moth on Far Orchard" in c.page_source, "no ribbon")

    def test_axe_finds_nothing_on_any_screen(self) -> None:
        self.chrome.get(f"{self.server.address}/sign-in")
        self.assert_accessible()
        self.sign_in("owner")
        with farm_session(FARM) as session:
            call = session.scalars(select(DecisionRow.id).where(DecisionRow.control != "").limit(1)).one()
            stop, treatment = (session.scalars(select(model.id).limit(1)).one() for model in (Stop, TreatmentRow))
        for size in (driver.DESK, driver.PHONE):
            driver.size(self.chrome, size)
            for path in (
                "round",
                "look",
                "stages?show=all",
                "timing",
                "do",
                "book",
                f"book/record/{call}",
                "farm",
                f"station/{made('Ridge mast')}",
                f"stages/{made('Long Field')}/colorado-potato-beetle",
                "traps",
                f"traps/{made('trap/Trap 1')}",
                f"farm/block/{made('Orchard A')}",
                f"condition/{stop}",
                f"measure/{stop}",
                f"measure/{stop}?of=card",
                f"droplets/{treatment}",
                f"again/{made('Orchard A')}",
            ):
                with self.subTest(path=path, size=size):
                    self.go(path)
                    driver.find(self.chrome, "main")
                    self.assert_accessible()
                    width = self.chrome.execute_script("return document.documentElement.scrollWidth - innerWidth")
                    self.assertLessEqual(width, 0, "the page is wider than the screen")
        driver.size(self.chrome, driver.DESK)

    def test_keyboard_alone_reaches_the_clock_and_sun_mode(self) -> None:
        self.sign_in("owner")
        self.go("round")
        chip = driver.find(self.chrome, ".datechip summary")
        chip.send_keys("\n")
        sun = driver.button(self.chrome, "Sun mode")
        sun.send_keys("\n")
        self.assertIn("sun", self.chrome.find_element(By.TAG_NAME, "html").get_attribute("class") or "")
        self.assert_accessible()
        sun.send_keys("\n")

    def test_the_pointing_plant_works_by_keyboard(self) -> None:
        self.sign_in("scout")
        self.go("look")
        self.press("Stop here")
        part = driver.find(self.chrome, "g[data-part=ground]")
        part.send_keys("\n")
        self.sees("Soil dry a finger deep")
