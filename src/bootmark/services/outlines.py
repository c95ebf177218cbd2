"""Outlines that come in a file, as they are understood before anything is kept."""

from collections.abc import Collection
from dataclasses import dataclass

from bootmark import say
from bootmark.core.ground import outline, plane
from bootmark.core.ground.plane import Corner
from bootmark.formats import outlines as files
from bootmark.formats.outlines import Drawn, Unread, Why
from bootmark.services.base.command import Refused
from bootmark.services.base.outlines import sentence

MOST_READ = 100_000
"""Corners of one outline that are read and drawn more simply; beyond it is no block's."""
WHY = {
    Why.EMPTY: "The file is empty: choose one with outlines in it.",
    Why.LARGE: "The file is larger than 20 megabytes: save the farm's blocks alone.",
    Why.LETTERS: "The file is no text in UTF-8: save it as GeoJSON, KML or CSV.",
    Why.ZIPPED: "The file is packed (a KMZ or a zipped shape file): unpack it, and send the KML in it or save it as GeoJSON.",
    Why.PICTURE: "This is a picture or a printed page, and tells no corners: save the blocks as GeoJSON, KML or CSV.",
    Why.SYNTAX: "The file breaks off or is spoilt near line {line}: save it again.",
    Why.PROJECTED: "The file says that its numbers are of {said}: save it as WGS84 (EPSG:4326), in degrees.",
    Why.UNKNOWN: "The file is JSON, but no GeoJSON: it says of itself no type such as FeatureCollection.",
    Why.NOTHING: "The file holds nothing that is drawn: save the blocks' outlines into it.",
    Why.POINTS: "The file holds points only, and no outline: save the blocks as polygons.",
    Why.LINES: "The file holds lines only, and no outline: close them to polygons.",
    Why.MANY: "The file holds more than {outlines} outlines: send the farm's own, in parts.",
    Why.CORNERS: "The file holds more than {corners:grouped} corners: save it more simply.",
    Why.ENTITIES: "The file declares a document type, which no KML needs: save it again from the program that made it.",
    Why.ELEMENTS: "The file holds more than {elements:grouped} elements: save the blocks alone, without folders of other things.",
    Why.COLUMNS: "Line 1 names no longitude and latitude ({said}): give columns block, longitude, latitude, a corner a line.",
    Why.NUMBER: "Line {line} holds no two numbers where longitude and latitude stand: {said}.",
}


@dataclass(frozen=True)
class Brought:
    """An outline as it would be kept. name: free on the farm; off: metres by which it was drawn more simply; holes: left out of it;
    wrong: why it can't be kept, empty where it can."""

    name: str
    corners: tuple[Corner, ...]
    area: float = 0.0
    off: float = 0.0
    read: int = 0
    holes: int = 0
    wrong: str = ""


def read(content: bytes, taken: Collection[str]) -> list[Brought]:
    """A file's outlines. taken: names of the farm's blocks. Raises Refused, with the file's fault in words."""
    try:
        drawn = files.read(content)
    except Unread as error:
        facts = {"outlines": files.MOST_OUTLINES, "corners": files.MOST_CORNERS, "elements": files.MOST_ELEMENTS}
        raise Refused(file=say.line(WHY[error.why], line=error.line, said=error.said, **facts)) from None
    names, brought = set(taken), []
    for entry in drawn:
        name = _free(entry.name, names)
        names.add(name)
        brought.append(_understood(entry, name))
    return brought


def _free(name: str, taken: Collection[str]) -> str:
    """A name that no block has yet."""
    number = 2
    free = name
    while free in taken:
        free, number = f"{name} ({number})", number + 1
    return free


def _understood(entry: Drawn, name: str) -> Brought:
    fault = outline.fault(entry.corners, most=MOST_READ)
    if fault:
        return Brought(name, (), read=len(entry.corners), holes=entry.holes, wrong=sentence(fault))
    corners, off = outline.simpler(entry.corners)
    fault = outline.fault(corners)
    if fault:
        return Brought(name, (), read=len(entry.corners), holes=entry.holes, wrong=sentence(fault))
    rounded = tuple((round(east, 7), round(north, 7)) for east, north in corners)
    return Brought(name, rounded, plane.area(rounded), off, len(entry.corners), entry.holes)
