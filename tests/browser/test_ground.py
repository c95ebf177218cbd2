"""Blocks drawn on the plan by four ways: by pointer, by keys, by walking round with the device, and from a file."""

import math
import tempfile
from pathlib import Path
from typing import Any

from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select

from bootmark.services.base import ground
from bootmark.standins.estate import FARM, ORIGIN, made
from bootmark.store.models import Block, Farm
from bootmark.store.session import farm_session
from tests.browser import driver
from tests.browser.boards import BoardTest
from tests.browser.live import LiveTest


class Drawing(BoardTest):
    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.sign_in("owner")

    def fill(self, name: str, crop: str = "Pear") -> None:
        for field, words in (("name", name), ("crop", crop)):
            driver.find(self.chrome, f"[name={field}]").send_keys(words)
        Select(driver.find(self.chrome, "[name=place]")).select_by_value("orchard")

    def kept(self, name: str) -> tuple[Block, tuple[tuple[float, float], ...]]:
        with farm_session(FARM) as session:
            block = next(block for block in ground.blocks(session) if block.name == name)
            return block, ground.on_plan(session.get_one(Farm, FARM), block)

    def keep(self, name: str) -> tuple[Block, tuple[tuple[float, float], ...]]:
        self.press("Keep the block")
        self.sees("Blocks")
        return self.kept(name)

    def test_by_pointer_it_is_drawn_to_its_neighbours_and_moved_and_undone(self) -> None:
        self.go("farm/block/new")
        self.fill("Pointed Piece")
        orchard = self.kept("Orchard A")[1]
        for x, y in ((60, 40), (250, 30)):
            self.at(x + 3, y + 2).click().perform()
        self.assertEqual(self.drawn(), [list(orchard[0]), list(orchard[1])])
        self.at(240, -20).click().perform()
        self.at(70, -20).click().perform()
        self.sees("4 corners")
        before = self.drawn()
        self.at(70, -20).click_and_hold().perform()
        self.at(30, -30).release().perform()
        self.assertAlmostEqual(self.drawn()[3][0], 30, delta=3)
        self.press("Undo")
        self.assertEqual(self.drawn(), before)
        self.assert_accessible()
        block, corners = self.keep("Pointed Piece")
        self.assertEqual([list(corner) for corner in corners], before)
        # As large as it is drawn, since nobody wrote another area; the shoelace of its corners.
        rings = zip(before, before[1:] + before[:1], strict=True)
        self.assertAlmostEqual(block.area, abs(sum(x1 * y2 - x2 * y1 for (x1, y1), (x2, y2) in rings)) / 20_000, places=3)

    def test_by_keys_alone(self) -> None:
        self.go("farm/block/new")
        self.fill("Keyed Piece")
        driver.find(self.chrome, "[data-board-sheet] svg[viewBox]")
        sheet = driver.find(self.chrome, "[data-board-sheet]")
        right, down, left = Keys.ARROW_RIGHT * 4, Keys.ARROW_DOWN * 3, Keys.ARROW_LEFT * 4
        sheet.send_keys(Keys.ENTER, right, Keys.ENTER)
        self.sees("2 corners: it takes three")
        sheet.send_keys(down, Keys.ENTER, left, Keys.ENTER)
        self.sees("4 corners")
        corners = self.drawn()
        sheet.send_keys("n", left)
        self.assertLess(self.drawn()[0][0], corners[0][0])
        sheet.send_keys(Keys.DELETE)
        self.assertEqual(self.drawn(), corners[1:])
        sheet.send_keys("u" * 5)
        self.assertEqual(self.drawn(), corners)
        block, _ = self.keep("Keyed Piece")
        self.assertGreater(block.area, 0)

    def test_what_crosses_itself_is_marked_while_it_is_drawn_and_not_kept(self) -> None:
        self.allowed_noise = ("400",)
        self.go("farm/block/new")
        self.fill("Knot")
        for x, y in ((700, 300), (780, 360), (780, 300), (700, 360)):
            self.at(x, y).click().perform()
        self.sees("It crosses itself where the ring is")
        self.press("Keep the block")
        self.sees("crosses itself at 46.19")
        self.assertEqual(len(self.drawn()), 4)

    def test_by_walking_round_it(self) -> None:
        address = self.server.address
        self.chrome.execute_cdp_cmd("Browser.grantPermissions", {"origin": address, "permissions": ["geolocation"]})
        self.go("farm/block/new")
        self.fill("Walked Piece")
        corners = [(100.0, 420.0), (180.0, 420.0), (180.0, 470.0), (100.0, 470.0)]
        self.stand(*ORIGIN.to_degrees([corners[0]])[0], 80)
        self.press("Where I stand")
        self.sees("knows its place to 80 m only")
        for count, (east, north) in enumerate(ORIGIN.to_degrees(corners), 1):
            self.stand(east, north, 4)
            self.press("Where I stand")
            self.sees(f"{count} corners")
        _, kept = self.keep("Walked Piece")
        for corner, wanted in zip(kept, corners, strict=True):
            self.assertLess(math.dist(corner, wanted), 0.1)

    def test_from_a_file(self) -> None:
        rows = [("North bed", 620, 40), ("South bed", 620, 90)]
        lines = ["block,longitude,latitude"]
        for name, x, y in rows:
            for east, north in ORIGIN.to_degrees([(x + 200, y), (x + 240, y), (x + 240, y + 30), (x + 200, y + 30)]):
                lines.append(f"{name},{east},{north}")
        with tempfile.TemporaryDirectory() as folder:
            file = Path(folder) / "beds.csv"
            file.write_text("\n".join(lines))
            self.go("farm/outlines")
            self.assert_accessible()
            driver.find(self.chrome, "#f-file").send_keys(str(file))
            self.press("Show what is in it")
            self.sees("2 outlines, as understood")
        self.assert_accessible()
        for number in range(2):
            driver.find(self.chrome, f"[name='crop.{number}']").send_keys("Cabbage")
        self.press("Keep what is ticked")
        self.sees("2 blocks are kept")
        self.assertAlmostEqual(self.kept("North bed")[0].area, 0.12, places=3)

    def test_a_trap_is_hung_by_a_press_on_the_plan(self) -> None:
        self.go("traps/new")
        driver.find(self.chrome, "[name=name]").send_keys("Trap 77")
        Select(driver.find(self.chrome, "[name=block_id]")).select_by_value(str(made("Orchard A")))
        Select(driver.find(self.chrome, "[name=agent]")).select_by_value("codling-moth")
        self.at(150, 90).click().perform()
        self.sees("It stands there.")
        self.assert_accessible()
        self.press("Keep the trap")
        self.sees("Trap 77")


class Geometry(LiveTest):
    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.sign_in("scout")

    def ask(self, body: str, *given: Any) -> Any:
        return self.module("lib/plane.js", body, *given)

    def test_areas_crossings_and_what_is_near(self) -> None:
        self.go("round")
        square, knot = [[0, 0], [10, 0], [10, 10], [0, 10]], [[0, 0], [10, 10], [10, 0], [0, 10]]
        self.assertEqual(
            self.ask("return [it.area(given[0]), it.crossing(given[0]), it.crossing(given[1])]", square, knot), [100, None, [5, 5]]
        )
        near = "return given[0].map((spot) => it.snapped(spot, [given[1]], 2))"
        spots = [[1, 1], [5, 1], [5, 5], [11, 11], [-9, 0]]
        self.assertEqual(self.ask(near, spots, square), [[0, 0], [5, 0], [5, 5], [10, 10], [-9, 0]])
        self.assertEqual(self.ask("return it.snapped([3, 4], [], 2)"), [3, 4])
        self.assertEqual(
            self.ask("return [it.nearestSide([12, 4], given[0]).place, it.nearestSide([4, 12], given[0]).place]", square), [1, 2]
        )
