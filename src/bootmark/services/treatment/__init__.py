"""Calls, the treatments that they plan, and the hours that suit them."""
