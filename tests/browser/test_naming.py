"""Stories told through the Look screen to their right verdicts, as a scout taps them."""

import uuid
from typing import ClassVar

from selenium.webdriver.common.by import By

from bootmark.core.catalogue import default
from bootmark.standins.estate import FARM, made
from bootmark.store.models import Look
from bootmark.store.session import farm_session
from bootmark.web.bench import AT_FIRST
from tests.browser import driver
from tests.browser.live import LiveTest, pause_until
from tests.sending import send

CATALOGUE = default()
BEDS = {
    "tomato": "greenhouse",
    "raspberry": "tunnel",
    "pear": "orchard",
    "squash": "field",
    "citrus": "greenhouse",
    "azalea": "bed",
    "rose": "bed",
    "ash": "bed",
    "garlic": "field",
}


def point(test: LiveTest, part: str) -> None:
    """A click on the part itself: its middle may lie behind another part or its label. A part that this plant has not got is a button."""
    if not test.chrome.find_elements(By.CSS_SELECTOR, f"g[data-part='{part}']"):
        return test.press(part.capitalize())
    box = driver.find(test.chrome, f"g[data-part='{part}']")
    test.chrome.execute_script("arguments[0].dispatchEvent(new MouseEvent('click', {bubbles: true}))", box)


class Naming(LiveTest):
    stops: ClassVar[dict[str, uuid.UUID]]

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        for crop, place in BEDS.items():
            outline = [[7.1, 46.2], [7.1002, 46.2], [7.1002, 46.1999], [7.1, 46.1999]]
            block = {"name": f"Bed of {crop}", "crop": crop, "place": place, "area": 0.1, "outline": outline}
            send("block.save", block, made(f"bed/{crop}"))
        cls.sign_in("scout")

    def stop_in(self, crop: str) -> uuid.UUID:
        """A fresh stop, and the browser on its Look screen."""
        stop = uuid.uuid4()
        send("stop.open", {"block_id": str(made(f"bed/{crop}")), "where": "", "return_id": None}, stop, role="scout")
        self.go(f"look/{stop}")
        driver.find(self.chrome, ".bench .signs")
        return stop

    def tell(self, seen: str, absent: str = "") -> None:
        """Point at each sign's part and tap its drawing: once for seen, twice for not there."""
        for sign, taps in [*((sign, 1) for sign in seen.split()), *((sign, 2) for sign in absent.split())]:
            part = CATALOGUE.signs[sign].part
            point(self, part)
            if not self.chrome.find_element(By.ID, f"sign-{sign}").is_displayed():
                self.press("more seldom seen here")
            self.tap(sign, taps)
        driver.until(self.chrome, lambda c: c.find_element(By.ID, "suspects").get_attribute("aria-busy") != "true", "it is still ranking")

    def story(self, crop: str, seen: str, absent: str = "", *, verdict: str, also: tuple[str, ...] = ()) -> uuid.UUID:
        stop = self.stop_in(crop)
        self.tell(seen, absent)
        self.sees(verdict)
        for words in also:
            self.sees(words)
        return stop

    def test_a_virus_thrips_and_mites_on_one_crop(self) -> None:
        self.story(
            "tomato",
            "bronze-rings-on-leaf plants-stunted curl-on-new-growth-only",
            "slender-insects-on-paper",
            verdict="Not a pest: tomato spotted wilt",
        )
        self.story(
            "tomato",
            "silvering black-specks-in-silver slender-insects-on-paper thrips-in-flower",
            verdict="It is western flower thrips.",
            also=("At work now.",),
        )
        self.story("tomato", "stippling webbing-fine mites-and-round-eggs", verdict="It is two-spotted spider mite.")

    def test_a_parasitised_caterpillar(self) -> None:
        self.story(
            "tomato",
            "stubs horn-red straight-stripes white-cocoons-on-its-back",
            verdict="tobacco hornworm",
            also=("Parasitised: it will die without a spray.",),
        )

    def test_old_tunnels_in_fruit(self) -> None:
        self.story(
            "pear",
            "fruit-exit-hole-at-the-end fruit-entry-hole-with-frass empty-tunnel-to-the-core",
            "larva-at-the-core",
            verdict="It is codling moth.",
            also=("The attack is over",),
        )

    def test_drought_curl(self) -> None:
        self.story(
            "tomato",
            "curl-up curl-on-all-leaves soil-dry-a-finger-deep perks-up-hours-after-water irrigation-not-running",
            verdict="Not a pest: water shortage",
        )

    def test_two_causes_at_once(self) -> None:
        self.story(
            "raspberry",
            "stippling webbing-fine mites-and-round-eggs silvering black-specks-in-silver slender-insects-on-paper",
            verdict="It is",
            also=("two-spotted spider mite and western flower thrips.",),
        )

    def test_a_borer_a_gopher_and_drought_wilt_the_same_plant(self) -> None:
        self.story("squash", "drooping wet-sand-frass larva-in-the-stem", "soil-dry-a-finger-deep", verdict="It is squash vine borer.")
        self.story(
            "squash",
            "drooping gnawed-roots-gone mound-with-fan",
            "soil-dry-a-finger-deep larva-in-the-stem",
            verdict="It is pocket gopher.",
        )
        self.story(
            "squash",
            "drooping soil-dry-a-finger-deep perks-up-hours-after-water",
            "larva-in-the-stem gnawed-roots-gone",
            verdict="Not a pest: water shortage",
        )

    def test_dead_and_live_mealybugs(self) -> None:
        self.story("citrus", "cottony-masses honeydew crushed-body-wet", verdict="It is citrus mealybug.", also=("At work now.",))
        self.story(
            "citrus",
            "cottony-masses honeydew sooty-film crushed-body-dry",
            "crushed-body-wet",
            verdict="It is citrus mealybug.",
            also=("Dead: nothing alive was found.",),
        )

    def test_a_lace_bug_bound_to_its_host_is_not_taken_for_mites(self) -> None:
        self.story("azalea", "stippling black-spots-under-the-leaf lace-winged-bugs", verdict="It is azalea lace bug.")

    def test_beneficial_circles(self) -> None:
        self.story(
            "rose",
            "circles-cut-from-the-edge leaf-still-green-and-working bee-carrying-leaf",
            verdict="Help has come: leafcutter bee.",
        )

    def test_rotten_roots_are_not_drought(self) -> None:
        self.story(
            "raspberry",
            "drooping drooping-that-stays roots-brown soil-sodden",
            "soil-dry-a-finger-deep",
            verdict="Not a pest: root and crown rots",
        )

    def test_a_notifiable_beetle_is_reported(self) -> None:
        stop = self.story(
            "ash",
            "d-shaped-exit-holes galleries-under-bark dead-branches-at-the-top",
            verdict="It must be reported: emerald ash borer.",
            also=("do not move, post or treat it",),
        )
        self.press("Keep this look")
        self.press("Make the call")
        self.sees("report it")
        self.assertFalse(self.chrome.find_elements(By.CSS_SELECTOR, "input[name=control]"))
        with farm_session(FARM) as session:
            self.assertEqual(session.query(Look).filter_by(stop_id=stop).one().verdict, "must be reported")

    def test_what_is_normal_for_the_season(self) -> None:
        self.story("garlic", "tops-die-back-evenly yellowing-from-below old-leaves-fall", verdict="Normal for the season")

    def test_every_look_taken_and_still_no_name(self) -> None:
        self.stop_in("pear")
        self.tell("leaves-torn")
        for _ in range(25):
            if self.chrome.execute_script("return document.body.innerText.includes('No cause that Bootmark knows')"):
                break
            card = [element for element in self.chrome.find_elements(By.CSS_SELECTOR, ".next .dark .btn") if element.is_displayed()]
            spoken = self.chrome.find_element(By.CSS_SELECTOR, "[aria-live=polite]").text
            # The last button of the card says no: not there, or none of these.
            self.chrome.execute_script("arguments[0].click()", card[-1])
            driver.until(
                self.chrome, lambda c, old=spoken: c.find_element(By.CSS_SELECTOR, "[aria-live=polite]").text != old, "nothing was told"
            )
            driver.until(self.chrome, lambda c: c.find_element(By.ID, "suspects").get_attribute("aria-busy") != "true", "still ranking")
        self.sees("No cause that Bootmark knows fits this.")
        self.sees("Bag a sample in paper")

    def test_where_no_cause_fits_nothing_is_cleared_and_a_sample_is_spoken_of(self) -> None:
        self.story("tomato", "recent-frost", verdict="No cause that Bootmark knows fits this.", also=("ask a licensed adviser",))

    def test_contradicting_answers_are_pointed_out(self) -> None:
        self.stop_in("raspberry")
        self.tell("soil-dry-a-finger-deep soil-sodden")
        self.sees("can't both be")

    def test_the_next_look_is_answered_on_its_card(self) -> None:
        self.stop_in("raspberry")
        self.tell("stippling")
        self.sees("Lens on the underside")
        self.chrome.execute_script("arguments[0].click()", driver.find(self.chrome, ".next .dark .btn"))
        self.sees("It is two-spotted spider mite.")

    def test_a_look_that_needs_what_was_left_behind_is_not_asked_for(self) -> None:
        self.stop_in("raspberry")
        self.tell("stippling")
        self.sees("Lens on the underside")
        self.press("What you carry")
        box = self.chrome.find_element(By.XPATH, "//label[contains(., 'Hand lens')]/input")
        self.chrome.execute_script("arguments[0].click()", box)
        driver.until(
            self.chrome, lambda c: "Lens on the underside" not in c.find_element(By.CSS_SELECTOR, ".next .dark").text, "still the lens"
        )
        self.assert_accessible()
        self.chrome.execute_script("localStorage.removeItem('left-behind')")

    def test_a_finding_is_revised_and_both_versions_stay(self) -> None:
        stop = self.stop_in("raspberry")
        self.tell("stippling")
        self.press("Keep this look")
        self.press("The finding")
        self.sees("One version")
        self.assert_accessible()
        self.press("Revise it")
        self.tell("mites-and-round-eggs")
        self.press("Keep this look")

        def stored() -> bool:
            with farm_session(FARM) as session:
                return session.query(Look).filter_by(stop_id=stop).one().version == 2

        self.assertTrue(pause_until(stored))
        self.press("The finding")
        self.sees("Versions")
        self.press("What was told then")
        self.sees("Earlier on this block")

    def test_two_hundred_taps_in_a_minute_lose_nothing(self) -> None:
        stop = self.stop_in("pear")
        self.chrome.execute_script(
            "const signs = [...document.querySelectorAll('.sign')].slice(0, 4);"
            "for (let n = 0; n < 200; n++) signs[n % 4].click();"
            "signs[0].click();"
        )
        # Fifty taps of four states end on not there; one more on unsure.
        self.sees("Unsure:")
        self.press("Keep this look")

        def stored() -> bool:
            with farm_session(FARM) as session:
                look = session.query(Look).filter_by(stop_id=stop).one_or_none()
                return look is not None and sorted(look.signs.values()) == ["absent", "absent", "absent", "unsure"]

        self.assertTrue(pause_until(stored))

    def test_signs_seldom_seen_wait_behind_a_button(self) -> None:
        self.stop_in("tomato")
        driver.find(self.chrome, "g[data-part=underside]").click()
        self.assertEqual(
            len([element for element in self.chrome.find_elements(By.CSS_SELECTOR, ".sign") if element.is_displayed()]), AT_FIRST
        )
        self.press("more seldom seen here")
        self.assertGreater(
            len([element for element in self.chrome.find_elements(By.CSS_SELECTOR, ".sign") if element.is_displayed()]), AT_FIRST
        )
        self.assert_accessible()

    def test_an_answer_that_comes_after_a_newer_one_is_not_shown(self) -> None:
        self.stop_in("tomato")
        self.tap("curl-up")
        shown = self.chrome.execute_async_script(
            "const done = arguments[0], bench = Alpine.$data(document.querySelector('.bench')), real = window.fetch;"
            "const late = {};"
            "window.fetch = (path, options) => new Promise((answer) => {"
            "  const seq = JSON.parse(options.body).seq;"
            "  late[seq] = () => answer(new Response(JSON.stringify({...JSON.parse(JSON.stringify(bench.ranked)), seq}), {status: 200}));"
            "});"
            "const asked = [bench.ask(901), bench.ask(902)];"
            "late[902](); asked[1].then(() => { late[901](); return asked[0]; })"
            "  .then(() => { window.fetch = real; done(bench.ranked.seq); });"
        )
        self.assertEqual(shown, 902)


