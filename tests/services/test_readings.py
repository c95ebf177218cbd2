"""Readings that stations send with a key, and readings that look wrong."""

import datetime as dt
import uuid
from typing import Any

from sqlalchemy import func, select, text
from sqlalchemy.orm import Session

from bootmark.services.base.command import Forbidden, Refused
from bootmark.services.weather import derived, judging, pushed, stations
from bootmark.standins.estate import FARM, NOW, made
from bootmark.store.models import Station, WeatherDay, WeatherDerived, WeatherHour
from bootmark.store.session import farm_session
from bootmark.web import create_app
from tests.database import DatabaseTest, member
from tests.sending import send, store_days

MAST, RIDGE = made("Valley mast"), made("Ridge mast")
SPIKE = dt.date(2026, 5, 6)


def mast(session: Session, station: uuid.UUID = MAST) -> Station:
    return session.get_one(Station, (FARM, station))


def hours(count: int, start: str = "2026-06-17T00:00:00+01:00", **change: Any) -> dict[str, Any]:
    first = dt.datetime.fromisoformat(start)
    plain = {"temp": 18.0, "rh": 60, "wind": 1.5, "rain": 0.0}
    return {
        "readings": [{"at": (first + dt.timedelta(hours=n)).isoformat(), **plain, "temp": 18.0 + n % 5, **change} for n in range(count)]
    }


class Pushed(DatabaseTest):
    def setUp(self) -> None:
        with farm_session(FARM) as session:
            self.key = pushed.give_key(session, member("adviser"), session.get_one(Station, (FARM, MAST)))
        self.client = create_app(TESTING=False).test_client()

    def push(self, payload: Any, key: str | None = None, station: uuid.UUID = MAST) -> Any:
        return self.client.post(f"/push/{FARM}/{station}", json=payload, headers={"Authorization": f"Bearer {key or self.key}"})

    def total(self, model: Any) -> int:
        with farm_session(FARM) as session:
            return session.execute(select(func.count()).select_from(model).where(model.station_id == MAST)).scalar_one()

    def test_sent_twice_it_is_stored_once_and_whole_days_are_made(self) -> None:
        before, days = self.total(WeatherHour), self.total(WeatherDay)
        first = self.push(hours(24, "2026-06-16T00:00:00+01:00"))
        self.assertEqual((first.status_code, first.json["stored"], first.json["days"]), (200, 24, 1))
        again = self.push(hours(24, "2026-06-16T00:00:00+01:00"))
        self.assertEqual((again.json["stored"], again.json["again"]), (0, 24))
        self.assertEqual((self.total(WeatherHour), self.total(WeatherDay)), (before + 24, days + 1))
        with farm_session(FARM) as session:
            self.assertEqual(stations.record(session, mast(session)).days[dt.date(2026, 6, 16)], (18.0, 22.0))

    def test_a_gap_before_pushed_days_is_filled_as_it_is_for_others(self) -> None:
        with farm_session(FARM) as session:
            session.execute(text("UPDATE farm SET clock_at = clock_at + interval '9 days'"))
        for day in ("2026-06-18", "2026-06-22"):
            self.assertEqual(self.push(hours(24, f"{day}T00:00:00+01:00")).json["stored"], 24)
        with farm_session(FARM) as session:
            filled = derived.how_filled(session, mast(session))
        self.assertEqual({day.day: how for day, how in filled.items() if day >= dt.date(2026, 6, 18)}, {19: "line", 20: "line", 21: "line"})

    def test_bad_readings_are_refused_by_place_and_the_others_go_in(self) -> None:
        hourly: dict[str, Any] = hours(6, "2026-06-17T00:00:00+01:00")
        hourly["readings"][1]["temp"] = 300
        hourly["readings"][2]["at"] = "2026-02-30T00:00:00+01:00"
        hourly["readings"][3]["at"] = "2026-06-17T03:00:00"
        hourly["readings"][4]["at"] = "2027-06-17T03:00:00+01:00"
        hourly["readings"][5] = "nothing"
        answer = self.push(hourly)
        self.assertEqual((answer.status_code, answer.json["stored"]), (207, 1))
        reasons = {refusal["place"]: refusal["why"] for refusal in answer.json["refused"]}
        for place, words in ((1, "-60 to 60"), (2, "is not a time"), (3, "no zone"), (4, "still ahead"), (5, "an object")):
            self.assertIn(words, reasons[place])

    def test_what_is_no_list_of_readings(self) -> None:
        nothing: tuple[Any, ...] = ([], {"readings": "x"}, None)
        for sentence in nothing:
            answer = self.push(sentence)
            self.assertEqual(answer.status_code, 400)
            self.assertIn('"readings"', answer.json["error"])
        self.assertEqual(self.push({"readings": [{}] * 2000}).status_code, 400)

    def test_only_its_own_key_opens_a_station(self) -> None:
        self.assertEqual(self.push(hours(1), "wrong key that is long enough").status_code, 401)
        self.assertEqual(self.push(hours(1), station=RIDGE).status_code, 401)
        self.assertEqual(self.push(hours(1), station=uuid.uuid4()).status_code, 401)
        self.assertEqual(
            self.client.post(f"/push/{uuid.uuid4()}/{MAST}", json=hours(1), headers={"Authorization": f"Bearer {self.key}"}).status_code,
            401,
        )
        with farm_session(FARM) as session:
            pushed.give_key(session, member("owner"), session.get_one(Station, (FARM, MAST)))
        self.assertEqual(self.push(hours(1)).status_code, 401)

    def test_keys_tried_one_after_the_other_close_the_door(self) -> None:
        def tried(n: int) -> int:
            head = {"Authorization": f"Bearer some wrong key number {n}"}
            return self.client.post(f"/push/{FARM}/{MAST}", json={}, headers=head, environ_base={"REMOTE_ADDR": "10.1.1.9"}).status_code

        answers = [tried(n) for n in range(45)]
        self.assertEqual((answers[0], answers[-1]), (401, 429))

    def test_two_stations_with_one_key_are_refused(self) -> None:
        with farm_session(FARM) as session:
            mast, ridge = session.get_one(Station, (FARM, MAST)), session.get_one(Station, (FARM, RIDGE))
            pushed.give_key(session, member("owner"), mast, "the logger's own key 1")
            with self.assertRaisesRegex(Refused, "Valley mast has this key"):
                pushed.give_key(session, member("owner"), ridge, "the logger's own key 1")
            with self.assertRaisesRegex(Refused, "16 are the least"):
                pushed.give_key(session, member("owner"), ridge, "short")
            with self.assertRaises(Forbidden):
                pushed.give_key(session, member("scout"), ridge)


