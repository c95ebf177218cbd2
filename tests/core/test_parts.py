"""Ground that is cut, joined and cut again: laws of its history, held against single spots that remember everything themselves."""

import datetime as dt
import unittest

from hypothesis import given
from hypothesis import strategies as st
from shapely import Polygon

from bootmark.core.ground import parts, plane, strips
from bootmark.core.ground.parts import Divided, PartsFault
from bootmark.core.ground.plane import Origin
from bootmark.core.ground.strips import Span, Strip

HERE = Origin(46.2, 7.1)
FIRST = dt.date(2026, 3, 1)
turns = st.lists(st.tuples(st.sampled_from(("cut", "join", "spray")), st.integers(0, 7), st.integers(0, 7)), max_size=24)


def drawn(*points: tuple[float, float]) -> list[list[float]]:
    return [list(corner) for corner in HERE.to_degrees(points)]


def square(x: float, y: float, wide: float = 100, high: float = 100) -> list[list[float]]:
    return drawn((x, y), (x + wide, y), (x + wide, y + high), (x, y + high))


class History(unittest.TestCase):
    @given(turns)
    def test_no_ground_loses_a_spray_and_none_gains_any_while_no_joined_block_is_cut(self, moves: list[tuple[str, int, int]]) -> None:
        # Eight spots of ground, each of which remembers its own sprays; the blocks know only their strips. A strip has no shape: a piece of
        # two blocks that were joined may be of either, and has what was done to the worse of them.
        blocks: dict[str, tuple[Strip, ...]] = {"a": strips.of_block("a"), "b": strips.of_block("b")}
        spots: dict[str, list[int]] = {"a": [0, 1, 2, 3], "b": [4, 5, 6, 7]}
        times, done, day, mixed = [0] * 8, [], FIRST, set()
        for number, (what, which, other) in enumerate(moves):
            day += dt.timedelta(days=1)
            here = sorted(blocks)[which % len(blocks)]
            there = sorted(blocks)[other % len(blocks)]
            if what == "spray":
                done.append((here, day))
                for spot in spots[here]:
                    times[spot] += 1
            elif what == "cut" and len(spots[here]) > 1:
                piece = f"p{number}"
                blocks[piece], spots[piece] = strips.cut(piece, blocks[here], day), [spots[here].pop()]
                mixed |= {here, piece} if len(blocks[here]) > 1 else set()
            elif what == "join" and here != there:
                blocks[here] = strips.joined(here, blocks[here], blocks.pop(there), day)
                spots[here] += spots.pop(there)
                mixed |= {here} if there in mixed else set()
        for block, own in blocks.items():
            counted = strips.most(own, lambda span: sum(where == span.block and span.holds(on) for where, on in done))
            truth = max(times[spot] for spot in spots[block])
            self.assertGreaterEqual(counted, truth, (block, own, done))
            self.assertTrue(counted == truth or block in mixed, (block, own, done))

    def test_what_is_done_on_the_day_of_the_cut_counts_for_both(self) -> None:
        [strip] = strips.cut("piece", strips.of_block("whole"), FIRST)
        self.assertEqual(strip, (Span("whole", None, FIRST), Span("piece", FIRST, None)))
        self.assertTrue(strip[0].holds(FIRST) and strip[1].holds(FIRST))
        self.assertFalse(strip[0].holds(FIRST + dt.timedelta(days=1)))


class Outlines(unittest.TestCase):
    @given(st.floats(5, 95), st.floats(5, 95))
    def test_a_cut_loses_no_ground_and_the_smaller_part_is_the_piece(self, west: float, east: float) -> None:
        block = square(0, 0)
        cut = parts.divide(block, drawn((west, 4), (east, 96)))
        assert isinstance(cut, Divided)
        piece, rest = plane.area(cut.piece), plane.area(cut.rest)
        self.assertAlmostEqual(piece + rest, plane.area(block), places=4)
        # Halves may differ by the ellipsoid's hundredth of a square metre.
        self.assertLessEqual(piece, rest + 1e-6)
        self.assertAlmostEqual(cut.share, piece / (piece + rest), places=4)

    @given(st.floats(-3.9, 3.9))
    def test_what_was_cut_is_joined_again_and_a_narrow_gap_is_closed(self, gap: float) -> None:
        joined = parts.join(square(0, 0), square(100 + gap, 0))
        assert not isinstance(joined, PartsFault)
        whole = Polygon(HERE.to_plan(joined))
        self.assertTrue(whole.buffer(0.01).covers(Polygon(HERE.to_plan(square(0, 0)))))
        self.assertAlmostEqual(whole.area, 100 * (200 + gap), delta=1)

    def test_what_can_t_be_cut_or_joined_says_why(self) -> None:
        comb = drawn((0, 0), (90, 0), (90, 60), (60, 60), (60, 20), (30, 20), (30, 60), (0, 60))
        for outline, line, fault in (
            (square(0, 0), drawn((200, 200), (300, 200)), PartsFault.MISSES),
            (square(0, 0), drawn((50, 40), (50, 40)), PartsFault.MISSES),
            (square(0, 0), drawn((0, 99.95), (100, 99.95)), PartsFault.MISSES),
            (comb, drawn((-5, 50), (95, 50)), PartsFault.PIECES),
        ):
            self.assertEqual(parts.divide(outline, line), fault)
        self.assertEqual(parts.join(square(0, 0), square(106, 0)), PartsFault.APART)
        horseshoe = drawn((0, 0), (90, 0), (90, 90), (60, 90), (60, 30), (30, 30), (30, 90), (0, 90))
        self.assertEqual(parts.join(horseshoe, square(0, 80, 90, 30)), PartsFault.HOLE)
