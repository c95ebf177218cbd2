"""What is looked at outside the season: what to do, and what it is for."""

from bootmark.core.meanings import YearTask

TASKS: dict[YearTask, tuple[str, str]] = {
    YearTask.SPURS: ("Spurs and twigs under the lens", "Eggs of mites and aphids, scales: fifty spurs or twigs tell what spring brings."),
    YearTask.OLD_BAGS: ("Old bags and webs", "Cut them out and burn them: each holds hundreds of eggs."),
    YearTask.MUMMIES: ("Mummies and loose bark", "Pick dry fruit off and up; cocoons sit under bark and bands."),
    YearTask.CULL_HEAPS: ("Cull heaps, crates and hedges", "What was thrown out hatches first: bury it, or burn it."),
    YearTask.TRAPS: ("Traps cleaned and counted", "New liners and lures in hand before the first flight."),
    YearTask.NOZZLES: ("Nozzles, filters, pressure", "One that gives a tenth more than the rest is thrown away."),
    YearTask.REGISTRATIONS: (
        "What may still be used",
        "Registrations end with the year: read the register, and take old ones off the shelf.",
    ),
    YearTask.LAST_CROP: ("What the last crop left", "Stubble, clods, volunteers: grubs and eggs wait in them."),
    YearTask.SOIL_BAITS: ("Baits in the soil", "Potato or grain a hand deep, ten days before planting: wireworms decide what is planted."),
    YearTask.STORE_TEMPERATURE: ("The heap with your own thermometer", "A warm spot is alive. Dry and cool first."),
    YearTask.STORE_SIEVE: ("A kilogram sieved from each heap", "Live ones: cool, dry, clean. Fumigation is a licensed firm's alone."),
    YearTask.STORE_TRAPS: ("The store's traps", "Moths and beetles a week, each trap its own."),
}
"""Of each task its name, and why."""
