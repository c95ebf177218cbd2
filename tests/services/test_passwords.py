"""What a new password has to be."""

import unicodedata
import unittest

from hypothesis import given
from hypothesis import strategies as st

from bootmark.services.base import passwords, people
from bootmark.services.base.passwords import Fault


class Faults(unittest.TestCase):
    @given(st.text(max_size=passwords.LEAST - 1))
    def test_nothing_short_is_taken(self, password: str) -> None:
        spelled = unicodedata.normalize("NFKC", password)
        self.assertEqual(passwords.fault(password) is Fault.SHORT, len(spelled) < passwords.LEAST)

    def test_at_least_sixty_four_letters_are_taken(self) -> None:
        """Source: NIST SP 800-63B-4, 2025, 3.1.1.2: at least 64 are permitted."""
        words = "the wet glove turns a green leaf over beside nine quiet hens and a drum"
        self.assertGreater(len(words), 64)
        self.assertIsNone(passwords.fault(words))

    def test_what_guessers_try_first_is_refused(self) -> None:
        for password in ("passwordpassword", "qwertyuiopasdfgh", "12345678901234567890", "aaaaaaaaaaaaaaaaaaaa", "bootmarkbootmark"):
            self.assertIs(passwords.fault(password), Fault.GUESSED, password)

    def test_own_names_do_not_make_one(self) -> None:
        own = ("Senna Vost", "Ferrin Vale")
        self.assertIsNone(passwords.fault("hatch before the pears colour", own))
        self.assertIs(passwords.fault("Senna Vost Ferrin Vale", own), Fault.GUESSED)

    def test_no_rule_on_kinds_of_letters(self) -> None:
        """Source: NIST SP 800-63B-4, 2025, 3.1.1.2: no rules of composition, all printing characters and spaces."""
        for password in ("slow moths over cold barley", "SLOW MOTHS OVER COLD BARLEY", "slöwe motten über kalter gerste"):
            self.assertIsNone(passwords.fault(password), password)


class Spelling(unittest.TestCase):
    def test_a_password_fits_however_its_letters_are_composed(self) -> None:
        password = "slöwe motten über kalter gerste"
        hashed = people.hash_password(unicodedata.normalize("NFD", password))
        self.assertTrue(people.fits(hashed, unicodedata.normalize("NFC", password)))
        self.assertFalse(people.fits(hashed, password.replace("ö", "o")))
