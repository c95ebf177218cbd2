"""Photographs that measure: what a picture is to say, read once when it arrives, and kept with it."""

import io
import threading
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

import numpy as np
from PIL import Image

from bootmark import say
from bootmark.core.meanings import CardPlace, Gate, Pictured, Refusal, SheetSize
from bootmark.core.photo import cards, droplets, leaf, sheet, specks
from bootmark.core.photo.cards import Things
from bootmark.core.photo.leaf import Leaves
from bootmark.core.photo.light import Picture, Unreadable
from bootmark.core.photo.specks import Specks
from bootmark.services.base.command import Refused
from bootmark.services.base.handling import Json

Outline = tuple[tuple[float, float], ...]
"""Corners as shares of a picture's width and height."""
MOST_CORNERS = 60
_turn = threading.Lock()


@dataclass(frozen=True)
class Asked:
    """What is to be measured on a picture. sheet: what it lies on; gate: of paper alone; second: it is taken a few seconds after the last
    of the same paper; place: where a card for drops was."""

    of: Pictured
    sheet: SheetSize | None = None
    gate: Gate | None = None
    second: bool = False
    place: CardPlace | None = None

    @classmethod
    def read(cls, form: Mapping[str, str]) -> "Asked | None":
        """What a form asks for; None where it asks nothing. Raises Refused."""
        if not form.get("measures"):
            return None
        if form["measures"] not in tuple(Pictured):
            raise Refused(measures=say.line("Choose what is to be measured: leaves, paper, card or drops."))
        of = Pictured(form["measures"])
        size, gate, place = form.get("sheet", ""), form.get("gate", ""), form.get("place", "")
        if of in sheet.OF and size not in sheet.OF[of]:
            raise Refused(sheet=say.line("Choose how large the sheet is: its sides are the scale."))
        if of == Pictured.PAPER and gate not in tuple(Gate):
            raise Refused(gate=say.line("Choose how long the animals are: what is larger or smaller is left out."))
        return cls(
            of,
            SheetSize(size) if of in sheet.OF else None,
            Gate(gate) if of == Pictured.PAPER else None,
            "second" in form and of == Pictured.PAPER,
            CardPlace(place) if of == Pictured.DROPS and place in tuple(CardPlace) else None,
        )

    @classmethod
    def kept(cls, asked: Json) -> "Asked":
        """What was kept with a photograph."""
        size, gate, place = asked.get("sheet"), asked.get("gate"), asked.get("place")
        return cls(
            Pictured(asked["of"]),
            SheetSize(size) if size else None,
            Gate(gate) if gate else None,
            bool(asked.get("second")),
            CardPlace(place) if place else None,
        )


def outline_of(text: str) -> Outline:
    """Corners that somebody drew, as "0.12,0.5 0.3,0.61": shares of the width and the height; none where they are no such corners."""
    pairs = [pair.split(",") for pair in text.split()[:MOST_CORNERS]]
    try:
        corners = tuple((float(x), float(y)) for x, y in pairs)
    except ValueError:
        return ()
    return corners if len(corners) > 2 and all(0 <= share <= 1 for corner in corners for share in corner) else ()


def read(content: bytes) -> Picture:
    """A kept photograph as an array."""
    return np.asarray(Image.open(io.BytesIO(content), formats=("JPEG",)).convert("RGB"))


def leaves(content: bytes, outline: Outline = ()) -> Leaves | Refusal:
    """What a picture of leaves says, or why it says nothing. outline: the whole leaf as somebody drew it, none where nobody did."""
    # One at a time: a picture takes a core for up to a second.
    with _turn:
        try:
            return leaf.by_outline(read(content), np.array(outline)) if outline else leaf.measure(read(content))
        except Unreadable as error:
            return error.why


def measured(content: bytes, asked: Asked, before: Json | None) -> Json:
    """What a picture says, as it is kept. before: what the one that it follows said, None where there is none."""
    with _turn:
        try:
            return _measured(read(content), asked, before)
        except Unreadable as error:
            return {"refused": str(error.why)}


def _measured(picture: Picture, asked: Asked, before: Json | None) -> Json:
    if asked.of == Pictured.LEAVES:
        return of_leaves(leaf.measure(picture))
    if asked.of == Pictured.DROPS:
        return _drops(picture, _sides(asked))
    return _paper(picture, asked, before) if asked.of == Pictured.PAPER else _card(picture, asked, before)


def of_leaves(measured_leaves: Leaves) -> Json:
    """Leaves as they are kept with their picture."""
    each = [{"lost": single.lost, "discoloured": single.discoloured} for single in measured_leaves.leaves]
    return {"leaves": each, "lost": measured_leaves.lost, "discoloured": measured_leaves.discoloured}


def _sides(asked: Asked) -> tuple[float, float]:
    assert asked.sheet
    return sheet.SIDES[asked.sheet]


def _list(values: Any) -> list[Any]:
    whole: list[Any] = np.round(np.asarray(values, dtype=float), 4).tolist()
    return whole


def _paper(picture: Picture, asked: Asked, before: Json | None) -> Json:
    assert asked.gate
    seen = specks.specks(picture, _sides(asked), specks.GATES[asked.gate])
    kept: Json = {"places": _list(seen.places), "seen": _list(seen.seen), "lengths": _list(seen.lengths), "larger": seen.larger}
    kept |= {"count": seen.count, "moving": None, "moved": None}
    if before and "places" in before:
        places = np.array(before["places"]).reshape(-1, 2)
        first = Specks(places, places, np.array(before["lengths"]), before["larger"], seen.sides)
        pair = specks.moved(seen, first)
        kept |= {"moving": pair.moving, "moved": list(pair.moved)}
    return kept


def _card(picture: Picture, asked: Asked, before: Json | None) -> Json:
    things = cards.measure(picture, _sides(asked), dish=asked.sheet in sheet.ROUND)
    kept: Json = {"places": _list(things.places), "seen": _list(things.seen), "lengths": _list(things.lengths)}
    kept |= {"widths": _list(things.widths), "count": len(things.places), "came": None}
    if before and "places" in before:
        places = np.array(before["places"]).reshape(-1, 2)
        first = Things(places, places, np.array(before["lengths"]), np.array(before["widths"]), things.sides)
        kept["came"] = cards.came(first, things).tolist()
    return kept


def _drops(picture: Picture, sides: tuple[float, float]) -> Json:
    card = droplets.card(picture, sides)
    return {"cover": round(card.cover, 4), "count": card.count, "per_cm2": None if card.per_cm2 is None else round(card.per_cm2, 1)}
