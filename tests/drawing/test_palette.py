"""One file of colours: the style sheet and the charts say the same, in paper mode and in sun mode."""

import re
import unittest
from pathlib import Path

from bootmark.drawing import strokes, svg
from bootmark.drawing.palette import PAPER_MODE, SUN_MODE, plain, themed, variable

SRC = Path(__file__).resolve().parents[2] / "src" / "bootmark"
SHEET = (SRC / "web" / "static" / "app.css").read_text()


def whole(colour: str) -> str:
    """A colour in six digits."""
    return "#" + "".join(letter * 2 for letter in colour[1:]) if len(colour) == 4 else colour


def told(block: str) -> dict[str, str]:
    return {name: whole(value.lower()) for name, value in re.findall(r"(--color-[\w-]+):\s*(#[0-9a-fA-F]{3,6})", block)}


def luminance(colour: str) -> float:
    """Relative luminance. Source: WCAG 2.2, definition of relative luminance."""
    parts = [int(colour[place : place + 2], 16) / 255 for place in (1, 3, 5)]
    red, green, blue = (part / 12.92 if part <= 0.04045 else ((part + 0.055) / 1.055) ** 2.4 for part in parts)
    return 0.2126 * red + 0.7152 * green + 0.0722 * blue


def contrast(ink: str, two: str) -> float:
    """Contrast ratio. Source: WCAG 2.2, definition of contrast ratio."""
    high, low = sorted((luminance(ink), luminance(two)), reverse=True)
    return (high + 0.05) / (low + 0.05)


class Palette(unittest.TestCase):
    def test_the_style_sheet_says_the_same(self) -> None:
        sun = re.search(r"html\.sun\s*\{([^}]*)\}", SHEET)
        assert sun
        paper, sunny = told(SHEET.replace(sun.group(0), "")), told(sun.group(1))
        for name in PAPER_MODE:
            self.assertEqual(paper.get(variable(name)), PAPER_MODE[name], name)
            self.assertEqual(sunny.get(variable(name)), SUN_MODE[name], name)
        self.assertEqual(set(PAPER_MODE), set(SUN_MODE))

    def test_each_stage_has_its_own_colour_by_its_own_name(self) -> None:
        for stage, colour in strokes.COLOURS.items():
            self.assertEqual(colour, f"var(--color-{stage})")
        self.assertEqual((plain.larva, themed.larva_line), (PAPER_MODE["larva"], "var(--color-larva-line)"))
        for mode in (PAPER_MODE, SUN_MODE):
            self.assertEqual(len({mode[stage] for stage in ("egg", "larva", "pupa", "adult")}), 4)

    def test_what_is_read_and_what_parts_things_can_be_told_in_full_sun(self) -> None:
        for name in ("ink", "boot", "slate", "moss", "ochre", "rust", "grey"):
            self.assertGreaterEqual(contrast(PAPER_MODE[name], PAPER_MODE["paper"]), 4.5, name)
            self.assertGreaterEqual(contrast(SUN_MODE[name], SUN_MODE["paper"]), 7, name)
        for name in ("larva", "pupa", "adult"):
            self.assertGreaterEqual(contrast(SUN_MODE[name], SUN_MODE["paper"]), 3, name)


class Words(unittest.TestCase):
    def test_words_in_a_drawing_are_never_markup_and_go_in_by_one_way(self) -> None:
        drawn = svg.text('<b onload="a()">\'&', 3, 4.5, size=14, anchor="end", weight="700", fill=themed.ink, halo=themed.paper)
        self.assertIn("&lt;b onload=&quot;a()&quot;&gt;&#x27;&amp;</text>", drawn)
        self.assertIn('x="3" y="4.5" text-anchor="end" font-size="14" font-weight="700" paint-order="stroke"', drawn)
        self.assertEqual(svg.text(7, 0, 0), '<text x="0" y="0">7</text>')
        others = [path for path in SRC.rglob("*.py") if "<text" in path.read_text()]
        self.assertEqual([path.relative_to(SRC).as_posix() for path in others], ["drawing/svg.py"])
