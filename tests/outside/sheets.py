"""Sheets of known truth: paper with specks, cards with droplets, sticky cards; drawn flat, then taken as a phone would."""

import math
import random
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray
from PIL import Image, ImageDraw
from scipy import ndimage

from tests.outside.photographed import LENS, Picture, Shot, taken

WIDE, HIGH = 2000, 1500
"""Points of a picture: fewer than one has as it is kept for measuring."""
A6, DROP_CARD, STICKY, DISH = (148.0, 105.0), (76.0, 26.0), (200.0, 100.0), (90.0, 90.0)
"""Longer and shorter sides, of a dish its diameter twice, millimetres."""
WHITE, YELLOW, INK, STICKY_YELLOW = (238, 237, 232), (226, 198, 62), (52, 58, 128), (232, 208, 44)
RIM = (206, 205, 200)
GROUNDS = ((96, 74, 52), (70, 78, 74), (52, 50, 50))


@dataclass(frozen=True)
class Stain:
    """Something on a sheet. x, y, length, width: millimetres; turn: radians."""

    x: float
    y: float
    length: float
    width: float
    turn: float
    tone: tuple[int, int, int]


def phone(rng: random.Random) -> Shot:
    """A picture of a sheet from somebody who was told how."""
    return Shot(
        kelvin=rng.uniform(2500, 7500),
        blur=rng.uniform(0.6, 1.4),
        tilt=rng.uniform(0, 30),
        noise=rng.uniform(1, 5),
        uneven=rng.uniform(0, 0.3),
        exposure=rng.uniform(0.7, 1.0),
        quality=rng.choice((82, 88, 92)),
        ground=rng.choice(GROUNDS),
        lens=rng.uniform(-LENS, LENS),
    )


def drawn(sides: tuple[float, float], colour: tuple[int, int, int], spots: list[Stain], shot: Shot, rng: random.Random) -> Image.Image:
    """A sheet on its ground as it lies flat, turned a little. Spots of less than a point are mixed with what is beneath."""
    over = 2
    scale = min(WIDE * rng.uniform(0.72, 0.82) / sides[0], HIGH * 0.8 / sides[1]) * over
    image = Image.new("RGB", (WIDE * over, HIGH * over), shot.ground)
    pen = ImageDraw.Draw(image)
    turn = math.radians(rng.uniform(-6, 6))

    def put(x: float, y: float) -> tuple[float, float]:
        dx, dy = (x - sides[0] / 2) * scale, (y - sides[1] / 2) * scale
        return (
            WIDE * over / 2 + dx * math.cos(turn) - dy * math.sin(turn),
            HIGH * over / 2 + dx * math.sin(turn) + dy * math.cos(turn),
        )

    if sides == DISH:
        # Its rim is as bright as the rest where it is flat, and darker where it turns up.
        for across, tone in ((sides[0], colour), (sides[0] - 2.4, RIM), (sides[0] - 4.4, colour)):
            turns = (step * math.pi / 90 for step in range(180))
            pen.polygon([put(sides[0] / 2 + across / 2 * math.cos(t), sides[1] / 2 + across / 2 * math.sin(t)) for t in turns], tone)
    else:
        pen.polygon([put(0, 0), put(sides[0], 0), put(sides[0], sides[1]), put(0, sides[1])], colour)
    for spot in spots:
        ring = []
        for step in range(16):
            along, across = math.cos(step * math.pi / 8) * spot.length / 2, math.sin(step * math.pi / 8) * spot.width / 2
            ring.append(
                put(
                    spot.x + along * math.cos(spot.turn) - across * math.sin(spot.turn),
                    spot.y + along * math.sin(spot.turn) + across * math.cos(spot.turn),
                )
            )
        pen.polygon(ring, spot.tone)
    # What reaches over the sheet's edge leaves no mark beside it.
    long, short, out = *sides, 30.0
    for x, y, wide, high in (
        (-out, -out, long + 2 * out, out),
        (-out, short, long + 2 * out, out),
        (-out, 0, out, short),
        (long, 0, out, short),
    ):
        pen.polygon([put(x, y), put(x + wide, y), put(x + wide, y + high), put(x, y + high)], shot.ground)
    return image.resize((WIDE, HIGH), Image.Resampling.LANCZOS)


