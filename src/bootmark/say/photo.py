"""Why a picture measures nothing, and what to do instead. Keys are the words of core.photo.refusals."""

REFUSED: dict[str, str] = {
    "dark": "Too dark to measure: take it in daylight, or nearer to a window.",
    "blurred": "Too blurred to measure: hold still, and tap on the leaf to focus.",
    "glare": "It shines, or is too bright: turn it out of the sun, and take it from straight above.",
    "ground": "The ground is not plain: lay it on white paper or a board, not on the palm.",
    "nothing": "No leaf lies on it: a leaf takes a hundredth of the picture at the least.",
    "cut": "It goes over the edge: the whole leaf must lie within the picture, with ground all round.",
    "outline": "Its outline can't be told: eaten on both sides, lobed, or leaves on each other. Hold it against the drawn ones.",
}
"""By refusal."""
