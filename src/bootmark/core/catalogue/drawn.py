"""How the stages of an agent are drawn: the marks by which it is told from its neighbours, as parameters of its body type."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import Any

from bootmark.core.catalogue.reader import CatalogueError, Reader, nearest


class Pattern(StrEnum):
    """Marks along a body that are neither stripes, bands nor spots."""

    NONE = ""
    VEES = "vees"
    SLANTS = "slants"
    WARTS = "warts"
    CROSS = "cross"
    CHECKS = "checks"
    SADDLE = "saddle"
    INVERTED_Y = "inverted y"
    TUFTS = "tufts"


class Wings(StrEnum):
    """What a wing shows."""

    PLAIN = "plain"
    CLEAR = "clear"
    TIP_BAND = "tip band"
    TIP_SPOT = "tip spot"
    SILVER_Y = "silver y"
    DIAMONDS = "diamonds"
    KIDNEYS = "kidneys"
    ZIGZAG = "zigzag"
    BARS = "bars"
    LETTER_F = "letter f"
    TWO_BANDS = "two bands"
    WAVES = "waves"
    DOTS = "dots"
    FRINGE = "fringe"
    CROSS_BANDS = "cross bands"
    HOOD = "hood"


class Pose(StrEnum):
    """How it sits."""

    USUAL = ""
    ROOF = "roof"
    DELTA = "delta"
    OPEN = "open"
    LOOP = "loop"
    CURLED = "curled"
    RAISED = "raised"
    BAG = "bag"
    DARTING = "darting"


class Cover(StrEnum):
    """What a scale insect lies under."""

    ROUND = "round"
    OYSTER = "oyster"
    PEAR = "pear"
    SLIPPER = "slipper"
    DOME = "dome"


@dataclass(frozen=True)
class Drawn:
    """Marks of one stage. colour: of the body, where it is not the agent's; mark: colour of stripes, bands, spots and patterns; neck: of
    the shield behind the head; feelers: of the bands on them; tubes: of the two on an aphid's back; slim: width to length; size: of what
    is usual for its body. Of a mammal the track is drawn: toes, two of them the slots of a hoof, and the colour of claws that dig."""

    colour: str = ""
    mark: str = ""
    head: str = ""
    neck: str = ""
    horn: str = ""
    feelers: str = ""
    tubes: str = ""
    claws: str = ""
    toes: int = 0
    stripes: int = 0
    bands: int = 0
    spots: int = 0
    pattern: Pattern = Pattern.NONE
    wings: Wings = Wings.PLAIN
    pose: Pose = Pose.USUAL
    cover: Cover = Cover.ROUND
    slim: float = 0.0
    size: float = 1.0
    hairs: bool = False
    wax: bool = False


PLAIN = Drawn()
UNCOLOURED = (Pattern.SADDLE, Pattern.TUFTS, Pattern.INVERTED_Y)


def _drawn(row: Reader) -> Drawn:
    drawn = Drawn(
        colour=row.text("colour", ""),
        mark=row.text("mark", ""),
        head=row.text("head", ""),
        neck=row.text("neck", ""),
        horn=row.text("horn", ""),
        feelers=row.text("feelers", ""),
        tubes=row.text("tubes", ""),
        claws=row.text("claws", ""),
        toes=int(row.number("toes", 0)),
        stripes=int(row.number("stripes", 0)),
        bands=int(row.number("bands", 0)),
        spots=int(row.number("spots", 0)),
        pattern=row.member("pattern", Pattern, Pattern.NONE),
        wings=row.member("wings", Wings, Wings.PLAIN),
        pose=row.member("pose", Pose, Pose.USUAL),
        cover=row.member("cover", Cover, Cover.ROUND),
        slim=row.number("slim", 0.0),
        size=row.number("size", 1.0),
        hairs=row.get("hairs", bool, False),
        wax=row.get("wax", bool, False),
    )
    row.done()
    marked = drawn.stripes or drawn.bands or drawn.spots or drawn.pattern not in (Pattern.NONE, *UNCOLOURED)
    if marked and not drawn.mark:
        raise row.fail("stripes, bands, spots and patterns need the colour of the mark, as mark = '#1f1d1a'")
    return drawn


def read(raw: Mapping[str, Any], agents: Mapping[str, str], life: Sequence[str]) -> dict[str, dict[str, Drawn]]:
    """Marks by agent and stage. agents: each agent's kind; what a kind's stage shows its members show too; life: names of stages.

    Raises CatalogueError.
    """
    own: dict[str, dict[str, Drawn]] = {}
    for agent, table in raw.items():
        if agent not in agents:
            raise CatalogueError(f"drawn.toml [{agent}]: not an agent of the catalogue{nearest(agent, agents)}")
        stages = Reader("drawn.toml", {agent: table}).tables(agent) if isinstance(table, dict) else {}
        unknown = set(stages) - set(life)
        if unknown:
            raise CatalogueError(f"drawn.toml [{agent}]: {min(unknown)!r} is no stage{nearest(min(unknown), life)}")
        own[agent] = {stage: _drawn(row) for stage, row in stages.items()}
    return {agent: own.get(kind, {}) | own.get(agent, {}) for agent, kind in agents.items() if agent in own or kind in own}


TOLD = (
    "pattern", "horn", "toes", "claws", "stripes", "bands", "spots", "wings", "pose", "cover", "neck", "head", "feelers", "tubes", "hairs",
    "wax", "slim",
)  # fmt: skip
"""What is said of a drawing, the most telling first."""


def differing(drawings: Sequence[Drawn], most: int = 4) -> tuple[str, ...]:
    """What is not drawn alike in all of these, the most telling first."""
    return tuple(name for name in TOLD if len({getattr(drawn, name) for drawn in drawings}) > 1)[:most]