def speck(rng: random.Random, length: tuple[float, float] = (0.35, 0.7)) -> Stain:
    size = rng.uniform(*length)
    tone = rng.choice(((70, 46, 30), (120, 60, 34), (50, 60, 34), (30, 28, 26)))
    return Stain(rng.uniform(6, A6[0] - 6), rng.uniform(6, A6[1] - 6), size, size * rng.uniform(0.5, 0.9), rng.uniform(0, math.pi), tone)


def apart(spots: list[Stain], spot: Stain, gap: float) -> bool:
    return all(math.hypot(spot.x - other.x, spot.y - other.y) > gap for other in spots)


@dataclass(frozen=True)
class Tapped:
    """Two pictures of a paper after a tap, and how many specks moved and did not."""

    first: Picture
    second: Picture
    moving: int
    still: int


def tapped(rng: random.Random, moving: int, still: int, shot: Shot | None = None) -> Tapped:
    """What moved went at least a millimetre and a half."""
    spots: list[Stain] = []
    while len(spots) < moving + still:
        new = speck(rng)
        if apart(spots, new, 1.2):
            spots.append(new)
    later = list(spots[:still])
    for old in spots[still:]:
        for _ in range(50):
            way, far = rng.uniform(0, 2 * math.pi), rng.uniform(1.5, 5.0)
            new = replace(old, x=old.x + far * math.cos(way), y=old.y + far * math.sin(way), turn=way)
            if 5 < new.x < A6[0] - 5 and 5 < new.y < A6[1] - 5 and apart(later, new, 1.2) and apart(spots, new, 1.2):
                break
        later.append(new)
    shot = shot or phone(rng)
    other = replace(shot, tilt=max(0.0, shot.tilt + rng.uniform(-4, 4)))
    return Tapped(
        taken(drawn(A6, WHITE, spots, shot, rng), shot, rng), taken(drawn(A6, WHITE, later, other, rng), other, rng), moving, still
    )


@dataclass(frozen=True)
class Wetted:
    """A card on which drops fell: how many to a square centimetre, and which share they cover."""

    picture: Picture
    per_cm2: float
    cover: float


def wetted(rng: random.Random, cover: float, shot: Shot | None = None, card: tuple[int, int, int] = YELLOW) -> Wetted:
    """Drops fall by chance until so much is covered; on white paper."""
    side_long, side_short = DROP_CARD
    fine = 40
    mask: NDArray[np.bool_] = np.zeros((int(side_short * fine), int(side_long * fine)), dtype=bool)
    rows, columns = np.ogrid[0 : mask.shape[0], 0 : mask.shape[1]]
    spots: list[Stain] = []
    covered = 0
    while covered < cover * mask.size:
        size = min(max(rng.lognormvariate(math.log(0.42), 0.45), 0.18), 1.6)
        new = Stain(
            rng.uniform(0, side_long), rng.uniform(0, side_short), size, size * rng.uniform(0.85, 1.0),
            rng.uniform(0, math.pi), INK,
        )  # fmt: skip
        spots.append(new)
        reach = int(size * fine) + 2
        top, left = max(int(new.y * fine) - reach, 0), max(int(new.x * fine) - reach, 0)
        part = (slice(top, int(new.y * fine) + reach), slice(left, int(new.x * fine) + reach))
        dx, dy = columns[:, part[1]] / fine - new.x, rows[part[0]] / fine - new.y
        along = dx * math.cos(new.turn) + dy * math.sin(new.turn)
        across = dy * math.cos(new.turn) - dx * math.sin(new.turn)
        inside = (along / new.length * 2) ** 2 + (across / new.width * 2) ** 2 <= 1
        covered += int((inside & ~mask[part]).sum())
        mask[part] |= inside
    shot = replace(shot or phone(rng), ground=WHITE)
    return Wetted(
        taken(drawn(DROP_CARD, card, spots, shot, rng), shot, rng), len(spots) / (side_long * side_short / 100), float(mask.mean())
    )


def stuck(rng: random.Random, spots: list[Stain], shot: Shot | None = None) -> Picture:
    """A sticky card with a printed grid, lines of a third of a millimetre every 25."""
    lines = [Stain(x, STICKY[1] / 2, STICKY[1], 0.35, math.pi / 2, (60, 60, 50)) for x in range(25, int(STICKY[0]), 25)]
    lines += [Stain(STICKY[0] / 2, y, STICKY[0], 0.35, 0.0, (60, 60, 50)) for y in range(25, int(STICKY[1]), 25)]
    shot = shot or phone(rng)
    return taken(drawn(STICKY, STICKY_YELLOW, lines + spots, shot, rng), shot, rng)


