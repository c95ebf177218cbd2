"""Where a pest starts to matter on this farm: set with a reason, worked out from prices, and held against at once."""

import uuid

from bootmark.core.catalogue import default
from bootmark.services.treatment import thresholds
from bootmark.standins.estate import FARM, made
from bootmark.store.session import farm_session
from tests.database import catalogue
from tests.sending import send
from tests.web.test_pages import F, PagesTest

MITE = f"{F}/threshold/two-spotted-spider-mite"


class Threshold(PagesTest):
    def test_the_farm_s_own_stands_before_the_catalogue_s_until_it_is_withdrawn(self) -> None:
        page = self.client.get(f"{MITE}?crop=hop").text
        self.assertIn("<strong>5</strong> mites per leaf", page)
        form = self.form() | {"crop": "hop", "measure": "mean", "value": "2.5", "why": "Picked for the market"}
        self.assertEqual(self.post(self.client, MITE, form | {"why": ""}).status_code, 400)
        self.assertEqual(self.post(self.client, MITE, form).status_code, 302)
        page = self.client.get(f"{MITE}?crop=hop").text
        self.assertIn("the farm's own", page)
        self.assertIn("The catalogue says 5", page)
        with farm_session(FARM) as session:
            own = thresholds.own(session, catalogue).agent("two-spotted-spider-mite")
        for crop, value in (("hop", 2.5), ("raspberry", 5)):
            told = own.threshold(crop, "mean")
            assert told
            self.assertEqual(told.value, value, crop)
        reason = self.form() | {"record_id": form["record_id"], "base": form["command_id"], "withdrawn": "yes", "reason": "No more"}
        self.assertEqual(self.post(self.client, f"{F}/book/record/{form['record_id']}/withdraw", reason).status_code, 302)
        with farm_session(FARM) as session:
            told = thresholds.own(session, catalogue).agent("two-spotted-spider-mite").threshold("hop", "mean")
            assert told
            self.assertEqual(told.value, 5)
        self.assertEqual(self.enter("scout").get(f"{MITE}?crop=hop").status_code, 403)
        self.assertEqual(self.client.get(f"{F}/threshold/unicorn").status_code, 404)

    def test_traps_among_dispensers_have_a_threshold_of_their_own(self) -> None:
        moth = f"{F}/threshold/oriental-fruit-moth"
        page = self.client.get(f"{moth}?crop=peach").text
        self.assertIn("By traps among dispensers", page)
        page = self.client.get(f"{moth}?crop=peach&measure=disrupted").text
        self.assertIn("None is set: as elsewhere, <strong>10</strong> males per trap and week", page)
        self.assertNotIn("Work it out from your prices", page)
        form = self.form() | {"crop": "peach", "measure": "disrupted", "value": "2", "why": "As the lure's maker says"}
        self.assertEqual(self.post(self.client, moth, form).status_code, 302)
        self.assertIn(
            "<strong>2</strong> males per trap and week, among dispensers, the farm",
            self.client.get(f"{moth}?measure=disrupted&crop=peach").text,
        )
        with farm_session(FARM) as session:
            own = thresholds.own(session, catalogue).agent("oriental-fruit-moth")
        values = [line.value for measure in ("disrupted", "trap", "proportion") if (line := own.threshold("peach", measure))]
        self.assertEqual(values, [2, 10, 0.02])
        # Nothing is hung against the mite.
        self.assertNotIn("among dispensers", self.client.get(f"{MITE}?crop=hop&measure=disrupted").text)

    def test_a_level_from_prices_and_why_there_is_none(self) -> None:
        # C / (V I D K) = 60 / (4 x 1 x 35 x 0.8) = 0.536; doubled in four days, five days lost: 0.536 / 2^1.25 = 0.225. By hand.
        asked = "crop=hop&cost=60&value=4&injury=1&damage=35&efficacy=0.8"
        page = self.client.get(f"{MITE}?{asked}&doubling=4&wait=2&bite=3").text
        self.assertIn("It pays from 0.536 mites per leaf", page)
        self.assertIn("<strong>0.225</strong>", page)
        for words, sentence in (
            (asked.replace("value=4", "value=0"), "without a price there is no level"),
            (asked.replace("cost=60", "cost=sixty"), "is not one number"),
            (asked.replace("crop=hop", "crop=rose"), "loses by blemishes"),
        ):
            page = self.client.get(f"{MITE}?{words}").text
            self.assertIn(sentence, page)
            self.assertNotIn("It pays from", page)

    def test_a_farm_s_own_counts_tell_how_its_pest_clumps(self) -> None:
        stop = send("stop.open", {"block_id": str(made("Hop yard"))})["record_id"]
        for level in (1, 2, 3, 4, 6, 8, 10, 12, 16, 20, 24, 30):
            counts = [0, 0, 0, 4 * level] * 5
            payload = {
                "stop_id": stop,
                "agent": "two-spotted-spider-mite",
                "unit": "leaf",
                "measure": "mean",
                "counts": counts,
                "enemies": [],
            }
            send("sample.record", payload, uuid.uuid4())
            picked = payload | {"counts": [400] * 20, "chosen": "picked"}
            send("sample.record", picked, uuid.uuid4())
        with farm_session(FARM) as session:
            own = thresholds.own(session, default()).agent("two-spotted-spider-mite").sampling
        assert own and own.taylor
        # The demo's own even counts lie among them; one leaf in four with four times the level has three times the mean squared.
        self.assertGreater(own.taylor.b, 1.2)


class Routine(PagesTest):
    def test_none_of_thirty_is_counted_without_a_name(self) -> None:
        stop = send("stop.open", {"block_id": str(made("Orchard A"))}, role="scout")["record_id"]
        page = self.client.get(f"{F}/count/{stop}").text
        self.assertIn("none of thirty is half of scouting", page)
        self.assertIn('value="codling-moth"', page)
        page = self.client.get(f"{F}/count/{stop}?agent=pear-psylla").text
        self.assertIn("It may stop from 20", page)
        self.assertNotIn("Make the call", page)
