"""What plant is meant: a crop of the catalogue, or a plant of which only family and habit are known, by any of its names."""

import difflib
import functools
import re
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from pathlib import Path

from bootmark.core.catalogue.model import HABITS, Catalogue

FILE = Path(__file__).with_name("plants.txt")
ASIDE = frozenset(
    {
        *("a", "an", "the", "my", "our", "some", "in", "of", "on", "old", "young", "small", "big", "wild", "dwarf", "garden", "indoor"),
        *("outdoor", "ornamental", "potted", "pot", "plant", "plants", "bush", "bushes", "tree", "trees", "hedge", "hedges", "seedling"),
        *("row", "rows", "bed", "beds", "leaf", "leaves", "fruit"),
    }
)
"""Words that say nothing of which plant it is, where the others do."""
BY_WORD = {
    "tree": "tree", "conifer": "conifer", "evergreen": "conifer", "palm": "palm", "shrub": "shrub", "bush": "shrub", "hedge": "shrub",
    "climber": "climber", "creeper": "climber", "grass": "grass", "cereal": "grass", "bulb": "bulb", "succulent": "succulent",
    "herb": "herb", "vegetable": "herb", "flower": "herb", "bedding": "herb", "perennial": "herb", "weed": "herb",
}  # fmt: skip
"""Words that say how a plant grows."""
CLOSE = 0.82
MOST_SUGGESTED = 3
LEAST_LETTERS = 4


@dataclass(frozen=True)
class Plant:
    """A plant that was asked for. crop: its id in the catalogue, empty where it has no entry; name: as it is called here."""

    name: str
    crop: str = ""
    family: str = ""
    habit: str = ""


@dataclass(frozen=True)
class Understood:
    """What some words mean. plant: None where nobody knows; sure: the words are its name; suggestions: what may have been meant."""

    words: str
    plant: Plant | None
    sure: bool
    suggestions: tuple[str, ...] = ()


@functools.lru_cache(maxsize=8192)
def plain(words: str) -> str:
    """Words without capitals, hyphens and plurals, for comparing."""
    return " ".join(map(_singular, re.sub(r"[^\w' ]+|_", " ", words.lower().replace("'s", "")).split()))


def _singular(word: str) -> str:
    for ending, single in (("ies", "y"), ("ves", "f"), ("toes", "to"), ("ches", "ch"), ("shes", "sh"), ("xes", "x")):
        if word.endswith(ending) and len(word) > len(ending) + 2:
            return word[: -len(ending)] + single
    return word[:-1] if word.endswith("s") and not word.endswith(("ss", "us", "is")) and len(word) > LEAST_LETTERS - 1 else word


@functools.cache
def shipped() -> tuple[Mapping[str, Plant], Mapping[str, list[str]]]:
    """Plants of the list that ships with Bootmark by their plain names, and the names of each genus."""
    plants: dict[str, Plant] = {}
    genera: dict[str, list[str]] = {}
    for line in FILE.read_text("utf-8").splitlines():
        if line.startswith("#") or not line.strip():
            continue
        kin, entries = line.split(":", 1)
        family, habit = kin.split()
        for entry in entries.split(";"):
            genus, listed = entry.strip().split("=")
            genera[plain(genus)] = names = [name.strip() for name in listed.split(",")]
            for name in names:
                plants.setdefault(plain(name), Plant(name, family=family, habit=habit))
    return plants, genera


@functools.lru_cache(maxsize=8)
def _names(catalogue: Catalogue) -> Mapping[str, Plant]:
    plants, genera = shipped()
    crops: dict[str, Plant] = {}
    for also in (True, False):
        for crop in catalogue.crops.values():
            plant = Plant(crop.name.lower(), crop.id, crop.family, crop.habit)
            crops.update({plain(name): plant for name in (crop.also if also else (crop.name, crop.id))})
    names = {**plants, **crops}
    for genus, listed in genera.items():
        meant = {crops[plain(name)].crop: crops[plain(name)] for name in listed if plain(name) in crops}
        own = next(iter(meant.values())) if len(meant) == 1 else None
        names.setdefault(genus, own or replace(plants[plain(listed[0])], name=genus))
    return names


def _phrases(words: list[str]) -> Iterator[str]:
    """Every run of words, the longest first."""
    for size in range(len(words), 0, -1):
        for start in range(len(words) - size + 1):
            yield " ".join(words[start : start + size])


def understand(words: str, catalogue: Catalogue) -> Understood:
    """Which plant is meant by what somebody typed: its name, a known name inside the phrase, how it grows, or what is like it."""
    names = _names(catalogue)
    wanted = plain(words)
    if wanted in names:
        return Understood(words, names[wanted], True)
    parts = wanted.split()
    inside = next((names[phrase] for phrase in _phrases(parts) if phrase in names and phrase not in ASIDE), None)
    if inside:
        return Understood(words, inside, True)
    begun = catalogue.crops_like(wanted) if len(wanted) >= LEAST_LETTERS else []
    if len(begun) == 1:
        return Understood(words, names[plain(begun[0].name)], True)
    left = " ".join(part for part in parts if part not in ASIDE and part not in BY_WORD)
    close = difflib.get_close_matches(left or wanted, names, n=8, cutoff=CLOSE) if len(left) >= LEAST_LETTERS else []
    suggestions = tuple(dict.fromkeys(names[name].name for name in close))[:MOST_SUGGESTED]
    if close:
        return Understood(words, names[close[0]], False, suggestions)
    habit = next((BY_WORD[part] for part in parts if part in BY_WORD), "")
    return Understood(words, Plant(words.strip(), habit=habit) if habit in HABITS else None, False)


def crop_meant(words: str, catalogue: Catalogue) -> str:
    """The crop that is meant: its id where the words are a name of it, else the words as they were typed."""
    meant = understand(words, catalogue)
    return meant.plant.crop if meant.sure and meant.plant and meant.plant.crop else words.strip()
