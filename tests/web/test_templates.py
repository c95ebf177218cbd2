"""Templates can be read without scrolling sideways, and hold nothing that the policy forbids."""

import re
import unittest
from pathlib import Path

WEB = Path(__file__).resolve().parents[2] / "src" / "bootmark" / "web"
TEMPLATES = sorted(WEB.rglob("*.html"))
LONGEST = 140
APART = {"look.record", "call", "done"}
"""Kinds of commands and of entries in the book: names of their own, which nothing else has."""


class Templates(unittest.TestCase):
    def test_no_line_is_longer_than_one_can_read(self) -> None:
        self.assertGreater(len(TEMPLATES), 30)
        long = [
            f"{path.name}:{number}"
            for path in TEMPLATES
            for number, line in enumerate(path.read_text().splitlines(), 1)
            if len(line) > LONGEST
        ]
        self.assertEqual(long, [])

    def test_none_holds_a_script_a_style_or_an_act_of_its_own(self) -> None:
        for path in TEMPLATES:
            text = path.read_text()
            self.assertIsNone(
                re.search(
                    r"\sstyle=|\son(?:click|load|error|submit|input|change|toggle|focus|blur|key\w*|mouse\w*|pointer\w*)=|javascript:", text
                ),
                path.name,
            )
            for kind in re.findall(r"<script([^>]*)>", text):
                self.assertRegex(kind, r'src=|type="application/json"', path.name)

    def test_every_colour_is_one_of_the_palette_by_its_name(self) -> None:
        for path in TEMPLATES:
            self.assertNotRegex(path.read_text(), r"#[0-9a-fA-F]{6}\b", path.name)

    def test_what_means_something_is_compared_with_its_member_never_with_a_word(self) -> None:
        for path in TEMPLATES:
            compared = re.findall(
                r"\.(?:kind|state|role|verdict|activity|measure|what) *(?:==|!=|in) *\(?[\"\']([\w .-]+)", path.read_text()
            )
            self.assertEqual([word for word in compared if word not in APART], [], path.name)

    def test_no_text_is_let_through_unescaped(self) -> None:
        for path in TEMPLATES:
            self.assertNotRegex(path.read_text(), r"\|\s*safe\b|autoescape false", path.name)
