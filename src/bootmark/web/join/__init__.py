"""The join screen."""
