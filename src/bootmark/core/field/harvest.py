"""Days to a picking, and the picking that a treatment forbids. Standard library only."""

import datetime as dt

from bootmark.core import judgement
from bootmark.core.catalogue.model import Control


def whole_days(on: dt.date, picking: dt.date | None) -> int | None:
    """Whole days between a treatment at any hour of a day and the morning of the next picking; None where no picking is known.

    A treatment on Tuesday evening has no whole day before Wednesday's picking. Once the day of picking has come and no next one is told,
    it is being picked: nought; a day long past was last season's, and tells nothing.

    >>> whole_days(dt.date(2026, 6, 15), dt.date(2026, 6, 17)), whole_days(dt.date(2026, 6, 16), dt.date(2026, 6, 17))
    (1, 0)
    """
    if picking is None or (on - picking).days > judgement.PICKING_LASTS_DAYS:
        return None
    return max(0, (picking - on).days - 1)


def wanted_days(control: Control, eaten: bool = True, fed: bool = False) -> int:
    """Days that a control must keep before the crop is picked, cut or grazed: the longest of what its label asks, as recalled.

    Where one that is asked for is not known, those within which it is refused: an unknown is no nought.
    """
    asked = [control.harvest_days] * eaten + [control.feed_days] * fed
    return max((judgement.UNKNOWN_HARVEST_DAYS if days is None else days for days in asked), default=0)


def intervals_known(control: Control, eaten: bool = True, fed: bool = False) -> bool:
    """Whether every interval that the crop asks for is known."""
    return (control.harvest_days is not None or not eaten) and (control.feed_days is not None or not fed)


def first_picking(done: dt.date, days: int) -> dt.date:
    """The first day that may be picked after a treatment with an interval of so many days.

    >>> print(first_picking(dt.date(2026, 6, 15), 1))
    2026-06-17
    """
    return done + dt.timedelta(days=days + 1) if days else done
