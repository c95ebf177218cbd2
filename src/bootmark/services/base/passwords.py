"""What makes a password hard enough to guess, and changing one's own."""

import datetime as dt
import re
import unicodedata
from collections.abc import Iterable
from enum import StrEnum

from sqlalchemy import text
from sqlalchemy.orm import Session
from zxcvbn import zxcvbn

from bootmark import say
from bootmark.services.base import people, sign_ins
from bootmark.services.base.people import Person
from bootmark.services.base.sign_ins import DAY, From, Outcome, SignIn

LEAST, MOST = 15, 256
"""Letters. The least of a password that stands alone. Source: NIST SP 800-63B-4, 2025, 3.1.1.2."""
READ = 72
"""The first letters, which the guesser reads: it does not take more."""
LEAST_NAME = 3
LEAST_SCORE = 3
"""Of the guesser's 0 to 4: more than a hundred million guesses, in the order in which guessers go. Source: the library's own scale."""


class Fault(StrEnum):
    """Why a password is not taken."""

    SHORT = "short"
    LONG = "long"
    GUESSED = "guessed"


def fault(password: str, own_words: Iterable[str] = ()) -> Fault | None:
    """What is wrong with a new password; None where nothing is. No letters, digits or signs are asked for: length and being unusual count.

    own_words: names that a guesser would try first. Source: NIST SP 800-63B-4, 2025, 3.1.1.2.
    """
    password = unicodedata.normalize("NFKC", password)
    if len(password) < LEAST:
        return Fault.SHORT
    if len(password) > MOST:
        return Fault.LONG
    return Fault.GUESSED if zxcvbn(_without(password, own_words)[:READ])["score"] < LEAST_SCORE else None


def _without(password: str, own_words: Iterable[str]) -> str:
    """What of a password is left where names are taken out, whole or word by word: they are no secret."""
    names = {name for words in own_words for name in (words, *words.split()) if len(name) >= LEAST_NAME}
    for name in sorted({*names, "bootmark"}, key=lambda name: (-len(name), name)):
        password = re.sub(re.escape(name), " ", password, flags=re.IGNORECASE)
    return re.sub(r"\s+", " ", password).strip() or " "


def hint() -> str:
    """What a new password has to be, before anything is typed."""
    return say.line("At least {least} letters: four words are easily kept in mind. Nothing else is asked of it.", least=LEAST)


def sentence(fault: Fault, length: int) -> str:
    """A fault in words; length: letters that were given."""
    match fault:
        case Fault.SHORT:
            return say.line(
                "It has {length} letters and needs {least}: four words that have nothing to do with each other make a good one.",
                length=length,
                least=LEAST,
            )
        case Fault.LONG:
            return say.line("It has {length} letters; {most} are the most.", length=length, most=MOST)
        case Fault.GUESSED:
            return say.line("It is guessed early: it is common, repeats itself, or is made of your own names. Take words that surprise.")


def change(session: Session, person: Person, sign_in: SignIn, token: str, password: str, where: From, real_now: dt.datetime) -> str:
    """Set the password of whoever a sign-in is, by its token: every sign-in ends, and this device gets a new one, whose token comes back.

    The database ends them by itself, however a password is changed.
    """
    session.execute(
        text("SELECT bm_password_set(:hashed, :password, :now)"),
        {"hashed": sign_ins.hashed(token), "password": people.hash_password(password), "now": real_now},
    )
    sign_ins.note(session, person, where, Outcome.CHANGED, real_now)
    is_own_phone = sign_in.ends_at - sign_in.made_at > DAY
    return sign_ins.begin(session, person, where, real_now, own_phone=sign_in.device if is_own_phone else "")
