"""Every sentence, made from values. Imports the core but its season and the standard library: the phone without signal speaks too."""

from bootmark.say.languages import TONGUES
from bootmark.say.now import kept, line, many, shown, speak, speaking, term, tongue
from bootmark.say.tongue import ENGLISH, Tongue

__all__ = ["ENGLISH", "TONGUES", "Tongue", "kept", "line", "many", "shown", "speak", "speaking", "term", "tongue"]
