"""The call screen."""
