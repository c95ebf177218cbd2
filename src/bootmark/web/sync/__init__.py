"""The sync screen."""
