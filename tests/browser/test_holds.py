"""A pest that must be reported, told through the screens: the block is held, walked last, and freed by the authority's word."""

import uuid

from selenium.webdriver.common.by import By

from bootmark.standins.estate import made
from tests.browser import driver
from tests.browser.live import LiveTest
from tests.sending import send
from tests.services.lines import PROOFS

BLOCK = "Old pears"
MOSAIC = dict.fromkeys(("mottled-mosaic", "plants-stunted", "leaves-small"), "seen") | {
    "two-lines-on-the-strip": "unsure",
    **dict.fromkeys(
        (
            "lower-leaves-rolled-stiff", "red-leaves-green-veins", "curl-down", "curl-random", "dodder-threads", "shoots-collapse-brown",
            "purple-old-leaves", "shot-holes", "brown-wrinkled-patches-on-fruit", "distorted-fruit", "surface-russet", "soft-sunken-fruit",
            "stings-and-dimples", "fruit-entry-hole-with-frass", "fruit-exit-hole-at-the-end", "fruit-pits",
            "bronze-rings-on-leaf", "angular-spots", "down-under-spots", "water-soaked-blotches", "white-powder", "rust-pustules",
            "olive-velvet-spots", "ringed-spots", "curl-on-all-leaves", "curl-on-new-growth-only", "soft-aphids", "jumping-lice",
            "green-aphids", "pink-aphids", "black-aphids", "leaves-strapped", "curl-up", "yellowing-at-the-margin", "rings-and-lines",
            "top-wilted", "flower-buds-dropped", "silvering", "bronzing",
        ),
        "absent",
    ),
}  # fmt: skip


class Held(LiveTest):
    allowed_noise = ("400 (BAD REQUEST)",)

    def setUp(self) -> None:
        super().setUp()
        outline = [[7.1, 46.2], [7.1002, 46.2], [7.1002, 46.1999], [7.1, 46.1999]]
        send("block.save", {"name": BLOCK, "crop": "pear", "place": "orchard", "area": 0.1, "outline": outline}, made(BLOCK))

    def write(self, name: str, words: str) -> None:
        driver.find(self.chrome, f"[name={name}]").send_keys(words)

    def choose(self, words: str) -> None:
        options = driver.find(self.chrome, "#answer [name=agent]").find_elements(By.TAG_NAME, "option")
        next(option for option in options if option.text == words).click()

    def test_a_report_holds_a_block_until_the_authority_frees_it(self) -> None:
        stop = uuid.uuid4()
        send("stop.open", {"block_id": str(made(BLOCK)), "where": ""}, stop)
        send("look.record", {"stop_id": str(stop), "signs": dict.fromkeys(PROOFS, "seen"), "note": ""}, uuid.uuid4())
        self.sign_in("owner")
        self.go(f"call/{stop}")
        self.sees("Photograph it, leave it where it is, report it.")
        self.press("Make this call")
        self.sees("plum curculio was reported")
        held = self.chrome.find_elements(By.CSS_SELECTOR, "ol li .note.bad")
        rows = self.chrome.find_elements(By.CSS_SELECTOR, "ol.rules > li")
        self.assertEqual([BLOCK in row.text for row in rows], [*[False] * (len(rows) - 1), True] if held else [False] * len(rows))
        self.go(f"call/{stop}")
        self.sees("nothing leaves it before the plant health authority frees it")
        self.assert_accessible()
        self.press("Keep the answer")
        self.sees("This is empty")
        self.sees("Choose it from the list.")
        self.choose("Plum curculio")
        self.write("answered_by", "The plant health desk")
        self.write("words", "It is plum curculio. Fallen fruit may be burnt on the spot.")
        self.press("Keep the answer")
        self.sees("The call below rests on it now.")
        self.sees("nothing leaves it before the plant health authority frees it")
        driver.find(self.chrome, "[name=frees]").click()
        self.press("Keep the answer")
        self.sees("The call below rests on it now.")
        self.assertFalse([note.text for note in self.chrome.find_elements(By.CSS_SELECTOR, ".note.bad") if "held" in note.text])
        self.go("book")
        self.sees("The block is free again.")

    def test_a_sample_that_comes_back_settles_the_call(self) -> None:
        outline, house, stop = [[7.1, 46.2], [7.1002, 46.2], [7.1002, 46.1999], [7.1, 46.1999]], "Mosaic house", uuid.uuid4()
        send("block.save", {"name": house, "crop": "tomato", "place": "greenhouse", "area": 0.1, "outline": outline}, made(house))
        send("stop.open", {"block_id": str(made(house)), "where": ""}, stop)
        send("look.record", {"stop_id": str(stop), "signs": MOSAIC, "note": ""}, uuid.uuid4())
        self.sign_in("scout")
        self.go(f"call/{stop}")
        self.sees("Send a sample before you act.")
        self.press("Make this call")
        self.sees("The call is made.")
        self.go(f"call/{stop}")
        self.sees("What came back from the clinic")
        self.assertFalse(self.chrome.find_elements(By.CSS_SELECTOR, "[name=frees]"))
        self.choose("Viruses")
        self.write("answered_by", "The clinic")
        self.write("words", "Cucumber mosaic virus.")
        self.press("Keep the answer")
        self.sees("The call below rests on it now.")
        self.sees("Lift")
        self.assert_accessible()
