"""Money as whole minor units of one currency. Two currencies never mix: an amount of the wrong one is refused, also
where one is only held against the other.
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from fractions import Fraction
from functools import total_ordering

from iso4217 import Currency

from fardo.core.refusal import BadInput

_PLACES = {currency.code: currency.exponent for currency in Currency}
_DECIMAL = re.compile(r"\d{1,12}(?:\.(\d+))?")
_CURRENCY = re.compile(r"[A-Z]{3}")


@total_ordering
@dataclass(frozen=True, slots=True)
class Money:
    """An amount.

    Args:
        minor: whole minor units (cents).
        currency: three capital letters as in ISO 4217.

    >>> str(Money.read("31.84", "USD") + Money(16, "USD"))
    '32.00'
    """

    minor: int
    currency: str

    def __post_init__(self) -> None:
        if self.currency not in _PLACES and not _CURRENCY.fullmatch(self.currency):
            raise BadInput("not a currency", read=self.currency, allowed="three capital letters, such as USD")

    @classmethod
    def read(cls, text: str, currency: str) -> Money:
        """From a decimal string such as ``31.84``. Raises BadInput, also for parts of the smallest coin."""
        places = _places(currency)
        allowed = f"an amount such as {Money(1250, currency)}, with at most {places} decimal places"
        found = _DECIMAL.fullmatch(text.strip())
        if not found:
            raise BadInput("not an amount of money", read=text, allowed=allowed)
        exact = Fraction(text.strip()) * 10**places
        if exact.denominator != 1:
            raise BadInput("finer than the smallest coin", read=text, allowed=allowed)
        return cls(int(exact), currency)

    def __str__(self) -> str:
        places = _places(self.currency)
        sign, whole = ("-" if self.minor < 0 else ""), abs(self.minor)
        if places == 2:  # a page shows some three hundred of them
            return f"{sign}{whole // 100}.{whole % 100:02d}"
        return f"{sign}{whole // 10**places}" + (f".{whole % 10**places:0{places}d}" if places else "")

    def __add__(self, other: Money) -> Money:
        self._same(other)
        return Money(self.minor + other.minor, self.currency)

    def __sub__(self, other: Money) -> Money:
        self._same(other)
        return Money(self.minor - other.minor, self.currency)

    def __lt__(self, other: Money) -> bool:
        self._same(other)
        return self.minor < other.minor

    def share(self, of: Fraction) -> Money:
        """That share of it to the nearest minor unit, a half going up, as bills are written."""
        part, whole = of.numerator, of.denominator
        return Money((2 * self.minor * part + whole) // (2 * whole), self.currency)

    def saving_on(self, dearer: Money) -> int:
        """How much less it is, in per cent of what would have been paid; nothing where it is no less.

        >>> Money(77, "USD").saving_on(Money(138, "USD"))
        44
        """
        self._same(dearer)
        if self.minor >= dearer.minor or dearer.minor <= 0:
            return 0
        return round(Fraction(100 * (dearer.minor - self.minor), dearer.minor))

    def _same(self, other: Money) -> None:
        if other.currency != self.currency:
            raise BadInput("another currency", read=other.currency, allowed=self.currency)


def _places(currency: str) -> int:
    """Decimal places as ISO 4217 lists them; two for what it does not list, or lists without any."""
    places = _PLACES.get(currency)
    return 2 if places is None else places


def total(amounts: list[Money], currency: str) -> Money:
    """Their sum; nothing at all is zero of `currency`."""
    for amount in amounts:
        if amount.currency != currency:
            raise BadInput("another currency", read=amount.currency, allowed=currency)
    return Money(sum(amount.minor for amount in amounts), currency)
