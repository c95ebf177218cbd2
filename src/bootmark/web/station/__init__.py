"""The station screen."""
