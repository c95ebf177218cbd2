"""Signing in: right, wrong, too often; a sign-in that ends, and who is asked again."""

import datetime as dt
import unittest
import uuid

from hypothesis import given
from hypothesis import strategies as st
from sqlalchemy import text

from bootmark.services.base import people, sign_ins
from bootmark.services.base.sign_ins import DAY, NAME, PAIR, PHONE, WINDOW, From, Outcome
from bootmark.standins.estate import FARM, PASSWORD, PEOPLE, made
from bootmark.store.session import engine, farm_session
from tests.database import DatabaseTest

NOW = dt.datetime(2026, 11, 23, 12, tzinfo=dt.UTC)
SECOND = dt.timedelta(seconds=1)
ILVA = PEOPLE[0][1]


class TooSoon(Exception):
    """The try is listened to in so many seconds."""


def enter(email: str, password: str, at: dt.datetime = NOW, address: str = "10.0.0.1") -> people.Person | None:
    with farm_session(None) as session:
        outcome = sign_ins.check(session, email, password, From(address), at)
    if outcome.wait:
        raise TooSoon(outcome.wait)
    return outcome.person


def slowed(email: str, at: dt.datetime, address: str) -> int:
    """Seconds that a try with the right password has to wait; 0 where it is listened to."""
    try:
        enter(email, PASSWORD, at, address)
    except TooSoon as error:
        return int(error.args[0])
    return 0


class Waits(unittest.TestCase):
    @given(st.integers(0, 5000))
    def test_a_wait_never_shrinks_with_failures_and_has_an_end(self, failures: int) -> None:
        for limit in (PAIR, NAME, sign_ins.ADDRESS, sign_ins.KEY):
            self.assertLessEqual(limit.wait(failures), limit.wait(failures + 1))
            self.assertLessEqual(limit.wait(failures), limit.longest)
            self.assertEqual(limit.wait(failures) > dt.timedelta(0), failures >= limit.free)


class Tries(DatabaseTest):
    def test_right_and_wrong(self) -> None:
        person = enter(f"  {ILVA.upper()} ", PASSWORD)
        assert person
        self.assertEqual(person.id, made(ILVA))
        self.assertIsNone(enter(ILVA, "wrong"))
        self.assertIsNone(enter("nobody@ferrin.example", PASSWORD))

    def test_one_address_that_tries_one_name_waits_longer_each_time(self) -> None:
        name, at = PEOPLE[1][1], NOW
        waits: list[int] = []
        for _ in range(PAIR.free + 4):
            seconds = slowed(name, at, "10.0.0.2") if len(waits) >= PAIR.free else 0
            waits.append(seconds)
            at += seconds * SECOND
            self.assertIsNone(enter(name, "wrong", at, "10.0.0.2"))
        self.assertEqual(waits[PAIR.free :], [1, 2, 4, 8])
        # What came too soon counted for nothing, and the right password in time opens.
        self.assertEqual(slowed(name, at + 16 * SECOND, "10.0.0.2"), 0)

    def test_a_stranger_shuts_nobody_out(self) -> None:
        name = PEOPLE[2][1]
        with farm_session(None) as session:
            person = sign_ins.check(session, name, PASSWORD, From("10.8.0.1"), NOW).person
            assert person
            sign_ins.begin(session, person, From("10.8.0.1"), NOW)
        for n in range(60):
            try:
                enter(name, "wrong", NOW + n * SECOND, f"10.9.0.{n}")
            except TooSoon as error:
                self.assertLessEqual(error.args[0], NAME.longest.total_seconds())
        # From where the person has signed in of late there is no wait at all; from elsewhere a few seconds.
        self.assertEqual(slowed(name, NOW + 60 * SECOND, "10.8.0.1"), 0)
        self.assertLessEqual(slowed(name, NOW + 60 * SECOND, "10.8.0.2"), NAME.longest.total_seconds())

    def test_one_address_that_tries_many_names_is_slowed(self) -> None:
        for n in range(sign_ins.ADDRESS.free):
            enter(f"n{n}@ferrin.example", "wrong", address="10.9.9.9")
        self.assertGreater(slowed(ILVA, NOW, "10.9.9.9"), 0)
        self.assertEqual(slowed(ILVA, NOW + WINDOW + SECOND, "10.9.9.9"), 0)

    def test_letters_that_look_alike_are_one_name_and_count_as_one(self) -> None:
        name = PEOPLE[3][1]
        wide = "".join(chr(ord(letter) + 0xFEE0) if letter.isalpha() else letter for letter in name)
        spellings = (name, name.upper(), f" {name.title()} ", wide)
        for n in range(PAIR.free):
            self.assertIsNone(enter(spellings[n % len(spellings)], "wrong", address="10.1.0.1"))
        for spelling in spellings:
            self.assertGreater(slowed(spelling, NOW, "10.1.0.1"), 0)

    def test_a_dotted_capital_is_another_letter_and_no_way_round(self) -> None:
        dotted = PEOPLE[3][1].replace("i", "\u0130")
        self.assertNotEqual(dotted, PEOPLE[3][1])
        self.assertIsNone(enter(dotted, PASSWORD, address="10.2.0.1"))
        self.assertIsNotNone(enter(PEOPLE[3][1], PASSWORD, address="10.2.0.2"))

    def test_what_can_be_no_address_is_answered_like_a_wrong_one(self) -> None:
        for n, odd in enumerate(("", "x" * 6_000, "a\x00@b.example", "a\n@b.example", "\ufdfa" * 200)):
            self.assertIsNone(enter(odd, PASSWORD, address=f"10.3.0.{n}"))

    def test_a_clock_that_was_set_back_makes_nobody_wait_for_ever(self) -> None:
        for _ in range(PAIR.free):
            enter(PEOPLE[4][1], "wrong", NOW, "10.5.0.1")
        self.assertLessEqual(slowed(PEOPLE[4][1], NOW - dt.timedelta(days=3), "10.5.0.1"), PAIR.longest.total_seconds())

    def test_each_try_is_remembered_with_what_came_of_it(self) -> None:
        name = PEOPLE[0][1]
        for _ in range(PAIR.free):
            enter(name, "wrong", NOW, "10.6.0.1")
        slowed(name, NOW, "10.6.0.1")
        with farm_session(None) as session:
            outcomes = [event.outcome for event in sign_ins.events(session, made(name)) if event.address == "10.6.0.1"]
        self.assertEqual(outcomes, [Outcome.SLOWED, *[Outcome.REFUSED] * PAIR.free])


