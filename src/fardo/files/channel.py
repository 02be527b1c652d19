"""Where the shop sells, and the label that a sale brings with it."""

from __future__ import annotations

import re
from fractions import Fraction
from typing import Annotated

from pydantic import Field

from fardo.core.goods.part import Extra
from fardo.core.plan.channel import Channel, SaleLabel
from fardo.core.plan.sale import Fees
from fardo.core.quantity import Mass, Money, Units
from fardo.core.quantity.money import total
from fardo.files.typed import ExtraEntry, Strict, Weight, to_mass, to_sizes


class SaleLabelEntry(Strict):
    """A label that the sale gave; it costs the seller nothing more."""

    carrier: str = Field(max_length=80)
    most_weight: Weight | None = Field(None, description="its cap")


class ChannelEntry(Strict):
    """Where the shop sells: which prices are open to such sales, and what goes with their parcels."""

    name: str = Field(min_length=1, max_length=80)
    programmes: list[Annotated[str, Field(max_length=40)]] = Field(
        default_factory=list, max_length=10, description="prices that only its sales are open to: marketplace"
    )
    label: SaleLabelEntry | None = Field(None, description="that its sales bring")
    inserts: list[ExtraEntry] = Field(default_factory=list, max_length=20, description="what goes into each parcel")
    note: str = Field("", max_length=300, description="how its parcels are packed")
    return_address: str = Field("", max_length=300, description="the shop's own unless given")
    fees: str = Field("", max_length=120, description="of a sale, in words")


def read_sale_label(entry: SaleLabelEntry, units: Units, path: str) -> SaleLabel:
    """Raises BadInput naming the field."""
    most = None if entry.most_weight is None else to_mass(entry.most_weight, units, f"{path}.most_weight")
    return SaleLabel(entry.carrier, most)


_PERCENT = re.compile(r"(\d{1,2}(?:[.,]\d{1,3})?)\s*%")
_FIXED = re.compile(r"(?:\+|\band\b)\s*(\d{1,6}(?:\.\d{1,3})?)(?!\s*%|[\d.,])")


def read_fees(words: str, currency: str) -> Fees | None:
    """Fees as they are written: every share of the sale, and what is added to it. None where they name no figure.

    >>> read_fees("8 % of the sale, 2.5 % for the payment + 0.30", "USD")
    Fees(share=Fraction(21, 200), fixed=Money(minor=30, currency='USD'))
    """
    shares = [Fraction(one.replace(",", ".")) / 100 for one in _PERCENT.findall(words)]
    fixed = [Money.read(one, currency) for one in _FIXED.findall(words)]
    if not (shares or fixed) or sum(shares) >= 1:
        return None
    return Fees(sum(shares, Fraction(0)), total(fixed, currency))


def read_channel(entry: ChannelEntry, units: Units, path: str) -> Channel:
    """Raises BadInput naming the field."""
    return Channel(
        entry.name, frozenset(entry.programmes),
        read_sale_label(entry.label, units, f"{path}.label") if entry.label else None,
        tuple(_insert(one, units, f"{path}.inserts[{n}]") for n, one in enumerate(entry.inserts)),
        entry.note, entry.return_address, entry.fees,
    )  # fmt: skip


def _insert(entry: ExtraEntry, units: Units, path: str) -> Extra:
    sizes = to_sizes(entry.size or "", units, f"{path}.size")
    weight = Mass(0) if entry.weight in (None, "") else to_mass(entry.weight or 0, units, f"{path}.weight", zero=True)
    return Extra(entry.name, sizes, weight, entry.placed(sizes))
