"""No cell of a file that we write is run by the spreadsheet that opens it."""

import csv
import io
import unittest

from hypothesis import given
from hypothesis import strategies as st

from bootmark.formats.csv_cells import as_text

STARTS = "=+-@\t\r\n＝＋－＠"


class Cells(unittest.TestCase):
    def test_what_would_be_run_is_text(self) -> None:
        """Starts that run: OWASP, "CSV Injection", as its list stood in 2025; wide forms by common practice, no source."""
        for start in STARTS:
            for cell in (f"{start}1+1", f" {start}cmd", f'{start}HYPERLINK("x")'):
                self.assertEqual(as_text([cell]), [f"'{cell}"])

    def test_numbers_and_words_stay_as_they_are(self) -> None:
        for cell in ("-4.5", "-4,5", "+3", "1e3", "12", "leaf - underside", "a=b", ""):
            self.assertEqual(as_text([cell]), [cell])
        self.assertEqual(as_text([7, None]), ["7", ""])

    @given(st.lists(st.text(st.characters(exclude_categories=("Cs",), exclude_characters="\0")), min_size=1))
    def test_whatever_is_written_is_read_back_and_begins_with_no_sign_but_a_number_s(self, cells: list[str]) -> None:
        out = io.StringIO(newline="")
        csv.writer(out).writerow(as_text(cells))
        (row,) = list(csv.reader(io.StringIO(out.getvalue(), newline=""))) or [[""]]
        for cell, back in zip(cells, row, strict=False):
            self.assertIn(back, (cell, f"'{cell}"))
            if back.lstrip(" ")[:1] in STARTS and back.strip(" "):
                float(back.replace(",", "."))
