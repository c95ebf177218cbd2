"""People: names, passwords, and what they are on a farm."""

import unittest

from bootmark.services.base import people
from bootmark.standins.estate import FARM, PEOPLE, made
from bootmark.store.session import farm_session
from tests.database import DatabaseTest

ILVA = PEOPLE[0][1]


class Passwords(unittest.TestCase):
    def test_folding_twice_changes_nothing(self) -> None:
        for email in (" ILVA@Ferrin.Example ", "Stra\u00dfe@x.example", "\u0130@x.example", "\uff41@x.example"):
            self.assertEqual(people.folded(people.folded(email)), people.folded(email))

    def test_passwords_are_argon2_and_nobody_s_fits(self) -> None:
        kept = people.hash_password("x")
        self.assertTrue(kept.startswith("$argon2id$"))
        self.assertTrue(people.fits(kept, "x"))
        for password_hash, password in ((kept, "X"), (None, "nobody has this password"), ("no hash", "x"), (kept, "\ud800")):
            self.assertFalse(people.fits(password_hash, password))


class Members(DatabaseTest):
    def test_memberships(self) -> None:
        with farm_session(None) as session:
            memberships = people.memberships(session, made(ILVA))
        self.assertEqual([(membership.farm_id, membership.role) for membership in memberships], [(FARM, "owner")])
        with farm_session(FARM) as session:
            self.assertEqual(len(people.members(session)), len(PEOPLE))
