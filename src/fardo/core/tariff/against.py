"""What a carrier asks itself beside what its tariff comes to, kind of charge by kind of charge."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from fardo.core.quantity import Money
from fardo.core.quantity.money import total
from fardo.core.tariff.exchange import Exchange
from fardo.core.tariff.service import Quote


@dataclass(frozen=True, slots=True)
class Asks:
    """A line of what a carrier asks, in its currency.

    Args:
        kind: of charge, empty where it does not say.
    """

    kind: str
    what: str
    amount: Money


@dataclass(frozen=True, slots=True)
class KindOfCharge:
    """One kind, theirs and ours, in the shop's currency; None where there is none. `differs` where both are known."""

    what: str
    theirs: Money | None
    ours: Money | None
    differs: bool


@dataclass(frozen=True, slots=True)
class Against:
    """One line that a carrier asks, against the same of its tariff.

    Args:
        amount: theirs, in the shop's currency.
        more: than ours, less than nothing where it is less; None where there is no quote of ours.
    """

    amount: Money
    more: Money | None
    lines: tuple[KindOfCharge, ...]


def set_against(asks: Money, charges: Sequence[Asks], ours: Quote | None, exchange: Exchange) -> Against:
    """What a carrier asks, against what its tariff comes to.

    Args:
        asks: all that the carrier asks.
        charges: its lines, if it told any.
        ours: what the tariff comes to.
    """
    # In another currency every line is turned by itself, as our own are, and their sum is the amount.
    theirs = [Asks(line.kind, line.what, exchange.convert(line.amount)) for line in charges]
    amount = total([line.amount for line in theirs], exchange.currency) if theirs else exchange.convert(asks)
    more = amount - ours.amount if ours else None
    return Against(amount, more, _by_kind(theirs, ours))


def adds_up(asks: Money, charges: Sequence[Asks]) -> bool:
    """Whether its lines are its amount, or there are none."""
    return not charges or total([line.amount for line in charges], asks.currency) == asks


def _by_kind(theirs: Sequence[Asks], ours: Quote | None) -> tuple[KindOfCharge, ...]:
    """In our order and then theirs: what several parcels are charged is summed."""
    named: dict[str, str] = {}
    sums: dict[str, list[Money | None]] = {}
    own = [Asks(line.kind, line.what, line.amount) for line in ours.lines] if ours else []
    for side, lines in ((1, own), (0, theirs)):
        for line in lines:
            key = line.kind or line.what
            named.setdefault(key, line.what)
            pair = sums.setdefault(key, [None, None])
            so_far = pair[side]
            pair[side] = line.amount if so_far is None else so_far + line.amount
    return tuple(
        KindOfCharge(named[key], their, own_sum, ours is not None and their != own_sum)
        for key, (their, own_sum) in sums.items()
    )
