"""What the Look screen and the Enquiry share: the signs to pick from and the plant to point at."""

from collections import Counter
from dataclasses import dataclass
from typing import Any

from flask import g, render_template
from markupsafe import Markup

from bootmark import say
from bootmark.core.catalogue.model import PARTS, Catalogue, Sign
from bootmark.core.field.resolve import resolve
from bootmark.core.field.tappable import signs_for
from bootmark.core.types import STATES, Case
from bootmark.drawing.plant import parts, shape_of
from bootmark.say import bench as bench_words
from bootmark.services.base import memo
from bootmark.services.scouting.looks import Answered

AT_FIRST = 12
"""Signs shown of a part before all are asked for."""


@dataclass(frozen=True)
class Pick:
    """The plant to point at and the signs to tap, drawn; and what the bench's script knows of the signs."""

    drawn: Markup
    script: dict[str, Any]


_picks: memo.Kept[Pick] = memo.Kept(128)


def leaf_of(catalogue: Catalogue, crop: str, family: str = "") -> str:
    """The leaf form to draw signs on: the crop's own, that of its family's first crop, or a plain leaf."""
    if crop in catalogue.crops:
        return catalogue.crops[crop].leaf
    return next((entry.leaf for entry in catalogue.crops.values() if entry.family == family), "ovate")


def pick_from(catalogue: Catalogue, crop: str, family: str = "") -> Pick:
    """What is drawn to pick from on a crop: the same for everybody, and made once."""
    key = (catalogue.hash, crop, family)
    return _picks.get(key) or _picks.put(key, _pick(catalogue, crop, family))


def _pick(catalogue: Catalogue, crop: str, family: str) -> Pick:
    signs = signs_for(catalogue, crop, family)
    used = [part for part in PARTS if any(sign.part == part for sign in signs)]
    leaf = leaf_of(catalogue, crop, family)
    case, _ = resolve(Case(crop, family=family), catalogue)
    plant = parts(shape_of(catalogue.crops.get(crop), case.habit, leaf))
    shown = {part.name for part in plant}
    drawn = {
        "signs": signs,
        # What this plant has not got stands last.
        "parts": sorted(used, key=lambda part: part not in shown),
        "plant": [(part.name, part.body) for part in plant],
        "labels": {part.name: part.label for part in plant if part.name in used},
        "leaf": leaf,
    }
    return Pick(Markup(render_template("bench_pick.html", pick=drawn)), script_of(signs))  # noqa: S704 - a template of ours


def signs_sent(catalogue: Catalogue, posted: dict[str, Any]) -> dict[str, str] | None:
    """The signs of a posted case; None where they are not signs and states that Bootmark knows."""
    signs = posted.get("signs")
    # An answer may be anything here, also what can't be looked up.
    good = isinstance(signs, dict) and all(
        sign in catalogue.signs and isinstance(state, str) and state in STATES for sign, state in signs.items()
    )
    return signs if good else None


def tools_of(catalogue: Catalogue) -> list[str]:
    """Every tool that some look takes, the most used first."""
    used = Counter(tool for look in catalogue.looks.values() for tool in look.tools)
    return [tool for tool, _ in used.most_common()]


def script_of(signs: list[Sign]) -> dict[str, Any]:
    """What the bench's script knows of the signs; those seen at a glance stand under no part."""
    by_part: dict[str, list[str]] = {"": [sign.id for sign in signs if sign.look == "glance"]}
    for sign in signs:
        by_part.setdefault(sign.part, []).append(sign.id)
    return {
        "names": {sign.id: sign.name for sign in signs},
        "on": by_part,
        "first": {part: ids[: AT_FIRST + (4 if not part else 0)] for part, ids in by_part.items()},
    }


def ranked(answered: Answered, onward: str = "") -> dict[str, Any]:
    """A case as the bench draws it. onward: what a kept case leads to, where it is the same for every verdict."""
    shown = bench_words.ranked(say.tongue(), answered.case, answered.ranking, answered.looks, answered.verdict, g.catalogue)
    if onward:
        shown["verdict"]["onward"] = onward
    return shown
