"""Life stages by body type, for the Guide's wheel and pages."""

import functools
import random
import zlib

from bootmark.core.catalogue.model import Agent
from bootmark.drawing import insects, larvae, small, svg

HOPPER_NYMPH = (
    "hopper",
    "psyllid",
    "lace bug",
    "bug",
    "grasshopper",
    "earwig",
    "whitefly",
    "scale",
    "mealybug",
    "thrips",
    "mite",
    "aphid",
    "spider",
    "slug",
)


def _eggs(body: str, colour: str, rng: random.Random) -> str:
    if body in ("mite", "gall mite", "spider"):
        return "".join(svg.circle(38 + 15 * (n % 4), 58 + 17 * (n // 4), 6, colour, "#9a8d6d", 1) for n in range(10))
    if body in ("leaf beetle", "ladybird"):
        return "".join(
            svg.ellipse(40 + 9 * (n % 5) + 4 * (n // 5 % 2), 52 + 15 * (n // 5), 4, 9, "#e2a52f", stroke="#a9660f") for n in range(13)
        )
    if body == "lacewing":
        return "".join(
            svg.path(f"M{30 + 14 * n} 112L{28 + 15 * n} {60 + 5 * (n % 2)}", stroke="#8a8570", width=1)
            + svg.ellipse(28 + 15 * n, 56 + 5 * (n % 2), 3.4, 6, svg.WHITE, stroke="#8a8570")
            for n in range(5)
        )
    if body == "bug":
        return "".join(
            svg.ellipse(42 + 12 * (n % 4), 56 + 16 * (n // 4), 5, 7, "#c9d6a8", stroke="#7a8a5a")
            + svg.ellipse(42 + 12 * (n % 4), 51 + 16 * (n // 4), 4, 1.6, "#e9efd6", stroke="#7a8a5a", width=0.6)
            for n in range(11)
        )
    if body in ("moth", "sawfly", "bee", "wasp"):
        return "".join(
            svg.ellipse(rng.uniform(36, 84), rng.uniform(48, 92), 6, 4.4, "#e9e2b8", turn=rng.uniform(0, 90), stroke="#a89a62")
            for _ in range(12)
        )
    return "".join(
        svg.ellipse(rng.uniform(36, 84), rng.uniform(48, 92), 6.5, 2.8, "#f1ead2", turn=rng.uniform(-60, 60), stroke="#a8946a")
        for _ in range(12)
    )


def _larva(body: str, colour: str) -> str:
    if body == "moth":
        return larvae.caterpillar(60, 72, 86, colour)
    if body == "sawfly":
        return larvae.caterpillar(60, 72, 80, colour, head="#a5702f", fat=0.14, dots="#3a4a2a")
    if body in ("fly", "midge", "hoverfly"):
        return larvae.maggot(24, 72, -6, 2.0, colour)
    if body == "leaf beetle":
        return larvae.slug_larva(60, 76, 78, colour, dots=svg.INK)
    if body == "ladybird":
        return larvae.caterpillar(60, 72, 66, colour, head="#1f2224", fat=0.26, dots="#e08a2a", hairs=True)
    if body == "lacewing":
        return larvae.caterpillar(60, 72, 66, colour, head="#4a3a28", fat=0.22, hairs=True) + svg.path(
            "M98 68q12 -8 14 -2M98 78q12 8 14 2", stroke="#4a3a28", width=2
        )
    if body in ("beetle", "weevil"):
        return larvae.grub(60, 72, 36, legs=body == "beetle", colour=colour)
    if body == "borer":
        return larvae.caterpillar(60, 72, 90, colour, head="#8a5a2a", fat=0.1)
    return larvae.maggot(26, 72, 4, 1.9, colour)


def _adult(body: str, young: str, colour: str) -> str:
    draw = {
        "mite": lambda: small.mite(60, 72, 26, colour, patches=colour.lower() == "#d9d08c"),
        "gall mite": lambda: small.mite(60, 72, 40, colour, -20, worm=True),
        "aphid": lambda: small.aphid(60, 72, 28, colour, -30),
        "psyllid": lambda: insects.wasp(60, 74, 34, colour, -70),
        "whitefly": lambda: small.whitefly(60, 74, 38),
        "scale": lambda: "".join(small.scale_cover(x, y, 17, colour, "#3d352b") for x, y in ((44, 58), (76, 66), (54, 96))),
        "mealybug": lambda: small.mealybug(60, 72, 36, -10),
        "hopper": lambda: insects.hopper(60, 72, 40, colour, -20),
        "thrips": lambda: small.thrips(60, 72, 84, -20, colour),
        "bug": lambda: insects.bug(60, 74, 38, colour),
        "lace bug": lambda: insects.lace_bug(60, 74, 40, colour=colour),
        "moth": lambda: insects.moth(60, 76, 44, colour),
        "sawfly": lambda: insects.wasp(60, 76, 42, colour, -80),
        "leaf beetle": lambda: insects.beetle(60, 76, 38, colour, slim=0.7),
        "ladybird": lambda: insects.beetle(60, 76, 36, colour, slim=0.9, spots=7),
        "beetle": lambda: insects.beetle(60, 76, 40, colour, slim=0.55),
        "weevil": lambda: insects.beetle(60, 80, 36, colour, slim=0.58, snout=True),
        "borer": lambda: insects.beetle(60, 76, 44, colour, slim=0.34),
        "fly": lambda: insects.fly(60, 76, 40, colour),
        "midge": lambda: insects.fly(60, 76, 34, colour),
        "hoverfly": lambda: insects.fly(60, 76, 40, colour),
        "wasp": lambda: insects.wasp(60, 76, 40, colour, sting=True),
        "bee": lambda: insects.fly(60, 76, 40, colour),
        "lacewing": lambda: insects.lacewing(64, 80, 46),
        "ant": lambda: insects.ant(60, 72, 34, -20, colour),
        "grasshopper": lambda: insects.grasshopper(60, 76, 46, colour),
        "earwig": lambda: insects.earwig(62, 74, 36),
        "slug": lambda: small.slug(60, 84, 92, colour, house=True),
        "spider": lambda: small.spider(60, 72, 24, colour),
        "mammal": _prints,
        "bird": _bird,
    }
    return draw.get(body, lambda: "")()


def _prints() -> str:
    return "".join(
        svg.ellipse(x, y, 8, 10, "#8a6f52")
        + "".join(svg.circle(x - 9 + 6 * n, y - 13 - (3 if n in (1, 2) else 0), 3, "#8a6f52") for n in range(4))
        for x, y in ((42, 108), (76, 82), (44, 56))
    )


def _bird() -> str:
    return (
        svg.path("M20 84C30 56 66 46 84 58C90 50 104 52 104 62L114 66L104 70C100 96 60 108 38 96L16 104Z", "#5d6468", svg.INK, 1.4)
        + svg.circle(96, 62, 2.2, svg.INK)
        + svg.path("M60 102l-2 16M72 100l2 16", stroke="#a5702f", width=2.4)
    )


def _pupa(body: str, colour: str) -> str:
    if body in ("fly", "midge", "hoverfly"):
        return svg.ellipse(60, 72, 36, 16, "#8a4a22", turn=-8, stroke="#4a2a14") + "".join(
            svg.path(f"M{38 + 11 * n} 60q4 12 0 26", stroke="#5d3418", width=1.2) for n in range(5)
        )
    if body in ("wasp", "sawfly", "bee", "lacewing"):
        return svg.ellipse(60, 72, 38, 20, "#e9dfc0", turn=-10, stroke="#a8946a") + "".join(
            svg.path(f"M{30 + 12 * n} 62q8 10 0 22", stroke="#c9b98a", width=1) for n in range(6)
        )
    return larvae.pupa(60, 72, 40, colour)


def stage_body(body: str, stage: str, colours: tuple[str, str], seed: str) -> str:
    """One stage of a body type. Nymphs are small adults, but for scales, whiteflies and psyllids, which lie flat."""
    rng = random.Random(zlib.crc32(f"{seed}{stage}".encode()))
    young, grown = colours[0] or "#e9dfc0", colours[1] or "#8a7a5a"
    if stage == "egg":
        return _eggs(body, young, rng)
    if stage == "larva":
        return _larva(body, young)
    if stage == "pupa":
        return _pupa(body, "#7a4a22")
    if stage == "nymph":
        if body in ("whitefly", "scale", "psyllid"):
            return "".join(
                svg.ellipse(x, y, 18, 12, young, turn=turn, stroke="#8a7a4a")
                + svg.circle(x - 11, y - 3, 2, svg.RUST)
                + svg.circle(x - 11, y + 4, 2, svg.RUST)
                for x, y, turn in ((42, 60, 10), (78, 70, -30), (52, 98, 40))
            )
        return f'<g transform="translate(60 72) scale(0.62) translate(-60 -72)">{_adult(body, young, young)}</g>'
    return _adult(body, young, grown)


@functools.cache
def stage_svg(body: str, stage: str, colours: tuple[str, str], seed: str, title: str) -> str:
    return svg.document(stage_body(body, stage, colours, seed), title, "6 20 108 104")


def of_agent(agent: Agent, stage: str) -> str:
    return stage_svg("gall mite" if agent.family == "Eriophyidae" else agent.body, stage, agent.colours, agent.id, f"{agent.name}: {stage}")
