"""A length as a whole number of nanometres, so that a sixteenth and a millimetre are both exact.

1 in = 25.4 mm exactly (international yard and pound agreement, 1959), hence 1/64 in = 396,875 nm.
"""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal
from fractions import Fraction
from typing import Literal

Rounding = Literal["up", "down", "nearest"]

NM_PER_MM = 1_000_000
NM_PER_INCH = 25_400_000


@dataclass(frozen=True, order=True, slots=True)
class Length:
    """A length; adds, compares and multiplies by whole numbers without ever losing anything.

    Args:
        nm: whole nanometres.

    >>> Length.of_inches("10 1/2".replace(" 1/2", ".5")) == Length.of_mm(Decimal("266.7"))
    True
    """

    nm: int

    @classmethod
    def of_mm(cls, value: int | float | Decimal | Fraction | str) -> Length:
        """From millimetres. A float stands for its shortest decimal form; finer than 1 nm goes to the nearest."""
        return cls(_nearest(_fraction(value) * NM_PER_MM))

    @classmethod
    def of_inches(cls, value: int | float | Decimal | Fraction | str) -> Length:
        """From inches, in the same manner as `of_mm`."""
        return cls(_nearest(_fraction(value) * NM_PER_INCH))

    @property
    def mm(self) -> float:
        """Millimetres as a JSON number; up to 10 m it reads back to the same nanometre."""
        return self.nm / NM_PER_MM

    @property
    def inches(self) -> Fraction:
        return Fraction(self.nm, NM_PER_INCH)

    def __add__(self, other: Length) -> Length:
        return Length(self.nm + other.nm)

    def __sub__(self, other: Length) -> Length:
        return Length(self.nm - other.nm)

    def __mul__(self, times: int) -> Length:
        return Length(self.nm * times)

    __rmul__ = __mul__

    def __neg__(self) -> Length:
        return Length(-self.nm)

    def __abs__(self) -> Length:
        return Length(abs(self.nm))

    def __bool__(self) -> bool:
        return self.nm != 0

    def half(self) -> Length:
        """Half of it; an odd nanometre goes up, so that two halves always hold the whole."""
        return Length(-(-self.nm // 2))

    @property
    def whole_feet(self) -> int | None:
        """How many feet it is; None where it is not whole feet."""
        feet, over = divmod(self.nm, 12 * NM_PER_INCH)
        return None if over else feet

    def to_step(self, step: Length, rounding: Rounding) -> Length:
        """The multiple of `step` at or beside it. A size that must hold goes up, one that must fit through down.

        >>> Length.of_inches("10.03").to_step(SIXTEENTH, "up") == Length.of_inches("10.0625")
        True
        """
        whole, over = divmod(self.nm, step.nm)
        if over and (rounding == "up" or (rounding == "nearest" and 2 * over >= step.nm)):
            whole += 1
        return Length(whole * step.nm)


def _fraction(value: int | float | Decimal | Fraction | str) -> Fraction:
    # A float that came over the wire means the decimal it was written as, not its binary neighbour.
    return Fraction(repr(value)) if isinstance(value, float) else Fraction(value)


def _nearest(value: Fraction) -> int:
    return round(value)


ZERO = Length(0)
MM = Length(NM_PER_MM)
INCH = Length(NM_PER_INCH)
SIXTEENTH = Length(NM_PER_INCH // 16)
SIXTY_FOURTH = Length(NM_PER_INCH // 64)
