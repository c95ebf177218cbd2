"""Stages, the season page, traps and stations as the pages answer them: what is refused, where it is said, what is drawn."""

import datetime as dt
import json
import re
import unittest

import numpy as np
from shapely import Polygon
from sqlalchemy import text

from bootmark.core.season import phenology
from bootmark.drawing.strokes import COLOURS
from bootmark.standins.estate import FARM, made
from bootmark.store.session import farm_session
from bootmark.web.season.svg import YearRow, years_svg
from bootmark.web.stages.svg import Marks, ribbon_svg, season_axis
from bootmark.web.trap.svg import catches_svg
from tests.core.test_season import BIOFIX, MOTH, year
from tests.drawing.test_strokes import segments
from tests.web.test_pages import F, PagesTest

LONG = f"{F}/stages/{made('Long Field')}/colorado-potato-beetle"
TODAY = dt.date(2026, 6, 18)


class Season(PagesTest):
    def test_before_and_after_a_sighting_stand_beside_each_other(self) -> None:
        page = self.client.get(LONG).get_data(as_text=True)
        self.assertIn("Before the sighting", page)
        self.assertRegex(page, r"took away \d+ % of the doubt")
        self.assertIn("Stages on the same days: 2026, 2025, 2024, usual", page)

    def test_what_if_tells_how_dates_move(self) -> None:
        warm = self.client.get(f"{LONG}/what-if?warmer=3&later=0").json
        cold = self.client.get(f"{LONG}/what-if?warmer=-3&later=0").json
        self.assertRegex(warm["text"], r"Half are summer beetles: \d+ July, \d+ days earlier")
        self.assertIn("later", cold["text"])
        self.assertIn("<svg", warm["svg"])
        self.assertEqual(set(warm["days"]) >= {"first", "stages", "heat", "kinds"}, True)
        self.assertIn("days later", self.client.get(f"{LONG}/what-if?later=10").json["text"])

    def test_a_biofix_moved_past_today_is_said_and_too_much_is_held_at_its_bound(self) -> None:
        mill = f"{F}/stages/{made('Mill Piece')}/diamondback-moth/what-if"
        self.assertIn("no forecast to change", self.client.get(f"{mill}?later=3").json["text"])
        far = self.client.get(f"{LONG}/what-if?warmer=99").json
        self.assertEqual(far["text"], self.client.get(f"{LONG}/what-if?warmer=4").json["text"])
        self.assertEqual(self.client.get(f"{LONG}/what-if?warmer=x").json["text"], "")

    def test_a_wrong_count_is_told_beside_its_field_with_the_entry_kept(self) -> None:
        form = self.form() | {"counts.egg": "a few", "counts.larva": "12", "on": "2026-06-30", "note": "row seven"}
        answer = self.post(self.client, f"{LONG}/sighting", form, page=LONG)
        page = answer.get_data(as_text=True)
        self.assertEqual(answer.status_code, 400)
        for words in ("a few is not a number", "still ahead", "row seven", 'value="12"', 'aria-describedby="e-counts.egg"'):
            self.assertIn(words, page)

    def test_no_forecast_says_what_is_missing(self) -> None:
        page = self.client.get(f"{F}/stages/{made('Orchard A')}/oriental-fruit-moth").get_data(as_text=True)
        self.assertIn("needs a biofix", page)
        page = self.client.get(f"{F}/stages/{made('Orchard A')}/pear-psylla").get_data(as_text=True)
        self.assertIn("has no heat model", page)
        self.assertEqual(self.client.get(f"{F}/stages/{made('Orchard A')}/dragon").status_code, 404)

    def test_the_days_of_a_ribbon_add_up(self) -> None:
        page = self.client.get(f"{F}/stages?show=all").get_data(as_text=True)
        for word in re.findall(r'<script type="application/json">(.*?)</script>', page):
            days = json.loads(word)
            sums = np.sum(list(days["stages"].values()), axis=0)
            self.assertTrue((np.abs(sums - 100) <= 3).all())
            self.assertEqual(len(days["kinds"]), len(days["heat"][0]))

    def test_filters(self) -> None:
        page = self.client.get(f"{F}/stages?crop=potato").get_data(as_text=True)
        self.assertIn("Colorado potato beetle on Long Field", page)
        self.assertNotIn("Codling moth on Orchard A", page)
        self.assertIn("Nothing is watched that fits", self.client.get(f"{F}/stages?crop=potato&agent=codling-moth").get_data(as_text=True))


