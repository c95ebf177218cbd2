"""Ready for other tongues: in a language that is a third longer, with an accent on every letter, every main view at both sizes says all
of it in that language, and nothing overflows; once more from right to left."""

import re
from typing import Any, ClassVar

from sqlalchemy import select
from sqlalchemy.orm import Session

from bootmark.core import catalogue as catalogues
from bootmark.say import TONGUES, shown
from bootmark.services.base.states import TreatmentState
from bootmark.services.owning import lands
from bootmark.standins import estate
from bootmark.store.models import (
    Application,
    Biofix,
    DecisionRow,
    Enquiry,
    Look,
    Opinion,
    PlanFeature,
    ReturnVisit,
    SampleRow,
    Station,
    Stop,
    Trap,
    TreatmentRow,
)
from bootmark.store.session import farm_session
from tests import database, pseudo
from tests.browser import driver
from tests.browser.live import LiveTest

# All that is read on the page as it stands: texts and attributes, with the element that holds them.
READ = """
const shown = (one) => one.checkVisibility({ visibilityProperty: true }) && one.getClientRects().length;
const told = [];
const walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
while (walk.nextNode()) {
  const holder = walk.currentNode.parentElement;
  if (holder.closest('script, style, template, [translate="no"]') || !shown(holder)) continue;
  if (walk.currentNode.data.trim()) told.push([walk.currentNode.data.trim(), holder.tagName + "." + holder.className]);
}
for (const one of document.querySelectorAll("[aria-label], [alt], [placeholder], [title]")) {
  if (one.closest('[translate="no"]') || !shown(one)) continue;
  for (const name of ["aria-label", "alt", "placeholder", "title"]) if (one.getAttribute(name)) told.push([one.getAttribute(name), one.tagName + " " + name]);
}
return told;
"""
OVERFLOWS = """
const wide = [];
const page = document.scrollingElement;
if (page.scrollWidth > page.clientWidth + 1) wide.push("the page: " + page.scrollWidth + " of " + page.clientWidth);
for (const one of document.querySelectorAll("a, button, h1, h2, h3, p, td, th, dt, dd, label, summary, span, li")) {
  if (!one.checkVisibility({ visibilityProperty: true }) || !one.getClientRects().length || one.closest(".scroll, .unseen, .skip, svg")) continue;
  if (getComputedStyle(one).overflowX === "visible" && one.scrollWidth > one.clientWidth + 2 && one.clientWidth)
    wide.push(one.tagName + "." + one.className + ": " + one.textContent.trim().slice(0, 60) + " " + one.scrollWidth + " of " + one.clientWidth);
}
for (const one of document.querySelectorAll("svg text")) {
  if (!one.checkVisibility({ visibilityProperty: true })) continue;
  const [box, room] = [one, one.ownerSVGElement].map((each) => each.getBoundingClientRect());
  if (box.width && (box.left < room.left - 2 || box.right > room.right + 2)) wide.push("cut off: " + one.textContent);
}
for (const one of document.querySelectorAll(".lug span, .signs *")) {
  const [box, room] = [one, one.parentElement].map((each) => each.getBoundingClientRect());
  const text = document.createRange();
  text.selectNode(one.firstChild || one);
  const words = text.getBoundingClientRect();
  if (one.matches(".unseen") || !box.width) continue;
  if (words.width > room.width + 1 || box.right > room.right + 2) wide.push("too wide: " + one.textContent.trim().slice(0, 40));
}
return wide;
"""
OWN = {
    *lands.named("AT").split(), *(word for _, mail, *_ in estate.PEOPLE for word in re.split(r"\W", mail)),
    *estate.NAME.split(), "CET", "Bootmark", "computer", "BBCH", "DD", "GHCN", "CSV", "JSON", "IRAC", "FRAC", "Delta", "EXIF",
    *(word for name, *_ in estate.PEOPLE for word in name.split()),
    *(word for name in estate.SITES for word in name.split()),
    *(word for name, _, _, cultivar, *_ in estate.BLOCKS for word in (name + " " + cultivar).split()),
}  # fmt: skip
"""Words of the farm's own data, and names that are the same in every language."""
UNIT = re.compile(r"^(?:ferrin|ha|km|mm|cm|ml|kg|UTC|http|https|www|localhost|example|com|csv|uuid)$")
PATHS = (
    "round",
    "stages",
    "timing",
    "do",
    "book",
    "guide",
    "enquiry",
    "farm",
    "devices",
    "people",
    f"people/{estate.made(estate.PEOPLE[1][1])}",
    "settings",
    "farm/outlines",
    "farm/block/new",
    "running",
    "traps",
    "guide/drawings",
    "guide/agent/codling-moth",
)


