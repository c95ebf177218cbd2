"""PostgreSQL's own programs: where they are, and how they are told an address."""

import os
import shutil
from pathlib import Path

import psycopg

NAMES = {"host": "PGHOST", "port": "PGPORT", "user": "PGUSER", "password": "PGPASSWORD", "dbname": "PGDATABASE"}


def program(name: str) -> str | None:
    """The program of a name: what the path finds, else the newest that Debian has put down; None where there is none."""
    versions = sorted(Path("/usr/lib/postgresql").glob(f"*/bin/{name}"), key=lambda path: path.parent.parent.name.zfill(3))
    return shutil.which(name) or (str(versions[-1]) if versions else None)


def environment(address: str) -> dict[str, str]:
    """The environment that tells a program an address: it holds a password, and never stands on a command line."""
    parts = psycopg.conninfo.conninfo_to_dict(address)
    return os.environ | {NAMES[key]: str(value) for key, value in parts.items() if key in NAMES}
