"""Ferrin Vale: an invented estate in an invented valley. All names are made up."""

import datetime as dt
import uuid

from bootmark.core.ground.plane import Origin

SPACE = uuid.UUID("0f6f7a50-3d1f-4f63-9f55-6b3f0f1d2c11")


def made(name: str) -> uuid.UUID:
    """The same id for the same thing at every load."""
    return uuid.uuid5(SPACE, name)


FARM = made("farm")
NAME = "Ferrin Vale"
LATITUDE, LONGITUDE = 46.2, 7.1
ORIGIN = Origin(LATITUDE, LONGITUDE)
THINGS: tuple[tuple[str, str, list[tuple[float, float]], float | None], ...] = (
    ("gate", "", [(30, 180)], None),
    ("path", "", [(30, 180), (270, 172), (440, 170), (680, 172)], None),
    ("water", "Mill beck", [(40, 318), (260, 322), (480, 310), (700, 316), (700, 324), (480, 319), (260, 331), (40, 327)], None),
    ("hives", "", [(452, 40)], None),
    ("power", "", [(730, 0), (735, 330)], 9.0),
)
"""What stands on the plan beside the blocks: kind, name, points in metres, height."""
TIME_ZONE = "CET"
NOW = dt.datetime(2026, 6, 18, 5, 40, tzinfo=dt.UTC)
PASSWORD = "walk-look-name"  # noqa: S105 - printed for everybody who starts the demo

PEOPLE = (
    ("Ilva Torren", "ilva@ferrin.example", "owner", True),
    ("Maro Quill", "maro@ferrin.example", "scout", False),
    ("Senna Vost", "senna@ferrin.example", "applicator", True),
    ("Dorrin Hale", "dorrin@ferrin.example", "adviser", True),
    ("Pell Amber", "pell@ferrin.example", "viewer", False),
)

SITES: dict[str, dict[str, float]] = {"Valley mast": {}, "Ridge mast": {"cooler": 1.5}, "Tunnel logger": {"warmer": 5.0, "sheltered": 0.35}}
STANDS: dict[str, tuple[float, float, float, str]] = {
    "Valley mast": (46.2, 7.1, 460.0, "outdoor"),
    "Ridge mast": (46.212, 7.118, 690.0, "outdoor"),
    "Tunnel logger": (46.2, 7.1, 460.0, "cover"),
}
"""Latitude, longitude, height and kind of each station."""

BLOCKS: tuple[tuple[str, str, str, str, float, str, list[list[float]], dt.date | None], ...] = (
    ("Orchard A", "pear", "orchard", "Greenhusk", 1.6, "Valley mast", [[60, 40], [250, 30], [262, 150], [70, 162]], dt.date(2026, 8, 28)),
    (
        "Orchard B",
        "pear",
        "orchard",
        "Late Sorrel",
        1.2,
        "Valley mast",
        [[280, 28], [430, 40], [424, 150], [290, 152]],
        dt.date(2026, 9, 14),
    ),
    ("Long Field", "potato", "field", "Brindle", 2.4, "Valley mast", [[70, 200], [400, 190], [410, 290], [76, 300]], dt.date(2026, 8, 10)),
    (
        "Mill Piece",
        "cabbage",
        "field",
        "Roundhead",
        0.8,
        "Valley mast",
        [[440, 190], [600, 196], [590, 290], [436, 288]],
        dt.date(2026, 7, 20),
    ),
    (
        "Tunnel 1",
        "raspberry",
        "tunnel",
        "Sable Rose",
        0.15,
        "Tunnel logger",
        [[480, 60], [640, 60], [640, 92], [480, 92]],
        dt.date(2026, 7, 1),
    ),
    (
        "Tunnel 2",
        "raspberry",
        "tunnel",
        "Sable Rose",
        0.15,
        "Tunnel logger",
        [[480, 110], [640, 110], [640, 142], [480, 142]],
        dt.date(2026, 7, 1),
    ),
    ("Hop yard", "hop", "field", "Old Tarn", 0.6, "Valley mast", [[640, 190], [760, 200], [752, 300], [632, 296]], dt.date(2026, 9, 1)),
    ("Birch bed", "birch", "bed", "seedlings", 0.08, "Valley mast", [[676, 50], [760, 56], [756, 130], [672, 126]], None),
)
