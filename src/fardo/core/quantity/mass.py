"""A mass as a whole number of nanograms.

1 lb = 0.45359237 kg exactly (international yard and pound agreement, 1959), hence 1 oz = 28,349,523,125 ng.
"""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal
from fractions import Fraction

from fardo.core.quantity.length import Rounding

NG_PER_GRAM = 1_000_000_000
NG_PER_OUNCE = 28_349_523_125
NG_PER_POUND = 16 * NG_PER_OUNCE


@dataclass(frozen=True, order=True, slots=True)
class Mass:
    """A mass; adds, compares and multiplies by whole numbers exactly.

    Args:
        ng: whole nanograms.
    """

    ng: int

    @classmethod
    def of_grams(cls, value: int | float | Decimal | Fraction | str) -> Mass:
        """From grams. A float stands for its shortest decimal form; finer than 1 ng goes to the nearest."""
        exact = Fraction(repr(value)) if isinstance(value, float) else Fraction(value)
        return cls(round(exact * NG_PER_GRAM))

    @classmethod
    def of_pounds(cls, value: int | Fraction) -> Mass:
        """From pounds; a fraction of a pound goes up to the next nanogram, as what is billed never shrinks."""
        return cls(-(-Fraction(value) * NG_PER_POUND // 1))

    @property
    def grams(self) -> float:
        return self.ng / NG_PER_GRAM

    @property
    def pounds(self) -> Fraction:
        return Fraction(self.ng, NG_PER_POUND)

    def __add__(self, other: Mass) -> Mass:
        return Mass(self.ng + other.ng)

    def __mul__(self, times: int) -> Mass:
        return Mass(self.ng * times)

    __rmul__ = __mul__

    def to_step(self, step: Mass, rounding: Rounding) -> Mass:
        """The multiple of `step` at or beside it."""
        whole, over = divmod(self.ng, step.ng)
        if over and (rounding == "up" or (rounding == "nearest" and 2 * over >= step.ng)):
            whole += 1
        return Mass(whole * step.ng)


OUNCE = Mass(NG_PER_OUNCE)
POUND = Mass(NG_PER_POUND)
