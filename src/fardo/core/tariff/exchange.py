"""Quotes of carriers that reckon in another currency, in the shop's own by the shop's own rate.

Every line is converted by itself, a half cent going up, and the amount is their sum, so that the lines still add up.
"""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from fractions import Fraction

from fardo.core.quantity import Money
from fardo.core.tariff.charges import ChargeLine
from fardo.core.tariff.parcel import Parcel


@dataclass(frozen=True, slots=True)
class Exchange:
    """Rates between currencies.

    Args:
        currency: the shop's.
        rates: by the code of another, what one of it costs in the shop's.
    """

    currency: str
    rates: dict[str, Fraction] = field(default_factory=dict, hash=False)

    def knows(self, currency: str) -> bool:
        return currency == self.currency or currency in self.rates

    def declared(self, parcel: Parcel, currency: str) -> Parcel:
        """The parcel with its value in the carrier's currency, a part of the smallest coin going up."""
        if parcel.beside:
            beside = tuple(self.declared(one, currency) for one in parcel.beside)
            return replace(self.declared(replace(parcel, beside=()), currency), beside=beside)
        value = parcel.value
        if value is None or value.currency == currency:
            return parcel
        minor = Fraction(value.minor) / self.rates[currency]
        return replace(parcel, value=Money(-(-minor.numerator // minor.denominator), currency))

    def convert(self, amount: Money) -> Money:
        """An amount in the shop's currency, a half cent going up."""
        if amount.currency == self.currency:
            return amount
        return Money(amount.minor, self.currency).share(self.rates[amount.currency])

    def convert_line(self, line: ChargeLine) -> ChargeLine:
        """A line of a quote in the shop's currency, which tells what it was and at which rate."""
        was, rate = line.amount, self.rates[line.amount.currency]
        return replace(line, amount=self.convert(was), why=f"{line.why}; {was} {was.currency} at {float(rate):g}")
