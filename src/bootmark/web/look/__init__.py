"""The look screen."""
