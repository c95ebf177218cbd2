"""The hour strip shows each hour where its own label says it is."""

import datetime as dt
import re
import unittest
from zoneinfo import ZoneInfo

from hypothesis import given
from hypothesis import strategies as st

from bootmark.core.meanings import HourState
from bootmark.core.messages import Says, says
from bootmark.core.season.windows import Cell, HourTable
from bootmark.web.timing import svg

ZONE = ZoneInfo("Europe/Zurich")
START = dt.datetime(2026, 6, 18, 5, tzinfo=dt.UTC)
"""Seven in the morning there."""


def table(states: list[HourState]) -> HourTable:
    times = tuple(START + dt.timedelta(hours=n) for n in range(len(states)))
    titles = [f"{time.astimezone(ZONE):%A %H} {state}" for state, time in zip(states, times, strict=True)]
    cells = tuple(Cell(state, (says(Says.CATALOGUE_CAUTION, caution=title),)) for state, title in zip(states, titles, strict=True))
    return HourTable(times, {"wind": cells}, cells)


def left_edges(drawn: str) -> dict[str, float]:
    """Left edge of the cell of each hour, by what its title says."""
    cells = re.findall(r'<g><title>([^<]*)</title><rect x="([\d.]+)"', drawn)
    return {title: float(x) for title, x in cells}


class HourStrip(unittest.TestCase):
    def test_a_label_stands_at_the_cell_of_its_hour_and_a_day_begins_at_midnight(self) -> None:
        drawn = svg.strips_svg(table([HourState.OK] * 48), ZONE, "hours")
        edges = left_edges(drawn)
        labels = re.findall(r'<text x="(\d+)" y="33"[^>]*>(\d+)</text>', drawn)
        self.assertGreaterEqual(len(labels), 5)
        for x, hour in labels:
            self.assertIn(float(x), [edge for title, edge in edges.items() if title.split()[1] == f"{int(hour):02}"], hour)
        midnight = edges["Friday 00 ok"]
        self.assertIn(f"M{midnight:.1f} 18.0L{midnight:.1f}", drawn)

    def test_the_hours_that_suit_are_framed_from_the_first_to_the_end_of_the_last(self) -> None:
        states = [HourState.NO] * 4 + [HourState.OK] * 3 + [HourState.CAUTION] * 5
        drawn = svg.strips_svg(table(states), ZONE, "hours")
        edges = left_edges(drawn)
        frame = re.search(r'<rect x="([\d.]+)" y="38.0" width="([\d.]+)" height="28" fill="none"', drawn)
        assert frame
        self.assertAlmostEqual(float(frame.group(1)) + 1, edges["Thursday 11 ok"], places=1)
        self.assertAlmostEqual(float(frame.group(1)) + float(frame.group(2)), edges["Thursday 14 caution"], places=1)

    @given(st.lists(st.sampled_from(list(HourState)), min_size=3, max_size=60))
    def test_each_hour_has_its_cell_in_its_own_colour(self, states: list[HourState]) -> None:
        drawn = svg.strips_svg(table(states), ZONE, "hours")
        word = re.findall(r"<g><title>[^<]*? (ok|caution|no)</title><rect [^>]*fill=\"([^\"]*)\"", drawn)
        self.assertEqual([state for state, _ in word], [*states, *states])
        for state, colour in word:
            self.assertEqual(colour, svg.FILL[HourState(state)])
        self.assertEqual(len(set(svg.FILL.values())), 3)
