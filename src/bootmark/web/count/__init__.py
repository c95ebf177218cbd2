"""The count screen."""
