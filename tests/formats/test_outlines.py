"""Outlines in files: what is read, and what each odd file is told."""

import json
import math
import unittest
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from bootmark.formats import outlines
from bootmark.formats.outlines import Unread, Why, read, to_geojson

RING = [[7.1, 46.2], [7.102, 46.2], [7.102, 46.199], [7.1, 46.2]]
CORNERS = ((7.1, 46.2), (7.102, 46.2), (7.102, 46.199))


def geojson(*geometries: dict[str, Any], **top: Any) -> bytes:
    features = [{"type": "Feature", "properties": {"name": f"Piece {n}"}, "geometry": each} for n, each in enumerate(geometries, 1)]
    return json.dumps({"type": "FeatureCollection", "features": features, **top}).encode()


def polygon(*rings: Any) -> dict[str, Any]:
    return {"type": "Polygon", "coordinates": list(rings)}


def kml(*placemarks: str, head: str = "") -> bytes:
    return (
        f'<?xml version="1.0"?>{head}<kml xmlns="http://www.opengis.net/kml/2.2"><Document>{"".join(placemarks)}</Document></kml>'.encode()
    )


PLACEMARK = (
    "<Placemark><name>Mill &amp; Piece</name><Polygon><outerBoundaryIs><LinearRing><coordinates>"
    "7.1,46.2,0 7.102,46.2,0\n 7.102,46.199,0 7.1,46.2,0</coordinates></LinearRing></outerBoundaryIs>"
    "<innerBoundaryIs><LinearRing><coordinates>7.101,46.1999 7.1011,46.1999 7.1011,46.1998</coordinates></LinearRing></innerBoundaryIs>"
    "</Polygon></Placemark>"
)


class Reading(unittest.TestCase):
    def test_the_three_ways_to_tell_an_outline(self) -> None:
        table = "block;longitude;latitude\nMill;7,1;46,2\nMill;7,102;46,2\nMill;7,102;46,199\n"
        for content, names in (
            (geojson(polygon(RING), polygon(RING)), ["Piece 1", "Piece 2"]),
            (json.dumps(polygon(RING)).encode(), ["1"]),
            (geojson({"type": "MultiPolygon", "coordinates": [[RING], [RING]]}), ["Piece 1 1", "Piece 1 2"]),
            (
                geojson({"type": "GeometryCollection", "geometries": [polygon(RING), {"type": "Point", "coordinates": [7, 46]}]}),
                ["Piece 1"],
            ),
            (b"\xef\xbb\xbf" + kml(PLACEMARK), ["Mill & Piece"]),
            (table.encode(), ["Mill"]),
            (b"lat,lon\n46.2,7.1\n46.2,7.102\n46.199,7.102\n46.2,7.1\n", ["1"]),
        ):
            drawn = read(content)
            self.assertEqual([entry.name for entry in drawn], names)
            self.assertEqual({entry.corners for entry in drawn}, {CORNERS})

    def test_holes_are_counted(self) -> None:
        self.assertEqual([entry.holes for entry in read(kml(PLACEMARK))], [1])
        self.assertEqual([entry.holes for entry in read(geojson(polygon(RING, RING, RING)))], [2])

    def test_what_is_no_pair_of_numbers_keeps_its_place(self) -> None:
        [entry] = read(geojson(polygon([[7.1, 46.2], ["a", None], [7.102, 46.199]])))
        self.assertTrue(math.isnan(entry.corners[1][0]))
        self.assertEqual(entry.corners[2], CORNERS[2])

    def test_every_odd_file_has_its_answer(self) -> None:
        point, line = {"type": "Point", "coordinates": [7, 46]}, {"type": "LineString", "coordinates": RING}
        crs = {"type": "name", "properties": {"name": "urn:ogc:def:crs:EPSG::25832"}}
        for content, why in (
            (b"  \n", Why.EMPTY),
            (b"x" * (outlines.MOST_BYTES + 1), Why.LARGE),
            (b"PK\x03\x04", Why.ZIPPED),
            (b"\x89PNG\r\n\x1a\n", Why.PICTURE),
            (b"\xff\xfe{\x00", Why.LETTERS),
            (b'{"type": "FeatureCollection", "features": [', Why.SYNTAX),
            (b"[" * 100_000, Why.SYNTAX),
            (b'{"blocks": []}', Why.UNKNOWN),
            (geojson(), Why.NOTHING),
            (geojson(point), Why.POINTS),
            (geojson(line), Why.LINES),
            (geojson(polygon(RING), crs=crs), Why.PROJECTED),
            (geojson(*[polygon(RING)] * 301), Why.MANY),
            (geojson(*[polygon([[n / 1e6, 0] for n in range(70_000)])] * 3), Why.CORNERS),
            (kml(), Why.NOTHING),
            (kml("<Placemark>"), Why.SYNTAX),
            (kml("<Folder/>" * 1_000_000), Why.ELEMENTS),
            (kml(PLACEMARK, head='<!DOCTYPE lol [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]>'), Why.ENTITIES),
            (kml("<Placemark><Point><coordinates>7,46</coordinates></Point></Placemark>"), Why.POINTS),
            (b"name,area\nMill,3\n", Why.COLUMNS),
            (b"lon,lat\n7.1,46.2\nhere,46\n", Why.NUMBER),
            (b"lon,lat\n7.1\n", Why.NUMBER),
            (b'lon,lat\n"' + b"7" * 200_000 + b'",46\n', Why.SYNTAX),
        ):
            with self.subTest(why=why), self.assertRaises(Unread) as caught:
                read(content)
            self.assertEqual(caught.exception.why, why)

    def test_the_degrees_of_wgs84_are_taken_by_their_names(self) -> None:
        for name in ("urn:ogc:def:crs:OGC:1.3:CRS84", "EPSG:4326"):
            crs = {"type": "name", "properties": {"name": name}}
            self.assertEqual(len(read(geojson(polygon(RING), crs=crs))), 1)

    @given(st.binary(max_size=200))
    def test_nothing_but_an_answer_comes_of_any_bytes(self, content: bytes) -> None:
        for wrapped in (content, b'{"type": "Polygon", "coordinates": ' + content, b"<kml>" + content, b"lon,lat\n" + content):
            try:
                self.assertTrue(read(wrapped))
            except Unread as error:
                self.assertIn(error.why, tuple(Why))


class Writing(unittest.TestCase):
    def test_what_is_written_is_read_and_runs_against_the_clock(self) -> None:
        for corners in (CORNERS, CORNERS[::-1]):
            text = to_geojson([("Mill", {"crop": "pear"}, list(corners))])
            [entry] = read(text.encode())
            self.assertEqual((entry.name, set(entry.corners)), ("Mill", set(CORNERS)))
            ring = json.loads(text)["features"][0]["geometry"]["coordinates"][0]
            self.assertGreater(sum(x1 * y2 - x2 * y1 for (x1, y1), (x2, y2) in zip(ring, ring[1:], strict=False)), 0)
            self.assertEqual(ring[0], ring[-1])
