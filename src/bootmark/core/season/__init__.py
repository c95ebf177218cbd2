"""Computation over days and hours (numpy, scipy)."""
