"""Each release's own small farm, dumped by it, comes up to date, and every page of it answers."""

import html
import math
import os
import re
import subprocess
import tempfile
import unittest
import uuid
from collections import Counter, deque
from collections.abc import Iterator
from pathlib import Path

import psycopg
from flask.testing import FlaskClient
from psycopg import sql
from shapely import Point, Polygon
from sqlalchemy import select
from werkzeug.test import TestResponse

from bootmark.services.base import ground
from bootmark.standins.estate import BLOCKS, FARM, PASSWORD, PEOPLE
from bootmark.store import setup
from bootmark.store.models import Farm, Trap
from bootmark.store.session import farm_session
from bootmark.web import create_app
from tests import database
from tests.store.snapshot import snapshot

RELEASES = sorted((Path(__file__).parent / "releases").glob("*.dump"))
SNAPSHOT = Path(__file__).with_name("snapshot.txt")
ALIKE = 4
"""Pages of one kind that are walked; the demo has dozens of agents and records."""


def address(role: str, name: str) -> str:
    return setup.plain(os.environ[f"BOOTMARK_{role}_URL"]).rsplit("/", 1)[0] + "/" + name


def restored(dump: Path) -> str:
    """A database made from a dump, in use from now on."""
    database.template()
    name = f"bm_{uuid.uuid4().hex[:12]}"
    with psycopg.connect(database.server(), autocommit=True) as connection:
        connection.execute(sql.SQL("CREATE DATABASE {} OWNER bm_owner").format(sql.Identifier(name)))
    done = subprocess.run(["pg_restore", "-d", address("ADMIN", name), str(dump)], capture_output=True, text=True)
    assert not done.returncode, done.stderr
    database.use(name)
    return name


def walk(client: FlaskClient) -> Counter[int]:
    """Every page that can be reached by links, a few of each kind; the statuses met."""
    return Counter(answer.status_code for _, answer in walked(client))


def walked(client: FlaskClient) -> Iterator[tuple[str, TestResponse]]:
    """The same, each page with its address."""
    waiting, met, kinds = deque([f"/f/{FARM}/round"]), set[str](), Counter[str]()
    while waiting:
        path = waiting.popleft()
        kind = re.sub(r"[0-9a-f]{8}-[0-9a-f-]{27}|agent/[a-z-]+|[a-z]+(-[a-z]+)+", "ID", path.split("?")[0])
        if path in met or kinds[kind] >= ALIKE:
            continue
        met.add(path)
        kinds[kind] += 1
        answer = client.get(path)
        yield path, answer
        if "html" in answer.content_type:
            links = (html.unescape(link) for link in re.findall(r'href="(/[^"#]*)', answer.get_data(as_text=True)))
            waiting.extend(link for link in links if not link.startswith("/static"))


class Releases(unittest.TestCase):
    def test_each_comes_up_to_date_and_every_page_answers(self) -> None:
        self.assertTrue(RELEASES)
        for dump in RELEASES:
            with self.subTest(dump.stem):
                name = restored(dump)
                self.addCleanup(database.drop, name)
                with farm_session(FARM) as session:
                    before = _rows(session)
                with tempfile.TemporaryDirectory() as folder:
                    changed = setup.migrate(os.environ["BOOTMARK_OWNER_URL"], address("BACKUP", name), Path(folder))
                    kept = list(Path(folder).glob("before-*.dump"))
                    self.assertEqual(len(kept), int(changed))
                    for backup in kept:
                        self.assertGreater(backup.stat().st_size, dump.stat().st_size / 2, "farm rows are in the backup")
                with farm_session(FARM) as session:
                    self.assertEqual(_rows(session), before)
                self.assertEqual(snapshot(), SNAPSHOT.read_text())
                self.lies_where_it_was_drawn()
                statuses = walk(_signed_in())
                self.assertGreater(statuses[200], 60)
                self.assertEqual(set(statuses) - {200, 302}, set(), statuses)
                for _, email, role, _ in PEOPLE:
                    page = _signed_in(email).get(f"/f/{FARM}/people")
                    self.assertEqual((page.status_code, f"{role}" in page.text), (200, True), f"{email} of {dump.stem}")

    def lies_where_it_was_drawn(self) -> None:
        """Blocks drawn in metres until 0.7.0 lie where they were, to a tenth of a metre; so does every trap in its block."""
        drawn = {name: corners for name, _, _, _, _, _, corners, _ in BLOCKS}
        with farm_session(FARM) as session:
            farm = session.get_one(Farm, FARM)
            for block in ground.blocks(session):
                for corner, metres in zip(ground.on_plan(farm, block), drawn[block.name], strict=True):
                    self.assertLess(math.dist(corner, metres), 0.1, block.name)
            shapes = {block.id: Polygon(ground.on_plan(farm, block)) for block in ground.blocks(session)}
            for trap in session.scalars(select(Trap)):
                [spot] = ground.origin(farm).to_plan([(trap.longitude, trap.latitude)])
                self.assertTrue(shapes[trap.block_id].contains(Point(spot)), trap.name)

    def test_a_new_database_has_the_same_rights(self) -> None:
        name = database.clone()
        self.addCleanup(database.drop, name)
        if os.environ.get("BOOTMARK_WRITE_SNAPSHOT"):
            SNAPSHOT.write_text(snapshot())
        self.assertEqual(snapshot(), SNAPSHOT.read_text(), "written by BOOTMARK_WRITE_SNAPSHOT=1 ./bootmark test tests.store.test_releases")


def _rows(session: object) -> dict[str, int]:
    from sqlalchemy import text
    from sqlalchemy.orm import Session

    assert isinstance(session, Session)
    tables = ("command", "look", "sample", "decision", "application", "weather_day", "trap_check")
    return {table: session.execute(text(f"SELECT count(*) FROM {table}")).scalar_one() for table in tables}


def _signed_in(email: str = "ilva@ferrin.example") -> FlaskClient:
    client = create_app(TESTING=False).test_client()
    token = re.search(r'name="csrf_token" value="([^"]+)"', client.get("/sign-in").get_data(as_text=True))
    assert token
    client.post("/sign-in", data={"csrf_token": token.group(1), "email": email, "password": PASSWORD, "to": ""})
    return client
