"""Pictures that tell units of a count, and cards that a treatment wetted."""

import io
import random
import uuid

import numpy as np
from PIL import Image
from werkzeug.test import TestResponse

from bootmark.services.base.command import Refused
from bootmark.standins.estate import FARM
from bootmark.store.models import Photo, Stop, TreatmentRow
from bootmark.store.session import farm_session
from tests.outside.photographed import Picture, eaten_leaf, leaf_picture
from tests.outside.sheets import insects, poured, stuck, tapped, wetted
from tests.sending import send
from tests.services.lines import line
from tests.web.test_pages import F, PagesTest


def jpeg(picture: Picture) -> bytes:
    kept = io.BytesIO()
    Image.fromarray(picture).save(kept, "JPEG", quality=90)
    return kept.getvalue()


class Measured(PagesTest):
    def setUp(self) -> None:
        super().setUp()
        payloads = line()
        send("stop.open", *payloads["stop.open"])
        self.payload, self.record = payloads["sample.record"]
        self.stop = payloads["stop.open"][1]

    def sent(self, picture: bytes, **words: str) -> TestResponse:
        form = {
            "stop": str(self.stop),
            "csrf_token": self.token(self.client, f"{F}/round"),
            "photo": (io.BytesIO(picture), "photograph"),
            **words,
        }
        return self.client.post(f"{F}/photo", data={name: value for name, value in form.items() if value})

    def kept(self, answer: TestResponse) -> Photo:
        self.assertEqual(answer.status_code, 200, answer.text)
        with farm_session(FARM) as session:
            photo = session.get_one(Photo, (FARM, uuid.UUID(answer.json["record_id"])))
            session.expunge(photo)
        return photo

    def test_two_pictures_of_paper_tell_what_moved_and_the_count_keeps_them(self) -> None:
        pair = tapped(random.Random("two papers at a stop"), 14, 20)
        words = {"measures": "paper", "sheet": "A6", "gate": "as mites"}
        alone = self.sent(jpeg(pair.second), **words, second="yes")
        self.assertEqual(alone.status_code, 422, "a second without a first")
        first = self.kept(self.sent(jpeg(pair.first), **words))
        page = self.client.get(f"{F}/measure/{self.stop}").text
        self.assertIn("34 specks", page)
        self.assertNotIn("34 moved", page)
        second = self.kept(self.sent(jpeg(pair.second), **words, second="yes"))
        self.assertEqual(second.id, self.kept(self.sent(jpeg(pair.second), **words, second="yes")).id, "sent twice it is stored once")
        page = self.client.get(f"{F}/measure/{self.stop}").text
        self.assertIn("14 moved", page)
        self.assertIn("20 specks stayed", page)
        assert first.measured
        self.assertEqual(first.measured["count"], 34)
        count = self.client.get(f"{F}/count/{self.stop}?agent={self.payload['agent']}&told=14&picture={second.id}").text
        self.assertIn(f'"picture": "{second.id}"', count)
        foreign = self.client.get(f"{F}/count/{self.stop}?agent={self.payload['agent']}&told=14&picture={uuid.uuid4()}").text
        self.assertIn('"told": null', foreign)
        send("sample.record", self.payload | {"pictures": [str(second.id)]}, self.record)
        other = line()
        send("stop.open", *other["stop.open"])
        payload, record = other["sample.record"]
        with self.assertRaisesRegex(Refused, "another stop"):
            send("sample.record", payload | {"pictures": [str(second.id)]}, record)

    def test_a_picture_that_says_nothing_says_why(self) -> None:
        dark = np.full((600, 800, 3), 6, np.uint8)
        self.kept(self.sent(jpeg(dark), measures="paper", sheet="A6", gate="as mites"))
        self.assertIn("Too dark", self.client.get(f"{F}/measure/{self.stop}").text)
        for words, field in (
            ({"measures": "weight"}, "measures"),
            ({"measures": "paper", "sheet": "A9", "gate": "as mites"}, "sheet"),
            ({"measures": "paper", "sheet": "A6", "gate": ""}, "gate"),
        ):
            answer = self.sent(jpeg(dark), **words)
            self.assertEqual((answer.status_code, list(answer.json["errors"])), (422, [field]))

    def test_leaves_from_a_phone_are_measured_and_an_outline_drawn_by_hand_helps(self) -> None:
        where = f"{F}/condition/{self.stop}"
        rng = random.Random("leaves of a phone")
        self.kept(self.sent(jpeg(leaf_picture(rng, eaten_leaf(rng, 0.2))), measures="leaves"))
        self.assertRegex(self.client.get(where).text, r"\d+ % lost")
        lobed = leaf_picture(rng, eaten_leaf(rng, 0.2, form="lobed"))
        photo = self.kept(self.sent(jpeg(lobed), measures="leaves"))
        page = self.client.get(f"{where}?photo={photo.id}").text
        self.assertIn("tap round one whole leaf", page)
        box = "0.05,0.05 0.95,0.05 0.95,0.95 0.05,0.95"
        within = self.client.get(f"{where}?photo={photo.id}&outline={box}").text
        self.assertRegex(within, r"\d+ % lost")
        self.assertIn("outline=", within.partition("measured.jpg")[2][:120], "the same outline is laid over the picture")
        over = self.client.get(f"{F}/photo/{photo.id}/measured.jpg?outline={box}")
        self.assertEqual(over.mimetype, "image/jpeg")
        for nonsense in ("1,2", "a,b c,d e,f", "0,0 5,5 9,9"):
            self.assertIn("tap round one whole leaf", self.client.get(f"{where}?photo={photo.id}&outline={nonsense}").text)

    def test_a_card_a_week_later_shows_what_came(self) -> None:
        rng = random.Random("cards of a block")
        before = insects(rng, 12, (1.5, 2.2), [])
        words = {"measures": "card", "sheet": "100 by 200 mm"}
        self.kept(self.sent(jpeg(stuck(rng, before)), **words))
        self.assertIn("12 things sit on it", self.client.get(f"{F}/measure/{self.stop}?of=card").text)
        with farm_session(FARM) as session:
            block = session.get_one(Stop, (FARM, self.stop)).block_id
        later = uuid.uuid4()
        send("stop.open", {"block_id": str(block)}, later)
        self.stop = later
        self.kept(self.sent(jpeg(stuck(rng, before + insects(rng, 5, (1.5, 2.2), before))), **words))
        self.assertIn("5 came since", self.client.get(f"{F}/measure/{later}?of=card").text)

    def test_a_dish_is_counted_and_held_against_no_earlier_one(self) -> None:
        words = {"measures": "card", "sheet": "dish of 90 mm"}
        for n in range(2):
            self.kept(self.sent(jpeg(poured(random.Random(f"dish {n}"), 15, (2.5, 3.5))), **words))
        page = self.client.get(f"{F}/measure/{self.stop}?of=card").text
        self.assertIn("15 things sit on it", page)
        self.assertNotIn("came since", page)
        self.kept(self.sent(jpeg(stuck(random.Random("no dish"), [])), **words))
        self.assertIn("No round dish is seen", self.client.get(f"{F}/measure/{self.stop}?of=card").text)

    def test_cards_of_a_treatment_say_how_much_is_covered(self) -> None:
        with farm_session(FARM) as session:
            treatment = session.query(TreatmentRow).first()
            assert treatment
            where = f"{F}/droplets/{treatment.id}"
        self.assertIn("No card was pictured", self.client.get(where).text)
        for cover, place in ((0.1, "top"), (0.5, "underside")):
            card = wetted(random.Random(f"cards {cover}"), cover)
            words = {"stop": "", "treatment": str(treatment.id), "measures": "drops", "sheet": "26 by 76 mm", "place": place}
            self.kept(self.sent(jpeg(card.picture), **words))
        page = self.client.get(where).text
        self.assertIn("drops to a square centimetre", page)
        self.assertIn("are not counted", page)
        self.assertIn("Uneven by", page)
