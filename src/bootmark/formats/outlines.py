"""Outlines of blocks from files that other programs write: GeoJSON (RFC 7946), KML 2.2, and tables of corners (CSV).

What is read is named and counted; what can't be is told with its place in the file, and takes nothing else with it.
"""

import csv
import io
import json
import math
import re
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field
from enum import StrEnum
from typing import Any
from xml.parsers import expat

Corner = tuple[float, float]
MOST_BYTES = 20_000_000
MOST_OUTLINES = 300
MOST_CORNERS = 200_000
MOST_ELEMENTS = 200_000
MOST_NAME = 60
OTHER_PLANETS = re.compile(r"(EPSG:+|epsg:+)(?!4326\b|4979\b)\d+|CRS27|CRS83")
"""Names of reference systems that are not the degrees of WGS84."""


class Why(StrEnum):
    """Why a file is not taken."""

    EMPTY = "empty"
    LARGE = "large"
    LETTERS = "letters"
    ZIPPED = "zipped"
    PICTURE = "picture"
    SYNTAX = "syntax"
    PROJECTED = "projected"
    UNKNOWN = "unknown"
    NOTHING = "nothing"
    POINTS = "points"
    LINES = "lines"
    MANY = "many"
    CORNERS = "corners"
    ENTITIES = "entities"
    ELEMENTS = "elements"
    COLUMNS = "columns"
    NUMBER = "number"


class Shape(StrEnum):
    """The types of GeoJSON's geometries (RFC 7946, 1.4)."""

    COLLECTION = "GeometryCollection"
    POLYGON = "Polygon"
    POLYGONS = "MultiPolygon"
    POINT = "Point"
    POINTS = "MultiPoint"
    LINE = "LineString"
    LINES = "MultiLineString"


class Unread(Exception):
    """The file is not taken. line: where, from 1 on, 0 where nowhere; said: what stands there."""

    def __init__(self, why: Why, line: int = 0, said: str = "") -> None:
        super().__init__(why)
        self.why, self.line, self.said = why, line, said


@dataclass(frozen=True)
class Drawn:
    """An outline as the file has it: corners as longitude and latitude, the last not the first again; holes: how many were left out."""

    name: str
    corners: tuple[Corner, ...]
    holes: int = 0


@dataclass
class Contents:
    """What a file holds beside outlines: how many points and lines."""

    outlines: list[Drawn] = field(default_factory=list)
    points: int = 0
    lines: int = 0
    corners: int = 0

    def take(self, name: str, ring: Iterable[Any], holes: int = 0) -> None:
        """An outline more. Raises Unread where there are too many."""
        corners = _open(ring)
        self.corners += len(corners)
        if len(self.outlines) >= MOST_OUTLINES:
            raise Unread(Why.MANY)
        if self.corners > MOST_CORNERS:
            raise Unread(Why.CORNERS)
        self.outlines.append(Drawn(_name(name) or str(len(self.outlines) + 1), corners, holes))

    def checked(self) -> list[Drawn]:
        """The outlines. Raises Unread where there is none, with what is there instead."""
        if self.outlines:
            return self.outlines
        raise Unread(Why.POINTS if self.points else Why.LINES if self.lines else Why.NOTHING)


def _name(said: Any) -> str:
    text = " ".join(str(said).split()) if isinstance(said, (str, int)) else ""
    return "".join(letter for letter in text if letter.isprintable())[:MOST_NAME]


def _open(ring: Iterable[Any]) -> tuple[Corner, ...]:
    """A ring's corners once each; what is no pair of numbers becomes not a number, for whoever checks to name its place."""
    corners = []
    for corner in ring:
        is_pair = isinstance(corner, (list, tuple)) and len(corner) >= 2 and all(type(number) in (int, float) for number in corner[:2])
        corners.append((float(corner[0]), float(corner[1])) if is_pair else (math.nan, math.nan))
    return tuple(corners[:-1] if len(corners) > 1 and corners[0] == corners[-1] else corners)


