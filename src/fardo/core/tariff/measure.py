"""Billed weight: the greater of actual and dimensional weight, each rounded as the tariff says.

Dimensional weight = length x width x height / divisor. Divisors met: 139, 166, 194 in3/lb; 4000, 5000, 6000 cm3/kg
(Domestic Mail Manual for 166 and the one-cubic-foot threshold, IATA for 6000 cm3/kg; all from memory). How a side is
rounded, and whether small parcels are spared, differs between carriers: both are told by the tariff, none is assumed.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from fractions import Fraction
from functools import lru_cache
from typing import Literal

from fardo.core.quantity import INCH, OUNCE, POUND, Length, Mass, cubic_cm, cubic_inches, volume_nm3
from fardo.core.tariff.parcel import Parcel

SideRounding = Literal["exact", "up", "down", "nearest-half-up", "nearest-half-down"]
DivisorUnit = Literal["in3/lb", "cm3/kg"]

_CM = Length(10_000_000)


@lru_cache(maxsize=2)
def _per_nm3(unit: DivisorUnit) -> Fraction:
    """Nanograms that a cubic nanometre would weigh at a divisor of 1."""
    return cubic_inches(1) * POUND.ng if unit == "in3/lb" else cubic_cm(1) * 10**12


@dataclass(frozen=True, slots=True)
class Dimensional:
    """A tariff's rule for dimensional weight.

    Args:
        divisor, unit: 166 in3/lb, say.
        sides: how each side is rounded to a whole inch or centimetre (the unit's own) before multiplying.
        threshold: in in3 or cm3; a parcel whose volume, sides as measured, is not over it is spared. None spares none.
        step: sides are rounded to it, the whole unit unless said (a quarter inch).
        shape_factor: what counts of the volume of a parcel that is not rectangular (0.785 in the Domestic Mail
            Manual, from memory).
    """

    divisor: Fraction
    unit: DivisorUnit
    sides: SideRounding
    threshold: Fraction | None = None
    step: Length | None = None
    shape_factor: Fraction = Fraction(1)
    spares_nm3: int = field(init=False, repr=False, compare=False)
    _ng_per_nm3: tuple[int, int] = field(init=False, repr=False, compare=False)

    def __post_init__(self) -> None:
        # Asked for by the thousand: what does not hang on the parcel is worked out once, in whole numbers.
        per_nm3 = _per_nm3(self.unit) / self.divisor
        object.__setattr__(self, "_ng_per_nm3", (per_nm3.numerator, per_nm3.denominator))
        spares = -1 if self.threshold is None else (self.threshold / self.volume(1)).__floor__()
        object.__setattr__(self, "spares_nm3", spares)

    @property
    def side_unit(self) -> Length:
        return INCH if self.unit == "in3/lb" else _CM

    def rounded(self, sides: tuple[Length, Length, Length]) -> tuple[Length, Length, Length]:
        unit = self.step or self.side_unit
        a, b, c = sides
        return round_side(a, unit, self.sides), round_side(b, unit, self.sides), round_side(c, unit, self.sides)

    def spares(self, nm3: int) -> bool:
        """Whether a volume, sides as measured, does not count: it is not over the threshold."""
        return nm3 <= self.spares_nm3

    def weighs(self, nm3: int, shape_factor: Fraction) -> Mass:
        """What that share of a volume counts as, a begun nanogram with it."""
        ng, per = self._ng_per_nm3
        return Mass(-(-nm3 * ng * shape_factor.numerator // (per * shape_factor.denominator)))

    def shape_factor_of(self, parcel: Parcel) -> Fraction:
        """Of the volume."""
        return self.shape_factor if parcel.form == "not rectangular" else Fraction(1)

    def volume(self, nm3: int) -> Fraction:
        return cubic_inches(nm3) if self.unit == "in3/lb" else cubic_cm(nm3)


@dataclass(frozen=True, slots=True)
class Bulky:
    """Length and girth over `girth_over` up to `girth_to`, weighing under `under`: billed as `billed` at least.

    The bulky-light rule of the Domestic Mail Manual: over 84 to 108 in and under 20 lb, billed as 20 lb (from memory).
    """

    girth_over: Length
    girth_to: Length
    under: Mass
    billed: Mass

    def applies(self, parcel: Parcel) -> bool:
        around = parcel.length + parcel.girth
        return self.girth_over < around <= self.girth_to and parcel.weight < self.under


@dataclass(frozen=True, slots=True)
class WeightRule:
    """Weights are billed in whole steps, upwards: one pound, half a kilo.

    Args:
        bulky: parcels that are large and light are billed as so much at least.
    """

    step: Mass
    bulky: Bulky | None = None


@dataclass(frozen=True, slots=True)
class Billing:
    """The billed weight and how it came about.

    Args:
        actual: as weighed.
        dimensional: before rounding to the step, or None where the rule does not apply.
        billed: rounded up.
        why: a sentence.
        by_weight: what would be billed if size did not count.
    """

    actual: Mass
    dimensional: Mass | None
    billed: Mass
    why: str
    by_weight: Mass

    @property
    def weight_share(self) -> float:
        """Actual weight as a share of the billed."""
        return self.actual.ng / self.billed.ng

    @property
    def size_share(self) -> float:
        """What is billed for the size alone, as a share of all."""
        return max(self.billed.ng - self.by_weight.ng, 0) / self.billed.ng

    @property
    def rounding_share(self) -> float:
        """What the step adds to the weight, as a share of all."""
        return max(1 - self.weight_share - self.size_share, 0.0)


def round_side(side: Length, unit: Length, rounding: SideRounding) -> Length:
    """A side in whole units; a side that is whole already stays as it is in every rounding.

    >>> [round_side(Length.of_inches("12.5"), INCH, r).inches for r in ("nearest-half-up", "nearest-half-down")]
    [Fraction(13, 1), Fraction(12, 1)]
    """
    if rounding == "exact":
        return side
    whole, over = divmod(side.nm, unit.nm)
    if rounding == "up":
        goes_up = over > 0
    elif rounding == "nearest-half-up":
        goes_up = 2 * over >= unit.nm
    else:
        goes_up = rounding == "nearest-half-down" and 2 * over > unit.nm
    return Length((whole + goes_up) * unit.nm)


def dimensional_weight(parcel: Parcel, rule: Dimensional) -> Mass | None:
    """Before rounding to a weight step; None where the volume is not over the threshold."""
    if rule.spares(parcel.volume_nm3):
        return None
    return rule.weighs(volume_nm3(*rule.rounded(parcel.sides)), rule.shape_factor_of(parcel))


def bill_weight(parcel: Parcel, rule: Dimensional | None, weights: WeightRule) -> Billing:
    """What is charged for, and why."""
    actual = parcel.weight
    spared = ""
    dimensional = None
    if rule is not None:
        dimensional = dimensional_weight(parcel, rule)
        if dimensional is None:
            volume, unit = _number(rule.volume(parcel.volume_nm3)), rule.unit[:3]
            spared = f"; {volume} {unit} is not over {rule.threshold} {unit}, so size does not count"
    greater = actual if dimensional is None or dimensional <= actual else dimensional
    billed = greater.to_step(weights.step, "up")
    by = "actual weight" if greater is actual else f"dimensional weight, {_sum(parcel, rule)}"
    if weights.bulky is not None and billed < weights.bulky.billed and weights.bulky.applies(parcel):
        billed, by = weights.bulky.billed, "the least billed of what is large and light"
    why = f"{weigh(billed, weights)} billed: {by}{spared}"
    return Billing(actual, dimensional, billed, why, actual.to_step(weights.step, "up"))


def weigh(mass: Mass, weights: WeightRule) -> str:
    """A mass in the tariff's own words: pounds where it bills pounds, else kilos."""
    if weights.step.ng % OUNCE.ng == 0:
        return f"{_ratio(mass.ng, POUND.ng)} lb"
    return f"{_ratio(mass.ng, 10**12)} kg"


def _sum(parcel: Parcel, rule: Dimensional | None) -> str:
    assert rule is not None  # a size counts only under a rule
    shown = " x ".join(_ratio(side.nm, rule.side_unit.nm) for side in rule.rounded(parcel.sides))
    counts = rule.shape_factor_of(parcel)
    odd = "" if counts == 1 else f" x {float(counts):g} as it is not rectangular"
    return f"{shown}{odd} / {_number(rule.divisor)}"


def _ratio(of: int, to: int) -> str:
    """The same of two whole numbers: quotes are asked for by the thousand."""
    return str(of // to) if of % to == 0 else f"{of / to:.2f}"


def _number(value: Fraction) -> str:
    """Whole, or to two decimals: for reading only."""
    return _ratio(value.numerator, value.denominator)
