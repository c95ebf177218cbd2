"""The whole line, from sign-in to the return look: as a scout, then as the applicator, then on the day."""

from selenium.webdriver import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from sqlalchemy import select

from bootmark.standins.estate import FARM, made
from bootmark.store.models import DecisionRow, Look, ReturnVisit, SampleRow, TreatmentRow
from bootmark.store.session import farm_session
from tests.browser import driver
from tests.browser.live import LiveTest, pause_until


class Line(LiveTest):
    # A form that is refused beside its fields is answered with 400, and the browser says so.
    allowed_noise = ("400 (BAD REQUEST)",)

    def count(self, pests: int, units: int) -> None:
        for _ in range(units):
            for _ in range(pests // 5):
                self.press("+5 pests")
            for _ in range(pests % 5):
                driver.find(self.chrome, ".key").click()
            self.press("done, next")

    def test_from_the_round_to_the_look_that_it_booked(self) -> None:
        self.sign_in("scout")
        self.assert_accessible()
        self.sees("Today's round")
        self.open_stop("Hop yard")
        self.assert_accessible()
        self.tap("stippling")
        self.sees("It needs a look before it has a name.")
        self.chrome.execute_script("arguments[0].scrollIntoView({block: 'center'})", driver.find(self.chrome, "g[data-part=underside]"))
        driver.find(self.chrome, "g[data-part=underside]").click()
        self.tap("mites-and-round-eggs")
        self.sees("It is two-spotted spider mite.")
        self.press("Why, and what would change it")
        self.sees("Mites and round eggs: only it leaves this.")
        self.assert_accessible()
        self.press("Keep this look")
        self.press("Count them")
        self.sees("Leaf 1")
        self.count(8, 10)
        self.sees("Enough: it matters")
        self.assert_accessible()
        self.press("Keep this count")
        self.press("Make the call")
        self.sees("Choose the control")
        self.assert_accessible()
        self.press("Potassium soap")
        self.press("Make this call")
        self.sees("Eggs it spared hatch in")
        self.assert_accessible()

        with farm_session(FARM) as session:
            decision = session.scalars(select(DecisionRow).where(DecisionRow.block_id == made("Hop yard"))).one()
            treatments = session.scalars(
                select(TreatmentRow).where(TreatmentRow.decision_id == decision.id).order_by(TreatmentRow.ordinal)
            ).all()
        self.assertEqual(decision.kind, "act now")
        self.assertEqual(len(treatments), 3)

        self.go(f"do/{treatments[0].id}")
        self.sees("An applicator or the owner signs this.")
        self.assert_accessible()
        self.sign_in("applicator")
        self.go("do")
        self.assert_accessible()
        self.go(f"do/{treatments[0].id}")
        self.assert_accessible()
        self.press("Sign as")
        self.sees("Tick each check before you sign.")
        for box in self.chrome.find_elements(By.CSS_SELECTOR, "input[name=checks]"):
            self.chrome.execute_script("arguments[0].click()", box)
        amount = driver.find(self.chrome, "input[name=amount]")
        amount.clear()
        amount.send_keys("600")
        self.press("Sign as")
        self.sees("Signed.")

        with farm_session(FARM) as session:
            visit = session.scalars(select(ReturnVisit).where(ReturnVisit.decision_id == decision.id, ReturnVisit.state == "booked")).one()
        self.assertEqual(visit.due_on.isoformat(), "2026-06-20")
        self.sign_in("scout")
        reason = "See whether it worked on two-spotted spider mite"
        self.assertNotIn(f"{reason}, due today: Specks on paper", self.chrome.find_element(By.TAG_NAME, "body").text)
        self.step_clock("day")
        self.step_clock("day")
        self.sees(f"{reason}, due today: Specks on paper")
        self.open_stop("Hop yard")
        self.sees("Look again on two-spotted spider mite")
        self.press("What was counted before")
        self.sees("One count so far")
        self.assert_accessible()

    def test_circles_are_left_alone_and_a_sound_stop_is_one_tap(self) -> None:
        self.sign_in("scout")
        self.open_stop("Orchard A")
        self.sees("Nothing wrong here")
        keys = (Keys.TAB, Keys.TAB, Keys.ENTER, Keys.TAB)
        ActionChains(self.chrome).send_keys(*keys).perform()
        self.assertRegex(self.chrome.switch_to.active_element.get_attribute("id") or "", "^sign-", "the first sign is four keys away")
        self.press("Nothing wrong here")
        self.sees("This stop is sound.")
        self.chrome.get(f"{self.farm}/call/{self.bee_stop()}")
        self.sees("Leave it: no harm comes of leafcutter bee.")
        chosen = [choice.get_attribute("value") or "" for choice in self.chrome.find_elements(By.CSS_SELECTOR, "input[name=control]")]
        self.assertEqual([control for control in chosen if control and not control.startswith("instead:")], [], "no control is offered")
        self.assert_accessible()

    def bee_stop(self) -> str:
        with farm_session(FARM) as session:
            return str(session.scalars(select(Look.stop_id).where(Look.verdict == "help has come")).one())

    def test_a_count_after_release_shows_that_it_worked(self) -> None:
        self.sign_in("scout")
        self.open_stop("Tunnel 2")
        self.sees("Predators on most infested leaves")
        self.go(self.chrome.current_url.split(f"{FARM}/")[1].replace("look/", "count/"))
        self.count(1, 4)
        driver.find(self.chrome, ".key.moss").click()
        self.press("done, next")
        self.press("Keep this count")
        self.sees("On with the round")

        def stored() -> bool:
            with farm_session(FARM) as session:
                row = session.scalars(
                    select(SampleRow).where(SampleRow.account_id == made("maro@ferrin.example")).order_by(SampleRow.seen_at.desc()).limit(1)
                ).one()
            return row.counts == [1, 1, 1, 1, 0] and sum(row.enemies) == 1

        self.assertTrue(pause_until(stored))
        self.go(f"book/compare/{made('Tunnel 2')}/two-spotted-spider-mite")
        self.sees("fewer than at the first count")
        self.assert_accessible()