def stored(session: Session) -> list[str]:
    """What people wrote, and what was stored as it was shown then: both are shown as they are."""
    columns: list[Any] = [
        DecisionRow.headline,
        DecisionRow.why,
        Opinion.words,
        TreatmentRow.why,
        ReturnVisit.look_for,
        Biofix.basis,
        Enquiry.sender,
        Enquiry.words,
        Look.note,
    ]
    columns += [PlanFeature.name, Stop.where, Application.amount_unit, Trap.name, SampleRow.unit]
    texts = {text for column in columns for text in session.scalars(select(column)) if text}
    for working in session.scalars(select(DecisionRow.working)):
        texts |= {shown(line) for name in ("reasons_for", "reasons_against", "would_change") for line in working["result"][name]}
    for working in session.scalars(select(Look.working)):
        verdict = working["verdict"]
        texts |= {shown(line) for name in ("speaks_for", "speaks_against", "would_change", "advice") for line in verdict[name]}
    return sorted(texts, key=len, reverse=True)


def left_out(page_text: list[list[str]], as_stored: list[str]) -> list[str]:
    """Words in plain letters, which nobody has put into the language."""
    plain = []
    for text, holder in page_text:
        rest = " ".join(text.split())
        for kept in as_stored:
            rest = rest.replace(kept, " ").replace(kept[:1].lower() + kept[1:], " ")
        words = re.findall(r"[A-Za-z]{3,}", re.sub(r"[^\W\d_A-Za-z][\w]*|[A-Za-z]+[^\W\d_A-Za-z]\w*", " ", rest))
        plain += [f"{word} in {rest[:80]!r} ({holder})" for word in words if word not in OWN and not UNIT.match(word)]
    return plain


class Tongues(LiveTest):
    rtl: ClassVar[bool] = False
    allowed_noise = ("404 (NOT FOUND)",)
    as_stored: ClassVar[list[str]]

    @classmethod
    def setUpClass(cls) -> None:
        # What people wrote was written in English.
        database.template()
        tongue = pseudo.tongue(rtl=cls.rtl)
        TONGUES[tongue.language] = tongue
        cls.addClassCleanup(TONGUES.pop, tongue.language)
        cls.addClassCleanup(catalogues.default.cache_clear)
        shipped = pseudo.shipped_as(pseudo.catalogue())
        shipped.start()
        cls.addClassCleanup(shipped.stop)
        super().setUpClass()
        cls.sign_in("owner")
        with farm_session(estate.FARM) as session:
            cls.as_stored = stored(session)
        cls.server.app.config["LANGUAGE"] = tongue.language

    def views(self) -> list[str]:
        """Every main view, and each page that opens from one."""
        with farm_session(estate.FARM) as session:

            def first(column: Any, *where: Any) -> Any:
                return session.scalars(select(column).where(*where).limit(1)).one()

            stop, call = first(DecisionRow.look_id), first(DecisionRow.id)
            at = session.get_one(Look, (estate.FARM, stop)).stop_id
            beetle = f"{estate.made('Long Field')}/colorado-potato-beetle"
            return [
                *PATHS,
                f"look/{at}",
                f"count/{at}",
                f"call/{at}",
                f"finding/{stop}",
                f"book/record/{call}",
                f"do/{first(TreatmentRow.id, TreatmentRow.state == TreatmentState.PLANNED)}",
                f"enquiry/{first(Enquiry.id)}",
                f"enquiry/{first(Enquiry.id)}/reply",
                f"station/{first(Station.id)}",
                f"stages/{beetle}",
                f"traps/{first(Trap.id)}",
                f"farm/block/{estate.made('Long Field')}",
                "guide/apart?agent=codling-moth&agent=apple-maggot",
                "no-such-page",
            ]

    def look_at(self, view: str, size: tuple[int, int]) -> tuple[list[str], list[Any]]:
        driver.size(self.chrome, size)
        self.go(view)
        driver.until(self.chrome, lambda c: c.execute_script("return document.readyState") == "complete", view)
        said = left_out(self.chrome.execute_script(READ), self.as_stored)
        return sorted(set(said)), self.chrome.execute_script(OVERFLOWS)

    def test_every_view_says_all_of_it_and_nothing_overflows(self) -> None:
        for size in (driver.DESK, driver.PHONE):
            for view in self.views():
                said, wide = self.look_at(view, size)
                with self.subTest(view=view, size=size):
                    self.assertEqual((said, wide), ([], []))


class FromRightToLeft(Tongues):
    rtl = True
