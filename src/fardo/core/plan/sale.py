"""What a sale leaves: its price and the postage the buyer paid, less fees and what sending it costs in all."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from fardo.core.quantity import Money


@dataclass(frozen=True, slots=True)
class Fees:
    """What a channel keeps of a sale.

    Args:
        share: of the price and of the postage the buyer pays, as is usual (common practice).
        fixed: besides.
    """

    share: Fraction
    fixed: Money


@dataclass(frozen=True, slots=True)
class Sale:
    """What a thing sold for.

    Args:
        price: of the thing.
        postage: that the buyer paid; nothing where it went free of postage.
        fees: of its channel; None where there are none, or nobody said.
    """

    price: Money
    postage: Money
    fees: Fees | None = None

    @property
    def fee(self) -> Money:
        paid = self.price + self.postage
        return Money(0, paid.currency) if self.fees is None else paid.share(self.fees.share) + self.fees.fixed

    def left(self, cost: Money) -> Money:
        """What is left.

        Args:
            cost: of sending it in all: box, packing, postage.
        """
        return self.price + self.postage - self.fee - cost

    def postage_to_ask(self, cost: Money) -> Money:
        """The least postage that pays for sending it once the channel has kept its share of that."""
        share = self.fees.share if self.fees is not None else Fraction(0)
        return Money(-(-cost.minor // (1 - share)), cost.currency)
