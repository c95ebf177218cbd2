"""What share of a population is past each event of a heat model, and so in each stage."""

from collections.abc import Sequence

import numpy as np
from numpy.typing import ArrayLike, NDArray
from scipy.special import ndtr

from bootmark.core import judgement
from bootmark.core.catalogue.heat import Heat

Array = NDArray[np.float64]
NOT_YET, OVER = "not yet", "over"
GROWN = "adult"


def passed(heat: ArrayLike, model: Heat, held: ArrayLike | None = None) -> Array:
    """Share of the population past each event: (events, ...), never rising from one event to the next.

    heat: degree-days C since the biofix, any shape; held: the same on the day from which those that come to the wintering
    stage stay in it, of a shape that goes with heat, None where there is no such day. An early animal is taken to stay early,
    so that those in winter are the later ones of each generation.
    """
    sums = np.asarray(heat, dtype=float)
    share = np.stack([ndtr((sums - event.middle) / event.spread) for event in model.events])
    share = np.minimum.accumulate(share, axis=0)
    if held is not None and model.winter_stage:
        before = np.minimum(sums, np.asarray(held, dtype=float))
        most = np.ones_like(share[0])
        stages = [event.stage for event in model.events]
        for place, event in enumerate(model.events):
            share[place] = np.minimum(share[place], most)
            # Within a stage they go on; none leaves it that came to its last phase too late.
            if event.stage == model.winter_stage and stages[place + 1 : place + 2] != [model.winter_stage]:
                most = np.minimum(most, ndtr((before - event.middle) / event.spread))
    return share


def phases(heat: ArrayLike, model: Heat, held: ArrayLike | None = None) -> Array:
    """Share in each phase: rows "not yet", then one for each event; over rows they add to one. heat, held: as `passed` takes them."""
    past = passed(heat, model, held)
    following = np.concatenate([past[1:], np.zeros_like(past[:1])])
    return np.concatenate([1 - past[:1], past - following])


def alive(rows: Array, heat: ArrayLike, model: Heat, held: ArrayLike | None, killed: ArrayLike) -> Array:
    """Rows of phases with those who leave the crop moved to the end: over rows they still add to one.

    Grown animals that winter elsewhere leave once they are held; the cold kills what is in a stage that does not winter. killed: the share
    that it has killed, of a shape that goes with heat. A model that tells no end of the year keeps its rows.
    """
    if model.events[-1].stage != OVER:
        return rows
    rows = rows.copy()
    leaves = np.zeros_like(rows[0])
    if held is not None:
        leaves = np.clip((np.asarray(heat, dtype=float) - np.asarray(held, dtype=float)) / judgement.WINTERING, 0.0, 1.0)
    for place, event in enumerate(model.events[:-1], 1):
        if event.stage != model.winter_stage:
            gone = np.broadcast_to(np.asarray(killed, dtype=float), rows[place].shape)
        elif event.stage == GROWN and model.events[-1].foretold:
            gone = leaves
        else:
            continue
        rows[-1] += rows[place] * gone
        rows[place] *= 1 - gone
    return rows


def by_stage(rows: Array, model: Heat) -> dict[str, Array]:
    """Rows of phases added up by their stage; "not yet" and, where the model tells it, "over" among them."""
    shares = {NOT_YET: rows[0].copy()}
    for event, row in zip(model.events, rows[1:], strict=True):
        shares[event.stage] = shares.get(event.stage, 0) + row
    return shares


def seen_stages(model: Heat) -> Sequence[str]:
    """Stages that somebody in the field can see, in the order in which they come."""
    return tuple(dict.fromkeys(event.stage for event in model.events if event.stage != OVER))