class Desk(LiveTest):
    """The Guide and the Enquiry, on the same server."""

    allowed_noise = ("400 (BAD REQUEST)",)

    def test_the_guide_finds_an_agent_by_an_old_name_and_tells_it_apart(self) -> None:
        self.sign_in("scout")
        self.go("guide")
        self.assert_accessible()
        driver.find(self.chrome, "#q").send_keys("apple worm")
        self.press("Find")
        # The page before names it too.
        driver.until(self.chrome, lambda c: "q=apple" in c.current_url, "nothing was looked for")
        self.press("Codling moth")
        self.sees("Its year here")
        self.sees("This year in Orchard A, median days")
        self.assert_accessible()
        self.press("Tell them apart")
        self.sees("Cut the fruit open")
        self.assert_accessible()
        self.go("guide/apart?agent=tomato-hornworm&agent=tobacco-hornworm")
        self.sees("Dark blue horn")
        self.assert_accessible()
        self.go("guide/drawings?leaf=needle&severity=1")
        self.sees("Life stages")
        self.assert_accessible()

    def test_the_guide_is_opened_by_plant_part_and_what_is_seen(self) -> None:
        self.sign_in("scout")
        self.go("guide?crop=pear")
        part = driver.find(self.chrome, ".plantparts a[aria-label=fruit]")
        self.chrome.get(f"{self.server.address}{part.get_dom_attribute('href')}")
        self.sees("What can be seen there")
        self.assert_accessible()
        self.press("Entry hole with droppings")
        self.sees("Codling moth")
        self.assert_accessible()

    def test_an_enquiry_is_asked_then_answered_in_a_letter(self) -> None:
        self.sign_in("adviser")
        self.go("enquiry")
        self.assert_accessible()
        driver.find(self.chrome, "[name=sender]").send_keys("A garden down the road")
        driver.find(self.chrome, "[name=crop]").send_keys("moonfruit")
        self.press("To the bench")
        self.sees("moonfruit is not a crop that Bootmark knows: choose its family")
        self.assert_accessible()
        driver.find(self.chrome, "select[name=family] option[value=Rosaceae]").click()
        self.press("To the bench")
        self.sees("causes of its family, Rosaceae")
        driver.find(self.chrome, "g[data-part='old leaf']").click()
        self.tap("stippling")
        self.sees("It needs a look before it has a name.")
        asked = driver.find(self.chrome, "#ask")
        driver.until(self.chrome, lambda _: "Thank you for asking" in str(asked.get_attribute("value")), "no request to send")
        self.assert_accessible()
        driver.find(self.chrome, "g[data-part=underside]").click()
        self.press("more seldom seen here")
        self.tap("mites-and-round-eggs")
        self.tap("webbing-fine")
        self.sees("It is two-spotted spider mite.")
        self.press("Keep this answer")
        self.press("Read the answer")
        self.sees("What to do")
        self.sees("That is proof.")
        self.assertNotIn("IRAC", self.chrome.find_element(By.TAG_NAME, "body").text)
        self.assert_accessible()


