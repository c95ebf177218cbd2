"""Why a picture measures nothing, and what to do instead."""

from bootmark.core.meanings import Refusal

REFUSED: dict[Refusal, str] = {
    Refusal.DARK: "Too dark to measure: take it in daylight, or nearer to a window.",
    Refusal.BLURRED: "Too blurred to measure: hold still, and tap on what lies there to focus.",
    Refusal.GLARE: "It shines, or is too bright: turn it out of the sun, and take it from straight above.",
    Refusal.GROUND: "The ground is not plain: lay it on white paper or a board, not on the palm.",
    Refusal.NOTHING: "No leaf lies on it: a leaf takes a hundredth of the picture at the least.",
    Refusal.CUT: "It goes over the edge: all of it must lie within the picture, with ground all round.",
    Refusal.OUTLINE: "Its outline can't be told: eaten on both sides, lobed, or leaves on each other. Hold it against the drawn ones.",
    Refusal.ACROSS: "An edge runs across it, of another leaf, a fold or a shadow: lay single leaves flat, in even light.",
    Refusal.NOT_GREEN: "Nothing on it is green: leaves are measured, and those that are green at least in part.",
    Refusal.NO_SHEET: "No sheet with four straight sides is seen: lay it flat on something darker, all of it in the picture.",
    Refusal.NO_DISH: "No round dish is seen: take a white one, on something of another colour, all of it in the picture.",
    Refusal.TILTED: "Taken too much from the side: hold the phone level above it.",
    Refusal.FAR: "Taken from too far for things so small: fill the picture with the sheet, or take a smaller sheet.",
    Refusal.MARKED: "That is not an empty sheet: take one without print, stains or dust.",
    Refusal.NO_MATCH: "The two pictures are not of one sheet: take the second three seconds after the first, without moving the sheet.",
    Refusal.BLUED: "The card is blued all over by damp air: take a fresh one, and keep the rest in its bag.",
    Refusal.FINGERS: "The card was touched or smeared: hold it by its edge, and read it dry.",
}
"""By why."""
