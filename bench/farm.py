"""A big farm: its forecasts reckoned in the background by two worker processes, one of them killed on the way, and its Stages page.

On a throw-away database with a copy of the demo farm: apple blocks with a biofix for each of six agents. Prints how long the
reckoning takes against the same forecasts one after the other in this process, whether any was made twice, and how long the Stages
page takes from the request to the paint of the last ribbon in view in Chromium, beside the Farm page and a line of text of the same run.
Each page is asked for while the one before is at rest.

    ./bootmark bench farm [blocks]
"""

import datetime as dt
import os
import statistics
import subprocess
import sys
import time
import uuid

from sqlalchemy import func, select

from bench import pages as served
from bootmark.services.base import ground
from bootmark.services.seasons import forecasts, results
from bootmark.standins.estate import FARM, NOW, PASSWORD, PEOPLE
from bootmark.store.models import Farm, SeasonResult, SeasonRun
from bootmark.store.session import farm_session
from tests import database, orchards
from tests.browser import driver

AGENTS = ("apple-maggot", "codling-moth", "japanese-beetle", "oriental-fruit-moth", "oystershell-scale", "san-jose-scale")
DAY = NOW.date()
ROUNDS = 15
WATCH = """
window.painted = [];
new PerformanceObserver((list) => window.painted.push(...list.getEntries().map((one) => one.renderTime)))
  .observe({type: "element", buffered: true});
new MutationObserver(() => {
  for (const line of document.querySelectorAll(".readout:not([elementtiming])")) line.setAttribute("elementtiming", "ribbon");
}).observe(document, {childList: true, subtree: true});
"""
"""Run before the page's own scripts: has the browser tell when the line under each ribbon was painted."""
TOLD = """
const answer = performance.getEntriesByType("navigation")[0], first = performance.getEntriesByName("first-contentful-paint")[0];
const seen = [...document.querySelectorAll(".readout")].filter((line) => line.getBoundingClientRect().bottom < innerHeight).length;
if (!first || window.painted.length < seen) return null;
return [answer.responseEnd - answer.requestStart, first.startTime, Math.max(first.startTime, ...window.painted.slice(0, seen)),
        document.querySelectorAll("[data-ribbon]").length];
"""
AT_REST = "const done = arguments[0]; requestIdleCallback(() => setTimeout(done, 250))"
WORKERS, MOST_SECONDS = 2, 420


def worker() -> "subprocess.Popen[bytes]":
    return subprocess.Popen([sys.executable, "-m", "bootmark.worker"], env=os.environ, stderr=subprocess.DEVNULL)


def reckon() -> tuple[float, int, int]:
    """Seconds, forecasts, and how many were made twice although a worker was killed halfway."""
    with farm_session(FARM) as session:
        farm = session.get_one(Farm, FARM)
        _, run = results.refresh(session, farm, ground.blocks(session), database.catalogue, DAY, dt.datetime.now(dt.UTC))
        assert run, "the farm is too small for the background"
        run_id, total = run.id, run.total
    start, team, killed = time.perf_counter(), [worker() for _ in range(WORKERS)], False
    first: dict[tuple[uuid.UUID, str], dt.datetime] = {}
    try:
        while time.perf_counter() - start < MOST_SECONDS:
            time.sleep(0.5)
            with farm_session(FARM) as session:
                run = session.get_one(SeasonRun, (FARM, run_id))
                if run.finished_at:
                    break
                if run.done > total / 3 and not killed:
                    rows = select(SeasonResult.block_id, SeasonResult.agent, SeasonResult.reckoned_at)
                    first = {(row.block_id, row.agent): row.reckoned_at for row in session.execute(rows)}
                    killed = True
                    team[0].kill()
                    team[0].wait()
                    team[0] = worker()
    finally:
        for member in team:
            member.terminate()
            member.wait()
    took = time.perf_counter() - start
    with farm_session(FARM) as session:
        rows = select(SeasonResult.block_id, SeasonResult.agent, SeasonResult.reckoned_at)
        last = {(row.block_id, row.agent): row.reckoned_at for row in session.execute(rows)}
        assert session.execute(select(func.count()).select_from(SeasonResult)).scalar_one() == total
    return took, total, sum(last[pair] != when for pair, when in first.items())


def one_after_the_other(most: int = 200) -> float:
    """Seconds a forecast in this process, none of them shared."""
    with farm_session(FARM) as session:
        farm = session.get_one(Farm, FARM)
        asks = forecasts.asks(session, farm, ground.blocks(session), database.catalogue, DAY)[:most]
        start = time.perf_counter()
        for question in asks:
            forecasts.reckon(session, farm, question, DAY, sightings=question.sightings)
        return (time.perf_counter() - start) / len(asks)


def pages() -> None:
    with served.bootmark() as address, driver.browser() as chrome:
        driver.sign_in(chrome, address, next(mail for _, mail, role, _ in PEOPLE if role == "owner"), PASSWORD)
        chrome.execute_cdp_cmd("Page.addScriptToEvaluateOnNewDocument", {"source": WATCH})
        print(f"{'':22}{'answer':>9}{'first paint':>13}{'all in view':>13}{'ribbons':>9}")
        for name, path in (("a line of text", ""), ("Farm", "farm"), ("Stages", "stages"), ("Stages, all", "stages?show=all")):
            lines = []
            for _ in range(ROUNDS + 4):
                chrome.execute_async_script(AT_REST)
                chrome.get(f"{address}/f/{FARM}/{path}" if path else f"{address}/livez")
                lines.append(driver.until(chrome, lambda c: c.execute_script(TOLD), "nothing was painted"))
            answer, first, whole, ribbons = (statistics.median(row) for row in zip(*lines[4:], strict=True))
            print(f"{name:22}{answer:>6.0f} ms{first:>10.0f} ms{whole:>10.0f} ms{ribbons:>9.0f}")


def main() -> None:
    blocks = int(sys.argv[1]) if len(sys.argv) > 1 else 54
    name = database.clone()
    try:
        orchards.plant(blocks, "apple", AGENTS, days=60)
        alone = one_after_the_other()
        took, total, twice = reckon()
        each = 1000 * took / total
        print(f"{total} forecasts on {blocks} blocks by {WORKERS} workers, one killed on the way: {took:.1f} s, {each:.0f} ms each,")
        print(f"{took / total / alone:.2f} times one in this process ({1000 * alone:.0f} ms); made twice: {twice}")
        pages()
    finally:
        database.drop(name)


if __name__ == "__main__":
    main()
