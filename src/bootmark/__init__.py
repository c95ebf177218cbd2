"""Bootmark: scouting plants for insect and mite pests."""

__version__ = "0.1.0"
