"""What stands on the plan and is no block, and how each is drawn: as a spot, a line or an outline."""

from bootmark.core.meanings import FeatureKind, Form

FORMS = {
    FeatureKind.GATE: Form.SPOT,
    FeatureKind.PATH: Form.LINE,
    FeatureKind.WATER: Form.RING,
    FeatureKind.HIVES: Form.SPOT,
    FeatureKind.HOUSE: Form.RING,
    FeatureKind.POWER: Form.LINE,
    FeatureKind.NEIGHBOUR: Form.RING,
    FeatureKind.IRRIGATION: Form.LINE,
    FeatureKind.PLANT: Form.SPOT,
    FeatureKind.INCOMING: Form.RING,
    FeatureKind.FENCE: Form.LINE,
    FeatureKind.STORE: Form.RING,
    FeatureKind.COMPOST: Form.SPOT,
}
LEAST_POINTS = {Form.SPOT: 1, Form.LINE: 2, Form.RING: 3}
TALL = frozenset({FeatureKind.POWER, FeatureKind.PLANT})
"""Kinds whose height matters to whoever sprays or climbs there."""
