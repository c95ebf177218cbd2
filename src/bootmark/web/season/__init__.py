"""One agent on one block through its season."""
