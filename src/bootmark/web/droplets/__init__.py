"""Cards that a treatment wetted: how much is covered, and how evenly."""
