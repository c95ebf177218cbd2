"""Fifty scouts on ten farms, at work at once beside the reckoning of forecasts: ./bootmark bench load [MINUTES] [SCOUTS].

Each scout taps on a bench, keeps a look, counts, reads a page, and rests as people do. Prints the median and the 95th percentile of taps,
pages and records, the errors, and what memory the web processes and the worker hold at the beginning and the end; beside it a bare page
with one SELECT under the same load.
"""

import http.cookiejar
import json
import os
import random
import statistics
import subprocess
import sys
import threading
import time
import urllib.error
import urllib.parse
import urllib.request
import uuid
from collections import Counter, defaultdict
from pathlib import Path

from sqlalchemy import text

from bench.pages import BARE, cases, server
from bootmark.launch import web
from bootmark.services.base import ground
from bootmark.services.base.people import hash_password
from bootmark.services.seasons import results
from bootmark.standins.estate import FARM, NOW, PASSWORD, made
from bootmark.store.models import Farm
from bootmark.store.session import engine, farm_session
from tests import database

FARMS, REST = 10, (0.5, 2.5)
PAGES = ("round", "stages", "do", "timing", "book", "farm")


def farms() -> list[uuid.UUID]:
    """The demo farm and nine more with the same places, each with five scouts of its own."""
    made_farms = [FARM, *(uuid.uuid4() for _ in range(FARMS - 1))]
    hashed = hash_password(PASSWORD)
    with engine("admin").begin() as connection:
        for number, farm in enumerate(made_farms):
            if farm != FARM:
                for table in ("farm", "station", "block", "weather_day", "weather_derived", "biofix"):
                    columns = connection.execute(
                        text("SELECT column_name FROM information_schema.columns WHERE table_schema = 'public' AND table_name = :t"),
                        {"t": table},
                    ).scalars()
                    key = "id" if table == "farm" else "farm_id"
                    names = [f'"{name}"' for name in columns]
                    values = [f"'{farm}'" if name == f'"{key}"' else name for name in names]
                    connection.execute(
                        text(f"INSERT INTO {table} ({', '.join(names)}) SELECT {', '.join(values)} FROM {table} WHERE {key} = '{FARM}'")
                    )
            for scout in range(5):
                account = uuid.uuid4()
                words = {"id": account, "email": mail(number, scout), "name": f"Scout {scout}", "hash": hashed, "farm": farm}
                connection.execute(text("INSERT INTO account (id, email, name, password_hash) VALUES (:id, :email, :name, :hash)"), words)
                connection.execute(
                    text("INSERT INTO membership (farm_id, account_id, role, qualified) VALUES (:farm, :id, 'scout', false)"), words
                )
    return made_farms


def mail(farm: int, scout: int) -> str:
    return f"scout{scout}@farm{farm}.example"


class Scout(threading.Thread):
    """One scout with a phone."""

    def __init__(self, address: str, farm: uuid.UUID, email: str, end: float, bare: bool) -> None:
        super().__init__(daemon=True)
        self.address, self.farm, self.email, self.end, self.bare = address, farm, email, end, bare
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(http.cookiejar.CookieJar()))
        self.times: dict[str, list[float]] = defaultdict(list)
        self.errors: Counter[str] = Counter()
        self.rng = random.Random(email)
        self.token = ""

    def ask(self, kind: str, path: str, body: bytes | None = None, form: bool = False) -> str:
        head = {"X-CSRFToken": self.token} | ({"Content-Type": "application/json"} if body and not form else {})
        start = time.perf_counter()
        try:
            with self.opener.open(urllib.request.Request(f"{self.address}{path}", body, head), timeout=60) as answer:
                page = str(answer.read().decode())
        except (urllib.error.URLError, OSError) as error:
            self.errors[f"{kind}: {getattr(error, 'code', error)}"] += 1
            return ""
        self.times[kind].append(1000 * (time.perf_counter() - start))
        return page

    def sync(self, kind: str, payload: dict[str, object], record: uuid.UUID) -> None:
        command = {"command_id": str(uuid.uuid4()), "kind": kind, "v": 1, "record_id": str(record), "base": None, "payload": payload}
        answered = self.ask("record", f"/f/{self.farm}/sync", json.dumps({"commands": [command]}).encode())
        if answered and json.loads(answered)["results"][0]["status"] not in ("stored", "conflict"):
            self.errors[f"{kind}: {json.loads(answered)['results'][0]}"[:160]] += 1

    def run(self) -> None:
        time.sleep(self.rng.uniform(0, 3))
        if self.bare:
            while time.monotonic() < self.end:
                self.ask("bare page", "/")
                time.sleep(self.rng.uniform(*REST))
            return
        page = self.ask("sign-in", "/sign-in")
        token = page.split('name="csrf_token" value="')[1].split('"')[0]
        form = {"csrf_token": token, "email": self.email, "password": PASSWORD, "to": f"/f/{self.farm}/round"}
        page = self.ask("sign-in", "/sign-in", urllib.parse.urlencode(form).encode(), form=True)
        self.token = page.split('name="csrf" content="')[1].split('"')[0]
        while time.monotonic() < self.end:
            self.stop()

    def stop(self) -> None:
        """One stop: it is opened, looked at tap by tap, counted, and a page is read."""
        stop = uuid.uuid4()
        self.sync("stop.open", {"block_id": str(made("Tunnel 1")), "where": "here"}, stop)
        seed = self.rng.randrange(10_000)
        taps = cases(6 * (seed % 40 + 1))[-6:]
        for seq, signs in enumerate(taps):
            if time.monotonic() > self.end:
                return
            self.ask("tap", f"/f/{self.farm}/look/{stop}/rank", json.dumps({"seq": seq, "signs": signs, "tools": None}).encode())
            time.sleep(self.rng.uniform(*REST))
        self.sync("look.record", {"stop_id": str(stop), "signs": taps[-1], "note": ""}, uuid.uuid4())
        counted = {"agent": "two-spotted-spider-mite", "unit": "leaf", "measure": "mean", "counts": [3, 1, 0, 2] * 5, "enemies": [0] * 20}
        self.sync("sample.record", {"stop_id": str(stop), **counted}, uuid.uuid4())
        self.ask("page", f"/f/{self.farm}/{self.rng.choice(PAGES)}")
        time.sleep(self.rng.uniform(*REST))


