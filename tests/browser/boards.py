"""A hand at the drawing board."""

import json
from typing import Any

from selenium.webdriver.common.action_chains import ActionChains

from tests.browser import driver
from tests.browser.live import LiveTest


class BoardTest(LiveTest):
    def drawn(self) -> Any:
        return json.loads(self.chrome.execute_script("return document.querySelector('[name=outline]').value"))

    def at(self, x: float, y: float) -> ActionChains:
        """A pointer at a place of the plan."""
        svg = driver.find(self.chrome, "[data-board-sheet] svg[viewBox]")
        left, top, width, height = (float(part) for part in (svg.get_dom_attribute("viewBox") or "").split())
        box = svg.size
        across, down = (x - left) / width * box["width"] - box["width"] / 2, (y - top) / height * box["height"] - box["height"] / 2
        return ActionChains(self.chrome).move_to_element_with_offset(svg, round(across), round(down))

    def stand(self, east: float, north: float, accuracy: float) -> None:
        place = {"latitude": north, "longitude": east, "accuracy": accuracy}
        self.chrome.execute_cdp_cmd("Emulation.setGeolocationOverride", place)
