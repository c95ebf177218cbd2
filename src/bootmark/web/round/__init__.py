"""The round screen."""
