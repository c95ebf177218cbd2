"""Dumps the demo farm of this version for tests/store/releases: python -m tests.store.dump_release VERSION, with a test cluster's settings."""

import os
import sys
from pathlib import Path

from bootmark.store import setup
from tests import database

FOLDER = Path(__file__).parent / "releases"


def main(version: str) -> None:
    name = database.clone()
    address = os.environ["BOOTMARK_BACKUP_URL"].rsplit("/", 1)[0] + "/" + name
    setup.dump(address, FOLDER / f"{version}.dump")


if __name__ == "__main__":
    main(sys.argv[1])
