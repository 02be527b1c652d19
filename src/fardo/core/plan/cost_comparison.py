"""Ways to send it side by side: what is least in each row of costs, and how much more each is than the cheapest."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from fardo.core.quantity import Money


@dataclass(frozen=True, slots=True)
class Row:
    """One row of costs, compared.

    Args:
        least: of each way whether it is the least, of none where all are alike.
        over: how much more than the least each is, None for the least.
        nothing: whether all are nothing.
    """

    least: tuple[bool, ...]
    over: tuple[Money | None, ...]
    nothing: bool


def side_by_side(amounts: Sequence[Money]) -> Row:
    """One row of costs. Raises BadInput for amounts of several currencies; an empty row is none."""
    lowest = min(amounts)
    alike = all(amount == lowest for amount in amounts)
    return Row(
        tuple(amount == lowest and not alike for amount in amounts),
        tuple(None if amount == lowest else amount - lowest for amount in amounts),
        not any(amount.minor for amount in amounts),
    )
