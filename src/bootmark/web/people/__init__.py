"""The people screen."""