class KeptPages(PagesTest):
    def ribbons(self) -> str:
        page = self.client.get(f"{F}/stages?show=all").get_data(as_text=True)
        return page[page.index("data-ribbons") : page.index('id="biofix"')]

    def test_a_page_that_is_kept_shows_what_was_written_since(self) -> None:
        before = self.ribbons()
        self.assertEqual(self.ribbons(), before)
        form = self.form() | {"counts.larva": "60", "counts.pupa": "40", "on": "2026-06-17", "note": ""}
        self.assertEqual(self.post(self.client, f"{LONG}/sighting", form, page=LONG).status_code, 302)
        counted = self.ribbons()
        self.assertNotEqual(counted, before)
        with farm_session(FARM) as session:
            session.execute(text("UPDATE block SET name = 'Longest Field' WHERE name = 'Long Field'"))
        renamed = self.ribbons()
        self.assertIn("Longest Field", renamed)
        with farm_session(FARM) as session:
            warm = "SELECT farm_id, station_id, local_date, received_at + interval '1 day', tmin + 4, tmax + 4, rain, source FROM weather_day WHERE local_date > '2026-06-01'"
            session.execute(
                text(f"INSERT INTO weather_day (farm_id, station_id, local_date, received_at, tmin, tmax, rain, source) {warm}")
            )
        self.assertNotEqual(self.ribbons(), renamed)


class NoWeather(PagesTest):
    def test_no_weather_at_all_is_said_on_the_page(self) -> None:
        with farm_session(FARM) as session:
            session.execute(text("UPDATE block SET station_id = NULL, weather = 'station'"))
        self.assertEqual(self.client.get(f"{F}/stages").status_code, 200)
        other = made("a station with nothing")
        with farm_session(FARM) as session:
            session.execute(
                text(
                    "INSERT INTO station (farm_id, id, name, latitude, longitude, elevation, offset_minutes, url, version, version_id, command_id, conflict, seen_at, account_id)"
                    " SELECT farm_id, :id, 'Aaa empty', latitude, longitude, elevation, offset_minutes, '', 1, version_id, command_id, false, seen_at, account_id"
                    " FROM station WHERE name = 'Valley mast'"
                ),
                {"id": other},
            )
            session.execute(text("UPDATE block SET station_id = :id"), {"id": other})
        page = self.client.get(f"{F}/stages").get_data(as_text=True)
        self.assertIn("has no readings yet", page)
        self.assertEqual(self.client.get(f"{F}/stages/{made('Orchard A')}/codling-moth").status_code, 200)
        self.assertIn("No readings yet", self.client.get(f"{F}/station/{other}").get_data(as_text=True))


class Traps(PagesTest):
    def test_a_wrong_catch_is_told_at_its_trap(self) -> None:
        trap = made("trap/Trap 1")
        answer = self.post(self.client, f"{F}/traps/{trap}/check", self.form() | {"caught": "lots", "on": "2026-06-18"}, page=f"{F}/traps")
        self.assertEqual(answer.status_code, 400)
        page = answer.get_data(as_text=True)
        self.assertIn("lots is not a number", page)
        self.assertIn('value="lots"', page)

    def test_a_trap_of_the_same_name_is_refused_with_the_entry_kept(self) -> None:
        fields = {"name": "Trap 1", "block_id": str(made("Orchard A")), "agent": "codling-moth", "kind": "delta", "x": "77", "y": "2"}
        form = self.form() | fields | {"set_on": "2026-06-01", "lure_on": "2026-06-01", "lure_days": "42", "check_days": "3"}
        answer = self.post(self.client, f"{F}/traps", form, page=f"{F}/traps")
        self.assertEqual(answer.status_code, 400)
        self.assertIn("an unmarked trap is a lost trap", answer.get_data(as_text=True))
        self.assertIn('value="77.0"', answer.get_data(as_text=True))


