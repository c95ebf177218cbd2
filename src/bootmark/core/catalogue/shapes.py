"""The shape of a plant, for drawing it: how it stands, what it bears, what it keeps below ground."""

from enum import StrEnum

STAGES = ("egg", "larva", "nymph", "pupa", "adult")
"""Stages of life, in their order."""


class Stand(StrEnum):
    """How a plant stands."""

    SHOOT = "shoot"
    ROSETTE = "rosette"
    TREE = "tree"
    BUSH = "bush"
    CONIFER = "conifer"
    PALM = "palm"
    CLIMBER = "climber"
    CREEPER = "creeper"
    GRASS = "grass"
    TURF = "turf"
    BULB = "bulb"
    CACTUS = "cactus"


class Bears(StrEnum):
    """What a plant bears."""

    POME = "pome"
    STONE = "stone"
    BERRY = "berry"
    CLUSTER = "cluster"
    BUNCH = "bunch"
    POD = "pod"
    GOURD = "gourd"
    LONG = "long"
    CAPSULE = "capsule"
    COB = "cob"
    EAR = "ear"
    CONE = "cone"
    CITRUS = "citrus"
    NUT = "nut"
    WINGED = "winged"


class Keeps(StrEnum):
    """What it keeps below ground."""

    NOTHING = ""
    TUBERS = "tubers"
    TAPROOT = "taproot"
    BULB = "bulb"


BY_HABIT = {
    "tree": Stand.TREE,
    "shrub": Stand.BUSH,
    "conifer": Stand.CONIFER,
    "palm": Stand.PALM,
    "climber": Stand.CLIMBER,
    "grass": Stand.GRASS,
    "bulb": Stand.BULB,
    "succulent": Stand.CACTUS,
    "herb": Stand.SHOOT,
}
"""How a plant stands where nothing is said but its habit."""