class Judged(DatabaseTest):
    def judge(self, verdict: str, day: dt.date = SPIKE, base: uuid.UUID | None = None) -> uuid.UUID:
        payload = {"station_id": str(RIDGE), "local_date": day.isoformat(), "verdict": verdict}
        command = uuid.uuid4()
        send("weather.judge", payload, judging.record_id(RIDGE, day), role="adviser", base=base, command=command)
        return command

    def high(self) -> float | None:
        with farm_session(FARM) as session:
            return stations.record(session, mast(session, RIDGE)).days.get(SPIKE, (None, None))[1]

    def test_a_spike_counts_until_a_person_leaves_it_out_and_the_raw_day_stays(self) -> None:
        with farm_session(FARM) as session:
            doubts = judging.doubts(session, session.get_one(Station, (FARM, RIDGE)))
            self.assertEqual([(doubt.flag.date, doubt.flag.kind, doubt.judgement) for doubt in doubts], [(SPIKE, "spike", None)])
            flagged = session.get_one(WeatherDerived, (FARM, RIDGE, SPIKE)).flags
            self.assertEqual(flagged[0]["kind"], "spike")
        raw = self.high()
        assert raw
        first = self.judge("left out")
        self.assertIsNone(self.high())
        with farm_session(FARM) as session:
            stored = session.scalars(select(WeatherDay.tmax).where(WeatherDay.station_id == RIDGE, WeatherDay.local_date == SPIKE)).one()
            self.assertEqual(stored, raw)
            self.assertEqual(session.get_one(WeatherDerived, (FARM, RIDGE, SPIKE)).filled, "line")
        self.judge("stands", base=first)
        self.assertEqual(self.high(), raw)

    def test_what_is_refused(self) -> None:
        with self.assertRaisesRegex(Refused, "Nothing is flagged"):
            self.judge("stands", dt.date(2026, 5, 20))
        with self.assertRaisesRegex(Refused, "can't tell what this day should read"):
            self.judge("mended")

    def test_fahrenheit_days_can_be_read_as_what_they_are(self) -> None:
        days = [dt.date(2026, 1, 10) + dt.timedelta(days=n) for n in range(5)]
        with farm_session(FARM) as session:
            kept = stations.record(session, mast(session)).days
            rows = [
                {
                    "local_date": day,
                    "received_at": NOW,
                    "tmin": kept[day][0] * 1.8 + 32,
                    "tmax": kept[day][1] * 1.8 + 32,
                    "rain": 0.0,
                    "source": "test",
                }
                for day in days
            ]
            true = kept[days[0]]
            store_days(session, MAST, rows)
            self.assertEqual({flag.kind for flag in derived.flags(session, session.get_one(Station, (FARM, MAST)))}, {"unit"})
        payload = {"station_id": str(MAST), "local_date": days[0].isoformat(), "verdict": "mended"}
        send("weather.judge", payload, judging.record_id(MAST, days[0]))
        with farm_session(FARM) as session:
            mended = stations.record(session, mast(session)).days[days[0]]
        self.assertAlmostEqual(mended[1], true[1], places=6)