def insects(rng: random.Random, number: int, length: tuple[float, float], among: list[Stain]) -> list[Stain]:
    """So many more insects of a size, apart from those that sit there."""
    new: list[Stain] = []
    while len(new) < number:
        size = rng.uniform(*length)
        spot = Stain(
            rng.uniform(5, STICKY[0] - 5), rng.uniform(5, STICKY[1] - 5), size, size * rng.uniform(0.35, 0.45), rng.uniform(0, math.pi),
            rng.choice(((30, 26, 22), (50, 40, 30))),
        )  # fmt: skip
        if apart([*among, *new], spot, 4.0):
            new.append(spot)
    return new


def poured(rng: random.Random, number: int, length: tuple[float, float], shot: Shot | None = None) -> Picture:
    """A white dish of 90 mm with so many things of a size in it."""
    spots: list[Stain] = []
    while len(spots) < number:
        size, far, turn = rng.uniform(*length), 38 * math.sqrt(rng.random()), rng.uniform(0, 2 * math.pi)
        spot = Stain(
            DISH[0] / 2 + far * math.cos(turn), DISH[1] / 2 + far * math.sin(turn), size, size * rng.uniform(0.35, 0.5),
            rng.uniform(0, math.pi), rng.choice(((30, 26, 22), (70, 52, 34))),
        )  # fmt: skip
        if apart(spots, spot, length[1] + 1.0):
            spots.append(spot)
    shot = shot or phone(rng)
    return taken(drawn(DISH, WHITE, spots, shot, rng), shot, rng)


def smeared(rng: random.Random, shot: Shot) -> Picture:
    """A card with a few drops that fingers have touched: pale blue patches with soft edges."""
    patches = [
        Stain(rng.uniform(10, 66), rng.uniform(6, 20), 16 - step, 11 - step * 0.7, turn, _between(YELLOW, INK, 0.05 + 0.05 * step))
        for turn in (0.4, 1.2)
        for step in range(9)
    ]
    middle = {turn: (rng.uniform(12, 64), rng.uniform(8, 18)) for turn in (0.4, 1.2)}
    placed = [replace(patch, x=middle[patch.turn][0], y=middle[patch.turn][1]) for patch in patches]
    drops = [Stain(rng.uniform(2, 74), rng.uniform(2, 24), 0.5, 0.5, 0.0, INK) for _ in range(250)]
    on_white = replace(shot, ground=WHITE)
    return taken(drawn(DROP_CARD, YELLOW, placed + drops, on_white, rng), on_white, rng)


def _between(first: tuple[int, int, int], second: tuple[int, int, int], share: float) -> tuple[int, int, int]:
    red, green, blue = (round(a + share * (b - a)) for a, b in zip(first, second, strict=True))
    return red, green, blue


def printed(rng: random.Random, shot: Shot) -> Picture:
    """A page of print: black bars as words."""
    words = [
        Stain(x, y, rng.uniform(4, 11), 1.6, 0.0, (30, 30, 34))
        for y in range(12, int(A6[1]) - 10, 5)
        for x in range(16, int(A6[0]) - 14, 12)
    ]
    return taken(drawn(A6, WHITE, words, shot, rng), shot, rng)


def on_grass(picture: Picture, sides: tuple[int, int, int], rng: random.Random) -> Picture:
    """The same picture with blades and soil all round the sheet instead of a plain board. sides: the board's colour."""
    noise = np.random.default_rng(rng.randrange(2**32))
    coarse = noise.normal(0, 1, (picture.shape[0] // 12, picture.shape[1] // 12, 1)).repeat(12, 0).repeat(12, 1)
    grass = np.clip(np.array([62, 96, 44]) + 26 * coarse, 0, 255)
    rows, columns = grass.shape[:2]
    lum = picture[:rows, :columns].mean(axis=-1, keepdims=True)
    is_ground = lum < sum(sides) / 3 * 1.25
    # Only what hangs together with the frame is ground: specks on the sheet stay.
    labels, _ = ndimage.label(is_ground[..., 0])
    outside = (labels == labels[2, 2])[..., None]
    return np.where(outside, grass, picture[:rows, :columns]).astype(np.uint8)
