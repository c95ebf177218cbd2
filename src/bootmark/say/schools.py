"""Schools of control in words: what each is called, and what it means."""

from bootmark.core.field.schools import School

SCHOOLS = {
    School.NATURE: ("Leave to nature", "Nothing is done against pests. What must be reported is still told."),
    School.HAND: ("Hand and culture", "Tillage, hygiene, nets, traps and hands. Nothing is sprayed or released."),
    School.LIVING: (
        "Living first",
        "Predators, parasites and microbes first; then hand and culture, then materials, the soft ones before the others.",
    ),
    School.SOFT: ("Soft", "Hand and culture, living helpers, then soaps, oils and what harms little else. Nothing conventional."),
    School.ORGANIC: (
        "Organic",
        "The same as soft, and only what your certifier lists: Bootmark does not know that list, and says so at each material.",
    ),
    School.CONVENTIONAL: ("Conventional", "Everything, the gentlest first. What takes a qualified applicator waits for one."),
}
