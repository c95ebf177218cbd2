"""What a drawing shows, in words: the marks by which neighbours are told apart."""

import functools
import math

from bootmark.core.catalogue.drawn import Cover, Drawn, Pattern, Pose, Wings
from bootmark.say.tongue import Tongue

NAMED = {
    "black": "#1f1d1a", "dark brown": "#432f1f", "dark grey": "#424242", "dark green": "#3a4a2a", "dark blue": "#26324a",
    "green": "#2f8a4a", "olive": "#8f9a3a", "pale green": "#a9c46a", "yellow": "#e0c13a", "pale yellow": "#e8d98a", "orange": "#d9893a",
    "red": "#c0392b", "brown": "#6b4a2a", "pale brown": "#a5824a", "tan": "#c9b08a", "grey": "#8a8578", "cream": "#f0e3b8",
    "white": "#f6f3ea",
}  # fmt: skip
PATTERNS = {
    Pattern.VEES: "{colour} V marks along the side", Pattern.SLANTS: "{colour} slanting stripes along the side",
    Pattern.WARTS: "{colour} bumps", Pattern.CROSS: "{colour} patches, like a cross",
    Pattern.CHECKS: "{colour} flecks", Pattern.SADDLE: "a saddle of another colour", Pattern.INVERTED_Y: "an upside-down Y on the head",
    Pattern.TUFTS: "tufts of hair", Pattern.NONE: "no such marks",
}  # fmt: skip
WINGS = {
    Wings.CLEAR: "wings one sees through", Wings.TIP_BAND: "{colour} ends of the wings", Wings.TIP_SPOT: "{colour} spot at the wing tip",
    Wings.SILVER_Y: "a silver Y on each wing", Wings.DIAMONDS: "diamonds down the back", Wings.KIDNEYS: "{colour} kidney on each wing",
    Wings.ZIGZAG: "{colour} zigzags", Wings.BARS: "straight bars on the wings", Wings.LETTER_F: "an F on each wing",
    Wings.TWO_BANDS: "two {colour} bands", Wings.WAVES: "wavy lines", Wings.DOTS: "{colour} dots", Wings.FRINGE: "fringed wings",
    Wings.CROSS_BANDS: "{colour} bands across", Wings.HOOD: "a hood over the head", Wings.PLAIN: "plain wings",
}  # fmt: skip
POSES = {
    Pose.USUAL: "lies straight", Pose.ROOF: "wings like a roof", Pose.DELTA: "wings like a broad triangle", Pose.OPEN: "wings spread",
    Pose.LOOP: "loops as it walks", Pose.CURLED: "curls up", Pose.RAISED: "lifts its tail",
    Pose.BAG: "lives in a bag", Pose.DARTING: "runs fast on long legs",
}  # fmt: skip
COVERS = {
    Cover.ROUND: "a round cover", Cover.OYSTER: "a cover like an oyster's shell", Cover.PEAR: "a cover like a pear",
    Cover.SLIPPER: "a white slipper", Cover.DOME: "a dome without a loose cover",
}  # fmt: skip
COUNTS = {
    "stripes": ("{of} {colour} stripe", "{of} {colour} stripes", "no stripes"),
    "bands": ("{of} {colour} band", "{of} {colour} bands", "no bands"),
    "spots": ("{of} {colour} spot or row of spots", "{of} {colour} spots or rows of spots", "no spots"),
    "toes": ("{of} toe", "{of} toes", "four toes"),
}
PLACES = {
    "horn": ("{colour} horn", "no horn"), "neck": ("{colour} shield behind the head", "no shield of another colour"),
    "head": ("{colour} head", "brown or dark head"), "feelers": ("{colour} bands on the feelers", "feelers without bands"),
    "tubes": ("{colour} tubes on its back", "dark tubes on its back"), "claws": ("{colour} marks of claws", "no marks of claws"),
}  # fmt: skip
FLY_NECK = ("{colour} spot between the wings", "no spot between the wings")
FLAGS = {"hairs": ("hairy or woolly", "bare"), "wax": ("dusted with wax", "no wax")}
SLENDER = 0.45


@functools.cache
def _seen(colour: str) -> tuple[float, float, float]:
    """Lightness, red against green, yellow against blue, so that equal distances look alike: Oklab, Ottosson 2020."""
    shares = (int(colour[at : at + 2], 16) / 255 for at in (1, 3, 5))
    r, g, b = (share / 12.92 if share <= 0.04045 else ((share + 0.055) / 1.055) ** 2.4 for share in shares)
    long, medium, short = (
        math.cbrt(r * x + g * y + b * z)
        for x, y, z in (
            (0.4122214708, 0.5363325363, 0.0514459929),
            (0.2119034982, 0.6806995451, 0.1073969566),
            (0.0883024619, 0.2817188376, 0.6299787005),
        )
    )
    return (
        0.2104542553 * long + 0.7936177850 * medium - 0.0040720468 * short,
        1.9779984951 * long - 2.4285922050 * medium + 0.4505937099 * short,
        0.0259040371 * long + 0.7827717662 * medium - 0.8086757660 * short,
    )


def colour_name(colour: str) -> str:
    """The word that is nearest to a colour as the eye sees it."""
    return min(NAMED, key=lambda name: math.dist(_seen(colour or NAMED["black"]), _seen(NAMED[name])))


def described(tongue: Tongue, drawn: Drawn, name: str, body: str) -> str:
    """One mark of a drawing. name: of the field, one of drawn.TOLD; body: its body type."""
    mark = tongue.line(colour_name(drawn.mark))
    if name in COUNTS:
        count = getattr(drawn, name)
        single, several, none = COUNTS[name]
        return tongue.many(single, several, count, colour=mark) if count else tongue.line(none)
    if name in PLACES:
        there, none = FLY_NECK if name == "neck" and body == "fly" else PLACES[name]
        return tongue.line(there, colour=tongue.line(colour_name(getattr(drawn, name)))) if getattr(drawn, name) else tongue.line(none)
    if name in FLAGS:
        return tongue.line(FLAGS[name][not getattr(drawn, name)])
    if name == "slim":
        return tongue.line("slender") if 0 < drawn.slim < SLENDER else tongue.line("broad")
    words = {"pattern": PATTERNS.get(drawn.pattern), "wings": WINGS.get(drawn.wings), "pose": POSES.get(drawn.pose)}
    return tongue.line(words.get(name) or COVERS[drawn.cover], colour=mark)
