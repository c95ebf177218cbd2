"""The settings screen."""
