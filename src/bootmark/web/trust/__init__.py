"""The trust screen."""
