"""Kinds of fill, and how much of one is fetched. Figures by the litre and by the piece are the shop's own."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from fardo.core.quantity import Mass, Money

FillForm = Literal["sheets", "pillows", "loose", "pads", "rolls", "block"]
FILL_FORMS: dict[FillForm, str] = {
    "sheets": "sheets, crumpled", "pillows": "air pillows", "loose": "loose fill, from a sack",
    "pads": "pads, folded", "rolls": "rolls along the edges", "block": "board or an empty box",
}  # fmt: skip
_PIECE = {"sheets": "sheet", "pillows": "pillow", "pads": "pad", "rolls": "roll"}
_TORN = ("sheets", "pads", "rolls")  # what is torn where less will do
_SHARES = (
    (Fraction(1, 4), "a quarter of a {}"), (Fraction(1, 3), "a third of a {}"), (Fraction(1, 2), "half a {}"),
    (Fraction(2, 3), "two thirds of a {}"), (Fraction(1), "a {}"),
)  # fmt: skip


@dataclass(frozen=True, slots=True)
class Fill:
    """A kind of fill that the shop stocks.

    Args:
        name: as the shop calls it.
        weight_per_litre: as stuffed in.
        price_per_100_litres: a litre costs less than the smallest coin.
        form: how it comes.
        each: litres that a sheet, a pillow, a pad or a sack fills, None where nobody said.
    """

    name: str
    weight_per_litre: Mass
    price_per_100_litres: Money
    form: FillForm = "sheets"
    each: Fraction | None = None

    def weight(self, litres: Fraction) -> Mass:
        """Rounded up to the nanogram."""
        return Mass(-(-(litres * self.weight_per_litre.ng) // 1))

    def price(self, litres: Fraction) -> Money:
        return self.price_per_100_litres.share(litres / Fraction(100))

    def taken(self, litres: Fraction) -> Fraction:
        """So many litres as they are taken up: whole pieces, or the share of one that is torn off.

        >>> Fill("crumpled paper", Mass(0), Money(0, "USD"), "sheets", Fraction(3)).taken(Fraction(10))
        Fraction(12, 1)
        """
        if self.each is None or self.form not in _PIECE:
            return litres
        if self._is_torn(litres, self.each):
            return next(most for most, _ in _SHARES if litres / self.each <= most) * self.each
        return -(-litres // self.each) * self.each

    def fetched(self, litres: Fraction) -> str:
        """So many litres of it in things one can fetch.

        >>> paper = Fill("crumpled paper", Mass(0), Money(0, "USD"), "sheets", Fraction(3))
        >>> paper.fetched(Fraction(10))
        '4 sheets of crumpled paper'
        >>> paper.fetched(Fraction(1, 2))
        'a quarter of a sheet of crumpled paper'
        """
        if self.form == "block":
            return self.name
        if self.form == "loose":
            return f"{litres_said(litres)} of {self.name}" + (f", {_sacks(litres / self.each)}" if self.each else "")
        if self.each is None:
            return f"{litres_said(litres)} of {self.name}"
        count, piece = self.taken(litres) / self.each, _PIECE[self.form]
        if self._is_torn(litres, self.each):
            return f"{_share(litres / self.each, piece)} of {self.name}"
        if self.name.endswith(f"{piece}s"):
            return f"{count} {self.name if count > 1 else self.name.removesuffix('s')}"
        return f"{count} {piece}{'s' if count > 1 else ''} of {self.name}"

    def _is_torn(self, litres: Fraction, each: Fraction) -> bool:
        """Whether less than a piece does, and it comes in pieces that tear."""
        return self.form in _TORN and litres * 3 <= each * 2


def litres_said(litres: Fraction) -> str:
    """Up at the last figure, as loose fill is sold by the litre everywhere.

    >>> litres_said(Fraction(1, 30))
    '0.1 litres'
    """
    return f"{-(-litres * 10 // 1) / 10:g} litres"


def _sacks(sacks: Fraction) -> str:
    whole, rest = divmod(sacks, 1)
    if not whole:
        return _share(rest, "sack")
    return f"{whole + (1 if rest else 0)} sacks" if rest or whole > 1 else "a sack"


def _share(share: Fraction, piece: str) -> str:
    return next(said for most, said in _SHARES if share <= most).format(piece)


def named(fills: Iterable[Fill], name: str) -> Fill | None:
    return next((fill for fill in fills if fill.name == name), None)
