"""The round outside the season: winter, before planting, the store."""

import datetime as dt
import unittest

from bootmark.core.catalogue import default
from bootmark.core.field import yearly
from bootmark.core.field.yearly import Ground, Task
from bootmark.core.meanings import YearTask
from bootmark.say.yearly import TASKS

CROPS = default().crops
PEARS, LEEKS, BIRCHES = Ground("pears", [CROPS["pear"]]), Ground("leeks", [CROPS["leek"]]), Ground("birches", [CROPS["birch"]])
JANUARY, JULY = dt.date(2026, 1, 20), dt.date(2026, 7, 20)


def kinds(day: dt.date, grounds: list[Ground], latitude: float = 52.0, place: str | None = None) -> set[YearTask]:
    return {task.kind for task in yearly.tasks(day, latitude, grounds, [], {}) if place in (None, task.place)}


class Winter(unittest.TestCase):
    def test_wood_is_looked_at_while_it_is_bare(self) -> None:
        self.assertEqual(kinds(JANUARY, [PEARS], place="pears"), {YearTask.SPURS, YearTask.MUMMIES})
        self.assertEqual(kinds(JANUARY, [BIRCHES], place="birches"), {YearTask.SPURS, YearTask.OLD_BAGS})
        self.assertEqual(kinds(JANUARY, [LEEKS], place="leeks"), set())
        self.assertEqual(kinds(JULY, [PEARS, BIRCHES]), set())

    def test_the_south_has_its_winter_in_july(self) -> None:
        self.assertEqual(kinds(JULY, [PEARS], -33.0, "pears"), {YearTask.SPURS, YearTask.MUMMIES})
        self.assertEqual(kinds(JANUARY, [PEARS], -33.0), set())

    def test_the_tropics_have_none(self) -> None:
        for day in (JANUARY, JULY):
            self.assertEqual(kinds(day, [PEARS], 4.0), set())

    def test_a_task_is_done_once_a_winter_and_due_again_the_next(self) -> None:
        done = {(YearTask.NOZZLES, ""): dt.date(2025, 12, 10)}
        in_january, in_next_winter = (
            {task.kind for task in yearly.tasks(day, 52.0, [], [], done)} for day in (JANUARY, dt.date(2026, 12, 2))
        )
        self.assertNotIn(YearTask.NOZZLES, in_january)
        self.assertIn(YearTask.NOZZLES, in_next_winter)
        self.assertEqual(yearly.season_since(frozenset({12, 1, 2}), JANUARY), dt.date(2025, 12, 1))


class Soil(unittest.TestCase):
    def test_before_planting_the_soil_is_baited_and_what_was_left_is_looked_at(self) -> None:
        planned = Ground("field", [], plants_on=dt.date(2026, 4, 20))
        wanted = {YearTask.LAST_CROP, YearTask.SOIL_BAITS}
        self.assertEqual(kinds(dt.date(2026, 4, 1), [planned], place="field"), wanted)
        for day in (dt.date(2026, 2, 1), dt.date(2026, 4, 20)):
            self.assertEqual(kinds(day, [planned], place="field"), set(), day)


class Store(unittest.TestCase):
    def test_a_store_has_its_rhythm_all_year(self) -> None:
        never = yearly.tasks(JULY, 52.0, [], ["barn"], {})
        self.assertEqual({task.kind for task in never}, set(yearly.OF_STORE))
        done = {(kind, "barn"): JULY - dt.timedelta(days=10) for kind in yearly.OF_STORE}
        due = yearly.tasks(JULY, 52.0, [], ["barn"], done)
        self.assertEqual(
            due,
            [
                Task(YearTask.STORE_TEMPERATURE, "barn", JULY - dt.timedelta(days=3)),
                Task(YearTask.STORE_TRAPS, "barn", JULY - dt.timedelta(days=3)),
            ],
        )

    def test_each_task_has_its_words(self) -> None:
        self.assertEqual(set(TASKS), set(YearTask))
        self.assertIn("licensed firm", TASKS[YearTask.STORE_SIEVE][1])
