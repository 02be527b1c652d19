"""Fardo: boxes, blanks and prices for a shop that ships bulky and odd-shaped goods."""

__version__ = "0.1.0"
