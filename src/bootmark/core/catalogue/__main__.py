"""Prints what the catalogue covers and what its values rest on; ends with 1 where the content check finds a fault.

`--write` first brings up to date what is made from it, the editors' schemas and the list of ids; `--seal VERSION` seals that list.
"""

import argparse
import sys

from bootmark.core.catalogue import check, default, ids, schema
from bootmark.core.catalogue.model import Catalogue
from bootmark.core.catalogue.reader import CatalogueError


def write(catalogue: Catalogue, version: str) -> None:
    for name, document in schema.documents(catalogue).items():
        (schema.FOLDER / f"{name}.json").write_text(schema.text(document))
    ids.FILE.write_text("\n".join(ids.grown(ids.FILE.read_text().splitlines(), catalogue, version)) + "\n")


def main() -> int:
    options = argparse.ArgumentParser(prog="bootmark catalogue")
    options.add_argument("--write", action="store_true")
    options.add_argument("--seal", default="", metavar="VERSION")
    wanted = options.parse_args()
    try:
        catalogue = default()
    except CatalogueError as fault:
        print(f"mend {fault}", file=sys.stderr)
        return 1
    if wanted.write or wanted.seal:
        write(catalogue, wanted.seal)
    totals = {"agents": catalogue.agents, "crops": catalogue.crops, "signs": catalogue.signs, "looks": catalogue.looks}
    for name, entries in totals.items():
        print(f"{len(entries):5} {name}")
    for name, counts in check.coverage(catalogue).items():
        print(f"\n{name}: " + ", ".join(f"{count} {what}" for what, count in counts.most_common()))
    provenance = check.provenance(catalogue)
    print(f"\n{provenance.total()} values rest on: " + ", ".join(f"{count} {what}" for what, count in provenance.most_common()))
    told_apart = sum(len(agent.look_alikes) for agent in catalogue.agents.values())
    faults = [*check.faults(catalogue), *ids.faults(ids.FILE.read_text().splitlines(), catalogue)]
    print(f"{told_apart} look-alikes, each told apart by the look it names" if not faults else "\n".join(faults))
    return 1 if faults else 0


if __name__ == "__main__":
    sys.exit(main())
