"""The do screen."""
