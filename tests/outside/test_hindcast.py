"""Event dates foretold on an open daily series, each year from the others, against smoothed climatology of the same run."""

import unittest

from bench import hindcast


class Hindcast(unittest.TestCase):
    def test_no_worse_than_climatology_and_honest_about_it(self) -> None:
        for row in hindcast.run():
            with self.subTest(lead=row.lead):
                self.assertEqual(row.events, 60)
                self.assertLessEqual(row.ours, row.climatology)
                self.assertLess(row.ours, row.last_week)
                self.assertTrue(0.7 <= row.held <= 0.9, row.held)
