"""What stands in the ground: soil by its wetness, roots, and plants as their water and roots leave them."""

import random

from bootmark.drawing import larvae, scenes, svg


def ground(wet: str = "dry") -> str:
    colour = {"dry": "#d9c39f", "moist": "#b59873", "sodden": "#8f7a60"}[wet]
    cracks = (
        "".join(
            svg.path(d, stroke="#a48a63", width=1.6)
            for d in ("M4 82L26 92L22 116M26 92L48 88", "M74 78L92 96L116 94M92 96L90 128", "M40 134L52 116L74 122")
        )
        if wet == "dry"
        else ""
    )
    water = svg.path("M0 72C24 66 48 78 72 71S108 68 120 73L120 82C90 78 60 86 0 80Z", "#9fb6bf") if wet == "sodden" else ""
    return svg.path("M0 72C30 66 70 78 120 70L120 140L0 140Z", colour) + cracks + water


def finger(wet: str) -> str:
    hand = svg.path("M46 4C44 30 46 62 52 98C54 108 66 108 67 98C69 62 72 30 74 4Z", "#e0b692", "#a77b58", 1.4) + svg.path(
        "M53 92C54 100 65 100 66 92", stroke="#a77b58", width=1
    )
    return ground(wet) + hand + svg.path("M50 62L70 62", stroke="#c59a76", width=1)


def drooping_after_water(rng: random.Random) -> str:
    left = f'<g transform="translate(0 34) scale(0.5)">{scenes.shoot(droop=True)}</g>'
    right = f'<g transform="translate(58 34) scale(0.52)">{scenes.shoot()}</g>'
    return (
        left
        + right
        + svg.path("M46 20l14 0m-5 -5l5 5l-5 5", stroke=svg.SLATE, width=2.6)
        + svg.path("M88 8c6 8 6 14 0 14s-6 -6 0 -14", "#7f9fae")
    )


def dead_among_green(rng: random.Random) -> str:
    parts = [svg.path("M0 112L120 112L120 140L0 140Z", svg.SOIL)]
    for x, dead in ((4, False), (40, True), (76, False)):
        plant = scenes.shoot(droop=dead)
        if dead:
            for green, brown in ((svg.GREEN, "#b08a55"), (svg.DARK_GREEN, "#94713f"), (svg.STEM, "#8a6a3d"), (svg.VEIN, "#d9c39a")):
                plant = plant.replace(green, brown)
        parts.append(f'<g transform="translate({x} 50) scale(0.46)">{plant}</g>')
    return "".join(parts)


def dry_line(rng: random.Random) -> str:
    pipe = svg.path("M0 58L120 58", stroke=svg.INK, width=9) + svg.circle(60, 66, 6, svg.INK)
    cross = svg.path("M46 84L74 112M74 84L46 112", stroke=svg.RUST, width=5)
    return f'<g transform="translate(0 28)">{ground("dry")}</g>' + pipe + cross


def root(chewed: bool, inside: str = "") -> str:
    earth = svg.path("M0 44C40 38 80 48 120 42L120 140L0 140Z", svg.SOIL)
    stem = svg.path("M60 4L60 46", stroke=svg.STEM, width=9)
    tap = svg.path("M54 44C52 76 56 106 60 134C64 106 68 76 66 44Z", "#efe6d0", "#b39a72", 1.2)
    if chewed:
        scars = svg.path("M56 60C62 66 56 72 63 80C57 88 64 94 59 104", stroke="#7a4a22", width=4) + svg.path(
            "M66 54l7 3M54 70l-8 4M66 88l6 4", stroke="#8b6a45", width=2.4
        )
        return earth + stem + tap + scars + inside
    side = "".join(
        svg.path(f"M{60 + s * 4} {56 + 13 * n}q{s * 22} 4 {s * 34} {20 - n}", stroke="#d9c9a6", width=2.4)
        for n in range(5)
        for s in (-1, 1)
    )
    return earth + stem + side + tap + inside


def maggots(rng: random.Random) -> str:
    return root(True, larvae.maggot(62, 66, 10) + larvae.maggot(28, 92, -14) + larvae.maggot(64, 110, 24, 0.9))


def base_eggs(rng: random.Random) -> str:
    eggs = "".join(
        svg.ellipse(
            40 + rng.uniform(0, 14) + (24 if n % 2 else 0),
            50 + rng.uniform(0, 12),
            4.2,
            1.6,
            svg.WHITE,
            turn=rng.uniform(-50, 50),
            stroke="#a8946a",
            width=0.7,
        )
        for n in range(12)
    )
    return root(False, eggs)