def read(content: bytes) -> list[Drawn]:
    """The outlines of a file, whichever of the three it is. Raises Unread."""
    if not content.strip():
        raise Unread(Why.EMPTY)
    if len(content) > MOST_BYTES:
        raise Unread(Why.LARGE)
    if content.startswith(b"PK"):
        raise Unread(Why.ZIPPED)
    if content[:4] in (b"\x89PNG", b"\xff\xd8\xff\xe0", b"\xff\xd8\xff\xe1", b"%PDF", b"GIF8"):
        raise Unread(Why.PICTURE)
    try:
        text = content.decode("utf-8-sig")
    except UnicodeDecodeError:
        raise Unread(Why.LETTERS) from None
    start = text.lstrip()[:1]
    return (_geojson(text) if start in "{[" else _kml(text) if start == "<" else _table(text)).checked()


# GeoJSON


def _geojson(text: str) -> Contents:
    try:
        top = json.loads(text)
    except (ValueError, RecursionError) as error:
        raise Unread(Why.SYNTAX, getattr(error, "lineno", 0)) from None
    if not isinstance(top, dict) or not isinstance(top.get("type"), str):
        raise Unread(Why.UNKNOWN)
    system = json.dumps(top.get("crs") or "")
    if OTHER_PLANETS.search(system):
        raise Unread(Why.PROJECTED, said=(OTHER_PLANETS.search(system) or [""])[0])
    contents = Contents()
    features = top.get("features") if top["type"] == "FeatureCollection" else [top]
    for feature in features if isinstance(features, list) else []:
        if not isinstance(feature, dict):
            continue
        properties = feature.get("properties")
        facts: dict[str, Any] = properties if isinstance(properties, dict) else {}
        name = next((facts[key] for key in ("name", "Name", "NAME", "block", "title", "id") if key in facts), feature.get("id"))
        geometry = feature.get("geometry") if feature.get("type") == "Feature" else feature
        _geometry(geometry, _name(name), contents, 0)
    return contents


def _geometry(geometry: Any, name: str, contents: Contents, depth: int) -> None:
    if not isinstance(geometry, dict) or depth > 4:
        return
    kind, parts = geometry.get("type"), geometry.get("coordinates")
    if kind == Shape.COLLECTION:
        for inner in geometry.get("geometries") or []:
            _geometry(inner, name, contents, depth + 1)
    elif kind == Shape.POLYGON and isinstance(parts, list):
        _polygon(parts, name, contents)
    elif kind == Shape.POLYGONS and isinstance(parts, list):
        for number, polygon in enumerate(parts, 1):
            _polygon(polygon, f"{name} {number}".strip() if len(parts) > 1 else name, contents)
    elif kind in (Shape.POINT, Shape.POINTS):
        contents.points += 1
    elif kind in (Shape.LINE, Shape.LINES):
        contents.lines += 1


def _polygon(rings: Any, name: str, contents: Contents) -> None:
    if isinstance(rings, list) and rings and isinstance(rings[0], list):
        contents.take(name, rings[0], len(rings) - 1)


# KML


class _Kml:
    """Reads KML piece by piece: a file of a million elements takes no more room than one of ten."""

    def __init__(self) -> None:
        self.contents, self.path, self.text, self.elements = Contents(), [""], "", 0
        self.name, self.ring, self.holes, self.part = "", "", 0, 0

    def begin(self, tag: str, _attributes: Any) -> None:
        self.elements += 1
        if self.elements > MOST_ELEMENTS:
            raise Unread(Why.ELEMENTS)
        self.path.append(tag.rpartition(":")[2])
        self.text = ""
        if self.path[-1] == "Placemark":
            self.name, self.part = "", 0
        elif self.path[-1] == "Polygon":
            self.ring, self.holes, self.part = "", 0, self.part + 1
        elif self.path[-1] == "Point":
            self.contents.points += 1
        elif self.path[-1] == "LineString":
            self.contents.lines += 1

    def data(self, text: str) -> None:
        self.text += text

    def end(self, _tag: str) -> None:
        tag, self.path = self.path[-1], self.path[:-1]
        if tag == "name" and self.path[-1] == "Placemark":
            self.name = _name(self.text)
        elif tag == "coordinates" and "outerBoundaryIs" in self.path:
            self.ring = self.text
        elif tag == "innerBoundaryIs":
            self.holes += 1
        elif tag == "Polygon":
            name = self.name if self.part == 1 else f"{self.name} {self.part}"
            self.contents.take(name, _kml_corners(self.ring), self.holes)
        self.text = ""


