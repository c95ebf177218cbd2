"""The open daily series for 2012-2015 that vega_datasets carries, single sine, 10 to 31.1 C, from 1 March.

The dates were computed apart from this project by numerical integration of the sine.
"""

import csv
import datetime as dt
import unittest
from pathlib import Path

import numpy as np
import vega_datasets

from bootmark.core.season import degree_days

SERIES = Path(vega_datasets.__file__).parent / "_data" / "seattle-weather.csv"
REACHED = {
    250: ("2012-05-24", "2013-05-09", "2014-05-13", "2015-05-08"),
    1000: ("2012-07-31", "2013-07-07", "2014-07-10", "2015-06-29"),
}


class Dates(unittest.TestCase):
    def test_sums_are_reached_on_the_known_days(self) -> None:
        with SERIES.open() as file:
            rows = [
                (dt.date.fromisoformat(row["date"].replace("/", "-")), float(row["temp_min"]), float(row["temp_max"]))
                for row in csv.DictReader(file)
            ]
        for year in range(2012, 2016):
            days = [row for row in rows if row[0].year == year and row[0] >= dt.date(year, 3, 1)]
            heat = np.cumsum(degree_days.daily([row[1] for row in days], [row[2] for row in days], 10, 31.1))
            for sum_f, dates in REACHED.items():
                with self.subTest(year=year, sum_f=sum_f):
                    self.assertEqual(days[int((heat >= sum_f / 1.8).argmax())][0].isoformat(), dates[year - 2012])
