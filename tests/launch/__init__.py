"""Tests of launch."""
