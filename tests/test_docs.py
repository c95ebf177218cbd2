"""Docs that are generated from code stay so: ./bootmark test says when one has to be written anew."""

import json
import math
import os
import re
import unittest
from dataclasses import replace
from pathlib import Path

from assets import digest
from bootmark.core.catalogue import default
from bootmark.core.catalogue.lives import lives
from bootmark.core.field import identify
from bootmark.core.season import growth
from bootmark.say import coverage
from bootmark.services.kinds import KINDS
from bootmark.store import models, versions  # noqa: F401 - registers the tables
from bootmark.store.base import Base
from bootmark.web.guard import POLICY
from tests.core.test_growth import RATES, hours

PAGE = Path(__file__).resolve().parents[1] / "docs" / "commands.md"
SCHEMA = PAGE.with_name("commands.schema.json")
COVERAGE, LISTED, GROWTH = (PAGE.with_name(name) for name in ("coverage.md", "listed.md", "growth.md"))


def generated() -> str:
    """Commands, tables and the policy, as the code has them."""
    lines = [
        "# Generated from the code",
        "",
        "Written by `BOOTMARK_WRITE_DOCS=1 ./bootmark test tests.test_docs`; a test holds it to the code.",
        "",
    ]
    lines += [
        "## Commands",
        "",
        "Their shapes stand as JSON Schema in `docs/commands.schema.json`.",
        "",
        "| kind | v | who | what | fields |",
        "|---|---|---|---|---|",
    ]
    for kind, handler in sorted(KINDS.items()):
        spec, fields = handler.command.spec, ", ".join(handler.command.model_fields)
        lines.append(f"| `{kind}` | {spec.v} | {', '.join(sorted(spec.roles))} | {handler.command.about()} | {fields} |")
    lines += ["", "## Tables", "", "```mermaid", "erDiagram"]
    pairs = {
        (key.referred_table.name, table.name)
        for table in Base.metadata.sorted_tables
        for key in table.foreign_key_constraints
        if key.referred_table.name != "farm" and not table.name.endswith("_version")
    }
    lines += [f"    {one} ||--o{{ {many} : has" for one, many in sorted(pairs)]
    heads = ", ".join(sorted(table.name.removesuffix("_version") for table in versions.VERSIONS.values()))
    lines += [
        "```",
        "",
        f"Every table but `account`, `agent`, `sign` and `sign_in_attempt` belongs to a farm. These have a version table each: {heads}.",
        "",
    ]
    lines += ["## Content-Security-Policy", "", "```", POLICY.replace("; ", ";\n"), "```", ""]
    return "\n".join(lines)


def schemas() -> str:
    """The shapes of all commands, for devices to check before anything is kept."""
    fields = {
        f"{kind}/{handler.command.spec.v}": handler.command.model_json_schema() | {"description": handler.command.about()}
        for kind, handler in sorted(KINDS.items())
    }
    return json.dumps(fields, indent=1, ensure_ascii=False) + "\n"


ROW = re.compile(r"^\| ([a-z ]+) \| .*?([0-9.]+) \| ([0-9.]+) \| ([0-9.]+) \|$", re.MULTILINE)
SHORT = {"mite": "two-spotted-spider-mite", "thrips": "western-flower-thrips", "water shortage": "water-shortage"}


def growth_page() -> str:
    """Rates of increase as ours stand beside those that are remembered."""
    lines = [
        "# How fast they grow",
        "",
        "Written by `BOOTMARK_WRITE_DOCS=1 ./bootmark test tests.test_docs`. Intrinsic rates of increase a day at a steady temperature: ours,",
        "simulated from `core/catalogue/lives.toml`, beside what is remembered of published life tables (`tests/core/test_growth.py`).",
        "",
        "| pest | on | 20 °C | 25 °C | 30 °C | days to double at 25 °C | rests on |",
        "|---|---|---|---|---|---|---|",
    ]
    for (agent, crop), by_temp in RATES.items():
        doubling = {temp: growth.project(agent, 1.0, hours(temp), crop=crop).doubling for temp in (20, 25, 30)}
        rates = {temp: math.log(2) / days for temp, days in doubling.items()}
        told = {temp: f" ({low:.2f} to {high:.2f})" for temp, (low, high) in by_temp.items()}
        cells = " | ".join(f"{rates[temp]:.2f}{told.get(temp, '')}" for temp in rates)
        entry = default().agent(agent)
        lines.append(f"| {entry.name} | {crop or 'any'} | {cells} | {doubling[25]:.1f} | {lives()[agent].source} |")
    return "\n".join([*lines, ""])


class Docs(unittest.TestCase):
    def test_the_worked_example_is_what_the_core_computes(self) -> None:
        catalogue = default()
        three = replace(catalogue, agents={agent: catalogue.agents[agent] for agent in SHORT.values()})
        case = {"crop": "raspberry", "month": 6, "signs": {"stippling": "seen"}}
        chances = {frozenset(cause.agents): cause.probability for cause in identify.suspects(case, catalogue=three).causes}
        rows = ROW.findall((PAGE.parent / "reasoning.md").read_text())
        self.assertEqual(len(rows), 8)
        for names, _, _, share in rows:
            agents = {"nothing": set(), "all three": set(SHORT.values())}.get(names, {SHORT.get(name, "") for name in names.split(" and ")})
            self.assertAlmostEqual(chances[frozenset(agents)], float(share), places=3, msg=names)
        self.assertAlmostEqual(sum(float(weight) for _, _, weight, _ in rows), 0.2145, delta=2e-4)

    def test_the_generated_page_matches_the_code(self) -> None:
        if os.environ.get("BOOTMARK_WRITE_DOCS"):
            PAGE.write_text(generated())
            SCHEMA.write_text(schemas())
            COVERAGE.write_text(coverage.page(default()))
            LISTED.write_text(coverage.listed(default()))
            GROWTH.write_text(growth_page())
        self.assertEqual(PAGE.read_text(), generated())
        self.assertEqual(SCHEMA.read_text(), schemas())
        self.assertEqual(COVERAGE.read_text(), coverage.page(default()))
        self.assertEqual(LISTED.read_text(), coverage.listed(default()))
        self.assertEqual(GROWTH.read_text(), growth_page())

    def test_the_committed_style_was_built_from_its_sources(self) -> None:
        self.assertEqual(digest.NOTE.read_text().strip(), digest.digest(), "run ./bootmark assets and commit what it changes")

    def test_the_committed_style_names_no_address(self) -> None:
        style = (PAGE.parents[1] / "src" / "bootmark" / "web" / "static" / "app.css").read_text()
        self.assertNotRegex(style, r"url\([\"']?https?:")
