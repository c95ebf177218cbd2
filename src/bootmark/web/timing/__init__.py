"""The timing screen."""