def memory() -> int:
    """Megabytes that our web processes and workers hold."""
    held = 0
    for path in Path("/proc").glob("[0-9]*"):
        try:
            command = (path / "cmdline").read_bytes().decode(errors="replace")
            if "bootmark.web.serving" in command or "bootmark.worker" in command:
                held += int(next(line for line in (path / "status").read_text().splitlines() if line.startswith("VmRSS")).split()[1])
        except (OSError, StopIteration):
            continue
    return held // 1024


def reckoning(made_farms: list[uuid.UUID], end: float) -> None:
    """A farm's forecasts are reckoned anew again and again, as after each new reading."""
    day = 0
    while time.monotonic() < end:
        farm, day = made_farms[day % len(made_farms)], day + 1
        with farm_session(farm) as session:
            row = session.get_one(Farm, farm)
            results.refresh(session, row, ground.blocks(session), database.catalogue, NOW.date(), NOW)
        time.sleep(5)


def at_work(
    address: str, made_farms: list[uuid.UUID], count: int, seconds: float, bare: bool
) -> tuple[dict[str, list[float]], Counter[str]]:
    end = time.monotonic() + seconds
    scouts = [Scout(address, made_farms[n % FARMS], mail(n % FARMS, n // FARMS % 5), end, bare) for n in range(count)]
    for scout in scouts:
        scout.start()
    if not bare:
        threading.Thread(target=reckoning, args=(made_farms, end), daemon=True).start()
        time.sleep(min(30, seconds / 4))
        print(f"memory of web and worker after {min(30, seconds / 4):.0f} s: {memory()} MB", flush=True)
    for scout in scouts:
        scout.join()
    times: dict[str, list[float]] = defaultdict(list)
    errors: Counter[str] = Counter()
    for scout in scouts:
        errors.update(scout.errors)
        for kind, taken in scout.times.items():
            times[kind] += taken
    return times, errors


def main() -> None:
    minutes, count = (float(sys.argv[1]) if len(sys.argv) > 1 else 10.0), (int(sys.argv[2]) if len(sys.argv) > 2 else 50)
    database.clone()
    made_farms = farms()
    folder = Path("/tmp") / f"bootmark-bare-{os.getpid()}"
    with server(web.APPLICATION, os.getcwd(), "/livez") as address:
        worker = subprocess.Popen([sys.executable, "-m", "bootmark.worker"], stderr=subprocess.DEVNULL)
        times, errors = at_work(address, made_farms, count, 60 * minutes, bare=False)
        print(f"memory of web and worker at the end: {memory()} MB")
        worker.terminate()
        worker.wait()
    folder.mkdir()
    (folder / "bare.py").write_text(BARE)
    with server("bare:app", str(folder), "/") as address:
        bare, _ = at_work(address, made_farms, count, min(60.0, 60 * minutes), bare=True)
    print(f"{count} scouts on {FARMS} farms for {minutes:g} minutes, {sum(errors.values())} errors")
    for kind, taken in {**times, **bare}.items():
        cut = statistics.quantiles(taken, n=20) if len(taken) > 1 else taken * 20
        print(
            f"{kind:10} {len(taken):6} asked   p50 {statistics.median(taken):7.1f} ms   p95 {cut[18]:7.1f} ms   most {max(taken):7.1f} ms"
        )
    for error, number in errors.most_common(8):
        print(f"{number:6} {error}")


if __name__ == "__main__":
    main()
