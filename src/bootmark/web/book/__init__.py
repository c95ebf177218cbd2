"""The book screen."""