class Kinds(LiveTest):
    def enquire(self, crop: str, *signs: str) -> None:
        """An enquiry about a plant, brought to the desk and told of."""
        self.sign_in("adviser")
        self.go("enquiry")
        driver.find(self.chrome, "[name=sender]").send_keys("A garden down the road")
        driver.find(self.chrome, "[name=crop]").send_keys(crop)
        self.press("To the bench")
        for sign in signs:
            point(self, CATALOGUE.signs[sign].part)
            if not self.chrome.find_element(By.ID, f"sign-{sign}").is_displayed():
                self.press("more seldom seen here")
            self.tap(sign)

    def reply(self, *words: str) -> None:
        """The answer kept, and the words read in its letter."""
        self.press("Keep this answer")
        self.press("Read the answer")
        for line in words:
            self.sees(line)

    def test_a_letter_calls_the_plant_by_its_senders_word(self) -> None:
        self.enquire("my zucchini plant", "soft-aphids")
        self.sees("aphid")
        self.reply("Your zucchini plant:")

    def test_a_kind_is_named_on_a_plant_without_an_entry(self) -> None:
        self.enquire("canna lily", "soft-aphids")
        self.sees("It is aphids.")
        self.sees("canna lily has no entry of its own")
        self.reply("Your canna lily: aphids", "Wash off with water.")
        self.assert_accessible()

    def test_what_hurts_is_said_before_the_plant(self) -> None:
        self.enquire("oak", "hairs-that-burn")
        self.sees("It is caterpillars with burning hairs.")
        self.assertIn("burn", driver.find(self.chrome, ".bench .note.bad").text)
        self.reply("touch nothing")
        self.assertNotIn("Pick off", self.chrome.find_element(By.TAG_NAME, "body").text)
