"""Every colour of the interface that a drawing uses, in paper mode and in sun mode: the one place. A test holds the style sheet to it.

A drawing that stands by itself, as a picture of a sign, has the colours of paper mode. A chart inside a page follows the page: its colours
are the style sheet's variables.
"""

from types import SimpleNamespace

PAPER_MODE = {
    "paper": "#f7f3ea",
    "page": "#fffdf7",
    "ink": "#22282b",
    "boot": "#7a3e1d",
    "slate": "#44586b",
    "moss": "#4e6b3a",
    "ochre": "#8a5a0a",
    "rust": "#9b2d1f",
    "grey": "#5a5d57",
    "rule": "#cfc6b2",
    "egg": "#e0c064",
    "larva": "#c8693a",
    "nymph": "#c8693a",
    "pupa": "#8b5a8b",
    "adult": "#235f68",
    "egg_line": "#6d5310",
    "larva_line": "#98451d",
    "pupa_line": "#5c345c",
    "suits": "#b9c9a3",
    "careful": "#ecd9a8",
    "refused": "#e9e3d6",
}
SUN_MODE = {
    "paper": "#ffffff",
    "page": "#ffffff",
    "ink": "#000000",
    "boot": "#5c2a0f",
    "slate": "#2c3d4d",
    "moss": "#35501f",
    "ochre": "#6b4300",
    "rust": "#7d1a0e",
    "grey": "#333333",
    "rule": "#000000",
    "egg": "#e8b800",
    "larva": "#b34700",
    "nymph": "#b34700",
    "pupa": "#6a2f6a",
    "adult": "#0f3f47",
    "egg_line": "#000000",
    "larva_line": "#3d1800",
    "pupa_line": "#1d001d",
    "suits": "#8fb36a",
    "careful": "#f2c94c",
    "refused": "#ffffff",
}


def variable(name: str) -> str:
    """The style sheet's name of a colour."""
    return f"--color-{name.replace('_', '-')}"


plain = SimpleNamespace(**PAPER_MODE)
"""For a drawing by itself."""
themed = SimpleNamespace(**{name: f"var({variable(name)})" for name in PAPER_MODE})
"""For a chart inside a page."""
