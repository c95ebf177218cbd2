"""Who may do what on a farm."""

from enum import StrEnum


class Role(StrEnum):
    """What somebody is on a farm."""

    OWNER = "owner"
    ADVISER = "adviser"
    SCOUT = "scout"
    APPLICATOR = "applicator"
    VIEWER = "viewer"


SCOUTS = frozenset({Role.OWNER, Role.ADVISER, Role.SCOUT, Role.APPLICATOR})
"""Who walks and writes down what was seen."""
KEEPERS = frozenset({Role.OWNER, Role.ADVISER})
"""Who keeps the farm's places and stations."""
DESK = frozenset({Role.OWNER, Role.ADVISER, Role.SCOUT})
"""Who answers enquiries."""
SIGNERS = frozenset({Role.OWNER, Role.APPLICATOR})
"""Who signs for a treatment."""