class Lasting(DatabaseTest):
    def begin(self, email: str = ILVA, **words: str) -> str:
        with farm_session(None) as session:
            return sign_ins.begin(session, people.Person(made(email), "", email), From("10.0.0.1", "a browser"), NOW, **words)

    def here(self, token: str, at: dt.datetime) -> sign_ins.Here | None:
        with farm_session(None) as session:
            return sign_ins.of_token(session, token, at)

    def test_a_day_and_a_month(self) -> None:
        for words, lasts in (({}, DAY), ({"own_phone": "Ilva's phone"}, PHONE)):
            token = self.begin(**words)
            here = self.here(token, NOW + lasts - SECOND)
            assert here
            self.assertEqual(here.person.id, made(ILVA))
            self.assertIsNone(self.here(token, NOW + lasts))
        self.assertIsNone(self.here("", NOW))

    def test_only_the_hash_is_kept(self) -> None:
        token = self.begin()
        with engine("owner").connect() as connection:
            rows = connection.execute(text("SELECT sign_in_session::text FROM sign_in_session")).scalars().all()
        self.assertTrue(rows)
        self.assertNotIn(token, "".join(rows))

    def test_each_is_listed_and_ended_by_its_own_person_only(self) -> None:
        token, other = self.begin(PEOPLE[1][1]), PEOPLE[2][1]
        here = self.here(token, NOW)
        assert here
        with farm_session(None) as session:
            sign_ins.end(session, made(other), here.id, NOW)
        self.assertIsNotNone(self.here(token, NOW))
        with farm_session(None) as session:
            self.assertIn(here.id, [each.id for each in sign_ins.listed(session, made(PEOPLE[1][1]), NOW)])
            sign_ins.end(session, made(PEOPLE[1][1]), here.id, NOW)
        self.assertIsNone(self.here(token, NOW))

    def test_a_new_password_ends_them_all(self) -> None:
        tokens = [self.begin(PEOPLE[3][1]) for _ in range(3)]
        with engine("owner").begin() as connection:
            change = text("UPDATE account SET password_hash = :hash WHERE id = :id")
            connection.execute(change, {"hash": people.hash_password("another"), "id": made(PEOPLE[3][1])})
        self.assertEqual([self.here(token, NOW) for token in tokens], [None] * 3)

    def test_the_owner_ends_those_of_the_own_farm_s_people(self) -> None:
        token = self.begin(PEOPLE[2][1])
        with farm_session(uuid.uuid4()) as session:
            self.assertEqual(sign_ins.end_all_of_member(session, made(PEOPLE[2][1]), NOW), 0)
        self.assertIsNotNone(self.here(token, NOW))
        with farm_session(FARM) as session:
            self.assertGreaterEqual(sign_ins.end_all_of_member(session, made(PEOPLE[2][1]), NOW), 1)
        self.assertIsNone(self.here(token, NOW))

    def test_when_it_was_seen_is_written_at_most_every_five_minutes(self) -> None:
        token = self.begin(PEOPLE[4][1])
        seen = []
        for minutes in (4, 6, 10, 12):
            self.here(token, NOW + dt.timedelta(minutes=minutes))
            with farm_session(None) as session:
                seen.append(next(each.seen_at for each in sign_ins.listed(session, made(PEOPLE[4][1]), NOW)))
        self.assertEqual([(at - NOW).seconds // 60 for at in seen], [0, 6, 6, 12])

    def test_whoever_signed_in_an_hour_ago_is_asked_again(self) -> None:
        token = self.begin()
        here = self.here(token, NOW)
        assert here
        self.assertTrue(sign_ins.is_fresh(here.asked_at, NOW + dt.timedelta(minutes=59)))
        later = NOW + dt.timedelta(hours=1)
        self.assertFalse(sign_ins.is_fresh(here.asked_at, later))
        with farm_session(None) as session:
            sign_ins.asked(session, token, here.person, From("10.0.0.1"), later)
        again = self.here(token, later)
        assert again
        self.assertTrue(sign_ins.is_fresh(again.asked_at, later))
