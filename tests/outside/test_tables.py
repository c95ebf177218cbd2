"""Counting against printed tables."""

import unittest

from bootmark.core.field import count


class StudentT(unittest.TestCase):
    def test_critical_values(self) -> None:
        # Abramowitz and Stegun (1964), table 26.10, two-sided.
        for level, degrees, printed in ((0.90, 1, 6.314), (0.90, 9, 1.833), (0.95, 10, 2.228), (0.99, 30, 2.750), (0.95, 120, 1.980)):
            with self.subTest(level=level, degrees=degrees):
                self.assertAlmostEqual(count.student_t(level, degrees), printed, delta=0.0006)


class Wilson(unittest.TestCase):
    def test_limits(self) -> None:
        # Newcombe (1998), Statistics in Medicine 17, table I, method 3: 81/263, 15/148, 0/20, 1/29 at 95 per cent.
        for hits, units, low, high in ((81, 263, 0.2553, 0.3662), (15, 148, 0.0624, 0.1605), (0, 20, 0.0, 0.1611), (1, 29, 0.0061, 0.1718)):
            with self.subTest(hits=hits, units=units):
                limits = count.wilson(hits, units, 0.95)
                self.assertAlmostEqual(limits[0], low, places=4)
                self.assertAlmostEqual(limits[1], high, places=4)

    def test_none_found(self) -> None:
        # The rule of three: with no event in n the 95 per cent limit is about 3 / n (Hanley and Lippman-Hand 1983).
        self.assertAlmostEqual(count.interval({"counts": [0] * 60}, level=0.95).high, 3 / 60, delta=0.001)
