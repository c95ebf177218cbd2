"""The clock screen."""
