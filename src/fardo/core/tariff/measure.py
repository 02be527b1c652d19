"""Billed weight: the greater of actual and dimensional weight, each rounded as the tariff says.

Dimensional weight = length x width x height / divisor. Divisors met: 139, 166, 194 in3/lb; 4000, 5000, 6000 cm3/kg
(Domestic Mail Manual for 166 and the one-cubic-foot threshold, IATA for 6000 cm3/kg; all from memory). How a side is
rounded, and whether small parcels are spared, differs between carriers: both are told by the tariff, none is assumed.
"""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from fardo.core.quantity import INCH, Length, Mass, cubic_cm, cubic_inches, volume_nm3
from fardo.core.tariff.parcel import Parcel

SideRounding = Literal["exact", "up", "down", "nearest-half-up", "nearest-half-down"]
DivisorUnit = Literal["in3/lb", "cm3/kg"]

_CM = Length(10_000_000)


@dataclass(frozen=True, slots=True)
class Dimensional:
    """A tariff's rule for dimensional weight.

    Args:
        divisor, unit: 166 in3/lb, say. sides: how each side is rounded to a whole inch or centimetre (the unit's own)
        before multiplying. threshold: in in3 or cm3; a parcel whose volume, sides as measured, is not over it is
        spared. None spares none. step: sides are rounded to it, the whole unit unless said (a quarter inch). odd: what
        counts of the volume of a parcel that is not rectangular (0.785 in the Domestic Mail Manual, from memory).
    """

    divisor: Fraction
    unit: DivisorUnit
    sides: SideRounding
    threshold: Fraction | None = None
    step: Length | None = None
    odd: Fraction = Fraction(1)

    @property
    def side_unit(self) -> Length:
        return INCH if self.unit == "in3/lb" else _CM

    def rounded(self, sides: tuple[Length, Length, Length]) -> tuple[Length, Length, Length]:
        a, b, c = (round_side(side, self.step or self.side_unit, self.sides) for side in sides)
        return a, b, c

    def counts(self, parcel: Parcel) -> Fraction:
        """Of the volume."""
        return self.odd if parcel.form == "not rectangular" else Fraction(1)

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
    """
    Args:
        actual: as weighed. dimensional: before rounding to the step, or None where the rule does not apply.
        billed: rounded up. why: a sentence.
    """

    actual: Mass
    dimensional: Mass | None
    billed: Mass
    why: str

    @property
    def weight_share(self) -> float:
        """Actual weight as a share of the billed."""
        return self.actual.ng / self.billed.ng


def round_side(side: Length, unit: Length, rounding: SideRounding) -> Length:
    """A side in whole units; a side that is whole already stays as it is in every rounding.

    >>> [round_side(Length.of_inches("12.5"), INCH, r).inches for r in ("nearest-half-up", "nearest-half-down")]
    [Fraction(13, 1), Fraction(12, 1)]
    """
    if rounding == "exact":
        return side
    whole, over = divmod(side.nm, unit.nm)
    goes_up = {
        "up": over > 0,
        "down": False,
        "nearest-half-up": 2 * over >= unit.nm,
        "nearest-half-down": 2 * over > unit.nm,
    }[rounding]
    return Length((whole + goes_up) * unit.nm)


def dimensional_weight(parcel: Parcel, rule: Dimensional) -> Mass | None:
    """Before rounding to a weight step; None where the volume is not over the threshold."""
    if rule.threshold is not None and rule.volume(parcel.volume_nm3) <= rule.threshold:
        return None
    weight = rule.volume(volume_nm3(*rule.rounded(parcel.sides))) * rule.counts(parcel) / rule.divisor
    return Mass.of_pounds(weight) if rule.unit == "in3/lb" else Mass(-(-weight * 10**12 // 1))


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
    by = "its actual weight" if greater is actual else f"its size, {_sum(parcel, rule)}"
    if weights.bulky is not None and billed < weights.bulky.billed and weights.bulky.applies(parcel):
        billed, by = weights.bulky.billed, "being large and light"
    return Billing(actual, dimensional, billed, f"billed {weigh(billed, weights)} by {by}{spared}")


def weigh(mass: Mass, weights: WeightRule) -> str:
    """A mass in the tariff's own words: pounds where it bills pounds, else kilos."""
    if weights.step.ng % Mass.of_pounds(Fraction(1, 16)).ng == 0:
        return f"{_number(mass.pounds)} lb"
    return f"{_number(Fraction(mass.ng, 10**12))} kg"


def _sum(parcel: Parcel, rule: Dimensional | None) -> str:
    assert rule is not None  # a size counts only under a rule
    shown = " x ".join(_number(Fraction(side.nm, rule.side_unit.nm)) for side in rule.rounded(parcel.sides))
    counts = rule.counts(parcel)
    odd = "" if counts == 1 else f" x {float(counts):g} as it is not rectangular"
    return f"{shown}{odd} / {_number(rule.divisor)}"


def _number(value: Fraction) -> str:
    """Whole, or to two decimals: for reading only."""
    return str(value) if value.denominator == 1 else f"{float(value):.2f}"
