"""Checks of the main job against published sources and other libraries."""
