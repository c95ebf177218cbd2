"""One farm from its tenth block to its second season: the story that begins where an owner has made an account and a farm."""

import datetime as dt
import math
import tempfile
import uuid
from pathlib import Path
from typing import ClassVar

from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select
from sqlalchemy import func, select

from bootmark.services.owning import founding
from bootmark.services.owning.founding import Beginning
from bootmark.standins.estate import LATITUDE, LONGITUDE, ORIGIN
from bootmark.store.models import Application, Block, Planting, SampleRow
from bootmark.store.session import farm_session
from tests import database
from tests.browser import driver
from tests.browser.boards import BoardTest

PASSWORD = "nine hens on a cold drum"
FARM = uuid.uuid4()
POINTED = (("Hop yard", "Hop"), ("Pear row", "Pear"), ("Home piece", "Potato"))
KEYED = (("Slope", "Apple"), ("Hollow", "Cabbage"))
FROM_FILE = ("Bed 1", "Bed 2", "Bed 3", "Bed 4")
DAYS = 730


class Story(BoardTest):
    allowed_noise: ClassVar[tuple[str, ...]] = ("400 (BAD REQUEST)",)

    @classmethod
    def data(cls) -> str:
        name = database.empty()
        with farm_session(FARM, role="owner") as session:
            beginning = Beginning("Upper Holding", (LATITUDE, LONGITUDE), "Europe/Vienna", "Ada Lorne", "ada@upper.example")
            founding.begin(session, FARM, beginning, lambda: PASSWORD)
        return name

    @property
    def farm(self) -> str:
        return f"{self.server.address}/f/{FARM}"

    def fill(self, **entries: str) -> None:
        for name, words in entries.items():
            field = driver.find(self.chrome, f"[name={name}]")
            if field.tag_name == "select":
                Select(field).select_by_visible_text(words)
            elif field.get_attribute("type") == "date":
                self.chrome.execute_script("arguments[0].value = arguments[1]", field, words)
            else:
                field.clear()
                field.send_keys(words)

    def block(self, name: str) -> Block:
        with farm_session(FARM) as session:
            return session.scalars(select(Block).where(Block.name == name)).one()

    def keep(self, name: str) -> None:
        self.press("Keep the block")
        driver.until(self.chrome, lambda chrome: chrome.current_url.endswith("/farm"), f"{name} was not kept")

    def test_ten_blocks_a_season_a_round_a_wrong_count_and_a_split(self) -> None:
        driver.sign_in(self.chrome, self.server.address, "ada@upper.example", PASSWORD)
        self.has_a_station_with_two_years()
        self.draws_by_pointer()
        self.draws_by_keys()
        self.walks_round_one()
        self.brings_four_in()
        self.has_ten_blocks()
        self.plants_two_seasons()
        self.sets_a_biofix()
        stop = self.walks_the_first_round_on_a_phone()
        self.puts_a_wrong_count_right(stop)
        self.cuts_a_block()

    def has_a_station_with_two_years(self) -> None:
        self.go("station/new")
        self.fill(name="Gate mast", elevation="600")
        self.press("Keep the station")
        self.sees("No readings yet")
        yesterday = dt.datetime.now(dt.UTC).date() - dt.timedelta(days=1)
        lines = ["day,low,high,rain"]
        for back in range(DAYS, 0, -1):
            day = yesterday - dt.timedelta(days=back - 1)
            warmth = 10 - 11 * math.cos(2 * math.pi * (day.timetuple().tm_yday - 20) / 365)
            lines.append(f"{day},{warmth - 5:.1f},{warmth + 5:.1f},{2.0 if back % 5 == 0 else 0.0}")
        with tempfile.TemporaryDirectory() as folder:
            file = Path(folder) / "mast.csv"
            file.write_text("\n".join(lines))
            driver.find(self.chrome, "input[type=file]").send_keys(str(file))
            self.press("Show what is in it")
            self.sees("does not guess it")
        Select(driver.find(self.chrome, "select[name=unit]")).select_by_value("C")
        self.press("Show what is understood")
        self.sees(f"{DAYS} days understood")
        self.press("Import these days")
        self.sees(f"{DAYS} days are in.")

    def draws_by_pointer(self) -> None:
        for number, (name, crop) in enumerate(POINTED):
            self.go("farm/block/new")
            self.fill(name=name, crop=crop, station_id="Gate mast")
            for _ in range(4):
                self.press("Wider")
            left = 220 * number
            for x, y in ((left, 0), (left + 180, 0), (left + 180, 90), (left, 90)):
                self.at(x, y).click().perform()
            self.sees("4 corners")
            self.keep(name)

    def draws_by_keys(self) -> None:
        for name, crop in KEYED:
            self.go("farm/block/new")
            self.fill(name=name, crop=crop, station_id="Gate mast")
            driver.find(self.chrome, "[data-board-sheet] svg[viewBox]")
            sheet = driver.find(self.chrome, "[data-board-sheet]")
            sheet.send_keys(Keys.ENTER, Keys.ARROW_RIGHT * 4, Keys.ENTER, Keys.ARROW_DOWN * 3, Keys.ENTER, Keys.ARROW_LEFT * 4, Keys.ENTER)
            self.sees("4 corners")
            self.keep(name)

    def walks_round_one(self) -> None:
        self.chrome.execute_cdp_cmd("Browser.grantPermissions", {"origin": self.server.address, "permissions": ["geolocation"]})
        self.go("farm/block/new")
        self.fill(name="Walked piece", crop="Leek", station_id="Gate mast")
        for count, (east, north) in enumerate(ORIGIN.to_degrees([(100, 420), (180, 420), (180, 470), (100, 470)]), 1):
            self.stand(east, north, 4)
            self.press("Where I stand")
            self.sees(f"{count} corners")
        self.keep("Walked piece")

    def brings_four_in(self) -> None:
        lines = ["block,longitude,latitude"]
        for number, name in enumerate(FROM_FILE):
            x = 60 * number
            for east, north in ORIGIN.to_degrees([(x, 600), (x + 40, 600), (x + 40, 640), (x, 640)]):
                lines.append(f"{name},{east},{north}")
        with tempfile.TemporaryDirectory() as folder:
            file = Path(folder) / "beds.csv"
            file.write_text("\n".join(lines))
            self.go("farm/outlines")
            driver.find(self.chrome, "#f-file").send_keys(str(file))
            self.press("Show what is in it")
            self.sees("4 outlines, as understood")
        for number in range(4):
            driver.find(self.chrome, f"[name='crop.{number}']").send_keys("Lettuce")
        self.press("Keep what is ticked")
        self.sees("4 blocks are kept")

    def has_ten_blocks(self) -> None:
        self.go("farm")
        self.sees("10 blocks")
        self.assert_accessible()
        driver.size(self.chrome, driver.PHONE)
        self.go("farm")
        wide = self.chrome.execute_script("return [document.documentElement.scrollWidth, innerWidth]")
        self.assertLessEqual(wide[0], wide[1])
        driver.size(self.chrome, driver.DESK)

    def plants_two_seasons(self) -> None:
        """Last season's leeks and next season's potatoes beside what stands now."""
        piece = self.block("Home piece").id
        today = dt.datetime.now(dt.UTC).date()
        for crop, since, until in (("Leek", today - dt.timedelta(days=500), today - dt.timedelta(days=300)), ("Cabbage", today, None)):
            self.go(f"farm/block/{piece}")
            self.press("Plant something")
            self.fill(crop=crop, since=since.isoformat())
            if until:
                self.press("It follows what stands there now")
                self.fill(until=until.isoformat(), part="the upper half")
            self.assert_accessible()
            self.press("Keep it")
            self.sees("What grows here")
        listed = driver.find(self.chrome, "#plantings").text
        self.assertTrue(all(crop in listed for crop in ("Leek", "Cabbage", "Potato")), listed)
        self.assert_accessible()
        with farm_session(FARM) as session:
            potatoes = session.scalars(select(Planting).where(Planting.block_id == piece, Planting.crop == "potato")).one()
        self.assertEqual(potatoes.until, today - dt.timedelta(days=1))
        self.go("farm")
        self.assertIn("Cabbage", next(row.text for row in self.chrome.find_elements("css selector", "tr") if "Home piece" in row.text))

    def sets_a_biofix(self) -> None:
        self.go("stages")
        on = dt.datetime.now(dt.UTC).date() - dt.timedelta(days=30)
        Select(driver.find(self.chrome, "#biofix select[name=block_id]")).select_by_visible_text("Pear row")
        Select(driver.find(self.chrome, "#biofix select[name=agent]")).select_by_visible_text("Codling moth")
        self.fill(on=on.isoformat(), basis="two males on two checks")
        self.press("Set it")
        self.sees("Heat counted from")

    def walks_the_first_round_on_a_phone(self) -> uuid.UUID:
        driver.size(self.chrome, driver.PHONE)
        self.go("round")
        self.sees("Today's round")
        self.assert_accessible()
        self.open_stop("Hop yard")
        stop = uuid.UUID(self.chrome.current_url.rpartition("/")[2])
        self.tap("stippling")
        self.press("Point to it")
        driver.find(self.chrome, "g[data-part=underside]").click()
        self.tap("mites-and-round-eggs")
        self.sees("It is two-spotted spider mite.")
        self.press("Keep this look")
        self.press("Count them")
        for _ in range(10):
            driver.find(self.chrome, ".key").click()
            self.press("done, next")
        self.press("Keep this count")
        self.sees("Make the call")
        driver.size(self.chrome, driver.DESK)
        return stop

    def puts_a_wrong_count_right(self, stop: uuid.UUID) -> None:
        with farm_session(FARM) as session:
            sample = session.scalars(select(SampleRow).where(SampleRow.stop_id == stop)).one()
            self.assertEqual(sum(sample.counts), 10)
        self.go(f"book/record/{sample.id}")
        self.press("Put it right")
        self.fill(counts=" ".join(["3"] * 10), reason="each tap stood for three")
        self.press("Keep it so")
        self.sees("What stood before stays below")
        with farm_session(FARM) as session:
            self.assertEqual(sum(session.get_one(SampleRow, (FARM, sample.id)).counts), 30)

    def cuts_a_block(self) -> None:
        """The hop yard is cut in two: the piece is as large as it was drawn, bears hops, and nothing was signed for by it."""
        whole = self.block("Hop yard")
        self.go(f"farm/block/{whole.id}/parts")
        self.assert_accessible()
        for y in (-20, 110):
            self.at(60, y).click().perform()
        self.fill(name="Hop yard, west")
        self.press("Cut it off")
        self.sees("is a block of its own")
        piece, rest = self.block("Hop yard, west"), self.block("Hop yard")
        self.assertAlmostEqual(piece.area, whole.area / 3, delta=whole.area / 20)
        self.assertAlmostEqual(piece.area + rest.area, whole.area, places=3)
        self.assertEqual(piece.crop, "hop")
        with farm_session(FARM) as session:
            self.assertEqual(session.execute(select(func.count()).select_from(Application)).scalar_one(), 0)
        self.go("farm")
        self.sees("11 blocks")
