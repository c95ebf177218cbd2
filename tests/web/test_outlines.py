"""Blocks from a file: what was understood is shown first, and kept whole or not at all; and the farm's own as a file."""

import io
import json
import math
import re
import uuid
from typing import Any

from sqlalchemy import select

from bootmark.formats import outlines
from bootmark.standins.estate import FARM
from bootmark.store.models import Block
from bootmark.store.session import farm_session
from tests.formats.test_outlines import RING, geojson, polygon
from tests.web.test_pages import F, PagesTest

PAGE = f"{F}/farm/outlines"


class Bringing(PagesTest):
    def read(self, content: bytes, name: str = "farm.geojson") -> Any:
        form = {"csrf_token": self.token(self.client, PAGE), "file": (io.BytesIO(content), name)}
        return self.client.post(f"{PAGE}/read", data=form, content_type="multipart/form-data")

    def names(self) -> set[str]:
        with farm_session(FARM) as session:
            return set(session.scalars(select(Block.name)))

    def form(self, page: str, **typed: str) -> dict[str, str]:  # type: ignore[override]
        """The preview's fields, as a browser would send them."""
        fields = dict(re.findall(r'name="((?:corners|command)[^"]*)" value="([^"]*)"', page))
        rows = [name.split(".")[1] for name in fields if name.startswith("corners.")]
        fields = {name: value.replace("&#34;", '"') for name, value in fields.items()}
        for row in rows:
            fields |= {f"take.{row}": "yes", f"name.{row}": f"Brought {row}", f"crop.{row}": "Pear", f"place.{row}": "orchard"}
        return fields | typed

    def test_what_was_understood_is_shown_and_kept_once(self) -> None:
        before = self.names()
        page = self.read(geojson(polygon(RING), polygon([[7.1, 46.2], [7.1, 46.2], [7.1, 46.21], [7.1, 46.2]]))).text
        self.assertIn("enclose no ground", page)
        self.assertEqual(self.names(), before)
        form = self.form(page)
        answer = self.post(self.client, PAGE, form, page=PAGE)
        self.assertEqual((answer.status_code, self.names() - before), (302, {"Brought 0"}))
        self.post(self.client, PAGE, form, page=PAGE)
        self.assertEqual(self.names() - before, {"Brought 0"})
        with farm_session(FARM) as session:
            block = session.scalars(select(Block).where(Block.name == "Brought 0")).one()
        # Half of 152.8 m by 111.2 m, at 46 degrees north: by hand.
        self.assertAlmostEqual(block.area, 0.858, delta=0.003)

    def test_all_are_kept_or_none_and_what_is_wrong_stands_beside_its_row(self) -> None:
        before = self.names()
        page = self.read(geojson(polygon(RING), polygon(RING))).text
        for change, words in (
            ({"name.1": "Orchard A"}, "called Orchard A already"),
            ({"crop.1": "moonflower tree"}, "not a crop"),
            ({"corners.1": "[[1]]"}, "How large"),
            ({"corners.1": "[[NaN, 1], [2, 3], [1e999, 5]]"}, "How large"),
            ({"take.0": "", "take.1": ""}, "Nothing is ticked"),
        ):
            form = self.form(page, command_id=str(uuid.uuid4()), **{"name.0": "Good Piece"}) | change
            form = {name: value for name, value in form.items() if value}
            answer = self.post(self.client, PAGE, form, page=PAGE)
            self.assertEqual((answer.status_code, words in answer.text), (400, True), change)
            self.assertEqual(self.names(), before)

    def test_a_name_that_is_taken_gets_a_number(self) -> None:
        features = [{"type": "Feature", "properties": {"name": "Orchard A"}, "geometry": polygon(RING)}] * 2
        page = self.read(json.dumps({"type": "FeatureCollection", "features": features}).encode()).text
        self.assertIn('value="Orchard A (2)"', page)
        self.assertIn('value="Orchard A (3)"', page)

    def test_many_corners_are_drawn_with_fewer_and_it_is_said(self) -> None:
        circle = [[7.1 + 0.002 * math.cos(math.tau * n / 100_000), 46.2 + 0.001 * math.sin(math.tau * n / 100_000)] for n in range(100_000)]
        page = self.read(geojson(polygon(circle))).text
        self.assertIn("drawn more simply than its 100000 corners", page)

    def test_odd_files_are_told_why_and_the_page_stays(self) -> None:
        swapped = [[north, east] for east, north in RING]
        country = [[-5, 42], [8, 43], [8, 51], [-5, 48]]
        date_line = [[179.9, 1], [-179.9, 1], [-179.9, 1.1]]
        pole = [[n * 40 - 160, 88] for n in range(9)]
        for content, words in (
            (b"", "is empty"),
            (b"\x89PNG\r\n", "a picture"),
            (b"lon,lat\n7.1,46.2\nhere,46\n", "Line 3 holds no two numbers"),
            (b"PK\x03\x04", "packed"),
            (b"{}", "no GeoJSON"),
        ):
            answer = self.read(content)
            self.assertEqual((answer.status_code, words in answer.text), (400, True), content)
        for ring, words in (
            (country, "a whole country"),
            (date_line, "over the date line"),
            (pole, "beside a pole"),
            ([[2600000, 1200000], [2600100, 1200000], [2600100, 1200100]], "metres of some projection"),
        ):
            self.assertIn(words, self.read(geojson(polygon(ring))).text)
        form = self.form(self.read(geojson(polygon(swapped))).text)
        self.assertIn("longitude comes first", self.post(self.client, PAGE, form, page=PAGE).text)

    def test_the_farm_s_own_blocks_are_a_file_that_can_be_read_back(self) -> None:
        answer = self.client.get(f"{F}/farm/blocks.geojson")
        self.assertEqual(answer.mimetype, "application/geo+json")
        drawn = outlines.read(answer.data)
        self.assertIn("Orchard A", {entry.name for entry in drawn})
        stranger = self.app.test_client()
        self.assertEqual(stranger.get(f"{F}/farm/blocks.geojson").status_code, 302)
