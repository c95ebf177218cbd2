"""Photographs as the phone sends them, and as they are shown."""
