"""Bootmark: scouting plants for insect and mite pests."""

VERSION = "0.12.0"
