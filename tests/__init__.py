"""Tests, laid out as src is."""
