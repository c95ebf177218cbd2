"""Photographs that measure: arrays in, shares and counts out, or why nothing can be told. numpy and scipy only."""
