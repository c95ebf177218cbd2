"""Drawings by address."""
