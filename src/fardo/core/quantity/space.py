"""Volumes, exact, in the two units carriers divide by."""

from __future__ import annotations

from fractions import Fraction

from fardo.core.quantity.length import NM_PER_INCH, NM_PER_MM, Length


def volume_nm3(length: Length, width: Length, height: Length) -> int:
    return length.nm * width.nm * height.nm


def cubic_inches(nm3: int) -> Fraction:
    """Cubic inches of a volume in cubic nanometres."""
    return Fraction(nm3, NM_PER_INCH**3)


def cubic_cm(nm3: int) -> Fraction:
    """Cubic centimetres of a volume in cubic nanometres."""
    return Fraction(nm3, (10 * NM_PER_MM) ** 3)
