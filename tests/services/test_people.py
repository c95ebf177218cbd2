"""Signing in: right, wrong, too often."""

import datetime as dt

from bootmark.services.base import people
from bootmark.services.base.people import TooManyAttempts
from bootmark.standins.estate import FARM, PASSWORD, PEOPLE, made
from bootmark.store.session import farm_session
from tests.database import DatabaseTest

NOW = dt.datetime(2026, 11, 23, 12, tzinfo=dt.UTC)
ILVA = PEOPLE[0][1]


def enter(email: str, password: str, at: dt.datetime = NOW, address: str = "10.0.0.1") -> people.Person | None:
    with farm_session(None) as session:
        return people.sign_in(session, email, password, address, at)


class SignIn(DatabaseTest):
    def test_right_and_wrong(self) -> None:
        person = enter(f"  {ILVA.upper()} ", PASSWORD)
        assert person
        self.assertEqual(person.id, made(ILVA))
        self.assertIsNone(enter(ILVA, "wrong"))
        self.assertIsNone(enter("nobody@ferrin.example", PASSWORD))

    def test_too_many_tries_close_the_name_for_a_while(self) -> None:
        name = PEOPLE[1][1]
        for _ in range(people.FAILURES_ALLOWED):
            self.assertIsNone(enter(name, "wrong", address="10.0.0.2"))
        with self.assertRaises(TooManyAttempts):
            enter(name, PASSWORD, address="10.0.0.3")
        later = NOW + people.FAILURE_WINDOW + dt.timedelta(seconds=1)
        self.assertIsNotNone(enter(name, PASSWORD, later, "10.0.0.3"))

    def test_one_address_trying_many_names_is_stopped(self) -> None:
        with self.assertRaises(TooManyAttempts):
            for n in range(people.FAILURES_ALLOWED * 5 + 1):
                enter(f"n{n}@ferrin.example", "wrong", address="10.9.9.9")

    def test_memberships(self) -> None:
        with farm_session(None) as session:
            found = people.memberships(session, made(ILVA))
        self.assertEqual([(one.farm_id, one.role) for one in found], [(FARM, "owner")])
        with farm_session(FARM) as session:
            self.assertEqual(len(people.members(session)), len(PEOPLE))

    def test_passwords_are_argon2(self) -> None:
        self.assertTrue(people.hash_password("x").startswith("$argon2id$"))
