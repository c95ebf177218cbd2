"""Where stations send their readings."""
