"""What a drawing shows, in words: the marks by which neighbours are told apart."""

from bootmark.core.catalogue.drawn import Cover, Drawn, Pattern, Pose, Wings
from bootmark.say.tongue import Tongue

NAMED = {
    "black": 0x1F1D1A, "dark blue": 0x26324A, "blue": 0x2F4A5A, "green": 0x2F8A4A, "pale green": 0xA9C46A, "yellow": 0xE0C13A,
    "gold": 0xE8D98A, "orange": 0xD9893A, "red": 0xC0392B, "brown": 0x6B4A2A, "pale brown": 0xA5824A, "grey": 0x8A8578,
    "cream": 0xF0E3B8, "white": 0xF6F3EA,
}  # fmt: skip
PATTERNS = {
    Pattern.VEES: "{colour} V marks along the side", Pattern.SLANTS: "{colour} slanting stripes along the side",
    Pattern.WARTS: "{colour} bumps", Pattern.KEYHOLES: "{colour} keyholes down the back", Pattern.CROSS: "{colour} patches, like a cross",
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
    Pose.LOOP: "loops as it walks", Pose.CURLED: "curls up", Pose.RAISED: "lifts its tail", Pose.HELD_UP: "holds its wings up",
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
}
PLACES = {
    "horn": ("{colour} horn", "no horn"), "neck": ("{colour} shield behind the head", "no shield of another colour"),
    "head": ("{colour} head", "brown or dark head"),
}  # fmt: skip
FLY_NECK = ("{colour} spot between the wings", "no spot between the wings")
FLAGS = {"hairs": ("hairy or woolly", "bare"), "wax": ("dusted with wax", "no wax")}
SLENDER = 0.45


def colour_name(colour: str) -> str:
    """The word that is nearest to a colour."""
    value = int(colour.lstrip("#") or "1f1d1a", 16)

    def apart(other: int) -> int:
        return sum(((value >> shift & 255) - (other >> shift & 255)) ** 2 for shift in (0, 8, 16))

    return min(NAMED, key=lambda name: apart(NAMED[name]))


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
