"""Prints what the catalogue covers and what its values rest on; ends with 1 where the content check finds a fault."""

import sys

from bootmark.core.catalogue import check, default


def main() -> int:
    catalogue = default()
    totals = {"agents": catalogue.agents, "crops": catalogue.crops, "signs": catalogue.signs, "looks": catalogue.looks}
    for name, entries in totals.items():
        print(f"{len(entries):5} {name}")
    for name, counts in check.coverage(catalogue).items():
        print(f"\n{name}: " + ", ".join(f"{count} {what}" for what, count in counts.most_common()))
    provenance = check.provenance(catalogue)
    print(f"\n{provenance.total()} values rest on: " + ", ".join(f"{count} {what}" for what, count in provenance.most_common()))
    told_apart = sum(len(agent.look_alikes) for agent in catalogue.agents.values())
    faults = check.faults(catalogue)
    print(f"{told_apart} look-alikes, each told apart by the look it names" if not faults else "\n".join(faults))
    return 1 if faults else 0


if __name__ == "__main__":
    sys.exit(main())
