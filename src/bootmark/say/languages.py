"""The languages that Bootmark speaks, by their tags."""

from bootmark.say.tongue import ENGLISH, Tongue

TONGUES: dict[str, Tongue] = {ENGLISH.language: ENGLISH}
