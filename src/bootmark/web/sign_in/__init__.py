"""The sign in screen."""
