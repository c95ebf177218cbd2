"""The farm screen."""
