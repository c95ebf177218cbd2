"""Log lines: one JSON object each, without personal data and without the values of statements.

What a person typed may stand in an error's message, so a fault is told by its kind and its places in the code; the message is kept only
where it can speak of nothing but the machine: the network, the disk, the database that does not answer.
"""

import datetime as dt
import json
import logging
import os
import sys
import traceback
from logging.handlers import WatchedFileHandler
from pathlib import Path

SECURITY = "bootmark.security"
FOLDER = "BOOTMARK_LOGS"
MOST_PLACES = 15


class Lines(logging.Formatter):
    """A record as one line of JSON. A message that is a dict is taken as it is."""

    def format(self, record: logging.LogRecord) -> str:
        at = dt.datetime.fromtimestamp(record.created, dt.UTC).isoformat(timespec="milliseconds")
        line: dict[str, object] = {"at": at, "level": record.levelname, "from": record.name}
        line |= record.msg if isinstance(record.msg, dict) else {"said": record.getMessage()}
        if record.exc_info and record.exc_info[1]:
            line["fault"] = fault(record.exc_info[1])
        return json.dumps(line, default=str)


def fault(error: BaseException) -> dict[str, object]:
    """What kind of error, where in the code, and what the database calls it."""
    cause = getattr(error, "orig", None) or error
    places = traceback.extract_tb(error.__traceback__)[-MOST_PLACES:]
    line: dict[str, object] = {
        "kind": type(cause).__name__,
        "places": [f"{Path(place.filename).name}:{place.lineno} {place.name}" for place in places],
    }
    if state := getattr(cause, "sqlstate", None):
        line["sqlstate"] = state
    elif isinstance(cause, OSError) or type(cause).__name__ == "OperationalError":
        line["said"] = str(cause).partition("\n")[0]
    return line


def to_standard_error(level: int = logging.INFO) -> None:
    """Send every line to standard error, and what concerns security to a file of its own where BOOTMARK_LOGS names a folder."""
    # A log that can't be written, as on a full disk, keeps nobody from working.
    logging.raiseExceptions = False
    handler = logging.StreamHandler(sys.stderr)
    handler.setFormatter(Lines())
    logging.basicConfig(level=level, handlers=[handler], force=True)
    if folder := os.environ.get(FOLDER):
        apart = logging.getLogger(SECURITY)
        file = WatchedFileHandler(Path(folder) / "security.log", delay=True)
        file.setFormatter(Lines())
        apart.addHandler(file)
        apart.propagate = False
