"""The pages of what grows on a block, and of blocks that are cut and joined."""

import json
import re
import uuid

from sqlalchemy import event

from bootmark.standins.estate import FARM, NOW, ORIGIN, made
from bootmark.store.models import Block
from bootmark.store.session import engine, farm_session
from tests.web.test_pages import MOST_QUERIES, F, PagesTest

MILL = f"{F}/farm/block/{made('Mill Piece')}"
FIELD = f"{F}/farm/block/{made('Long Field')}"


class Plantings(PagesTest):
    def test_past_present_and_coming_crops_stand_on_the_block_s_page(self) -> None:
        listed = re.findall(r"\w+", self.client.get(MILL).text.partition('id="plantings"')[2].partition("</ul>")[0])
        self.assertEqual([word for word in listed if word in ("Potato", "Cabbage", "Onion")], ["Cabbage", "Potato", "Onion"])
        self.assertNotIn("Plant something", self.enter("scout").get(MILL).text)

    def test_a_crop_is_planted_refused_beside_its_field_and_seen_everywhere(self) -> None:
        form = self.form() | {"crop": "Leek", "since": "2026-06-10", "part": ""}
        answer = self.post(self.client, f"{MILL}/planting", form)
        self.assertEqual(answer.status_code, 400)
        self.assertIn("stands on all of the block then", answer.text)
        self.assertIn('value="Leek"', answer.text)
        self.assertEqual(self.post(self.client, f"{MILL}/planting", form | {"part": "the last two rows"}).status_code, 302)
        self.assertIn("the last two rows", self.client.get(MILL).text)
        # A stop is at one of its plants.
        choice = self.client.get(f"{F}/look", follow_redirects=True).text + self.client.get(f"{F}/round").text
        self.assertIn("Stop here: leek", choice)
        self.assertIn("Stop here: cabbage", choice)
        planting = re.search(r'href="[^"]*/planting/([0-9a-f-]+)">Leek', self.client.get(MILL).text)
        assert planting
        page = self.client.get(f"{F}/farm/planting/{planting[1]}").text
        self.assertIn("the last two rows", page)
        self.assertEqual(self.enter("scout").get(f"{F}/farm/planting/{planting[1]}").status_code, 403)

    def test_a_bare_block_is_on_no_round_and_says_so(self) -> None:
        page = self.client.get(FIELD).text
        planting = re.search(r'href="[^"]*/planting/([0-9a-f-]+)">Potato', page)
        assert planting
        held = self.client.get(f"{F}/farm/planting/{planting[1]}").text
        base = re.search(r'name="base" value="([0-9a-f-]+)"', held)
        assert base
        form = self.form() | {"record_id": planting[1], "base": base[1], "crop": "Potato", "cultivar": "Brindle", "until": "2026-06-17"}
        self.assertEqual(self.post(self.client, f"{FIELD}/planting", form).status_code, 302)
        self.assertIn("Nothing stands here now", self.client.get(FIELD).text)
        self.assertNotIn("Go to Long Field", self.client.get(f"{F}/round").text)
        self.assertIn("bare, last potato", self.client.get(f"{F}/farm").text)


