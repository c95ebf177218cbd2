"""Bootmark's own drawings: everything botanical follows from parameters and a seed."""

from bootmark.drawing.signs import DRAWN, sign_svg

__all__ = ["DRAWN", "sign_svg"]
