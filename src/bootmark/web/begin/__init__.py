"""The begin screen."""
