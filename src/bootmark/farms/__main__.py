"""python -m bootmark.farms: makes a farm with its first owner, lists farms, sets a forgotten password.

The password is asked for and not shown; where the standard input is no terminal, its first line is the password.
"""

import argparse
import getpass
import math
import os
import sys
import uuid

from bootmark.services.base.command import Refused
from bootmark.services.owning import founding
from bootmark.services.owning.founding import Beginning
from bootmark.store.session import farm_session


class NotTwice(Exception):
    """The password was typed in two ways."""


def asked_password() -> str:
    """The password, typed twice at a terminal. Raises NotTwice where the two differ."""
    if not sys.stdin.isatty():
        return sys.stdin.readline().rstrip("\r\n")
    password = getpass.getpass("New password, not shown: ")
    if getpass.getpass("The same once more: ") != password:
        raise NotTwice
    return password


def place(words: str) -> tuple[float, float]:
    """Latitude and longitude as typed, not a number where they can't be read."""
    try:
        latitude, longitude = (float(part) for part in words.split(","))
    except ValueError:
        return math.nan, math.nan
    return latitude, longitude


def new(options: argparse.Namespace) -> None:
    farm = uuid.uuid4()
    beginning = Beginning(options.name, place(options.at), options.zone, options.owner, options.mail)
    with farm_session(farm, role="owner") as session:
        is_new = founding.begin(session, farm, beginning, asked_password)
    print(f"{beginning.name} is made ({farm}).")
    print(f"{options.owner} signs in as {options.mail}." if is_new else f"{options.mail} has an account: its password stays.")


def show(options: argparse.Namespace) -> None:
    with farm_session(None, role="owner") as session:
        holdings, is_empty = founding.holdings(session), founding.is_empty(session)
    for holding in holdings:
        owners = ", ".join(holding.owners) or "nobody"
        print(f"{holding.id}  {holding.name}: {holding.members} in all, owned by {owners}")
    if is_empty and options.begin and os.environ.get("BOOTMARK_FIRST_CODE"):
        print(f"Nobody is here yet. Open {options.begin} and type this code:\n\n    {os.environ['BOOTMARK_FIRST_CODE']}\n")
        print("It serves once, until Bootmark is started again.")
    elif not holdings:
        print("No farm yet: './bootmark farm new --help' tells how to make one.")


def password(options: argparse.Namespace) -> None:
    with farm_session(None, role="owner") as session:
        founding.set_password(session, options.mail, asked_password())
    print(f"The password of {options.mail} is set, and every device of that account is signed out.")


def parser() -> argparse.ArgumentParser:
    top = argparse.ArgumentParser(prog="./bootmark farm", description="Farms of this installation.")
    commands = top.add_subparsers(required=True, metavar="what")
    command = commands.add_parser("new", help="make a farm and its first owner")
    command.set_defaults(action=new)
    command.add_argument("name", help="what the farm is called")
    command.add_argument("--at", required=True, metavar="LAT,LON", help="where it lies, degrees, as 46.2,7.1; --at=-33.9,18.4 in the south")
    command.add_argument("--zone", required=True, help="its time zone, as Europe/Vienna")
    command.add_argument("--owner", required=True, help="the owner's name")
    command.add_argument("--mail", required=True, help="the owner's mail address")
    command = commands.add_parser("list", help="every farm and its owners")
    command.set_defaults(action=show)
    command.add_argument("--begin", metavar="ADDRESS", help="where the first account is made, told where there is none yet")
    command = commands.add_parser("password", help="set the password of an account whose holder has forgotten it")
    command.set_defaults(action=password)
    command.add_argument("mail")
    return top


OPTION = {"name": "the name", "at": "--at", "time_zone": "--zone", "person": "--owner", "email": "the address", "password": "the password"}


def main(words: list[str] | None = None) -> int:
    options = parser().parse_args(words)
    try:
        options.action(options)
    except Refused as refusal:
        for field, sentence in refusal.errors.items():
            print(f"{OPTION[field]}: {sentence}", file=sys.stderr)
        return 1
    except NotTwice:
        print("The two passwords differ: run this again.", file=sys.stderr)
        return 1
    return 0


if __name__ == "__main__":
    sys.exit(main())
