"""The how it runs screen."""
