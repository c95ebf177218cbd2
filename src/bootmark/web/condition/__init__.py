"""Stalks, fruit and leaves: what the stand itself shows."""
