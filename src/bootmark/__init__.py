"""Bootmark: scouting plants for insect and mite pests."""
