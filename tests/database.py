"""Databases for tests: a template with the demo farm, made once a run, and clones of it."""

import contextlib
import functools
import io
import os
import unittest
import uuid
from typing import ClassVar

import psycopg
from psycopg import sql

from bootmark.core.catalogue import default
from bootmark.services.base.people import Member
from bootmark.services.base.roles import Role
from bootmark.standins import demo
from bootmark.standins.estate import FARM, NAME, PEOPLE, made
from bootmark.store import session, setup

TEMPLATE = "bm_template"
SHARED_TEMPLATE = "BOOTMARK_TEMPLATE"
"""In a process that was started to run tests: the template that is there already."""
ROLES = ("ADMIN", "OWNER", "WEB", "WORKER", "BACKUP")


def server() -> str:
    return setup.plain(os.environ["BOOTMARK_ADMIN_URL"]).rsplit("/", 1)[0] + "/postgres"


def use(database: str) -> None:
    """Point every role at one database."""
    for role in ROLES:
        name = f"BOOTMARK_{role}_URL"
        os.environ[name] = os.environ[name].rsplit("/", 1)[0] + "/" + database
    session.close_engines()


@functools.cache
def template() -> str:
    """The migrated database with the demo farm in it; made once, by whoever starts the tests."""
    if name := os.environ.get(SHARED_TEMPLATE):
        return name
    if "BOOTMARK_ADMIN_URL" not in os.environ:
        raise unittest.SkipTest("no database: run the tests with ./bootmark test")
    passwords = {role: os.environ[f"BOOTMARK_{role.removeprefix('bm_').upper()}_PASSWORD"] for role in setup.ROLES}
    with psycopg.connect(server(), autocommit=True) as connection:
        connection.execute(sql.SQL("DROP DATABASE IF EXISTS {} WITH (FORCE)").format(sql.Identifier(TEMPLATE)))
    setup.create_roles_and_database(os.environ["BOOTMARK_ADMIN_URL"], passwords, TEMPLATE)
    use(TEMPLATE)
    setup.migrate(os.environ["BOOTMARK_OWNER_URL"])
    with contextlib.redirect_stderr(io.StringIO()):
        demo.load()
    session.close_engines()
    return TEMPLATE


def clone() -> str:
    """A fresh copy of the template, in use from now on; returns its name."""
    source, name = template(), f"bm_{uuid.uuid4().hex[:12]}"
    with psycopg.connect(server(), autocommit=True) as connection:
        connection.execute(sql.SQL("CREATE DATABASE {} TEMPLATE {} OWNER bm_owner").format(sql.Identifier(name), sql.Identifier(source)))
    use(name)
    with session.engine("owner").begin() as connection:
        setup.close_doors(connection)
    return name


def empty() -> str:
    """A database that is up to date and holds no account and no farm, in use from now on; returns its name."""
    template()
    name = f"bm_{uuid.uuid4().hex[:12]}"
    with psycopg.connect(server(), autocommit=True) as connection:
        connection.execute(sql.SQL("CREATE DATABASE {} OWNER bm_owner").format(sql.Identifier(name)))
    use(name)
    setup.migrate(os.environ["BOOTMARK_OWNER_URL"])
    return name


def drop(name: str) -> None:
    use("postgres")
    with psycopg.connect(server(), autocommit=True) as connection:
        connection.execute(sql.SQL("DROP DATABASE IF EXISTS {} WITH (FORCE)").format(sql.Identifier(name)))


class DatabaseTest(unittest.TestCase):
    """A test case with a copy of the demo farm of its own."""

    database: ClassVar[str]

    @classmethod
    def setUpClass(cls) -> None:
        cls.database = clone()
        cls.addClassCleanup(drop, cls.database)


def member(role: str) -> Member:
    """One of the estate's people by role."""
    email, qualified = next((mail, fit) for _, mail, held, fit in PEOPLE if held == role)
    return Member(made(email), FARM, NAME, Role(role), qualified)


catalogue = default()
