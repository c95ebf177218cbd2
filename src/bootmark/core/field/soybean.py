"""Soybean stages by the counting rules: nodes, the top four, and the day on which a node is to be expected. Standard library only."""

import datetime as dt
import math
from collections.abc import Sequence
from dataclasses import dataclass

from bootmark.core import judgement

PUBLISHED, FROM_SCARS = "unifoliate", "cotyledon"
"""Where counting begins: the unifoliate leaves are node one (Fehr and Caviness 1977), or the cotyledon scars are (common practice)."""
COUNTS = (PUBLISHED, FROM_SCARS)
POD_R3_MM, POD_R4_MM = 5.0, 20.0
TOP_NODES = 4


def vegetative(nodes_with_unrolled_leaf_above: int, counted: str = PUBLISHED) -> str:
    """The vegetative stage: VE, VC, V1, V2 ...

    nodes_with_unrolled_leaf_above: main-stem nodes whose next leaf above has unrolled so far that its edges no longer touch,
    the unifoliate node being the first; 0 where only the cotyledons are out. counted: how the answer is told: COUNTS. Raises
    ValueError for an unknown way or fewer than no nodes. Source: Fehr and Caviness (1977), "Stages of soybean development",
    special report 80; from the scars the same node is one more.
    """
    if counted not in COUNTS:
        raise ValueError(f"nodes are counted from the {' or the '.join(COUNTS)}, not {counted!r}")
    if nodes_with_unrolled_leaf_above < 0:
        raise ValueError("a plant can't have fewer than no nodes")
    if nodes_with_unrolled_leaf_above == 0:
        return "VC" if counted == PUBLISHED else "V1"
    return f"V{nodes_with_unrolled_leaf_above + (counted == FROM_SCARS)}"


def convert(node: int, counted: str, wanted: str) -> int:
    """A node's number in the other way of counting; they differ by one."""
    if counted not in COUNTS or wanted not in COUNTS:
        raise ValueError(f"nodes are counted from the {' or the '.join(COUNTS)}")
    return node + (wanted == FROM_SCARS) - (counted == FROM_SCARS)


@dataclass(frozen=True)
class TopNode:
    """One of the four uppermost nodes with an unrolled leaf above.

    pod_mm: its longest pod; seed_mm: the longest seed felt in it, None where none is felt; full: a pod whose green seed fills
    it; flower: an open flower there.
    """

    flower: bool = False
    pod_mm: float = 0.0
    seed_mm: float | None = None
    full: bool = False


def reproductive(top: Sequence[TopNode], flower_anywhere: bool, *, ripe_pods: float = 0.0) -> str:
    """The reproductive stage, R1 to R8, or "" before the first flower.

    top: the four uppermost nodes, the highest first; fewer are taken as they are; flower_anywhere: an open flower at any node;
    ripe_pods: share of all pods at their ripe colour, 0 to 1. Source: Fehr and Caviness (1977): R3 a pod of 5 mm (3/16 inch),
    R4 of 2 cm (3/4 inch), R5 a seed of 3 mm, R6 a full pod, each at one of the four uppermost nodes; R7 one ripe pod, R8 95
    per cent of them. A new node on top can move a plant back.
    """
    if not 0 <= ripe_pods <= 1:
        raise ValueError("the share of ripe pods lies between 0 and 1")
    four = list(top)[:TOP_NODES]
    if ripe_pods >= 0.95:
        return "R8"
    if ripe_pods > 0:
        return "R7"
    if any(node.full for node in four):
        return "R6"
    if any((node.seed_mm or 0.0) >= 3.0 for node in four):
        return "R5"
    longest = max((node.pod_mm for node in four), default=0.0)
    if longest >= POD_R4_MM:
        return "R4"
    if longest >= POD_R3_MM:
        return "R3"
    # Full flower: at one of the two uppermost nodes.
    if any(node.flower for node in four[:2]):
        return "R2"
    return "R1" if flower_anywhere or any(node.flower for node in four) else ""


@dataclass(frozen=True)
class NodeDate:
    """Days by which a node is to be expected: at the earliest, most likely, at the latest; pace: days a node that it rests on."""

    earliest: dt.date
    likely: dt.date
    latest: dt.date
    pace: float


def node_date(noted: Sequence[tuple[dt.date, int]], node: int) -> NodeDate:
    """The day on which a node is to be expected.

    noted: days and the top node counted then, in one way of counting; node: in the same. From two counts or more, the plant's
    own pace, kept within three to five days a node; from one, four days. Raises ValueError without a count, or where the node
    is there already. Source: three to five days a node is common practice.
    """
    if not noted:
        raise ValueError("count the nodes once before a date is foretold")
    ordered = sorted(noted)
    last_day, last = ordered[-1]
    if node <= last:
        raise ValueError(f"node {node} is there already: {last} were counted on {last_day:%-d %B}")
    fewest, usual, most = judgement.DAYS_A_NODE
    gained, days = last - ordered[0][1], (last_day - ordered[0][0]).days
    pace = min(max(days / gained, fewest), most) if gained > 0 and days > 0 else usual
    ahead = node - last

    def after(days_a_node: float) -> dt.date:
        return last_day + dt.timedelta(days=math.ceil(days_a_node * ahead - 1e-9))

    return NodeDate(after(fewest), after(pace), after(most), pace)
