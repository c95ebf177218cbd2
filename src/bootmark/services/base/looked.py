"""A look at something that is no block."""

import datetime as dt
from collections.abc import Iterator
from typing import Annotated

from bootmark import say
from bootmark.services.base.command import Command
from bootmark.services.base.fields import Checks, Day, Flag, Note


class Looked(Command):
    """That nothing was wrong, or what was."""

    on: Annotated[dt.date, Day(past="look first")]
    fine: Annotated[bool, Flag()] = False
    note: Note = ""

    def across(self, checks: Checks) -> Iterator[tuple[str, str]]:
        if not self.fine and not self.note:
            yield "note", say.line("Say what is wrong there, or that nothing is.")
