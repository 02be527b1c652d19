"""Freight by density class: a price for every hundred pounds by class and zone, and a minimum.

The classes by density, lb/ft3, are those of the NMFC density scale of 2025 (published; from memory). Tariffs by weight
in kilos use the same classes.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from fractions import Fraction

from fardo.core.quantity import INCH, Money, volume_nm3
from fardo.core.refusal import NoAnswer
from fardo.core.tariff.charges.charge import Charge, ChargeLine, Consignment
from fardo.core.tariff.marks import Marks
from fardo.core.tariff.measure import WeightRule, weigh
from fardo.core.tariff.parcel import Parcel

# From so many pounds a cubic foot on; below the first it is class 400.
DENSITY_CLASSES: tuple[tuple[Fraction, str], ...] = (
    (Fraction(50), "50"), (Fraction(35), "55"), (Fraction(30), "60"), (Fraction(45, 2), "65"), (Fraction(15), "70"),
    (Fraction(12), "85"), (Fraction(10), "92.5"), (Fraction(8), "100"), (Fraction(6), "125"), (Fraction(4), "175"),
    (Fraction(2), "250"), (Fraction(1), "300"), (Fraction(0), "400"),
)  # fmt: skip
_FT3 = volume_nm3(INCH * 12, INCH * 12, INCH * 12)


def density_class(pounds: Fraction, nm3: int) -> tuple[str, Fraction]:
    """The class of what weighs and measures so much, and its density in lb/ft3.

    >>> density_class(Fraction(80), _FT3 * 10)[0], density_class(Fraction(1), _FT3 * 2)[0]
    ('100', '400')
    """
    density = pounds / Fraction(nm3, _FT3)
    return next(name for least, name in DENSITY_CLASSES if density >= least), density


@dataclass(frozen=True, slots=True)
class Freight(Charge):
    """Freight by class and weight.

    Args:
        zones: the columns.
        rows: by class, the price of a hundred pounds a column.
        minimum: it costs at least.
    """

    zones: tuple[str, ...]
    rows: tuple[tuple[str, tuple[Money, ...]], ...]
    minimum: Money

    def charge(self, sent: Consignment, before: tuple[ChargeLine, ...]) -> ChargeLine:
        name, density = density_class(sent.weight.pounds, sent.volume_nm3)
        prices = dict(self.rows).get(name)
        if prices is None:
            raise NoAnswer(f"has no price for class {name}")
        each = sent.price(self.zones, prices)
        amount = each.share(sent.billed.pounds / 100)
        weighs = weigh(sent.billed, sent.weights)
        why = f"{float(density):.2f} lb/ft3 is class {name}; {weighs} at {each} a hundred pounds"
        if amount < self.minimum:
            amount, why = self.minimum, f"{why}, at least {self.minimum}"
        return ChargeLine("postage", f"freight, class {name}, zone {sent.zone.zone}", amount, why)

    def marks(self, parcels: tuple[Parcel, ...]) -> Marks:
        """Where the density of the first, with all that is weighed and measured together with it, comes to a class."""
        pounds = sum((parcel.weight.pounds for parcel in parcels), Fraction(0))
        theirs = sum(parcel.volume_nm3 for parcel in parcels[1:])
        most = ((pounds / least * _FT3).__floor__() for least, _ in DENSITY_CLASSES if least)
        return Marks(volume=tuple(volume - theirs for volume in most))

    def look_over(self, weights: WeightRule) -> tuple[Iterable[str], ...]:
        listed = {row for row, _ in self.rows}
        return ([f"no row for class {code}" for _, code in DENSITY_CLASSES if code not in listed],)
