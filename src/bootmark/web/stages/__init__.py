"""The stages screen."""