class Parts(PagesTest):
    def test_a_piece_is_cut_off_and_joined_again(self) -> None:
        page = self.client.get(f"{FIELD}/parts").text
        self.assertIn('"form": "line"', page)
        form = self.form() | {"outline": json.dumps([[300, 150], [300, 350]]), "name": "Long Field, east"}
        missed = self.post(self.client, f"{FIELD}/divide", form | {"outline": json.dumps([[900, 150], [900, 350]])})
        self.assertEqual(missed.status_code, 400)
        self.assertIn("does not cut the block", missed.text)
        self.assertIn('value="Long Field, east"', missed.text)
        answer = self.post(self.client, f"{FIELD}/divide", form)
        piece = answer.headers["Location"]
        page = self.client.get(piece).text
        self.assertIn("Its ground was part of Long Field before", page)
        self.assertIn("Potato", page)
        parts = self.client.get(f"{FIELD}/parts").text
        self.assertIn("Long Field, east", parts)
        base = re.search(r'name="base" value="([0-9a-f-]+)"', parts)
        assert base
        join = self.form() | {"record_id": str(made("Long Field")), "base": base[1], "other_id": piece.rpartition("/")[2]}
        self.assertEqual(self.post(self.client, f"{FIELD}/join", join).status_code, 302)
        page = self.client.get(f"{F}/farm").text
        self.assertIn("No blocks any more", page)
        # The records of a block that has ended stay where they are read.
        self.assertEqual(self.client.get(piece).status_code, 200)
        for path in ("book", "stages", "do", "round", "timing"):
            self.assertEqual(self.client.get(f"{F}/{path}", follow_redirects=True).status_code, 200, path)

    def plan(self) -> str:
        return max(re.findall(r"<svg.*?</svg>", self.client.get(f"{F}/farm").text, re.DOTALL), key=len)

    def test_rows_lie_on_the_plan_as_they_are_told(self) -> None:
        before = self.plan()
        block = self.client.get(MILL).text
        base = re.search(r'action="[^"]*/farm/block"(?:.|\n)*?name="base" value="([0-9a-f-]+)"', block)
        outline = re.search(r'name="outline" value="([^"]*)"', block)
        assert base and outline
        form = self.form() | {"record_id": str(made("Mill Piece")), "base": base[1], "name": "Mill Piece", "place": "field", "area": "0.8"}
        form |= {"outline": outline[1], "row_direction": "30", "row_spacing": "20"}
        self.assertEqual(self.post(self.client, f"{F}/farm/block", form).status_code, 302)
        self.assertNotEqual(self.plan(), before)
        self.assertIn("Cabbage", self.client.get(MILL).text)


class Ended(PagesTest):
    def test_what_was_kept_of_a_block_that_has_ended_is_read_as_before(self) -> None:
        with farm_session(FARM) as session:
            ended = [session.get_one(Block, (FARM, made(name))) for name in ("Orchard A", "Orchard B", "Mill Piece")]
            for block in ended:
                block.ended = NOW.date()
        for path in (
            "book",
            "book?block=Orchard A",
            "book.csv",
            "traps",
            "stages",
            "do",
            "round",
            "timing",
            "farm",
            "look",
            "station/" + str(made("Valley mast")),
        ):
            answer = self.client.get(f"{F}/{path}", follow_redirects=True)
            self.assertEqual(answer.status_code, 200, path)
        self.assertIn("Orchard A", self.client.get(f"{F}/book").text)
        self.assertNotIn("Orchard A", self.client.get(f"{F}/round").text)


class Many(PagesTest):
    def test_a_farm_of_three_hundred_blocks_is_shown_with_as_few_questions(self) -> None:
        with farm_session(FARM) as session:
            first = session.get_one(Block, (FARM, made("Mill Piece")))
            kept = {column.key: getattr(first, column.key) for column in Block.__table__.columns}
            for number in range(292):
                across, down = 60 * (number % 24), 400 + 60 * (number // 24)
                corners = [(across, down), (across + 50, down), (across + 50, down + 50), (across, down + 50)]
                outline = [list(corner) for corner in ORIGIN.to_degrees(corners)]
                session.add(Block(**kept | {"id": uuid.uuid4(), "name": f"Plot {number:03}", "outline": outline}))
        for path in ("farm", "round", "look"):
            self.assertEqual(self.client.get(f"{F}/{path}", follow_redirects=True).status_code, 200, path)
        asked: list[str] = []
        event.listen(engine("web"), "before_cursor_execute", lambda *words: asked.append(words[2]))
        page = self.client.get(f"{F}/farm").text
        self.assertIn("300 blocks", page)
        self.assertTrue(all(f"Plot {number:03}" in page for number in range(292)))
        self.assertLessEqual(len(asked), MOST_QUERIES["farm"])
