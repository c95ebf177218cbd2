"""The words of every kind of message."""

from bootmark.core.messages import Says
from bootmark.say import call, naming, season, walk
from bootmark.say.text import Text

TEXTS: dict[Says, Text] = {**naming.TEXTS, **call.TEXTS, **season.TEXTS, **walk.TEXTS}
