"""Three standard stops on a phone against the same on paper, by the keystroke-level model.

Run with ./bootmark bench taps. The application is driven as a thumb would: every tap is counted, and whether what is tapped lies in the
window or has to be scrolled to. Paper is reckoned from what is written there. Operators (seconds): a tap 0.28 and a key on glass 0.28, to
think 1.35, Card, Moran and Newell (1983), "The psychology of human-computer interaction"; a flick 0.70, a letter by hand 0.55, from memory.
What is looked for on the plant takes as long either way and is left out of both.
"""

from collections.abc import Callable
from dataclasses import dataclass, field

from selenium import webdriver

from bootmark.standins.estate import PASSWORD, PEOPLE, made
from tests import database
from tests.browser import driver
from tests.browser.live import Server

TAP, THINK, FLICK, LETTER = 0.28, 1.35, 0.70, 0.55
IN_REACH = "const box = arguments[0].getBoundingClientRect(); return box.top >= 0 && box.bottom <= innerHeight"


@dataclass
class Thumb:
    """What a thumb does. far: what had to be scrolled to, by its words."""

    chrome: webdriver.Chrome
    taps: int = 0
    thoughts: int = 0
    far: list[str] = field(default_factory=list)

    def tap(self, words: str, *, css: str = "", thinks: bool = False) -> None:
        target = driver.find(self.chrome, css) if css else driver.button(self.chrome, words)
        if not self.chrome.execute_script(IN_REACH, target):
            self.far.append(words or css)
            self.chrome.execute_script("arguments[0].scrollIntoView({block: 'center'})", target)
        self.taps += 1
        self.thoughts += thinks
        target.click()

    @property
    def seconds(self) -> float:
        return TAP * self.taps + THINK * self.thoughts + FLICK * len(self.far)


def on_paper(letters: int, thoughts: int) -> float:
    return LETTER * letters + THINK * thoughts


def open_stop(thumb: Thumb, address: str, block: str) -> None:
    """From the round into a stop: one tap on its own button."""
    thumb.chrome.get(f"{address}/round")
    form = f"form:has(input[name=block_id][value='{made(block)}']) button"
    thumb.tap(f"Stop here: {block}", css=form, thinks=True)
    driver.until(thumb.chrome, lambda chrome: "/look/" in chrome.current_url, "no stop was opened")


def sound(thumb: Thumb, address: str) -> None:
    """Nothing is wrong."""
    open_stop(thumb, address, "Mill Piece")
    thumb.tap("Nothing wrong here", thinks=True)
    driver.sees(thumb.chrome, "Kept")


def presence(thumb: Thumb, address: str) -> None:
    """Thirty leaves by yes and no, on a count that is a share."""
    open_stop(thumb, address, "Birch bed")
    thumb.chrome.get(f"{thumb.chrome.current_url.replace('/look/', '/count/')}?agent=birch-leafminer")
    for leaf in range(30):
        thumb.tap("Yes" if leaf % 5 == 0 else "No", thinks=leaf == 0)
    thumb.tap("Undo")
    thumb.tap("Yes")
    thumb.tap("Keep this count", thinks=True)
    driver.sees(thumb.chrome, "Kept")


def named(thumb: Thumb, address: str) -> None:
    """Mites are proved, ten leaves counted, the call made."""
    open_stop(thumb, address, "Hop yard")
    thumb.tap("stippling", css="#sign-stippling", thinks=True)
    thumb.tap("Underside")
    thumb.tap("mites and round eggs", css="#sign-mites-and-round-eggs", thinks=True)
    thumb.tap("Keep this look")
    thumb.tap("Count them")
    driver.sees(thumb.chrome, "Leaf 1")
    for _ in range(10):
        thumb.tap("+5 pests")
        for _ in range(3):
            thumb.tap("one more", css=".key")
        thumb.tap("done, next")
    thumb.tap("Keep this count")
    thumb.tap("Make the call", thinks=True)
    driver.sees(thumb.chrome, "Choose the control")
    thumb.tap("Potassium soap", thinks=True)
    thumb.tap("Make this call", thinks=True)


PAPER = {
    "nothing wrong": on_paper(len("18.6. Mill Piece, 10 plants, nothing"), 2),
    "thirty leaves, yes or no": on_paper(len("18.6. Birch bed, leafminer") + 30 + len("6 of 30 = 20 %"), 4),
    "named, ten counted, called": on_paper(
        len("18.6. Hop yard, stippling, live mites under the lens")
        + 10 * 2
        + len("80 : 10 = 8 a leaf, more than 5")
        + len("soap on 19.6., look on 26.6."),
        8,
    ),
}
"""What stands in a notebook afterwards; a sum and a threshold looked up are thought about."""
STOPS: dict[str, Callable[[Thumb, str], None]] = {
    "nothing wrong": sound,
    "thirty leaves, yes or no": presence,
    "named, ten counted, called": named,
}


def main() -> None:
    name = database.clone()
    server = Server()
    server.start()
    try:
        with driver.browser() as chrome:
            driver.size(chrome, driver.PHONE)
            email = next(mail for _, mail, role, _ in PEOPLE if role == "scout")
            driver.sign_in(chrome, server.address, email, PASSWORD)
            farm = chrome.current_url.rsplit("/", 1)[0]
            for title, stop in STOPS.items():
                thumb = Thumb(chrome)
                stop(thumb, farm)
                ratio = thumb.seconds / PAPER[title]
                print(f"{title:30} {thumb.taps:4} taps {thumb.seconds:6.1f} s, paper {PAPER[title]:6.1f} s, {ratio:.2f} of paper")
                print(f"{'':30} scrolled to: {', '.join(thumb.far) or 'nothing'}")
    finally:
        server.kill()
        database.drop(name)


if __name__ == "__main__":
    main()
