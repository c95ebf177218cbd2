"""python -m bootmark.farms: makes a farm with its first owner, lists farms, sets a forgotten password.

The password is asked for and not shown; where the standard input is no terminal, its first line is the password.
"""

import argparse
import datetime as dt
import getpass
import math
import os
import sys
import uuid

from bootmark.services import keeping
from bootmark.services.base.command import Refused
from bootmark.services.base.roles import Role
from bootmark.services.owning import founding, post
from bootmark.services.owning.founding import Beginning
from bootmark.standins import demo
from bootmark.standins.estate import FARM, NAME
from bootmark.store import copies
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
        holdings, is_empty = keeping.holdings(session), founding.is_empty(session)
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
        keeping.set_password(session, options.mail, asked_password())
    print(f"The password of {options.mail} is set, and every device of that account is signed out.")


def sample(options: argparse.Namespace) -> None:
    with farm_session(FARM, role="owner") as session:
        if founding.account_of(session, options.mail) is None:
            raise Refused(email=f"No account has the address {options.mail}.")
    is_new = demo.load(password=None)
    with farm_session(FARM, role="owner") as session:
        keeping.own(session, FARM, options.mail)
    print(
        f"{NAME} is {'made' if is_new else 'there'}, and {options.mail} owns it. It runs on its own clock; nobody else can sign in to it."
    )
    print(f"'./bootmark farm close {FARM}' takes it away again.")


def farm_id(words: str) -> uuid.UUID:
    """A farm's id as it was typed. Raises Refused."""
    try:
        return uuid.UUID(words)
    except ValueError:
        raise Refused(farm="that is no farm's id: './bootmark farm list' tells them.") from None


def invite(options: argparse.Namespace) -> None:
    farm = farm_id(options.farm)
    with farm_session(farm, role="owner") as session:
        token = keeping.invite(session, farm, options.name, options.mail, options.role, dt.datetime.now(dt.UTC))
    where = os.environ.get(post.ADDRESS, "").rstrip("/") or "the address at which people reach Bootmark, then "
    print(f"Send {options.name} this link. It serves once, for a week, and is shown only now:\n\n    {where}/join/{token}\n")


def close(options: argparse.Namespace) -> None:
    farm = farm_id(options.farm)
    with farm_session(None, role="owner") as session:
        name = next((holding.name for holding in keeping.holdings(session) if holding.id == farm), "")
    if name and asked(f"This takes {name} away with everything in it, for good. Type its name: ") != name:
        raise Refused(farm="that is not its name; nothing was taken away.")
    with farm_session(farm, role="owner") as session:
        rows = keeping.close(session, farm)
    print(f"{name} is gone, with {rows:,} records.")


def erase(options: argparse.Namespace) -> None:
    now = dt.datetime.now(dt.UTC)
    if asked(f"This blanks everything that is told of {options.mail}, for good. Type the address: ") != options.mail:
        raise Refused(email="that is not the address; nothing was changed.")
    with farm_session(None, role="owner") as session:
        account = keeping.erase(session, options.mail, now)
    copies.note_erased(account, now)
    print(f"{options.mail} is erased. What was written and signed stays, under no name; backups of before still hold the rest.")


def asked(question: str) -> str:
    """A line from the terminal, or from whatever is the standard input."""
    if sys.stdin.isatty():
        return input(question).strip()
    return sys.stdin.readline().strip()


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
    command = commands.add_parser("invite", help="make a link by which somebody joins a farm")
    command.set_defaults(action=invite)
    command.add_argument("farm", help="its id, as 'list' tells it")
    command.add_argument("name", help="who is asked")
    command.add_argument("--role", choices=tuple(Role), default=Role.SCOUT.value)
    command.add_argument("--mail", default="", help="the one address that the link serves for")
    command = commands.add_parser("password", help="set the password of an account whose holder has forgotten it")
    command.set_defaults(action=password)
    command.add_argument("mail")
    command = commands.add_parser("sample", help="add the sample farm, to be looked at by an account that is there")
    command.set_defaults(action=sample)
    command.add_argument("mail")
    command = commands.add_parser("erase", help="blank everything that is told of a person")
    command.set_defaults(action=erase)
    command.add_argument("mail")
    command = commands.add_parser("close", help="take a farm away, with everything in it")
    command.set_defaults(action=close)
    command.add_argument("farm", help="its id, as 'list' tells it")
    return top


OPTION = {
    "name": "the name",
    "at": "--at",
    "time_zone": "--zone",
    "person": "--owner",
    "email": "the address",
    "password": "the password",
    "farm": "the farm",
}


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