class Stations(PagesTest):
    def test_gaps_doubts_and_keys_stand_on_the_page(self) -> None:
        ridge = f"{F}/station/{made('Ridge mast')}"
        page = self.client.get(ridge).get_data(as_text=True)
        for words in ("3 April 2026 to 8 April 2026", "filled from the nearest station", "6 May 2026", "A spike", "Leave it out"):
            self.assertIn(words, page)
        answer = self.post(self.client, f"{ridge}/key", {"key": ""}, page=ridge).get_data(as_text=True)
        key = re.search(r'id="key">([^<]+)<', answer)
        assert key
        self.assertGreaterEqual(len(key.group(1)), 24)
        self.assertNotIn(key.group(1), self.client.get(ridge).get_data(as_text=True))
        again = self.post(self.client, f"{F}/station/{made('Valley mast')}/key", {"key": key.group(1)}, page=ridge)
        self.assertEqual(again.status_code, 400)
        self.assertIn("Ridge mast has this key", again.get_data(as_text=True))

    def test_two_stations_of_one_name_and_an_address_that_is_none(self) -> None:
        fields = {
            "name": "Ridge mast",
            "latitude": "46",
            "longitude": "7",
            "elevation": "400",
            "offset_hours": "1",
            "url": "ftp://x",
            "kind": "outdoor",
        }
        page = self.post(self.client, f"{F}/station", self.form() | fields).get_data(as_text=True)
        self.assertIn("There is a station called Ridge mast already", page)
        self.assertIn("begins with http", page)


class Drawings(unittest.TestCase):
    def season(self) -> phenology.Season:
        assert MOTH.heat
        return phenology.forecast(MOTH.heat, year(2026, 0, 170), BIOFIX, past_years=(year(2024, -1), year(2025, 1)), as_of=TODAY)

    def test_marks_are_drawn_inside_the_axis_only(self) -> None:
        axis = season_axis(TODAY - dt.timedelta(days=60), TODAY + dt.timedelta(days=70))
        far = TODAY + dt.timedelta(days=300)
        plain = ribbon_svg(
            self.season(), axis, TODAY, "x", Marks(sightings=(far,), catches=((far, 9),), treatments=((far, True),), harvest=far)
        )
        self.assertEqual(plain, ribbon_svg(self.season(), axis, TODAY, "x"))
        full = Marks(
            sightings=(TODAY,), catches=((TODAY, 9), (BIOFIX, 0)), treatments=((TODAY, False),), harvest=TODAY, bloom=(BIOFIX, TODAY)
        )
        drawn = ribbon_svg(self.season(), axis, TODAY, "x", full)
        for words in (">trap<", ">9<", ">harvest<", ">bloom<"):
            self.assertIn(words, drawn)
            self.assertNotIn(words, plain)

    def test_years_stand_side_by_side_on_the_same_days(self) -> None:
        axis = season_axis(dt.date(2026, 5, 1), dt.date(2026, 8, 1))
        half = {"egg": np.full(60, 0.5), "larva": np.full(60, 0.25)}
        rows = [YearRow("2026", dt.date(2026, 5, 1), half), YearRow("2025", dt.date(2026, 5, 11), half), YearRow("usual", axis.last, {})]
        drawn = years_svg(rows, axis, TODAY)
        for words in (">2026<", ">2025<", ">usual<", ">June<", "Stages on the same days: 2026, 2025, usual"):
            self.assertIn(words, drawn)
        stages = "|".join(re.escape(COLOURS[stage]) for stage in half)
        filled = [segments(d)[0] for d in re.findall(rf'd="([^"]*)" fill="(?:{stages})"', drawn)]
        self.assertEqual(len(filled), 4)
        egg, larva, later, _ = (Polygon(day) for day in filled)
        # Ten rows of days are as far apart as two years' biofixes, and a larva stands on the eggs.
        self.assertAlmostEqual(later.bounds[0] - egg.bounds[0], axis.x(dt.date(2026, 5, 11)) - axis.x(dt.date(2026, 5, 1)), delta=0.2)
        self.assertAlmostEqual(egg.area, 2 * larva.area, delta=2)
        self.assertAlmostEqual(larva.bounds[3], egg.bounds[1], delta=0.2)

    def test_catches_are_told_in_words_too(self) -> None:
        drawn = catches_svg([(dt.date(2026, 6, 1), 0), (dt.date(2026, 6, 4), 7)], TODAY)
        self.assertIn("Catches: 0 on 1 June, 7 on 4 June", drawn)
