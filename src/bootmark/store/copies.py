"""python -m bootmark.store.copies backup|restore FILE: the whole database into a file, and out of it into an installation that is empty."""

import datetime as dt
import os
import subprocess
import sys
import uuid
from pathlib import Path

import psycopg

from bootmark.store import tools
from bootmark.store.setup import Refused, dump, migrate, plain

ERASED = "erased"


def backup(file: Path) -> None:
    """Copy the database into a file that is not there yet. Raises Refused."""
    if file.exists():
        raise Refused(f"{file} is there already and is left as it is: name another file.")
    address = os.environ.get("BOOTMARK_BACKUP_URL")
    if not address:
        raise Refused("BOOTMARK_BACKUP_URL is not set: no other role may read past the wall.")
    dump(address, file)
    print(f"Kept in {file}, {file.stat().st_size:,} bytes.")


def restore(file: Path) -> None:
    """Fill a database without accounts from a file, and bring it up to date. Raises Refused; nothing is changed then."""
    admin = os.environ.get("BOOTMARK_ADMIN_URL")
    if not admin:
        raise Refused("BOOTMARK_ADMIN_URL is not set: a database of somebody else's is restored by that person, with pg_restore.")
    if not file.is_file():
        raise Refused(f"There is no file {file}.")
    tool = tools.program("pg_restore")
    if tool is None:
        raise Refused("pg_restore is not installed: install the Debian package postgresql-client.")
    server, database = plain(admin).rsplit("/", 1)
    with psycopg.connect(plain(admin)) as connection:
        if connection.execute("SELECT count(*) FROM account").fetchone() != (0,):
            raise Refused("This installation has accounts already, and nothing of it is overwritten: set BOOTMARK_DATA to a new folder.")
    fresh = f"{database}_restored"
    with psycopg.connect(f"{server}/postgres", autocommit=True) as connection:
        connection.execute(f'DROP DATABASE IF EXISTS "{fresh}"')
        connection.execute(f'CREATE DATABASE "{fresh}" OWNER bm_owner')
    words, env = [tool, "--exit-on-error", "-d", fresh, str(file)], tools.environment(f"{server}/{fresh}")
    done = subprocess.run(words, env=env, capture_output=True, text=True)
    with psycopg.connect(f"{server}/postgres", autocommit=True) as connection:
        if done.returncode:
            connection.execute(f'DROP DATABASE "{fresh}"')
            raise Refused(f"{file} can't be restored: {(done.stderr.strip().splitlines() or ['no reason given'])[-1]}.")
        connection.execute(f'DROP DATABASE "{database}" WITH (FORCE)')
        connection.execute(f'ALTER DATABASE "{fresh}" RENAME TO "{database}"')
    owner = os.environ["BOOTMARK_OWNER_URL"]
    migrate(owner)
    again = erased(file)
    with psycopg.connect(plain(owner)) as connection:
        for account, at in again.items():
            connection.execute("SELECT bm_erase(id, %s) FROM account WHERE id = %s", (at, account))
            note_erased(account, at)
    print(f"Restored from {file}." + (f" {len(again)} who were erased since are so again." if again else ""))


def note() -> Path | None:
    """Where it is written who was erased, beside the backups and in none of them; None where there is no folder for them."""
    folder = os.environ.get("BOOTMARK_BACKUPS")
    return Path(folder) / ERASED if folder else None


def note_erased(account: uuid.UUID, at: dt.datetime) -> None:
    """Write down that somebody was erased, so that a backup of before brings nobody back."""
    if file := note():
        file.parent.mkdir(parents=True, exist_ok=True)
        with file.open("a") as lines:
            lines.write(f"{account} {at.isoformat()}\n")


def erased(copy: Path) -> dict[uuid.UUID, dt.datetime]:
    """Who was, and when: by the note beside a copy, which may have come from another folder, and by one's own."""
    notes = {file.resolve() for file in (note(), copy.parent / ERASED) if file and file.exists()}
    lines = [line for file in notes for line in file.read_text().splitlines()]
    return {uuid.UUID(account): dt.datetime.fromisoformat(at) for account, at in (line.split(" ", 1) for line in lines)}


def main(words: list[str]) -> int:
    try:
        {"backup": backup, "restore": restore}[words[0]](Path(words[1]))
    except Refused as error:
        print(error, file=sys.stderr)
        return 1
    except psycopg.OperationalError as error:
        print(f"The database can't be reached ({str(error).splitlines()[0]}).", file=sys.stderr)
        return 1
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
