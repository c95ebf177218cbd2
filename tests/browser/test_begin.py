"""From an empty database to a farm with five people at work, each in the own role; and a second farm that sees nothing of it."""

import os
import time
import uuid
from unittest import mock

from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select

from bootmark.services.owning import founding
from bootmark.services.owning.founding import Beginning
from bootmark.store.session import farm_session
from bootmark.web.begin.route import CODE
from tests import database
from tests.browser import driver
from tests.browser.live import LiveTest

PASSWORD = "nine hens on a cold drum"
ROLES = ("adviser", "scout", "applicator", "viewer")


class Begin(LiveTest):
    @classmethod
    def data(cls) -> str:
        code = mock.patch.dict(os.environ, {CODE: "ABCDE-FGHJK"})
        code.start()
        cls.addClassCleanup(code.stop)
        return database.empty()

    def fill(self, **entries: str) -> None:
        for name, words in entries.items():
            field = driver.find(self.chrome, f"[name={name}]")
            if field.tag_name == "select":
                Select(field).select_by_value(words)
            else:
                field.clear()
                field.send_keys(words)

    def link(self) -> str:
        return str(driver.find(self.chrome, "#link").get_attribute("value"))

    def points_at_the_map(self) -> None:
        """It stands where the fields say; a step of a fortieth of its width to the east; a press in its middle changes nothing more."""
        driver.find(self.chrome, "[data-world] summary").click()
        sheet = driver.find(self.chrome, "[data-map]")
        sheet.send_keys("+", Keys.ARROW_RIGHT)
        place = {name: driver.find(self.chrome, f"[name={name}]") for name in ("latitude", "longitude")}
        self.assertEqual([field.get_attribute("value") for field in place.values()], ["46.20", "7.40"])
        sheet.click()
        self.assertAlmostEqual(float(place["longitude"].get_attribute("value") or 0), 7.4, delta=0.06)
        self.sees("Good to about")
        self.assert_accessible()

    def test_an_owner_four_people_by_link_and_a_second_farm(self) -> None:
        began = time.monotonic()
        self.chrome.get(self.server.address)
        self.assert_accessible()
        self.fill(code="abcde-fghjk", person="Ada Lorne", email="ada@upper.example", password=PASSWORD, name="Upper Holding")
        self.fill(latitude="46.2", longitude="7.1")
        self.points_at_the_map()
        self.fill(latitude="46.2", longitude="7.1")
        self.press("Begin")
        self.sees("Still missing")
        farm = self.chrome.current_url.removesuffix("/farm")
        self.assert_accessible()

        self.press("The country")
        self.fill(country="AT", currency="EUR")
        self.press("Living first")
        self.press("Keep it")
        self.sees("Part of it")
        self.assert_accessible()
        self.fill(part="AT-7")
        self.press("Keep it")
        self.sees("Tirol")

        self.press("A block")
        self.fill(name="Long Row", crop="Pear", area="0.4")
        self.press("Keep the block")
        self.sees("Long Row")

        links = {role: self.invited(farm, role) for role in ROLES}
        self.assert_accessible()
        self.chrome.get(f"{farm}/people")
        self.sees("Links that are out")
        self.assert_accessible()

        for role, doing in zip(ROLES, (self.advises, self.scouts, self.applies, self.views), strict=True):
            self.joins(links[role], role)
            doing(farm)
        self.chrome.get(links["scout"])
        self.sees("it serves once")
        self.allowed_noise = ("404",)
        minutes = (time.monotonic() - began) / 60
        print(f"  from nothing to five people at work: {minutes:.1f} minutes of a machine that types")

        self.other_farm(farm)

    def invited(self, farm: str, role: str) -> str:
        self.chrome.get(f"{farm}/people")
        self.fill(name=f"{role.title()} Dane")
        self.press(f"{role}:")
        if role == "applicator":
            self.press("Holds a certificate")
            self.fill(certificate="K 17")
            self.chrome.execute_script("document.querySelector('[name=certificate_until]').value = '2099-12-31'")
        self.press("Make the link")
        return self.link()

    def joins(self, link: str, role: str) -> None:
        self.chrome.delete_all_cookies()
        self.chrome.get(link)
        self.sees(f"as {role}")
        self.fill(email=f"{role}@upper.example", password=PASSWORD)
        self.assert_accessible()
        self.press("Join the farm")
        driver.until(self.chrome, lambda chrome: chrome.current_url.endswith("/round"), "the round did not open")

    def advises(self, farm: str) -> None:
        self.chrome.get(f"{farm}/farm")
        self.press("A weather station")
        self.fill(name="Gate mast", elevation="600")
        self.press("Keep the station")
        self.sees("Gate mast")
        self.chrome.get(f"{farm}/farm")
        self.press("Readings")
        driver.until(self.chrome, lambda chrome: "/station/" in chrome.current_url, "the station's page did not open")

    def scouts(self, farm: str) -> None:
        self.chrome.get(f"{farm}/round")
        self.press("Stop here")
        driver.find(self.chrome, ".bench")

    def applies(self, farm: str) -> None:
        self.chrome.get(f"{farm}/do")
        driver.find(self.chrome, "h1")
        self.chrome.get(f"{farm}/people")
        self.sees("qualified until")

    def views(self, farm: str) -> None:
        self.chrome.get(f"{farm}/farm")
        self.sees("Long Row")
        self.assertNotIn("Add a block", self.chrome.page_source)
        self.assertNotIn("Still missing", self.chrome.page_source)

    def other_farm(self, farm: str) -> None:
        other = uuid.uuid4()
        with farm_session(other, role="owner") as session:
            founding.begin(session, other, Beginning("Far Holding", (-33.9, 18.4), "UTC", "Arla", "arla@far.example"), lambda: PASSWORD)
        self.chrome.delete_all_cookies()
        driver.sign_in(self.chrome, self.server.address, "arla@far.example", PASSWORD)
        self.chrome.get(f"{self.server.address}/f/{other}/farm")
        self.sees("Far Holding")
        self.assertNotIn("Upper Holding", self.chrome.page_source)
        self.chrome.get(f"{farm}/farm")
        self.sees("There is nothing here")
