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

    def test_letters_that_look_alike_are_one_name_and_count_as_one(self) -> None:
        name = PEOPLE[2][1]
        wide = "".join(chr(ord(letter) + 0xFEE0) if letter.isalpha() else letter for letter in name)
        told = (name, name.upper(), f" {name.title()} ", wide)
        for n in range(people.FAILURES_ALLOWED):
            self.assertIsNone(enter(told[n % len(told)], "wrong", address=f"10.1.0.{n}"))
        for spelling in told:
            with self.assertRaises(TooManyAttempts):
                enter(spelling, PASSWORD, address="10.1.1.1")

    def test_a_dotted_capital_is_another_letter_and_no_way_round(self) -> None:
        dotted = PEOPLE[3][1].replace("i", "\u0130")
        self.assertNotEqual(dotted, PEOPLE[3][1])
        self.assertIsNone(enter(dotted, PASSWORD, address="10.2.0.1"))
        self.assertIsNotNone(enter(PEOPLE[3][1], PASSWORD, address="10.2.0.2"))

    def test_what_can_be_no_address_is_answered_like_a_wrong_one(self) -> None:
        for n, odd in enumerate(("", "x" * 6_000, "a\x00@b.example", "a\n@b.example", "\ufdfa" * 200)):
            self.assertIsNone(enter(odd, PASSWORD, address=f"10.3.0.{n}"))

    def test_folding_twice_changes_nothing(self) -> None:
        for email in (" ILVA@Ferrin.Example ", "Stra\u00dfe@x.example", "\u0130@x.example", "\uff41@x.example"):
            self.assertEqual(people.folded(people.folded(email)), people.folded(email))

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
