"""Where a thing was sold, and what that brings with it: which prices are open to its parcel, a label, what goes in."""

from __future__ import annotations

from dataclasses import dataclass

from fardo.core.goods.part import Extra
from fardo.core.quantity import Mass

COUNTER = "counter"  # the rate plan that anybody pays who walks in
PREPAID = "prepaid"  # the rate plan of labels that a sale brings with it


@dataclass(frozen=True, slots=True)
class SaleLabel:
    """A label that the sale gave; it costs the seller nothing more.

    Args:
        carrier: whose it is.
        most_weight: its cap, None where it has none of its own.
    """

    carrier: str
    most_weight: Mass | None = None


@dataclass(frozen=True, slots=True)
class Channel:
    """Where the shop sells.

    Args:
        name: as the shop calls it.
        rate_plans: prices that only its sales are open to ("marketplace").
        label: that its sales bring, None where they bring none.
        inserts: what goes into each of its parcels.
        note: how its parcels are packed.
        return_address: of its parcels, nothing for the shop's own.
        fees: of a sale, in words.
    """

    name: str
    rate_plans: frozenset[str] = frozenset()
    label: SaleLabel | None = None
    inserts: tuple[Extra, ...] = ()
    note: str = ""
    return_address: str = ""
    fees: str = ""


def closed_to(channel: Channel | None, channels: tuple[Channel, ...]) -> frozenset[str]:
    """The rate plans that are open to sales of other channels only."""
    own = channel.rate_plans if channel is not None else frozenset()
    return frozenset(name for one in channels for name in one.rate_plans) - own
