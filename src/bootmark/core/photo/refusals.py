"""Why a picture measures nothing. Rules compare members; the words, and what to do instead, are made at the edge."""

from enum import StrEnum


class Refusal(StrEnum):
    """Too dark; blurred; too bright in places; the ground is not plain; nothing lies on it; it is cut by the picture's edge; leaves on each
    other, or edges eaten on both sides, so that the outline can't be told; a shadow over it; tilted; no sheet; two pictures that don't
    match; paper that is blued all over, or too wet to tell drops apart; a picture of something else."""

    DARK = "dark"
    BLURRED = "blurred"
    GLARE = "glare"
    GROUND = "ground"
    NOTHING = "nothing"
    CUT = "cut"
    OUTLINE = "outline"
    SHADOW = "shadow"
    TILTED = "tilted"
    NO_SHEET = "no sheet"
    NO_MATCH = "no match"
    BLUED = "blued"
    MERGED = "merged"
    OTHER = "other"


class Unreadable(Exception):
    """A picture that can't be measured."""

    def __init__(self, why: Refusal) -> None:
        super().__init__(why)
        self.why = why