def _kml_corners(text: str) -> Iterator[Any]:
    for triple in text.split():
        try:
            yield tuple(float(number) for number in triple.split(",")[:2])
        except ValueError:
            yield None


def _kml(text: str) -> Contents:
    reader, parser = _Kml(), expat.ParserCreate(namespace_separator=":")
    parser.StartElementHandler, parser.EndElementHandler = reader.begin, reader.end
    parser.CharacterDataHandler = reader.data
    parser.buffer_text = True

    def refuse(*_words: Any) -> None:
        raise Unread(Why.ENTITIES)

    parser.StartDoctypeDeclHandler = refuse
    try:
        parser.Parse(text, True)
    except expat.ExpatError as error:
        raise Unread(Why.SYNTAX, error.lineno) from None
    return reader.contents


# Tables of corners

HEADS = {
    "name": ("name", "block", "field", "plot", "id"),
    "longitude": ("longitude", "lon", "lng", "long", "east", "x"),
    "latitude": ("latitude", "lat", "north", "y"),
}


def _table(text: str) -> Contents:
    try:
        return _rows(text)
    except csv.Error:
        raise Unread(Why.SYNTAX) from None


def _rows(text: str) -> Contents:
    lines = text.splitlines()
    separator = max(";\t,", key=lines[0].count)
    rows = csv.reader(io.StringIO(text), delimiter=separator)
    head = [cell.strip().lower() for cell in next(rows, [])]
    where = {what: next((head.index(name) for name in names if name in head), -1) for what, names in HEADS.items()}
    if where["longitude"] < 0 or where["latitude"] < 0:
        raise Unread(Why.COLUMNS, 1, lines[0][:MOST_NAME])
    blocks: dict[str, list[Corner]] = {}
    for row in rows:
        if not any(cell.strip() for cell in row):
            continue
        try:
            east, north = (float(row[where[what]].strip().replace(",", ".")) for what in ("longitude", "latitude"))
        except (ValueError, IndexError):
            raise Unread(Why.NUMBER, rows.line_num, separator.join(row)[:MOST_NAME]) from None
        name = _name(row[where["name"]]) if 0 <= where["name"] < len(row) else ""
        blocks.setdefault(name, []).append((east, north))
    contents = Contents()
    for name, corners in blocks.items():
        contents.take(name, corners)
    return contents


def to_geojson(blocks: Iterable[tuple[str, dict[str, Any], list[Any]]]) -> str:
    """Outlines as GeoJSON, each with its name and what is known of it; rings run against the clock, as RFC 7946 has them."""
    features = []
    for name, facts, corners in blocks:
        ring = [[float(east), float(north)] for east, north in corners]
        twice = sum(x1 * y2 - x2 * y1 for (x1, y1), (x2, y2) in zip(ring, ring[1:] + ring[:1], strict=True))
        ring = ring if twice > 0 else ring[::-1]
        geometry = {"type": "Polygon", "coordinates": [[*ring, ring[0]]]} if ring else None
        features.append({"type": "Feature", "properties": {"name": name, **facts}, "geometry": geometry})
    return json.dumps({"type": "FeatureCollection", "features": features}, ensure_ascii=False, indent=1) + "\n"
